/**
 * End assemblies as bars and hinges: posts hinged at the ground, rail, struts and wires carrying along their own axis
 * alone. Exact for that model [published: statics]; the ground's hold on a post makes some forces greater
 * (`frames.ts`), never trust these alone. Forces in N, lengths in m, moments in Nm.
 */
import { sum } from '../base/numbers.js';

/** What a fence pulls an end with: one height and one tension a strand. */
export interface Pulled {
  readonly strand_heights_m: readonly number[];
  readonly strand_tensions_N: readonly number[];
}

/** Pull of all strands, and its moment about the foot of the post. @throws RangeError unless each strand has both */
export function pullOf({ strand_heights_m: h, strand_tensions_N: T }: Pulled) {
  if (h.length !== T.length)
    throw new RangeError('strand_tensions_N: one for each of strand_heights_m is wanted');
  return {
    pull_total_N: sum(T),
    overturning_moment_Nm: sum(T.map((t, k) => t * h[k]!)),
  };
}

/** A rail between two posts, and a wire from the foot of the first to the top of the second. */
export interface HBrace extends Pulled {
  readonly rail_length_m: number;
  readonly rail_height_m: number;
  readonly wire_top_height_m: number;
  readonly wire_foot_height_m: number;
  readonly brace_wire_legs: number;
  readonly fence_height_m: number;
  /** How much higher the ground is at the brace post, m; the rail lies level all the same. */
  readonly rise_m?: number;
}

/** Rails of so many fence heights are what schools ask for. */
export const RAIL_SCHOOLS = [1.5, 2, 2.5] as const;

/**
 * A horizontal brace. The wire must run from the foot of the end post, the side that the fence pulls from, to the top
 * of the brace post: the other diagonal would go slack.
 * @throws RangeError where the wire's foot is as high as the rail, or the ground leaves the rail no post
 */
export function hBrace(i: HBrace) {
  const { pull_total_N: F, overturning_moment_Nm: M } = pullOf(i);
  const rise = i.rise_m ?? 0;
  const L = i.rail_length_m;
  const [onBrace, top] = [i.rail_height_m - rise, i.wire_top_height_m - rise];
  if (!(onBrace > 0 && top > 0))
    throw new RangeError('rise_m: the ground at the brace post is as high as its rail');
  // The brace post turns about its foot: rail and wire balance there. Then the end post.
  const lever = i.rail_height_m - (i.wire_foot_height_m * onBrace) / top;
  if (!(lever > 0)) throw new RangeError('wire_foot_height_m: must lie below the rail');
  const P = M / lever;
  const along = (P * onBrace) / top;
  const climb = (i.wire_top_height_m - i.wire_foot_height_m) / L;
  const angle = Math.atan(climb);
  const wire = along / Math.cos(angle);
  return {
    pull_total_N: F,
    overturning_moment_Nm: M,
    rail_compression_N: P,
    brace_wire_total_N: wire,
    brace_wire_leg_N: wire / i.brace_wire_legs,
    brace_wire_angle_deg: (angle * 180) / Math.PI,
    end_post_uplift_N: along * climb,
    brace_post_down_N: along * climb,
    end_post_ground_shear_N: F + along - P,
    brace_post_ground_shear_N: P - along,
    // Of both posts: where the wire leaves the rail's height, the brace post bends too.
    end_post_max_moment_Nm: Math.max(
      mostMoment([
        ...i.strand_heights_m.map((h, k) => [h, i.strand_tensions_N[k]!] as const),
        [i.rail_height_m, -P],
        [i.wire_foot_height_m, along],
      ]),
      mostMoment([
        [onBrace, P],
        [top, -along],
      ]),
    ),
    uplift_at_rail_1p5_2_2p5_fence_heights_N: RAIL_SCHOOLS.map((n) => M / (n * i.fence_height_m)),
  };
}

/** The greatest bending moment in a post from loads along it, above the ground, Nm. */
function mostMoment(loads: readonly (readonly [height_m: number, load_N: number])[]): number {
  const at = (z: number) => sum(loads.map(([h, f]) => (h > z ? f * (h - z) : 0)));
  return Math.max(...loads.map(([z]) => Math.abs(at(z))));
}

/** A strut from the top of the end post to the foot of a second one, and a wire along the ground between them. */
export interface NBrace extends Pulled {
  readonly rail_length_m: number;
  readonly strut_top_height_m: number;
  readonly strut_foot_height_m: number;
  readonly brace_wire_legs: number;
}

/** @throws RangeError where the strut's foot is no lower than its top */
export function nBrace(i: NBrace) {
  const { pull_total_N: F, overturning_moment_Nm: M } = pullOf(i);
  const drop = i.strut_top_height_m - i.strut_foot_height_m;
  if (!(drop > 0)) throw new RangeError('strut_foot_height_m: must lie below the strut’s top');
  const H = M / drop;
  return {
    pull_total_N: F,
    overturning_moment_Nm: M,
    strut_compression_N: H / Math.cos(Math.atan(drop / i.rail_length_m)),
    tie_wire_total_N: H,
    tie_wire_leg_N: H / i.brace_wire_legs,
    end_post_uplift_N: M / i.rail_length_m,
    brace_post_down_N: M / i.rail_length_m,
    end_post_ground_shear_N: F,
    brace_post_ground_shear_N: 0,
  };
}

/** A strut in the line of the fence, from the end post to a block or a driven picket. */
export interface DiagonalStay extends Pulled {
  readonly stay_height_m: number;
  readonly stay_foot_distance_m: number;
}

export function diagonalStay(i: DiagonalStay) {
  const { pull_total_N: F, overturning_moment_Nm: M } = pullOf(i);
  const angle = Math.atan(i.stay_height_m / i.stay_foot_distance_m);
  const H = M / i.stay_height_m;
  return {
    pull_total_N: F,
    overturning_moment_Nm: M,
    strut_compression_N: H / Math.cos(angle),
    strut_angle_deg: (angle * 180) / Math.PI,
    end_post_uplift_N: H * Math.tan(angle),
    foot_down_N: H * Math.tan(angle),
    foot_horizontal_N: H,
    end_post_ground_shear_N: F - H,
  };
}

/** A guy behind the end post to something buried. */
export interface TieBack extends Pulled {
  readonly guy_height_m: number;
  readonly guy_distance_m: number;
  readonly soil_phi_deg: number;
  readonly soil_gamma_kN_m3: number;
  readonly deadman_width_m: number;
  readonly deadman_top_depth_m: number;
  readonly deadman_bottom_depth_m: number;
  readonly deadman_length_m: number;
}

/** The buried log by Rankine's passive less active pressure on its face, and by the soil above it [published]. */
export function tieBack(i: TieBack) {
  const { pull_total_N: F, overturning_moment_Nm: M } = pullOf(i);
  const [top, bottom] = [i.deadman_top_depth_m, i.deadman_bottom_depth_m];
  if (!(bottom > top)) throw new RangeError('deadman_bottom_depth_m: must lie below its top');
  const H = M / i.guy_height_m;
  const steep = i.guy_height_m / i.guy_distance_m;
  const sin = Math.sin((i.soil_phi_deg * Math.PI) / 180);
  const passive = (1 + sin) / (1 - sin);
  const gamma = i.soil_gamma_kN_m3 * 1000;
  const V = H * steep;
  return {
    pull_total_N: F,
    overturning_moment_Nm: M,
    guy_tension_N: H * Math.hypot(1, steep),
    end_post_down_N: V,
    anchor_uplift_N: V,
    anchor_horizontal_N: H,
    end_post_ground_shear_N: F - H,
    deadman_horizontal_capacity_N:
      ((passive - 1 / passive) * gamma * (bottom ** 2 - top ** 2) * i.deadman_length_m) / 2,
    deadman_soil_weight_N: gamma * top * i.deadman_width_m * i.deadman_length_m,
  };
}
