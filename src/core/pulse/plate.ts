/** The secondary circuit behind an energiser's plate. */
import { leastSquares } from '../base/leastSquares.js';
import type { PulseSource } from './source.js';

/** What a plate says; what it does not say is left out. */
export interface Plate {
  readonly stored_j: number;
  readonly v_open_v: number;
  readonly output_into_500_ohm_j?: number;
  readonly v_500_ohm_v?: number;
  readonly v_200_ohm_v?: number;
  readonly v_100_ohm_v?: number;
  readonly v_50_ohm_v?: number;
  /** When the peak comes into 500 ohm, s. */
  readonly rise_500_ohm_s?: number;
}

const LOADS = [
  ['v_500_ohm_v', 500],
  ['v_200_ohm_v', 200],
  ['v_100_ohm_v', 100],
  ['v_50_ohm_v', 50],
] as const;

/** Peak into a resistance, when it comes, and the energy until the current ends. */
export interface Into {
  readonly peak_V: number;
  readonly peak_s: number;
  readonly energy_J: number;
}

/**
 * A unit's discharge into a resistance in closed form: two states, the capacitor's volts and the current of the
 * windings; the switch opens when the current would turn round.
 */
export function into(source: PulseSource, r_ohm: number): Into {
  const { at, peak_s, end_s } = discharge(source, r_ohm);
  return { peak_V: r_ohm * at(peak_s), peak_s, energy_J: r_ohm * squared(at, end_s, peak_s) };
}

/** As `into`, without the energy, which is most of the work. */
export function peakInto(source: PulseSource, r_ohm: number): Omit<Into, 'energy_J'> {
  const { at, peak_s } = discharge(source, r_ohm);
  return { peak_V: r_ohm * at(peak_s), peak_s };
}

/** Amperes over time, when they are most and when they end. */
function discharge(source: PulseSource, r_ohm: number) {
  const { c_eq_f: C, n_v0_v: V0, r_s_ohm, l_s_h: L, r_d_ohm } = source;
  const r = r_s_ohm + r_ohm;
  const gd = r_d_ohm ? 1 / r_d_ohm : 0;
  const K = 1 + r * gd;
  // i = (iL + gd vC)/K; dvC/dt = -i/C; diL/dt = (vC - r iL)/(K L).
  const trace = -gd / (C * K) - r / (K * L);
  const det = 1 / (C * L * K);
  const i0 = (gd * V0) / K;
  const di0 = (V0 / (K * L) + gd * (-i0 / C)) / K;
  const spread = (trace * trace) / 4 - det;
  const middle = trace / 2;
  const root = Math.sqrt(Math.abs(spread));
  const slow = Math.abs(spread) < 1e-9 * det;
  // i(t) = exp(middle t) (i0 f(t) + (di0 - middle i0) g(t)); f and g circular or hyperbolic.
  const b = di0 - middle * i0;
  const at = (t: number): number => {
    const e = Math.exp(middle * t);
    if (slow) return e * (i0 + b * t);
    if (spread < 0) return e * (i0 * Math.cos(root * t) + (b / root) * Math.sin(root * t));
    const [p, q] = [Math.exp((middle + root) * t), Math.exp((middle - root) * t)];
    return (i0 * (p + q)) / 2 + ((b / root) * (p - q)) / 2;
  };
  const peak_s = peakOf(i0, b, middle, root, slow ? 0 : Math.sign(spread));
  const end_s = spread < 0 && !slow ? zeroOf(i0, b, root) : 40 / Math.abs(middle + (spread > 0 ? root : 0)); // prettier-ignore
  return { at, peak_s, end_s };
}

/** Where the slope of the current is nothing for the first time. */
function peakOf(i0: number, b: number, middle: number, root: number, kind: number): number {
  // d/dt: (middle i0 + b) f + (middle b/root + kind i0 root) root g/root …
  const slope0 = middle * i0 + b;
  if (slope0 <= 0) return 0;
  if (kind === 0) return middle === 0 ? Infinity : -slope0 / (middle * b);
  const other = middle * (b / root) + kind * i0 * root;
  if (kind < 0) {
    const angle = Math.atan2(-slope0, other);
    return (angle < 0 ? angle + Math.PI : angle) / root;
  }
  const ratio = -slope0 / other;
  return Math.abs(ratio) >= 1 ? 0 : Math.atanh(ratio) / root;
}

/** Where a swinging current passes nothing for the first time. */
function zeroOf(i0: number, b: number, root: number): number {
  const angle = Math.atan2(-i0, b / root);
  return (angle <= 0 ? angle + Math.PI : angle) / root;
}

/** Integral of the current squared by Simpson's rule, finely about the rise. */
function squared(at: (t: number) => number, end: number, rise: number): number {
  const first = Math.min(end, Math.max(rise * 4, end / 1000));
  const simpson = (a: number, b: number, n: number) => {
    const h = (b - a) / n;
    let sum = at(a) ** 2 + at(b) ** 2;
    for (let k = 1; k < n; k++) sum += (k % 2 ? 4 : 2) * at(a + k * h) ** 2;
    return (sum * h) / 3;
  };
  return simpson(0, first, 200) + (end > first ? simpson(first, end, 800) : 0);
}

/** What a circuit would have on its plate. */
export const plateOf = (source: PulseSource): Required<Plate> => {
  const five = into(source, 500);
  return {
    stored_j: (source.c_eq_f * source.n_v0_v ** 2) / 2,
    v_open_v: source.n_v0_v,
    output_into_500_ohm_j: five.energy_J,
    v_500_ohm_v: five.peak_V,
    v_200_ohm_v: into(source, 200).peak_V,
    v_100_ohm_v: into(source, 100).peak_V,
    v_50_ohm_v: into(source, 50).peak_V,
    rise_500_ohm_s: five.peak_s,
  };
};

export interface PlateFit extends PulseSource {
  readonly chi2: number;
  readonly predicted: Partial<Plate>;
}

export interface EnergiserFitInputs extends Plate {
  readonly sigma_rel: Readonly<Partial<Record<keyof Plate, number>>>;
  readonly stored_energy_is_upper_bound?: boolean;
  readonly bounds: Readonly<
    Record<'c_eq_f' | 'n_v0_v' | 'r_s_ohm' | 'l_s_h', readonly [number, number]>
  >;
}

/** Where the fit begins: as many times the plate's own capacitance, and so much inductance, H. */
const STARTS: readonly (readonly [times: number, r_s_ohm: number, l_s_h: number])[] = [
  [1, 50, 1e-3],
  [1, 150, 3e-4],
  [0.7, 30, 1e-4],
  [0.5, 100, 2e-3],
];

/** The best circuit of those that the starts lead to. */
function best(
  plate: Plate,
  bounds: EnergiserFitInputs['bounds'],
  lossy: boolean,
  misfit: (source: PulseSource) => number[],
): PulseSource & { chi2: number } {
  const sourceOf = (x: readonly number[]): PulseSource => {
    const [c_eq_f, n_v0_v, r_s_ohm, l_s_h] = x.map(Math.exp) as [number, number, number, number];
    return { c_eq_f, n_v0_v, r_s_ohm, l_s_h, ...(lossy ? { r_d_ohm: dampingOf(l_s_h, c_eq_f) } : {}) }; // prettier-ignore
  };
  const box = [bounds.c_eq_f, bounds.n_v0_v, bounds.r_s_ohm, bounds.l_s_h].map(
    ([low, high]) => [Math.log(low), Math.log(high)] as const,
  );
  const own = (2 * plate.stored_j) / plate.v_open_v ** 2;
  return STARTS.map(([times, r, l]) =>
    leastSquares(
      (x) => misfit(sourceOf(x)),
      [times * own, plate.v_open_v, r, l].map(Math.log),
      box,
    ),
  )
    .map(({ x, chi2 }) => ({ ...sourceOf(x), chi2 }))
    .reduce((a, b) => (b.chi2 < a.chi2 ? b : a));
}

/** What windings and core lose: about 10 % overshoot into a capacitor as large as the unit's own [assumed]. */
export const dampingOf = (l_s_h: number, c_eq_f: number): number =>
  1.7 * Math.sqrt((2 * l_s_h) / c_eq_f);

const off = (model: number, plate: number, sigma: number): number =>
  Math.log(model / plate) / sigma;

/**
 * The circuit without losses of the windings that comes nearest to a plate, with the spreads that are given.
 * The stored energy counts as an upper bound where that is said.
 */
export function energiserFit(i: EnergiserFitInputs) {
  const has = (key: keyof Plate) => i.sigma_rel[key] !== undefined && i[key] !== undefined;
  const fit = best(i, i.bounds, false, (s) => {
    const five = into(s, 500);
    const out: number[] = [];
    const put = (key: keyof Plate, model: number) => {
      if (has(key)) out.push(off(model, i[key]!, i.sigma_rel[key]!));
    };
    put('output_into_500_ohm_j', five.energy_J);
    put('v_open_v', s.n_v0_v);
    for (const [key, r] of LOADS)
      if (has(key)) put(key, r === 500 ? five.peak_V : peakInto(s, r).peak_V);
    const stored = (s.c_eq_f * s.n_v0_v ** 2) / 2;
    if (has('stored_j')) {
      const over = off(stored, i.stored_j, i.sigma_rel.stored_j!);
      out.push(i.stored_energy_is_upper_bound ? Math.max(0, over) : over);
    }
    return out;
  });
  const all = plateOf(fit);
  return {
    ...fit,
    predicted: Object.fromEntries(
      (Object.keys(all) as (keyof Plate)[])
        .filter((k) => i[k] !== undefined)
        .map((k) => [k, all[k]]),
    ),
    load_line: Object.fromEntries(
      [50, 100, 200, 500, 1000, 2000, 5000, 10_000].map((r) => [
        `v_${r}_ohm_v`,
        into(fit, r).peak_V,
      ]),
    ),
  };
}

/** How well a plate is known, as a share, for a property. */
const SIGMA = { volts: 0.01, stored: 0.02, rise: 0.3 } as const;
/** When the peak comes into 500 ohm where nobody has measured it, s [assumed: 5 to 20 microseconds]. */
const RISE = 1e-5;
const WIDE: EnergiserFitInputs['bounds'] = {
  c_eq_f: [1e-9, 1e-4],
  n_v0_v: [500, 30_000],
  r_s_ohm: [0.1, 5000],
  l_s_h: [1e-5, 1],
};

/** A plate further off than this belongs to no circuit of this kind: its owner is asked. */
export const MOST_CHI2 = 10;

/** The circuit of a unit on a property: lossy windings, and the time of its peak one datum more. */
export function energiserModel(plate: Plate): PlateFit {
  const known = LOADS.filter(([key]) => plate[key] !== undefined);
  const fit = best(plate, WIDE, true, (s) => {
    const five = peakInto(s, 500);
    return [
      off(s.n_v0_v, plate.v_open_v, SIGMA.volts),
      off((s.c_eq_f * s.n_v0_v ** 2) / 2, plate.stored_j, SIGMA.stored),
      off(five.peak_s || 1e-9, plate.rise_500_ohm_s ?? RISE, SIGMA.rise),
      ...known.map(([key, r]) => off(peakInto(s, r).peak_V, plate[key]!, SIGMA.volts)),
    ];
  });
  const all = plateOf(fit);
  const keys = ['v_open_v', 'stored_j', ...known.map(([key]) => key)] as const;
  return { ...fit, predicted: Object.fromEntries(keys.map((k) => [k, all[k]])) };
}
