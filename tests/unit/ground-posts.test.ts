import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { catalogue } from '../../src/core/plan/shipped.js';
import { pointAt } from '../../src/core/plan/geometry.js';
import type { Grid, Line } from '../../src/core/plan/schema.js';
import { ANY_STOCK, equalBays } from '../../src/core/posts/bays.js';
import { clearanceUnder, fillsUnder, uplift } from '../../src/core/posts/forces.js';
import { pullOut } from '../../src/core/posts/pullout.js';
import { layOut } from '../../src/core/posts/layout.js';
import { gridFromSpots } from '../../src/core/terrain/gridding.js';
import { groundOf, heightAt, type Ground } from '../../src/core/terrain/ground.js';
import { gAt, profileOf, sAtG, zAt, type Profile } from '../../src/core/terrain/profile.js';
import {
  contourInterval,
  contourLines,
  hillShade,
  slopeOf,
} from '../../src/core/terrain/relief.js';
import { evaluate } from '../../src/core/evaluate.js';
import { energiser, line, plan, report } from './scene.js';

/** A plane that rises 0.3 m a metre to the east and 0.1 to the north. */
const plane: Grid = {
  east0_m: -100,
  north0_m: -50,
  cell_m: 10,
  cols: 31,
  rows: 21,
  z_m: Array.from(
    { length: 31 * 21 },
    (_, k) => 50 + 0.3 * (-100 + (k % 31) * 10) + 0.1 * (-50 + Math.floor(k / 31) * 10),
  ),
};
const ground = groundOf({ ground: { kind: 'grid', id: 'g' } }, { g: plane });

const SMALL = { small: true, holdBay_m: 6 };
const posted = (l: Line) => ({ ...l, out_m: 0 });

/** A profile with a height at every metre. */
const byTheMetre = (length: number, z: (s: number) => number): Profile => {
  const s = Array.from({ length: length + 1 }, (_, k) => k);
  const g = s.map((k) =>
    s.slice(1, k + 1).reduce((sum, j) => sum + Math.hypot(1, z(j) - z(j - 1)), 0),
  );
  return { s, z: s.map(z), g, unknown: [] };
};

/** Rough ground of 8 x 8 nodes 10 m apart. */
const roughGrid = fc
  .array(fc.double({ min: 0, max: 6, noNaN: true }), { minLength: 64, maxLength: 64 })
  .map((z_m): Ground => ({ kind: 'grid', east0_m: -5, north0_m: 3, cell_m: 10, cols: 8, rows: 8, z_m })); // prettier-ignore
const onGrid = fc.record({
  e: fc.double({ min: -5, max: 65, noNaN: true }),
  n: fc.double({ min: 3, max: 73, noNaN: true }),
});

describe('ground', () => {
  it('along a line is straight from sample to sample, wherever the line runs', () => {
    fc.assert(
      fc.property(roughGrid, fc.array(onGrid, { minLength: 2, maxLength: 4 }), (rough, points) => {
        const p = profileOf(points, rough);
        const total = p.s.at(-1)!;
        fc.pre(total > 1);
        for (let k = 0; k <= 300; k++) {
          const s = (total * k) / 300;
          expect(zAt(p, s)).toBeCloseTo(heightAt(rough, pointAt(points, s)), 5);
        }
        // And no sample that is not wanted: where nothing bends there is none.
        expect(p.s.length).toBeLessThan(3 * 24 * points.length);
      }),
      { numRuns: 60 },
    );
  });

  it('is continuous over the edges of its triangles, and passes through its nodes', () => {
    fc.assert(
      fc.property(
        roughGrid,
        onGrid,
        fc.double({ min: 0, max: 6.3, noNaN: true }),
        (rough, p, w) => {
          const q = { e: p.e + 1e-7 * Math.cos(w), n: p.n + 1e-7 * Math.sin(w) };
          const b = heightAt(rough, q);
          if (!Number.isNaN(b)) expect(Math.abs(b - heightAt(rough, p))).toBeLessThan(1e-5);
        },
      ),
    );
    const [rough] = fc.sample(roughGrid, { numRuns: 1, seed: 5 });
    if (rough!.kind !== 'grid') throw new Error('a grid was wanted');
    rough!.z_m.forEach(
      (z, k) =>
      expect(heightAt(rough!, { e: -5 + 10 * (k % 8), n: 3 + 10 * Math.floor(k / 8) })).toBeCloseTo(z!, 9), // prettier-ignore
    );
  });

  it('of a saddle is cut along its flatter diagonal; of a cell without one corner the half that is known stays', () => {
    const cell = (z_m: (number | null)[]): Ground => ({ kind: 'grid', east0_m: 0, north0_m: 0, cell_m: 1, cols: 2, rows: 2, z_m }); // prettier-ignore
    // South-west, south-east, north-west, north-east.
    expect(heightAt(cell([0, 3, 1, 0]), { e: 0.5, n: 0.5 })).toBe(0);
    expect(heightAt(cell([3, 0, 0, 1]), { e: 0.5, n: 0.5 })).toBe(0);
    const three = cell([0, 2, 4, null]);
    expect(heightAt(three, { e: 0.25, n: 0.5 })).toBeCloseTo(2.5, 9);
    expect(heightAt(three, { e: 0.75, n: 0.5 })).toBeNaN();
    expect(heightAt(cell([0, null, 4, 6]), { e: 0.25, n: 0.5 })).toBeCloseTo(2.5, 9);
  });

  it('reads a plane exactly, and nothing outside it or beside a gap', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -100, max: 200, noNaN: true }),
        fc.double({ min: -50, max: 150, noNaN: true }),
        (e, n) => {
          expect(heightAt(ground, { e, n })).toBeCloseTo(50 + 0.3 * e + 0.1 * n, 6);
        },
      ),
    );
    expect(heightAt(ground, { e: 201, n: 0 })).toBeNaN();
    const holed = groundOf(
      { ground: { kind: 'grid', id: 'g' } },
      { g: { ...plane, z_m: plane.z_m.with(0, null) } },
    );
    expect(heightAt(holed, { e: -97, n: -47 })).toBeNaN();
    expect(() => groundOf({ ground: { kind: 'grid', id: 'x' } }, {})).toThrow('"x"');
  });

  it('the length over a slope is the slope length, and distances convert both ways', () => {
    const p = profileOf(
      [
        { e: 0, n: 0 },
        { e: 100, n: 0 },
      ],
      ground,
    );
    expect(gAt(p, 100)).toBeCloseTo(100 * Math.hypot(1, 0.3), 9);
    expect(sAtG(p, gAt(p, 37.5))).toBeCloseTo(37.5, 9);
    expect(zAt(p, 50)).toBeCloseTo(65, 9);
  });

  it('bridges what is not known and says where', () => {
    const p = profileOf(
      [
        { e: 150, n: 0 },
        { e: 260, n: 0 },
      ],
      ground,
    );
    expect(p.unknown).toHaveLength(1);
    expect(p.unknown[0]![0]).toBeCloseTo(50, 0);
    expect(zAt(p, 110)).toBeCloseTo(110, 0);
  });

  it('contours of a plane are straight lines on their height, open at the rim', () => {
    const lines = contourLines(plane, 10);
    expect(lines.length).toBeGreaterThan(5);
    for (const c of lines) {
      for (const piece of c.lines)
        for (const p of piece.slice(1, -1))
          expect(Math.abs(heightAt(ground, p) - c.z_m)).toBeLessThan(0.2);
    }
    expect(contourInterval(180, 246)).toBe(5);
  });

  it('shade is even on a plane and darker on a slope away from the light', () => {
    const inner = (g: Grid) => hillShade(g)[10 * 31 + 15]!;
    const flat = inner({ ...plane, z_m: plane.z_m.map(() => 5) });
    const away = inner({ ...plane, z_m: plane.z_m.map((_, k) => -(k % 31) * 3) });
    expect(flat).toBeCloseTo(255 * Math.SQRT1_2, -1);
    expect(away).toBeLessThan(flat);
  });

  it('the slope of a plane is the same at its rim as within, on a grid wider than high; a gap has none', () => {
    const slopes = slopeOf(plane);
    expect(slopes).toHaveLength(31 * 21);
    for (const k of [0, 30, 31 * 20, 31 * 21 - 1, 31 * 10 + 15])
      expect(slopes[k]).toBeCloseTo(Math.hypot(0.3, 0.1), 6);
    const holed = slopeOf({ ...plane, z_m: plane.z_m.with(31 * 10 + 15, null) });
    expect(holed[31 * 10 + 16]).toBe(0);
    expect(holed[31 * 10 + 18]).toBeCloseTo(Math.hypot(0.3, 0.1), 6);
  });

  it('a grid from scattered points of a plane is that plane inside their hull', () => {
    const spots = Array.from({ length: 300 }, (_, k) => {
      const e = (k * 37.7) % 100;
      const n = (k * 61.3) % 80;
      return { e, n, z: 5 + 0.2 * e - 0.1 * n };
    });
    const g = gridFromSpots(spots, 5);
    const known = g.z_m.flatMap((z, k) =>
      z === null
        ? []
        : [
            Math.abs(
              z -
                (5 +
                  0.2 * (g.east0_m + (k % g.cols) * 5) -
                  0.1 * (g.north0_m + Math.floor(k / g.cols) * 5)),
            ),
          ],
    );
    expect(known.length).toBeGreaterThan(200);
    expect(Math.max(...known)).toBeLessThan(1e-9);
    expect(() =>
      gridFromSpots([
        { e: 0, n: 0, z: 0 },
        { e: 1, n: 1, z: 0 },
        { e: 2, n: 2, z: 0 },
      ]),
    ).toThrow('one line');
  });
});

describe('equal bays', () => {
  it('26.9 m with an aim of 4.5 m gives 6 bays of 4.48 m; common practice', () => {
    const b = equalBays(26.9, 4.5, 'aim');
    expect(b.bays).toBe(6);
    expect(b.bay_m).toBeCloseTo(4.48, 2);
  });
  it('never exceeds a maximum, and one bay fewer would', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 3000, noNaN: true }),
        fc.double({ min: 1, max: 20, noNaN: true }),
        (D, s) => {
          const b = equalBays(D, s, 'maximum');
          expect(b.bay_m).toBeLessThanOrEqual(s * (1 + 1e-5));
          if (b.bays > 1) expect(D / (b.bays - 1)).toBeGreaterThan(s * (1 - 1e-9));
          expect(b.stations_m.at(-1)).toBe(D);
          expect(b.stations_m).toHaveLength(b.bays + 1);
        },
      ),
    );
    expect(() => equalBays(-1, 2, 'aim')).toThrow('length_m');
    expect(() => equalBays(1e9, 1, 'aim')).toThrow('bays');
  });
});

describe('layout', () => {
  const flat = { kind: 'flat', z_m: 0 } as const;
  it('strains off at ends, corners and gates; runs through at bends; leaves the gate open', () => {
    const l = line('a', [
      [0, 0],
      [60, 0],
      [60, 60],
      [65, 120],
    ]);
    const gate = { id: 'g', name: 'G', line: 'a', at_m: 30, width_m: 4, cable: true };
    const out = layOut(posted(l), [gate], profileOf(l.vertices, flat), SMALL, catalogue);
    expect(
      out.posts.filter((p) => p.role !== 'line').map((p) => [p.role, Math.round(p.s_m)]),
    ).toEqual([
      ['end', 0],
      ['gate', 28],
      ['gate', 32],
      ['corner', 60],
      ['bend', 120],
      ['end', 180],
    ]);
    expect(out.runs.map((r) => [Math.round(r.from_m), Math.round(r.to_m)])).toEqual([
      [0, 28],
      [32, 60],
      [60, 180],
    ]);
    expect(out.posts.some((p) => p.s_m > 28.1 && p.s_m < 31.9)).toBe(false);
    for (const s of out.stretches) expect(s.bay_m).toBeLessThanOrEqual(6 + 1e-6);
  });
  it('gates side by side hang on one post, with no fence of no length between them', () => {
    const gate = (id: string, at_m: number, width_m: number) => ({ id, name: id, line: 'a', at_m, width_m, cable: true }); // prettier-ignore
    const p = plan([line('a', [[0, 0], [60, 0]])], { gates: { g: gate('g', 20, 4), h: gate('h', 25, 6) } }); // prettier-ignore
    const { posts, runs } = report(p).lines['a']!;
    expect(posts.filter((x) => x.role === 'gate').map((x) => x.s_m)).toEqual([18, 22, 28]);
    expect(runs.map((r) => [r.from_m, r.to_m])).toEqual([[0, 18], [28, 60]]); // prettier-ignore
    // The cable goes on under both.
    expect(report({ ...p, energisers: { unit: energiser('a', 0) } }).dead).toEqual([]);
  });

  it('of posts that were placed the longest bay counts, as taped over the ground', () => {
    const placed = [12, 20, 45].map((at_m) => ({ at_m, kind: 'steel-180' }));
    const one = report(plan([line('a', [[0, 0], [60, 0]], { placed })])); // prettier-ignore
    expect(one.lines['a']!.stretches).toMatchObject([{ bays: 1, bay_m: 2.4 }, { bays: 4, bay_m: 25, equal: false, from_m: 2.4 }, { bays: 1 }]); // prettier-ignore
    const up = evaluate(plan([line('a', [[0, 0], [60, 0]], { placed })]), ground, catalogue); // prettier-ignore
    expect(up.lines['a']!.stretches[1]!.bay_m).toBeCloseTo(25 * Math.hypot(1, 0.3), 6);
  });

  it('sets posts closer on undulating ground', () => {
    const l = line('a', [
      [0, 0],
      [100, 0],
    ]);
    const wavy = byTheMetre(100, (s) => 0.5 * Math.sin(s / 3));
    expect(layOut(posted(l), [], wavy, SMALL, catalogue).stretches[0]).toMatchObject({
      undulating: true,
      maxBay_m: 4,
    });
    expect(
      layOut(posted(l), [], profileOf(l.vertices, flat), SMALL, catalogue).stretches[0],
    ).toMatchObject({
      undulating: false,
      maxBay_m: 6,
    });
  });
});

describe('forces', () => {
  it('a post 0.3 m below its neighbours at 5 m is lifted by 589.46 N by five strands of 1 kN', () => {
    // Source: reference set, kind post_force, case v01.
    const up = uplift(
      { e: 0, n: 0, z_m: 0.3 },
      { e: 5, n: 0, z_m: 0 },
      { e: 10, n: 0, z_m: 0.3 },
      5000,
      5 * 0.377885502861,
    );
    expect(up).toBeCloseTo(589.458780137, 6);
  });
  it('on a crest the post is pushed down; a driven post in clay holds more than in sand', () => {
    expect(
      uplift({ e: 0, n: 0, z_m: 0 }, { e: 5, n: 0, z_m: 1 }, { e: 10, n: 0, z_m: 0 }, 5000, 1),
    ).toBeLessThan(0);
    const post = catalogue.posts['timber-180']!;
    expect(pullOut(post, catalogue.soils['clay']!, catalogue)).toBeGreaterThan(
      pullOut(post, catalogue.soils['sand']!, catalogue),
    );
  });
  it('the largest and the least gap under a strand are those of a close search', () => {
    const run = fc.tuple(roughGrid, onGrid, onGrid);
    fc.assert(
      fc.property(run, fc.double({ min: 30, max: 1500, noNaN: true }), ([rough, a, b], tension) => {
        fc.pre(Math.hypot(a.e - b.e, a.n - b.n) > 15);
        const l = line('a', [[a.e, a.n], [b.e, b.n]]); // prettier-ignore
        const profile = profileOf(l.vertices, rough);
        const { posts, stretches } = layOut(posted(l), [], profile, ANY_STOCK, catalogue);
        const gap = clearanceUnder(0.4, profile, posts, stretches, 0.378, tension)!;
        let [high, low] = [-Infinity, Infinity];
        for (let i = 0; i + 1 < posts.length; i++) {
          const [p, q] = [posts[i]!, posts[i + 1]!];
          const L = q.s_m - p.s_m;
          for (let k = 0; k <= 2000; k++) {
            const x = (L * k) / 2000;
            // A parabola hung from the chord (published: any text on cables).
            const sag = (0.378 * ((x * (L - x)) / L ** 2) * Math.hypot(L, q.z_m - p.z_m) ** 2) / (2 * tension); // prettier-ignore
            const at = p.z_m + ((q.z_m - p.z_m) * x) / L + 0.4 - sag - zAt(profile, p.s_m + x);
            [high, low] = [Math.max(high, at), Math.min(low, at)];
          }
        }
        expect(gap.high.gap_m).toBeGreaterThan(high - 1e-9);
        expect(gap.high.gap_m).toBeLessThan(high + 0.03);
        expect(gap.low.gap_m).toBeLessThan(low + 1e-9);
        expect(gap.low.gap_m).toBeGreaterThan(low - 0.03);
      }),
      { numRuns: 60 },
    );
  });

  it('a hollow is filled from where the gap passes the limit to where it comes back', () => {
    const l = line('a', [[0, 0], [10, 0]], { maxBay_m: 12 }); // prettier-ignore
    const hollow = byTheMetre(10, (s) => (s >= 4 && s <= 6 ? -0.4 : 0));
    const { posts, stretches } = layOut(posted(l), [], hollow, SMALL, catalogue);
    // A strand that weighs nothing: 150 mm, and 550 over the hollow; 350 is passed half a metre beside it.
    const fills = fillsUnder(0.35, 0.15, hollow, posts, stretches, 1e-9, 1000);
    expect(fills).toEqual([
      { from_m: expect.closeTo(3.5, 6), to_m: expect.closeTo(6.5, 6), depth_m: expect.closeTo(0.2, 6) }, // prettier-ignore
    ]);
  });
  it('finds the hollow between two posts, and the hump', () => {
    const l = line(
      'a',
      [
        [0, 0],
        [10, 0],
      ],
      { maxBay_m: 12 },
    );
    const shaped = byTheMetre(10, (s) => (s === 5 ? -0.4 : s === 2 ? 0.1 : 0));
    const { posts, stretches } = layOut(posted(l), [], shaped, SMALL, catalogue);
    const gap = clearanceUnder(0.15, shaped, posts, stretches, 0.378, 1000)!;
    expect(gap.high).toEqual({ at_m: 5, gap_m: expect.closeTo(0.55 - (0.378 * 25) / 2000, 9) });
    expect(gap.low.at_m).toBe(2);
    expect(gap.low.gap_m).toBeCloseTo(0.05, 2);
  });
});
