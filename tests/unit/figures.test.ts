/** Figures that decide what is bought and advised, against what a hand works out beside them. */
import { describe, expect, it } from 'vitest';
import { createEvaluator } from '../../src/core/evaluate.js';
import { upkeepOf } from '../../src/core/compare/compare.js';
import { squareTo, joinLines } from '../../src/core/edit/reshape.js';
import { areaOf, facesOf } from '../../src/core/land/faces.js';
import reasons from '../../data/reasons.json' with { type: 'json' };
import { figure } from '../../src/core/plan/catalogue.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import type { Grid, Plan } from '../../src/core/plan/schema.js';
import { placeGreedy, placeUniform } from '../../src/core/posts/baselines.js';
import type { PlacementInputs } from '../../src/core/posts/limits.js';
import { effectiveGap, longestBayThatHolds } from '../../src/core/strands/opening.js';
import { groundOf } from '../../src/core/terrain/ground.js';
import { strainOf } from '../../src/core/wire/strain.js';
import { wireOf } from '../../src/core/wire/wires.js';
import { flatRun } from './runs.js';
import { pushAside } from '../../src/core/wire/pull.js';
import {
  energiser,
  FLAT,
  line,
  plan,
  PLACING,
  mended as report,
  strands,
  networkOf,
} from './scene.js';
import { candidatesOf } from '../../src/core/power/sizing.js';

const slope: Grid = {
  east0_m: -20,
  north0_m: -20,
  cell_m: 10,
  cols: 21,
  rows: 21,
  z_m: Array.from({ length: 441 }, (_, k) => 10 + 0.2 * ((k % 21) * 10 - 20)),
};
const hill = groundOf({ ground: { kind: 'grid', id: 'g' } }, { g: slope });
const supplies = (p: Plan) => Object.fromEntries(report(p).supplies.map((s) => [s.id, s]));

describe('what is counted', () => {
  it('an insulator that carries an offset takes the place of a plain one', () => {
    const plain = strands([0.3, 0.6, 0.9]);
    const carried = plain.map((s, i) => (i === 1 ? { ...s, offset_m: 0.2 } : s));
    const of = (list: typeof plain) => supplies(plan([line('a', [[0, 0], [60, 0]], { strands: list })])); // prettier-ignore
    const [before, after] = [of(plain), of(carried)];
    const posts = before['insulator.steel']!.quantity / 3;
    expect(before['insulator.offset']).toBeUndefined();
    expect(after['insulator.steel']!.quantity).toBe(2 * posts);
    // At the two brace posts as well.
    expect(after['insulator.offset']!.quantity).toBe(posts + 2);
  });

  it('cable and conduit are bought by the metre, staples by the box, all else by the piece', () => {
    const gate = { id: 'g', name: 'G', line: 'a', at_m: 30, width_m: 4, cable: true };
    const s = supplies(plan([line('a', [[0, 0], [60, 0]], { post: 'timber-180' })], { gates: { g: gate } })); // prettier-ignore
    expect([s['cable']!.unit, s['conduit']!.unit, s['gate']!.unit]).toEqual(['m', 'm', 'each']);
    expect(s['wire.ht25']!.unit).toBe('coil');
  });

  it('the totals are the sums of their lines', () => {
    const p = plan([line('a', [[0, 0], [60, 0]]), line('b', [[0, 90], [30, 90]])]); // prettier-ignore
    const r = report(p);
    const sum = (of: (id: string) => number) => of('a') + of('b');
    expect(r.totals.plan_m).toBeCloseTo(90, 9);
    expect(r.totals.ground_m).toBeCloseTo(sum((id) => r.lines[id]!.ground_m), 9); // prettier-ignore
    expect(r.totals.posts).toBe(sum((id) => r.lines[id]!.posts.length));
    expect(r.totals.cost).toBeCloseTo(r.supplies.reduce((t, s) => t + s.cost, 0), 6); // prettier-ignore
    // Five strands over 60 and 30 m.
    expect(r.totals.wire_m).toBeCloseTo(5 * 90, 6);
  });
});

describe('what is measured', () => {
  it('a leg uphill rises, and falls when the line is turned round', () => {
    const legs = (points: [number, number][]) =>
      createEvaluator()(plan([line('a', points)]), hill, catalogue).lines['a']!.legs;
    expect(legs([[0, 0], [100, 0]])[0]).toMatchObject({ rise_m: expect.closeTo(20, 6), grade: expect.closeTo(0.2, 6), bearing_deg: expect.closeTo(90, 6) }); // prettier-ignore
    expect(legs([[100, 0], [0, 0]])[0]!.rise_m).toBeCloseTo(-20, 6); // prettier-ignore
  });

  it('a gate uphill of its leaf strikes the ground on that side alone', () => {
    const gate = { id: 'g', name: 'G', line: 'a', at_m: 30, width_m: 4, cable: false };
    const north = createEvaluator()(
      plan([line('a', [[50, 0], [50, 60]])], { gates: { g: gate } }), // prettier-ignore
      hill,
      catalogue,
    );
    // The line goes north: the ground rises to the east, its right; a leaf of 4 m at a right angle climbs 0.8 m.
    expect(north.lines['a']!.swings['g']).toEqual({ left: 0, right: expect.closeTo(0.8, 6) });
    const level = report(plan([line('a', [[0, 0], [60, 0]])], { gates: { g: gate } })); // prettier-ignore
    expect(level.lines['a']!.swings['g']).toEqual({ left: 0, right: 0 });
  });

  it('a right angle while drawing: straight on, left or right, where the foot of the hand falls', () => {
    const [before, last] = [{ e: 0, n: 0 }, { e: 0, n: 10 }]; // prettier-ignore
    const at = (e: number, n: number) => squareTo(last, before, { e, n });
    expect(at(7, 11)).toEqual({ e: expect.closeTo(7, 9), n: expect.closeTo(10, 9) });
    expect(at(-6, 12)).toEqual({ e: expect.closeTo(-6, 9), n: expect.closeTo(10, 9) });
    expect(at(2, 25)).toEqual({ e: expect.closeTo(0, 9), n: expect.closeTo(25, 9) });
    // Never back over itself.
    const back = at(0, 2);
    expect(back.e).toBeCloseTo(0, 9);
    expect(back.n).toBeCloseTo(10, 9);
  });

  it('joined lines keep every vertex once, whichever ends meet', () => {
    for (const [mine, theirs] of [
      [0, 0],
      [0, 1],
      [1, 0],
      [1, 1],
    ] as const) {
      const a: [number, number][] = [[0, 0], [100, 0]]; // prettier-ignore
      const b: [number, number][] = [[100, 0], [100, 50]]; // prettier-ignore
      const p = plan([line('a', mine ? [...a].reverse() : a), line('b', theirs ? [...b].reverse() : b)]); // prettier-ignore
      joinLines(p, 'a', 'b');
      const way = p.lines['a']!.vertices.map((v) => `${v.e},${v.n}`);
      expect([way.join(' '), way.reverse().join(' ')]).toContain('0,0 100,0 100,50');
    }
  });
});

describe('faces', () => {
  const square: [number, number][] = [[0, 0], [100, 0], [100, 100], [0, 100]]; // prettier-ignore
  it('go round anticlockwise, with the side of each line that looks in', () => {
    const ring = line('a', [...square, [0, 0]]);
    const [face] = facesOf(plan([ring]).lines, 0, 0).faces;
    expect(areaOf(face!.rim)).toBeCloseTo(10_000, 6);
    expect(face).toMatchObject({ area_m2: expect.closeTo(10_000, 6), perimeter_m: expect.closeTo(400, 6) }); // prettier-ignore
    expect(face!.edges.map((e) => e.side)).toEqual(face!.edges.map(() => 'left'));
    const turned = line('a', [...square, [0, 0] as [number, number]].reverse());
    expect(facesOf(plan([turned]).lines, 0, 0).faces[0]!.edges[0]!.side).toBe('right');
  });

  it('a line that nearly closes on itself has a gap at either end, to the other', () => {
    const open = line('a', [...square, [0, 4]]);
    const { gaps, faces } = facesOf(plan([open]).lines, 0, 10);
    expect(faces).toEqual([]);
    expect(gaps).toEqual([
      { line: 'a', vertex: 0, to: { e: 0, n: 4 }, toLine: 'a', width_m: 4 },
      { line: 'a', vertex: 4, to: { e: 0, n: 0 }, toLine: 'a', width_m: 4 },
    ]);
    expect(facesOf(plan([open]).lines, 5, 10).faces[0]!.area_m2).toBeCloseTo(10_000, 6);
  });
});

describe('wire', () => {
  it('rope hangs by its own weight, and is strung no tighter than it is made for', () => {
    const rope = catalogue.wires['rope']!;
    expect(wireOf('rope', catalogue).weight_N_per_m).toBeCloseTo(rope.mass_kg_per_m! * 9.80665, 9);
    const l = line('a', [[0, 0], [1, 0]], { strands: strands([0.9], { wire: 'rope' }) }); // prettier-ignore
    const [row] = strainOf(l, [flatRun([8, 8, 4])], { cold_C: 15, today_C: 15, hot_C: 15 }, catalogue); // prettier-ignore
    expect(row).toMatchObject({ at15_N: rope.tension_N, today_N: expect.closeTo(rope.tension_N!, 6), bay_m: 8 }); // prettier-ignore
    // Weight on the posts takes a little of the pull.
    expect(row!.sagToday_m / ((rope.mass_kg_per_m! * 9.80665 * 64) / (8 * rope.tension_N!))).toBeCloseTo(1, 2); // prettier-ignore
  });

  it('a gap opens by what each of its two strands gives', () => {
    const two = [...strands([0.3]), ...strands([0.6], { wire: 'rope' })];
    const gives = { ht25: 0.02, rope: 0.05 } as Record<string, number>;
    expect(effectiveGap(two, (wire) => gives[wire]!, catalogue)).toBeCloseTo(0.37, 9);
    expect(effectiveGap(two, (wire) => gives[wire]!, catalogue, 0.44)).toBeNull();
    expect(effectiveGap(two.slice(1), () => 0, catalogue)).toBeNull();
  });

  it('at the longest bay that holds, the push opens just what is allowed', () => {
    const wire = { hot_N: 900, EA_N: wireOf('ht25', catalogue).EA_N, run_m: 400 };
    const bay = longestBayThatHolds(0.16, [wire, wire], catalogue);
    const opens = (b: number) => 2 * pushAside(figure(catalogue, 'wire.pushForce'), 900, b, wireOf('ht25', catalogue).EA_N, 400); // prettier-ignore
    expect(opens(bay)).toBeCloseTo(0.16, 5);
    // Two wires that are not alike open by what each of them gives.
    const rope = { hot_N: 300, EA_N: 25_000, run_m: 400 };
    const mixed = longestBayThatHolds(0.16, [wire, rope], catalogue);
    const gives = (w: typeof wire) => pushAside(figure(catalogue, 'wire.pushForce'), w.hot_N, mixed, w.EA_N, w.run_m); // prettier-ignore
    expect(gives(wire) + gives(rope)).toBeCloseTo(0.16, 5);
    expect(longestBayThatHolds(0, [wire, wire], catalogue)).toBe(0);
    expect(longestBayThatHolds(100, [wire, wire], catalogue)).toBe(60);
  });
});

describe('upkeep', () => {
  it('is the rounds, each strand after the first, and growth that fades with height', () => {
    const u = (key: string) => figure(catalogue, key);
    const grown = (h: number) => u('upkeep.mow') * Math.exp(-h / u('network.leakHeight'));
    const base = u('upkeep.base');
    expect(upkeepOf([], catalogue)).toBeCloseTo(base, 12);
    expect(upkeepOf(strands([0.3, 0.9]), catalogue)).toBeCloseTo(base + u('upkeep.strand') + grown(0.3), 12); // prettier-ignore
    const switched = [...strands([0.3], { switched: true }), ...strands([0.9])];
    expect(upkeepOf(switched, catalogue)).toBeCloseTo(base + u('upkeep.strand') + u('upkeep.switchedShare') * grown(0.3), 12); // prettier-ignore
    const cold = strands([0.3, 0.6], { duty: 'cold' });
    expect(upkeepOf(cold, catalogue)).toBeCloseTo(base + u('upkeep.strand'), 12);
  });
});

describe('baselines of placement', () => {
  const flat = (n: number, part: Partial<PlacementInputs> = {}): PlacementInputs => ({
    ground_s_m: Array.from({ length: n + 1 }, (_, i) => i),
    ground_z_m: Array.from({ length: n + 1 }, () => 0),
    ...PLACING,
    max_spacing_m: 7,
    post_kinds: [{ name: 'light', price: 5, pullout_capacity_N: 900 }],
    ...part,
  });

  it('equal bays: the fewest that the limit allows, at the nearest samples', () => {
    // 20 m by 7 m: three bays of 6.67 m, on samples of 1 m.
    expect(placeUniform(flat(20))!.positions_m).toEqual([0, 7, 13, 20]);
    expect(placeUniform(flat(21))!.positions_m).toEqual([0, 7, 14, 21]);
    // A post that must stand divides it; each part has bays of its own.
    expect(placeUniform(flat(20, { musts: [{ at: 5 }] }))!.positions_m).toEqual([0, 5, 10, 15, 20]);
    expect(placeUniform(flat(20, { longest_m: new Array<number>(21).fill(5) }))!.positions_m).toEqual([0, 5, 10, 15, 20]); // prettier-ignore
    expect(placeUniform(flat(20, { max_spacing_m: 0.5 }))).toBeNull();
  });

  it('equal bays step over samples where none may stand by taking more of them, down to the least spacing', () => {
    const barred = Array.from({ length: 21 }, (_, i) => i === 7 || i === 13);
    expect(placeUniform(flat(20, { barred }))!.positions_m).toEqual([0, 5, 10, 15, 20]);
    expect(placeUniform(flat(20, { barred, min_spacing_m: 6 }))).toBeNull();
  });

  it('the longest span again and again: it stops at what must stand and steps back from what is barred', () => {
    expect(placeGreedy(flat(20))!.positions_m).toEqual([0, 7, 14, 20]);
    expect(placeGreedy(flat(20, { musts: [{ at: 10 }] }))!.positions_m).toEqual([0, 7, 10, 17, 20]);
    const barred = Array.from({ length: 21 }, (_, i) => i === 7);
    expect(placeGreedy(flat(20, { barred }))!.positions_m).toEqual([0, 6, 13, 20]);
    const wall = Array.from({ length: 21 }, (_, i) => i > 2 && i < 15);
    expect(placeGreedy(flat(20, { barred: wall }))).toBeNull();
  });
});

describe('findings turn on and off where they should', () => {
  const rulesOf = (p: Plan, id: string) => report(p).findings.filter((f) => f.rule === id);
  const rock = (from: number, to: number) => ({ noPosts: [{ from_m: from, to_m: to }] }) as never;

  it('a post in a stretch that bars it is told, one at its rim is not', () => {
    const of = (from: number, to: number) => {
      const l = line('a', [[0, 0], [30, 0], [60, 20]], rock(from, to)); // prettier-ignore
      return rulesOf(plan([l]), 'post-barred');
    };
    // The bend at 30 m is fixed: it cannot be stepped over.
    expect(of(28, 32)[0]).toMatchObject({
      kind: 'mend',
      title: 'A post of a where none may stand',
    });
    expect(of(28, 32)[0]!.mend).toBeUndefined();
    expect(of(30, 32)).toEqual([]);
  });

  it('too few volts or too little reserve, with the unit that would do; none once it does', () => {
    const at = (model: string, reserve = 0) =>
      plan(
        [
          line('a', [
            [0, 0],
            [2000, 0],
          ]),
        ],
        {
          // prettier-ignore
          energisers: { unit: energiser('a', 0, { model }) },
          sizing: { resistance: 'planning', reserve },
        },
      );
    const models = candidatesOf(networkOf(at('m1')));
    const stout = models.find((c) => c.meets && c.offered)!;
    const [few] = rulesOf(at('m1'), 'below-aim');
    expect(few).toMatchObject({ kind: 'mend', title: 'Too few volts on a' });
    const chosen = few!.mend!.patch[0]!.value as string;
    expect(models.find((c) => c.model === chosen)!.meets).toBe(true);
    expect(rulesOf(at(chosen), 'below-aim')).toEqual([]);
    expect(rulesOf(at(stout.model), 'below-aim')).toEqual([]);
    const close = report(at(stout.model)).energisers['unit']!.least!;
    const [little] = rulesOf(at(stout.model, close.share - 1 + 0.01), 'below-aim');
    expect(little).toMatchObject({ kind: 'confirm', title: 'Little reserve on a' });
  });

  it('live lines that no unit feeds are dead from end to end; cold ones are not', () => {
    const p = plan([line('a', [[0, 0], [60, 0]]), line('b', [[0, 90], [30, 90]], { strands: strands([0.9], { duty: 'cold' }) })]); // prettier-ignore
    expect(report(p).dead).toEqual([{ line: 'a', from_m: 0, to_m: 60 }]);
    expect(createEvaluator()(p, FLAT, catalogue).dead).toHaveLength(1);
  });
});

describe('reasons', () => {
  it('every single figure has one, and there is none of a figure that is gone', () => {
    expect(Object.keys(reasons)).toEqual(Object.keys(catalogue.defaults));
    for (const [key, why] of Object.entries(reasons)) expect(why.length, key).toBeGreaterThan(7);
  });
});
