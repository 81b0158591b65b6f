/** npm run bench: the performance claims, measured on this machine. */
import { spawnSync } from 'node:child_process';
import { install } from './setup.mjs';

install();
const { status } = spawnSync('node_modules/.bin/vitest', ['bench', '--run'], { stdio: 'inherit' });
process.exitCode = status ?? 1;
