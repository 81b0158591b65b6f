/**
 * The plan document: one per property. The schema is the single definition; the types below are
 * read from it. SI units, named in the keys; geometry in local metres east and north of `origin`.
 */
import type { Static } from '@sinclair/typebox';
import { Type } from '../base/type.js';
import { KEYS, merged, type PartKeys } from '../parts/keys.js';
import type { PaddockSchema, ThingSchema, THING_KINDS } from '../parts/land/planKeys.js';
import type { DesignSchema, StrandSchema } from '../parts/strands/planKeys.js';
import type { AssemblySchema, EndPlaceSchema } from '../parts/ends/keys.js';
import type { EnergiserSchema } from '../parts/power/keys.js';
import type { GateSchema } from '../parts/gates/keys.js';
import type { LevelSchema } from '../parts/ground/keys.js';
import type { PinSchema, PlacedPostSchema } from '../parts/posts/keys.js';
import type { BreakTestSchema, OwnWireSchema } from '../parts/wire/keys.js';
import { byId, closed, id, metres, words } from './schemaParts.js';

export { THING_KINDS } from '../parts/land/planKeys.js';
export { DEMANDS, type Demand } from '../parts/strands/planKeys.js';

/** Version of the plans that this program writes; older ones are brought up to it (versions.ts). */
export const VERSION = 2;

export const VertexSchema = Type.Object(
  {
    id,
    e: metres,
    n: metres,
    kind: Type.Union([Type.Literal('end'), Type.Literal('corner'), Type.Literal('bend')], {
      description: 'end or corner: the wire is strained off here; bend: it runs through',
    }),
  },
  closed,
);

/** What a line is by itself; its parts add the rest. */
const LINE = {
  id,
  name: words(80),
  vertices: Type.Array(VertexSchema, { minItems: 2, maxItems: 20000 }),
  locked: Type.Optional(Type.Boolean({ description: 'its shape is not to be changed' })),
};

const lineOf = (parts: readonly PartKeys[]) =>
  Type.Object({ ...LINE, ...merged(parts, 'plan', 'line') }, closed);

export const GridSchema = Type.Object(
  {
    east0_m: metres,
    north0_m: metres,
    cell_m: Type.Number({ exclusiveMinimum: 0, maximum: 10000 }),
    cols: Type.Integer({ minimum: 2, maximum: 5000 }),
    rows: Type.Integer({ minimum: 2, maximum: 5000 }),
    z_m: Type.Array(Type.Union([Type.Number(), Type.Null()]), {
      description: 'heights, row by row from the south, west to east; null where unknown',
    }),
  },
  { ...closed, description: 'square grid of ground heights; east0, north0: the south-west value' },
);

const AcceptedSchema = Type.Object(
  {
    note: Type.String({ minLength: 1, maxLength: 400 }),
    who: words(80),
    at: Type.String({ maxLength: 40, description: 'when, ISO 8601' }),
    kind: Type.Union([Type.Literal('stop'), Type.Literal('mend'), Type.Literal('confirm')]),
    badness: Type.Union([Type.Number(), Type.Null()]),
  },
  { ...closed, description: 'as it was found then: when it becomes worse it comes back' },
);

/** What a plan is by itself. */
const PLAN = {
  format: Type.Literal('anabatic-plan'),
  name: Type.String({ minLength: 1, maxLength: 80 }),
  invented: Type.Optional(Type.Boolean({ description: 'everything in it is made up' })),
  units: Type.Union([Type.Literal('metric'), Type.Literal('imperial')]),
  currency: Type.String({ pattern: '^[A-Z]{3}$' }),
  origin: Type.Object(
    {
      proj: Type.String({ minLength: 4, maxLength: 300, description: 'proj definition, metres' }),
      x: Type.Number(),
      y: Type.Number(),
    },
    { ...closed, description: 'local (e, n) is (x + e, y + n) in this projection' },
  ),
  ground: Type.Union([
    Type.Object({ kind: Type.Literal('flat'), z_m: metres }, closed),
    Type.Object({ kind: Type.Literal('grid'), id }, closed),
  ]),
  grids: Type.Optional(byId(GridSchema)),
  soil: words(40),
  overrides: Type.Record(
    Type.String({ maxLength: 120 }),
    Type.Object({ value: Type.Number(), note: Type.Optional(words(400)) }, closed),
    { description: 'catalogue figures that this property replaces, by path' },
  ),
  accepted: Type.Optional(
    Type.Record(Type.String({ maxLength: 200 }), AcceptedSchema, {
      description: 'findings that somebody has looked at and lets be, by their id',
    }),
  ),
};

/** The plan's schema with the keys of these parts. */
export const planSchemaOf = (parts: readonly PartKeys[] = KEYS, version: number = VERSION) =>
  Type.Object(
    {
      ...PLAN,
      version: Type.Literal(version),
      lines: byId(lineOf(parts)),
      ...merged(parts, 'plan', 'property'),
    },
    {
      ...closed,
      $id: `anabatic-plan-${version}`,
      title: `Anabatic plan, version ${version}`,
      description: 'A property with its fences. SI units, named in the keys.',
    },
  );

export const PlanSchema = planSchemaOf();

export type Plan = Static<typeof PlanSchema>;
/** How the work is planned. */
export type BuildPlan = NonNullable<Plan['build']>;
export type Line = Plan['lines'][string];
export type Vertex = Static<typeof VertexSchema>;
export type Strand = Static<typeof StrandSchema>;
export type Design = Static<typeof DesignSchema>;
export type Gate = Static<typeof GateSchema>;
export type Energiser = Static<typeof EnergiserSchema>;
export type Assembly = Static<typeof AssemblySchema>;
export type EndPlace = Static<typeof EndPlaceSchema>;
export type Pin = Static<typeof PinSchema>;
export type PlacedPost = Static<typeof PlacedPostSchema>;
export type OwnWire = Static<typeof OwnWireSchema>;
export type BreakTest = Static<typeof BreakTestSchema>;
export type Level = Static<typeof LevelSchema>;
export type Thing = Static<typeof ThingSchema>;
export type ThingKind = (typeof THING_KINDS)[number];
export type Paddock = Static<typeof PaddockSchema>;
export type Grid = Static<typeof GridSchema>;
export type Duty = Strand['duty'];
export type Resistance = Plan['sizing']['resistance'];
/** A place on the map, local metres. */
export interface Point {
  readonly e: number;
  readonly n: number;
}
/** One step of an RFC 6902 JSON Patch. */
export interface PatchStep {
  op: 'add' | 'remove' | 'replace';
  path: string;
  value?: unknown;
  /** Of an `add` into a table: the key that it stands before, where it is still there. */
  before?: string;
}
