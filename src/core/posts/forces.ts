/** What the wire does to a post, and what the ground gives against it. */
import type { Clearance, Post, Run, Stretch } from '../report/schema.js';
import { zAt, type Profile } from '../terrain/profile.js';
import type { PostKind, Soil } from '../plan/catalogue.js';
import { GRAVITY, sum } from '../base/numbers.js';

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

export interface PostForceInputs {
  readonly prev_xyz_m: readonly [number, number, number];
  readonly post_xyz_m: readonly [number, number, number];
  readonly next_xyz_m: readonly [number, number, number];
  /** Tension of each strand in the span before and after, N; the same number of strands. */
  readonly tension_prev_N: readonly number[];
  readonly tension_next_N: readonly number[];
  readonly wire_weight_N_per_m: number;
}

/**
 * Everything that the strands do to one post: vector sum of their pulls along both chords, less half
 * the wire's weight (kind `post_force`). The small-angle figure stands beside it for comparison.
 * @throws RangeError when the spans have no length or the strand counts differ
 */
export function postForce(i: PostForceInputs) {
  if (i.tension_prev_N.length !== i.tension_next_N.length) {
    throw new RangeError('tension_prev_N and tension_next_N: the same number of strands is wanted');
  }
  const towards = (to: readonly number[]) => {
    const d = to.map((x, k) => x - i.post_xyz_m[k]!);
    const length = Math.hypot(...d);
    if (length === 0) throw new RangeError('two posts stand in one place');
    return { d, length, flat: Math.hypot(d[0]!, d[1]!) };
  };
  const prev = towards(i.prev_xyz_m);
  const next = towards(i.next_xyz_m);
  const before = sum(i.tension_prev_N);
  const after = sum(i.tension_next_N);
  const weight =
    (i.tension_prev_N.length * i.wire_weight_N_per_m * (prev.length + next.length)) / 2;
  const [Fx, Fy, pull] = [0, 1, 2].map(
    (k) => (before * prev.d[k]!) / prev.length + (after * next.d[k]!) / next.length,
  ) as [number, number, number];
  const Fz = pull - weight;
  // Direction of travel in, then out; positive turns left.
  const cross = -prev.d[0]! * next.d[1]! + prev.d[1]! * next.d[0]!;
  const dot = -prev.d[0]! * next.d[0]! - prev.d[1]! * next.d[1]!;
  const vertical = Math.atan2(prev.d[2]!, prev.flat) + Math.atan2(next.d[2]!, next.flat);
  const horizontal = Math.hypot(Fx, Fy);
  return {
    Fx_N: Fx,
    Fy_N: Fy,
    Fz_N: Fz,
    net_uplift_N: Math.max(0, Fz),
    down_load_N: Math.max(0, -Fz),
    horizontal_resultant_N: horizontal,
    horizontal_direction_deg: horizontal < 1e-9 ? 0 : (Math.atan2(Fy, Fx) * 180) / Math.PI,
    wire_weight_on_post_N: weight,
    turn_horizontal_rad: Math.atan2(cross, dot),
    turn_vertical_rad: vertical,
    uplift_small_angle_N: before * vertical - weight,
  };
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
