/** npm run demo, npm start: set up, build if need be, serve. */
import { spawn } from 'node:child_process';
import { build, install } from './setup.mjs';

install();
build();
const child = spawn(process.execPath, ['bin/anabatic', ...process.argv.slice(2)], {
  stdio: 'inherit',
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal));
child.on('exit', (code) => (process.exitCode = code ?? 0));
