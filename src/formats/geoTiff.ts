/** A GeoTIFF of heights: its first band, where it lies, and in which coordinates. */
import { fromArrayBuffer } from 'geotiff';
import { FormatError } from './error.js';
import { epsgProjection } from './projection.js';
import type { RawGrid } from './asciiGrid.js';

const MAX_CELLS = 4_000_000;

export interface TiffGround {
  readonly raw: RawGrid;
  /** What its own keys say of the coordinates; null when they say nothing that is known. */
  readonly reference: 'geographic' | { readonly projection: string } | null;
}

/**
 * Reads the heights of a GeoTIFF. Cells that are not square are read onto square ones of the shorter
 * side.
 * @throws FormatError for a broken file, one that is turned, or one of too many cells
 */
export async function readGeoTiff(bytes: Uint8Array): Promise<TiffGround> {
  try {
    const buffer = bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength);
    const image = await (await fromArrayBuffer(buffer as ArrayBuffer)).getImage();
    const [cols, rows] = [image.getWidth(), image.getHeight()];
    if (cols * rows > MAX_CELLS)
      throw new FormatError('', `more than ${MAX_CELLS} cells; cut it to the property first`);
    if (cols < 2 || rows < 2)
      throw new FormatError('', 'a grid needs two rows and columns at least');
    const directory = image.fileDirectory;
    if (hasTurn(directory)) throw new FormatError('', 'a grid that is turned is not read');
    const [west, north] = image.getOrigin();
    const [dx, dy] = image.getResolution();
    if (!(dx! > 0) || !(dy! < 0))
      throw new FormatError('', 'its rows must run from north to south');
    const keys = (image.getGeoKeys() ?? {}) as Record<string, number>;
    const [band] = (await image.readRasters({ samples: [0] })) as unknown as [ArrayLike<number>];
    const nodata = image.getGDALNoData();
    // A value stands for the middle of its cell, or for its corner where the file says so.
    const half = keys['GTRasterTypeGeoKey'] === 2 ? 0 : 0.5;
    const z = (i: number, j: number): number | null => {
      const v = band[(rows - 1 - j) * cols + i]!;
      return Number.isFinite(v) && v !== nodata && Math.abs(v) < 1e5 ? v : null;
    };
    const raw = squared(
      cols,
      rows,
      west! + half * dx!,
      north! + (rows - 1 + half) * dy!,
      dx!,
      -dy!,
      z,
    );
    if (raw.z.every((v) => v === null)) throw new FormatError('', 'it holds no height');
    return { raw, reference: referenceOf(keys) };
  } catch (error) {
    if (error instanceof FormatError) throw error;
    throw new FormatError('', `not a GeoTIFF that can be read: ${(error as Error).message}`);
  }
}

interface Directory {
  getValue?(name: string): unknown;
  readonly ModelTransformation?: ArrayLike<number>;
}

function hasTurn(directory: unknown): boolean {
  const d = directory as Directory;
  const m = (d.ModelTransformation ?? d.getValue?.('ModelTransformation')) as
    ArrayLike<number> | undefined;
  return m !== undefined && (Math.abs(m[1]!) > 1e-9 || Math.abs(m[4]!) > 1e-9);
}

function referenceOf(keys: Record<string, number>): TiffGround['reference'] {
  if (keys['GTModelTypeGeoKey'] === 2) return 'geographic';
  const known = epsgProjection(keys['ProjectedCSTypeGeoKey'] ?? 0);
  return known === null ? null : { projection: known };
}

/** Rows from the south on square cells; bilinear where they were not square. */
function squared(
  cols: number,
  rows: number,
  x0: number,
  y0: number,
  dx: number,
  dy: number,
  z: (i: number, j: number) => number | null,
): RawGrid {
  const cell = Math.min(dx, dy);
  const square = Math.abs(dx - dy) <= 1e-9 * cell;
  const [nx, ny] = square
    ? [cols, rows]
    : [
        Math.floor(((cols - 1) * dx) / cell + 1e-9) + 1,
        Math.floor(((rows - 1) * dy) / cell + 1e-9) + 1,
      ];
  if (nx * ny > MAX_CELLS) throw new FormatError('', 'its cells are too far from square');
  const out: (number | null)[] = [];
  for (let j = 0; j < ny; j++) {
    for (let i = 0; i < nx; i++) {
      if (square) out.push(z(i, j));
      else {
        const [u, v] = [(i * cell) / dx, (j * cell) / dy];
        const [a, b] = [Math.min(cols - 2, Math.floor(u)), Math.min(rows - 2, Math.floor(v))];
        const [p, q] = [u - a, v - b];
        const four = [z(a, b), z(a + 1, b), z(a, b + 1), z(a + 1, b + 1)];
        out.push(
          four.some((h) => h === null)
            ? null
            : (1 - q) * ((1 - p) * four[0]! + p * four[1]!) +
                q * ((1 - p) * four[2]! + p * four[3]!),
        );
      }
    }
  }
  return { x0, y0, cell, cols: nx, rows: ny, z: out };
}
