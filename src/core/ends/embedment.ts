/** How deep a post must stand against a pull from the side, and what the ground gives at most. */
import { bisect, GRAVITY } from '../base/numbers.js';
import { pullOf, type Pulled } from './statics.js';

export interface Pole {
  readonly lateral_load_N: number;
  /** Above the ground, m. */
  readonly load_height_m: number;
  readonly post_width_m: number;
  /** What the code allows for each metre of depth, kPa/m. */
  readonly lateral_bearing_kPa_per_m: number;
  /** 2 where the post may move half an inch at the ground, else 1. */
  readonly bearing_factor: number;
}

/**
 * Depth of a post that nothing holds at the ground, m: d = (A/2)(1 + sqrt(1 + 4.36 h/A)), A = 2.34 P/(S1 b), S1 the
 * bearing allowed at a third of the depth [published: International Building Code 1807.3.2.1, from memory]. Meant for
 * loads that stay for years: with a good margin on what the ground gives at most.
 */
export function poleEmbedment(i: Pole) {
  const { depth_m, S1_Pa, A_m } = depthFor(i, i.lateral_load_N * i.load_height_m);
  return { depth_m, S1_kPa: S1_Pa / 1000, A_m };
}

function depthFor(i: Omit<Pole, 'load_height_m'>, moment_Nm: number) {
  const at = (depth_m: number) => {
    const S1_Pa = (i.lateral_bearing_kPa_per_m * 1000 * i.bearing_factor * depth_m) / 3;
    const unit = 2.34 / (S1_Pa * i.post_width_m);
    const A_m = unit * i.lateral_load_N;
    // A h = unit x moment: a couple alone has no load and no height.
    const depth = (A_m + Math.sqrt(A_m * A_m + 4.36 * unit * moment_Nm)) / 2;
    return { depth, S1_Pa, A_m };
  };
  const depth_m = bisect((d) => d - at(d).depth, 1e-4, 1e3, 1e-13);
  return { depth_m, ...at(depth_m) };
}

export interface GatePost extends Pulled {
  readonly gate_mass_kg: number;
  readonly gate_width_m: number;
  /** Somebody who stands on the tip. */
  readonly load_at_tip_kg: number;
  readonly hinge_spacing_m: number;
  readonly post_width_m: number;
  readonly lateral_bearing_kPa_per_m: number;
  readonly bearing_factor: number;
}

/**
 * What a gate does to its post, closed and open at a right angle to the fence, and the depth without any brace. Closed,
 * the gate leans the other way than the fence pulls; open, both moments add as the sides of a right angle.
 */
export function gatePost(i: GatePost) {
  const { pull_total_N, overturning_moment_Nm } = pullOf(i);
  const gate =
    GRAVITY * (i.gate_mass_kg * (i.gate_width_m / 2) + i.load_at_tip_kg * i.gate_width_m);
  const open = Math.hypot(gate, overturning_moment_Nm);
  const depth = (lateral_load_N: number, moment: number) =>
    moment === 0 ? 0 : depthFor({ ...i, lateral_load_N }, moment).depth_m;
  return {
    gate_moment_Nm: gate,
    hinge_horizontal_force_N: gate / i.hinge_spacing_m,
    post_vertical_load_N: GRAVITY * (i.gate_mass_kg + i.load_at_tip_kg),
    fence_pull_N: pull_total_N,
    fence_moment_Nm: overturning_moment_Nm,
    depth_gate_only_m: depth(0, gate),
    depth_fence_only_m: depth(pull_total_N, overturning_moment_Nm),
    moment_open_90deg_Nm: open,
    depth_open_90deg_m: depth(pull_total_N, open),
  };
}

/** What the ground is made of, for a post that is pushed sideways. */
export interface SideSoil {
  /** Undrained strength of clay, Pa; 0 where friction holds. */
  readonly su_Pa: number;
  /** Angle of friction, degrees; 0 in clay. */
  readonly phi_deg: number;
  readonly gamma_N_per_m3: number;
}

export interface Foot {
  readonly depth_m: number;
  readonly width_m: number;
  /** The pull's height above the ground, m: pull and moment as one force. */
  readonly load_height_m: number;
  /** A brace keeps the post upright: its foot can only be pushed through the ground. */
  readonly upright: boolean;
}

/**
 * The most that the ground gives against a short stiff post that is pushed sideways, N [published: Broms 1964, from
 * memory]. Clay: 9 su b below one and a half widths. Sand: 3 Kp gamma z b. An upright foot is pushed through the
 * ground whole; a free one turns about a point in it and gives far less.
 */
export function sideHold(
  soil: SideSoil,
  { depth_m: L, width_m: b, load_height_m: e, upright }: Foot,
): number {
  if (soil.su_Pa > 0) {
    const cover = Math.min(1.5 * b, L / 2);
    const q = 9 * soil.su_Pa * b;
    if (upright) return q * (L - cover);
    // Moments about the turning point: H = q(2 x - (L - cover)), with x where they balance.
    const arm = e + cover;
    const free = L - cover;
    return q * (Math.sqrt((2 * arm + free) ** 2 + free ** 2) - (2 * arm + free));
  }
  const sin = Math.sin((soil.phi_deg * Math.PI) / 180);
  const Kp = (1 + sin) / (1 - sin);
  const whole = 1.5 * soil.gamma_N_per_m3 * b * L * L * Kp;
  return upright ? whole : (whole * L) / (3 * (e + L));
}
