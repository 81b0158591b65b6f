/**
 * npm run torture: the server is killed without a word again and again while four writers save plan
 * changes and readings. What was answered as saved must be there exactly once. KILLS says how often.
 */
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { News, Saved } from '../../src/formats/change.js';
import { startServer, type Running } from './process.js';

const KILLS = Number(process.env['KILLS'] ?? 200);
const WRITERS = 4;
const PORT = 4397;
const folder = mkdtempSync(join(tmpdir(), 'anabatic-torture-'));
const db = join(folder, 'store.sqlite');

let server: Running = await startServer(db, PORT);
const { base } = server;
const headers = { 'content-type': 'application/json' };
const made = await fetch(`${base}/api/properties`, {
  method: 'POST',
  headers,
  body: readFileSync('demo/hollin-scar.plan.json', 'utf8'),
});
const { id } = (await made.json()) as { id: string };
const url = `${base}/api/properties/${id}`;

let over = false;
let tries = 0;
const acked = new Set<string>();
const readings = new Set<string>();

/** Sends until there is an answer; the same id each time. */
async function send(path: string, body: { changeId?: string; id?: string }, into: Set<string>) {
  for (;;) {
    tries++;
    const answer = await fetch(`${url}${path}`, {
      method: 'POST',
      headers,
      body: JSON.stringify(body),
      signal: AbortSignal.timeout(5000),
    }).catch(() => null);
    if (answer?.ok) {
      into.add(body.changeId ?? body.id!);
      return;
    }
    if (answer && answer.status < 500) throw new Error(`${answer.status}: ${await answer.text()}`);
    await new Promise((wake) => setTimeout(wake, 20));
  }
}

async function writer(who: number): Promise<void> {
  for (let k = 0; !over; k++) {
    const thing = `w${who}-${k}`;
    const value = { id: thing, name: thing, kind: 'tree', points: [{ e: k, n: who }] };
    const path = `/things/${thing}`;
    await send(
      '/changes',
      {
        changeId: `change-${thing}`,
        tab: `writer-${who}`,
        base: 0,
        kind: 'do',
        words: thing,
        patch: [{ op: 'add', path, value }],
        inverse: [{ op: 'remove', path }],
      } as never,
      acked,
    );
    if (k % 3 === 0)
      await send(
        '/records/readings',
        { id: `reading-${thing}`, time: '2026-05-01T10:00:00Z', who: 'w', note: '', line: null, at_m: null, spot: 'gate', kind: 'volts', value: k } as never, // prettier-ignore
        readings,
      );
  }
}

const writers = Array.from({ length: WRITERS }, (_, who) => writer(who));
for (let k = 0; k < KILLS; k++) {
  await new Promise((wake) => setTimeout(wake, 60 + Math.random() * 240));
  await server.kill();
  server = await startServer(db, PORT);
}
over = true;
await Promise.all(writers);

const history: Saved[] = [];
for (let since = 0; ;) {
  const page = (await (await fetch(`${url}/changes?since=${since}`)).json()) as News;
  history.push(...page.changes);
  if (!page.more) break;
  since = history.at(-1)!.revision;
}
const { plan } = (await (await fetch(url)).json()) as { plan: { things: Record<string, unknown> } };
const kept: { id: string }[] = [];
for (let since = 0; ;) {
  const page = (await (await fetch(`${url}/records/readings?since=${since}`)).json()) as {
    records: { id: string; seq: number }[];
    more: boolean;
  };
  kept.push(...page.records);
  if (!page.more) break;
  since = page.records.at(-1)!.seq;
}
await server.kill();
rmSync(folder, { recursive: true });

const counts = new Map<string, number>();
for (const { changeId } of history) counts.set(changeId, (counts.get(changeId) ?? 0) + 1);
const lost = [...acked].filter(
  (c) => !counts.has(c) || !Object.hasOwn(plan.things, c.replace('change-', '')),
);
const doubled = [...counts].filter(([, n]) => n > 1);
const keptIds = kept.map((r) => r.id);
const lostReadings = [...readings].filter((r) => !keptIds.includes(r));
const doubledReadings = keptIds.length - new Set(keptIds).size;
const gaps = history.filter((h, i) => h.revision !== i + 1).length;
console.log(
  `${KILLS} kills, ${WRITERS} writers, ${tries} requests: ${acked.size} changes and ${readings.size} readings answered as saved; ` +
    `lost ${lost.length + lostReadings.length}, doubled ${doubled.length + doubledReadings}, gaps in the history ${gaps}`,
);
if (lost.length + lostReadings.length + doubled.length + doubledReadings + gaps > 0)
  process.exitCode = 1;
