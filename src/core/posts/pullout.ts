/** What the ground gives against a post that is pulled upwards. */
import { figure, type Catalogue, type PostKind, type Soil } from '../plan/catalogue.js';
import { GRAVITY } from '../base/numbers.js';

/** Friction on a post's shaft: a part that is the same at every depth, and one that grows with it. */
export interface Shaft {
  readonly adhesion_Pa: number;
  /** K tan(delta) gamma. */
  readonly growth_N_per_m3: number;
}

export interface PullOutInputs extends Shaft {
  readonly perimeter_m: number;
  readonly depth_m: number;
  /** The topmost soil that counts for nothing. */
  readonly neglect_depth_m: number;
  readonly post_mass_kg: number;
  /** Share that the way of setting leaves: 1 driven. */
  readonly factor: number;
}

/**
 * Pull-out resistance of a post, N: shaft friction below the neglected top, times a factor for the way
 * it was set, plus the post's weight [form published; every soil figure is memory and judgement].
 */
export function pullOutForce(i: PullOutInputs): number {
  const top = Math.min(i.neglect_depth_m, i.depth_m);
  const shaft =
    i.adhesion_Pa * (i.depth_m - top) + (i.growth_N_per_m3 * (i.depth_m ** 2 - top ** 2)) / 2;
  return i.perimeter_m * shaft * i.factor + i.post_mass_kg * GRAVITY;
}

/** Pull-out resistance of a driven post of the catalogue in a soil of the catalogue, N. */
export function pullOut(kind: PostKind, soil: Soil, cat: Catalogue): number {
  return pullOutForce({
    perimeter_m: kind.perimeter_m,
    depth_m: kind.embedment_m,
    neglect_depth_m: figure(cat, 'posts.neglectDepth'),
    adhesion_Pa: soil.adhesion_Pa,
    growth_N_per_m3: soil.shaftGrowth_N_per_m3,
    post_mass_kg: kind.mass_kg,
    factor: 1,
  });
}

/**
 * Soils by name for the single calculator. Firm clay, loose sand and gravel are common values; the
 * others lie between or beyond them by judgement. Nothing here was measured.
 */
export const SHAFTS: Readonly<Record<string, Shaft>> = {
  soft_clay: { adhesion_Pa: 12_000, growth_N_per_m3: 0 },
  firm_clay: { adhesion_Pa: 24_000, growth_N_per_m3: 0 },
  stiff_clay: { adhesion_Pa: 36_000, growth_N_per_m3: 0 },
  loam: { adhesion_Pa: 12_000, growth_N_per_m3: 0 },
  loose_sand: { adhesion_Pa: 0, growth_N_per_m3: 4_480 },
  dense_sand: { adhesion_Pa: 0, growth_N_per_m3: 8_550 },
  gravel: { adhesion_Pa: 0, growth_N_per_m3: 10_450 },
};

/** Share of a driven post's friction by the way of setting, by judgement. */
export const SETTINGS: Readonly<Record<string, number>> = {
  driven: 1,
  tamped_hole: 0.6,
  concreted: 1,
};
