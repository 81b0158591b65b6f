/** Findings about wire, bends and bays: what they say, and that what they offer is the least that does. */
import { describe, expect, it } from 'vitest';
import { catalogue } from '../../src/core/plan/shipped.js';
import type { Line, Plan, Strand } from '../../src/core/plan/schema.js';
import { applyPatch } from '../../src/formats/patch.js';
import { line, mended, plan, report, strands } from './scene.js';

const long = (part: Partial<Line> = {}) => plan([line('a', [[0, 0], [600, 0]], part)]); // prettier-ignore
const of = (p: Plan, rule: string) => report(p).findings.filter((f) => f.rule === rule);
/** What is offered, as path and value, with the plan after it. */
function offered(p: Plan, rule: string) {
  const [first] = mended(p).findings.filter((f) => f.rule === rule);
  const { patch } = first!.mend!;
  return { first: first!, step: patch[0]!, after: applyPatch(p, patch) };
}
const climate = (cold_C: number, today_C: number, hot_C: number): Partial<Plan> => ({ climate: { cold_C, today_C, hot_C } }); // prettier-ignore
const low: Strand[] = strands([0.4, 0.7, 1]);

describe('too slack on the hottest day', () => {
  it('is told by the wire that hangs most, and the softest setting that holds is offered', () => {
    const p = long({ school: 'sag-out', maxBay_m: 15, strands: low });
    const { first, step, after } = offered(p, 'hot-sag');
    const worst = report(p).lines['a']!.strain.reduce((a, b) => (b.sagHot_m > a.sagHot_m ? b : a));
    expect(worst.sagHot_m).toBeGreaterThan(0.03);
    expect(first.why).toContain(`${Math.round(1000 * worst.sagHot_m)}`);
    expect(step).toMatchObject({ op: 'replace', path: '/lines/a/school' });
    expect(of(after, 'hot-sag')).toEqual([]);
    // Nothing softer would hold it.
    const chosen = catalogue.schools[step.value as string]!.tension_N;
    for (const [id, school] of Object.entries(catalogue.schools)) {
      if (school.tension_N >= chosen) continue;
      expect(of(long({ school: id as Line['school'], maxBay_m: 15, strands: low }), 'hot-sag')).toHaveLength(1); // prettier-ignore
    }
  });

  it('offers nothing that the coldest night would break, nor what would not help', () => {
    const bitter = { ...long({ school: 'sag-out', maxBay_m: 40, strands: low }), ...climate(-60, 15, 60) }; // prettier-ignore
    const [first] = mended(bitter).findings.filter((f) => f.rule === 'hot-sag');
    expect(first).toBeDefined();
    if (first!.mend) {
      const after = report(applyPatch(bitter, first!.mend.patch));
      expect(after.findings.filter((f) => f.rule === 'cold-limit')).toEqual([]);
    }
  });
});

describe('too tight for the coldest night', () => {
  it('is told with the share of the weakest joint, and the firmest setting below is offered', () => {
    const p = long({ school: 'firm' });
    const { first, step, after } = offered(p, 'cold-limit');
    expect(first.kind).toBe('mend');
    expect(first.why).toContain('40 % of what its weakest joint holds');
    expect(step).toEqual({ op: 'replace', path: '/lines/a/school', value: 'tight' });
    expect(of(after, 'cold-limit')).toEqual([]);
  });

  it('begins where the pull at the coldest passes 0.4 of the joint', () => {
    const at = (cold_C: number) => ({ ...long({ school: 'firm' }), ...climate(cold_C, 15, 35) });
    const cold = (c: number) => report(at(c)).lines['a']!.strain[0]!;
    const first = [-40, -20, -10, 0, 5, 10].filter((c) => cold(c).cold_N > cold(c).limit_N);
    for (const c of [-40, -20, -10, 0, 5, 10])
      expect(of(at(c), 'cold-limit').length, String(c)).toBe(first.includes(c) ? 1 : 0);
    expect(first.length).toBeGreaterThan(0);
    expect(first.length).toBeLessThan(6);
    // 0.4 x 0.85 of what the wire breaks at (common practice).
    const wire = catalogue.wires['ht25']!;
    const breaks = (Math.PI / 4) * wire.diameter_mm ** 2 * wire.tensile_MPa;
    expect(cold(-10).limit_N).toBeCloseTo(0.4 * 0.85 * breaks, 3);
  });
});

describe('of several runs', () => {
  const bent = (part: Partial<Line>) => plan([line('a', [[0, 0], [64.8, 0], [64.8, 63.8], [127.6, 63.8]], part)]); // prettier-ignore

  it('the longest bay is told, wherever it lies', () => {
    // Between the rails bays of 12, 11.8 and 11.6 m; between the stays of 14.7, 14.5 and 14.2 m.
    expect(of(bent({ maxBay_m: 12 }), 'bays-too-long')[0]!.why).toMatch(/Bays of 12(\.0)?.m/);
    const slack = of(bent({ maxBay_m: 15, school: 'sag-out', strands: low }), 'hot-sag')[0]!;
    expect(slack.why).toMatch(/a 15(\.0)?.m bay/);
    expect(slack.place).toMatchObject({ from_m: 0, to_m: 64.8 });
  });
});

describe('bends and bays', () => {
  const bent = (deg: number, kind: 'bend' | 'corner' = 'bend') => {
    const r = (deg * Math.PI) / 180;
    const l = line('a', [[0, 0], [100, 0], [100 + 100 * Math.cos(r), 100 * Math.sin(r)]]); // prettier-ignore
    return plan([{ ...l, vertices: l.vertices.map((v, i) => (i === 1 ? { ...v, kind } : v)) }]);
  };

  it('a bend of more than 15 degrees wants its own ends; its pull is 2 n T sin(turn / 2)', () => {
    expect(of(bent(14.9), 'bend-unbraced')).toEqual([]);
    const p = bent(30);
    const { first, after } = offered(p, 'bend-unbraced');
    const cold = Math.max(...report(p).lines['a']!.strain.map((s) => s.cold_N));
    const pull = 2 * 5 * cold * Math.sin((15 * Math.PI) / 180);
    expect(Number(/: ([\d\s\u202f]+)\sN sideways/.exec(first.why)![1]!.replace(/\D/g, '')) / pull).toBeCloseTo(1, 2); // prettier-ignore
    expect(after.lines['a']!.vertices[1]!.kind).toBe('corner');
    expect(of(after, 'bend-unbraced')).toEqual([]);
    expect(of(bent(30, 'corner'), 'bend-unbraced')).toEqual([]);
  });

  it('bays too long go back to the usual, and a length that was not typed is never told', () => {
    const p = long({ maxBay_m: 12 });
    const { first, step, after } = offered(p, 'bays-too-long');
    expect(first.why).toMatch(/Bays of 12(\.0)?.m on even ground; 6(\.0)?.m is the most/);
    expect(step).toEqual({ op: 'replace', path: '/lines/a/maxBay_m', value: null });
    expect(of(after, 'bays-too-long')).toEqual([]);
    expect(of(long({ maxBay_m: 12, left: [] }), 'bays-too-long')).toEqual([]);
  });

  it('a short run wants tensioners; the shortest of several is named', () => {
    const l = line('a', [[0, 0], [150, 0], [150, 90], [400, 90]], { tensioner: false }); // prettier-ignore
    const { first, after } = offered(plan([l]), 'no-tensioner');
    expect(first.why).toMatch(/run of 90(\.0)?.m is short/);
    expect(after.lines['a']!.tensioner).toBe(true);
    expect(of(plan([{ ...l, strands: [] }]), 'no-tensioner')).toEqual([]);
  });
});

describe('a top', () => {
  it('that horses must see is made rope; where people step over, cold', () => {
    const plain = long({ left: ['horses'], strands: strands([0.45, 0.75, 1.05, 1.35]) });
    const seen = offered(plain, 'top-unseen');
    expect(seen.step).toEqual({ op: 'replace', path: '/lines/a/strands/3/wire', value: 'rope' });
    expect(of(seen.after, 'top-unseen')).toEqual([]);
    const over = offered(long({ stepOver: true }), 'step-over');
    expect(over.step).toEqual({ op: 'replace', path: '/lines/a/strands/4/duty', value: 'cold' });
    expect(of(over.after, 'step-over')).toEqual([]);
  });
});
