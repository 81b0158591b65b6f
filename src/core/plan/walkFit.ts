/** What a walked track says of the straight runs behind it: how noisy it is, and the runs that fit it best. */
import { distance, nearest } from './geometry.js';
import { simplify } from './simplify.js';
import type { Point } from './schema.js';

/** Points looked at together when the noise is measured. */
const WINDOW = 9;
/** Hardly one of some hundred points lies further off than this many times the spread. */
const FURTHEST = 3.5;
/** No receiver and no foot is better than this, m. */
const LEAST = 0.2;

interface Straight {
  readonly at: Point;
  /** Unit vector along it. */
  readonly along: Point;
}

/** The straight line with the least sum of squared distances (total least squares). */
function straightThrough(points: readonly Point[]): Straight {
  const n = points.length;
  const at = {
    e: points.reduce((s, p) => s + p.e, 0) / n,
    n: points.reduce((s, p) => s + p.n, 0) / n,
  };
  let [ee, en, nn] = [0, 0, 0];
  for (const p of points) {
    const [x, y] = [p.e - at.e, p.n - at.n];
    [ee, en, nn] = [ee + x * x, en + x * y, nn + y * y];
  }
  const angle = Math.atan2(2 * en, ee - nn) / 2;
  return { at, along: { e: Math.cos(angle), n: Math.sin(angle) } };
}

const offStraight = ({ at, along }: Straight, p: Point): number =>
  along.e * (p.n - at.n) - along.n * (p.e - at.e);

/**
 * Spread of a track about straight runs, m: the middle one of the spreads of short windows, each about its
 * own best line, so that corners do not count; 0 for fewer points than a window.
 */
export function noiseOf(points: readonly Point[]): number {
  if (points.length < WINDOW) return 0;
  const spreads: number[] = [];
  for (let i = 0; i + WINDOW <= points.length; i++) {
    const own = points.slice(i, i + WINDOW);
    const line = straightThrough(own);
    const squares = own.reduce((s, p) => s + offStraight(line, p) ** 2, 0);
    spreads.push(Math.sqrt(squares / (WINDOW - 2)));
  }
  return spreads.sort((a, b) => a - b)[spreads.length >> 1]!;
}

/** How near straight runs should keep to a track of this noise, m. */
export const toleranceOf = (points: readonly Point[]): number =>
  Math.max(LEAST, Math.ceil(10 * FURTHEST * noiseOf(points)) / 10);

/**
 * The straight runs behind a walked track: split where it leaves the straight by more than the tolerance
 * (Douglas and Peucker 1973), each run then laid through its own points by total least squares, corners
 * where neighbouring runs meet. A track that ends where it began stays closed.
 * @param tolerance_m 0 keeps every point
 */
export function fitWalk(points: readonly Point[], tolerance_m: number): Point[] {
  const kept = simplify(points, tolerance_m);
  if (kept.length < 2 || tolerance_m === 0) return kept;
  const ranks = merged(points, ranksOf(points, kept), tolerance_m);
  const closed = distance(points[0]!, points.at(-1)!) <= 2 * tolerance_m && ranks.length > 3;
  const runs = ranks.slice(1).map((to, i) => {
    const own = points.slice(ranks[i]!, to + 1);
    // What lies close to a corner belongs to both its runs, and to neither for certain.
    return own.length > 4 ? straightThrough(own.slice(1, -1)) : null;
  });
  const corner = (
    i: number,
    before: Straight | null | undefined,
    after: Straight | null | undefined,
  ) => {
    const p = points[ranks[i]!]!;
    const met = before && after ? meet(before, after) : null;
    if (met && distance(met, p) <= 3 * tolerance_m) return met;
    const own = after ?? before;
    return own ? footOn(own, p) : p;
  };
  const out = ranks.map((_, i) =>
    closed && (i === 0 || i === ranks.length - 1)
      ? corner(0, runs.at(-1), runs[0])
      : corner(i, runs[i - 1], runs[i]),
  );
  return out.filter((p, i) => i === 0 || distance(p, out[i - 1]!) > 0.01);
}

function ranksOf(points: readonly Point[], kept: readonly Point[]): number[] {
  let from = 0;
  return kept.map((p) => {
    from = points.indexOf(p, from);
    return from++;
  });
}

/** Runs put together again where one straight serves both: the split fell on a point that noise had moved. */
function merged(points: readonly Point[], ranks: readonly number[], tolerance_m: number): number[] {
  const out = [...ranks];
  for (let changed = true; changed;) {
    changed = false;
    for (let i = 1; i + 1 < out.length; i++) {
      const own = points.slice(out[i - 1]!, out[i + 1]! + 1);
      if (!serves(straightThrough(own), own, out[i]! - out[i - 1]!, tolerance_m)) continue;
      out.splice(i, 1);
      changed = true;
      i--;
    }
  }
  return out;
}

/** Whether one straight lies through all of these points, and the walk went on along it past one of them. */
function serves(line: Straight, own: readonly Point[], past: number, tolerance_m: number): boolean {
  const offs = own.map((p) => Math.abs(offStraight(line, p)));
  const spread = Math.sqrt(offs.reduce((s, x) => s + x * x, 0) / offs.length);
  // Among many points one may lie a little further off than the furthest usually does.
  if (spread > (1.2 * tolerance_m) / FURTHEST || Math.max(...offs) > 1.5 * tolerance_m)
    return false;
  const along = (p: Point) => (p.e - line.at.e) * line.along.e + (p.n - line.at.n) * line.along.n;
  const [a, b, c] = [along(own[0]!), along(own[past]!), along(own.at(-1)!)];
  return (b - a) * (c - b) > 0;
}

/** Where two lines meet; null where they are nearly one. */
function meet(a: Straight, b: Straight): Point | null {
  const det = a.along.e * b.along.n - a.along.n * b.along.e;
  if (Math.abs(det) < Math.sin((8 * Math.PI) / 180)) return null;
  const t = ((b.at.e - a.at.e) * b.along.n - (b.at.n - a.at.n) * b.along.e) / det;
  return { e: a.at.e + t * a.along.e, n: a.at.n + t * a.along.n };
}

function footOn({ at, along }: Straight, p: Point): Point {
  const t = (p.e - at.e) * along.e + (p.n - at.n) * along.n;
  return { e: at.e + t * along.e, n: at.n + t * along.n };
}

/** How far the furthest point of a track lies off a path, m. */
export const furthestOff = (points: readonly Point[], path: readonly Point[]): number =>
  points.reduce((most, p) => Math.max(most, nearest(path, p).off), 0);
