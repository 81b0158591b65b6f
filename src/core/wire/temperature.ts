/** Tension of a fixed wire as the temperature changes. */
import { bisect } from '../base/numbers.js';

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
 * State-change equation of overhead-line practice [published: overhead-line practice]:
 * T/EA + T/(k Lw) - w^2 L^2/(24 T^2) + alpha theta = const, with an in-line spring k in series.
 * @throws RangeError when a spring is given without the length of wire it serves
 */
export function stateChange(i: StateChangeInputs) {
  const { tension_1_N: T1, span_m: L, wire_weight_N_per_m: w, delta_theta_K: dTheta } = i;
  if (i.spring_N_per_m !== undefined && i.wire_length_m === undefined) {
    throw new RangeError('a spring needs wire_length_m, the length of wire that it serves');
  }
  const give =
    1 / i.EA_N + (i.spring_N_per_m ? 1 / (i.spring_N_per_m * (i.wire_length_m ?? L)) : 0);
  const state = (T: number) => T * give - (w * L) ** 2 / (24 * T * T);
  const target = state(T1) - i.alpha_per_K * dTheta;
  let high = Math.max(T1, target / give) + 1;
  while (state(high) < target) high *= 2;
  let low = Math.min(T1, 1);
  while (state(low) > target) low /= 2;
  const T2 = bisect((T) => state(T) - target, low, high, 1e-15);
  const sag = (T: number) => (w * L * L) / (8 * T);
  return {
    tension_2_N: T2,
    sag_1_parabola_m: sag(T1),
    sag_2_parabola_m: sag(T2),
    taut_wire_tension_2_N: T1 - i.EA_N * i.alpha_per_K * dTheta,
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

/**
 * How far a sideways force at mid-bay moves a strand, m, with the stretch of the run it can draw on:
 * F = 4 d/L' (T + EA (L' - L)/Lw) (reference kind lateral_pull, solved for d).
 */
export function pushAside(
  force: number,
  T: number,
  L: number,
  EA: number,
  runLength: number,
): number {
  const pull = (d: number) => {
    const stretched = 2 * Math.hypot(L / 2, d);
    const tension = T + (EA * (stretched - L)) / Math.max(runLength, L);
    return (4 * d * tension) / stretched - force;
  };
  let high = (force * L) / (4 * T) + 1e-6;
  while (pull(high) < 0) high *= 2;
  return bisect(pull, 0, high, 1e-10);
}
