/**
 * npm run fuzz: damaged files and requests against the built server. None may end it, hang it for more
 * than 5 s, be answered with 500, or make its memory grow without end. COUNT and SEED from outside; the
 * seed is printed, so that a run can be repeated.
 */
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { residentMegabytes, startServer } from '../torture/process.js';
import { damages } from './damage.js';
import { seeds, type Seed } from './seeds.js';

const COUNT = Number(process.env['COUNT'] ?? 20_000);
const SEED = Number(process.env['SEED'] ?? Date.now() % 1_000_000);
const AT_ONCE = 4;
const MOST_MS = 30_000;
console.log(`fuzz: seed ${SEED}, ${COUNT} requests`);
const { damage, pick } = damages(SEED);

const folder = mkdtempSync(join(tmpdir(), 'anabatic-fuzz-'));
const server = await startServer(join(folder, 'store.sqlite'), 4398);
// However this ends, its server ends with it: a later run must not speak to an old one.
process.on('exit', () => server.child.kill('SIGKILL'));
const headers = { 'content-type': 'application/json' };
const made = await fetch(`${server.base}/api/properties`, { method: 'POST', headers, body: readFileSync('tests/fixtures/plans/version-1.json', 'utf8') }); // prettier-ignore
const { id } = (await made.json()) as { id: string };
const post = (path: string, body: object) => fetch(server.base + path, { method: 'POST', headers, body: JSON.stringify(body) }); // prettier-ignore
const { token } = (await (await post(`/api/properties/${id}/monitors`, { name: 'A', kind: 'volts', line: 'a', at_m: 1, unit: null, simulated: true })).json()) as { token: string }; // prettier-ignore
await post(`/api/properties/${id}/records/readings`, { id: 'reading-0000', time: '2026-05-01T10:00:00Z', who: 'A', note: '', line: null, at_m: 3, spot: null, kind: 'volts', value: 5000 }); // prettier-ignore
await post(`/api/properties/${id}/changes`, { changeId: 'change-0000', tab: 'tab-1', base: 0, kind: 'do', words: 'w', patch: [{ op: 'replace', path: '/name', value: 'Once' }], inverse: [{ op: 'replace', path: '/name', value: 'Old' }] }); // prettier-ignore
const backup = new Uint8Array(await (await fetch(`${server.base}/api/backup`)).arrayBuffer());
const all = seeds(id, backup, token);

// What is sound is taken: else damage would prove nothing.
for (const seed of all) {
  const answer = await ask(seed, seed.bytes);
  if (!('status' in answer) || answer.status >= 300) throw new Error(`${seed.name} itself is not taken: ${JSON.stringify(answer)}`); // prettier-ignore
}

async function ask(
  seed: Seed,
  bytes: Uint8Array,
): Promise<{ status: number; ms: number; words: string } | { lost: string; ms: number }> {
  const start = performance.now();
  try {
    const answer = await fetch(server.base + seed.path, { method: 'POST', headers: seed.headers ?? headers, body: seed.body(bytes) as BodyInit, signal: AbortSignal.timeout(30_000) }); // prettier-ignore
    const words = (await answer.text()).slice(0, 200);
    return { status: answer.status, ms: performance.now() - start, words };
  } catch (error) {
    return { lost: String(error), ms: performance.now() - start };
  }
}

let left = COUNT;
let [worst, peak] = [0, 0];
const counts = new Map<string, number>();
const faults: string[] = [];
async function worker(): Promise<void> {
  while (left-- > 0 && server.child.exitCode === null) {
    const seed = pick(all);
    const bytes = damage(seed.bytes);
    const answer = await ask(seed, bytes);
    worst = Math.max(worst, answer.ms);
    if (left % 50 === 0) peak = Math.max(peak, residentMegabytes(server.child.pid!));
    const status = 'status' in answer ? String(answer.status) : 'lost';
    counts.set(status, (counts.get(status) ?? 0) + 1);
    const bad = status === 'lost' || status === '500' || answer.ms > MOST_MS;
    if (bad) faults.push(`${seed.name}: ${JSON.stringify(answer)} ${Buffer.from(bytes).toString('base64').slice(0, 3000)}`); // prettier-ignore
  }
}
await Promise.all(Array.from({ length: AT_ONCE }, worker));
const dead = server.child.exitCode !== null;
await server.kill();
rmSync(folder, { recursive: true });
console.log(
  `${COUNT} damaged files and requests: ${[...counts].map(([s, n]) => `${s} ${n} times`).join(', ')}; ` +
    `slowest ${Math.round(worst)} ms; the server took ${Math.round(peak)} MB at the most${dead ? '; IT ENDED' : ''}`,
);
for (const fault of faults.slice(0, 20)) console.log(fault);
if (dead || faults.length > 0 || peak > 900) process.exitCode = 1;
