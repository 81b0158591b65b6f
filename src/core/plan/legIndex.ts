/** Legs of all lines in a spatial index: what lies near a place, on a property of any size. */
import Flatbush from 'flatbush';
import { nearestOnLeg, stations } from './geometry.js';
import type { Plan, Point } from './schema.js';

/** Where a place falls on a line. */
export interface Hit {
  readonly line: string;
  readonly leg: number;
  /** Plan distance along the line, and distance off it, m. */
  readonly s: number;
  readonly off: number;
  readonly point: Point;
}

export interface LegIndex {
  /** The nearest place of every line within reach of a point. */
  near(p: Point, reach_m: number): Hit[];
  /** Legs whose boxes touch a box, as pairs of line id and leg. */
  within(west: number, south: number, east: number, north: number): [string, number][];
}

const made = new WeakMap<Plan['lines'], LegIndex>();

/** The index of these lines; made once for each table of lines. */
export function legIndexOf(lines: Plan['lines']): LegIndex {
  let index = made.get(lines);
  if (!index) made.set(lines, (index = makeIndex(lines)));
  return index;
}

function makeIndex(lines: Plan['lines']): LegIndex {
  const legs: [string, number][] = [];
  for (const line of Object.values(lines)) {
    for (let i = 0; i + 1 < line.vertices.length; i++) legs.push([line.id, i]);
  }
  if (legs.length === 0) return { near: () => [], within: () => [] };
  const tree = new Flatbush(legs.length);
  for (const [id, i] of legs) {
    const a = lines[id]!.vertices[i]!;
    const b = lines[id]!.vertices[i + 1]!;
    tree.add(Math.min(a.e, b.e), Math.min(a.n, b.n), Math.max(a.e, b.e), Math.max(a.n, b.n));
  }
  tree.finish();
  const starts = new Map<string, number[]>();
  const startOf = (id: string, leg: number): number => {
    let at = starts.get(id);
    if (!at) starts.set(id, (at = stations(lines[id]!.vertices)));
    return at[leg]!;
  };
  const within: LegIndex['within'] = (w, s, e, n) => tree.search(w, s, e, n).map((k) => legs[k]!);
  return {
    within,
    near(p, reach) {
      const best = new Map<string, Hit>();
      for (const [id, leg] of within(p.e - reach, p.n - reach, p.e + reach, p.n + reach)) {
        const { vertices } = lines[id]!;
        const on = nearestOnLeg(vertices[leg]!, vertices[leg + 1]!, p);
        if (on.off > reach) continue;
        const s = startOf(id, leg) + on.along;
        const known = best.get(id);
        if (!known || on.off < known.off || (on.off === known.off && s < known.s))
          best.set(id, { line: id, leg, s, off: on.off, point: on.point });
      }
      return [...best.values()];
    },
  };
}

/**
 * Where two segments cross, as shares of each, ends included; null when they do not or are parallel.
 */
export function crossing(a: Point, b: Point, c: Point, d: Point): [number, number] | null {
  const [rx, ry] = [b.e - a.e, b.n - a.n];
  const [qx, qy] = [d.e - c.e, d.n - c.n];
  const det = rx * qy - ry * qx;
  if (Math.abs(det) < 1e-12) return null;
  const t = ((c.e - a.e) * qy - (c.n - a.n) * qx) / det;
  const u = ((c.e - a.e) * ry - (c.n - a.n) * rx) / det;
  return t >= 0 && t <= 1 && u >= 0 && u <= 1 ? [t, u] : null;
}

/** Least distance between two segments, m; 0 where they cross. */
export function segmentsApart(a: Point, b: Point, c: Point, d: Point): number {
  if (crossing(a, b, c, d)) return 0;
  return Math.min(
    nearestOnLeg(c, d, a).off,
    nearestOnLeg(c, d, b).off,
    nearestOnLeg(a, b, c).off,
    nearestOnLeg(a, b, d).off,
  );
}
