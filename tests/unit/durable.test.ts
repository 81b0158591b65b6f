/** The store against damage, other versions and other programs; records; what waits in the browser. */
import 'fake-indexeddb/auto';
import {
  chmodSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { migrations, openDatabase, plainly, StoreError } from '../../src/server/database.js';
import { monitorStore } from '../../src/server/monitors.js';
import { recordStore } from '../../src/server/records/store.js';
import { planStore } from '../../src/server/plans/store.js';
import { record, sendLeft, useRecords } from '../../src/session/records.js';
import { openOutbox } from '../../src/session/outbox.js';
import { line, plan } from './scene.js';

let folder: string;
const file = () => join(folder, 'store.sqlite');
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'anabatic-'))));
afterEach(() => rmSync(folder, { recursive: true }));

const first = migrations.slice(0, 1);
const start = () => plan([line('a', [[0, 0], [100, 0]])]); // prettier-ignore

describe('a store that cannot be used is refused in one plain line', () => {
  it('damaged, or no store at all', async () => {
    writeFileSync(file(), 'no store at all, but long enough to look like one. '.repeat(40));
    await expect(openDatabase(file())).rejects.toThrow(`the store ${file()} is damaged`);
    const db = await openDatabase(join(folder, 'x.sqlite'));
    for (let k = 0; k < 40; k++) await planStore(db).create({ plan: start(), grids: {} });
    await db.raw('pragma wal_checkpoint(truncate)');
    await db.destroy();
    const raw = new Database(join(folder, 'x.sqlite'));
    const pages = Number(raw.pragma('page_count', { simple: true }));
    raw.close();
    expect(pages).toBeGreaterThan(10);
    const bytes = readFileSync(join(folder, 'x.sqlite'));
    bytes.fill(0xa5, 4096 * 3, 4096 * (pages - 1));
    writeFileSync(join(folder, 'x.sqlite'), bytes);
    await expect(openDatabase(join(folder, 'x.sqlite'))).rejects.toThrow(/damaged/);
  });

  it('of a later version', async () => {
    const db = await openDatabase(file());
    await db('knex_migrations').insert({ name: '999-later', batch: 9, migration_time: new Date() });
    await db.destroy();
    await expect(openDatabase(file())).rejects.toThrow(
      'was written by a later version of the program (999-later)',
    );
  });

  it('where a folder stands in its place, and by the codes of a full disk, a lock, a read-only file', async () => {
    await expect(openDatabase(folder)).rejects.toThrow(StoreError);
    const words = (code: string) => String(plainly({ code }));
    expect(words('SQLITE_FULL')).toContain('disk is full');
    expect(words('SQLITE_BUSY')).toContain('held by another program');
    expect(words('SQLITE_READONLY_DIRECTORY')).toContain('read-only');
    expect(plainly({ code: 'ELSE' })).toEqual({ code: 'ELSE' });
    // Root may write everything: only another user can try this for real.
    if (process.getuid?.() !== 0) {
      await (await openDatabase(file())).destroy();
      chmodSync(file(), 0o400);
      await expect(openDatabase(file())).rejects.toThrow('read-only');
    }
  });
});

describe('a migration', () => {
  it('is run on a copy’s original: the copy stays as it was, and nothing is lost on the way', async () => {
    const old = await openDatabase(file(), first);
    await old('property').insert({ id: 'p', name: 'P', created_at: 'then' });
    await old('snapshot').insert({ property_id: 'p', revision: 0, plan: JSON.stringify(start()) });
    const row = { property_id: 'p', change_id: 'change-1', tab: 'tab-1', base: 0, kind: 'do', words: 'w', patch: '[{"op":"replace","path":"/name","value":"New"}]', inverse: '[]', at: 'then' }; // prettier-ignore
    await old('change').insert({ ...row, revision: 1 });
    await old.destroy();
    const now = await openDatabase(file());
    expect((await planStore(now).head('p'))!).toMatchObject({ revision: 1, plan: { name: 'New' } });
    await expect(now('change').insert({ ...row, revision: 2 })).rejects.toThrow('UNIQUE');
    await now.destroy();
    const copy = `${file()}.before-002-of-and-lift`;
    const was = new Database(copy, { readonly: true });
    expect(was.prepare('select name from knex_migrations').pluck().all()).toEqual(['001-plans']);
    expect(was.prepare('select revision from change').pluck().all()).toEqual([1]);
    was.close();
    await (await openDatabase(file())).destroy();
    expect(readdirSync(folder).filter((f) => f.includes('before'))).toHaveLength(1);
  });

  it.each(readdirSync('tests/fixtures/stores'))('brings up a store as %s left it, and all that is in it', async (name) => {
    const raw = new Database(file());
    // What is referred to gets its index last.
    raw.pragma('foreign_keys = OFF');
    raw.exec(readFileSync(`tests/fixtures/stores/${name}`, 'utf8'));
    raw.close();
    const db = await openDatabase(file());
    expect((await planStore(db).head('p'))!.plan.name).toBe('Newer');
    expect((await planStore(db).at('p', 1))!.plan.name).toBe('New');
    const records = recordStore(db);
    const counted = async (kind: string) => (await records.since('p', kind, 0))!.records.length;
    const n = Number(name.slice(0, 3));
    expect(await Promise.all(['readings', 'tension', 'stock', 'work', 'events'].map(counted))).toEqual([n >= 3 ? 2 : 0, n >= 4 ? 1 : 0, n >= 5 ? 1 : 0, n >= 6 ? 1 : 0, n >= 7 ? 1 : 0]);
    expect(await monitorStore(db, records).list('p')).toHaveLength(n >= 8 ? 1 : 0);
    // What was append-only still is.
    if (n >= 3) await expect(db('reading').update({ value: 1 })).rejects.toThrow('append-only');
    await db.destroy();
  }); // prettier-ignore

  it('has a store of each shape to be tried on: whoever adds one keeps one', () => {
    expect(readdirSync('tests/fixtures/stores')).toEqual(migrations.map((m) => `${m.name}.sql`));
  });

  it('of a new store needs no copy', async () => {
    await (await openDatabase(file())).destroy();
    expect(existsSync(`${file()}.before-001-plans`)).toBe(false);
  });
});

describe('two writers', () => {
  it('take turns from the start of a transaction, before anything is read or written in it', async () => {
    const db = await openDatabase(file());
    const other = new Database(file(), { timeout: 0 });
    await db.transaction(async () => {
      expect(() => other.exec('begin immediate')).toThrow('locked');
    });
    other.exec('begin immediate');
    other.exec('rollback');
    other.close();
    await db.destroy();
  });
});

describe('readings', () => {
  const reading = (id: string, more: object = {}) => ({
    id: `reading-${id}`,
    time: '2026-05-01T10:00:00+02:00',
    who: 'Ann',
    note: '',
    line: 'a',
    at_m: 12.5,
    spot: null,
    kind: 'volts',
    value: 5400,
    ...more, // prettier-ignore
  });
  const opened = async () => {
    const db = await openDatabase(file());
    const id = await planStore(db).create({ plan: start(), grids: {} });
    return { db, id, records: recordStore(db) };
  };

  it('are kept once, in the order they came, and given from a place on', async () => {
    const { db, id, records } = await opened();
    const one = await records.put(id, 'readings', reading('1'));
    expect(one).toMatchObject({ seq: 1, value: 5400, at_m: 12.5, who: 'Ann' });
    expect(await records.put(id, 'readings', reading('1'))).toEqual(one);
    await records.put(id, 'readings', reading('2', { value: 5000 }));
    expect((await records.since(id, 'readings', 0))!.records.map((r) => r.id)).toEqual(['reading-1', 'reading-2']); // prettier-ignore
    const rest = await records.since(id, 'readings', 1, 1);
    expect([rest!.records.length, rest!.more]).toEqual([1, false]);
    expect((await records.since(id, 'readings', 0, 1))!.more).toBe(true);
    expect(await records.put('nowhere', 'readings', reading('3'))).toBeNull();
    expect(await records.since('nowhere', 'readings', 0)).toBeNull();
    await db.destroy();
  });

  it('are put right by further ones, once each, and never altered', async () => {
    const { db, id, records } = await opened();
    await records.put(id, 'readings', reading('1'));
    const right = await records.put(
      id,
      'readings',
      reading('2', { corrects: 'reading-1', value: 4500 }),
    );
    expect(right).toMatchObject({ corrects: 'reading-1', value: 4500 });
    await expect(records.put(id, 'readings', reading('3', { corrects: 'reading-1' }))).rejects.toThrow('already, by reading-2'); // prettier-ignore
    await expect(records.put(id, 'readings', reading('4', { corrects: 'reading-9' }))).rejects.toThrow('no such record'); // prettier-ignore
    expect(await records.put(id, 'readings', reading('5', { corrects: 'reading-2', void: true }))).toMatchObject({ void: true }); // prettier-ignore
    await expect(db('reading').update({ value: 1 })).rejects.toThrow('append-only');
    await expect(db('reading').delete()).rejects.toThrow('append-only');
    await db.destroy();
  });

  it.each([
    [{ kind: 'guess' }, '/kind'],
    [{ value: -1 }, '/value'],
    [{ time: 'yesterday' }, '/time'],
    [{ time: '2026-13-45T99:99Z' }, '/time'],
    [{ void: true }, '/void'],
    [{ more: 1 }, 'knows no "more"'],
    [{ id: 'x' }, '/id'],
  ])('that do not fit are refused with the place: %j', async (more, words) => {
    const { db, id, records } = await opened();
    await expect(records.put(id, 'readings', { ...reading('1'), ...more })).rejects.toThrow(words);
    await expect(records.put(id, 'guesses', reading('1'))).rejects.toThrow('there are readings');
    await db.destroy();
  });
});

describe('records of supplies', () => {
  const common = { id: 'record-0001', time: '2026-05-01T10:00:00Z', who: '', note: '' };
  const move = { ...common, item: 'tensioner', quantity: -4, length_m: null, why: 'built' };
  const order = { ...common, order: '12', supplier: '', delivery: 'Ends', item: 'gate', quantity: 2, unit: 'each', price: 128, tax: 0.2 }; // prettier-ignore
  const came = { ...common, order: '12', item: 'gate', quantity: 1, state: 'short' };
  const state = { ...common, name: 'as priced', revision: 3 };

  it('are kept as they were sent, taken back by further ones, and never altered', async () => {
    const db = await openDatabase(file());
    const id = await planStore(db).create({ plan: start(), grids: {} });
    const records = recordStore(db);
    for (const [kind, record, table] of [
      ['stock', move, 'stock_move'],
      ['orders', order, 'order_line'],
      ['deliveries', came, 'delivery'],
      ['states', state, 'plan_state'],
    ] as const) {
      // prettier-ignore
      const kept = await records.put(id, kind, record);
      expect(kept).toMatchObject(record);
      expect(await records.put(id, kind, record)).toEqual(kept);
      await records.put(id, kind, { ...record, id: 'record-0002', corrects: 'record-0001', void: true }); // prettier-ignore
      expect((await records.since(id, kind, 0))!.records).toHaveLength(2);
      await expect(db(table).delete()).rejects.toThrow('append-only');
      await expect(db(table).update({ note: 'x' })).rejects.toThrow('append-only');
    }
    await db.destroy();
  });

  it.each([
    ['stock', { ...move, why: 'guess' }, '/why'],
    ['stock', { ...move, length_m: 0 }, '/length_m'],
    ['orders', { ...order, quantity: 0 }, '/quantity'],
    ['orders', { ...order, tax: 2 }, '/tax'],
    ['orders', { ...order, order: '' }, '/order'],
    ['deliveries', { ...came, state: 'lost' }, '/state'],
    ['states', { ...state, revision: 1.5 }, '/revision'],
    ['states', { ...state, name: '' }, '/name'],
  ] as const)('that do not fit are refused with the place: %s %j', async (kind, record, place) => {
    const db = await openDatabase(file());
    const id = await planStore(db).create({ plan: start(), grids: {} });
    await expect(recordStore(db).put(id, kind, record)).rejects.toThrow(place);
    await db.destroy();
  });
});

describe('what waits in the browser', () => {
  it('comes back in the order in which it was kept, whatever the clock says, apart by property', async () => {
    const box = openOutbox('p1');
    vi.setSystemTime(new Date('2026-05-01'));
    await box.keep('changes', 'b', { n: 1 });
    vi.setSystemTime(new Date('2020-01-01'));
    await box.keep('changes', 'a', { n: 2 });
    await box.keep('records', 'r', { n: 3 });
    vi.useRealTimers();
    expect(await openOutbox('p1').left('changes')).toEqual([
      { id: 'b', body: { n: 1 } },
      { id: 'a', body: { n: 2 } },
    ]);
    expect(await openOutbox('p2').left('changes')).toEqual([]);
    // One that changed keeps its place; one that is gone does not come back.
    await box.replace('changes', 'b', { n: 4 });
    await box.replace('changes', 'gone', { n: 5 });
    expect(await box.left('changes')).toEqual([
      { id: 'b', body: { n: 4 } },
      { id: 'a', body: { n: 2 } },
    ]);
    await box.forget('changes', 'b');
    expect((await box.left('changes')).map((w) => w.id)).toEqual(['a']);
    expect(await box.left('records')).toHaveLength(1);
  });

  it('what is recorded before the database has answered waits behind what an earlier tab left', async () => {
    vi.stubGlobal('fetch', () => new Promise(() => undefined));
    let answer: (left: unknown[]) => void = () => undefined;
    const slow = {
      keep: () => Promise.resolve(true),
      forget: () => Promise.resolve(),
      left: () => new Promise((done) => (answer = done as typeof answer)),
    } as unknown as ReturnType<typeof openOutbox>;
    const opened = sendLeft(slow);
    void record({ kind: 'stock', record: { id: 'new-00001' } });
    answer([{ id: 'old-00001', body: { kind: 'stock', record: { id: 'old-00001' } } }]);
    await opened;
    expect(useRecords.getState().pending.map((p) => p.record.id)).toEqual(['old-00001', 'new-00001']); // prettier-ignore
    vi.unstubAllGlobals();
  });

  it('a browser without room, or without a database, says so each time and breaks nothing', async () => {
    const box = openOutbox('p3');
    expect(await box.keep('changes', 'a', {})).toBe(true);
    const add = vi.spyOn(IDBObjectStore.prototype, 'add').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    expect(await box.keep('changes', 'b', {})).toBe(false);
    add.mockRestore();
    expect(await box.keep('changes', 'c', {})).toBe(true);
    const open = vi.spyOn(indexedDB, 'open').mockImplementation(() => {
      throw new DOMException('not here', 'SecurityError');
    });
    const none = openOutbox('p4');
    expect(await none.keep('changes', 'a', {})).toBe(false);
    expect(await none.left('changes')).toEqual([]);
    await none.forget('changes', 'a');
    open.mockRestore();
  });
});
