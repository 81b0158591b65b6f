/**
 * Random plans (a few with every test, three hundred in the whole run): what is offered keeps its promise, placement and report say the same, edits
 * leave paddocks and joints as they are when looked for anew. The seed is printed with a counterexample.
 */
import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { splitLine, joinLines, moveLines } from '../../src/core/edit/reshape.js';
import { createEvaluator } from '../../src/core/evaluate.js';
import { RANK } from '../../src/core/findings/index.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import { planLength } from '../../src/core/plan/geometry.js';
import { meetingsOf } from '../../src/core/plan/meets.js';
import type { Line, Plan } from '../../src/core/plan/schema.js';
import { placeLine } from '../../src/core/edit/placeLine.js';
import type { Finding } from '../../src/core/report/schema.js';
import { startingMakeUp } from '../../src/core/strands/proposal.js';
import type { Ground } from '../../src/core/terrain/ground.js';
import { applyPatch, edit } from '../../src/formats/patch.js';
import { often } from '../often.js';
import { energiser, line, plan, strands } from './scene.js';
import exact from './exact-gap.json' with { type: 'json' };
import slack from './slack-wire.json' with { type: 'json' };

const RUNS = Number(process.env['RANDOM_PLANS'] ?? often(2, 300));
const LONG = 60_000 + 3000 * RUNS;

const ids = (role: string) => Object.entries(catalogue.profiles).filter(([, p]) => p.role === role).map(([id]) => id); // prettier-ignore
const some = (of: string[]) => fc.uniqueArray(fc.constantFrom(...of), { maxLength: 2 });

/** Rolling ground of 20 x 14 nodes, 20 m apart. */
const rolling = fc
  .tuple(fc.double({ min: 0, max: 2, noNaN: true }), fc.double({ min: 15, max: 60, noNaN: true }))
  .map(([up, wave]): Ground => ({
    kind: 'grid',
    east0_m: -20,
    north0_m: -80,
    cell_m: 20,
    cols: 20,
    rows: 14,
    z_m: Array.from({ length: 280 }, (_, k) => {
      const [x, y] = [(k % 20) * 20, Math.floor(k / 20) * 20];
      return 100 + up * Math.sin(x / wave) * Math.cos(y / (1.3 * wave));
    }),
  }));

const makeUps = fc.oneof(
  fc.constant(null),
  fc
    .uniqueArray(fc.integer({ min: 10, max: 140 }), { minLength: 1, maxLength: 7 })
    .map((cm) => strands([...cm].sort((a, b) => a - b).filter((h, i, all) => i === 0 || h - all[i - 1]! >= 5).map((h) => h / 100))), // prettier-ignore
);

const fences = fc
  .record({
    left: some(ids('stock')),
    right: some(ids('stock')),
    keepOut: some(ids('predator')),
    boundary: fc.boolean(),
    stepOver: fc.boolean(),
    makeUp: makeUps,
    school: fc.constantFrom(...Object.keys(catalogue.schools)),
    post: fc.constantFrom(...Object.entries(catalogue.posts).filter(([, p]) => p.use === 'line').map(([id]) => id)), // prettier-ignore
    maxBay_m: fc.oneof(fc.constant(null), fc.integer({ min: 2, max: 20 })),
    tensioner: fc.boolean(),
  })
  .map(({ makeUp, ...facing }): Partial<Line> => ({
    ...facing,
    strands: makeUp ?? startingMakeUp(facing, catalogue),
  }));

const plans = fc
  .record({
    fences: fc.array(fences, { minLength: 3, maxLength: 3 }),
    across: fc.integer({ min: 20, max: 130 }),
    gate: fc.boolean(),
    model: fc.constantFrom('m05', 'm2', 'm5'),
    rods: fc.integer({ min: 1, max: 6 }),
  })
  .map(({ fences: [a, b, c], across, gate, model, rods }): Plan =>
    plan(
      [
        line('a', [[0, 0], [200, 0], [200, 140], [0, 140], [0, 0]], a), // prettier-ignore
        line('b', [[across, 0], [across + 30, 140]], b), // prettier-ignore
        line('c', [[200, 70], [320, 90]], c), // prettier-ignore
      ],
      {
        energisers: { unit: energiser('a', 0, { model, rods }) },
        gates: gate ? { g: { id: 'g', name: 'G', line: 'a', at_m: 60, width_m: 4, cable: false } } : {}, // prettier-ignore
      },
    ),
  );

const key = (f: Finding) => `${f.id} ${f.kind}`;

describe('random plans', () => {
  it(
    'every mend that is offered silences what it promises and adds nothing as grave',
    () => {
      let offered = 0;
      fc.assert(
        fc.property(plans, rolling, (p, ground) => {
          const judge = createEvaluator();
          const before = judge(p, ground, catalogue);
          const known = new Set(before.findings.map(key));
          for (const f of before.findings) {
            if (!f.mend || f.mend.place !== undefined) continue;
            offered++;
            const after = judge(applyPatch(p, f.mend.patch), ground, catalogue, { mends: 0 });
            const same = after.findings.find((x) => x.id === f.id);
            expect(same === undefined || RANK[same.kind] > RANK[f.kind], `${f.id}: ${f.mend.words} leaves it`).toBe(true); // prettier-ignore
            const worse = after.findings.filter((x) => x.kind !== 'confirm' && RANK[x.kind] <= RANK[f.kind] && !known.has(key(x))); // prettier-ignore
            expect(worse.map((x) => `${f.id}: ${f.mend!.words} adds ${x.id}`)).toEqual([]);
          }
        }),
        { numRuns: RUNS },
      );
      expect(offered).toBeGreaterThan(RUNS);
    },
    LONG,
  );

  it(
    'what placement calls kept the report calls kept',
    () => {
      let placed = 0;
      const judged = ['clearance', 'post-lifts', 'bays-too-long', 'post-barred'];
      fc.assert(
        fc.property(plans, rolling, fc.constantFrom('a', 'b', 'c'), (p, ground, id) => {
          const judge = createEvaluator();
          const { requirement } = judge(p, ground, catalogue, { mends: 0 }).lines[id]!;
          const { patch } = placeLine(p, id, ground, requirement, catalogue);
          if (!patch) return;
          placed++;
          const after = judge(applyPatch(p, patch), ground, catalogue, { mends: 0 });
          const said = after.findings.filter((f) => f.place.line === id && judged.includes(f.rule));
          // A longest bay that the user typed is the user's; that it is too long is told all the same.
          const own = p.lines[id]!.maxBay_m !== null ? ['bays-too-long'] : [];
          expect(said.filter((f) => !own.includes(f.rule)).map((f) => `${f.id}: ${f.why}`)).toEqual([]); // prettier-ignore
        }),
        { numRuns: RUNS },
      );
      expect(placed).toBeGreaterThan(RUNS / 4);
    },
    LONG,
  );

  // Found by lot: with the pull as it was set, one bay came out 1 mm under the least gap; and a gap of exactly what is let
  // by was one rounding above it in the report.
  it.each([
    [
      'a slack wire close over rolling ground is placed for the pull that friction leaves',
      slack,
      'c',
    ],
    ['a gap of just what is let by is kept, however the sums round', exact, 'b'],
  ] as const)('%s', (_, found, id) => {
    const [p, ground] = found as unknown as [Plan, Ground];
    const judge = createEvaluator();
    const { requirement } = judge(p, ground, catalogue, { mends: 0 }).lines[id]!;
    const { patch } = placeLine(p, id, ground, requirement, catalogue);
    const after = judge(applyPatch(p, patch!), ground, catalogue, { mends: 0 });
    const said = after.findings.filter((f) => f.rule === 'clearance' && f.place.line === id);
    expect(said.map((f) => f.why)).toEqual([]);
  });

  it(
    'cut, joined, moved and taken back, joints and paddocks are those of a plan that was drawn so',
    () => {
      const fresh = (p: Plan): Plan => structuredClone(p) as Plan;
      const net = (p: Plan) => meetingsOf(p.lines).map((m) => [m.a, m.b, m.sa.toFixed(6), m.sb.toFixed(6), m.crosses]); // prettier-ignore
      const at = fc.double({ min: 0.05, max: 0.95, noNaN: true });
      const by = fc.integer({ min: -12, max: 12 });
      fc.assert(
        fc.property(plans, at, by, by, (p, t, e, n) => {
          const judge = createEvaluator();
          const areas = (x: Plan) => judge(x, { kind: 'flat', z_m: 0 }, catalogue, { mends: 0 }).paddocks.map((f) => Math.round(f.area_m2)).sort((a, b) => a - b); // prettier-ignore
          let made: string | null = null;
          const cut = edit(
            p,
            (d) => void (made = splitLine(d, 'b', t * planLength(d.lines['b']!))),
          );
          expect(net(cut.next)).toEqual(net(fresh(cut.next)));
          expect(areas(cut.next)).toEqual(areas(p));
          if (made !== null) {
            const whole = edit(cut.next, (d) => void joinLines(d, 'b', made!)).next;
            expect(planLength(whole.lines['b']!)).toBeCloseTo(planLength(p.lines['b']!), 6);
            expect(areas(whole)).toEqual(areas(p));
          }
          const moved = edit(p, (d) => moveLines(d, ['a'], { e, n }));
          // What met the line that was moved is still joined to it.
          const joined = (x: Plan) => meetingsOf(x.lines).filter((m) => m.a !== m.b).map((m) => `${m.a}${m.b}`).sort(); // prettier-ignore
          expect(joined(moved.next)).toEqual(expect.arrayContaining(joined(p)));
          expect(applyPatch(moved.next, moved.inverse)).toEqual(p);
          expect(applyPatch(cut.next, cut.inverse)).toEqual(p);
        }),
        { numRuns: RUNS },
      );
    },
    LONG,
  );
});
