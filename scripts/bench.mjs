/** npm run bench: the performance claims, measured on this machine, in one table of claim and figure at the end. */
import { spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync } from 'node:fs';
import { claimsIn, table, wordsIn } from './claims.mjs';
import { build, debian, install } from './setup.mjs';

install();
debian('chromium');
build();
mkdirSync('test-results', { recursive: true });
const started = Date.now();
let failed = 0;

/** Runs a script, shows what it prints, and gives its claims. */
function traced(...args) {
  const { status, stdout } = spawnSync(process.execPath, args, {
    stdio: ['ignore', 'pipe', 'inherit'],
    encoding: 'utf8',
  });
  console.log(wordsIn(stdout));
  if (status !== 0) failed++;
  return claimsIn(stdout);
}

/** Claims in brackets behind the names of the benchmarks. */
function benched(file) {
  const { files } = JSON.parse(readFileSync(file, 'utf8'));
  return files
    .flatMap((f) => f.groups)
    .flatMap((g) => g.benchmarks.map((b) => ({ ...b, group: g.fullName.split(' > ').at(-1) })))
    .flatMap(({ name, group, median, mean }) => {
      const [, what, most] = /^(.*) \[(\d+) ms\]$/.exec(name) ?? [];
      return what ? { what: `${group}: ${what}`, most: Number(most), unit: 'ms', figure: median ?? mean } : []; // prettier-ignore
    });
}

const json = 'test-results/bench.json';
const { status } = spawnSync(
  'node_modules/.bin/vitest',
  ['bench', '--run', `--outputJson=${json}`],
  { stdio: 'inherit' },
);
if (status !== 0) failed++;
const claims = benched(json);
for (const script of [
  ['scripts/beside.mjs'],
  ['scripts/opening-trace.mjs'],
  ['scripts/drag-trace.mjs'],
  ['scripts/strand-trace.mjs'],
  ['scripts/questions-trace.mjs'],
  ['scripts/scroll-trace.mjs'],
  ['scripts/ts.mjs', 'scripts/station-trace.ts'],
  ['scripts/ts.mjs', 'scripts/crowd-trace.ts'],
  ['scripts/ts.mjs', 'scripts/phones-trace.ts'],
])
  claims.push(...traced(...script));
console.log(`\n${table(claims)}\n\n${((Date.now() - started) / 60_000).toFixed(1)} minutes`);
process.exitCode = failed === 0 ? 0 : 1;
