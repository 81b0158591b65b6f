/**
 * npm run torture, second part: a disk that is full, then one that is read-only, under a server that goes on. What is not
 * saved is said with 503 and words, and nothing of it is there later; what was saved stays; and when there is room again the
 * same change is taken. Wants leave to mount a small file system of its own; without, it says so and proves nothing.
 */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startServer } from './process.js';

const folder = mkdtempSync(join(tmpdir(), 'anabatic-disk-'));
const run = (...words: string[]) => spawnSync(words[0]!, words.slice(1)).status === 0;
if (!run('mount', '-t', 'tmpfs', '-o', 'size=12m', 'tmpfs', folder)) {
  rmSync(folder, { recursive: true });
  throw new Error('no leave to mount a file system here: full and read-only disks were not tried');
}
const faults: string[] = [];
const expect = (what: string, ok: boolean) => {
  console.log(`${ok ? 'good' : 'WRONG'}: ${what}`);
  if (!ok) faults.push(what);
};
const db = join(folder, 'store.sqlite');
let server = await startServer(db, 4397);
try {
  const headers = { 'content-type': 'application/json' };
  const made = await fetch(`${server.base}/api/properties`, { method: 'POST', headers, body: readFileSync('demo/hollin-scar.plan.json', 'utf8') }); // prettier-ignore
  const { id } = (await made.json()) as { id: string };
  const url = `${server.base}/api/properties/${id}`;
  const acked = new Set<string>();
  const send = async (name: string, words = 'w') => {
    const path = `/things/${name}`;
    const value = { id: name, name: 'x'.repeat(60), kind: 'tree', points: [{ e: 1, n: 2 }] };
    const answer = await fetch(`${url}/changes`, { method: 'POST', headers, body: JSON.stringify({ changeId: `change-${name}`, tab: 'tab-1', base: 0, kind: 'do', words, patch: [{ op: 'add', path, value }], inverse: [{ op: 'remove', path }] }) }); // prettier-ignore
    const said = (await answer.json()) as { error?: string };
    if (answer.ok) acked.add(`change-${name}`);
    return { status: answer.status, said: said.error ?? '' };
  };
  expect('a change is saved', (await send('a')).status === 200);

  // Full to the last page.
  for (let size = 1 << 20; size >= 4096; size /= 2)
    for (let k = 0; ; k++) {
      try {
        writeFileSync(join(folder, `fill-${size}-${k}`), Buffer.alloc(size));
      } catch {
        break;
      }
    }
  const full: { status: number; said: string }[] = [];
  for (let k = 0; k < 40; k++) full.push(await send(`full${k}`));
  expect(`on a full disk it is refused with 503 (${full.at(-1)!.said})`, full.at(-1)!.status === 503 && full.at(-1)!.said.includes('no room left')); // prettier-ignore
  expect('and only so, whatever was tried', full.every((f) => f.status === 200 || f.status === 503)); // prettier-ignore
  expect('what is there can be read meanwhile', (await fetch(url)).status === 200);
  run('sh', '-c', `rm -f ${folder}/fill-*`);
  expect('with room again the same change is taken', (await send('full39')).status === 200);

  // One that became read-only: it is read from, and what would be written is refused.
  await server.kill();
  expect('the file system is made read-only', run('mount', '-o', 'remount,ro', folder));
  server = await startServer(db, 4397);
  expect('what is on it can be read', (await fetch(url)).status === 200);
  const readOnly = await send('ro');
  expect(`a change is refused with 503 (${readOnly.said})`, readOnly.status === 503 && readOnly.said.includes('read-only')); // prettier-ignore
  const well = await fetch(`${server.base}/api/health`);
  expect(`whoever watches it is told (${well.status}: ${await well.text()})`, well.status === 503);
  await server.kill();
  run('mount', '-o', 'remount,rw', folder);
  server = await startServer(db, 4397);
  expect('and it is taken when it can be written again', (await send('ro')).status === 200);

  const { changes } = (await (await fetch(`${url}/changes?since=0`)).json()) as { changes: { changeId: string; revision: number }[] }; // prettier-ignore
  const ids = changes.map((c) => c.changeId);
  expect(`${acked.size} answered as saved are there once, and nothing else`, ids.length === acked.size && ids.every((c) => acked.has(c)) && new Set(ids).size === ids.length); // prettier-ignore
  expect(
    'the history has no gap',
    changes.every((c, k) => c.revision === k + 1),
  );
} finally {
  await server.kill();
  run('umount', '-l', folder);
  rmSync(folder, { recursive: true });
}
if (faults.length > 0) process.exitCode = 1;
