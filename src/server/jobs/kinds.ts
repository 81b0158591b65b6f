/**
 * Work that may be long, large or hostile: it runs in a process of its own (worker.ts), within limits,
 * and never in the one that serves. Each job takes plain data and gives text, so that the server only
 * passes it on.
 */
import type { Static } from '@sinclair/typebox';
import { Type } from '../../core/base/type.js';
import { evaluate } from '../../core/evaluate.js';
import { catalogue } from '../../core/plan/shipped.js';
import { summaryOf } from '../../core/summary.js';
import { groundOf } from '../../core/terrain/ground.js';
import { heightRange } from '../../core/terrain/relief.js';
import type { Proposed } from '../../formats/change.js';
import { ProposedSchema } from '../../formats/changeSchema.js';
import { FormatError, parseJson } from '../../formats/error.js';
import { readGround, readGroundTiff } from '../../formats/ground.js';
import { openPlan } from '../../formats/planFile.js';
import { soundOrigin, type Origin } from '../../formats/projection.js';
import { validate } from '../../formats/validate.js';
import { readWalked, WALKED_FORMATS } from '../../formats/walked.js';
import { runCase } from '../calc.js';
import { joinDatabase } from '../database.js';
import { exportAs } from '../exports.js';
import { planStore, type PlanStore } from '../plans/store.js';

export interface Limits {
  /** Work of a processor that any input has, s, and what each megabyte of it adds. */
  readonly seconds: number;
  readonly secondsPerMegabyte: number;
  /** Resident memory of the process. */
  readonly megabytes: number;
  /** Length of what comes back. */
  readonly output: number;
}

export interface Job<Input> {
  readonly limits: Limits;
  run(input: Input): Promise<Outcome> | Outcome;
}

/** Parts of an answer, each plain text. */
export type Outcome = Readonly<Record<string, string>>;

const job = <Input>(limits: Limits, run: Job<Input>['run']): Job<Input> => ({ limits, run });

const MB = 1024 * 1024;
const FILE: Limits = { seconds: 4, secondsPerMegabyte: 0.5, megabytes: 1200, output: 80 * MB };
/** A case for a calculator may be small and long to work out. */
const CASE: Limits = { seconds: 12, secondsPerMegabyte: 1, megabytes: 1200, output: 40 * MB };
const STORED: Limits = { seconds: 30, secondsPerMegabyte: 0, megabytes: 2000, output: 200 * MB };

const OriginSchema = Type.Union([
  Type.Null(),
  Type.Object({
    proj: Type.String({ minLength: 4, maxLength: 300 }),
    x: Type.Number({ minimum: -1e9, maximum: 1e9 }),
    y: Type.Number({ minimum: -1e9, maximum: 1e9 }),
  }),
]);

const ReferenceSchema = Type.Union([
  Type.Literal('guess'),
  Type.Literal('geographic'),
  Type.Literal('local'),
  Type.Object({ projection: Type.String({ maxLength: 300 }) }),
]);

const WalkedBody = Type.Object({
  format: Type.Union(WALKED_FORMATS.map((f) => Type.Literal(f))),
  text: Type.Optional(Type.String()),
  base64: Type.Optional(Type.String({ description: 'bytes of a zipped shapefile' })),
  origin: OriginSchema,
  reference: Type.Optional(ReferenceSchema),
});

const GroundBody = Type.Object({
  format: Type.Union([Type.Literal('asc'), Type.Literal('csv'), Type.Literal('tif')]),
  text: Type.Optional(Type.String()),
  base64: Type.Optional(Type.String({ description: 'bytes of a GeoTIFF' })),
  reference: ReferenceSchema,
  origin: OriginSchema,
});

/** A request body: bytes as they came, so that the server need not look at them. */
type Body = string | Uint8Array;
const parsed = (body: Body): unknown =>
  parseJson(typeof body === 'string' ? body : Buffer.from(body).toString('utf8'));

/** A file that came as text or as base64. @throws FormatError when it came as neither */
function contentOf(body: { text?: string; base64?: string }): string | Uint8Array {
  if (body.text !== undefined) return body.text;
  if (body.base64 !== undefined) return Buffer.from(body.base64, 'base64');
  throw new FormatError('text', 'the file is missing');
}
const bytesOf = (content: string | Uint8Array): Uint8Array =>
  typeof content === 'string' ? Buffer.from(content, 'latin1') : content;
const textOf = (content: string | Uint8Array): string =>
  typeof content === 'string' ? content : Buffer.from(content).toString('utf8');

const originOf = (origin: Origin | null): Origin | null => origin && soundOrigin(origin);

/** Mends that a report tries: more would take longer than anybody waits. */
const MOST_MENDS = 100;

/** Does something with the store that the server has open too. */
async function within<T>(file: string, run: (plans: PlanStore) => Promise<T>): Promise<T> {
  const db = joinDatabase(file);
  try {
    return await run(planStore(db));
  } finally {
    await db.destroy();
  }
}

/** A property of the store with its ground. @throws FormatError when there is none */
const stored = (file: string, id: string) =>
  within(file, async (plans) => {
    const opened = await plans.withGround(id);
    if (!opened) throw new FormatError('', 'no such property');
    return opened;
  });

export const JOBS = {
  /** One calculator. */
  calc: job<{ body: Body; kind: string | null }>(CASE, ({ body, kind }) => {
    const value = parsed(body);
    const inputs = (value as { inputs?: unknown } | null)?.inputs ?? value;
    return { text: JSON.stringify(runCase(kind === null ? value : { kind, inputs })) };
  }),

  /** A walked file into lines of local metres. */
  walked: job<{ body: Body }>(FILE, ({ body }) => {
    const b = validate<Static<typeof WalkedBody>>(WalkedBody, parsed(body));
    const { format, origin, reference } = b;
    return { text: JSON.stringify(readWalked(format, contentOf(b), originOf(origin), reference)) };
  }),

  /** A ground file into a grid, kept in the store. */
  ground: job<{ body: Body; file: string }>(FILE, async ({ body, file }) => {
    const b = validate<Static<typeof GroundBody>>(GroundBody, parsed(body));
    const content = contentOf(b);
    const origin = originOf(b.origin);
    const {
      grid,
      origin: home,
      as,
    } = b.format === 'tif'
      ? await readGroundTiff(bytesOf(content), b.reference, origin)
      : readGround(b.format, textOf(content), b.reference, origin);
    const id = await within(file, (plans) => plans.putGrid(grid));
    const { cols, rows, cell_m } = grid;
    const [low_m, high_m] = heightRange(grid);
    return { text: JSON.stringify({ id, origin: home, cols, rows, cell_m, low_m, high_m, as }) };
  }),

  /** A plan file into a new property of the store. */
  create: job<{ body: Body; file: string }>(FILE, ({ body, file }) =>
    within(file, async (plans) => {
      const value = parsed(body) as { ground?: { kind?: string; id?: unknown } } | null;
      const id = value?.ground?.kind === 'grid' ? value.ground.id : null;
      const known = typeof id === 'string' && (await plans.gridBody(id)) !== null ? [id] : [];
      const made = await plans.create(openPlan(value, new Set(known)));
      return { text: JSON.stringify({ id: made }) };
    }),
  ),

  /** A large change of a property of the store; what came of it, null without such a property. */
  commit: job<{ body: Body; file: string; id: string; who: string }>(
    STORED,
    ({ body, file, id, who }) =>
      within(file, async (plans) => {
        const change = validate<Proposed>(ProposedSchema, parsed(body));
        return { text: JSON.stringify(await plans.commit(id, change, who)) };
      }),
  ),

  /** The report of a property of the store; `mends` of its findings tried, as many as may be where not said. */
  report: job<{ file: string; id: string; mends?: number }>(STORED, async ({ file, id, mends }) => {
    const { plan, grids } = await stored(file, id);
    return {
      text: JSON.stringify(
        evaluate(plan, groundOf(plan, grids), catalogue, { mends: mends ?? MOST_MENDS }),
      ),
    };
  }),

  /** A property of the store in a few figures. */
  summary: job<{ file: string; id: string }>(STORED, async ({ file, id }) => {
    const { plan, grids } = await stored(file, id);
    return { text: JSON.stringify(summaryOf(plan, grids)) };
  }),

  /** A property of the store in one of its formats. */
  export: job<{ file: string; id: string; format: string; only?: string }>(
    STORED,
    async ({ file, id, format, only }) => {
      const made = exportAs(format, await stored(file, id), only);
      return { text: made.text, type: made.type, name: made.file };
    },
  ),
} as const;

export type JobName = keyof typeof JOBS;
export type InputOf<N extends JobName> = (typeof JOBS)[N] extends Job<infer Input> ? Input : never;
