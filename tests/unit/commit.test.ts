/** A change that comes upon a plan that moved, a transaction that fails, an id that is another's: what is saved is what was said. */
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Knex } from 'knex';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { PARTS } from '../../src/core/parts/index.js';
import type { Plan } from '../../src/core/plan/schema.js';
import type { Proposed, Saved } from '../../src/formats/change.js';
import { edit } from '../../src/formats/patch.js';
import { openDatabase } from '../../src/server/database.js';
import { createCommit } from '../../src/server/plans/commit.js';
import { createHeads, type Heads } from '../../src/server/plans/heads.js';
import { toRow } from '../../src/server/plans/rows.js';
import { planStore } from '../../src/server/plans/store.js';
import { line, plan } from './scene.js';

let folder: string;
let db: Knex;
let heads: Heads;
let id: string;
let told: [string, Saved][];
const start = plan([line('a', [[0, 0], [100, 0]]), line('b', [[0, 50], [100, 50]])]); // prettier-ignore

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'anabatic-'));
  db = await openDatabase(join(folder, 'test.sqlite'));
  id = await planStore(db).create({ plan: start, grids: {} });
  heads = createHeads(db, PARTS);
  told = [];
});
afterEach(async () => {
  await db.destroy();
  rmSync(folder, { recursive: true });
});

const commits = (over: Knex = db, of: Heads = heads) =>
  createCommit(over, of, PARTS, (property, change) => told.push([property, change]));
const rename = (of: 'a' | 'b', name: string, part: Partial<Proposed> = {}): Proposed => ({
  changeId: randomUUID(),
  tab: randomUUID(),
  base: 0,
  kind: 'do',
  words: `called ${name}`,
  ...edit(start, (d: Plan) => void (d.lines[of]!.name = name)),
  ...part,
});
/** The names as the store has them, whatever is remembered. */
const names = async () => {
  const now = (await createHeads(db, PARTS).of(id))!;
  return [now.revision, now.plan.lines['a']!.name, now.plan.lines['b']!.name];
};

it('what was checked ahead counts only for the plan that it was checked on', async () => {
  const stale = (await heads.of(id))!;
  await commits()(id, rename('a', 'Upper'));
  // The head is moved by another between the check and the transaction.
  const late: Heads = { ...heads, of: () => Promise.resolve(stale) };
  expect(await commits(db, late)(id, rename('b', 'Lower'))).toMatchObject({ status: 'saved', revision: 2 }); // prettier-ignore
  expect(await names()).toEqual([2, 'Upper', 'Lower']);
  // What is remembered is what is stored.
  expect((await heads.of(id))!.plan.lines['a']!.name).toBe('Upper');
});

it('a transaction that fails leaves nothing: not in the store, not in memory, and nobody is told', async () => {
  const failing = new Proxy(db, {
    get: (of, key) =>
      key === 'transaction'
        ? (work: (trx: Knex) => Promise<unknown>) =>
            of.transaction(async (trx) => {
              await work(trx);
              throw new Error('the disk is full');
            })
        : (Reflect.get(of, key) as unknown),
  });
  await expect(commits(failing)(id, rename('a', 'Upper'))).rejects.toThrow('the disk is full');
  expect(told).toEqual([]);
  expect(await names()).toEqual([0, 'a', 'b']);
  expect((await heads.of(id))!.revision).toBe(0);
  expect(await commits()(id, rename('b', 'Lower'))).toMatchObject({ status: 'saved', revision: 1 });
  expect(await names()).toEqual([1, 'a', 'Lower']);
});

it('a change that another property has is not this one’s: refused, and not called saved', async () => {
  const own = rename('a', 'Upper');
  const other = await planStore(db).create({ plan: start, grids: {} });
  await commits()(id, own);
  await expect(commits()(other, own)).rejects.toThrow(/changeId/);
  // The same change once more, here, is the same saving.
  expect(await commits()(id, own)).toMatchObject({ status: 'saved', revision: 1 });
  expect(await names()).toEqual([1, 'Upper', 'b']);
});

it('a plan lifted to another version stands in the way of what was made before, whatever it touches', async () => {
  const lift = {
    ...rename('b', 'b'),
    patch: [],
    inverse: [],
    kind: 'lift' as const,
    tab: 'server',
  };
  await db('change').insert(toRow(id, { ...lift, revision: 1, at: '2026-01-01', who: '' }));
  expect(await commits()(id, rename('a', 'Upper'))).toMatchObject({ status: 'conflict', revision: 1 }); // prettier-ignore
  expect(await names()).toEqual([1, 'a', 'b']);
  // Who knows of it passes.
  expect(await commits()(id, rename('a', 'Upper', { after: [lift.changeId] }))).toMatchObject({ status: 'saved', revision: 2 }); // prettier-ignore
});

it('what touches what others did is no saving: both are shown, and nothing is written', async () => {
  await commits()(id, rename('a', 'Upper'));
  const met = await commits()(id, rename('a', 'Highest'));
  expect(met).toMatchObject({ status: 'conflict', revision: 1, theirs: [{ words: 'called Upper' }] }); // prettier-ignore
  expect(await names()).toEqual([1, 'Upper', 'b']);
  expect(told.map(([, c]) => c.words)).toEqual(['called Upper']);
});

it('a change that is sent again is answered again, and told once', async () => {
  const change = rename('a', 'Upper');
  const commit = commits();
  const first = await commit(id, change);
  expect(await commit(id, change)).toEqual(first);
  expect(told.map(([, c]) => c.revision)).toEqual([1]);
});
