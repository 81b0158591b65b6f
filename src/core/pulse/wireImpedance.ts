/** Resistance and inner inductance of a round steel wire with a zinc shell, with the skin effect. */
import { MU0 } from '../base/numbers.js';

/** Steps through the shell; the fields are smooth there. */
const SHELL_STEPS = 200;

export interface WireImpedanceInputs {
  readonly wire_diameter_mm: number;
  readonly zinc_thickness_um: number;
  readonly rho_steel_ohm_m: number;
  readonly mu_r_steel: number;
  readonly rho_zinc_ohm_m: number;
  readonly frequency_hz: number;
}

/** A complex number. */
type Z = readonly [re: number, im: number];
const add = (a: Z, b: Z): Z => [a[0] + b[0], a[1] + b[1]];
const times = (a: Z, b: Z): Z => [a[0] * b[0] - a[1] * b[1], a[0] * b[1] + a[1] * b[0]];
const scaled = (a: Z, k: number): Z => [a[0] * k, a[1] * k];
const over = (a: Z, b: Z): Z => {
  const d = b[0] * b[0] + b[1] * b[1];
  return [(a[0] * b[0] + a[1] * b[1]) / d, (a[1] * b[0] - a[0] * b[1]) / d];
};

/**
 * Inner impedance of the wire. Core: I1/I0 of the modified Bessel functions by Gauss's continued fraction; shell:
 * Maxwell's equations in the radius stepped through by Runge and Kutta's method [published: skin effect of round
 * conductors].
 * @throws RangeError when the shell is thicker than the wire
 */
export function wireImpedance(i: WireImpedanceInputs) {
  const a = i.wire_diameter_mm / 2000;
  const core = a - i.zinc_thickness_um * 1e-6;
  if (!(core > 0)) throw new RangeError('zinc_thickness_um: the zinc is thicker than the wire');
  const omega = 2 * Math.PI * i.frequency_hz;
  if (omega === 0) {
    const area = core * core * Math.PI;
    const shell = (a * a - core * core) * Math.PI;
    return { r_ohm_per_km: 1000 / (area / i.rho_steel_ohm_m + shell / i.rho_zinc_ohm_m) };
  }
  const mu = MU0 * i.mu_r_steel;
  // m = sqrt(j omega mu / rho), its real part positive.
  const size = Math.sqrt((omega * mu) / i.rho_steel_ohm_m);
  const m: Z = [size / Math.SQRT2, size / Math.SQRT2];
  // With E = 1 at the core's rim, H = m/(j omega mu) I1(m r)/I0(m r).
  const ratio = besselRatio(scaled(m, core));
  const atCore = over(times(m, ratio), [0, omega * mu]);
  // Outwards through the zinc: dE/dr = j omega mu0 H, d(rH)/dr = r E/rho.
  let E: Z = [1, 0];
  let rH: Z = scaled(atCore, core);
  const h = (a - core) / SHELL_STEPS;
  const slope = (r: number, e: Z, x: Z): [Z, Z] => [
    times([0, (omega * MU0) / r], x),
    scaled(e, r / i.rho_zinc_ohm_m),
  ];
  for (let k = 0, r = core; k < SHELL_STEPS && h > 0; k++, r += h) {
    const [e1, x1] = slope(r, E, rH);
    const [e2, x2] = slope(r + h / 2, add(E, scaled(e1, h / 2)), add(rH, scaled(x1, h / 2)));
    const [e3, x3] = slope(r + h / 2, add(E, scaled(e2, h / 2)), add(rH, scaled(x2, h / 2)));
    const [e4, x4] = slope(r + h, add(E, scaled(e3, h)), add(rH, scaled(x3, h)));
    E = add(E, scaled(add(add(e1, e4), scaled(add(e2, e3), 2)), h / 6));
    rH = add(rH, scaled(add(add(x1, x4), scaled(add(x2, x3), 2)), h / 6));
  }
  const inner = over(E, scaled(rH, 2 * Math.PI));
  return { r_ohm_per_km: inner[0] * 1000, l_internal_uh_per_m: (inner[1] / omega) * 1e6 };
}

/** I1(z)/I0(z) by Gauss's continued fraction z/(2 + z²/(4 + z²/(6 + …))), from far inside outwards. */
function besselRatio(z: Z): Z {
  const square = times(z, z);
  const terms = Math.ceil(Math.hypot(...z)) + 40;
  let tail: Z = [2 * terms, 0];
  for (let n = terms - 1; n >= 1; n--) tail = add([2 * n, 0], over(square, tail));
  return over(z, tail);
}
