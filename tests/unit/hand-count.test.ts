/**
 * A small plan counted by hand, as one would on an envelope (handbook of the trade, posts, ends, joins and supplies:
 * common practice). Two lines, one corner, one gate:
 *
 *   a: 60 m east, a corner, 40 m north. b: from where a ends 50 m west, a gate of 4 m in its middle.
 *   Four strands: three live, insulated; the top one earth, on the bare post. Bays of at most 6 m. One unit, 10 m off.
 *
 * Runs: a 60 m, a 40 m, b 23 m, b 23 m.
 */
import { describe, expect, it } from 'vitest';
import { catalogue } from '../../src/core/plan/shipped.js';
import { withCuts } from '../../src/core/supplies/cutSupplies.js';
import { cutWires } from '../../src/core/supplies/wireCuts.js';
import { energiser, line, plan, report, strands } from './scene.js';

const mixed = [...strands([0.25, 0.5, 0.75]), ...strands([1], { duty: 'earth', insulated: false })];
const gate = { id: 'g', name: 'G', line: 'b', at_m: 25, width_m: 4, cable: true };
const small = plan(
  [
    line('a', [[0, 0], [60, 0], [60, 40]], { strands: mixed, maxBay_m: 6 }), // prettier-ignore
    line('b', [[60, 40], [10, 40]], { strands: mixed, maxBay_m: 6 }), // prettier-ignore
  ],
  {
    gates: { g: gate },
    energisers: {
      unit: energiser('a', 0, { model: 'm1', rods: 3, rodSpacing_m: 3, e: 0, n: -10 }),
    },
  },
);

const HAND: Readonly<Record<string, number>> = {
  // Between the braces, which stand 2.4 m from the ends: 55.2 m in 10 bays, 35.2 m in 6, twice 18.2 m in 4.
  'post.steel-180': 9 + 5 + 3 + 3,
  // Both ends of a and its corner; b ends on a's last post, and has two gate posts and its own end.
  'post.end-240': 3 + 2 + 1,
  // A brace at both ends of each of four runs, with a rail and two pins each.
  'post.brace-240': 8,
  'end.rail': 8,
  'end.pin': 16,
  // Three live strands at each post of the line.
  'insulator.steel': 20 * 3,
  // The same on the brace posts, which are of timber.
  'insulator.line': 8 * 3,
  // Three at both ends of each run.
  'insulator.end': 4 * 2 * 3,
  // One on each strand of each run, the earth too.
  tensioner: 4 * 4,
  // Half-driven: two at each end of each strand; four at each brace wire. Driven: 4 strands on 8 brace posts, a tenth more.
  // 64 + 40 + 35 of 500 in a box.
  staple: 1,
  // a's start 3; corner 3 up the first run, 2 at each of 3 pairs across, 2 for the earth; where b joins 3 + 3, 2 to tie
  // them, 2 for the earth; both gate posts and b's end 3 each; the gate's two cables 2 each; the unit 1.
  'clamp.jumper': 3 + 11 + 10 + 3 + 3 + 3 + 4 + 1,
  // To the unit 10 m; under the gate two cables of 4 m and 3 m more each.
  cable: 10 + 2 * 7,
  conduit: 4 + 1,
  // Three at the unit; the earth strand has one of its own on each run.
  'earth.rod': 3 + 4,
  'earth.clamp': 3 + 4,
  'energiser.m1': 1,
  gate: 1,
  'gate.hinge': 2,
  'gate.latch': 1,
  // About 0.8 km of one coil of 1.5 km: counted in the next test.
  'wire.ht25': 1,
  'tool.jenny': 1,
  'tool.handle': 1,
  'tool.driver': 1,
  'tool.pliers': 1,
  'tool.voltmeter': 1,
  'tool.eyes': 2,
  'tool.gloves': 2,
  'tool.bucket': 1,
  // 6 end and 8 brace posts are driven: less than a day.
  'hire.driver': 1,
};

describe('a small plan, counted by hand', () => {
  const r = report(small);
  const row = (id: string) => r.supplies.find((s) => s.id === id)!;

  it('every item is equal, and there is none more', () => {
    expect(Object.fromEntries(r.supplies.map((s) => [s.id, s.quantity]))).toEqual(HAND);
  });

  it('wire by what it goes into', () => {
    // A tie takes 0.5 m. Round an end post (0.53 m about) the earth strand takes 1.03 m. Beyond an insulator of sheep
    // fence a piece: a tie, the way round, and twice the tail of 60 mm.
    const piece = 0.5 + 0.53 + 2 * 0.06;
    const diagonal = Math.hypot(2.4, 0.875);
    const uses = row('wire.ht25').uses!;
    const hand = {
      'along the runs': 4 * (60 + 40 + 23 + 23),
      'ties at the ends': 4 * 2 * (3 * 0.5 + 1.03),
      'pieces between post and insulator': 4 * 2 * 3 * piece,
      // Two wraps are four legs, and one more for ends and twist. Gate posts have both diagonals.
      'brace wires': (6 + 2 * 2) * 5 * diagonal,
      // Up three strands 0.8 m, at six places; across the corner four of 0.65 m; to tie b two of 0.65 m.
      jumpers: 6 * 0.8 + 4 * 0.65 + 0.8 + 2 * 0.65,
      'rod leads': 2 * 3 * 1.5,
      'coils left for repairs': 2 * 15,
    };
    expect(Object.keys(uses).sort()).toEqual(Object.keys(hand).sort());
    for (const [use, m] of Object.entries(hand)) expect(uses[use], use).toBeCloseTo(m, 6);
  });

  it('an insulated end wants about 2 m of wire (common practice)', () => {
    const uses = row('wire.ht25').uses!;
    const ends = 4 * 2 * 3;
    const insulated = (uses['pieces between post and insulator']! + ends * 0.5) / ends;
    expect(insulated).toBeGreaterThan(1.6);
    expect(insulated).toBeLessThan(2.4);
  });

  it('staples by how they are driven', () => {
    const uses = row('staple').uses!;
    expect(uses['half-driven']).toBeCloseTo(64 + 40, 6);
    expect(uses['driven, over wire and insulators']).toBeCloseTo(4 * 8 * 1.1, 6);
  });

  it('is cut from one coil of 1 km: 16 strands, no join, every short piece off its end', () => {
    const [cut, ...others] = cutWires(small, r, catalogue);
    expect(others).toEqual([]);
    expect(cut!.runs).toHaveLength(16);
    expect(cut!.cutting.joins).toBe(0);
    expect(cut!.cutting.coils.map((c) => c.length_m)).toEqual([1000]);
    expect(cut!.cutting.cost).toBe(catalogue.prices['reel.ht25.1000']!.price);
    expect(cut!.cutting.coils[0]!.shorts).toHaveLength(cut!.shorts.length);
    const list = withCuts(r.supplies, [cut!], catalogue);
    expect(list.find((s) => s.id === 'wire.ht25')!.quantity).toBe(0);
    expect(list.find((s) => s.id === 'reel.ht25.1000')!.quantity).toBe(1);
  });
});
