/** What the wire does to a post, and what the ground gives against it. */
import type { Clearance, Post, Stretch } from '../report/schema.js';
import type { Profile } from '../terrain/profile.js';
import { sum } from '../base/numbers.js';

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

/** What the strands of one run pull with altogether, N, and weigh, N/m. */
export interface RunPull {
  readonly from_m: number;
  readonly to_m: number;
  readonly tension_N: number;
  readonly weight_N_per_m: number;
}

/** Uplift of every post that has a neighbour on both sides within its run; others carry 0. */
export function withUplift(posts: readonly Post[], runs: readonly RunPull[]): Post[] {
  let k = 0;
  return posts.map((post, i) => {
    while (k < runs.length - 1 && post.s_m >= runs[k]!.to_m - 1e-6) k++;
    const run = runs[k];
    const prev = posts[i - 1];
    const next = posts[i + 1];
    const within = run && post.s_m > run.from_m + 1e-6 && post.s_m < run.to_m - 1e-6;
    if (!within || !prev || !next) return post;
    return { ...post, uplift_N: uplift(prev, post, next, run.tension_N, run.weight_N_per_m) };
  });
}

/** One place under the lowest strand: distance along the line, and the gap to the ground, m. */
export interface GapAt {
  readonly s_m: number;
  readonly gap_m: number;
}

/**
 * Visits, along the stretches, every place where the gap between ground and the lowest strand can be largest
 * or least: the posts, the samples between them, and where a sagging strand comes nearest to the straight
 * ground between two samples. A visitor and no list: a station has half a million samples.
 */
export function eachGap(
  visit: (s_m: number, gap_m: number) => void,
  lowest_m: number,
  profile: Profile,
  posts: readonly Post[],
  stretches: readonly Stretch[],
  weight: number,
  tension: number,
): void {
  const { s, z } = profile;
  let k = 0;
  let i = 0;
  for (const stretch of stretches) {
    while (i < posts.length && posts[i]!.s_m < stretch.from_m - 1e-6) i++;
    for (; i + 1 < posts.length && posts[i + 1]!.s_m <= stretch.to_m + 1e-6; i++) {
      const a = posts[i]!;
      const b = posts[i + 1]!;
      const L = b.s_m - a.s_m;
      const slope = (b.z_m - a.z_m) / L;
      // Sag by the chord, as over level ground its own length is.
      const bow = (weight * (1 + slope * slope)) / (2 * tension);
      const gapAt = (x: number, ground: number) =>
        a.z_m + slope * x + lowest_m - bow * x * (L - x) - ground;
      visit(a.s_m, lowest_m);
      let [x0, z0] = [0, a.z_m];
      while (k < s.length && s[k]! <= a.s_m + 1e-9) k++;
      for (let last = false; !last; k++) {
        last = k >= s.length || s[k]! >= b.s_m - 1e-9;
        const [x1, z1] = last ? [L, b.z_m] : [s[k]! - a.s_m, z[k]!];
        const lowestAt = L / 2 - (slope - (z1 - z0) / (x1 - x0)) / (2 * bow);
        if (lowestAt > x0 && lowestAt < x1) {
          const ground = z0 + ((z1 - z0) * (lowestAt - x0)) / (x1 - x0);
          visit(a.s_m + lowestAt, gapAt(lowestAt, ground));
        }
        if (last) break;
        visit(s[k]!, gapAt(x1, z1));
        [x0, z0] = [x1, z1];
      }
      visit(b.s_m, lowest_m);
    }
  }
}

type Under = Parameters<typeof eachGap> extends [unknown, ...infer U] ? U : never;

/** The gap at every sample, as a list for drawing. */
export function gapsUnder(...under: Under): GapAt[] {
  const out: GapAt[] = [];
  eachGap((s_m, gap_m) => out.push({ s_m, gap_m }), ...under);
  return out;
}

/** Largest and smallest gap under the lowest strand, m; null without stretches. */
export function clearanceUnder(...under: Under): Clearance | null {
  const high = { gap_m: -Infinity, at_m: 0 };
  const low = { gap_m: Infinity, at_m: 0 };
  eachGap(
    (at_m, gap_m) => {
      if (gap_m > high.gap_m) Object.assign(high, { gap_m, at_m });
      if (gap_m < low.gap_m) Object.assign(low, { gap_m, at_m });
    },
    ...under,
  );
  return high.gap_m === -Infinity ? null : { high, low };
}

/** Hollows where the gap is over a limit, with the depth of fill that brings it back, m. */
export function fillsUnder(limit_m: number, ...under: Under) {
  const out: { from_m: number; to_m: number; depth_m: number }[] = [];
  let before = { s_m: -Infinity, over: 0 };
  let open = false;
  eachGap(
    (s_m, gap_m) => {
      const over = gap_m - limit_m;
      // Between two visits the gap is as good as straight: where it passes the limit follows.
      const passes = before.s_m + ((s_m - before.s_m) * before.over) / (before.over - over);
      if (over > 1e-6 && !open) {
        open = true;
        out.push({ from_m: Number.isFinite(passes) ? passes : s_m, to_m: s_m, depth_m: over });
      } else if (open) {
        const last = out.at(-1)!;
        open = over > 1e-6;
        last.to_m = open ? s_m : passes;
        last.depth_m = Math.max(last.depth_m, over);
      }
      before = { s_m, over };
    },
    ...under,
  );
  return out;
}
