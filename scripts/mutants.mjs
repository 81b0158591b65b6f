/**
 * npm run mutants -- [--count 200] [--least 8] [--seed 1] [--folder src/core/power]
 * A seeded sample of all mutants of the heart, the formats and the server, each run through the unit and
 * reference tests that meet it. The whole would take days here; of a sample of a few hundred the share
 * that is caught is known to within a few per cent. Texts are not mutated.
 * Every folder has its due share of the sample and at least so many; the whole is weighed by the folders.
 */
import { spawn } from 'node:child_process';
import {
  cpSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { availableParallelism } from 'node:os';
import { parseArgs } from 'node:util';
import { createInstrumenter } from '@stryker-mutator/instrumenter';
import { createInjector } from 'typed-inject';

const { values } = parseArgs({
  options: {
    count: { type: 'string', default: '200' },
    least: { type: 'string', default: '8' },
    seed: { type: 'string', default: '1' },
    folder: { type: 'string', multiple: true, default: ['src/core', 'src/formats', 'src/server'] },
  },
});
const TREE = 'test-results/mutants';
const CONFIG = ['--config', 'tests/mutants/vitest.config.ts'];

/** Uniform in [0, 1), the same for a seed on every machine (a linear congruential generator). */
let state = Number(values.seed) >>> 0;
function random() {
  state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
  return state / 2 ** 32;
}

const logger = { isTraceEnabled: () => false, isDebugEnabled: () => false };
for (const level of ['trace', 'debug', 'info', 'warn', 'error', 'fatal']) logger[level] = () => {};
/** Mutants of files, and the files with all of them in, each asleep until the environment names it. */
const instrument = (files) =>
  createInjector()
    .provideValue('logger', logger)
    .provideValue('options', {})
    .injectFunction(createInstrumenter)
    .instrument(files, {
      plugins: null,
      ignorers: [],
      excludedMutations: ['StringLiteral'],
      noHeader: false,
    });
const source = (name, mutate) => ({ name, mutate, content: readFileSync(name, 'utf8') });
const keyOf = ({ fileName, location, replacement }) =>
  JSON.stringify([fileName, location, replacement]);

/** Ends with true when the command ends well; one that takes too long hangs, and is ended. */
function passes(program, args, { limit_ms = 600_000, mutant } = {}) {
  return new Promise((done) => {
    const env = { ...process.env, RUNS: '100' };
    if (mutant !== undefined)
      Object.assign(env, { MUTANT: mutant, __STRYKER_ACTIVE_MUTANT__: mutant });
    const child = spawn(`${process.cwd()}/node_modules/.bin/${program}`, args, {
      cwd: TREE,
      stdio: 'ignore',
      detached: true,
      env,
    });
    const over = setTimeout(() => process.kill(-child.pid, 'SIGKILL'), limit_ms);
    child.on('exit', (code) => {
      clearTimeout(over);
      done(code === 0);
    });
  });
}

const files = values.folder
  .flatMap((folder) => readdirSync(folder, { recursive: true }).map((name) => `${folder}/${name}`))
  .filter((file) => file.endsWith('.ts') && !/\/(keys|planKeys|reportKeys)\.ts$/.test(file))
  .sort();
const all = (await instrument(files.map((name) => source(name, true)))).mutants.filter(
  (mutant) => mutant.status !== 'Ignored',
);
const folderOf = ({ fileName }) => {
  const parts = fileName.split('/');
  return parts.slice(0, Math.min(parts.length - 1, parts[1] === 'core' ? 3 : 2)).join('/');
};
const byFolder = new Map(all.map((mutant) => [folderOf(mutant), []]));
for (const mutant of all) byFolder.get(folderOf(mutant)).push(mutant);
const chosen = new Set(
  [...byFolder.values()].flatMap((own) =>
    own
      .map((mutant) => [random(), keyOf(mutant)])
      .sort((a, b) => a[0] - b[0])
      .slice(
        0,
        Math.max(
          Number(values.least),
          Math.round((Number(values.count) * own.length) / all.length),
        ),
      )
      .map(([, key]) => key),
  ),
);
console.log(`${chosen.size} of ${all.length} mutants, seed ${values.seed}`);

// A copy of the project with the chosen ones in it.
rmSync(TREE, { recursive: true, force: true });
mkdirSync(TREE, { recursive: true });
for (const name of ['src', 'tests', 'scripts', 'demo', 'data', 'bin', 'docs', 'public'])
  cpSync(name, `${TREE}/${name}`, { recursive: true });
for (const name of ['package.json', 'tsconfig.json', 'vitest.config.ts'])
  cpSync(name, `${TREE}/${name}`);
symlinkSync(`${process.cwd()}/node_modules`, `${TREE}/node_modules`);
const rangesOf = (file) =>
  all.filter((m) => m.fileName === file && chosen.has(keyOf(m))).map((m) => m.location);
const made = await instrument(
  files.filter((file) => rangesOf(file).length > 0).map((file) => source(file, rangesOf(file))),
);
for (const { name, content } of made.files) writeFileSync(`${TREE}/${name}`, content);
const mutants = made.mutants.filter((mutant) => chosen.has(keyOf(mutant)));

// Without any of them all is good; on the way each test says which it meets.
const seen = ['--reporter', 'json', '--outputFile', 'seen.json'];
if (!(await passes('vitest', ['run', ...CONFIG, ...seen])))
  throw new Error('the tests do not pass without any mutant');
const tests = new Map();
const first = new Set();
for (const line of readFileSync(`${TREE}/met.jsonl`, 'utf8').trim().split('\n')) {
  const met = JSON.parse(line);
  for (const id of Object.keys(met.static ?? {})) first.add(id);
  for (const [test, ids] of Object.entries(met.perTest ?? {}))
    for (const id of Object.keys(ids)) tests.set(id, (tests.get(id) ?? new Set()).add(test));
}
const took = Object.fromEntries(
  JSON.parse(readFileSync(`${TREE}/seen.json`, 'utf8')).testResults.map((file) => [
    file.name.slice(file.name.indexOf('/tests/') + 1),
    file.endTime - file.startTime,
  ]),
);
writeFileSync(`${TREE}/took.json`, JSON.stringify(took));

const placeOf = ({ fileName, location: { start }, mutatorName, replacement }) =>
  `${fileName}:${start.line + 1}:${start.column + 1} ${mutatorName}: ${replacement.replace(/\s+/g, ' ').slice(0, 160)}`;

/** True when every test that meets the mutant passes with it. */
async function lives(mutant) {
  // What is met while loading may be felt in any test.
  const which = first.has(mutant.id) ? null : [...(tests.get(mutant.id) ?? [])];
  if (which?.length === 0) return true;
  const names = which?.map((test) => test.split('\n')) ?? [];
  const only = [...new Set(names.map(([file]) => file))];
  const expression = names.map(([, name]) => name.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')).join('|');
  const filter = which && expression.length < 100_000 ? ['-t', expression] : [];
  const usual_ms = (which ? only : Object.keys(took)).reduce((sum, file) => sum + took[file], 0);
  return passes('vitest', ['run', ...CONFIG, ...filter, ...only], {
    mutant: mutant.id,
    limit_ms: 30_000 + 4 * usual_ms,
  });
}

const left = [...mutants];
const survivors = [];
await Promise.all(
  Array.from({ length: availableParallelism() }, async () => {
    for (let mutant; (mutant = left.shift());) {
      if (!(await lives(mutant))) continue;
      survivors.push(mutant);
      console.log(`${mutants.length - left.length} begun, passed by ${placeOf(mutant)}`);
    }
  }),
);

// What does not compile is caught by the types, which npm test checks too.
const types = ['--noEmit', '-p', 'tests/mutants/tsconfig.json'];
for (const file of files) cpSync(file, `${TREE}/${file}`);
const dead = new Set(mutants);
for (const mutant of survivors) {
  const { fileName, location, replacement } = mutant;
  const text = readFileSync(fileName, 'utf8');
  const lines = text.split('\n');
  const at = ({ line, column }) =>
    lines.slice(0, line).reduce((sum, one) => sum + one.length + 1, 0) + column;
  const changed = text.slice(0, at(location.start)) + replacement + text.slice(at(location.end));
  writeFileSync(`${TREE}/${fileName}`, changed);
  if (await passes('tsc', types)) {
    dead.delete(mutant);
    console.log(`LIVES ${placeOf(mutant)}`);
  }
  writeFileSync(`${TREE}/${fileName}`, text);
}

let share = 0;
for (const [folder, own] of byFolder) {
  const asked = mutants.filter((mutant) => folderOf(mutant) === folder);
  const caught = asked.filter((mutant) => dead.has(mutant)).length;
  share += (caught / asked.length) * (own.length / all.length);
  console.log(`${folder.padEnd(22)} ${caught} of ${asked.length} (${((100 * caught) / asked.length).toFixed(0)} %), of ${own.length}`); // prettier-ignore
}
console.log(`the whole: ${(100 * share).toFixed(0)} %`);
