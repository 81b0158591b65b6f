import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { createEvaluator } from '../../src/core/evaluate.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import { checkPlan } from '../../src/core/check.js';
import * as edits from '../../src/core/edit/edits.js';
import { PlanSchema, type Plan } from '../../src/core/plan/schema.js';
import { ReportSchema } from '../../src/core/report/schema.js';
import { applyPatch, edit } from '../../src/formats/patch.js';
import { validate } from '../../src/formats/validate.js';
import { ALL, often } from '../often.js';
import { FLAT, line, plan } from './scene.js';

/** One thing that a hand may do on Land; `a` and `b` pick what and where. */
type Act = { what: number; a: number; b: number; e: number; n: number };
const acts = fc.array(
  fc.record({
    what: fc.nat({ max: 8 }),
    a: fc.nat({ max: 1000 }),
    b: fc.nat({ max: 1000 }),
    e: fc.double({ min: -500, max: 500, noNaN: true }),
    n: fc.double({ min: -500, max: 500, noNaN: true }),
  }),
  { minLength: 5, maxLength: 40 },
);

function perform(p: Plan, { what, a, b, e, n }: Act): void {
  const lines = Object.values(p.lines);
  const l = lines[a % Math.max(1, lines.length)];
  const units = Object.keys(p.energisers);
  const at = { e, n };
  if (what === 0 || !l) edits.addLine(p, [at, { e: e + 1 + b, n: n + 2 }]);
  else if (what === 1) edits.extendLine(p, l.id, at, b % 2 === 0);
  else if (what === 2) edits.moveVertex(p, l.id, b % l.vertices.length, at);
  else if (what === 3) edits.insertVertex(p, l.id, b % (l.vertices.length - 1), at);
  else if (what === 4) edits.removeVertex(p, l.id, b % l.vertices.length);
  else if (what === 5) edits.addGate(p, l.id, b, 0.5 + (b % 19));
  else if (what === 6) edits.addEnergiser(p, at, 60);
  else if (what === 7 && units.length) edits.moveEnergiser(p, units[b % units.length]!, at, 60);
  else if (what === 8 && b % 4 === 0) edits.removeLine(p, l.id);
}

/** Found by lot: a line that runs back over itself, with its turn in two gates; the posts before and after it stand in one place. */
const FOLDED: Act[] = [
  { what: 8, a: 0, b: 0, e: 0, n: 0 },
  { what: 0, a: 0, b: 397, e: 0, n: -39.540925776150395 },
  { what: 5, a: 0, b: 683, e: 0, n: 0 },
  { what: 3, a: 0, b: 0, e: 0, n: 0 },
  { what: 5, a: 0, b: 433, e: 0, n: 0 },
  { what: 2, a: 0, b: 865, e: 1.4210854715202006e-13, n: 0 },
  { what: 1, a: 0, b: 91, e: 0, n: 0 },
];

/** Mends follow by the same memory; `tracked.test.ts` tries them on a smaller plan. */
const quick = { mends: ALL ? Infinity : 0 };

describe('whatever a hand does on Land', () => {
  it('leaves a sound plan that evaluates, the same with memory as without, and can be taken back', () => {
    fc.assert(
      fc.property(acts, (list) => {
        const start = plan([
          line('a', [
            [0, 0],
            [120, 10],
            [200, 90],
          ]),
        ]);
        const remembering = createEvaluator();
        let now = start;
        const inverses: ReturnType<typeof edit>['inverse'][] = [];
        for (const act of list) {
          const made = edit(now, (d) => perform(d, act));
          now = made.next;
          inverses.push(made.inverse);
        }
        expect(checkPlan(now, catalogue, new Set())).toEqual([]);
        expect(() => validate(PlanSchema, structuredClone(now))).not.toThrow();
        remembering(start, FLAT, catalogue, quick);
        const report = remembering(now, FLAT, catalogue, quick);
        expect(() => validate(ReportSchema, structuredClone(report))).not.toThrow();
        expect(report).toEqual(createEvaluator()(now, FLAT, catalogue, quick));
        const back = inverses.reduceRight((p, inverse) => applyPatch(p, inverse), now);
        expect(back).toEqual(start);
      }),
      { numRuns: often(30, 200), examples: [[FOLDED]] },
    );
  });
});
