/** What the pointer catches on: vertices first, then lines. */
import { distance, nearest } from './geometry.js';
import type { Plan, Point } from './schema.js';

export interface Snap {
  readonly point: Point;
  readonly to: 'vertex' | 'line' | 'free';
  readonly line?: string;
  readonly vertex?: number;
  /** Leg and plan distance along the line, when on a line. */
  readonly leg?: number;
  readonly s?: number;
}

/**
 * The nearest vertex within reach, else the nearest place on a line within reach, else the point.
 * @param except a vertex that is being moved and must not catch on itself, nor on its own legs
 */
export function snap(
  lines: Plan['lines'],
  p: Point,
  reach: number,
  except?: { line: string; vertex: number },
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
  return best;
}
