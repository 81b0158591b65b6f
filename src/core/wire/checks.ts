/** Checks of tension in the field: what each tool read, as a tension with its error, N. */
import { lateralPullInverse, tensionOfNote } from './pull.js';

/** With what a tension is read: a pull at mid-bay, taps at a pulse's returns, a spring, a note, a scale in the wire. */
export const TOOLS = ['pull', 'taps', 'spring', 'note', 'scale'] as const;
export type Tool = (typeof TOOLS)[number];

/** A tension as it was read. */
export interface Read {
  readonly tension_N: number;
  /** Standard error, N; 0 where one reading tells nothing of it. */
  readonly error_N: number;
}

/** Fewest taps that tell a time and a spread. */
export const FEWEST_TAPS = 5;
/** A single tap off by more than this share of a return is no tap in time. */
const SPREAD_MOST = 0.25;

export interface Taps {
  readonly return_s: number;
  /** Standard error of the return, s, from the spread of the taps. */
  readonly error_s: number;
  /** Standard deviation of one tap, as a share of the return. */
  readonly spread: number;
}

/**
 * Time of one return from taps at its every return: the slope of a straight line through them.
 * @param times_s of the taps, in order
 * @throws RangeError with few taps, or when their spread means nothing
 */
export function returnOf(times_s: readonly number[]): Taps {
  const n = times_s.length;
  if (n < FEWEST_TAPS) throw new RangeError(`${FEWEST_TAPS} taps at least, one at each return`);
  const gaps = times_s.slice(1).map((t, i) => t - times_s[i]!);
  if (gaps.some((g) => !(g > 0))) throw new RangeError('taps follow one another in time');
  const usual = [...gaps].sort((a, b) => a - b)[gaps.length >> 1]!;
  const missed = gaps.findIndex((g) => g > 1.6 * usual || g < 0.45 * usual);
  if (missed >= 0)
    throw new RangeError(
      `between tap ${missed + 1} and ${missed + 2} a return was missed or tapped twice: begin again`,
    );
  const mid = (n - 1) / 2;
  const mean = times_s.reduce((a, b) => a + b, 0) / n;
  let [up, across] = [0, 0];
  times_s.forEach((t, i) => {
    up += (i - mid) * (t - mean);
    across += (i - mid) ** 2;
  });
  const return_s = up / across;
  const square = times_s.reduce((sum, t, i) => sum + (t - mean - return_s * (i - mid)) ** 2, 0);
  const one = Math.sqrt(square / (n - 2));
  const spread = one / return_s;
  if (spread > SPREAD_MOST)
    throw new RangeError(
      'the taps spread too far to mean anything: strike again and tap each return as you feel it',
    );
  return { return_s, error_s: one / Math.sqrt(across), spread };
}

/** From taps at the returns of a pulse over a length: T = m (2 L/t)^2. */
export function byTaps(taps: Taps, over_m: number, mass_kg_per_m: number): Read {
  const tension_N = mass_kg_per_m * ((2 * over_m) / taps.return_s) ** 2;
  return { tension_N, error_N: (2 * tension_N * taps.error_s) / taps.return_s };
}

/** From a pull at mid-bay; the error is that of reading the movement to 2 mm and the force to 3 %. */
export function byPull(i: Parameters<typeof lateralPullInverse>[0]): Read {
  const { tension_N } = lateralPullInverse(i);
  const other = (more: object): number => {
    try {
      return lateralPullInverse({ ...i, ...more }).tension_N - tension_N;
    } catch (fault) {
      if (fault instanceof RangeError) return tension_N;
      throw fault;
    }
  };
  return {
    tension_N,
    error_N: Math.hypot(
      other({ deflection_m: i.deflection_m + 0.002 }),
      other({ force_N: 1.03 * i.force_N }),
    ),
  };
}

/** From a spring's length; the error is that of reading it to 1 mm. @throws RangeError for no pull, or a solid spring */
export function bySpring(
  length_m: number,
  spring: { readonly free_m: number; readonly rate_N_per_m: number; readonly travel_m: number },
): Read {
  const drawn = length_m - spring.free_m;
  if (!(drawn > 0))
    throw new RangeError(
      'shorter than the spring is without load: it carries nothing, or is another',
    );
  if (drawn > spring.travel_m + 1e-9)
    throw new RangeError('longer than its travel lets it: the spring is solid, and tells nothing');
  return { tension_N: spring.rate_N_per_m * drawn, error_N: spring.rate_N_per_m * 0.001 };
}

/** From the note of a bay, its first mode: T = m (2 L f)^2; the error is that of the bay's length to 20 mm. */
export const byNote = (hertz: number, bay_m: number, mass_kg_per_m: number): Read => {
  const tension_N = tensionOfNote(hertz, bay_m, mass_kg_per_m);
  return { tension_N, error_N: 2 * tension_N * (0.02 / bay_m) };
};
