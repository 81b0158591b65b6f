/** The calculator of one run: pull, take-up, other places for the tensioner, and another temperature. */
import { alike, leastOf, meanOf, pulledAlong, shapeOf, spanAt, spoolTurns, takeUp, type Point3, type Shape } from './run.js'; // prettier-ignore
import { lockedAfter, slippedAfter } from './warmth.js';

export interface RunInputs {
  readonly attachments_xyz_m: readonly Point3[];
  readonly tensioner_chainage_m: number;
  readonly mu: number;
  readonly drag_N_per_post: number;
  readonly tension_applied_N: number;
  readonly hand_tension_N: number;
  readonly spool_diameter_m: number;
  readonly spool_turns_per_layer?: number;
  readonly wire_diameter_m: number;
  readonly wire_weight_N_per_m: number;
  readonly EA_N: number;
  readonly alpha_per_K: number;
  readonly delta_theta_K?: number;
  readonly spring_N_per_m?: number;
  /** Says what the tensioner at the end, and in the middle, would leave. */
  readonly compare?: boolean;
  /** Posts at which the wire would be strained off, for separate runs. */
  readonly split_at_posts?: readonly number[];
}

/**
 * Tension along one run, in the contract's keys (docs/formats.md).
 * @throws RangeError where attachments coincide, or a split lies at no post between the ends
 */
export function runCase(i: RunInputs) {
  const shape = shapeOf(i.attachments_xyz_m);
  const wire = { EA_N: i.EA_N, weight_N_per_m: i.wire_weight_N_per_m, hand_N: i.hand_tension_N };
  const supportsOf = (s: Shape) => alike(s, i.mu, i.drag_N_per_post);
  const pulled = (s: Shape, at: number) => {
    const T = pulledAlong(s, { supports: supportsOf(s), at, applied_N: i.tension_applied_N, hand_N: i.hand_tension_N }); // prettier-ignore
    const { elastic_m, slack_m } = takeUp(s, T, wire);
    const wound_m = elastic_m + slack_m;
    const turns = spoolTurns(wound_m, {
      diameter_m: i.spool_diameter_m,
      wire_m: i.wire_diameter_m,
      ...(i.spool_turns_per_layer === undefined ? {} : { perLayer: i.spool_turns_per_layer }),
    });
    return { T, elastic_m, slack_m, wound_m, turns, mean: meanOf(s, T), least: leastOf(T) };
  };
  const at = spanAt(shape, i.tensioner_chainage_m);
  const own = pulled(shape, at);
  return {
    tensioner_span_index: at,
    run_length_m: shape.length_m,
    turning_total_rad: shape.turn.reduce((a, b) => a + b, 0),
    tension_N: [...own.T],
    tension_mean_N: own.mean,
    tension_min_N: own.least,
    tension_end_A_N: own.T[0]!,
    tension_end_B_N: own.T.at(-1)!,
    wound_elastic_m: own.elastic_m,
    wound_slack_m: own.slack_m,
    wound_m: own.wound_m,
    spool_turns: own.turns,
    turn_angle_3d_rad: [...shape.turn],
    turn_horizontal_rad: [...shape.turnAcross],
    turn_vertical_rad: turnsUp(i.attachments_xyz_m, shape),
    ...(i.compare ? compared(shape, pulled) : {}),
    ...(i.split_at_posts ? splitAt(i, i.split_at_posts, pulled) : {}),
    ...(i.delta_theta_K === undefined ? {} : warmed(i, i.delta_theta_K, shape, own.T, at)),
  };
}

/** Turning in elevation at each support, rad, up positive. */
function turnsUp(points: readonly Point3[], { across_m }: Shape): number[] {
  const slopes = [...across_m].map((a, k) => Math.atan2(points[k + 1]![2] - points[k]![2], a));
  return slopes.slice(1).map((s, k) => s - slopes[k]!);
}

type Pulled = (
  shape: Shape,
  at: number,
) => { mean: number; least: number; wound_m: number; turns: number };

function compared(shape: Shape, pulled: Pulled) {
  const end = pulled(shape, 0);
  const middle = pulled(shape, spanAt(shape, shape.length_m / 2));
  return {
    end_tension_mean_N: end.mean,
    end_tension_min_N: end.least,
    end_wound_m: end.wound_m,
    end_spool_turns: end.turns,
    middle_tension_mean_N: middle.mean,
    middle_tension_min_N: middle.least,
    middle_wound_m: middle.wound_m,
    middle_spool_turns: middle.turns,
  };
}

/** The same wire as separate runs, each pulled from its middle. */
function splitAt(i: RunInputs, posts: readonly number[], pulled: Pulled) {
  const last = i.attachments_xyz_m.length - 1;
  const marks = [0, ...posts, last];
  if (marks.some((m, k) => k > 0 && m <= marks[k - 1]!))
    throw new RangeError('split_at_posts: posts between the ends, in order');
  const parts = marks.slice(1).map((to, k) => {
    const shape = shapeOf(i.attachments_xyz_m.slice(marks[k], to + 1));
    return { shape, ...pulled(shape, spanAt(shape, shape.length_m / 2)) };
  });
  const length = parts.reduce((sum, p) => sum + p.shape.length_m, 0);
  return {
    split_tension_mean_N: parts.reduce((sum, p) => sum + p.mean * p.shape.length_m, 0) / length,
    split_tension_min_N: Math.min(...parts.map((p) => p.least)),
    split_wound_total_m: parts.reduce((sum, p) => sum + p.wound_m, 0),
  };
}

function warmed(i: RunInputs, delta_theta_K: number, shape: Shape, T: Float64Array, at: number) {
  const change = {
    delta_theta_K,
    weight_N_per_m: i.wire_weight_N_per_m,
    EA_N: i.EA_N,
    alpha_per_K: i.alpha_per_K,
    ...(i.spring_N_per_m === undefined ? {} : { spring: { k_N_per_m: i.spring_N_per_m, at } }),
  };
  const slipped = slippedAfter(shape, T, alike(shape, i.mu, i.drag_N_per_post), change);
  return {
    tension_after_locked_N: [...lockedAfter(shape, T, change)],
    tension_after_slip_N: [...slipped],
    tension_after_slip_mean_N: meanOf(shape, slipped),
    tension_after_slip_min_N: leastOf(slipped),
  };
}
