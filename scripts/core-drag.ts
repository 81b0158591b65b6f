/**
 * The heart in a fresh process: how long the first evaluation of the demo takes, and one dragged vertex as the map asks for it.
 * `beside.mjs` runs it in turn beside an older state of the program; prints one line of JSON, ms.
 */
import { readFileSync } from 'node:fs';
import { createEvaluator } from '../src/core/evaluate.js';
import { moveVertex } from '../src/core/edit/edits.js';
import { catalogue } from '../src/core/plan/shipped.js';
import { groundOf } from '../src/core/terrain/ground.js';
import { edit } from '../src/formats/patch.js';
import { parsePlan } from '../src/formats/planFile.js';

const demo = parsePlan(readFileSync('demo/hollin-scar.plan.json', 'utf8'));
const ground = groundOf(demo.plan, demo.grids);
const evaluate = createEvaluator();
const start = performance.now();
evaluate(demo.plan, ground, catalogue, { hurry: 'first', mends: 0 });
const first_ms = performance.now() - start;
evaluate(demo.plan, ground, catalogue, { mends: 0 });
const { e, n } = demo.plan.lines['mid-e']!.vertices[1]!;
const took: number[] = [];
for (let step = 0; step < 120; step++) {
  const { next } = edit(demo.plan, (d) =>
    moveVertex(d, 'mid-e', 1, { e: e + (step % 40) / 10, n }),
  );
  const from = performance.now();
  evaluate(next, ground, catalogue, { hurry: true, left: ['wire', 'hold', 'strands', 'power'] });
  took.push(performance.now() - from);
}
const sorted = took.slice(20).sort((a, b) => a - b);
console.log(JSON.stringify({ first_ms, drag_ms: sorted[Math.floor(sorted.length / 2)] }));
