/** The note of a plucked bay in a recorded sound: the period after which it repeats itself best. */

export interface Pitch {
  readonly hertz: number;
  /** How well it repeats itself, 0 to 1; below about 0.6 it is noise. */
  readonly clarity: number;
}

/** Share of the best that an earlier period must reach to be the true one, and not an echo of it. */
const NEARLY = 0.9;

/**
 * Finds the lowest note of a sound by the normalised square difference: m(k) = 2 sum(x_i x_(i+k)) / sum(x_i^2 + x_(i+k)^2)
 * [published: autocorrelation methods of pitch detection]. A phone hears the overtones of a bay and hardly its first
 * mode; they repeat with its period all the same.
 * @param range_Hz where the note is sought
 * @returns null where nothing repeats itself
 * @throws RangeError when the sound is shorter than two periods of the lowest note
 */
export function pitchOf(
  samples: Float32Array,
  rate_Hz: number,
  range_Hz: readonly [low: number, high: number],
): Pitch | null {
  // A bay sings at some tens of hertz: a few thousand samples a second are plenty.
  const every = Math.max(1, Math.floor(rate_Hz / 4000));
  const x = thinned(samples, every);
  const rate = rate_Hz / every;
  const first = Math.max(2, Math.floor(rate / range_Hz[1]));
  const last = Math.ceil(rate / range_Hz[0]);
  if (x.length < 2 * last + 2) throw new RangeError('the sound is too short for so low a note');
  const m = new Float64Array(last + 2);
  const window = x.length - last - 1;
  for (let k = first - 1; k <= last + 1; k++) {
    let [both, each] = [0, 0];
    for (let i = 0; i < window; i++) {
      const [a, b] = [x[i]!, x[i + k] ?? 0];
      both += a * b;
      each += a * a + b * b;
    }
    m[k] = each > 0 ? (2 * both) / each : 0;
  }
  const peaks: number[] = [];
  for (let k = first; k <= last; k++)
    if (m[k]! > 0.3 && m[k]! >= m[k - 1]! && m[k]! > m[k + 1]!) peaks.push(k);
  const best = peaks.reduce((top, k) => Math.max(top, m[k]!), 0);
  const found = peaks.find((k) => m[k]! >= NEARLY * best);
  if (found === undefined) return null;
  // The top of the parabola through three points.
  const [a, b, c] = [m[found - 1]!, m[found]!, m[found + 1]!];
  const bend = a - 2 * b + c;
  const shift = bend < 0 ? (a - c) / (2 * bend) : 0;
  return { hertz: rate / (found + shift), clarity: Math.min(1, b) };
}

/** Means of so many samples each, without their common level. */
function thinned(samples: Float32Array, every: number): Float64Array {
  const out = new Float64Array(Math.floor(samples.length / every));
  for (let i = 0; i < out.length; i++) {
    let sum = 0;
    for (let k = 0; k < every; k++) sum += samples[i * every + k]!;
    out[i] = sum / every;
  }
  const level = out.reduce((a, b) => a + b, 0) / out.length;
  return out.map((v) => v - level);
}
