/** Small dense systems that are symmetric and positive definite. */

/**
 * Solves m x = b by Cholesky's factors.
 * @throws RangeError when m is not positive definite
 */
export function solveSpd(m: readonly (readonly number[])[], b: readonly number[]): number[] {
  const n = b.length;
  const L: number[][] = m.map(() => new Array<number>(n).fill(0));
  for (let i = 0; i < n; i++) {
    for (let j = 0; j <= i; j++) {
      let s = m[i]![j]!;
      for (let k = 0; k < j; k++) s -= L[i]![k]! * L[j]![k]!;
      if (i === j && !(s > 0)) throw new RangeError('not positive definite');
      L[i]![j] = i === j ? Math.sqrt(s) : s / L[j]![j]!;
    }
  }
  const x = b.slice();
  for (let i = 0; i < n; i++) {
    for (let k = 0; k < i; k++) x[i]! -= L[i]![k]! * x[k]!;
    x[i]! /= L[i]![i]!;
  }
  for (let i = n - 1; i >= 0; i--) {
    for (let k = i + 1; k < n; k++) x[i]! -= L[k]![i]! * x[k]!;
    x[i]! /= L[i]![i]!;
  }
  return x;
}
