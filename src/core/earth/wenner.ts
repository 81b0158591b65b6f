/**
 * Soil resistivity from four pins in line, equally spaced: 2 pi a R, and with the pins' depth
 * [published: Wenner 1915, IEEE Std 81].
 */
export function wenner(i: {
  readonly spacing_m: number;
  readonly r_measured_ohm: number;
  readonly probe_depth_m: number;
}) {
  const { spacing_m: a, r_measured_ohm: R, probe_depth_m: b } = i;
  const depth = 1 + (2 * a) / Math.sqrt(a * a + 4 * b * b) - a / Math.sqrt(a * a + b * b);
  return {
    rho_simple_ohm_m: 2 * Math.PI * a * R,
    rho_finite_depth_ohm_m: (4 * Math.PI * a * R) / depth,
  };
}
