/** Pictures of the ground: contours and hill shade. */
import { contours } from 'd3-contour';
import type { Grid, Point } from '../plan/schema.js';

export interface Contour {
  readonly z_m: number;
  readonly lines: readonly (readonly Point[])[];
}

/** A round contour interval (1, 2 or 5 times a power of ten) that gives about `aim` contours. */
export function contourInterval(low: number, high: number, aim = 24): number {
  const rough = Math.max(1e-3, (high - low) / aim);
  const power = 10 ** Math.floor(Math.log10(rough));
  const lead = rough / power;
  return power * (lead <= 1 ? 1 : lead <= 2 ? 2 : lead <= 5 ? 5 : 10);
}

/** Lowest and highest known height of a grid; [0, 0] when none is known. */
export function heightRange(grid: Grid): [number, number] {
  let low = Infinity;
  let high = -Infinity;
  for (const z of grid.z_m) {
    if (z === null) continue;
    if (z < low) low = z;
    if (z > high) high = z;
  }
  return low <= high ? [low, high] : [0, 0];
}

/** Contour lines of a grid at whole multiples of `interval`, cut open where they meet the rim. */
export function contourLines(grid: Grid, interval: number): Contour[] {
  const [low, high] = heightRange(grid);
  const levels: number[] = [];
  for (let k = Math.ceil(low / interval); k * interval <= high; k++) levels.push(k * interval);
  const values = grid.z_m.map((z) => z ?? low - interval);
  const shapes = contours().size([grid.cols, grid.rows]).thresholds(levels)(values);
  return shapes.map((shape) => ({
    z_m: shape.value,
    lines: shape.coordinates.flatMap((polygon) =>
      polygon.flatMap((ring) => openRing(ring as [number, number][], grid)),
    ),
  }));
}

/** Splits a ring where it runs along the rim, or beside what is not known: those pieces are no contour. */
function openRing(ring: readonly [number, number][], grid: Grid): Point[][] {
  const out: Point[][] = [];
  let piece: Point[] = [];
  const held = (k: number, most: number) => Math.min(most - 1, Math.max(0, k));
  const unknown = (i: number, j: number) =>
    grid.z_m[held(j, grid.rows) * grid.cols + held(i, grid.cols)] === null;
  const outside = ([x, y]: [number, number]) =>
    x <= 0.5 || y <= 0.5 || x >= grid.cols - 0.5 || y >= grid.rows - 0.5;
  const besideUnknown = ([x, y]: [number, number]) => {
    const [i, j] = [x - 0.5, y - 0.5].map(Math.floor) as [number, number];
    const [k, l] = [Math.ceil(x - 0.5), Math.ceil(y - 0.5)];
    return unknown(i, j) || unknown(k, j) || unknown(i, l) || unknown(k, l);
  };
  // d3-contour puts the value of cell (i, j) at (i + 0.5, j + 0.5).
  const local = ([x, y]: [number, number]): Point => ({
    e: grid.east0_m + (x - 0.5) * grid.cell_m,
    n: grid.north0_m + (y - 0.5) * grid.cell_m,
  });
  ring.forEach((p, i) => {
    const next = ring[i + 1];
    if (!besideUnknown(p)) piece.push(local(p));
    else {
      if (piece.length > 1) out.push(piece);
      piece = [];
      return;
    }
    if (!next || (outside(p) && outside(next))) {
      if (piece.length > 1) out.push(piece);
      piece = [];
    }
  });
  return out;
}

/**
 * Hill shade 0 (dark) to 255 for each grid value, lit from the north-west at 45 degrees:
 * cosine of the angle between light and surface normal [practice].
 * @param exaggeration how many times the heights are stretched before lighting
 */
export function hillShade(grid: Grid, exaggeration = 2): Uint8ClampedArray {
  const { cols, rows, cell_m, z_m } = grid;
  const out = new Uint8ClampedArray(cols * rows);
  const at = (i: number, j: number) =>
    z_m[Math.min(rows - 1, Math.max(0, j)) * cols + Math.min(cols - 1, Math.max(0, i))] ?? NaN;
  const level = 255 * Math.SQRT1_2;
  for (let j = 0; j < rows; j++) {
    for (let i = 0; i < cols; i++) {
      const dx = ((at(i + 1, j) - at(i - 1, j)) / (2 * cell_m)) * exaggeration;
      const dy = ((at(i, j + 1) - at(i, j - 1)) / (2 * cell_m)) * exaggeration;
      const lit = (0.5 * dx - 0.5 * dy + Math.SQRT1_2) / Math.sqrt(1 + dx * dx + dy * dy);
      // Beside what is not known nothing is in shade.
      out[j * cols + i] = Number.isNaN(lit) ? level : 255 * Math.max(0, lit);
    }
  }
  return out;
}

/** Grade of a grid at every value, rise over run; 0 where it is not known. */
export function slopeOf(grid: Grid): Float32Array {
  const { cols, rows, cell_m, z_m } = grid;
  const out = new Float32Array(cols * rows);
  const at = (i: number, j: number) =>
    z_m[Math.min(rows - 1, Math.max(0, j)) * cols + Math.min(cols - 1, Math.max(0, i))] ?? NaN;
  for (let j = 0; j < rows; j++) {
    for (let i = 0; i < cols; i++) {
      const run = (k: number, most: number) => (k === 0 || k === most - 1 ? cell_m : 2 * cell_m);
      const dx = (at(i + 1, j) - at(i - 1, j)) / run(i, cols);
      const dy = (at(i, j + 1) - at(i, j - 1)) / run(j, rows);
      const grade = Math.hypot(dx, dy);
      out[j * cols + i] = Number.isNaN(grade) ? 0 : grade;
    }
  }
  return out;
}
