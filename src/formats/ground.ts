/** Ground files to a grid in local metres. */
import type { Grid } from '../core/plan/schema.js';
import { gridFromSpots } from '../core/terrain/gridding.js';
import { heightAt } from '../core/terrain/ground.js';
import { FormatError } from './error.js';
import { parseAsciiGrid, type RawGrid } from './asciiGrid.js';
import { parseCsvPoints } from './csvPoints.js';
import { readGeoTiff } from './geoTiff.js';
import { converter, originAt, projection, type LonLat, type Origin } from './projection.js';

/** What the file's coordinates are: degrees, a projection, or plain metres of the site. */
export type Reference = 'geographic' | 'local' | { readonly projection: string };

export interface PlacedGround {
  readonly grid: Grid;
  readonly origin: Origin;
}

/**
 * Reads a ground file and puts it in local metres.
 * @param origin the property's origin, or null to make one from the file
 * @throws FormatError naming the place and the reason
 */
export function readGround(
  format: 'asc' | 'csv',
  text: string,
  reference: Reference,
  origin: Origin | null,
): PlacedGround {
  checkSize(text.length);
  if (format === 'asc') return placeGrid(parseAsciiGrid(text), reference, origin);
  const points = parseCsvPoints(text);
  if (points.length < 3) throw new FormatError('', 'a ground needs at least three points');
  const first = points[0]!;
  const home = origin ?? newOrigin(reference, first.x, first.y);
  const local = toLocal(reference, home);
  const spots = points.map((p) => ({ ...local([p.x, p.y]), z: p.z }));
  return { grid: made(() => gridFromSpots(spots)), origin: home };
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
 * Reads a GeoTIFF of heights; its own keys say what its coordinates are, else `reference` does.
 * @throws FormatError naming the reason
 */
export async function readGroundTiff(
  bytes: Uint8Array,
  reference: Reference,
  origin: Origin | null,
): Promise<PlacedGround> {
  checkSize(bytes.length);
  const tiff = await readGeoTiff(bytes);
  return placeGrid(tiff.raw, tiff.reference ?? reference, origin);
}

function newOrigin(reference: Reference, x: number, y: number): Origin {
  if (reference === 'geographic') return originAt(degrees([x, y]));
  // Plain metres of a site lie nowhere on the globe; they are kept as they are.
  if (reference === 'local') return originAt([0, 0]);
  return { proj: projection(reference.projection), x: Math.round(x), y: Math.round(y) };
}

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
  if (reference === 'local') return ([x, y]: LonLat) => ({ e: x, n: y });
  const own = converter(home);
  if (reference === 'geographic') return (at: LonLat) => own.fromLonLat(degrees(at));
  const proj = projection(reference.projection);
  if (proj === home.proj) return ([x, y]: LonLat) => ({ e: x - home.x, n: y - home.y });
  const theirs = converter({ proj, x: 0, y: 0 });
  return ([x, y]: LonLat) => own.fromLonLat(theirs.toLonLat({ e: x, n: y }));
}

function placeGrid(raw: RawGrid, reference: Reference, origin: Origin | null): PlacedGround {
  const home = origin ?? newOrigin(reference, raw.x0, raw.y0);
  const straight =
    reference === 'local' ||
    (reference !== 'geographic' && projection(reference.projection) === home.proj);
  if (straight) {
    const shift = reference === 'local' ? { x: 0, y: 0 } : home;
    const grid = gridOf(raw, raw.x0 - shift.x, raw.y0 - shift.y, raw.cell);
    return { grid, origin: home };
  }
  return { grid: resample(raw, reference, home), origin: home };
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
