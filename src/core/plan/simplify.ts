import { nearestOnLeg } from './geometry.js';
import type { Point } from './schema.js';

/**
 * A walked track reduced to the fewest of its own points that keep within a tolerance of the walk
 * [published: Douglas-Peucker, Cartographica 10 (1973) 112-122].
 * @param tolerance_m how far the walk may leave the kept line
 */
export function simplify(points: readonly Point[], tolerance_m: number): Point[] {
  if (points.length <= 2) return [...points];
  const keep = new Uint8Array(points.length);
  keep[0] = keep[points.length - 1] = 1;
  // A list instead of recursion: tracks can be long.
  const todo: [number, number][] = [[0, points.length - 1]];
  for (let job = todo.pop(); job; job = todo.pop()) {
    const [from, to] = job;
    let worst = tolerance_m;
    let at = -1;
    for (let i = from + 1; i < to; i++) {
      const off = offSegment(points[i]!, points[from]!, points[to]!);
      if (off > worst) [worst, at] = [off, i];
    }
    if (at < 0) continue;
    keep[at] = 1;
    todo.push([from, at], [at, to]);
  }
  return points.filter((_, i) => keep[i]);
}

const offSegment = (p: Point, a: Point, b: Point): number => nearestOnLeg(a, b, p).off;
