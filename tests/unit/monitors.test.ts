/** Devices that report by themselves: who is heard, what goes into the log, and what is refused. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Knex } from 'knex';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { isSimulated } from '../../src/core/rounds/logged.js';
import { openDatabase } from '../../src/server/database.js';
import { monitorStore, type MonitorStore } from '../../src/server/monitors.js';
import { recordStore, type RecordStore } from '../../src/server/records/store.js';
import { planStore } from '../../src/server/plans/store.js';
import { line, plan } from './scene.js';

const START = Date.parse('2026-06-01T06:00:00Z');
const HOUR = 3600_000;
let folder: string;
let db: Knex;
let records: RecordStore;
let monitors: MonitorStore;
let id: string;
let clock: number;
const AT = { name: 'Gate post', kind: 'volts', line: 'a', at_m: 40, unit: null, simulated: false };

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'anabatic-'));
  db = await openDatabase(join(folder, 'test.sqlite'));
  clock = START;
  records = recordStore(db);
  monitors = monitorStore(db, records, () => clock);
  const a = line('a', [
    [0, 0],
    [100, 0],
  ]);
  id = await planStore(db).create({ plan: plan([a]), grids: {} });
});
afterEach(async () => {
  await db.destroy();
  rmSync(folder, { recursive: true });
});

const make = async (part: object = {}) => (await monitors.make(id, { ...AT, ...part }))!;
const logged = async () => (await records.since(id, 'readings', 0))!.records;

describe('a monitor', () => {
  it('puts what it reads into the log at its place, and is told apart from a hand and a stand-in', async () => {
    const { token } = await make();
    expect(await monitors.hear(token, { value: 6200 })).toBe('kept');
    const [reading] = await logged();
    expect(reading).toMatchObject({ kind: 'volts', value: 6200, line: 'a', at_m: 40, unit: null, who: 'Gate post', note: 'monitor', time: new Date(START).toISOString() }); // prettier-ignore
    expect(isSimulated(reading as never)).toBe(false);
    const sim = await make({ simulated: true, line: null, at_m: null, unit: 'u', kind: 'earth_volts' });
    await monitors.hear(sim.token, { value: 90 });
    expect(isSimulated((await logged())[1] as never)).toBe(true);
    expect((await logged())[1]).toMatchObject({ unit: 'u', line: null, kind: 'earth_volts' });
  }); // prettier-ignore

  it('keeps one a day of what stands still, and at once what moved by more than a tenth', async () => {
    const { token } = await make();
    const heard: string[] = [];
    for (const value of [6000, 6300, 5500, 5300, 5200, 4000]) {
      heard.push(await monitors.hear(token, { value }));
      clock += HOUR;
    }
    expect(heard).toEqual(['kept', 'heard', 'heard', 'kept', 'heard', 'kept']);
    expect((await monitors.list(id))![0]).toMatchObject({ heard: 4000 });
    clock += 24 * HOUR;
    expect(await monitors.hear(token, { value: 4010 })).toBe('kept');
    expect((await logged()).map((r) => r['value'])).toEqual([6000, 5300, 4000, 4010]);
  });

  it('is heard with its own token alone, until that is taken back; the store knows no token', async () => {
    const { monitor, token } = await make();
    expect(await monitors.hear(`${token.slice(0, -1)}${token.endsWith('A') ? 'B' : 'A'}`, { value: 1 })).toBe('unknown'); // prettier-ignore
    expect(JSON.stringify(await db('monitor'))).not.toContain(token);
    expect(JSON.stringify(await monitors.list(id))).not.toMatch(/token|hash/);
    expect(await monitors.revoke('other', monitor.id)).toBe(false);
    expect(await monitors.revoke(id, monitor.id)).toBe(true);
    expect(await monitors.hear(token, { value: 6200 })).toBe('unknown');
    expect(await logged()).toHaveLength(0);
    expect((await monitors.list(id))![0]!.revoked_at).not.toBeNull();
  });

  it('brings what it kept without coverage, each once, the newest as its last', async () => {
    const { token } = await make();
    const at = (hours: number) => new Date(START - hours * HOUR).toISOString();
    await monitors.hear(token, { value: 6000, time: at(1), id: 'report-0001' });
    await monitors.hear(token, { value: 3000, time: at(30), id: 'report-0002' });
    await monitors.hear(token, { value: 3000, time: at(30), id: 'report-0002' });
    expect((await logged()).map((r) => r.time)).toEqual([at(1), at(30)]);
    expect((await monitors.list(id))![0]).toMatchObject({ heard: 6000, heard_at: at(1) });
    // Two devices may count alike.
    const other = await make({ name: 'Other' });
    expect(await monitors.hear(other.token, { value: 1, id: 'report-0001' })).toBe('kept');
  });

  it('may send sixty at once and then one in ten seconds, each for itself', async () => {
    const [one, two] = [await make(), await make({ name: 'Two' })];
    for (let k = 0; k < 60; k++) expect(await monitors.hear(one.token, { value: 6000 })).not.toBe('too often'); // prettier-ignore
    expect(await monitors.hear(one.token, { value: 6000 })).toBe('too often');
    expect(await monitors.hear(two.token, { value: 6000 })).toBe('kept');
    clock += 10_000;
    expect(await monitors.hear(one.token, { value: 6000 })).toBe('heard');
    expect(await monitors.hear(one.token, { value: 6000 })).toBe('too often');
  });

  it('is refused with a clock that cannot be, and with what is no report', async () => {
    const { token } = await make();
    const refused = async (report: object, words: RegExp) => expect(monitors.hear(token, report)).rejects.toThrow(words); // prettier-ignore
    await refused({ value: 1, time: new Date(START + HOUR).toISOString() }, /lies ahead/);
    await refused({ value: 1, time: '1970-01-01T00:00:00Z' }, /older than 60 days/);
    await refused({ value: 1, time: '2026-06-01T05:00:00' }, /offset/);
    await refused({ value: -1 }, /value/);
    await refused({ value: 1, line: 'b' }, /line/);
    await refused({}, /value/);
    expect(await logged()).toHaveLength(0);
  });

  it('stands on a line or at a unit, reads there what can be read, and is one of a hundred', async () => {
    await expect(make({ unit: 'u' })).rejects.toThrow('one of the two');
    await expect(make({ line: null, at_m: null })).rejects.toThrow('one of the two');
    await expect(make({ at_m: null })).rejects.toThrow('goes with a line');
    await expect(make({ kind: 'battery_volts' })).rejects.toThrow('at a unit');
    expect(await monitors.make('none', AT)).toBeNull();
    expect(await monitors.list('none')).toBeNull();
    for (let k = 0; k < 100; k++) await make({ name: `${k}` });
    await expect(make()).rejects.toThrow('at most 100');
  });
});
