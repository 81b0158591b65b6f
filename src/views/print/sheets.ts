/** Paper, scale and how a property falls onto sheets; millimetres on paper, metres on the ground. */
import type { Point } from '../../core/plan/schema.js';

export const PAPERS = {
  'A4 landscape': [297, 210],
  'A4 portrait': [210, 297],
  'A3 landscape': [420, 297],
  'A3 portrait': [297, 420],
} as const;
export type Paper = keyof typeof PAPERS;

export const SCALES = [500, 1000, 1250, 2000, 2500, 5000, 10000, 20000, 25000, 50000] as const;

/** White rim that printers leave, and the strip below the map for title, bar and key, mm. */
export const MARGIN = 10;
export const STRIP = 26;
/** How much neighbouring sheets share, mm. */
const OVERLAP = 10;

export interface Box {
  readonly west: number;
  readonly south: number;
  readonly east: number;
  readonly north: number;
}

/** The map's own size on a paper, mm. */
export function mapSize(paper: Paper): [number, number] {
  const [w, h] = PAPERS[paper];
  return [w - 2 * MARGIN, h - 2 * MARGIN - STRIP];
}

/** The box of all points with a rim around, m. */
export function boxOf(points: readonly Point[], rim_m = 15): Box {
  let [west, south, east, north] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const p of points) {
    west = Math.min(west, p.e);
    east = Math.max(east, p.e);
    south = Math.min(south, p.n);
    north = Math.max(north, p.n);
  }
  if (west > east) [west, south, east, north] = [-100, -100, 100, 100];
  return { west: west - rim_m, south: south - rim_m, east: east + rim_m, north: north + rim_m };
}

/** The largest usual scale at which a box falls onto one sheet. */
export function scaleFor(box: Box, paper: Paper): number {
  const [w, h] = mapSize(paper);
  const fits = (s: number) =>
    ((box.east - box.west) * 1000) / s <= w && ((box.north - box.south) * 1000) / s <= h;
  return SCALES.find(fits) ?? SCALES.at(-1)!;
}

/** A sheet: what it shows of the ground, and its place among the others. */
export interface Sheet {
  readonly box: Box;
  readonly row: number;
  readonly col: number;
}

/** Sheets that cover a box at a scale, row by row from the north-west; centred on it. */
export function sheetsOf(box: Box, paper: Paper, scale: number): Sheet[] {
  const [w, h] = mapSize(paper).map((mm) => (mm * scale) / 1000) as [number, number];
  const lap = (OVERLAP * scale) / 1000;
  const count = (length: number, sheet: number) =>
    length <= sheet ? 1 : Math.ceil((length - lap) / (sheet - lap));
  const [cols, rows] = [count(box.east - box.west, w), count(box.north - box.south, h)];
  const wide = cols * w - (cols - 1) * lap;
  const high = rows * h - (rows - 1) * lap;
  const west0 = (box.west + box.east) / 2 - wide / 2;
  const north0 = (box.south + box.north) / 2 + high / 2;
  const out: Sheet[] = [];
  for (let row = 0; row < rows; row++) {
    for (let col = 0; col < cols; col++) {
      const west = west0 + col * (w - lap);
      const north = north0 - row * (h - lap);
      out.push({ row, col, box: { west, east: west + w, north, south: north - h } });
    }
  }
  return out;
}
