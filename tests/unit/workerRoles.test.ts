/** The smaller workers: what they answer is what the heart says; one that was given nothing says nothing. */
import { afterAll, expect, it, vi } from 'vitest';
import { newPlan } from '../../src/core/edit/firstPlan.js';
import { placeLine } from '../../src/core/edit/placeLine.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import type { Grid } from '../../src/core/plan/schema.js';
import { answersOf, FRESH } from '../../src/views/start/answers.js';
import { NOTHING } from '../../src/views/start/files.js';
import { api as begin } from '../../src/workers/begin.js';
import { api as placing } from '../../src/workers/place.js';
import { FLAT, line, plan, report } from './scene.js';

afterAll(() => vi.resetModules());

it('places posts as the heart does, line by line, and tells each run', () => {
  const p = plan([line('a', [[0, 0], [90, 0], [200, 3]]), line('b', [[0, 90], [150, 90]]), line('c', [[0, 190], [150, 190]])]); // prettier-ignore
  const { lines } = report(p);
  const asked = { a: lines['a']!.requirement, b: lines['b']!.requirement };
  const told: [number, number][] = [];
  const made = placing.place(p, ['a', 'b'], asked, FLAT, (...t) => told.push(t));
  const own = (id: 'a' | 'b') => placeLine(p, id, FLAT, asked[id], catalogue).arrangement;
  expect(made).toEqual({ a: own('a'), b: own('b') });
  const runs = made['a']!.runs.length + made['b']!.runs.length;
  expect(told).toEqual(Array.from({ length: runs }, (_, k) => [k + 1, runs]));
});

const ring = [[0, 0], [0, 200], [300, 200], [300, 0], [0, 0]].map(([e, n]) => ({ e: e!, n: n! })); // prettier-ignore
const answers = { ...answersOf({ ...FRESH, right: ['horses'] }, NOTHING, []), lines: [{ name: 'Ring', points: ring }] }; // prettier-ignore
const shown = (r: ReturnType<typeof report>) => [r.paddocks.map((q) => q.area_m2), Object.values(r.lines).map((l) => l.ground_m), r.findings.map((f) => f.rule)]; // prettier-ignore

it('begins with the plan that the answers make, its report, and how far walked points lie off it', () => {
  begin.lay(null);
  const begun = begin.begin(answers);
  expect(shown(begun.report)).toEqual(shown(report(newPlan(answers))));
  expect(begun.report.paddocks.map((q) => q.area_m2)).toEqual([expect.closeTo(60_000, 0)]);
  expect(begun.furthest_m).toBeCloseTo(0, 1);
  // Straightened, the line leaves out a point that lies 0.3 m off it; it is told.
  const off = [...ring.slice(0, 1), { e: 0.3, n: 100 }, ...ring.slice(1)];
  const walked = begin.begin({ ...answers, lines: [{ name: 'Ring', points: off }] });
  const kept = Object.values(walked.plan.lines)[0]!.vertices.some((v) => Math.abs(v.e - 0.3) < 0.01); // prettier-ignore
  expect(walked.furthest_m).toBeCloseTo(kept ? 0 : 0.3, 2);
});

it('stands on the ground that was laid, and says so where that is missing', () => {
  const z_m = Array.from({ length: 63 }, (_, k) => (k % 9) * 25);
  const slope = {
    east0_m: -50,
    north0_m: -50,
    cell_m: 50,
    cols: 9,
    rows: 7,
    z_m,
  } as unknown as Grid;
  const on = { ...answers, ground: { kind: 'grid', id: 'slope' } } as unknown as typeof answers;
  const ground_m = (of: typeof answers) => Object.values(begin.begin(of).report.lines)[0]!.ground_m;
  begin.lay(null);
  expect(() => begin.begin(on)).toThrow('slope');
  begin.lay(slope);
  // Two sides of 300 m climb 1 in 2.
  expect(ground_m(on)).toBeCloseTo(400 + 600 * Math.hypot(1, 0.5), 0);
  // Of a plan that is level it changes nothing.
  expect(ground_m(answers)).toBeCloseTo(1000, 1);
  begin.lay(null);
});

it('ends with a unit that keeps the aim', () => {
  const p = begin.finish(answers);
  const r = report(p);
  expect(Object.values(p.energisers)).toHaveLength(1);
  expect(r.findings.filter((f) => f.step === 'power' && f.kind !== 'confirm')).toEqual([]);
});

it('the one of figures says nothing before it was given a plan', async () => {
  vi.resetModules();
  const { api } = await import('../../src/workers/evaluate.js');
  const asked = { watched: null, hurry: false, mends: [] } as const;
  expect(api.evaluate([], asked)).toBe(null);
  expect(api.together(['x'])).toBe(null);
  api.patch([{ op: 'add', path: '/name', value: 'x' }]);
  api.ahead([], 'dry');
  api.open(plan([line('a', [[0, 0], [90, 0]])]), FLAT, catalogue); // prettier-ignore
  const first = api.evaluate([], asked)!;
  expect(first.choices).toBe(null);
  expect(api.evaluate([], { ...asked, watched: 'a' })!.choices).not.toBe(null);
  expect(api.together([])).not.toBe(null);
});
