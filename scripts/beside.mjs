/**
 * The heart beside an older state of the program (837060c, before eleven capabilities came), in turn, each in a fresh process.
 * Claims: a dragged vertex at most 1.2 times as long, the first evaluation at most 1.5 times. Needs the history of the project.
 */
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { claimed, middle } from './claims.mjs';

const OLD = '837060c';
const TIMES = Number(process.env.TIMES ?? 5);
const folder = resolve('test-results/beside');

const there = spawnSync('git', ['cat-file', '-e', `${OLD}^{commit}`]).status === 0;
if (!there) {
  console.log(`beside ${OLD}: not measured, the history of the project is not here`);
  process.exit(0);
}
rmSync(folder, { recursive: true, force: true });
mkdirSync(folder, { recursive: true });
execFileSync('tar', ['-x', '-C', folder], {
  input: execFileSync('git', ['archive', OLD], { maxBuffer: 2 ** 30 }),
});
symlinkSync(resolve('node_modules'), join(folder, 'node_modules'));
// The same script by the names of that time: there was no hurry and no mend to leave out.
writeFileSync(
  join(folder, 'scripts/core-drag.ts'),
  readFileSync('scripts/core-drag.ts', 'utf8')
    .replace('../src/core/edit/edits.js', '../src/core/plan/edits.js')
    .replace('../src/core/plan/shipped.js', '../src/core/plan/catalogue.js')
    .replaceAll(/evaluate\((\w+|demo\.plan), ground, catalogue, \{.*?\}\)/g, 'evaluate($1, ground, catalogue)'),
); // prettier-ignore

const run = (cwd) =>
  JSON.parse(execFileSync(process.execPath, ['scripts/ts.mjs', 'scripts/core-drag.ts'], { cwd, encoding: 'utf8' })); // prettier-ignore
const [now, then] = [[], []];
for (let k = 0; k < TIMES; k++) {
  then.push(run(folder));
  now.push(run('.'));
}
const middleOf = (list, key) => middle(list.map((m) => m[key]));
for (const [what, key, most] of [
  ['a vertex dragged, without volts', 'drag_ms', 1.2],
  ['the first evaluation', 'first_ms', 1.5],
]) {
  const [a, b] = [middleOf(now, key), middleOf(then, key)];
  console.log(`${what}: ${a.toFixed(1)} ms, at ${OLD} ${b.toFixed(1)} ms`);
  claimed(`${what}, beside ${OLD} (${a.toFixed(0)} for ${b.toFixed(0)} ms)`, [most, 'times'], a / b); // prettier-ignore
}
rmSync(folder, { recursive: true, force: true });
