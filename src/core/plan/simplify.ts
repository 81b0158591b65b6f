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

/** A simplified track with what it drops. */
export interface Simplified {
  readonly points: readonly Point[];
  readonly dropped: number;
  /** How far the furthest dropped point lies off the kept line, m. */
  readonly furthest_m: number;
}

/** Simplifies a track and says what that drops. */
export function simplified(track: readonly Point[], tolerance_m: number): Simplified {
  const points = simplify(track, tolerance_m);
  let furthest_m = 0;
  let leg = 0;
  for (const p of track) {
    if (leg + 1 < points.length && p === points[leg + 1]) leg++;
    else if (leg + 1 < points.length && p !== points[leg])
      furthest_m = Math.max(furthest_m, offSegment(p, points[leg]!, points[leg + 1]!));
  }
  return { points, dropped: track.length - points.length, furthest_m };
}
