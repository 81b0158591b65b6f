import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placeUniform } from '../../src/core/posts/baselines.js';
import { spanClearance, upliftAt, type PlacementInputs } from '../../src/core/posts/limits.js';
import { place } from '../../src/core/posts/placement.js';
import { PLACING } from './scene.js';

const base: Omit<PlacementInputs, 'ground_s_m' | 'ground_z_m'> = {
  ...PLACING,
  max_spacing_m: 4,
  post_kinds: [
    { name: 'light', price: 5, pullout_capacity_N: 900 },
    { name: 'stout', price: 13, pullout_capacity_N: 4000 },
  ],
};

/** Rough ground of a dozen samples: few enough to try every subset of posts. */
const rough = fc
  .array(fc.double({ min: -0.25, max: 0.25, noNaN: true }), { minLength: 6, maxLength: 12 })
  .map((steps): PlacementInputs => {
    let z = 0;
    return {
      ...base,
      ground_s_m: steps.map((_, i) => i * 0.8),
      ground_z_m: steps.map((d) => (z += d)),
    };
  });

/** The cheapest of all subsets, by brute force. */
function cheapest(p: PlacementInputs): number | null {
  const n = p.ground_s_m.length;
  let best: number | null = null;
  for (let mask = 0; mask < 1 << (n - 2); mask++) {
    const posts = [
      0,
      ...Array.from({ length: n - 2 }, (_, i) => i + 1).filter((i) => mask & (1 << (i - 1))),
      n - 1,
    ];
    const spans = posts.slice(1).every((j, m) => {
      const i = posts[m]!;
      const [low, high] = spanClearance(p, i, j);
      return (
        p.ground_s_m[j]! - p.ground_s_m[i]! <= p.max_spacing_m + 1e-9 &&
        low >= p.clearance_min_m &&
        high <= p.clearance_max_m
      );
    });
    if (!spans) continue;
    let cost = 0;
    for (let m = 1; m + 1 < posts.length; m++) {
      const up = Math.max(0, upliftAt(p, posts[m - 1]!, posts[m]!, posts[m + 1]!));
      const kind = p.post_kinds.find((k) => up <= k.pullout_capacity_N / p.safety_factor);
      cost += kind ? kind.price : Infinity;
    }
    if (cost < Infinity && (best === null || cost < best)) best = cost;
  }
  return best;
}

describe('placement', () => {
  it('finds the cheapest of all layouts, by exhaustive search on small rough ground', () => {
    fc.assert(
      fc.property(rough, (p) => {
        const best = cheapest(p);
        const found = place(p);
        if (best === null) expect(found.feasible).toBe(false);
        else expect((found as { cost: number }).cost).toBeCloseTo(best, 9);
      }),
      { numRuns: 120 },
    );
  });

  it('never costs more than the fewest equal spans that meet the same limits', () => {
    fc.assert(
      fc.property(rough, (p) => {
        const uniform = placeUniform(p);
        const found = place(p);
        if (uniform)
          expect((found as { cost: number }).cost).toBeLessThanOrEqual(uniform.cost + 1e-9);
      }),
    );
  });

  it('on level ground spaces by the maximum alone, with the cheap kind', () => {
    const s = Array.from({ length: 41 }, (_, i) => i);
    const found = place({ ...base, max_spacing_m: 10, ground_s_m: s, ground_z_m: s.map(() => 3) });
    expect(found).toMatchObject({
      feasible: true,
      cost: 15,
      intermediate_posts: 3,
      kinds: ['light', 'light', 'light'],
    });
  });

  it('equal spans: the fewest whose posts hold, tried one after another', () => {
    /** On samples of uneven steps, so that no two are as near to a place. */
    const uneven = (p: PlacementInputs) => ({ ...p, ground_s_m: p.ground_s_m.map((s, i) => s + 0.0137 * i * i) }); // prettier-ignore
    /** Samples nearest to equal spans. */
    const equal = (p: PlacementInputs, spans: number) => {
      const s = p.ground_s_m;
      const nearest = (want: number) => s.reduce((best, x, k) => (Math.abs(x - want) < Math.abs(s[best]! - want) ? k : best), 0); // prettier-ignore
      return Array.from({ length: spans + 1 }, (_, k) => nearest((s.at(-1)! * k) / spans));
    };
    const holds = (p: PlacementInputs, posts: readonly number[]) =>
      posts.slice(1).every((j, m) => {
        const i = posts[m]!;
        if (j <= i || p.ground_s_m[j]! - p.ground_s_m[i]! > p.max_spacing_m + 1e-9) return false;
        const [low, high] = spanClearance(p, i, j);
        if (low < p.clearance_min_m || high > p.clearance_max_m) return false;
        const next = posts[m + 2];
        return next === undefined || upliftAt(p, i, j, next) <= 4000 / p.safety_factor;
      });
    fc.assert(
      fc.property(rough.map(uneven), (p) => {
        const last = p.ground_s_m.length - 1;
        const counts = Array.from({ length: last }, (_, k) => k + 1);
        const first = counts.find((n) => holds(p, equal(p, n)));
        const found = placeUniform(p);
        if (first === undefined) expect(found).toBeNull();
        else expect(found!.intermediate_posts).toBe(first - 1);
      }),
      { numRuns: 200 },
    );
  });

  it('asks nothing of the datum, nor of the end that one starts from', () => {
    fc.assert(
      fc.property(rough, (p) => {
        const high = { ...p, ground_z_m: p.ground_z_m.map((z) => z + 500) };
        const last = p.ground_s_m.at(-1)!;
        const back = {
          ...p,
          ground_s_m: p.ground_s_m.map((s) => last - s).reverse(),
          ground_z_m: [...p.ground_z_m].reverse(),
        };
        const cost = (q: PlacementInputs) => {
          const found = place(q);
          return 'cost' in found ? found.cost : null;
        };
        const own = cost(p);
        for (const other of [high, back])
          if (own === null) expect(cost(other)).toBeNull();
          else expect(cost(other)).toBeCloseTo(own, 9);
        const [i, j] = [0, p.ground_s_m.length - 1];
        const [low, wide] = spanClearance(p, i, j);
        expect(spanClearance(high, i, j)).toEqual([
          expect.closeTo(low, 9),
          expect.closeTo(wide, 9),
        ]);
      }),
      { numRuns: 60 },
    );
  });

  it('says which limit stands in the way, and refuses samples that do not rise', () => {
    const s = Array.from({ length: 21 }, (_, i) => i);
    const wall = place({
      ...base,
      ground_s_m: s,
      ground_z_m: s.map((x) => (x === 10 ? 2 : 0)),
      clearance_max_m: 0.2,
    });
    // Posts at the foot of the spike are lifted out; spans over it touch it: either limit alone would do.
    expect(wall).toEqual({
      feasible: false,
      furthest_reachable_m: expect.any(Number),
      feasible_without_uplift_limit: true,
      feasible_without_clearance_limit: true,
    });
    const lifted = place({
      ...base,
      ground_s_m: s,
      ground_z_m: s.map((x) => 0.6 * Math.abs(x - 10)),
      clearance_max_m: 9,
      post_kinds: [{ name: 'weak', price: 1, pullout_capacity_N: 1 }],
    });
    expect(lifted).toMatchObject({
      feasible: false,
      feasible_without_uplift_limit: true,
      feasible_without_clearance_limit: false,
    });
    expect(() => place({ ...base, ground_s_m: [0, 0], ground_z_m: [1, 1] })).toThrow('must rise');
  });
});
