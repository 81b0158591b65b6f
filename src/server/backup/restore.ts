/** A backup brought back into a store: each property whole or not at all, judged at the door as anything from outside is. */
import { randomBytes } from 'node:crypto';
import type { Knex } from 'knex';
import { Type } from '../../core/base/type.js';
import type { PatchStep, Plan } from '../../core/plan/schema.js';
import { PARTS } from '../../core/parts/index.js';
import { MONITORED } from '../../core/rounds/monitored.js';
import { liftPlan } from '../../core/versions.js';
import { PatchSchema } from '../../formats/changeSchema.js';
import { FormatError, parseJson } from '../../formats/error.js';
import { openPlan, parsePlan } from '../../formats/planFile.js';
import { validate } from '../../formats/validate.js';
import { HASH, PHOTO_ROOM } from '../photos.js';
import { RECORDS, recordSchema } from '../records/kinds.js';
import { gridId } from '../plans/store.js';
import { breath } from '../turns.js';
import { sha256 } from '../hash.js';
import { unzipped, type Part } from './bundle.js';
import { replayed, taken } from './take.js';

/** What came of a property. `copy`: its id was taken by another state of it, which stays as it is. */
export interface Restored {
  readonly from: string;
  readonly id: string;
  readonly name: string;
  readonly as: 'new' | 'copy' | 'there already';
}

type Row = Record<string, unknown>;
const name = Type.String({ pattern: '^[A-Za-z0-9-]{1,64}$' });
const OwnSchema = Type.Object({ id: name, name: Type.String({ maxLength: 200 }), created_at: Type.String({ maxLength: 40 }) }, { additionalProperties: false }); // prettier-ignore
const ChangeSchema = Type.Object(
  {
    revision: Type.Integer({ minimum: 1 }),
    change_id: name,
    tab: name,
    base: Type.Integer({ minimum: 0 }),
    kind: Type.Union(['do', 'undo', 'redo', 'lift'].map((k) => Type.Literal(k))),
    of: Type.Optional(name),
    words: Type.String({ maxLength: 200 }),
    patch: Type.Union([PatchSchema, Type.Array(Type.Null(), { maxItems: 0 })]),
    inverse: Type.Union([PatchSchema, Type.Array(Type.Null(), { maxItems: 0 })]),
    at: Type.String({ maxLength: 40 }),
    who: Type.Optional(Type.String({ maxLength: 60 })),
  },
  { additionalProperties: false },
);
const SnapshotSchema = Type.Object({ revision: Type.Integer({ minimum: 0 }), plan: Type.Object({}) }, { additionalProperties: false }); // prettier-ignore
const MonitorSchema = Type.Object(
  {
    id: name,
    name: Type.String({ minLength: 1, maxLength: 60 }),
    kind: Type.Union(MONITORED.map((k) => Type.Literal(k))),
    line: Type.Optional(Type.String({ maxLength: 40 })),
    at_m: Type.Optional(Type.Number()),
    unit: Type.Optional(Type.String({ maxLength: 40 })),
    simulated: Type.Integer({ minimum: 0, maximum: 1 }),
    token_hash: Type.String({ pattern: '^[0-9a-f]{64}$' }),
    made_at: Type.String({ maxLength: 40 }),
    revoked_at: Type.Optional(Type.String({ maxLength: 40 })),
    heard_at: Type.Optional(Type.String({ maxLength: 40 })),
    heard: Type.Optional(Type.Number()),
    kept_at: Type.Optional(Type.String({ maxLength: 40 })),
    kept: Type.Optional(Type.Number()),
  },
  { additionalProperties: false },
);
const recordSchemas = new Map<string, object>();

/**
 * Brings the properties of a bundle into a store. One that stands there already, equal in every part, is left alone; one
 * that stands there otherwise is brought as a copy under an id of its own.
 * @param file of the same store
 * @throws FormatError for what is no sound bundle; nothing of it is brought then
 */
export async function restored(db: Knex, file: string, zip: Uint8Array): Promise<Restored[]> {
  const parts = unzipped(zip);
  const ids = [...new Set([...parts.keys()].map((path) => path.split('/')[0]!))];
  if (ids.length === 0) throw new FormatError('', 'there is no property in this backup');
  const read: Property[] = [];
  for (const id of ids) {
    read.push(propertyOf(id, parts));
    await breath();
  }
  const out: Restored[] = [];
  await db.transaction(async (trx) => {
    for (const p of read) out.push(await bring(trx, file, p, parts));
  });
  return out;
}

interface Property {
  readonly own: { id: string; name: string; created_at: string };
  readonly snapshots: readonly { revision: number; plan: Plan }[];
  readonly changes: readonly (Row & { revision: number; change_id: string; patch: PatchStep[] })[];
  readonly grids: readonly { id: string; body: string }[];
  readonly records: readonly { kind: string; table: string; rows: readonly Row[] }[];
  readonly photos: readonly { hash: string; content: Uint8Array }[];
  readonly monitors: readonly Row[];
}

/** A property of the bundle, judged. */
function propertyOf(id: string, parts: ReadonlyMap<string, Part>): Property {
  const own = (path: string) => parts.get(`${id}/${path}`);
  const text = (part: Part) => Buffer.from(part.bytes).toString('utf8');
  const json = <T>(path: string, schema: object): T => {
    const part = own(path);
    if (!part) throw new FormatError(`${id}/${path}`, 'is missing from the archive');
    return validate<T>(schema, parseJson(text(part)), `${id}/${path}`);
  };
  const rows = <T>(path: string, schema: object): T[] => {
    const part = own(path);
    if (!part) return [];
    const all = text(part).split('\n').filter(Boolean);
    return all.map((line, k) => validate<T>(schema, parseJson(line), `${id}/${path}, line ${k + 1}`)); // prettier-ignore
  };
  const property = json<Property['own']>('property.json', OwnSchema);
  if (property.id !== id) throw new FormatError(`${id}/property.json`, `is of "${property.id}"`);
  const snapshots = rows<Property['snapshots'][number]>('snapshots.ndjson', SnapshotSchema);
  const changes = rows<Property['changes'][number]>('history.ndjson', ChangeSchema);
  if (snapshots[0]?.revision !== 0) throw new FormatError(`${id}/snapshots.ndjson`, 'lacks the plan that it all began with'); // prettier-ignore
  changes.forEach((c, k) => {
    if (c.revision !== k + 1) throw new FormatError(`${id}/history.ndjson, line ${k + 1}`, 'is not the next change'); // prettier-ignore
  });
  const within = (prefix: string, suffix: string) =>
    [...parts.values()].flatMap((p) =>
      p.path.startsWith(`${id}/${prefix}`) && p.path.endsWith(suffix)
        ? [{ part: p, name: p.path.slice(id.length + 1 + prefix.length, -suffix.length) }]
        : [],
    );
  const grids = within('grids/', '.json').map(({ part, name: grid }) => {
    const body = text(part);
    if (gridId(body) !== grid) throw new FormatError(part.path, 'is not the ground that its name says'); // prettier-ignore
    return { id: grid, body };
  });
  // The history must lead from each plan that was kept to the next, and the newest must be one that the door lets in.
  snapshots.slice(1).forEach(({ revision, plan }, k) => {
    const led = replayed(snapshots.slice(0, k + 1), changes.slice(0, revision));
    if (JSON.stringify(led) !== JSON.stringify(plan))
      throw new FormatError(`${id}/history.ndjson`, `does not lead to the plan as it stood after change ${revision}`); // prettier-ignore
  });
  const plan = replayed(snapshots, changes);
  openPlan(liftPlan(plan, PARTS), new Set(grids.map((g) => g.id)));
  const shown = own('plan.json');
  if (shown) parsePlan(text(shown));

  const records = Object.entries(RECORDS).flatMap(([kind, { table, ...of }]) => {
    let schema = recordSchemas.get(kind);
    if (!schema) recordSchemas.set(kind, (schema = recordSchema({ table, ...of })));
    const fields = Object.keys(of.fields);
    const raw = rows<Row>(`records/${kind}.ndjson`, Type.Object({}));
    raw.forEach((row, k) => {
      const { saved_at, ...rest } = row;
      const where = `${id}/records/${kind}.ndjson, line ${k + 1}`;
      if (typeof saved_at !== 'string' || saved_at.length > 40) throw new FormatError(where, 'lacks when it was saved'); // prettier-ignore
      // What nobody said is not written out; true and false stand as the store keeps them.
      const filled = { ...Object.fromEntries(fields.map((f) => [f, null])), ...rest };
      const spoken = Object.fromEntries(Object.entries(filled).flatMap(([key, v]) => (v === null && (key in OPTIONAL) ? [] : [[key, truth(of.fields[key], key, v)]]))); // prettier-ignore
      validate(schema, fitting(spoken, of.fields), where);
    });
    return raw.length > 0 ? [{ kind, table, rows: raw }] : [];
  });
  const photos = within('photos/', '.jpg').map(({ part, name: hash }) => {
    if (!HASH.test(hash) || sha256(part.bytes) !== hash) throw new FormatError(part.path, 'is not the picture that its name says'); // prettier-ignore
    if (part.bytes.length > PHOTO_ROOM) throw new FormatError(part.path, 'is too large');
    return { hash, content: part.bytes };
  });
  const monitors = rows<Row>('monitors.ndjson', MonitorSchema);
  return { own: property, snapshots, changes, grids, records, photos, monitors };
}

/** Fields that a record need not have, whatever its kind. */
const OPTIONAL: Readonly<Record<string, true>> = { corrects: true, void: true };

/** True and false as the schema wants them; the store has 1 and 0. */
function truth(schema: unknown, key: string, value: unknown): unknown {
  const of = schema as { type?: string; anyOf?: { type?: string }[] } | undefined;
  const boolean = key === 'void' || [of, ...(of?.anyOf ?? [])].some((s) => s?.type === 'boolean');
  return boolean && typeof value === 'number' ? value === 1 : value;
}

/** Without the nulls of fields that may be left out, and without `void: false`, which the door does not want. */
function fitting(record: Row, fields: Readonly<Record<string, unknown>>): Row {
  return Object.fromEntries(
    Object.entries(record).filter(([key, v]) => {
      if (key === 'void') return v === true;
      const schema = fields[key] as { anyOf?: { type?: string }[] } | undefined;
      return v !== null || (schema?.anyOf ?? []).some((s) => s.type === 'null');
    }),
  );
}

async function bring(trx: Knex, file: string, p: Property, parts: ReadonlyMap<string, Part>): Promise<Restored> {
  const there = await trx('property').where({ id: p.own.id }).first('id');
  if (there && equal(file, p.own.id, parts)) return { from: p.own.id, id: p.own.id, name: p.own.name, as: 'there already' };
  const id = there ? `p${randomBytes(6).toString('hex')}` : p.own.id;
  // Ids of changes and records are unique in a store: a copy has its own, made from theirs.
  const renamed = (old: unknown): unknown =>
    there && typeof old === 'string' ? sha256(`${id} ${old}`).slice(0, 32) : old;
  await trx('property').insert({ ...p.own, id });
  for (const g of p.grids) await trx('grid').insert(g).onConflict('id').ignore();
  const put = async (table: string, rows: readonly Row[]) => {
    if (rows.length > 0) await trx.batchInsert(table, rows.map((r) => ({ ...r, property_id: id })), 50);
  };
  await put('snapshot', p.snapshots.map((s) => ({ revision: s.revision, plan: JSON.stringify(s.plan) })));
  await put('change', p.changes.map((c) => ({ ...c, change_id: renamed(c.change_id), of: renamed(c['of'] ?? null), patch: JSON.stringify(c.patch), inverse: JSON.stringify(c['inverse']) })));
  // Row by row where one may correct another: what is corrected stands before it.
  for (const { table, rows } of p.records)
    await put(table, rows.map((r) => ({ ...r, id: renamed(r['id']), ...(r['corrects'] === undefined ? { corrects: null } : { corrects: renamed(r['corrects']) }) })));
  for (const { hash, content } of p.photos)
    await trx('photo').insert({ property_id: id, hash, size: content.length, content: Buffer.from(content), saved_at: new Date().toISOString() });
  // A token opens one door: a copy has no monitors.
  if (!there) await put('monitor', p.monitors);
  return { from: p.own.id, id, name: p.own.name, as: there ? 'copy' : 'new' };
} // prettier-ignore

/** Whether the store has the property exactly as the bundle has it. */
function equal(file: string, id: string, parts: ReadonlyMap<string, Part>): boolean {
  const mine = [...taken(file, [id], { derived: false })];
  const theirs = [...parts.values()].filter((part) => part.path.startsWith(`${id}/`) && !part.derived); // prettier-ignore
  return mine.length === theirs.length && mine.every((m) => parts.has(m.path) && Buffer.compare(m.bytes, parts.get(m.path)!.bytes) === 0); // prettier-ignore
}
