/**
 * One end assembly under its pull: what its parts carry, once with posts hinged at the ground and once with posts that
 * stand in it. The greater of the two decides each part.
 */
import { recordOf, figure, type Catalogue, type Soil } from '../plan/catalogue.js';
import type { Assembly } from '../plan/schema.js';
import { wireOf } from '../wire/wires.js';
import { usual } from '../plan/catalogue.js';
import { braceFrame, doubleH, standing, type Bar, type Bedded, type Upright } from './frames.js';
import { beamOf, railOf } from './materials.js';
import { diagonalStay, hBrace, nBrace, pullOf, tieBack, type Pulled } from './statics.js';

/** An assembly with all its measures. */
export interface Built {
  readonly kind: Assembly['kind'];
  /** Length of the rail, of the way to the foot of a stay, or from the guy to the post, m. */
  readonly rail_m: number;
  readonly railHeight_m: number;
  /** Ground at the second post over that at the first, m. */
  readonly rise_m: number;
  readonly foot: 'post' | 'block';
  readonly wire: 'end' | 'brace' | 'both';
  /** Kinds of the end post and of the second one. */
  readonly post: string;
  readonly second: string | null;
  readonly depth_m: number;
  /** Both ends of a short run press on the same rail, from either side. */
  readonly shared?: boolean;
}

/** What the parts carry, N; the end post lifts where `lift_N` is positive. */
export interface Carried {
  readonly rail_N: number;
  /** Of the brace wire, the tie along the ground, or the guy. */
  readonly wire_N: number;
  readonly leg_N: number;
  readonly lift_N: number;
  /** What presses the second post, or the foot of a stay, down. */
  readonly secondDown_N: number;
  readonly foot_N: number;
  readonly secondFoot_N: number;
  readonly moment_Nm: number;
}

export interface Both {
  readonly hinged: Carried | null;
  readonly embedded: Carried;
}

/** Measures of a brace wire, m and count. */
const footOf = (cat: Catalogue) => figure(cat, 'ends.wireFoot');

/**
 * The rail lies level; where the ground of the second post leaves it no room it goes with the ground, and is reckoned
 * at the steepest that stays level.
 */
export function levelRise(b: Pick<Built, 'railHeight_m' | 'rise_m'>): number {
  const most = b.railHeight_m - LEAST_RAIL;
  return Math.max(-LEAST_RAIL, Math.min(most, b.rise_m));
}
/** A rail meets its post no lower than this, m. */
const LEAST_RAIL = 0.45;

/** @throws RangeError for measures that no assembly has */
export function carriedBy(b: Built, pulled: Pulled, soil: Soil, cat: Catalogue): Both {
  const post = beamOf(recordOf(cat.posts, b.post), cat);
  const legs = Math.max(1, Math.round(figure(cat, 'ends.legs')));
  const leg_EA = wireOf(usual('wire'), cat).EA_N;
  const rail_EA = railOf(b.rail_m, cat).EA_N;
  const foot = footOf(cat);
  const rise = levelRise(b);
  const bed: Bedded = {
    embed_depth_m: b.depth_m,
    nh_N_per_m3: soil.nh_N_per_m3,
    k0_N_per_m2: soil.k0_N_per_m2,
    vertical_spring_N_per_m: figure(cat, 'ends.vertical') * 1e6,
    embed_node_spacing_m: b.depth_m / NODES,
  };
  const { pull_total_N: F } = pullOf(pulled);
  // The pull follows the ground: up a slope it lifts the end post too.
  const up = (F * b.rise_m) / Math.hypot(b.rail_m, b.rise_m);
  const own: Upright = { x_m: 0, base_m: 0, EA_N: post.EA_N, EI_Nm2: post.EI_Nm2, bed };
  if (b.shared) return pressed(b, pulled, own, up, rail_EA);
  switch (b.kind) {
    case 'h':
    case 'double-h': {
      const i = {
        ...pulled,
        rail_length_m: b.rail_m,
        rail_height_m: b.railHeight_m,
        wire_top_height_m: b.railHeight_m,
        wire_foot_height_m: foot,
        brace_wire_legs: legs,
        fence_height_m: 1,
        // Two bays climb twice as far: no rail leaves its post.
        rise_m: b.kind === 'h' ? rise : Math.min(rise, (b.railHeight_m - LEAST_RAIL) / 2),
        post_EA_N: post.EA_N,
        post_EI_Nm2: post.EI_Nm2,
        rail_EA_N: rail_EA,
        brace_leg_EA_N: leg_EA,
      };
      const bays = b.kind === 'h' ? 1 : 2;
      const frame = (f: ReturnType<typeof braceFrame>): Carried => ({
        rail_N: Math.max(...f.rail_N),
        wire_N: Math.max(...f.wire_N),
        leg_N: Math.max(...f.brace_wire_leg_N),
        lift_N: up - f.ground_vertical_N[0]!,
        secondDown_N: f.ground_vertical_N.at(-1)!,
        foot_N: Math.abs(f.ground_horizontal_N[0]!),
        secondFoot_N: Math.max(...f.ground_horizontal_N.slice(1).map(Math.abs)),
        moment_Nm: f.max_moment_Nm,
      });
      const embedded = frame(braceFrame(i, bays, bed));
      if (bays === 2) return { hinged: frame(doubleH(i)), embedded };
      const h = hBrace(i);
      return {
        hinged: {
          rail_N: h.rail_compression_N,
          wire_N: h.brace_wire_total_N,
          leg_N: h.brace_wire_leg_N,
          lift_N: up + h.end_post_uplift_N,
          secondDown_N: h.brace_post_down_N,
          foot_N: Math.abs(h.end_post_ground_shear_N),
          secondFoot_N: Math.abs(h.brace_post_ground_shear_N),
          moment_Nm: h.end_post_max_moment_Nm,
        },
        embedded,
      };
    }
    case 'n': {
      const h = nBrace({
        ...pulled,
        rail_length_m: b.rail_m,
        strut_top_height_m: b.railHeight_m,
        strut_foot_height_m: foot,
        brace_wire_legs: legs,
      });
      const two: Upright = { ...own, x_m: b.rail_m, base_m: rise };
      const bars: Bar[] = [
        { from: [0, b.railHeight_m], to: [1, foot], EA_N: rail_EA },
        { from: [0, foot], to: [1, foot], EA_N: leg_EA * legs },
      ];
      const f = standing([own, two], bars, pulled);
      return {
        hinged: {
          rail_N: h.strut_compression_N,
          wire_N: h.tie_wire_total_N,
          leg_N: h.tie_wire_leg_N,
          lift_N: up + h.end_post_uplift_N,
          secondDown_N: h.brace_post_down_N,
          foot_N: h.end_post_ground_shear_N,
          secondFoot_N: h.brace_post_ground_shear_N,
          moment_Nm: 0,
        },
        embedded: ofFrame(f, legs, up),
      };
    }
    case 'stay':
    case 'concreted': {
      const h = diagonalStay({
        ...pulled,
        stay_height_m: b.railHeight_m,
        stay_foot_distance_m: b.rail_m,
      });
      const two: Upright =
        b.foot === 'post' && b.kind === 'stay' && b.second
          ? { ...own, ...beamOf(recordOf(cat.posts, b.second), cat), x_m: b.rail_m, base_m: rise }
          : { x_m: b.rail_m, base_m: rise, EA_N: post.EA_N, EI_Nm2: post.EI_Nm2 };
      const f = standing([own, two], [{ from: [0, b.railHeight_m], to: [1, 0], EA_N: rail_EA }], pulled); // prettier-ignore
      return {
        hinged: {
          rail_N: h.strut_compression_N,
          wire_N: 0,
          leg_N: 0,
          lift_N: up + h.end_post_uplift_N,
          secondDown_N: h.foot_down_N,
          foot_N: Math.abs(h.end_post_ground_shear_N),
          secondFoot_N: h.foot_horizontal_N,
          moment_Nm: 0,
        },
        embedded: ofFrame(f, 0, up),
      };
    }
    case 'tie-back': {
      const h = tieBackOf(b, pulled, soil, cat);
      const behind: Upright = { x_m: -b.rail_m, base_m: 0, EA_N: post.EA_N, EI_Nm2: post.EI_Nm2 };
      const guy: Bar = { from: [0, b.railHeight_m], to: [1, 0], EA_N: leg_EA * legs };
      const f = standing([own, behind], [guy], pulled);
      return {
        hinged: {
          rail_N: 0,
          wire_N: h.guy_tension_N,
          leg_N: h.guy_tension_N / legs,
          lift_N: up - h.end_post_down_N,
          secondDown_N: -h.anchor_uplift_N,
          foot_N: Math.abs(h.end_post_ground_shear_N),
          secondFoot_N: h.anchor_horizontal_N,
          moment_Nm: 0,
        },
        embedded: { ...ofFrame(f, 0, up), rail_N: 0, wire_N: f.bars_N[0]!, leg_N: f.bars_N[0]! / legs }, // prettier-ignore
      };
    }
    case 'post': {
      const f = standing([own], [], pulled);
      const nothing = { rail_N: 0, wire_N: 0, leg_N: 0, secondDown_N: 0, secondFoot_N: 0 };
      // Only the ground's hold keeps it from falling over: hinged it does not stand at all.
      return { hinged: null, embedded: { ...nothing, lift_N: up, foot_N: F, moment_Nm: f.max_moment_Nm } }; // prettier-ignore
    }
  }
}
/**
 * Two ends that face one another over a rail: what one presses the other gives back, so that nothing lifts and the
 * diagonals rest. The middle of the rail does not move.
 */
function pressed(b: Built, pulled: Pulled, own: Upright, up: number, EA_N: number): Both {
  const { pull_total_N: F, overturning_moment_Nm: M } = pullOf(pulled);
  const rail_N = M / b.railHeight_m;
  const nothing = { wire_N: 0, leg_N: 0, lift_N: up, secondDown_N: 0, secondFoot_N: 0 };
  const { EA_N: post_EA, EI_Nm2 } = own;
  const still: Upright = { x_m: b.rail_m / 2, base_m: b.railHeight_m, EA_N: post_EA, EI_Nm2 };
  const f = standing([own, still], [{ from: [0, b.railHeight_m], to: [1, 0], EA_N }], pulled);
  return {
    hinged: { ...nothing, rail_N, foot_N: Math.abs(F - rail_N), moment_Nm: 0 },
    embedded: {
      ...nothing,
      rail_N: Math.max(0, -f.bars_N[0]!),
      foot_N: Math.abs(f.ground_horizontal_N[0]!),
      moment_Nm: f.max_moment_Nm,
    },
  };
}

/** Nodes of a post below the ground; twice as many change no figure by 1 %. */
const NODES = 14;

const ofFrame = (f: ReturnType<typeof standing>, legs: number, up: number): Carried => ({
  rail_N: Math.max(0, -f.bars_N[0]!),
  wire_N: legs > 0 ? Math.max(0, f.bars_N[1]!) : 0,
  leg_N: legs > 0 ? Math.max(0, f.bars_N[1]!) / legs : 0,
  lift_N: up - f.ground_vertical_N[0]!,
  secondDown_N: f.ground_vertical_N[1]!,
  foot_N: Math.abs(f.ground_horizontal_N[0]!),
  secondFoot_N: Math.abs(f.ground_horizontal_N[1]!),
  moment_Nm: f.max_moment_Nm,
});

/** A tie-back with the usual log in a soil. */
export const tieBackOf = (
  b: Pick<Built, 'railHeight_m' | 'rail_m'>,
  pulled: Pulled,
  soil: Soil,
  cat: Catalogue,
) =>
  tieBack({
    ...pulled,
    guy_height_m: b.railHeight_m,
    guy_distance_m: b.rail_m,
    soil_phi_deg: soil.phi_deg,
    soil_gamma_kN_m3: soil.gamma_N_per_m3 / 1000,
    deadman_width_m: figure(cat, 'ends.logWidth'),
    deadman_top_depth_m: figure(cat, 'ends.logTop'),
    deadman_bottom_depth_m: figure(cat, 'ends.logTop') + figure(cat, 'ends.logWidth'),
    deadman_length_m: figure(cat, 'ends.logLength'),
  });
