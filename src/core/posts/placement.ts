/**
 * Where each post goes along a straight run so that the posts cost least: exact second-order dynamic
 * programming over ground samples. A state is the last two posts, since the uplift of a post needs
 * both its neighbours (docs/model.md, Posts).
 */

import { uplift } from './forces.js';

export interface PlacementInputs {
  /** Samples along the run, rising, m, and their ground heights. Posts stand only at samples. */
  readonly ground_s_m: readonly number[];
  readonly ground_z_m: readonly number[];
  readonly strands: number;
  readonly tension_N: number;
  /** Weight of one strand. */
  readonly wire_weight_N_per_m: number;
  /** Height of the lowest strand on the posts. */
  readonly wire_height_low_m: number;
  readonly clearance_min_m: number;
  readonly clearance_max_m: number;
  readonly max_spacing_m: number;
  readonly min_spacing_m: number;
  readonly safety_factor: number;
  readonly post_kinds: readonly {
    readonly name: string;
    readonly price: number;
    readonly pullout_capacity_N: number;
  }[];
}

export interface Placement {
  readonly feasible: boolean;
  readonly cost: number;
  readonly intermediate_posts: number;
  readonly positions_m: readonly number[];
  /** Kind of each post between the two ends, and its uplift, N; negative is pushed down. */
  readonly kinds: readonly string[];
  readonly net_uplift_N: readonly number[];
  readonly clearance_min_m: number;
  readonly clearance_max_m: number;
}

/** What stands in the way when there is no placement. */
export interface NoPlacement {
  readonly feasible: false;
  /** No allowed sequence of posts gets further than this. */
  readonly furthest_reachable_m: number;
  readonly feasible_without_uplift_limit: boolean;
  readonly feasible_without_clearance_limit: boolean;
}

interface Limits {
  readonly clearance: boolean;
  readonly uplift: boolean;
}

/** Sag of one strand below its chord at x of a span, m. */
const sagAt = (p: PlacementInputs, x: number, L: number, chord: number): number =>
  (p.wire_weight_N_per_m * chord * chord * x * (L - x)) / (2 * p.tension_N * L * L);

/** Least and largest gap under the lowest strand strictly inside a span; [Infinity, -Infinity] if none. */
export function spanClearance(p: PlacementInputs, i: number, j: number): [number, number] {
  const { ground_s_m: s, ground_z_m: z } = p;
  const L = s[j]! - s[i]!;
  const slope = (z[j]! - z[i]!) / L;
  const chord = Math.hypot(L, z[j]! - z[i]!);
  let low = Infinity;
  let high = -Infinity;
  for (let k = i + 1; k < j; k++) {
    const x = s[k]! - s[i]!;
    const gap = z[i]! + slope * x + p.wire_height_low_m - sagAt(p, x, L, chord) - z[k]!;
    if (gap < low) low = gap;
    if (gap > high) high = gap;
  }
  return [low, high];
}

/** Net uplift of a post at sample j between posts at i and k, N. */
export function upliftAt(p: PlacementInputs, i: number, j: number, k: number): number {
  const at = (m: number) => ({ e: p.ground_s_m[m]!, n: 0, z_m: p.ground_z_m[m]! });
  const { strands } = p;
  return uplift(at(i), at(j), at(k), strands * p.tension_N, strands * p.wire_weight_N_per_m);
}

/**
 * The cheapest placement, and of those the one with fewest posts; or what stands in the way.
 * Both ends of the run are fixed and cost nothing here.
 * @throws RangeError when the samples do not rise or there is no kind of post
 */
export function place(p: PlacementInputs): Placement | NoPlacement {
  check(p);
  const best = search(p, { clearance: true, uplift: true });
  if (best.posts) return describe(p, best.posts);
  return {
    feasible: false,
    furthest_reachable_m: p.ground_s_m[best.furthest]!,
    feasible_without_uplift_limit: search(p, { clearance: true, uplift: false }).posts !== null,
    feasible_without_clearance_limit: search(p, { clearance: false, uplift: true }).posts !== null,
  };
}

/** The fewest equal spans, as near as the samples allow, that meet the same limits; null if none do. */
export function placeUniform(p: PlacementInputs): Placement | null {
  check(p);
  const { ground_s_m: s } = p;
  const total = s.at(-1)! - s[0]!;
  for (
    let spans = Math.max(1, Math.ceil(total / p.max_spacing_m - 1e-9));
    spans < s.length;
    spans++
  ) {
    const posts: number[] = [];
    let at = 0;
    for (let k = 0; k <= spans; k++) {
      const want = s[0]! + (total * k) / spans;
      while (at + 1 < s.length && Math.abs(s[at + 1]! - want) <= Math.abs(s[at]! - want)) at++;
      posts.push(at);
    }
    if (allowed(p, posts)) return describe(p, posts);
  }
  return null;
}

function allowed(p: PlacementInputs, posts: readonly number[]): boolean {
  return posts.every((j, m) => {
    const next = posts[m + 1];
    if (next === undefined) return true;
    if (next <= j || !spanAllowed(p, j, next, true)) return false;
    return m === 0 || kindFor(p, upliftAt(p, posts[m - 1]!, j, next)) !== null;
  });
}

function check(p: PlacementInputs): void {
  if (p.ground_s_m.length !== p.ground_z_m.length)
    throw new RangeError('as many heights as samples are wanted');
  if (p.ground_s_m.length < 2) throw new RangeError('a run needs two samples at least');
  if (p.post_kinds.length === 0) throw new RangeError('post_kinds: one kind at least is wanted');
  p.ground_s_m.forEach((s, i) => {
    if (i > 0 && !(s > p.ground_s_m[i - 1]!))
      throw new RangeError(`ground_s_m/${i}: samples must rise`);
  });
}

/** A hair for limits that are met exactly but for rounding. */
const HAIR = 1e-9;

function spanAllowed(p: PlacementInputs, i: number, j: number, clearance: boolean): boolean {
  const L = p.ground_s_m[j]! - p.ground_s_m[i]!;
  if (L > p.max_spacing_m + HAIR || L < p.min_spacing_m - HAIR) return false;
  if (!clearance) return true;
  const [low, high] = spanClearance(p, i, j);
  return low >= p.clearance_min_m - HAIR && high <= p.clearance_max_m + HAIR;
}

/** Index of the cheapest kind that holds an uplift with the safety factor; null when none does. */
function kindFor(p: PlacementInputs, uplift: number): number | null {
  let best: number | null = null;
  p.post_kinds.forEach((kind, k) => {
    if (Math.max(0, uplift) > kind.pullout_capacity_N / p.safety_factor + HAIR) return;
    if (best === null || kind.price < p.post_kinds[best]!.price) best = k;
  });
  return best;
}

function describe(p: PlacementInputs, posts: readonly number[]): Placement {
  const inner = posts.slice(1, -1);
  const net_uplift_N = inner.map((j, m) => upliftAt(p, posts[m]!, j, posts[m + 2]!));
  const kinds = net_uplift_N.map((u) => p.post_kinds[kindFor(p, u)!]!);
  const gaps = posts.slice(1).map((j, m) => spanClearance(p, posts[m]!, j));
  return {
    feasible: true,
    cost: kinds.reduce((sum, k) => sum + k.price, 0),
    intermediate_posts: inner.length,
    positions_m: posts.map((j) => p.ground_s_m[j]!),
    kinds: kinds.map((k) => k.name),
    net_uplift_N,
    clearance_min_m: Math.min(...gaps.map((g) => g[0])),
    clearance_max_m: Math.max(...gaps.map((g) => g[1])),
  };
}

/**
 * The search itself. Spans that end at one sample are kept as one row of fixed width, the span that
 * comes from d samples before at place d; the row holds the least cost of any sequence whose last
 * span it is.
 */
function search(p: PlacementInputs, limits: Limits): { posts: number[] | null; furthest: number } {
  const { ground_s_m: s, ground_z_m: z } = p;
  const n = s.length;
  let width = 1;
  for (let i = 0, j = 0; j < n; j++) {
    while (s[j]! - s[i]! > p.max_spacing_m + HAIR) i++;
    width = Math.max(width, j - i + 1);
  }
  const cost = new Float64Array(n * width).fill(Infinity);
  const back = new Int32Array(n * width);
  // Rise of a span over its chord, seen from its far end, and the chord: for the uplift there.
  const rise = new Float64Array(n * width);
  const chord = new Float64Array(n * width);
  const kinds = [...p.post_kinds]
    .sort((a, b) => a.price - b.price)
    .map((k) => ({ price: k.price, holds: k.pullout_capacity_N / p.safety_factor + HAIR }));
  const total = p.strands * p.tension_N;
  const weight = (p.strands * p.wire_weight_N_per_m) / 2;
  // A post more is dearer than a post less at equal cost.
  const each = 1e-7 * Math.max(1, ...kinds.map((k) => k.price));
  let furthest = 0;

  for (let k = 1; k < n; k++) {
    for (let d = 1; d < width && d <= k; d++) {
      const j = k - d;
      if (s[k]! - s[j]! > p.max_spacing_m + HAIR) break;
      const reachable = j === 0 || rowReached(cost, j, width);
      if (!reachable || !spanAllowed(p, j, k, limits.clearance)) continue;
      const at = k * width + d;
      const c = Math.hypot(s[k]! - s[j]!, z[k]! - z[j]!);
      chord[at] = c;
      rise[at] = (z[j]! - z[k]!) / c;
      if (j === 0) {
        cost[at] = 0;
        furthest = k;
        continue;
      }
      const ahead = -rise[at]!;
      for (let e = 1; e < width && e <= j; e++) {
        const from = j * width + e;
        const before = cost[from]!;
        if (before >= cost[at]!) continue;
        const uplift = total * (rise[from]! + ahead) - weight * (chord[from]! + c);
        let price = Infinity;
        if (!limits.uplift) price = kinds[0]!.price;
        else {
          for (const kind of kinds) {
            if (uplift > kind.holds) continue;
            price = kind.price;
            break;
          }
        }
        if (before + price + each < cost[at]!) {
          cost[at] = before + price + each;
          back[at] = e;
        }
      }
      if (cost[at]! < Infinity) furthest = k;
    }
  }
  return { posts: trace(cost, back, width, n), furthest };
}

function rowReached(cost: Float64Array, j: number, width: number): boolean {
  for (let e = 1; e < width && e <= j; e++) if (cost[j * width + e]! < Infinity) return true;
  return false;
}

function trace(cost: Float64Array, back: Int32Array, width: number, n: number): number[] | null {
  let k = n - 1;
  let d = 0;
  for (let e = 1; e < width; e++) {
    const at = k * width + e;
    if (cost[at]! < Infinity && (d === 0 || cost[at]! < cost[k * width + d]!)) d = e;
  }
  if (d === 0) return null;
  const posts = [k];
  while (k > 0) {
    const next = back[k * width + d]!;
    k -= d;
    posts.unshift(k);
    d = next;
  }
  return posts;
}
