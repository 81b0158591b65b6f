/** What a gate weighs, needs for room, and does to the post on which it hangs. */
import { figure, recordOf, type Catalogue, type Soil } from '../plan/catalogue.js';
import type { Gate } from '../plan/schema.js';
import { gatePost } from './embedment.js';
import { widthOf } from './materials.js';
import type { Pulled } from './statics.js';

export interface GateFigures {
  /** Weight of one leaf, kg; between posts and of each leaf, m. */
  readonly leaf_kg: number;
  readonly opening_m: number;
  /** What its label says: without hinges and latch, or with them. */
  readonly leaf_m: number;
  readonly label_m: number;
  readonly hinges_m: number;
  /** Under and beside it, m. */
  readonly gap_m: number;
}

/**
 * A gate's measures. The opening is what stands between the posts; hinges and latch take their room from it.
 * @param small lambs, kids or what hunts them are there
 */
export function gateFigures(gate: Gate, small: boolean, cat: Catalogue): GateFigures {
  const leaves = gate.leaves ?? 1;
  const mass = gate.mass_kg ?? figure(cat, 'gate.massPerMetre') * gate.width_m;
  const room = figure(cat, 'gate.hingeRoom');
  const whole = gate.width_m / leaves;
  return {
    leaf_kg: mass / leaves,
    opening_m: gate.width_m,
    leaf_m: whole - room,
    label_m: gate.gross ? whole : whole - room,
    hinges_m: gate.hinges_m ?? figure(cat, 'gate.hingeSpacing'),
    gap_m: figure(cat, small ? 'gate.gapLambs' : 'gate.gapBelow'),
  };
}

/** Loads of one leaf with somebody on its tip, on a post in a soil. */
export const gateLoads = (
  of: GateFigures,
  pulled: Pulled,
  post: string,
  soil: Soil,
  cat: Catalogue,
) =>
  gatePost({
    ...pulled,
    gate_mass_kg: of.leaf_kg,
    gate_width_m: of.leaf_m,
    load_at_tip_kg: figure(cat, 'gate.tipLoad'),
    hinge_spacing_m: of.hinges_m,
    post_width_m: widthOf(recordOf(cat.posts, post)),
    lateral_bearing_kPa_per_m: soil.lateral_kPa_per_m,
    bearing_factor: figure(cat, 'ends.codeMoves'),
  });
