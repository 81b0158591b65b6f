/**
 * npm test: sets up, then types, lint, unit, reference and browser tests. Steps that do not need one another run side by
 * side; each prints its output in one piece. `npm run test:all` (--all) is the same with all that is too slow for each run.
 */
import { spawn } from 'node:child_process';
import { mkdirSync, readFileSync } from 'node:fs';
import { debian, install } from './setup.mjs';

install();
debian('chromium', 'gdal-bin', 'ngspice', 'openssl', 'unzip');
mkdirSync('test-results', { recursive: true });
const all = process.argv.includes('--all');
const env = {
  ...process.env,
  ASTRO_TELEMETRY_DISABLED: '1',
  FORCE_COLOR: '0',
  // A short run of the long one (npm run fuzz), the same each time.
  COUNT: all ? '5000' : '400',
  SEED: '1',
  ...(all ? { ALL: '1' } : {}),
};
let failed = 0;

/** Runs one step to its end; its output is kept together. */
function step(name, command, args) {
  const start = Date.now();
  return new Promise((done) => {
    const program = command.includes('/') ? command : `node_modules/.bin/${command}`;
    const child = spawn(program, args, { env });
    let out = '';
    child.stdout.on('data', (data) => (out += data));
    child.stderr.on('data', (data) => (out += data));
    child.on('exit', (code) => {
      const seconds = ((Date.now() - start) / 1000).toFixed(1);
      console.log(`\n== ${name}: ${code === 0 ? 'good' : 'FAILED'} (${seconds} s)`);
      if (code !== 0 || name.endsWith('tests')) console.log(out.trim());
      if (code !== 0) failed++;
      done();
    });
  });
}

// Types, lint and build are of one processor each: they run side by side with the unit tests, which take what is left.
await Promise.all([
  (async () => {
    await step('build', process.execPath, ['scripts/setup.mjs']);
    await step('types', 'astro', ['check', '--minimumSeverity', 'warning']);
    await step('format', 'prettier', ['--check', '--cache', '.']);
    await step('lint', 'eslint', ['--max-warnings', '0', '.']);
    await step('imports', 'depcruise', ['src', '--config', '.dependency-cruiser.cjs']);
    await step('damaged files and requests', process.execPath, [
      'scripts/ts.mjs',
      'tests/fuzz/fuzz.ts',
    ]);
  })(),
  step('unit and reference tests', 'vitest', [
    'run',
    '--reporter=default',
    '--reporter=json',
    '--outputFile.json=test-results/unit.json',
  ]),
]);
await step('browser tests', 'playwright', ['test']);

const unit = JSON.parse(readFileSync('test-results/unit.json', 'utf8'));
const browser = JSON.parse(readFileSync('test-results/browser.json', 'utf8')).stats;
const bad = unit.numFailedTests + browser.unexpected;
console.log(`\n${unit.numPassedTests + browser.expected} passed, ${bad} failed`);
process.exitCode = failed === 0 && bad === 0 ? 0 : 1;
