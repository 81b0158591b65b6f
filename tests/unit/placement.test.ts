import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placeUniform } from '../../src/core/posts/baselines.js';
import { spanClearance, upliftAt, type PlacementInputs } from '../../src/core/posts/limits.js';
import { place } from '../../src/core/posts/placement.js';

const base: Omit<PlacementInputs, 'ground_s_m' | 'ground_z_m'> = {
  strands: 5,
  tension_N: 900,
  wire_weight_N_per_m: 0.378,
  wire_height_low_m: 0.15,
  clearance_min_m: 0.03,
  clearance_max_m: 0.32,
  max_spacing_m: 4,
  min_spacing_m: 0,
  safety_factor: 1.5,
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

  it('says which limit stands in the way, and refuses samples that do not rise', () => {
    const s = Array.from({ length: 21 }, (_, i) => i);
    const wall = place({
      ...base,
      ground_s_m: s,
      ground_z_m: s.map((x) => (x === 10 ? 2 : 0)),
      clearance_max_m: 0.2,
    });
    expect(wall).toMatchObject({ feasible: false, furthest_reachable_m: expect.any(Number) });
    expect(() => place({ ...base, ground_s_m: [0, 0], ground_z_m: [1, 1] })).toThrow('must rise');
  });
});
