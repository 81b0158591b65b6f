/** What the wire does to a post, and what the ground gives against it. */
import type { Clearance, Post, Run, Stretch } from '../report/schema.js';
import { zAt, type Profile } from '../terrain/profile.js';
import type { PostKind, Soil } from '../plan/catalogue.js';
import { GRAVITY } from '../base/numbers.js';

type Place = Pick<Post, 'e' | 'n' | 'z_m'>;

/**
 * Uplift of a post from the exact sum of the strand pulls towards both neighbours, less the wire's
 * own weight over half of both bays, N; positive lifts (reference kind post_force).
 * @param totalTension sum of all strand tensions, N
 * @param totalWeight weight of all strands, N/m
 */
export function uplift(
  prev: Place,
  post: Place,
  next: Place,
  totalTension: number,
  totalWeight: number,
): number {
  const slope = (a: Place, b: Place) => {
    const d = Math.hypot(b.e - a.e, b.n - a.n, b.z_m - a.z_m);
    return { sin: d === 0 ? 0 : (b.z_m - a.z_m) / d, d };
  };
  const left = slope(post, prev);
  const right = slope(post, next);
  return totalTension * (left.sin + right.sin) - (totalWeight * (left.d + right.d)) / 2;
}

/** Uplift of every post that has a neighbour on both sides within its run; others carry 0. */
export function withUplift(
  posts: readonly Post[],
  runs: readonly Run[],
  totalTension: number,
  totalWeight: number,
): Post[] {
  const inRun = (s: number) => runs.some((r) => s > r.from_m + 1e-6 && s < r.to_m - 1e-6);
  return posts.map((post, i) => {
    const prev = posts[i - 1];
    const next = posts[i + 1];
    if (!prev || !next || !inRun(post.s_m)) return post;
    return { ...post, uplift_N: uplift(prev, post, next, totalTension, totalWeight) };
  });
}

/**
 * Pull-out resistance of a post by shaft friction plus its own weight, N. Perimeter x depth x unit
 * friction; the friction is judgement [memory].
 */
export function pullOut(kind: PostKind, soil: Soil): number {
  return kind.perimeter_m * kind.embedment_m * soil.friction_Pa + kind.mass_kg * GRAVITY;
}

/**
 * Largest and smallest gap between ground and the lowest strand, with the strand straight from post
 * to post less its sag, m. Null without strands or stretches.
 */
export function clearanceUnder(
  lowest_m: number,
  profile: Profile,
  posts: readonly Post[],
  stretches: readonly Stretch[],
  weight: number,
  tension: number,
): Clearance | null {
  let high = { gap_m: -Infinity, at_m: 0 };
  let low = { gap_m: Infinity, at_m: 0 };
  let k = 0;
  for (const stretch of stretches) {
    while (k < profile.s.length && profile.s[k]! < stretch.from_m) k++;
    const own = posts.filter((p) => p.s_m >= stretch.from_m - 1e-6 && p.s_m <= stretch.to_m + 1e-6);
    for (let i = 0; i + 1 < own.length; i++) {
      const a = own[i]!;
      const b = own[i + 1]!;
      const L = b.s_m - a.s_m;
      for (; k < profile.s.length && profile.s[k]! <= b.s_m; k++) {
        const s = profile.s[k]!;
        const t = (s - a.s_m) / L;
        const wire = a.z_m + t * (b.z_m - a.z_m) + lowest_m;
        const sag = (weight * (s - a.s_m) * (b.s_m - s)) / (2 * tension);
        const gap_m = wire - sag - zAt(profile, s);
        if (gap_m > high.gap_m) high = { gap_m, at_m: s };
        if (gap_m < low.gap_m) low = { gap_m, at_m: s };
      }
    }
  }
  return high.gap_m === -Infinity ? null : { high, low };
}
