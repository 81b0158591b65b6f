/** Runs for tests: posts along a straight line, or along any points. */
import type { Post } from '../../src/core/report/schema.js';
import type { BayedRun } from '../../src/core/wire/strung.js';

const post = (s_m: number, [e, n, z_m]: readonly [number, number, number]): Post => ({
  s_m,
  tape_m: s_m,
  e,
  n,
  z_m,
  role: 'line',
  kind: 'steel-180',
  fixed: false,
  uplift_N: 0,
  holds_N: 0,
});

/** A run over points: its plan distance is that on the level, its tape that along the chords. */
export function runOver(points: readonly (readonly [number, number, number])[]): BayedRun {
  let s = 0;
  const bays_m: number[] = [];
  const posts = points.map((p, i) => {
    if (i > 0) {
      const [a, b] = [points[i - 1]!, p];
      s += Math.hypot(b[0] - a[0], b[1] - a[1]);
      bays_m.push(Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]));
    }
    return post(s, p);
  });
  const ground_m = bays_m.reduce((a, b) => a + b, 0);
  return { run: { from_m: 0, to_m: s, ground_m }, posts, bays_m };
}

/** A run on the level with these bays, m. */
export function flatRun(bays: readonly number[]): BayedRun {
  let x = 0;
  return runOver([[0, 0, 0], ...bays.map((b) => [(x += b), 0, 0] as const)]);
}
