/**
 * Devices on the fence that report a reading by themselves. What they report goes into the log as a reading at their
 * place; of a value that stands still one a day is kept, so that a year of reports leaves the log quick.
 */
import { randomBytes, randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { Type } from '../core/base/type.js';
import { deviceNote } from '../core/rounds/logged.js';
import { MONITORED, type Monitor } from '../core/rounds/monitored.js';
import { FormatError } from '../formats/error.js';
import { validate } from '../formats/validate.js';
import { limiter } from './access/limits.js';
import { sha256 } from './hash.js';
import type { RecordStore } from './records/store.js';

type Row = Monitor & {
  readonly property_id: string;
  readonly token_hash: string;
  readonly kept: number | null;
  readonly kept_at: string | null;
};

/** What came of a report: in the log, heard alone since nothing moved, too often, or nobody known. */
export type Heard = 'kept' | 'heard' | 'too often' | 'unknown';

/** Most monitors of a property that are not taken back. */
const MOST = 100;
/** A reading that moved by more than this share is kept at once; one that did not, once a day. */
const MOVED = 0.1;
const DAY_MS = 86_400_000;
/** Reports that may come at once, of a device that had no coverage; then one so often, ms. */
const BURST = 60;
const EVERY_MS = 10_000;
/** A device's clock may be ahead by so much, and its report so old, ms. */
const AHEAD_MS = 5 * 60_000;
const OLDEST_MS = 60 * DAY_MS;

const id = Type.Union([Type.Null(), Type.String({ minLength: 1, maxLength: 40 })]);
const AskedSchema = Type.Object(
  {
    name: Type.String({ minLength: 1, maxLength: 60 }),
    kind: Type.Union(MONITORED.map((k) => Type.Literal(k))),
    line: id,
    at_m: Type.Union([Type.Null(), Type.Number({ minimum: 0, maximum: 1e7 })]),
    unit: id,
    simulated: Type.Boolean(),
  },
  { additionalProperties: false },
);
/** What a monitor sends. */
export const ReportSchema = Type.Object(
  {
    value: Type.Number({ minimum: 0, maximum: 100_000, description: 'V' }),
    time: Type.Optional(Type.String({ maxLength: 40, description: 'ISO 8601 with its offset; left out: now' })),
    id: Type.Optional(Type.String({ pattern: '^[A-Za-z0-9-]{8,64}$', description: 'of the report: sent twice, it is kept once' })),
  },
  { additionalProperties: false },
); // prettier-ignore

/** The monitors of one database. @param now ms, for tests */
export function monitorStore(db: Knex, records: RecordStore, now: () => number = Date.now) {
  const wait = limiter({ burst: BURST, every_ms: EVERY_MS }, now);

  return {
    /** Those of a property, the oldest first; null when there is no such property. */
    async list(property: string): Promise<readonly Monitor[] | null> {
      if (!(await db('property').where({ id: property }).first('id'))) return null;
      const rows = await db<Row>('monitor').where({ property_id: property }).orderBy('made_at');
      return rows.map(plain);
    },

    /**
     * Makes one. Its token is told this once and never again.
     * @returns null when there is no such property
     * @throws FormatError when it does not fit, or there are too many
     */
    async make(property: string, value: unknown): Promise<{ monitor: Monitor; token: string } | null> {
      const asked = validate<Omit<Monitor, 'id'>>(AskedSchema, value);
      if ((asked.line === null) === (asked.unit === null))
        throw new FormatError('/line', 'stands on a line or at a unit, one of the two');
      if ((asked.line === null) !== (asked.at_m === null))
        throw new FormatError('/at_m', 'goes with a line');
      if (asked.line !== null && asked.kind !== 'volts')
        throw new FormatError('/kind', 'on a line is volts; earth and battery are at a unit');
      const token = randomBytes(32).toString('base64url');
      return db.transaction(async (trx) => {
        if (!(await trx('property').where({ id: property }).first('id'))) return null;
        const standing = await trx('monitor').where({ property_id: property, revoked_at: null });
        if (standing.length >= MOST) throw new FormatError('', `a property has at most ${MOST} monitors`);
        const row = { ...asked, id: randomUUID(), property_id: property, token_hash: sha256(token), made_at: new Date(now()).toISOString() };
        await trx('monitor').insert(row);
        return { monitor: plain((await trx<Row>('monitor').where({ id: row.id }).first())!), token };
      });
    },

    /** Takes its token back: it is heard no more; what it reported stays. False when there is no such one. */
    async revoke(property: string, monitor: string): Promise<boolean> {
      const done = await db('monitor')
        .where({ id: monitor, property_id: property, revoked_at: null })
        .update({ revoked_at: new Date(now()).toISOString() });
      return done > 0;
    },

    /**
     * Takes a report of whoever has the token.
     * @throws FormatError when it does not fit, or its time cannot be
     */
    async hear(token: string, value: unknown): Promise<Heard> {
      const row = await db<Row>('monitor').where({ token_hash: sha256(token), revoked_at: null }).first();
      if (!row) return 'unknown';
      if (wait(row.id) > 0) return 'too often';
      const report = validate<{ value: number; time?: string; id?: string }>(ReportSchema, value);
      const at = report.time === undefined ? now() : Date.parse(report.time);
      if (Number.isNaN(at) || (report.time !== undefined && !/(Z|[+-]\d{2}:\d{2})$/.test(report.time)))
        throw new FormatError('/time', 'is no time with its offset');
      if (at > now() + AHEAD_MS) throw new FormatError('/time', 'lies ahead: the clock of the monitor is wrong');
      if (at < now() - OLDEST_MS) throw new FormatError('/time', 'is older than 60 days: the clock of the monitor is wrong');
      const time = new Date(at).toISOString();
      const newer = row.heard_at === null || time >= row.heard_at;
      if (newer) await db('monitor').where({ id: row.id }).update({ heard: report.value, heard_at: time });
      const still =
        row.kept !== null &&
        row.kept_at !== null &&
        Math.abs(report.value - row.kept) <= MOVED * Math.max(row.kept, 1) &&
        Math.abs(at - Date.parse(row.kept_at)) < DAY_MS;
      if (still) return 'heard';
      await records.put(row.property_id, 'readings', {
        // A device may not choose the name of a record of somebody else: its own names are told apart by its id.
        id: report.id ? sha256(`${row.id} ${report.id}`) : randomUUID(),
        time,
        who: row.name,
        note: deviceNote('monitor', Boolean(row.simulated)),
        kind: row.kind,
        value: report.value,
        line: row.line,
        at_m: row.at_m,
        spot: null,
        unit: row.unit,
      });
      if (newer) await db('monitor').where({ id: row.id }).update({ kept: report.value, kept_at: time });
      return 'kept';
    },
  };
} // prettier-ignore

export type MonitorStore = ReturnType<typeof monitorStore>;

const plain = ({ id, name, kind, line, at_m, unit, simulated, made_at, revoked_at, heard, heard_at }: Row): Monitor =>
  ({ id, name, kind, line, at_m, unit, simulated: Boolean(simulated), made_at, revoked_at, heard, heard_at }); // prettier-ignore
