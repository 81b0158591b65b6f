/** A strand pulled or struck at mid-bay: what it gives, and what tension that tells. */
import { risingRoot } from '../base/numbers.js';

export interface PullInputs {
  readonly span_m: number;
  readonly EA_N: number;
  /** Wire that gives with the bay, m: the bay itself where it is held fast at both posts, else as far as it slides. */
  readonly wire_length_m: number;
  readonly spring_N_per_m?: number;
}

/** Rise of the tension by each metre that a bay grows longer, N/m. */
const stiffness = (i: PullInputs): number =>
  1 /
  (Math.max(i.wire_length_m, i.span_m) / i.EA_N + (i.spring_N_per_m ? 1 / i.spring_N_per_m : 0));

const stretched = (span: number, d: number) => 2 * Math.hypot(span / 2, d);
/** How much longer a bay has become, without cancellation. */
const longer = (span: number, d: number) => (4 * d * d) / (stretched(span, d) + span);

/**
 * Force at mid-bay that moves a strand sideways by so much: F = 4 d/L' (T + K (L' - L)), L' = 2 sqrt(L^2/4 + d^2),
 * K the stiffness of the wire that it draws on. Plain statics.
 */
export function lateralPull(
  i: PullInputs & { readonly tension_N: number; readonly deflection_m: number },
) {
  const { span_m: L, deflection_m: d, tension_N: T } = i;
  const rise = stiffness(i) * longer(L, d);
  const force = (4 * d * (T + rise)) / stretched(L, d);
  return {
    force_exact_N: force,
    tension_rise_N: rise,
    force_small_deflection_N: (4 * T * d) / L,
    tension_read_by_small_formula_N: (force * L) / (4 * d),
  };
}

/**
 * Tension of a strand that a force at mid-bay moves sideways by so much, corrected for its stretch.
 * @throws RangeError when that force moves no wire so little, however slack: what was read cannot be
 */
export function lateralPullInverse(
  i: PullInputs & { readonly force_N: number; readonly deflection_m: number },
) {
  const { span_m: L, deflection_m: d, force_N: F } = i;
  const tension_N = (F * stretched(L, d)) / (4 * d) - stiffness(i) * longer(L, d);
  if (!(tension_N > 0)) {
    throw new RangeError(
      'that pull would move even a slack wire less than this: is it held at both posts, or does it slide?',
    );
  }
  return { tension_N, tension_small_formula_N: (F * L) / (4 * d) };
}

/** How far a sideways force at mid-bay moves a strand, m, with the stretch of the run that it can draw on. */
export function pushAside(
  force: number,
  T: number,
  L: number,
  EA: number,
  runLength: number,
): number {
  const K = EA / Math.max(runLength, L);
  const half = (d: number) => Math.hypot(L / 2, d);
  const pulled = (h: number, d: number) => T + (K * 2 * d * d) / (h + L / 2);
  return risingRoot(
    (d) => (2 * d * pulled(half(d), d)) / half(d) - force,
    (d) => {
      const h = half(d);
      return (2 * pulled(h, d) * (1 - (d / h) ** 2)) / h + K * ((2 * d) / h) ** 2;
    },
    (force * L) / (4 * T),
  );
}

/**
 * Tension from the time of n returns of a pulse over a length: T = m (2 n L/t)^2 [published: wave on a string].
 */
export function wave(i: {
  readonly mass_kg_per_m: number;
  readonly returns: number;
  readonly length_m: number;
  readonly time_s: number;
  readonly target_N?: number;
}) {
  const way = 2 * i.returns * i.length_m;
  const at = (t: number) => i.mass_kg_per_m * (way / t) ** 2;
  return {
    wave_speed_m_per_s: way / i.time_s,
    tension_N: at(i.time_s),
    tension_change_for_plus_0p1_s_N: at(i.time_s + 0.1) - at(i.time_s),
    ...(i.target_N === undefined
      ? {}
      : { time_for_target_s: returnTime({ ...i, tension_N: i.target_N }) }),
  };
}

/** Time of n returns of a pulse over a length of wire under tension, s. */
export const returnTime = (i: {
  readonly mass_kg_per_m: number;
  readonly returns: number;
  readonly length_m: number;
  readonly tension_N: number;
}): number => 2 * i.returns * i.length_m * Math.sqrt(i.mass_kg_per_m / i.tension_N);

/** Note of a bay: its first mode, f = sqrt(T/m)/(2 L), Hz [published: wave on a string]. */
export const noteOf = (tension_N: number, span_m: number, mass_kg_per_m: number): number =>
  Math.sqrt(tension_N / mass_kg_per_m) / (2 * span_m);

/** Tension of a bay from its note, N: T = m (2 L f)^2. */
export const tensionOfNote = (hertz: number, span_m: number, mass_kg_per_m: number): number =>
  mass_kg_per_m * (2 * span_m * hertz) ** 2;
