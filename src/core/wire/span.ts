/** One span of hanging wire: exact catenary and parabola, level or inclined. */
import { bisect } from '../base/numbers.js';

export interface SpanInputs {
  readonly span_m: number;
  readonly rise_m: number;
  readonly wire_weight_N_per_m: number;
}

/** Sag of a parabola below its chord at mid-bay, m: w c L / (8 H) along the chord's length c. */
export function parabolaSag(weight: number, span: number, chord: number, H: number): number {
  return (weight * chord * span) / (8 * H);
}

/**
 * Shape and pulls of a span from its horizontal tension: y = a cosh((x - x0)/a), a = H/w.
 * Sags are measured vertically below the chord [published: catenary of general statics].
 */
export function sagFromH(i: SpanInputs & { readonly H_N: number }) {
  const { span_m: L, rise_m: h, wire_weight_N_per_m: w, H_N: H } = i;
  const a = H / w;
  const chord = Math.hypot(L, h);
  const mid = Math.asinh(h / (2 * a * Math.sinh(L / (2 * a))));
  const x0 = L / 2 - a * mid;
  const uA = -x0 / a;
  const uB = (L - x0) / a;
  // cosh(p) - cosh(q) as a product, since the plain difference loses all its digits here.
  const drop = (x: number) =>
    (h * x) / L - 2 * a * Math.sinh((x - 2 * x0) / (2 * a)) * Math.sinh(x / (2 * a));
  const lowest = x0 + a * Math.asinh(h / L);
  const { exact, slack } = lengthBeyondChord(L, h, a, chord);
  return {
    chord_m: chord,
    sag_mid_exact_m: drop(L / 2),
    sag_max_exact_m: drop(lowest),
    sag_max_at_m: lowest,
    sag_mid_parabola_m: parabolaSag(w, L, chord, H),
    length_exact_m: exact,
    slack_exact_m: slack,
    slack_parabola_m: (w * w * L ** 4) / (24 * H * H * chord),
    tension_A_N: H * Math.cosh(uA),
    tension_B_N: H * Math.cosh(uB),
    tension_mean_chord_N: (H * chord) / L,
    slope_A: Math.sinh(uA),
    slope_B: Math.sinh(uB),
    low_point_in_span: x0 >= 0 && x0 <= L,
  };
}

/** Length of the catenary, and its excess over the chord without cancellation. */
function lengthBeyondChord(L: number, h: number, a: number, chord: number) {
  const q = L / (2 * a);
  const bow = 2 * a * Math.sinh(q);
  const exact = Math.hypot(bow, h);
  // bow - L by series: the excess is parts in 1e8 of the length for a tight fence wire.
  const excess = q < 0.1 ? L * q * q * (1 / 6 + (q * q) / 120 + q ** 4 / 5040) : bow - L;
  return { exact, slack: (excess * (bow + L)) / (exact + chord) };
}

/** The same span from the tension at its end B (the far end, at +rise). */
export function sagFromEndTension(i: SpanInputs & { readonly tension_B_N: number }) {
  const T = i.tension_B_N;
  const least = (H: number) => sagFromH({ ...i, H_N: H }).tension_B_N - T;
  // Below this the wire is slack and a second, deep shape exists; fences hang on the tight branch.
  const slackest = (i.wire_weight_N_per_m * i.span_m) / 2;
  if (!(least(slackest) < 0)) {
    throw new RangeError('that tension is too low to hold this span on its tight branch');
  }
  const H = bisect(least, slackest, T, 1e-14);
  return { H_N: H, ...sagFromH({ ...i, H_N: H }) };
}
