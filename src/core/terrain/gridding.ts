/** A grid from scattered points, by linear interpolation over their triangulation. */
import { Delaunay } from 'd3-delaunay';
import type { Grid } from '../plan/schema.js';

export interface Spot {
  readonly e: number;
  readonly n: number;
  readonly z: number;
}

/**
 * Grid of the points' bounding box; values outside their convex hull are null.
 * @param cell_m grid step, or undefined for about the points' own spacing
 * @throws RangeError when fewer than three points, or all on one line
 */
export function gridFromSpots(spots: readonly Spot[], cell_m?: number): Grid {
  if (spots.length < 3) throw new RangeError('a ground needs at least three points');
  const west = spots.reduce((m, p) => Math.min(m, p.e), Infinity);
  const south = spots.reduce((m, p) => Math.min(m, p.n), Infinity);
  const width = spots.reduce((m, p) => Math.max(m, p.e), -Infinity) - west;
  const depth = spots.reduce((m, p) => Math.max(m, p.n), -Infinity) - south;
  const own = Math.sqrt((width * depth) / spots.length);
  const cell = cell_m ?? Math.max(own, Math.max(width, depth) / 1000);
  if (!(cell > 0))
    throw new RangeError('the points lie on one line: no ground can be made of them');
  const triangles = Delaunay.from(
    spots,
    (p) => p.e - west,
    (p) => p.n - south,
  ).triangles;
  const cols = Math.max(2, Math.floor(width / cell + 1e-9) + 1);
  const rows = Math.max(2, Math.floor(depth / cell + 1e-9) + 1);
  if (cols > 5000 || rows > 5000)
    throw new RangeError('the grid would be over 5000 cells wide; give a larger cell');
  const z_m = new Array<number | null>(cols * rows).fill(null);
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [spots[triangles[t]!]!, spots[triangles[t + 1]!]!, spots[triangles[t + 2]!]!];
    fillTriangle(z_m, cols, rows, cell, west, south, a, b, c);
  }
  if (z_m.every((z) => z === null)) {
    throw new RangeError('the points lie on one line: no ground can be made of them');
  }
  return { east0_m: west, north0_m: south, cell_m: cell, cols, rows, z_m };
}

function fillTriangle(
  z_m: (number | null)[],
  cols: number,
  rows: number,
  cell: number,
  west: number,
  south: number,
  a: Spot,
  b: Spot,
  c: Spot,
): void {
  const area = (b.e - a.e) * (c.n - a.n) - (c.e - a.e) * (b.n - a.n);
  if (area === 0) return;
  const column = (e: number) => (e - west) / cell;
  const row = (n: number) => (n - south) / cell;
  const i0 = Math.max(0, Math.ceil(column(Math.min(a.e, b.e, c.e)) - 1e-9));
  const i1 = Math.min(cols - 1, Math.floor(column(Math.max(a.e, b.e, c.e)) + 1e-9));
  const j0 = Math.max(0, Math.ceil(row(Math.min(a.n, b.n, c.n)) - 1e-9));
  const j1 = Math.min(rows - 1, Math.floor(row(Math.max(a.n, b.n, c.n)) + 1e-9));
  for (let j = j0; j <= j1; j++) {
    for (let i = i0; i <= i1; i++) {
      const e = west + i * cell;
      const n = south + j * cell;
      const v = ((e - a.e) * (c.n - a.n) - (c.e - a.e) * (n - a.n)) / area;
      const w = ((b.e - a.e) * (n - a.n) - (e - a.e) * (b.n - a.n)) / area;
      if (v < -1e-9 || w < -1e-9 || v + w > 1 + 1e-9) continue;
      z_m[j * cols + i] = a.z + v * (b.z - a.z) + w * (c.z - a.z);
    }
  }
}
