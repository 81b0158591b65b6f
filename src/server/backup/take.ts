/** What a backup holds of each property, read in one go: what is written meanwhile is in the next one. */
import { strToU8 } from 'fflate';
import Database from 'better-sqlite3';
import Papa from 'papaparse';
import { catalogue } from '../../core/plan/shipped.js';
import { ownCatalogue } from '../../core/plan/ownCatalogue.js';
import type { Grid, PatchStep, Plan } from '../../core/plan/schema.js';
import { PARTS } from '../../core/parts/index.js';
import { liftPlan } from '../../core/versions.js';
import { plainCell } from '../../formats/csv.js';
import { FormatError } from '../../formats/error.js';
import { applyPatch } from '../../formats/patch.js';
import { pricesCsv } from '../../formats/priceCsv.js';
import { exportAs } from '../exports.js';
import { RECORDS } from '../records/kinds.js';
import type { Part } from './bundle.js';

type Row = Record<string, unknown>;

/**
 * The parts of some properties of a store, of all where none is named.
 * @param derived what is made for people and other programs too
 * @throws FormatError when there is no property of such an id
 */
export function* taken(
  file: string,
  only?: readonly string[],
  { derived = true } = {},
): Generator<Part> {
  const db = new Database(file, { readonly: true, fileMustExist: true });
  try {
    // One look at everything: writers go on beside it.
    db.exec('begin');
    const all = db.prepare('select id, name, created_at from property order by created_at, id').all() as { id: string; name: string; created_at: string }[]; // prettier-ignore
    for (const id of only ?? [])
      if (!all.some((p) => p.id === id)) throw new FormatError(id, 'no such property');
    for (const p of all) if (!only || only.includes(p.id)) yield* property(db, p, derived);
  } finally {
    db.close();
  }
}

const lines = (rows: Iterable<unknown>): Uint8Array => {
  let text = '';
  for (const row of rows) text += `${JSON.stringify(row)}\n`;
  return strToU8(text);
};

const OWN = ['seq', 'property_id'];
/** A row without what is the store's alone. */
function plainRow(row: Row): Row {
  return Object.fromEntries(Object.entries(row).filter(([key, v]) => v !== null && !OWN.includes(key))); // prettier-ignore
}

function* property(db: Database.Database, own: { id: string }, derived: boolean): Generator<Part> {
  // prettier-ignore
  const { id } = own;
  const at = (path: string) => `${id}/${path}`;
  const rows = (sql: string): Row[] => db.prepare(sql).all(id) as Row[];
  yield { path: at('property.json'), bytes: strToU8(JSON.stringify(own)) };

  const snapshots = rows('select revision, plan from snapshot where property_id = ? order by revision').map((r) => ({ revision: Number(r['revision']), plan: JSON.parse(r['plan'] as string) as Plan })); // prettier-ignore
  const changes = rows('select * from change where property_id = ? order by revision').map((r) => ({ ...plainRow(r), patch: JSON.parse(r['patch'] as string) as PatchStep[], inverse: JSON.parse(r['inverse'] as string) as PatchStep[] }) as unknown as { revision: number; patch: PatchStep[] }); // prettier-ignore
  const [snaps, history] = [lines(snapshots), lines(changes)];
  yield { path: at('snapshots.ndjson'), bytes: snaps };
  yield { path: at('history.ndjson'), bytes: history };

  const grids: Record<string, Grid> = {};
  const named = new Set([snaps, history].flatMap((b) => Buffer.from(b).toString('utf8').match(/(?<=")g[0-9a-f]{20}(?=")/g) ?? [])); // prettier-ignore
  for (const grid of [...named].sort()) {
    const body = (db.prepare('select body from grid where id = ?').get(grid) as { body: string } | undefined)?.body; // prettier-ignore
    if (body === undefined) continue;
    grids[grid] = JSON.parse(body) as Grid;
    yield { path: at(`grids/${grid}.json`), bytes: strToU8(body) };
  }

  for (const [kind, { table }] of Object.entries(RECORDS)) {
    const records = rows(`select * from ${table} where property_id = ? order by seq`).map(plainRow);
    if (records.length === 0) continue;
    yield { path: at(`records/${kind}.ndjson`), bytes: lines(records) };
    if (derived) yield { path: at(`records/${kind}.csv`), bytes: csv(records), derived: true };
  }
  const photos = db.prepare('select seq, hash from photo where property_id = ? order by seq').all(id) as { seq: number; hash: string }[]; // prettier-ignore
  for (const { seq, hash } of photos) {
    const { content } = db.prepare('select content from photo where seq = ?').get(seq) as { content: Buffer }; // prettier-ignore
    yield { path: at(`photos/${hash}.jpg`), bytes: content };
  }
  const monitors = rows('select * from monitor where property_id = ? order by made_at, id').map(plainRow); // prettier-ignore
  if (monitors.length > 0) yield { path: at('monitors.ndjson'), bytes: lines(monitors) };

  if (!derived) return;
  const plan = liftPlan(replayed(snapshots, changes), PARTS) as Plan;
  const opened = { plan, grids };
  yield { path: at('plan.json'), bytes: strToU8(exportAs('plan', opened).text), derived: true };
  yield { path: at('map.geojson'), bytes: strToU8(exportAs('geojson', opened).text), derived: true }; // prettier-ignore
  yield { path: at('prices.csv'), bytes: strToU8(pricesCsv(ownCatalogue(catalogue, plan), plan.book ?? {})), derived: true }; // prettier-ignore
}

/** The plan that a history leads to, from the last that was kept. */
export function replayed(
  snapshots: readonly { readonly revision: number; readonly plan: Plan }[],
  changes: readonly { readonly revision: number; readonly patch: readonly PatchStep[] }[],
): Plan {
  const start = snapshots.at(-1)!;
  return changes
    .filter((c) => c.revision > start.revision)
    .reduce((plan, c) => applyPatch(plan, c.patch as PatchStep[]), start.plan);
}

function csv(records: readonly Row[]): Uint8Array {
  const fields = [...new Set(records.flatMap((r) => Object.keys(r)))];
  const cell = (v: unknown) => (v === undefined ? '' : typeof v === 'string' ? plainCell(v) : String(v as number)); // prettier-ignore
  const data = records.map((r) => fields.map((f) => cell(r[f])));
  return strToU8(Papa.unparse({ fields, data }, { newline: '\r\n' }));
}
