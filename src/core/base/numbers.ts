/** Small numeric helpers shared by the whole heart. */

/** Standard gravity, m/s2 [published: ISO 80000-3]. */
export const GRAVITY = 9.80665;

/** Vacuum permeability, H/m, and permittivity, F/m [published: CODATA]. */
export const MU0 = 4e-7 * Math.PI;
export const EPSILON0 = 8.8541878128e-12;

/** The value held between two limits. */
export const clamp = (x: number, low: number, high: number): number =>
  Math.min(high, Math.max(low, x));

/** Sum of a list. */
export const sum = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0);

/** Into how many equal pieces a length is parted so that none is longer than so much; a hair over is none. */
export const piecesOf = (length: number, most: number): number =>
  Math.max(1, Math.ceil(length / most - 1e-6));

/** Rounds to a number of decimals, for figures that are handed to people or files. */
export function round(x: number, decimals: number): number {
  const k = 10 ** decimals;
  return Math.round(x * k) / k;
}

/**
 * Root of a continuous function by bisection.
 * @param f function with a sign change on [low, high]
 * @param tolerance absolute width of the final bracket
 * @throws RangeError if f has the same sign at both ends
 */
export function bisect(
  f: (x: number) => number,
  low: number,
  high: number,
  tolerance = 1e-12,
): number {
  let a = low;
  let b = high;
  const fa = f(a);
  if (fa === 0) return a;
  if (fa > 0 === f(b) > 0) throw new RangeError('no sign change between the limits');
  const rising = fa < 0;
  while (b - a > tolerance * Math.max(1, Math.abs(a))) {
    const mid = (a + b) / 2;
    if (mid === a || mid === b) break;
    if (f(mid) < 0 === rising) a = mid;
    else b = mid;
  }
  return (a + b) / 2;
}

/**
 * Where a dear, continuous function that rises passes nought: from a guess outwards until it lies between two, then by
 * false position, the end that stays weighed less each time (Anderson and Bjorck).
 * @param tolerance width of what is left, as a share of x
 * @returns an end of the range where the function does not pass nought in it
 */
export function passing(
  f: (x: number) => number,
  within: { readonly low: number; readonly high: number; readonly near: number },
  tolerance: number,
): number {
  let [a, b] = [within.low, within.high];
  let [fa, fb] = [-Infinity, Infinity];
  let x = clamp(within.near, a, b);
  for (let by = 1.15; ; by *= by) {
    const v = f(x);
    if (v === 0) return x;
    if (v < 0) {
      if (x === within.high) return x;
      [a, fa] = [x, v];
      if (fb < Infinity) break;
      x = Math.min(within.high, x * by);
    } else {
      if (x === within.low) return x;
      [b, fb] = [x, v];
      if (fa > -Infinity) break;
      x = Math.max(within.low, x / by);
    }
  }
  for (let before = 0; b - a > tolerance * b;) {
    const least = (tolerance * b) / 2;
    const cut = a - (fa * (b - a)) / (fb - fa);
    // At an end: a little beyond it, so that what is left closes.
    x = clamp(cut, Math.min(a + least, (a + b) / 2), Math.max(b - least, (a + b) / 2));
    const v = f(x);
    if (v === 0) return x;
    const share = v * before > 0 ? 1 - v / (v < 0 ? fa : fb) : 1;
    const lighter = share > 0 ? share : 0.5;
    if (v < 0) [a, fa, fb] = [x, v, fb * lighter];
    else [b, fb, fa] = [x, v, fa * lighter];
    before = v;
  }
  return (a + b) / 2;
}

/** The whole numbers from 0 on, so many of them. */
export const range = (n: number): number[] => Array.from({ length: n }, (_, k) => k);

/**
 * Root of a function that rises, above a floor, by Newton's method kept between limits.
 * @param slope its slope, above 0
 * @param start where to begin, above the floor
 */
export function risingRoot(
  value: (x: number) => number,
  slope: (x: number) => number,
  start: number,
  floor = 0,
): number {
  let low = floor;
  let high = Infinity;
  let x = start;
  for (let turn = 0; turn < 200; turn++) {
    const v = value(x);
    if (v > 0) high = x;
    else low = x;
    let next = x - v / slope(x);
    // Out of the limits: half way between them, or on by doubling while there is no upper one yet.
    if (!(next > low && next < high)) next = high < Infinity ? (low + high) / 2 : 2 * x;
    if (Math.abs(next - x) <= 1e-14 * x) return next;
    x = next;
  }
  return x;
}
