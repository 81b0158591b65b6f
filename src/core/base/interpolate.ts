/**
 * Monotone piecewise cubic through points (PCHIP with Fritsch-Carlson harmonic slopes and
 * three-point ends) [published: SIAM J. Numer. Anal. 17 (1980) 238-246]. Beyond the last point it
 * goes on as the straight line through the last two points; before the first point likewise.
 * @param xs strictly increasing, at least two
 * @param ys values at xs
 */
export function monotoneCubic(xs: readonly number[], ys: readonly number[]): (x: number) => number {
  const n = xs.length;
  if (n < 2 || ys.length !== n) throw new RangeError('need two or more points');
  const h: number[] = [];
  const slope: number[] = [];
  for (let i = 0; i < n - 1; i++) {
    const step = xs[i + 1]! - xs[i]!;
    if (!(step > 0)) throw new RangeError('points must run strictly upward');
    h.push(step);
    slope.push((ys[i + 1]! - ys[i]!) / step);
  }
  const d = tangents(h, slope);
  return (x) => {
    if (x >= xs[n - 1]!) return ys[n - 1]! + slope[n - 2]! * (x - xs[n - 1]!);
    if (x <= xs[0]!) return ys[0]! + slope[0]! * (x - xs[0]!);
    let i = 0;
    while (x > xs[i + 1]!) i++;
    const t = (x - xs[i]!) / h[i]!;
    const u = 1 - t;
    return (
      ys[i]! * (1 + 2 * t) * u * u +
      h[i]! * d[i]! * t * u * u +
      ys[i + 1]! * t * t * (3 - 2 * t) -
      h[i]! * d[i + 1]! * t * t * u
    );
  };
}

function tangents(h: readonly number[], slope: readonly number[]): number[] {
  const n = slope.length + 1;
  if (n === 2) return [slope[0]!, slope[0]!];
  const d = new Array<number>(n).fill(0);
  for (let i = 1; i < n - 1; i++) {
    const a = slope[i - 1]!;
    const b = slope[i]!;
    if (a * b <= 0) continue;
    const w1 = 2 * h[i]! + h[i - 1]!;
    const w2 = h[i]! + 2 * h[i - 1]!;
    d[i] = (w1 + w2) / (w1 / a + w2 / b);
  }
  d[0] = endTangent(h[0]!, h[1]!, slope[0]!, slope[1]!);
  d[n - 1] = endTangent(h[n - 2]!, h[n - 3]!, slope[n - 2]!, slope[n - 3]!);
  return d;
}

function endTangent(h0: number, h1: number, s0: number, s1: number): number {
  const d = ((2 * h0 + h1) * s0 - h0 * s1) / (h0 + h1);
  if (Math.sign(d) !== Math.sign(s0)) return 0;
  if (Math.sign(s0) !== Math.sign(s1) && Math.abs(d) > 3 * Math.abs(s0)) return 3 * s0;
  return d;
}
