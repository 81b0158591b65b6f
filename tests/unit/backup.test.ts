/** Backups: an equal property comes back; general tools open what is in one; what is damaged or newer is refused. */
import { execFileSync, spawnSync } from 'node:child_process';
import { createHash, randomUUID } from 'node:crypto';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'; // prettier-ignore
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import type { Knex } from 'knex';
import Papa from 'papaparse';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { parsePlan } from '../../src/formats/planFile.js';
import { edit } from '../../src/formats/patch.js';
import { run } from '../../src/cli/cli.js';
import { unzipped, zipped } from '../../src/server/backup/bundle.js';
import { copied, copiesOf, pruned } from '../../src/server/backup/daily.js';
import { restored } from '../../src/server/backup/restore.js';
import { taken } from '../../src/server/backup/take.js';
import { openDatabase } from '../../src/server/database.js';
import { putDemoLog, type DemoLog } from '../../src/server/demoLog.js';
import { monitorStore } from '../../src/server/monitors.js';
import { photoStore } from '../../src/server/photos.js';
import { recordStore } from '../../src/server/records/store.js';
import { planStore } from '../../src/server/plans/store.js';

const tools = ['unzip', 'ogrinfo'].every((name) => spawnSync(name, ['--version']).error === undefined); // prettier-ignore
if (!tools)
  console.warn('SKIPPED: unzip or gdal-bin is not installed; a backup is not opened by them');

let folder: string;
let db: Knex;
let file: string;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'anabatic-'));
  file = join(folder, 'a.sqlite');
  db = await openDatabase(file);
});
afterEach(async () => {
  await db.destroy();
  rmSync(folder, { recursive: true });
});

const bytesOf = async (from: string, only?: string[]): Promise<Uint8Array> => {
  const chunks: Uint8Array[] = [];
  for await (const chunk of zipped(taken(from, only), new Date('2026-06-01T00:00:00Z'))) chunks.push(chunk); // prettier-ignore
  return Buffer.concat(chunks);
};
const hashes = (zip: Uint8Array) =>
  (JSON.parse(strFromU8(unzipSync(zip)['bundle.json']!)) as { parts: Record<string, { sha256: string }> }).parts; // prettier-ignore

/** The demo with its season, more changes than a snapshot's worth, a correction, a photo and a monitor. */
async function filled(id = 'hollin-scar'): Promise<void> {
  const plans = planStore(db);
  const records = recordStore(db);
  await plans.create(parsePlan(readFileSync('demo/hollin-scar.plan.json', 'utf8')), id);
  await putDemoLog(records, id, JSON.parse(readFileSync('demo/hollin-scar.log.json', 'utf8')) as DemoLog, Date.now()); // prettier-ignore
  for (let k = 0; k < 53; k++) {
    const { plan, revision } = (await plans.head(id))!;
    const { patch, inverse } = edit(plan, (d) => void (d.lines['burn']!.name = `Burn side ${k}`));
    await plans.commit(id, { changeId: `change-${id}-${k}`, tab: 'tab-one', base: revision, kind: k === 52 ? 'undo' : 'do', ...(k === 52 ? { of: `change-${id}-51` } : {}), words: 'rename', patch, inverse }); // prettier-ignore
  }
  const common = { who: 'Crew', note: '=1+1', line: 'burn', at_m: 10, spot: null };
  const first = randomUUID();
  await records.put(id, 'readings', { ...common, id: first, time: '2026-05-01T08:00:00Z', kind: 'volts', value: 6100 }); // prettier-ignore
  await records.put(id, 'readings', { ...common, id: randomUUID(), time: '2026-05-01T08:00:00Z', kind: 'volts', value: 610, corrects: first, void: true }); // prettier-ignore
  const jpeg = Buffer.from([0xff, 0xd8, 0xff, 0xe0, 1, 2, 3, id.length]);
  await photoStore(db).put(id, createHash('sha256').update(jpeg).digest('hex'), jpeg);
  await monitorStore(db, records).make(id, { name: 'Gate', kind: 'volts', line: 'burn', at_m: 40, unit: null, simulated: false }); // prettier-ignore
}

describe('a backup', () => {
  it('brings the demo back into an empty store, equal by the hash of every part, with its undo', async () => {
    await filled();
    const zip = await bytesOf(file);
    const other = join(folder, 'b.sqlite');
    const db2 = await openDatabase(other);
    try {
      expect(await restored(db2, other, zip)).toEqual([{ from: 'hollin-scar', id: 'hollin-scar', name: 'Hollin Scar', as: 'new' }]); // prettier-ignore
      const again = await bytesOf(other);
      const parts = Object.keys(hashes(zip));
      expect(parts.length).toBeGreaterThan(14);
      expect(hashes(again)).toEqual(hashes(zip));
      const [was, is] = [(await planStore(db).open('hollin-scar'))!, (await planStore(db2).open('hollin-scar'))!]; // prettier-ignore
      expect(is).toEqual(was);
      expect(is.stacks.redo).toHaveLength(1);
      // What is there already is left alone, and the store is as it was.
      expect((await restored(db2, other, zip))[0]!.as).toBe('there already');
      expect(hashes(await bytesOf(other))).toEqual(hashes(zip));
      // Its records go on from where they were.
      expect(await recordStore(db2).put('hollin-scar', 'events', { id: randomUUID(), time: '2026-06-02T08:00:00Z', who: '', note: '', line: null, at_m: null, spot: null, what: 'storm', photo: null })).not.toBeNull(); // prettier-ignore
    } finally {
      await db2.destroy();
    }
  }, 120_000);

  it('brings another state of a property as a copy beside it, which goes on by itself', async () => {
    await filled();
    const zip = await bytesOf(file);
    const plans = planStore(db);
    const { plan, revision } = (await plans.head('hollin-scar'))!;
    const { patch, inverse } = edit(plan, (d) => void (d.name = 'Later'));
    await plans.commit('hollin-scar', { changeId: 'later-change', tab: 'tab-one', base: revision, kind: 'do', words: 'rename', patch, inverse }); // prettier-ignore
    const [copy] = await restored(db, file, zip);
    expect(copy).toMatchObject({ from: 'hollin-scar', as: 'copy' });
    expect((await planStore(db).head('hollin-scar'))!.plan.name).toBe('Later');
    const opened = (await planStore(db).open(copy!.id))!;
    expect(opened.plan.name).toBe('Hollin Scar');
    expect(opened.stacks.redo).toHaveLength(1);
    const [mine, theirs] = await Promise.all([recordStore(db).since(copy!.id, 'readings', 0), recordStore(db).since('hollin-scar', 'readings', 0)]); // prettier-ignore
    expect(mine!.records.length).toBe(theirs!.records.length);
    // A token opens one door.
    expect(await monitorStore(db, recordStore(db)).list(copy!.id)).toEqual([]);
  }, 120_000);

  it.skipIf(!tools)(
    'is opened by general tools: unzip, a map library, a spreadsheet’s reader, and as a plan file',
    async () => {
      await filled();
      const zip = join(folder, 'all.zip');
      writeFileSync(zip, await bytesOf(file));
      execFileSync('unzip', ['-q', zip, '-d', join(folder, 'out')]);
      const at = (path: string) => join(folder, 'out', 'hollin-scar', path);
      expect(readFileSync(join(folder, 'out', 'README.txt'), 'utf8')).toContain('anabatic restore');
      const info = execFileSync('ogrinfo', ['-so', '-al', at('map.geojson')], { encoding: 'utf8' });
      expect(info).toMatch(/Feature Count: [1-9]\d/);
      expect(parsePlan(readFileSync(at('plan.json'), 'utf8')).plan.name).toBe('Hollin Scar');
      const { data, errors } = Papa.parse<Record<string, string>>(readFileSync(at('records/readings.csv'), 'utf8'), { header: true }); // prettier-ignore
      expect(errors).toEqual([]);
      expect(data.length).toBeGreaterThan(400);
      expect(data.at(-1)).toMatchObject({ value: '610', void: '1' });
      // A spreadsheet takes no note for a formula.
      expect(data.at(-1)!['note']).toBe("'=1+1");
      expect(Papa.parse(readFileSync(at('prices.csv'), 'utf8'), { header: true }).errors).toEqual(
        [],
      );
    },
    120_000,
  );

  it('is refused where it is damaged, cut short, foreign or newer, and nothing of it is brought', async () => {
    await filled('one');
    const zip = await bytesOf(file);
    const files = unzipSync(zip);
    const made = (change: (f: Record<string, Uint8Array>) => void): Uint8Array => {
      const own = { ...files };
      change(own);
      return zipSync(own, { level: 1 });
    };
    /** With its hash put right: what the door itself must find. */
    const forged = (path: string, text: (was: string) => string) =>
      made((f) => {
        f[path] = strToU8(text(strFromU8(f[path]!)));
        const list = JSON.parse(strFromU8(f['bundle.json']!)) as { parts: Record<string, { sha256: string }> }; // prettier-ignore
        list.parts[path]!.sha256 = createHash('sha256').update(f[path]).digest('hex');
        f['bundle.json'] = strToU8(JSON.stringify(list));
      });
    const list = (part: object) => made((f) => (f['bundle.json'] = strToU8(JSON.stringify({ ...JSON.parse(strFromU8(f['bundle.json']!)) as object, ...part })))); // prettier-ignore
    const other = join(folder, 'b.sqlite');
    const db2 = await openDatabase(other);
    try {
      const cases: [Uint8Array, RegExp][] = [
        [strToU8('no zip'), /not a sound zip/],
        [zip.slice(0, zip.length - 400), /not a sound zip/],
        [zipSync({ 'a.txt': strToU8('x') }), /no backup of this program/],
        [made((f) => (f['one/history.ndjson'] = strToU8('[]'))), /damaged/],
        [made((f) => delete f['one/history.ndjson']), /missing/],
        [list({ version: 9 }), /later version of the program/],
        [list({ format: 'other' }), /format/],
        [list({ parts: { '../x': { sha256: '0'.repeat(64) } } }), /no place for a part/],
        [forged('one/history.ndjson', (t) => t.split('\n').slice(1).join('\n')), /not the next change/],
        [forged('one/history.ndjson', (t) => t.replaceAll('Burn side 49"', 'Burn side 4"')), /does not lead to the plan as it stood after change 50/],
        [forged('one/records/readings.ndjson', (t) => t.replace('"volts"', '"heat"')), /readings.ndjson, line 1/],
        [forged('one/records/readings.ndjson', (t) => t.replace('"who"', '"what"')), /readings.ndjson, line 1/],
        [forged('one/snapshots.ndjson', (t) => t.replace(/"version":\d/g, '"version":9')), /later version/],
        [forged('one/property.json', (t) => t.replace('"one"', '"two"')), /is of "two"/],
      ]; // prettier-ignore
      for (const [k, [bytes, words]] of cases.entries()) await expect(restored(db2, other, bytes).then(() => `case ${k} was taken`, (e: Error) => e.message)).resolves.toMatch(words); // prettier-ignore
      expect(await planStore(db2).list()).toEqual([]);
      expect(await db2('grid')).toEqual([]);
      expect(await restored(db2, other, zip)).toHaveLength(1);
    } finally {
      await db2.destroy();
    }
  }, 120_000);

  it('does not believe an archive that swells', () => {
    const bomb = zipSync({ 'bundle.json': strToU8('{}') });
    // The size that the archive's own list says, 3 GB.
    const view = new DataView(bomb.buffer, bomb.byteOffset);
    const central = bomb.length - 22 - 46 - 'bundle.json'.length;
    view.setUint32(central + 24, 3 * 1024 ** 3, true);
    expect(() => unzipped(bomb)).toThrow('more than 2 GB');
  });

  it('is written and brought back from the command line, one property or all', async () => {
    await filled();
    await planStore(db).create(parsePlan(readFileSync('demo/hollin-scar.plan.json', 'utf8')), 'second'); // prettier-ignore
    const said: string[] = [];
    const io = { out: (t: string) => void said.push(t), err: (t: string) => void said.push(t), stdin: () => '' }; // prettier-ignore
    const zip = join(folder, 'one.zip');
    expect(await run(['backup', zip, '--property', 'second', '--db', file], io)).toBe(0);
    expect(Object.keys(hashes(readFileSync(zip))).every((p) => p.startsWith('second/'))).toBe(true);
    expect(existsSync(`${zip}.part`)).toBe(false);
    expect(await run(['restore', zip, '--db', join(folder, 'c.sqlite')], io)).toBe(0);
    expect(said.at(-1)).toBe('Hollin Scar (second): brought back');
    expect(await run(['backup', zip, '--property', 'third', '--db', file], io)).toBe(2);
    expect(await run(['restore', join(folder, 'none.zip'), '--db', file], io)).toBe(2);
  }, 120_000);
});

describe('the copy of each day', () => {
  it('is made once, whole, while somebody writes; it opens as a store', async () => {
    await filled();
    const first = await copied(file, '2026-06-01');
    expect(first).toBe(join(copiesOf(file), '2026-06-01.sqlite'));
    expect(await copied(file, '2026-06-01')).toBeNull();
    const copy = await openDatabase(first!);
    expect((await planStore(copy).head('hollin-scar'))!.revision).toBe(53);
    await copy.destroy();
    // One that was broken off is made anew.
    writeFileSync(join(copiesOf(file), '2026-06-02.part'), 'half');
    expect(await copied(file, '2026-06-02')).not.toBeNull();
    expect(readdirSync(copiesOf(file)).filter((f) => f.endsWith('.part'))).toEqual([]);
  }, 60_000);

  it('stays for fourteen days, and the first of each month for a year', async () => {
    const days = Array.from({ length: 500 }, (_, k) => new Date(Date.parse('2025-01-01') + k * 86_400_000).toISOString().slice(0, 10)); // prettier-ignore
    let kept: string[] = [];
    for (const day of days) {
      kept.push(day);
      const gone = pruned(kept);
      kept = kept.filter((d) => !gone.includes(d));
    }
    expect(kept.slice(-14)).toEqual(days.slice(-14));
    expect(kept.length).toBeLessThanOrEqual(14 + 12);
    expect(kept.filter((d) => d.endsWith('-01')).length).toBe(12);
    mkdirSync(copiesOf(file), { recursive: true });
    for (const day of days.slice(0, 40)) writeFileSync(join(copiesOf(file), `${day}.sqlite`), '');
    await copied(file, '2026-06-01');
    expect(readdirSync(copiesOf(file)).length).toBeLessThan(20);
  });
});
