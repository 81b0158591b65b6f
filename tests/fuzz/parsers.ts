/**
 * npm run fuzz, second part: every parser by itself, a million damaged files (FILES, SEED from outside). None may throw
 * anything but its own errors, take longer than 2 s, or make memory grow without end. On the server they stand behind the
 * limits of their helper processes as well (fuzz.ts).
 */
import { readFileSync } from 'node:fs';
import { isMainThread, parentPort, Worker, workerData } from 'node:worker_threads';
import { zipSync } from 'fflate';
import { PlanSchema, type Plan } from '../../src/core/plan/schema.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import { PatchSchema, ProposedSchema } from '../../src/formats/changeSchema.js';
import { FormatError, parseJson } from '../../src/formats/error.js';
import { readGround, readGroundTiff } from '../../src/formats/ground.js';
import { applyPatch } from '../../src/formats/patch.js';
import { parsePlan } from '../../src/formats/planFile.js';
import { readPrices } from '../../src/formats/priceCsv.js';
import { parseReadings } from '../../src/formats/readingCsv.js';
import { prepare, validate } from '../../src/formats/validate.js';
import { readWalked } from '../../src/formats/walked.js';
import { unzipped, zipped } from '../../src/server/backup/bundle.js';
import { damages } from './damage.js';
import { seeds } from './seeds.js';

const FILES = Number(process.env['FILES'] ?? 1_000_000);
const SEED = Number(process.env['SEED'] ?? Date.now() % 1_000_000);
const THREADS = 2;
const MOST_MS = 2000;
/** Nothing heard for so long: it hangs, ms. */
const HANGS_MS = 30_000;

const text = (b: Uint8Array) => Buffer.from(b).toString('utf8');
const utm = { projection: 'utm 30n' };
type Run = (bytes: Uint8Array) => unknown;

/** What is damaged, and what then reads it. */
async function parsers(): Promise<{ name: string; bytes: Uint8Array; run: Run }[]> {
  const plan = readFileSync('tests/fixtures/plans/version-1.json');
  const opened = parsePlan(text(plan)).plan as Plan;
  const parts: Uint8Array[] = [];
  for await (const part of zipped([{ path: 'p/property.json', bytes: Buffer.from('{"id":"p"}') }]))
    parts.push(part);
  const bundle = Buffer.concat(parts);
  const sound = seeds(
    'p',
    zipSync(
      Object.fromEntries(
        [
          'bundle.json',
          'p/property.json',
          'p/snapshots.ndjson',
          'p/history.ndjson',
          'p/records/readings.ndjson',
          'p/monitors.ndjson',
        ].map((f) => [f, Buffer.from(f === 'bundle.json' ? '{"parts":{}}' : '{}')]),
      ),
    ),
    'x'.repeat(30),
  );
  const seed = (name: string) => sound.find((s) => s.name === name)!.bytes;
  const walked = (['gpx', 'kml', 'geojson', 'csv', 'zip'] as const).map((format) => ({
    name: format,
    bytes: seed(`walked ${format}`),
    run: (b: Uint8Array) => readWalked(format, format === 'zip' ? b : text(b), null),
  }));
  const change = seed('change');
  return [
    ...walked,
    { name: 'asc', bytes: seed('ground asc'), run: (b) => readGround('asc', text(b), utm, null) },
    {
      name: 'csv points',
      bytes: seed('ground csv'),
      run: (b) => readGround('csv', text(b), utm, null),
    },
    { name: 'tif', bytes: seed('ground tif'), run: (b) => readGroundTiff(b, utm, null) },
    { name: 'plan', bytes: plan, run: (b) => parsePlan(text(b)) },
    {
      name: 'change',
      bytes: change,
      run: (b) =>
        applyPatch(opened, validate<{ patch: never[] }>(ProposedSchema, parseJson(text(b))).patch),
    },
    {
      name: 'prices',
      bytes: Buffer.from(
        'item,price,currency,tax,date\nhtWire,120,GBP,20,2026-01-01\nsteel-180,5.2,GBP,20,2026-01-01',
      ),
      run: (b) => readPrices(text(b), catalogue, '2026-06-01'),
    },
    {
      name: 'readings',
      bytes: Buffer.from(
        'time,line,at_m,kind,value\n2026-05-01T10:00:00Z,A,3,volts,5000\n2026-05-02T10:00:00Z,A,4,amps,2',
      ),
      run: (b) =>
        parseReadings(text(b), {
          lines: {
            a: {
              id: 'a',
              name: 'A',
              vertices: [
                { e: 0, n: 0 },
                { e: 50, n: 0 },
              ],
            },
          },
          energisers: {},
        } as never),
    },
    { name: 'backup', bytes: bundle, run: (b) => unzipped(b) },
  ];
}

if (isMainThread) {
  console.log(`parsers: seed ${SEED}, ${FILES} files`);
  const heard = Array.from({ length: THREADS }, () => Date.now());
  let peak = 0;
  const watch = setInterval(() => {
    peak = Math.max(peak, process.memoryUsage().rss / 1048576);
    const silent = heard.findIndex((at) => at > 0 && Date.now() - at > HANGS_MS);
    if (silent < 0) return;
    console.log(`thread ${silent} hangs`);
    process.exit(1);
  }, 1000);
  const counts: Record<string, { taken: number; refused: number; worst_ms: number }> = {};
  const faults: string[] = [];
  await Promise.all(
    heard.map(
      (_, k) =>
        new Promise<void>((done, fail) => {
          const worker = new Worker(new URL(import.meta.url), { workerData: k });
          worker.on('error', fail);
          worker.on('exit', () => {
            heard[k] = 0;
            done();
          });
          worker.on('message', (said: { counts?: typeof counts; fault?: string }) => {
            heard[k] = Date.now();
            if (said.fault) faults.push(said.fault);
            for (const [name, own] of Object.entries(said.counts ?? {})) {
              const sum = (counts[name] ??= { taken: 0, refused: 0, worst_ms: 0 });
              sum.taken += own.taken;
              sum.refused += own.refused;
              sum.worst_ms = Math.max(sum.worst_ms, own.worst_ms);
            }
          });
        }),
    ),
  );
  clearInterval(watch);
  for (const [name, c] of Object.entries(counts)) console.log(`${name}: ${c.taken} taken, ${c.refused} refused, slowest ${c.worst_ms.toFixed(0)} ms`);
  const all = Object.values(counts).reduce((n, c) => n + c.taken + c.refused, 0);
  console.log(`${all} damaged files, ${faults.length} faults; ${peak.toFixed(0)} MB at the most`);
  for (const fault of faults.slice(0, 20)) console.log(fault);
  if (faults.length > 0 || peak > 1500) process.exitCode = 1;
} else {
  const k = workerData as number;
  // A reader of tables says on its own what it renames.
  console.warn = () => undefined;
  const { damage, pick } = damages(SEED + 7919 * k);
  prepare(PlanSchema, ProposedSchema, PatchSchema);
  const all = await parsers();
  // What is sound is taken, else damage would prove nothing.
  for (const { name, bytes, run } of all)
    try {
      await run(bytes);
    } catch (error) {
      parentPort!.postMessage({ fault: `${name} itself is not taken: ${String(error)}` });
    }
  let counts: Record<string, { taken: number; refused: number; worst_ms: number }> = {};
  let said = Date.now();
  for (let n = 0; n < FILES / THREADS; n++) {
    const { name, bytes, run } = pick(all);
    const damaged = damage(bytes);
    const own = (counts[name] ??= { taken: 0, refused: 0, worst_ms: 0 });
    const start = performance.now();
    try {
      await run(damaged);
      own.taken++;
    } catch (error) {
      own.refused++;
      if (!(error instanceof FormatError) && !(error instanceof RangeError))
        parentPort!.postMessage({ fault: `${name}: ${(error as Error)?.stack?.slice(0, 600)} ${Buffer.from(damaged).toString('base64').slice(0, 2000)}` });
    }
    const took = performance.now() - start;
    own.worst_ms = Math.max(own.worst_ms, took);
    if (took > MOST_MS) parentPort!.postMessage({ fault: `${name}: ${took.toFixed(0)} ms ${Buffer.from(damaged).toString('base64').slice(0, 2000)}` });
    if (Date.now() - said > 2000) {
      parentPort!.postMessage({ counts });
      counts = {};
      said = Date.now();
      await new Promise((wake) => setImmediate(wake));
    }
  }
  parentPort!.postMessage({ counts });
} // prettier-ignore
