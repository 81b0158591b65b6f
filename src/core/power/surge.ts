/** What a front that is fast meets at the start of a fence, for the surge cap of the peak model. */
import { lineConstants } from '../pulse/lineConstants.js';

/**
 * Surge impedance, ohm, and speed, m/s, of tied strands with what soil and wire add.
 * @throws RangeError when two strands touch
 */
export function surge(
  heights_m: readonly number[],
  diameter_m: number,
  soil_H_per_m: number,
  internal_H_per_m: number,
) {
  const own = lineConstants({ wire_diameter_mm: diameter_m * 1000, heights_m });
  const l = own.l_external_h_per_m + soil_H_per_m + internal_H_per_m / heights_m.length;
  return { z_ohm: Math.sqrt(l / own.c_f_per_m), speed_m_per_s: 1 / Math.sqrt(l * own.c_f_per_m) };
}
