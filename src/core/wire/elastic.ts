/** One span of hanging wire that stretches: the elastic catenary, and what the temperature makes of it. */
import { bisect } from '../base/numbers.js';
import { sagFromH, type SpanInputs } from './span.js';
import { stateOf } from './temperature.js';

export interface ElasticInputs extends SpanInputs {
  /** Horizontal tension before, N. */
  readonly H_1_N: number;
  readonly delta_theta_K: number;
  readonly EA_N: number;
  readonly alpha_per_K: number;
}

/** A hanging wire: horizontal pull, vertical pull at its end A (upwards positive), length without stress. */
interface Hung {
  readonly H: number;
  readonly vA: number;
  readonly length: number;
  /** Weight by the metre of unstressed wire, N/m. */
  readonly weight: number;
  readonly EA: number;
}

/** How far from A, across and up, the wire has come after `s` metres of unstressed wire. */
function reached({ H, vA, weight: w, EA }: Hung, s: number): { x: number; z: number } {
  const v = vA + w * s;
  const rise = (v * v - vA * vA) / (w * (Math.hypot(H, v) + Math.hypot(H, vA)));
  return {
    x: (H * s) / EA + (H / w) * (Math.asinh(v / H) - Math.asinh(vA / H)),
    z: rise + (v * v - vA * vA) / (2 * w * EA),
  };
}

/** The vertical pull at A with which a wire of this length and pull comes out at a rise. */
function levelled(hung: Omit<Hung, 'vA'>, rise: number): Hung {
  const { H, length, weight } = hung;
  const slope = Math.abs(rise) / length;
  const most = weight * length + 2 * H * (slope < 0.99 ? slope / Math.sqrt(1 - slope ** 2) : 10);
  const vA = bisect((v) => reached({ ...hung, vA: v }, length).z - rise, -most, most, 1e-13);
  return { ...hung, vA };
}

/**
 * A span between fixed ends after a change of temperature, exactly: unstressed length is kept, but for the
 * expansion; its weight is kept whole [published: elastic catenary of general statics].
 * @returns tensions N, lengths and sag m; beside them what the state equation of overhead lines says
 */
export function stateChangeExact(i: ElasticInputs) {
  const { span_m: L, rise_m: h, wire_weight_N_per_m: w, EA_N: EA, H_1_N: H1 } = i;
  const before = sagFromH({ ...i, H_N: H1 });
  const spanned = (hung: Omit<Hung, 'vA'>) => {
    const at = levelled(hung, h);
    return reached(at, hung.length).x;
  };
  // The unstressed length with which it just spans the bay: a little less than it is long when hung.
  const length1 = bisect(
    (length) => spanned({ H: H1, length, weight: w, EA }) - L,
    before.length_exact_m * (1 - (2 * before.tension_B_N) / EA) - 1e-6,
    before.length_exact_m + 1e-6,
    1e-15,
  );
  const longer = 1 + i.alpha_per_K * i.delta_theta_K;
  const after = { length: length1 * longer, weight: w / longer, EA };
  const guess = stateOf({ ...i, tension_1_N: before.tension_mean_chord_N });
  const near = (guess * L) / before.chord_m;
  let [low, high] = [near / 1.2, near * 1.2];
  const over = (H: number) => spanned({ ...after, H }) - L;
  // More pull stretches it further across.
  while (over(low) > 0) low /= 1.5;
  while (over(high) < 0) high *= 1.5;
  const H = bisect(over, low, high, 1e-14);
  const hung = levelled({ ...after, H }, h);
  return {
    unstressed_length_1_m: length1,
    H_2_N: H,
    tension_mean_chord_2_N: (H * before.chord_m) / L,
    tension_B_2_N: Math.hypot(H, hung.vA + after.weight * after.length),
    tension_mean_chord_2_state_equation_N: guess,
    sag_mid_2_exact_m: sagFromH({ ...i, H_N: H }).sag_mid_exact_m,
  };
}
