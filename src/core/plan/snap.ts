/** What the pointer catches on: vertices first, then lines. */
import { distance, nearest } from './geometry.js';
import type { Line, Plan, Point } from './schema.js';

export interface Snap {
  readonly point: Point;
  readonly to: 'vertex' | 'line' | 'land' | 'free';
  readonly line?: string;
  readonly vertex?: number;
  /** Leg and plan distance along the line, when on a line. */
  readonly leg?: number;
  readonly s?: number;
}

/** The line nearest to a place within reach, and where on it; of two as near the later one. */
export function nearestLine(lines: Plan['lines'], p: Point, reach: number) {
  let best: { line: Line; hit: ReturnType<typeof nearest> } | null = null;
  for (const line of Object.values(lines)) {
    const hit = nearest(line.vertices, p);
    if (hit.off <= (best?.hit.off ?? reach)) best = { line, hit };
  }
  return best;
}

/**
 * The nearest vertex within reach, else the nearest place on a line within reach, else the point.
 * @param land rims and ways that catch where no line does: boundary, old fences
 * @param except a vertex that is being moved and must not catch on itself, nor on its own legs
 */
export function snap(
  lines: Plan['lines'],
  p: Point,
  reach: number,
  except?: { line: string; vertex: number },
  land: readonly (readonly Point[])[] = [],
): Snap {
  let best: Snap = { point: p, to: 'free' };
  let off = reach;
  for (const line of Object.values(lines)) {
    line.vertices.forEach((v, i) => {
      // Neither itself nor its neighbours: a leg of no length is no leg.
      if (except?.line === line.id && Math.abs(except.vertex - i) <= 1) return;
      const d = distance(v, p);
      if (d <= off) {
        off = d;
        best = { point: { e: v.e, n: v.n }, to: 'vertex', line: line.id, vertex: i };
      }
    });
  }
  if (best.to === 'vertex') return best;
  for (const line of Object.values(lines)) {
    if (except?.line === line.id) continue;
    const hit = nearest(line.vertices, p);
    if (hit.off <= off) {
      off = hit.off;
      best = { point: hit.point, to: 'line', line: line.id, leg: hit.leg, s: hit.s };
    }
  }
  if (best.to !== 'free') return best;
  for (const path of land) {
    for (const corner of path) {
      const d = distance(corner, p);
      if (d <= off) [off, best] = [d, { point: { e: corner.e, n: corner.n }, to: 'land' }];
    }
  }
  if (best.to === 'land') return best;
  for (const path of land) {
    if (path.length < 2) continue;
    const hit = nearest(path, p);
    if (hit.off <= off) [off, best] = [hit.off, { point: hit.point, to: 'land' }];
  }
  return best;
}
