/** What a placement of posts along a run must keep to, and what a given one comes to. */
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
  readonly post_kinds: readonly PlacedKind[];
  /** Distance over ground at each sample; spacings are then taped instead of measured in plan. */
  readonly tape_m?: readonly number[];
  /** Tension for the sag, where it is not the one that lifts. */
  readonly sag_tension_N?: number;
  /** Where the tension of the sag is not known exactly: its highest, at which a gap is largest. */
  readonly sag_tension_most_N?: number;
  /** Longest span that may start at each sample, where it is shorter than `max_spacing_m`. */
  readonly longest_m?: readonly number[];
  /** Samples where no post may stand. */
  readonly barred?: readonly boolean[];
  /** Posts that must stand, rising by sample; the two ends need not be among them. */
  readonly musts?: readonly Must[];
}

export interface PlacedKind {
  readonly name: string;
  readonly price: number;
  readonly pullout_capacity_N: number;
  /** Where the ground differs along the run: capacity at each sample. */
  readonly pullout_by_sample_N?: readonly number[];
}

/** A post that must stand at a sample; without a kind of its own it is chosen like any other. */
export interface Must {
  readonly at: number;
  readonly kind?: PlacedKind;
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

/** Tensions at which a gap under a sagging strand is least and largest, N. */
function sagTensions(p: PlacementInputs): [least: number, most: number] {
  const least = p.sag_tension_N ?? p.tension_N;
  return [least, p.sag_tension_most_N ?? least];
}

/** Gap under the lowest strand at sample k of a span that starts at i, m, and the sag at 1 N there, Nm. */
function gapAt(
  p: PlacementInputs,
  i: number,
  k: number,
  slope: number,
  L: number,
  chord: number,
): [straight: number, sag_Nm: number] {
  const x = p.ground_s_m[k]! - p.ground_s_m[i]!;
  const wire = p.ground_z_m[i]! + slope * x + p.wire_height_low_m;
  const sag_Nm = (p.wire_weight_N_per_m * chord * chord * x * (L - x)) / (2 * L * L);
  return [wire - p.ground_z_m[k]!, sag_Nm];
}

/** Least and largest gap under the lowest strand strictly inside a span; [Infinity, -Infinity] if none. */
export function spanClearance(p: PlacementInputs, i: number, j: number): [number, number] {
  const { ground_s_m: s, ground_z_m: z } = p;
  const L = s[j]! - s[i]!;
  const slope = (z[j]! - z[i]!) / L;
  const chord = Math.hypot(L, z[j]! - z[i]!);
  const [least, most] = sagTensions(p);
  let low = Infinity;
  let high = -Infinity;
  for (let k = i + 1; k < j; k++) {
    const [straight, sag_Nm] = gapAt(p, i, k, slope, L, chord);
    low = Math.min(low, straight - sag_Nm / least);
    high = Math.max(high, straight - sag_Nm / most);
  }
  return [low, high];
}

/** Net uplift of a post at sample j between posts at i and k, N. */
export function upliftAt(p: PlacementInputs, i: number, j: number, k: number): number {
  const at = (m: number) => ({ e: p.ground_s_m[m]!, n: 0, z_m: p.ground_z_m[m]! });
  const { strands } = p;
  return uplift(at(i), at(j), at(k), strands * p.tension_N, strands * p.wire_weight_N_per_m);
}

/** True when a sequence of samples, both ends included, meets every limit. */
export function allowed(p: PlacementInputs, posts: readonly number[]): boolean {
  const ruled = rules(p);
  return posts.every((j, m) => {
    const next = posts[m + 1];
    if (next === undefined) return true;
    if (next <= j || !spanAllowed(p, ruled, j, next, true)) return false;
    if (m === 0) return true;
    if (p.barred?.[j] && !ruled.must.has(j)) return false;
    return kindFor(ruled, j, upliftAt(p, posts[m - 1]!, j, next)) !== null;
  });
}

/** What the inputs rule at each sample, in the form that the search asks for. */
export interface Ruled {
  readonly must: ReadonlyMap<number, Must>;
  /** The last must before each sample; a span to it may not start earlier. */
  readonly since: Int32Array;
  /** Kinds by rising price, with what each holds after the safety factor at a sample. */
  readonly kinds: readonly Held[];
  readonly own: ReadonlyMap<number, readonly Held[]>;
}

export interface Held {
  readonly name: string;
  readonly price: number;
  readonly holds: number;
  readonly by: readonly number[] | undefined;
}

export function rules(p: PlacementInputs): Ruled {
  const held = (k: PlacedKind): Held => ({
    name: k.name,
    price: k.price,
    holds: k.pullout_capacity_N / p.safety_factor + HAIR,
    by: k.pullout_by_sample_N?.map((n) => n / p.safety_factor + HAIR),
  });
  const must = new Map((p.musts ?? []).map((m) => [m.at, m]));
  const since = new Int32Array(p.ground_s_m.length);
  for (let k = 1; k < since.length; k++) since[k] = must.has(k - 1) ? k - 1 : since[k - 1]!;
  const own = new Map<number, readonly Held[]>();
  for (const m of must.values()) if (m.kind) own.set(m.at, [held(m.kind)]);
  const kinds = p.post_kinds.map(held).sort((a, b) => a.price - b.price);
  return { must, since, kinds, own };
}

export const holdsAt = (kind: Held, j: number): number => kind.by?.[j] ?? kind.holds;

export function check(p: PlacementInputs): void {
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
export const HAIR = 1e-9;

export function spanAllowed(
  p: PlacementInputs,
  ruled: Ruled,
  i: number,
  j: number,
  clearance: boolean,
): boolean {
  if (i < ruled.since[j]!) return false;
  const t = p.tape_m ?? p.ground_s_m;
  const L = t[j]! - t[i]!;
  if (L > Math.min(p.max_spacing_m, p.longest_m?.[i] ?? Infinity) + HAIR) return false;
  if (L < p.min_spacing_m - HAIR && !(fixedAt(p, ruled, i) && fixedAt(p, ruled, j))) return false;
  if (!clearance) return true;
  const { ground_s_m: s, ground_z_m: z } = p;
  const length = s[j]! - s[i]!;
  const slope = (z[j]! - z[i]!) / length;
  const chord = Math.hypot(length, z[j]! - z[i]!);
  const [least, most] = [p.clearance_min_m - HAIR, p.clearance_max_m + HAIR];
  const [slack, tight] = sagTensions(p);
  // As spanClearance, and done with at the first sample that breaks a limit.
  for (let k = i + 1; k < j; k++) {
    const [straight, sag_Nm] = gapAt(p, i, k, slope, length, chord);
    if (straight - sag_Nm / slack < least || straight - sag_Nm / tight > most) return false;
  }
  return true;
}

export const fixedAt = (p: PlacementInputs, ruled: Ruled, i: number): boolean =>
  i === 0 || i === p.ground_s_m.length - 1 || ruled.must.has(i);

/** The cheapest kind that holds an uplift at a sample with the safety factor; null when none does. */
function kindFor(ruled: Ruled, j: number, uplift: number): Held | null {
  const options = ruled.own.get(j) ?? ruled.kinds;
  return options.find((k) => Math.max(0, uplift) <= holdsAt(k, j)) ?? null;
}

/** Cost, kinds and clearances of a sequence of samples. */
export function describe(p: PlacementInputs, posts: readonly number[]): Placement {
  const inner = posts.slice(1, -1);
  const net_uplift_N = inner.map((j, m) => upliftAt(p, posts[m]!, j, posts[m + 2]!));
  const ruled = rules(p);
  // A kind only fails to hold where the search was asked to leave uplift out.
  const kinds = net_uplift_N.map(
    (u, m) => kindFor(ruled, inner[m]!, u) ?? (ruled.own.get(inner[m]!) ?? ruled.kinds).at(-1)!,
  );
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
