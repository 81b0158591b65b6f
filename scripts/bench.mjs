/** npm run bench: the performance claims, measured on this machine. */
import { spawnSync } from 'node:child_process';
import { build, debian, install } from './setup.mjs';

install();
const { status } = spawnSync('node_modules/.bin/vitest', ['bench', '--run'], { stdio: 'inherit' });
debian('chromium');
build();
const trace = spawnSync(process.execPath, ['scripts/drag-trace.mjs'], { stdio: 'inherit' });
const strand = spawnSync(process.execPath, ['scripts/strand-trace.mjs'], { stdio: 'inherit' });
const scroll = spawnSync(process.execPath, ['scripts/scroll-trace.mjs'], { stdio: 'inherit' });
const pan = spawnSync(process.execPath, ['scripts/ts.mjs', 'scripts/station-trace.ts'], {
  stdio: 'inherit',
});
const crowd = spawnSync(process.execPath, ['scripts/ts.mjs', 'scripts/crowd-trace.ts'], {
  stdio: 'inherit',
});
const phones = spawnSync(process.execPath, ['scripts/ts.mjs', 'scripts/phones-trace.ts'], {
  stdio: 'inherit',
});
const questions = spawnSync(process.execPath, ['scripts/questions-trace.mjs'], {
  stdio: 'inherit',
});
process.exitCode =
  questions.status ||
  phones.status ||
  status ||
  trace.status ||
  strand.status ||
  scroll.status ||
  pan.status ||
  crowd.status ||
  0;
