/** Performance claims live here. Run: npm run bench */
import { readFileSync } from 'node:fs';
import { bench, describe } from 'vitest';
import { createEvaluator, evaluate } from '../../src/core/evaluate.js';
import { catalogue } from '../../src/core/plan/catalogue.js';
import { moveVertex } from '../../src/core/plan/edits.js';
import { solveUnit } from '../../src/core/power/network.js';
import { groundOf } from '../../src/core/terrain/ground.js';
import { edit } from '../../src/formats/patch.js';
import { parsePlan } from '../../src/formats/planFile.js';
import { farmCircuit } from '../unit/farm.js';

const farm = farmCircuit(2000, 5);
const demo = parsePlan(readFileSync('demo/hollin-scar.plan.json', 'utf8'));
const ground = groundOf(demo.plan, demo.grids);

describe('network', () => {
  // Claim: under 100 ms.
  bench('2,000 sections of 5 strands, assembled and solved', () => void solveUnit(farm));
});

describe('evaluate', () => {
  bench('the whole demo property, from nothing', () => void evaluate(demo.plan, ground, catalogue));

  const warm = createEvaluator();
  warm(demo.plan, ground, catalogue);
  let step = 0;
  // Claim: under 100 ms worst, 50 ms median, on the screen; this is its larger part.
  bench('the demo property, one vertex dragged', () => {
    step++;
    const { next } = edit(demo.plan, (d) =>
      moveVertex(d, 'terrace', 1, { e: 212 + (step % 40) / 10, n: 72 }),
    );
    warm(next, ground, catalogue);
  });
});
