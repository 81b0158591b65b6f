/**
 * One wire along its run: what the supports leave of the pull from its tensioner to its ends, and how much wire
 * that takes up. Spans are the chords between attachments, in three dimensions.
 */

export type Point3 = readonly [x: number, y: number, z: number];

/** The shape of a run: its spans, and how the wire turns at each support between them. */
export interface Shape {
  /** Chords between attachments, m. */
  readonly chord_m: Float64Array;
  /** Their length across, on the level, m. */
  readonly across_m: Float64Array;
  /** Turning at each support between two spans, rad: in space, in plan (left positive). */
  readonly turn: Float64Array;
  readonly turnAcross: Float64Array;
  readonly length_m: number;
}

/**
 * The shape of a wire through its attachments.
 * @throws RangeError with fewer than two, or with two in one place
 */
export function shapeOf(points: readonly Point3[]): Shape {
  const n = points.length - 1;
  if (n < 1) throw new RangeError('a run has two attachments at least');
  const [dx, dy, dz] = [0, 1, 2].map((k) =>
    Float64Array.from({ length: n }, (_, i) => points[i + 1]![k]! - points[i]![k]!),
  ) as [Float64Array, Float64Array, Float64Array];
  const across_m = dx.map((x, i) => Math.hypot(x, dy[i]!));
  const chord_m = across_m.map((a, i) => Math.hypot(a, dz[i]!));
  if (chord_m.some((c) => !(c > 0))) throw new RangeError('two attachments lie in one place');
  const turn = new Float64Array(n - 1);
  const turnAcross = new Float64Array(n - 1);
  for (let i = 0; i + 1 < n; i++) {
    const [ux, uy, uz] = [dx[i]!, dy[i]!, dz[i]!];
    const [vx, vy, vz] = [dx[i + 1]!, dy[i + 1]!, dz[i + 1]!];
    const flat = ux * vy - uy * vx;
    const cross = Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, flat);
    turn[i] = Math.atan2(cross, ux * vx + uy * vy + uz * vz);
    turnAcross[i] = Math.atan2(flat, ux * vx + uy * vy);
  }
  return {
    chord_m,
    across_m,
    turn,
    turnAcross,
    length_m: chord_m.reduce((a, b) => a + b, 0),
  };
}

/** What holds a wire back at its supports. */
export interface Supports {
  /** Coefficient of friction at each support between two spans. */
  readonly mu: Float64Array;
  /** What each takes besides, N. */
  readonly drag_N: Float64Array;
}

/** Supports that are all alike. */
export const alike = (shape: Shape, mu: number, drag_N: number): Supports => ({
  mu: shape.turn.map(() => mu),
  drag_N: shape.turn.map(() => drag_N),
});

/** Share of the pull that a support lets through: exp(-mu theta) [published: capstan equation]. */
export const passes = (shape: Shape, supports: Supports): Float64Array =>
  shape.turn.map((theta, i) => Math.exp(-supports.mu[i]! * theta));

/**
 * The span in which a tensioner works: on a post, the span after it; at the end, the last one.
 * @param chainage_m along the chords from the run's start
 */
export function spanAt(shape: Shape, chainage_m: number): number {
  const n = shape.chord_m.length;
  let reached = 0;
  for (let i = 0; i < n; i++) {
    reached += shape.chord_m[i]!;
    if (chainage_m < reached - 1e-9) return i;
  }
  return n - 1;
}

export interface PullInputs {
  readonly supports: Supports;
  /** Span in which the tensioner works. */
  readonly at: number;
  readonly applied_N: number;
  /** Tension that the wire was pulled out to by hand before, N: it is nowhere less. */
  readonly hand_N: number;
}

/** Tension of every span, N, with the wire pulled from one of them: T' = max(hand, T exp(-mu theta) - drag). */
export function pulledAlong(shape: Shape, i: PullInputs): Float64Array {
  const T = new Float64Array(shape.chord_m.length);
  const share = passes(shape, i.supports);
  const { drag_N } = i.supports;
  T[i.at] = i.applied_N;
  for (let k = i.at; k + 1 < T.length; k++)
    T[k + 1] = Math.max(i.hand_N, T[k]! * share[k]! - drag_N[k]!);
  for (let k = i.at; k > 0; k--)
    T[k - 1] = Math.max(i.hand_N, T[k]! * share[k - 1]! - drag_N[k - 1]!);
  return T;
}

/** What winding the wire in from the hand's tension takes, m: its stretch, and its sag. */
export function takeUp(
  shape: Shape,
  T: Float64Array,
  wire: { readonly EA_N: number; readonly weight_N_per_m: number; readonly hand_N: number },
): { readonly elastic_m: number; readonly slack_m: number } {
  let elastic_m = 0;
  let slack_m = 0;
  for (let i = 0; i < T.length; i++) {
    const c = shape.chord_m[i]!;
    elastic_m += ((T[i]! - wire.hand_N) * c) / wire.EA_N;
    slack_m +=
      ((c * (wire.weight_N_per_m * shape.across_m[i]!) ** 2) / 24) *
      (1 / wire.hand_N ** 2 - 1 / T[i]! ** 2);
  }
  return { elastic_m, slack_m };
}

/** Turns of a spool for so much wire, m: each layer of turns lies a wire's thickness twice further out. */
export function spoolTurns(
  wound_m: number,
  spool: { readonly diameter_m: number; readonly wire_m: number; readonly perLayer?: number },
): number {
  let left = wound_m;
  let turns = 0;
  for (let layer = 0; ; layer++) {
    const round = Math.PI * (spool.diameter_m + (1 + 2 * layer) * spool.wire_m);
    const full = spool.perLayer === undefined ? Infinity : spool.perLayer * round;
    if (left <= full) return turns + left / round;
    left -= full;
    turns += spool.perLayer!;
  }
}

/** Mean tension over the length of a run, N. */
export const meanOf = (shape: Shape, T: Float64Array): number =>
  T.reduce((sum, t, i) => sum + t * shape.chord_m[i]!, 0) / shape.length_m;

export const leastOf = (T: Float64Array): number => T.reduce((a, b) => Math.min(a, b), Infinity);
export const mostOf = (T: Float64Array): number => T.reduce((a, b) => Math.max(a, b), 0);

/**
 * The span from which a tensioner leaves most in the slackest: where both ends of the run are left alike.
 * @param allowed spans in which one may stand; all of them where it is not given
 */
export function bestSpan(
  shape: Shape,
  i: Omit<PullInputs, 'at'>,
  allowed: (span: number) => boolean = () => true,
): number {
  const n = shape.chord_m.length;
  /** How much more is left at the start than at the end; falls as the tensioner moves along. */
  const lean = (at: number) => {
    const T = pulledAlong(shape, { ...i, at });
    return T[0]! - T[n - 1]!;
  };
  let [low, high] = [0, n - 1];
  while (high - low > 1) {
    const mid = (low + high) >> 1;
    if (lean(mid) > 0) low = mid;
    else high = mid;
  }
  // Nearest allowed span on either side of the balance; of the two the one that leaves more.
  const found: number[] = [];
  for (let k = low; k >= 0; k--) if (allowed(k)) { found.push(k); break; } // prettier-ignore
  for (let k = high; k < n; k++) if (allowed(k)) { found.push(k); break; } // prettier-ignore
  if (found.length === 0) return low;
  const least = (at: number) => leastOf(pulledAlong(shape, { ...i, at }));
  return found.reduce((a, b) => (least(b) > least(a) + 1e-9 ? b : a));
}
