/** Line constants by the method of images, and the surge cap of the peak model. */
import { EPSILON0, MU0 } from '../base/numbers.js';

/**
 * Inductance and capacitance per metre of strands tied together over conducting ground:
 * P_ij = ln(D'_ij/D_ij), self 2h/a, S = sum(P^-1 1), l = mu0/(2 pi S), c = 2 pi eps0 S
 * [published: method of images].
 * @param heights_m strand heights, m
 * @throws RangeError when two strands share one height
 */
export function lineConstants(heights_m: readonly number[], diameter_m: number) {
  const n = heights_m.length;
  const a = diameter_m / 2;
  const P = heights_m.map((hi, i) =>
    heights_m.map((hj, j) =>
      i === j ? Math.log((2 * hi) / a) : Math.log((hi + hj) / Math.abs(hi - hj)),
    ),
  );
  const y = gauss(P, new Array<number>(n).fill(1));
  const S = y.reduce((p, q) => p + q, 0);
  return { l_H_per_m: MU0 / (2 * Math.PI * S), c_F_per_m: 2 * Math.PI * EPSILON0 * S };
}

function gauss(matrix: readonly (readonly number[])[], rhs: readonly number[]): number[] {
  const m = matrix.map((row, i) => [...row, rhs[i]!]);
  const n = rhs.length;
  for (let k = 0; k < n; k++) {
    let best = k;
    for (let i = k + 1; i < n; i++) if (Math.abs(m[i]![k]!) > Math.abs(m[best]![k]!)) best = i;
    [m[k], m[best]] = [m[best]!, m[k]!];
    if (!Number.isFinite(m[k]![k]!) || m[k]![k] === 0)
      throw new RangeError('two strands share one height');
    for (let i = 0; i < n; i++) {
      if (i === k) continue;
      const f = m[i]![k]! / m[k]![k]!;
      for (let j = k; j <= n; j++) m[i]![j]! -= f * m[k]![j]!;
    }
  }
  return m.map((row, i) => row[n]! / row[i]!);
}

/** Surge impedance, ohm, and speed, m/s, of tied strands with what soil and wire add. */
export function surge(
  heights_m: readonly number[],
  diameter_m: number,
  soil_H_per_m: number,
  internal_H_per_m: number,
) {
  const { l_H_per_m, c_F_per_m } = lineConstants(heights_m, diameter_m);
  const l = l_H_per_m + soil_H_per_m + internal_H_per_m / heights_m.length;
  return { z_ohm: Math.sqrt(l / c_F_per_m), speed_m_per_s: 1 / Math.sqrt(l * c_F_per_m) };
}
