/** Ground files to a grid in local metres. */
import type { Grid } from '../core/plan/schema.js';
import { gridFromSpots } from '../core/terrain/gridding.js';
import { heightAt } from '../core/terrain/ground.js';
import { FormatError } from './error.js';
import { parseAsciiGrid, type RawGrid } from './asciiGrid.js';
import { parseCsvPoints } from './csvPoints.js';
import { readGeoTiff } from './geoTiff.js';
import { converter, projection, type LonLat, type Origin } from './projection.js';
import {
  asSaid,
  guessReference,
  originFor,
  placed,
  type Box,
  type Guess,
  type Reference,
} from './reference.js';

export type { Reference };

export interface PlacedGround {
  readonly grid: Grid;
  readonly origin: Origin;
  /** What the file's coordinates were taken for, and whether that is certain. */
  readonly as: Guess;
}

/** What the user said the coordinates are, or what they most likely are. */
function referenceFor(said: Reference | 'guess', box: Box, origin: Origin | null): Guess {
  return said === 'guess' ? guessReference(box, origin) : asSaid(said);
}

const boxOf = (raw: RawGrid): Box => [
  raw.x0,
  raw.y0,
  raw.x0 + (raw.cols - 1) * raw.cell,
  raw.y0 + (raw.rows - 1) * raw.cell,
];

/**
 * Reads a ground file and puts it in local metres.
 * @param said what the file's coordinates are; 'guess' to find out by its numbers
 * @param origin the property's origin, or null to make one from the file
 * @throws FormatError naming the place and the reason
 */
export function readGround(
  format: 'asc' | 'csv',
  text: string,
  said: Reference | 'guess',
  origin: Origin | null,
): PlacedGround {
  checkSize(text.length);
  if (format === 'asc') {
    const raw = parseAsciiGrid(text);
    return placeGrid(raw, referenceFor(said, boxOf(raw), origin), origin);
  }
  const points = parseCsvPoints(text);
  if (points.length < 3) throw new FormatError('', 'a ground needs at least three points');
  const first = points[0]!;
  const least = (of: (p: (typeof points)[number]) => number) => points.reduce((m, p) => Math.min(m, of(p)), Infinity); // prettier-ignore
  const box: Box = [least((p) => p.x), least((p) => p.y), -least((p) => -p.x), -least((p) => -p.y)];
  const as = referenceFor(said, box, origin);
  const home = origin ?? newOrigin(as.reference, first.x, first.y);
  const local = toLocal(as.reference, home);
  const spots = points.map((p) => ({ ...local([p.x, p.y]), z: p.z }));
  return { grid: made(() => gridFromSpots(spots)), origin: home, as };
}

/** Largest ground file that is read, bytes. */
export const MAX_GROUND_BYTES = 40 * 1024 * 1024;

function checkSize(bytes: number): void {
  if (bytes > MAX_GROUND_BYTES)
    throw new FormatError(
      '',
      `larger than ${MAX_GROUND_BYTES / 1024 / 1024} MB; cut it to the property first`,
    );
}

/**
 * Reads a GeoTIFF of heights; its own keys say what its coordinates are, else `said` does.
 * @throws FormatError naming the reason
 */
export async function readGroundTiff(
  bytes: Uint8Array,
  said: Reference | 'guess',
  origin: Origin | null,
): Promise<PlacedGround> {
  checkSize(bytes.length);
  const { raw, reference } = await readGeoTiff(bytes);
  const as = reference
    ? { reference, words: 'the file itself says', sure: true }
    : referenceFor(said, boxOf(raw), origin);
  return placeGrid(raw, as, origin);
}

const newOrigin = (reference: Reference, x: number, y: number): Origin =>
  originFor(reference, reference === 'geographic' ? degrees([x, y]) : [x, y]);

function degrees([lon, lat]: LonLat): LonLat {
  if (!(Math.abs(lon) <= 180 && Math.abs(lat) <= 89)) {
    throw new FormatError(
      'coordinates',
      `${lon}, ${lat} are no degrees; say which projection the file has`,
    );
  }
  return [lon, lat];
}

/** File coordinates to local metres. */
function toLocal(reference: Reference, home: Origin) {
  const to = placed(reference, home);
  return reference === 'geographic' ? (at: LonLat) => to(degrees(at)) : to;
}

function placeGrid(raw: RawGrid, as: Guess, origin: Origin | null): PlacedGround {
  const { reference } = as;
  const home = origin ?? newOrigin(reference, raw.x0, raw.y0);
  const straight =
    reference === 'local' ||
    (reference !== 'geographic' && projection(reference.projection) === home.proj);
  if (straight) {
    const { e, n } = toLocal(reference, home)([raw.x0, raw.y0]);
    return { grid: gridOf(raw, e, n, raw.cell), origin: home, as };
  }
  return { grid: resample(raw, reference, home), origin: home, as };
}

const gridOf = (raw: RawGrid, east0_m: number, north0_m: number, cell_m: number): Grid => ({
  east0_m,
  north0_m,
  cell_m,
  cols: raw.cols,
  rows: raw.rows,
  z_m: raw.z,
});

/** A grid in other coordinates, read bilinearly onto square local metres of about its own step. */
function resample(raw: RawGrid, reference: Reference, home: Origin): Grid {
  const local = toLocal(reference, home);
  const rim: LonLat[] = [];
  const last = { x: raw.x0 + (raw.cols - 1) * raw.cell, y: raw.y0 + (raw.rows - 1) * raw.cell };
  for (const x of [raw.x0, last.x]) for (const y of [raw.y0, last.y]) rim.push([x, y]);
  const corners = rim.map(local);
  const west = Math.min(...corners.map((p) => p.e));
  const east = Math.max(...corners.map((p) => p.e));
  const south = Math.min(...corners.map((p) => p.n));
  const north = Math.max(...corners.map((p) => p.n));
  const cell = Math.min((east - west) / (raw.cols - 1), (north - south) / (raw.rows - 1));
  const cols = Math.floor((east - west) / cell) + 1;
  const rows = Math.floor((north - south) / cell) + 1;
  if (!(cell > 0) || cols > 5000 || rows > 5000) {
    throw new FormatError(
      'coordinates',
      'the grid comes out too large in metres; is the reference right?',
    );
  }
  const source = { kind: 'grid' as const, ...gridOf(raw, raw.x0, raw.y0, raw.cell) };
  const back = fromLocal(reference, home);
  const z_m: (number | null)[] = [];
  for (let j = 0; j < rows; j++) {
    for (let i = 0; i < cols; i++) {
      const [x, y] = back({ e: west + i * cell, n: south + j * cell });
      const z = heightAt(source, { e: x, n: y });
      z_m.push(Number.isNaN(z) ? null : Math.round(z * 1000) / 1000);
    }
  }
  return { east0_m: west, north0_m: south, cell_m: cell, cols, rows, z_m };
}

function fromLocal(reference: Reference, home: Origin) {
  const own = converter(home);
  if (reference === 'geographic' || reference === 'local') return own.toLonLat;
  const theirs = converter({ proj: projection(reference.projection), x: 0, y: 0 });
  return (p: { e: number; n: number }): LonLat => {
    const at = theirs.fromLonLat(own.toLonLat(p));
    return [at.e, at.n];
  };
}

function made(make: () => Grid): Grid {
  try {
    return make();
  } catch (error) {
    throw new FormatError('', (error as Error).message);
  }
}
