/** Helpers for hostile and long work: stopped within their limits, and never the end of the server. */
import { mkdtempSync, rmSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { build } from 'esbuild';
import { zipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { createPool, JobError, type Pool } from '../../src/server/jobs/pool.js';
import { openDatabase } from '../../src/server/database.js';
import { JOBS } from '../../src/server/jobs/kinds.js';
import { planStore } from '../../src/server/plans/store.js';
import { line, plan } from './scene.js';

let folder: string;
let file: string;
let pool: Pool;
beforeAll(async () => {
  // Inside the project, so that the bundle finds its packages.
  folder = mkdtempSync(join(resolve('node_modules'), '.jobs-'));
  file = join(folder, 'worker.mjs');
  await build({ entryPoints: ['src/server/jobs/worker.ts'], outfile: file, bundle: true, platform: 'node', format: 'esm', packages: 'external', logLevel: 'error' }); // prettier-ignore
  pool = createPool({ file });
});
afterAll(() => {
  pool.close();
  rmSync(folder, { recursive: true });
});

const calc = (kind: string, inputs: object) => ({ body: JSON.stringify({ kind, inputs }), kind: null }); // prettier-ignore
const bays = calc('equal_bays', { length_m: 9, target_m: 3 });
/** Some seconds of work: flat ground, and hardly a limit. */
const long = calc('placement', {
  ground_s_m: Array.from({ length: 1100 }, (_, i) => i),
  ground_z_m: Array.from({ length: 1100 }, () => 0),
  strands: 1,
  tension_N: 1000,
  wire_weight_N_per_m: 0.4,
  wire_height_low_m: 90,
  clearance_min_m: -1e6,
  clearance_max_m: 1e6,
  max_spacing_m: 5000,
  safety_factor: 1,
  post_kinds: [{ name: 'a', price: 1, pullout_capacity_N: 1e6 }], // prettier-ignore
});
const walked = (format: string, bytes: Uint8Array) => ({
  body: JSON.stringify({ format, base64: Buffer.from(bytes).toString('base64'), origin: null }),
});

describe('a helper', () => {
  it('works a job out, and says what is wrong with its input by place and reason', async () => {
    expect(JSON.parse((await pool.run('calc', bays))['text']!)).toMatchObject({ outputs: { bays: 3 } }); // prettier-ignore
    await expect(pool.run('calc', calc('wenner', { spacing_m: -1 }))).rejects.toMatchObject({
      name: 'FormatError',
      place: '/inputs',
    });
    await expect(pool.run('calc', { body: '{', kind: null })).rejects.toThrow('not JSON');
  });

  it('saves a large change as the server itself would: once, and soundly', async () => {
    const store = join(folder, 'store.sqlite');
    const db = await openDatabase(store);
    const plans = planStore(db);
    const id = await plans.create({ plan: plan([line('a', [[0, 0], [90, 0]])]), grids: {} }); // prettier-ignore
    const points = Array.from({ length: 5000 }, (_, i) => ({ e: i, n: i % 7 }));
    const value = { t: { id: 't', name: 'Hedge', kind: 'tree', points } };
    const change = (name: string, value: unknown) => ({
      body: JSON.stringify({ changeId: `large-change-${name}`, tab: 'tab-1', base: 0, kind: 'do', words: 'w', patch: [{ op: 'add', path: '/things', value }], inverse: [{ op: 'remove', path: '/things' }] }), // prettier-ignore
      file: store,
      id,
      who: '',
    });
    const said = async (order: ReturnType<typeof change>) =>
      JSON.parse((await pool.run('commit', order))['text']!) as unknown;
    for (let k = 0; k < 2; k++)
      expect(await said(change('one', value))).toMatchObject({ status: 'saved', revision: 1 });
    expect((await plans.head(id))!.plan.things!['t']!.points).toHaveLength(5000);
    await expect(said(change('two', { t: { ...value.t, kind: 'dragon' } }))).rejects.toMatchObject({ name: 'FormatError', place: expect.stringContaining('/things/t/kind') }); // prettier-ignore
    expect(await said({ ...change('three', value), id: 'gone' })).toBeNull();
    await db.destroy();
  });

  it('is stopped when its time is over, and the next job has another', async () => {
    const short = createPool({ file, size: 1, limitsOf: (name) => ({ ...JOBS[name].limits, seconds: 0.4, secondsPerMegabyte: 0 }) }); // prettier-ignore
    const start = performance.now();
    const late = short.run('calc', long);
    await expect(late).rejects.toMatchObject({ status: 422, message: expect.stringContaining('longer than') }); // prettier-ignore
    expect(performance.now() - start).toBeLessThan(10_000);
    short.close();
    expect(await pool.run('calc', bays)).toHaveProperty('text');
  });

  it('is stopped when it takes too much memory, or too much comes of it', async () => {
    const tight = createPool({ file, look_ms: 5, limitsOf: (name) => ({ ...JOBS[name].limits, megabytes: 20 }) }); // prettier-ignore
    await expect(tight.run('calc', long)).rejects.toThrow('too much memory');
    tight.close();
    const few = createPool({ file, limitsOf: (name) => ({ ...JOBS[name].limits, output: 20 }) });
    await expect(few.run('calc', bays)).rejects.toThrow('too large');
    few.close();
  });

  it('is stopped when nobody waits for it any more, in the line too', async () => {
    const one = createPool({ file, size: 1 });
    const [busy, waits] = [new AbortController(), new AbortController()];
    const first = one.run('calc', long, busy.signal);
    const second = one.run('calc', long, waits.signal);
    const third = one.run('calc', bays);
    waits.abort();
    await expect(second).rejects.toMatchObject({ status: 499 });
    busy.abort();
    await expect(first).rejects.toMatchObject({ status: 499 });
    expect(await third).toHaveProperty('text');
    await expect(one.run('calc', bays, busy.signal)).rejects.toBeInstanceOf(JobError);
    one.close();
  });

  it('too many that wait are refused, not kept', async () => {
    const one = createPool({ file, size: 1, queue: 1 });
    const stop = new AbortController();
    const runs = [1, 2].map(() => one.run('calc', long, stop.signal).catch(() => null));
    await expect(one.run('calc', bays)).rejects.toMatchObject({ status: 503 });
    stop.abort();
    await Promise.all(runs);
    one.close();
  });
});

describe('hostile files', () => {
  it('a table whose header claims four thousand million rows is refused at once', async () => {
    const dbf = new Uint8Array(80);
    const view = new DataView(dbf.buffer);
    view.setUint32(4, 4_000_000_000, true);
    view.setUint16(8, 65, true);
    view.setUint16(10, 11, true);
    const shp = new Uint8Array(100);
    new DataView(shp.buffer).setInt32(0, 9994);
    const zip = zipSync({ 'a.shp': shp, 'a.dbf': dbf });
    await expect(pool.run('walked', walked('zip', zip))).rejects.toThrow(/claims more rows|not a sound/); // prettier-ignore
  });

  it('a zip that says it is smaller than it is unpacks no further than its bound', async () => {
    const zip = zipSync({ 'a.shp': new Uint8Array(40 * 1024 * 1024) }, { level: 9 });
    const view = new DataView(zip.buffer, zip.byteOffset);
    const text = Buffer.from(zip).toString('latin1');
    // The local header, and the central one (APPNOTE 4.3.7 and 4.3.12): uncompressed size.
    view.setUint32(22, 1000, true);
    view.setUint32(text.lastIndexOf('PK\u0001\u0002') + 24, 1000, true);
    await expect(pool.run('walked', walked('zip', zip))).rejects.toMatchObject({ name: 'FormatError' }); // prettier-ignore
  });

  it('a million open brackets take a moment', async () => {
    const start = performance.now();
    const body = JSON.stringify({ format: 'gpx', text: '<'.repeat(1_000_000), origin: null });
    await expect(pool.run('walked', { body })).rejects.toThrow('not closed');
    expect(performance.now() - start).toBeLessThan(4000);
  });

  it('a projection of nonsense is refused before anything is read with it', async () => {
    for (const proj of ['junk', 'junkjunk', '__proto__', '+proj=nothing', '+proj=longlat']) {
      const body = JSON.stringify({ format: 'csv', text: 'e,n\n0,0\n1,1', origin: { proj, x: 0, y: 0 } }); // prettier-ignore
      await expect(pool.run('walked', { body }), proj).rejects.toMatchObject({ place: '/origin/proj' }); // prettier-ignore
    }
  });
});
