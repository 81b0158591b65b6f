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

/**
 * Tension after a change of temperature of a wire between two fixed ends, N: T/EA + T/(k Lw) - w^2 L^2/(24 T^2) + alpha
 * theta = const, L the span's length across [published: overhead-line practice]. An inclined span goes by its chord's tension.
 */
export function stateOf(i: StateChangeInputs): number {
  const give =
    1 / i.EA_N + (i.spring_N_per_m ? 1 / (i.spring_N_per_m * (i.wire_length_m ?? i.span_m)) : 0);
  const hangs = (i.wire_weight_N_per_m * i.span_m) ** 2 / 24;
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
  const T2 = stateOf(i);
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
