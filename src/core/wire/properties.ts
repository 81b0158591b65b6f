/** What one wire is: section, weight, stiffness, strength. */
import { GRAVITY } from '../base/numbers.js';

const PSI_PA = 6894.757293168361;
const LBF_N = 4.4482216152605;

export interface WireInputs {
  readonly diameter_mm: number;
  readonly tensile_MPa?: number;
  readonly tensile_ksi?: number;
  readonly density_kg_m3: number;
  readonly E_GPa: number;
  readonly alpha_per_K: number;
  readonly joint_efficiency: number;
  readonly coil_m: number;
}

/**
 * Section, mass, weight, axial stiffness and break load of a round wire.
 * Plain strength of materials; units in the keys.
 */
export function wireProperties(w: WireInputs) {
  const section_m2 = (Math.PI / 4) * (w.diameter_mm * 1e-3) ** 2;
  const strength_Pa =
    w.tensile_MPa !== undefined ? w.tensile_MPa * 1e6 : (w.tensile_ksi ?? 0) * 1000 * PSI_PA;
  const mass = section_m2 * w.density_kg_m3;
  const EA = w.E_GPa * 1e9 * section_m2;
  const break_N = strength_Pa * section_m2;
  return {
    section_mm2: section_m2 * 1e6,
    mass_kg_per_m: mass,
    weight_N_per_m: mass * GRAVITY,
    coil_mass_kg: mass * w.coil_m,
    EA_N: EA,
    alpha_EA_N_per_K: EA * w.alpha_per_K,
    break_N,
    break_kgf: break_N / GRAVITY,
    break_lbf: break_N / LBF_N,
    joint_break_N: break_N * w.joint_efficiency,
  };
}
