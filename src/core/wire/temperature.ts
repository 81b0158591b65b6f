/** Tension of a fixed wire as the temperature changes. */
import { risingRoot } from '../base/numbers.js';

export interface StateChangeInputs {
  readonly tension_1_N: number;
  readonly span_m: number;
  readonly delta_theta_K: number;
  readonly wire_weight_N_per_m: number;
  readonly EA_N: number;
  readonly alpha_per_K: number;
  /** Length of wire that the spring serves, m; needed with a spring. */
  readonly wire_length_m?: number;
  readonly spring_N_per_m?: number;
}

/** One span as the state equation sees it: its chord, and its length across, m. */
export interface StateSpan {
  readonly chord_m: number;
  readonly across_m: number;
}

/**
 * Tension after a change of temperature of a wire that hangs over spans between two fixed ends, N, its tension
 * the same in all of them: T/EA + T/(k Lw) - sum(c w^2 L^2)/(24 T^2 Lw) + alpha theta = const, Lw the sum of
 * the chords [published: overhead-line practice].
 */
export function stateOf(
  i: Omit<StateChangeInputs, 'span_m'> & { readonly lengths: readonly StateSpan[] },
): number {
  const length = i.wire_length_m ?? i.lengths.reduce((sum, s) => sum + s.chord_m, 0);
  const give = 1 / i.EA_N + (i.spring_N_per_m ? 1 / (i.spring_N_per_m * length) : 0);
  const w = i.wire_weight_N_per_m;
  let hangs = 0;
  let chords = 0;
  for (const { chord_m, across_m } of i.lengths) {
    hangs += (chord_m * (w * across_m) ** 2) / 24;
    chords += chord_m;
  }
  hangs /= chords;
  const state = (T: number) => T * give - hangs / (T * T);
  const target = state(i.tension_1_N) - i.alpha_per_K * i.delta_theta_K;
  return risingRoot(
    (T) => state(T) - target,
    (T) => give + (2 * hangs) / (T * T * T),
    i.tension_1_N,
  );
}

/**
 * State-change equation of one span, with an in-line spring k in series (`stateOf`).
 * @throws RangeError when a spring is given without the length of wire it serves
 */
export function stateChange(i: StateChangeInputs) {
  const { tension_1_N: T1, span_m: L, wire_weight_N_per_m: w } = i;
  if (i.spring_N_per_m !== undefined && i.wire_length_m === undefined) {
    throw new RangeError('a spring needs wire_length_m, the length of wire that it serves');
  }
  const T2 = stateOf({ ...i, lengths: [{ chord_m: L, across_m: L }] });
  const sag = (T: number) => (w * L * L) / (8 * T);
  return {
    tension_2_N: T2,
    sag_1_parabola_m: sag(T1),
    sag_2_parabola_m: sag(T2),
    taut_wire_tension_2_N: T1 - i.EA_N * i.alpha_per_K * i.delta_theta_K,
    ...(i.spring_N_per_m ? { spring_movement_m: (T2 - T1) / i.spring_N_per_m } : {}),
  };
}

/** Ruling span of a run, sqrt(sum L^3 / sum L) [published: overhead-line practice]. */
export function rulingSpan(spans: readonly number[]): number {
  let cubes = 0;
  let total = 0;
  for (const L of spans) {
    cubes += L ** 3;
    total += L;
  }
  return Math.sqrt(cubes / total);
}

/** Several spans of one wire as one: the tension over the ruling span, and each span's sag. */
export function ruledChange(
  i: Omit<StateChangeInputs, 'span_m'> & { readonly spans_m: readonly number[] },
) {
  const ruling_span_m = rulingSpan(i.spans_m);
  const { tension_2_N } = stateChange({ ...i, span_m: ruling_span_m });
  return {
    ruling_span_m,
    tension_2_N,
    sag_2_parabola_m: i.spans_m.map((L) => (i.wire_weight_N_per_m * L * L) / (8 * tension_2_N)),
  };
}
