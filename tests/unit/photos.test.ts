/** Records of the building and photos in the store: what is kept, what is refused, and where it ends. */
import { createHash } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Knex } from 'knex';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { openDatabase } from '../../src/server/database.js';
import { photoStore } from '../../src/server/photos.js';
import { recordStore } from '../../src/server/records/store.js';
import { planStore } from '../../src/server/plans/store.js';
import { line, plan } from './scene.js';

let folder: string;
let db: Knex;
let id: string;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'anabatic-'));
  db = await openDatabase(join(folder, 'test.sqlite'));
  id = await planStore(db).create({ plan: plan([line('a', [[0, 0], [50, 0]])]), grids: {} }); // prettier-ignore
});
afterEach(async () => {
  await db.destroy();
  rmSync(folder, { recursive: true });
});

const jpeg = (fill: number, size = 100) => Uint8Array.from({ length: size }, (_, k) => [0xff, 0xd8, 0xff][k] ?? fill); // prettier-ignore
const hashOf = (content: Uint8Array) => createHash('sha256').update(content).digest('hex');

it('a photo is kept once under the hash of its content, by property, and never changes', async () => {
  const photos = photoStore(db);
  const one = jpeg(1);
  expect(await photos.put(id, hashOf(one), one)).toBe('kept');
  expect(await photos.put(id, hashOf(one), one)).toBe('kept');
  expect(await db('photo').count({ n: '*' }).first()).toEqual({ n: 1 });
  expect([...(await photos.get(id, hashOf(one)))!]).toEqual([...one]);
  expect(await photos.get('other', hashOf(one))).toBeNull();
  expect(await photos.put('nowhere', hashOf(one), one)).toBeNull();
  await expect(db('photo').update({ size: 1 })).rejects.toThrow(/append-only/);
  await expect(db('photo').delete()).rejects.toThrow(/append-only/);
});

it('what is no photo, or not what its hash says, is refused; and there is an end of the room', async () => {
  const photos = photoStore(db, 250);
  const text = Uint8Array.from([1, 2, 3]);
  await expect(photos.put(id, hashOf(text), text)).rejects.toThrow(/no JPEG/);
  await expect(photos.put(id, hashOf(text), jpeg(1))).rejects.toThrow(/damaged on its way/);
  await expect(photos.put(id, 'xyz', jpeg(1))).rejects.toThrow(/no SHA-256/);
  expect(await photos.put(id, hashOf(jpeg(1)), jpeg(1))).toBe('kept');
  expect(await photos.put(id, hashOf(jpeg(2)), jpeg(2))).toBe('kept');
  expect(await photos.put(id, hashOf(jpeg(3)), jpeg(3))).toBe('full');
  // What is there already takes no more room.
  expect(await photos.put(id, hashOf(jpeg(1)), jpeg(1))).toBe('kept');
});

it('work done, inspections and loading are records; true and false come back as such', async () => {
  const records = recordStore(db);
  const common = (n: number) => ({ id: `record-${n}`, time: '2026-03-02T10:00:00Z', who: '', note: '' }); // prettier-ignore
  const work = (n: number, counts: boolean | null) => ({ ...common(n), task: 'posts:a', kind: 'posts', day: '2026-03-02', hours: 4, share: 0.5, planned_h: 3, counts }); // prettier-ignore
  for (const [n, counts] of [true, false, null].entries())
    await records.put(id, 'work', work(n + 10, counts));
  const kept = (await records.since(id, 'work', 0))!.records;
  expect(kept.map((r) => r['counts'])).toEqual([true, false, null]);
  await expect(records.put(id, 'work', { ...work(20, null), share: 1.5 })).rejects.toThrow();
  await expect(records.put(id, 'work', { ...work(21, null), day: 'Monday' })).rejects.toThrow();
  const seen = { ...common(30), check: 'rail:a.v1', line: 'a', at_m: 2, spot: null, result: 'fail', photo: null }; // prettier-ignore
  expect(await records.put(id, 'inspections', seen)).toMatchObject({ result: 'fail' });
  await expect(records.put(id, 'inspections', { ...seen, id: 'record-31', photo: 'p.jpg' })).rejects.toThrow(); // prettier-ignore
  const load = { ...common(40), day: '2026-03-02', item: 'level', kind: 'set', state: 'forgotten' };
  expect(await records.put(id, 'loads', load)).toMatchObject({ state: 'forgotten' });
});
