import { randomUUID } from 'node:crypto';
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Knex } from 'knex';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { Plan } from '../../src/core/plan/schema.js';
import { edit } from '../../src/formats/patch.js';
import { runCase } from '../../src/server/calc.js';
import { migrations, openDatabase } from '../../src/server/database.js';
import type { Proposed } from '../../src/formats/change.js';
import { planStore, type PlanStore } from '../../src/server/plans/store.js';
import { stacksOf } from '../../src/formats/stacks.js';
import { PARTS } from '../../src/core/parts/index.js';
import { line, plan } from './scene.js';
import { toy } from './toy/part.js';

let folder: string;
let db: Knex;
let store: PlanStore;
let id: string;
const start = () =>
  plan([
    line('a', [
      [0, 0],
      [100, 0],
    ]),
    line('b', [
      [0, 50],
      [100, 50],
    ]),
  ]);

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'anabatic-'));
  db = await openDatabase(join(folder, 'test.sqlite'));
  store = planStore(db);
  id = await store.create({ plan: start(), grids: {} });
});
afterEach(async () => {
  await db.destroy();
  rmSync(folder, { recursive: true });
});

function change(
  from: Plan,
  base: number,
  recipe: (d: Plan) => void,
  part: Partial<Proposed> = {},
): Proposed {
  const { patch, inverse } = edit(from, recipe);
  return {
    changeId: randomUUID(),
    tab: 'tab-1',
    base,
    kind: 'do',
    words: 'test',
    patch,
    inverse,
    ...part,
  };
}
const rename = (key: string, name: string) => (d: Plan) => void (d.lines[key]!.name = name);

describe('store', () => {
  it('keeps each change, and gives the same plan after it is opened anew', async () => {
    for (let k = 0; k < 60; k++) {
      const now = (await store.head(id))!;
      await store.commit(id, change(now.plan, now.revision, rename('a', `name ${k}`)));
    }
    const before = (await store.head(id))!;
    expect(before.revision).toBe(60);
    const again = planStore(db);
    expect(await again.head(id)).toEqual(before);
    expect(before.plan.lines['a']!.name).toBe('name 59');
  });

  it('sent twice, a change is saved once', async () => {
    const c = change(start(), 0, rename('a', 'once'));
    const first = await store.commit(id, c);
    const second = await store.commit(id, c);
    expect(second).toMatchObject({
      status: 'saved',
      revision: (first as { revision: number }).revision,
    });
    expect((await store.head(id))!.revision).toBe(1);
  });

  it('merges a change on an old base that touches nothing new, and says what else changed', async () => {
    await store.commit(id, change(start(), 0, rename('a', 'theirs'), { tab: 'tab-2' }));
    const mine = await store.commit(id, change(start(), 0, rename('b', 'mine')));
    expect(mine).toMatchObject({ status: 'saved', revision: 2, others: [{ revision: 1 }] });
    const { plan: p } = (await store.head(id))!;
    expect([p.lines['a']!.name, p.lines['b']!.name]).toEqual(['theirs', 'mine']);
  });

  it('shows both when two changes touch, and saves neither over the other', async () => {
    await store.commit(id, change(start(), 0, rename('a', 'theirs'), { tab: 'tab-2' }));
    const mine = await store.commit(id, change(start(), 0, rename('a', 'mine')));
    expect(mine).toMatchObject({ status: 'conflict', theirs: [{ words: 'test' }] });
    expect((await store.head(id))!.plan.lines['a']!.name).toBe('theirs');
  });

  it('changes asked for at once, by two programs on one store, are each saved once on one another', async () => {
    const elsewhere = await openDatabase(join(folder, 'test.sqlite'));
    const stores = [store, planStore(elsewhere)];
    const asked = Array.from({ length: 24 }, (_, k) => {
      const key = k % 2 === 0 ? 'a' : 'b';
      // One tab each for either line, so that none conflicts with another.
      const c = change(start(), 0, (d) => void (d.lines[key]!.vertices[1]!.e = 101 + k), { tab: key }); // prettier-ignore
      return stores[k % 2]!.commit(id, c);
    });
    const results = await Promise.all(asked);
    await elsewhere.destroy();
    const revisions = results.map((r) => (r as { revision: number }).revision);
    expect([...revisions].sort((x, y) => x - y)).toEqual(asked.map((_, k) => k + 1));
    const { plan: p } = (await planStore(db).head(id))!;
    expect([p.lines['a']!.vertices[1]!.e, p.lines['b']!.vertices[1]!.e]).toEqual([123, 124]);
    expect((await store.head(id))!.plan).toEqual(p);
  });

  it('a change that would leave an unsound plan is refused whole', async () => {
    const bad = change(start(), 0, (d) => void (d.lines['a']!.strands[0]!.height_m = 99));
    await expect(store.commit(id, bad)).rejects.toThrow('/lines/a/strands/0/height_m');
    const lost = change(start(), 0, (d) => void (d.ground = { kind: 'grid', id: 'nowhere' }));
    await expect(store.commit(id, lost)).rejects.toThrow('missing');
    await expect(
      store.commit(id, {
        ...change(start(), 0, rename('a', 'x')),
        patch: [{ op: 'add', path: '/grids', value: {} }],
      }),
    ).rejects.toThrow('sent by itself');
    expect((await store.head(id))!).toEqual({ revision: 0, plan: start() });
  });

  it('writes a snapshot every fifty changes, and reads on from it', async () => {
    for (let k = 0; k < 51; k++) {
      const now = (await store.head(id))!;
      await store.commit(id, change(now.plan, now.revision, rename('a', `name ${k}`)));
    }
    const snaps = await db('snapshot').where({ property_id: id }).orderBy('revision');
    expect(snaps.map((s) => s.revision)).toEqual([0, 50]);
    expect(JSON.parse(snaps[1].plan).lines.a.name).toBe('name 49');
    // Were the snapshot not read, the changes before it would be missed.
    await db('change').where({ property_id: id }).andWhere('revision', '<', 40).delete();
    expect((await planStore(db).head(id))!.plan.lines['a']!.name).toBe('name 50');
  });

  it('opens with stacks from the whole history, however long, and names what landed already', async () => {
    let last = '';
    for (let k = 0; k < 450; k++) {
      const now = (await store.head(id))!;
      const c = change(now.plan, now.revision, rename('a', `name ${k}`));
      last = c.changeId;
      await store.commit(id, c);
    }
    const opened = (await store.open(id, [last, 'unknown-id']))!;
    expect(opened.stacks.undo).toHaveLength(450);
    expect(opened.landed).toEqual([last]);
    expect(opened.stacks.undo.at(-1)!.body!.inverse).toEqual([
      { op: 'replace', path: '/lines/a/name', value: 'name 448' },
    ]);
    // The bodies of old changes are fetched when they are wanted.
    const first = opened.stacks.undo[0]!;
    expect(first.body).toBeUndefined();
    expect((await store.changeNamed(id, first.changeId))!.inverse[0]!.value).toBe('a');
    const page = await store.changesSince(id, 100, 200);
    expect([page.changes[0]!.revision, page.changes.length, page.more]).toEqual([101, 200, true]);
    expect((await store.changesSince(id, 449)).more).toBe(false);
    expect(await store.open('nowhere')).toBeNull();
  });

  it('brings plans of an older version up to the newest, as a change that ends what can be undone', async () => {
    await store.commit(id, change(start(), 0, rename('a', 'before')));
    const toyed = planStore(db, [...PARTS, toy]);
    const lifted = (await toyed.head(id))!;
    expect(lifted).toMatchObject({ revision: 2, plan: { version: 3, posters: {} } });
    expect((await toyed.open(id))!.stacks).toEqual({ undo: [], redo: [] });
    expect(await planStore(db, [...PARTS, toy]).head(id)).toEqual(lifted);
    await expect(store.head(id)).rejects.toThrow('later version');
  });

  it('two processes on one file see one another', async () => {
    const other = planStore(
      await openDatabase(join(folder, 'test.sqlite')).then((k) => (opened = k)),
    );
    await other.commit(id, change(start(), 0, rename('a', 'from elsewhere'), { tab: 'tab-9' }));
    expect((await store.head(id))!.plan.lines['a']!.name).toBe('from elsewhere');
    await opened.destroy();
  });
  let opened: Knex;

  it('keeps a grid once, under its content', async () => {
    const grid = { east0_m: 0, north0_m: 0, cell_m: 1, cols: 2, rows: 2, z_m: [1, 2, 3, 4] };
    expect(await store.putGrid(grid)).toBe(await store.putGrid({ ...grid }));
    expect(await store.gridBody('none')).toBeNull();
  });

  it('the list of migrations has every file of the folder', () => {
    const files = readdirSync('src/server/migrations').map((f) => f.replace('.ts', ''));
    expect(migrations.map((m) => m.name)).toEqual(files.sort());
  });
});

describe('undo and redo', () => {
  const at = (kind: 'do' | 'undo' | 'redo', words: string, of?: string) =>
    ({ changeId: words, kind, words, ...(of ? { of } : {}) }) as Proposed;
  it('are read from the history: undo steps back, redo forward, a new change ends redo', () => {
    const a = at('do', 'a');
    const b = at('do', 'b');
    const names = (changes: Proposed[]) => {
      const s = stacksOf(changes);
      return [s.undo.map((c) => c.words).join(''), s.redo.map((c) => c.words).join('')];
    };
    expect(names([a, b])).toEqual(['ab', '']);
    expect(names([a, b, at('undo', '')])).toEqual(['a', 'b']);
    expect(names([a, b, at('undo', ''), at('undo', '')])).toEqual(['', 'ba']);
    expect(names([a, b, at('undo', ''), at('redo', '')])).toEqual(['ab', '']);
    expect(names([a, b, at('undo', ''), at('do', 'c')])).toEqual(['ac', '']);
    // Another tab's change came between a change and its undo: the undo names what it took back.
    expect(names([a, b, at('undo', '', 'a')])).toEqual(['b', 'a']);
    expect(names([a, b, at('undo', '', 'a'), at('redo', '', 'a')])).toEqual(['ba', '']);
    expect(names([a, b, at('undo', '', 'gone')])).toEqual(['ab', '']);
    expect(names([a, { ...b, kind: 'lift' }, at('do', 'c')])).toEqual(['c', '']);
  });
});

describe('calculators at their door', () => {
  it.each([
    [{ kind: 'nothing', inputs: {} }, '/kind'],
    [{ kind: 'constructor', inputs: {} }, '/kind'],
    [{ kind: 'wenner', inputs: { spacing_m: -1, r_measured_ohm: 3 } }, '/inputs/spacing_m'],
    [{ kind: 'wenner', inputs: { spacing_m: '1', r_measured_ohm: 3 } }, '/inputs/spacing_m'],
    [{ kind: 'wenner', inputs: { spacing_m: 1 } }, 'r_measured_ohm'],
    [{ kind: 'wire', inputs: { diameter_mm: 2.5 } }, 'tensile'],
    [{ kind: 'equal_bays', inputs: { length_m: 1e12, target_m: 1 } }, 'bays'],
    [
      {
        kind: 'rod_group',
        inputs: { rho_ohm_m: 1, rod_length_m: 1, rod_diameter_m: 0.01, rods_xy_m: [] },
      },
      'rods_xy_m',
    ],
    [null, '/'],
  ])('refuse %j with the place', (value, words) => {
    expect(() => runCase(value)).toThrow(words);
  });
  it('fill in what has a usual value', () => {
    expect(
      runCase({ kind: 'wenner', inputs: { spacing_m: 1, r_measured_ohm: 10 } }).outputs,
    ).toMatchObject({ rho_finite_depth_ohm_m: expect.closeTo(62.83, 2) });
  });
});

describe('the plan as it stood', () => {
  it('is the same at every revision as it was then, over snapshots and undos', async () => {
    const then: Plan[] = [start()];
    let now = start();
    for (let k = 1; k <= 120; k++) {
      const made = change(now, k - 1, (d) => void (d.name = `State ${k}`));
      expect(await store.commit(id, made)).toMatchObject({ status: 'saved', revision: k });
      now = { ...now, name: `State ${k}` };
      then.push(now);
    }
    for (const revision of [0, 1, 49, 50, 51, 99, 100, 120])
      expect(await store.at(id, revision)).toEqual({ revision, plan: then[revision] });
    expect(await store.at(id, 121)).toBeNull();
    expect(await store.at('nowhere', 0)).toBeNull();
  });
});
