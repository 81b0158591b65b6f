import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { createEvaluator } from '../../src/core/evaluate.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import type { Plan } from '../../src/core/plan/schema.js';
import { ReportSchema } from '../../src/core/report/schema.js';
import { placeLine } from '../../src/core/edit/placeLine.js';
import { groundOf, type Ground } from '../../src/core/terrain/ground.js';
import { PARTS } from '../../src/core/parts/index.js';
import { applyPatch, edit } from '../../src/formats/patch.js';
import { parsePlan } from '../../src/formats/planFile.js';
import { validate } from '../../src/formats/validate.js';
import {
  energiser,
  FLAT,
  line,
  plan,
  mended as judged,
  report,
  strands,
  networkOf,
} from './scene.js';
import { candidatesOf } from '../../src/core/power/sizing.js';
import { fed, gate, GROUND_OF, wrong } from './wrong.js';

const demo = parsePlan(readFileSync('demo/hollin-scar.plan.json', 'utf8'));
const demoGround = groundOf(demo.plan, demo.grids);

describe('evaluate', () => {
  it('the demo gives a report that fits its schema, with findings of all three kinds', () => {
    const r = report(demo.plan, demoGround);
    expect(() => validate(ReportSchema, structuredClone(r))).not.toThrow();
    expect(new Set(r.findings.map((f) => f.kind))).toEqual(new Set(['stop', 'mend', 'confirm']));
    expect(new Set(r.findings.map((f) => f.rule)).size).toBeGreaterThanOrEqual(10);
    expect(new Set(r.findings.map((f) => f.id)).size).toBe(r.findings.length);
  });

  it('an empty plan evaluates to nothing, without fault', () => {
    const r = report(plan([]));
    expect(r.findings).toEqual([]);
    expect(r.totals).toMatchObject({ ground_m: 0, posts: 0, cost: 0 });
  });

  it('moving one vertex works out that line alone, with the same answer as from nothing', () => {
    const evaluate = createEvaluator();
    const before = evaluate(demo.plan, demoGround, catalogue, { mends: 0 });
    const { next } = edit(demo.plan, (d) => {
      d.lines['ewe']!.vertices[0]!.e += 3;
    });
    const after = evaluate(next, demoGround, catalogue, { mends: 0 });
    expect(after.lines['ridge']).toBe(before.lines['ridge']);
    expect(after.lines['ewe']).not.toBe(before.lines['ewe']);
    expect(after).toEqual(report(next, demoGround));
  });

  it('the worst point falls as the fence leaks more, as more of it hangs on, and with a weaker unit', () => {
    const worst = (p: Plan, season = 'wet') =>
      report(p).energisers['unit']!.seasons[season]!.worst!.v_V;
    const one = plan(
      [
        line('a', [
          [0, 0],
          [1500, 0],
        ]),
      ],
      { energisers: { unit: energiser('a', 0) } },
    );
    const two = plan(
      [
        line('a', [
          [0, 0],
          [1500, 0],
        ]),
        line('b', [
          [1500, 0],
          [1500, 1500],
        ]),
      ],
      { energisers: { unit: energiser('a', 0) } },
    );
    expect(worst(one, 'wet')).toBeLessThan(worst(one, 'today'));
    expect(worst(one, 'today')).toBeLessThan(worst(one, 'dry'));
    expect(worst(two)).toBeLessThan(worst(one));
    expect(
      worst({ ...one, energisers: { unit: energiser('a', 0, { model: 'm1' }) } }),
    ).toBeLessThan(worst(one));
    const rank = { ...one, lines: { a: { ...one.lines['a']!, growth: 'rank' as const } } };
    expect(worst(rank)).toBeLessThan(worst(one));
  });

  it('the smallest unit meets the aim with the reserve, and no smaller one of its supply does', () => {
    const p = plan(
      [
        line('a', [
          [0, 0],
          [1200, 0],
        ]),
      ],
      {
        energisers: { unit: energiser('a', 600) },
        sizing: { resistance: 'planning', reserve: 0.2 },
      },
    );
    const e = report(p).energisers['unit']!;
    const all = candidatesOf(networkOf(p));
    const chosen = all.find((c) => c.model === e.smallest)!;
    expect(chosen.share).toBeGreaterThanOrEqual(1.2);
    for (const c of all)
      if (c.offered && c.output_J < chosen.output_J) expect(c.share).toBeLessThan(1.2);
  });

  it('two seasons of the earth differ by the soil alone', () => {
    const e = report(
      plan(
        [
          line('a', [
            [0, 0],
            [500, 0],
          ]),
        ],
        { energisers: { unit: energiser('a', 0) } },
      ),
    ).energisers['unit']!.earth;
    const clay = catalogue.soils['clay']!;
    expect(e.r_damp_ohm / e.r_wet_ohm).toBeCloseTo(clay.damp_ohm_m / clay.wet_ohm_m, 9);
    // The driest month dries 0.6 m of a rod of 2 m.
    const dry = 2 / (0.6 / clay.dry_ohm_m + 1.4 / clay.damp_ohm_m);
    expect(e.r_dry_ohm / e.r_wet_ohm).toBeCloseTo(dry / clay.wet_ohm_m, 9);
  });

  it('counts supplies as a person would on a plain line', () => {
    // 60 m, sheep: 10 bays of 6 m; 5 strands; one brace at each end.
    const r = report(
      plan([
        line('a', [
          [0, 0],
          [60, 0],
        ]),
      ]),
    );
    const got = Object.fromEntries(r.supplies.map((s) => [s.id, s.quantity]));
    expect(got).toMatchObject({
      'post.steel-180': 9,
      'post.end-240': 2,
      'post.brace-240': 2,
      'end.rail': 2,
      'insulator.steel': 45,
      'insulator.line': 10,
      'insulator.end': 10,
      tensioner: 5,
      'clamp.jumper': 10,
      'wire.ht25': 1,
    });
    const wire = r.supplies.find((s) => s.id === 'wire.ht25')!;
    // Strands; at each end of each a tie of 0.5 m, and a piece of 0.5 m more, round the post (0.53 m) and twice the
    // tail of 60 mm; braces; four jumpers at each end over 0.75 m with 0.15 m for each one's own ends; a coil left.
    const end = 0.5 + 0.5 + 0.53 + 2 * 0.06;
    expect(wire.lines['a']).toBeCloseTo(
      5 * 60 + 10 * end + 2 * 5 * Math.hypot(2.4, 0.775) + 2 * (0.75 + 4 * 0.15) + 15,
      9,
    );
    expect(r.totals.cost).toBeCloseTo(
      r.supplies.reduce((t, s) => t + s.quantity * s.price, 0),
      6,
    );
  });
});

/** The patch of a mend that places a line's posts anew. */
function placed(p: Plan, id: string, ground: Ground) {
  const { requirement } = report(p, ground).lines[id]!;
  return placeLine(p, id, ground, requirement, catalogue).patch!;
}

/** Rules that name what is wrong and have no change to offer. */
const WITHOUT_MEND = new Set([
  'plate-fits',
  'feeding',
  'dead',
  'off-ground',
  'unsaid',
  'later',
  'short-run',
  'end-engineer',
  'not-taken-up',
  'overhead',
  'outside',
  'networks-close',
  'earth-near',
  'mains-far',
  'loose-end',
  'paddock-open',
  'paddock-water',
  'paddock-gate',
  'trees',
]);
const rules = PARTS.flatMap((part) => part.rules ?? []);

describe('findings', () => {
  it.each(wrong)('%s speaks up, says why and what to do, and its mend silences it', (rule, p) => {
    const ground = GROUND_OF[rule] ?? FLAT;
    const found = judged(p, ground).findings.filter((f) => f.rule === rule);
    expect(found.length).toBeGreaterThan(0);
    for (const f of found) {
      expect(f.why.length).toBeGreaterThan(20);
      expect(f.todo.length).toBeGreaterThan(8);
      expect(f.source.text.length).toBeGreaterThan(8);
    }
    const first = found.find((f) => f.mend);
    expect(first === undefined).toBe(WITHOUT_MEND.has(rule));
    if (!first?.mend) return;
    const { place, patch } = first.mend;
    const steps = place === undefined ? patch : placed(p, place, ground);
    const mended = report(applyPatch(p, steps), ground);
    expect(mended.findings.map((f) => f.id)).not.toContain(first.id);
    const stops = (r: { findings: readonly { id: string; kind: string }[] }) =>
      r.findings.filter((f) => f.kind === 'stop').map((f) => f.id);
    const before = stops(report(p, ground));
    expect(stops(mended).filter((id) => !before.includes(id))).toEqual([]);
  });

  it('every rule has a plan above that makes it speak', () => {
    expect(new Set(wrong.map(([rule]) => rule))).toEqual(new Set(rules.map((r) => r.id)));
  });

  it('a sound small fence has nothing to stop or mend', () => {
    const p = fed({});
    expect(report(p).findings.filter((f) => f.kind !== 'confirm')).toEqual([]);
  });

  it('two energisers on lines that touch are stopped', () => {
    const p = plan(
      [
        line('a', [
          [0, 0],
          [300, 0],
        ]),
        line('b', [
          [300, 0],
          [300, 200],
        ]),
      ],
      {
        energisers: {
          unit: energiser('a', 0),
          two: energiser('b', 100, { id: 'two', e: 300, n: 100 }),
        },
      },
    );
    expect(report(p).findings.find((f) => f.id.startsWith('feeding:shared'))?.kind).toBe('stop');
  });

  it('beyond a gate without cable the line is dead; with it, fed', () => {
    const dead = report(
      fed({}, { gates: gate(false), energisers: { unit: energiser('a', 20) } }),
    ).dead;
    expect(dead).toHaveLength(1);
    expect(dead[0]!.from_m).toBeCloseTo(152, 6);
    expect(
      report(fed({}, { gates: gate(true), energisers: { unit: energiser('a', 20) } })).dead,
    ).toEqual([]);
  });

  it('speaks in the units of the property', () => {
    const p = fed({ strands: strands([0.15, 0.5, 0.9]) }, { units: 'imperial' });
    const why = report(p).findings.find((f) => f.rule === 'gap-too-wide')!.why;
    expect(why).toContain('in');
    expect(why).not.toContain('mm');
  });
});
