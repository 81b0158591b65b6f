/** Non-linear least squares of a few parameters. */
import { solveSpd } from './spd.js';

export interface Fitted {
  readonly x: number[];
  /** Sum of the squared residuals. */
  readonly chi2: number;
}

const MOST = 200;

/**
 * Levenberg and Marquardt's method [published: J. SIAM 11 (1963) 431-441] with differences for the slopes.
 * @param residuals of parameters, each divided by its own spread
 * @param start where to begin; @param bounds lowest and highest of each parameter
 */
export function leastSquares(
  residuals: (x: readonly number[]) => number[],
  start: readonly number[],
  bounds: readonly (readonly [low: number, high: number])[],
): Fitted {
  const held = (x: readonly number[]) =>
    x.map((v, k) => Math.min(bounds[k]![1], Math.max(bounds[k]![0], v)));
  const square = (r: readonly number[]) => r.reduce((s, v) => s + v * v, 0);
  let x = held(start);
  let r = residuals(x);
  let chi2 = square(r);
  let damping = 1e-2;
  for (let round = 0; round < MOST && damping < 1e7; round++) {
    const slopes = x.map((v, k) => {
      // Inwards where the parameter stands at its upper bound.
      const h = (v + 1e-6 > bounds[k]![1] ? -1 : 1) * 1e-6;
      const moved = residuals(x.map((w, j) => (j === k ? w + h : w)));
      return moved.map((m, i) => (m - r[i]!) / h);
    });
    const normal = slopes.map((a) => slopes.map((b) => a.reduce((s, v, i) => s + v * b[i]!, 0)));
    const pull = slopes.map((a) => -a.reduce((s, v, i) => s + v * r[i]!, 0));
    // What stands at its bound and is pulled beyond it stays: else the others would follow a step that it cannot take.
    const stuck = x.map((v, k) => (pull[k]! > 0 ? v >= bounds[k]![1] : v <= bounds[k]![0]));
    stuck.forEach((yes, k) => {
      if (!yes) return;
      pull[k] = 0;
      for (const row of normal) row[k] = 0;
      normal[k] = normal[k]!.map((_, j) => (j === k ? 1 : 0));
    });
    let better = false;
    while (!better && damping < 1e7) {
      const damped = normal.map((row, i) =>
        row.map((v, j) => (i === j ? v * (1 + damping) + 1e-12 : v)),
      );
      const step = solveSpd(damped, pull);
      const tried = held(x.map((v, k) => v + step[k]!));
      const now = residuals(tried);
      const then = square(now);
      if (then < chi2) {
        const gain = (chi2 - then) / Math.max(chi2, 1e-30);
        [x, r, chi2, better] = [tried, now, then, true];
        damping = Math.max(1e-12, damping / 5);
        if (gain < 1e-9) return { x, chi2 };
      } else damping *= 4;
    }
  }
  return { x, chi2 };
}
