/** Inductance and capacitance of tied wires over the ground, by the method of images. */
import { EPSILON0, MU0 } from '../base/numbers.js';
import { solveSpd } from '../base/spd.js';

export interface LineConstantsInputs {
  readonly wire_diameter_mm: number;
  /** Of the tied live wires over the ground, m. */
  readonly heights_m: readonly number[];
  /** Of wires at the soil's potential on the same posts, m. */
  readonly earth_heights_m?: readonly number[];
}

/**
 * Constants of a metre of tied wires over perfectly conducting ground: P q = 1 on the live ones and 0 on those
 * that are earthed, P_ij = ln(D'_ij/D_ij), S the sum of q over the live; l = mu0/(2 pi S), c = 2 pi eps0 S
 * [published: method of images, as in any text on transmission lines].
 * @throws RangeError for wires that touch one another or the ground
 */
export function lineConstants({
  wire_diameter_mm,
  heights_m,
  earth_heights_m = [],
}: LineConstantsInputs) {
  const a = wire_diameter_mm / 2000;
  const all = [...heights_m, ...earth_heights_m];
  if (heights_m.length === 0) throw new RangeError('heights_m: one live wire at least is wanted');
  if (!(a > 0) || all.some((h) => !(h > a)))
    throw new RangeError('heights_m: every wire must hang clear of the ground');
  all.forEach((h, i) =>
    all.slice(i + 1).forEach((other) => {
      if (Math.abs(other - h) < 2 * a) throw new RangeError('heights_m: two wires touch');
    }),
  );
  const P = all.map(
    (h, i) =>
    all.map((other, j) => (i === j ? Math.log((2 * h) / a) : Math.log((h + other) / Math.abs(h - other)))), // prettier-ignore
  );
  const q = solveSpd(P, [...heights_m.map(() => 1), ...earth_heights_m.map(() => 0)]);
  const live = q.slice(0, heights_m.length);
  const S = live.reduce((sum, v) => sum + v, 0);
  const l = MU0 / (2 * Math.PI * S);
  const c = 2 * Math.PI * EPSILON0 * S;
  return {
    l_external_h_per_m: l,
    c_f_per_m: c,
    z0_ohm: Math.sqrt(l / c),
    current_share: live.map((v) => v / S),
  };
}
