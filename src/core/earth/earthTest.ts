/** The earth test by its reading: what a probe in the soil shows while the fence is loaded. */
import { rodGroup, surfaceRise } from './rods.js';

export interface EarthTestInputs {
  readonly rods_m: readonly (readonly [x: number, y: number])[];
  readonly rod_length_m: number;
  readonly rod_diameter_m: number;
  readonly rho_dry_ohm_m: number;
  readonly rho_damp_ohm_m: number;
  /** How deep the driest month dries the soil, m. */
  readonly dry_depth_m: number;
  readonly probe_m: readonly [x: number, y: number];
  readonly current_a: number;
}

/**
 * Resistivity that a rod meets in soil of two layers, ohm m: the leakages of its two parts side by side
 * [derived; the depth of the dry layer is judgement].
 */
export function layered(length_m: number, dry: number, damp: number, dryDepth_m: number): number {
  const top = Math.min(length_m, dryDepth_m);
  return length_m / (top / dry + (length_m - top) / damp);
}

/**
 * Reading between the rods and a probe: I (R - sum of share_k rho/(2 pi L) asinh(L/d_k)), d_k from rod k to the
 * probe [derived from the uniform line source with its image]. The rise is against far soil, and larger.
 * @throws RangeError when the probe stands on a rod, or two rods in one place
 */
export function earthTest(i: EarthTestInputs) {
  const rho = layered(i.rod_length_m, i.rho_dry_ohm_m, i.rho_damp_ohm_m, i.dry_depth_m);
  const group = rodGroup({
    rho_ohm_m: rho,
    rod_length_m: i.rod_length_m,
    rod_diameter_m: i.rod_diameter_m,
    rods_xy_m: i.rods_m,
  });
  const R = group.r_group_ohm;
  const atProbe = i.rods_m.reduce((sum, [x, y], k) => {
    const d = Math.hypot(i.probe_m[0] - x, i.probe_m[1] - y);
    if (d < i.rod_diameter_m / 2) throw new RangeError('the probe stands on a rod');
    return sum + surfaceRise(rho, i.rod_length_m, group.current_share[k]!, d);
  }, 0);
  return {
    rho_ohm_m: rho,
    r_ohm: R,
    rise_v: i.current_a * R,
    reading_v: i.current_a * (R - atProbe),
  };
}
