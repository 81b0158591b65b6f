/** Heights from GeoTIFFs that the general library writes; the geographic tools, where they are, try more. */
import { writeArrayBuffer } from 'geotiff';
import { describe, expect, it } from 'vitest';
import { readGeoTiff } from '../../src/formats/geoTiff.js';

interface Shape {
  readonly cols: number;
  readonly rows: number;
  readonly dx: number;
  readonly dy: number;
  readonly keys?: object;
}
const WEST = 440_000;
const NORTH = 6_020_000;

/** A plane of heights, rows from the north; the value of a cell is the plane at its middle. */
const plane = (e: number, n: number) => 200 + 0.1 * (e - WEST) - 0.05 * (n - NORTH);
function tiff({ cols, rows, dx, dy, keys = {} }: Shape, change?: (z: Float32Array) => void) {
  const z = new Float32Array(cols * rows);
  for (let k = 0; k < cols * rows; k++) {
    const [i, j] = [k % cols, Math.floor(k / cols)];
    z[k] = plane(WEST + (i + 0.5) * dx, NORTH - (j + 0.5) * dy);
  }
  change?.(z);
  return new Uint8Array(
    writeArrayBuffer(z, { width: cols, height: rows, ModelPixelScale: [dx, dy, 0], ModelTiepoint: [0, 0, 0, WEST, NORTH, 0], GTModelTypeGeoKey: 1, ProjectedCSTypeGeoKey: 32630, GTRasterTypeGeoKey: 1, GDAL_NODATA: '-9999', ...keys } as never), // prettier-ignore
  );
}
/** Largest difference between a grid and the plane. */
const off = ({ raw }: Awaited<ReturnType<typeof readGeoTiff>>) =>
  Math.max(
    ...raw.z.map((z, k) => {
      const [i, j] = [k % raw.cols, Math.floor(k / raw.cols)];
      return Math.abs(z! - plane(raw.x0 + i * raw.cell, raw.y0 + j * raw.cell));
    }),
  );

describe('a GeoTIFF', () => {
  it('of square cells: rows from the south, each value at the middle of its cell', async () => {
    const read = await readGeoTiff(tiff({ cols: 5, rows: 4, dx: 10, dy: 10 }));
    expect(read.raw).toMatchObject({ cols: 5, rows: 4, cell: 10, x0: WEST + 5, y0: NORTH - 35 });
    expect(off(read)).toBeLessThan(1e-3);
    expect((read.reference as { projection: string }).projection).toContain('+zone=30');
  });

  it.each([
    [10, 4],
    [4, 10],
  ])('of cells of %i by %i m is read onto square ones of the shorter side', async (dx, dy) => {
    // prettier-ignore
    const read = await readGeoTiff(tiff({ cols: 6, rows: 6, dx, dy }));
    expect(read.raw.cell).toBe(4);
    expect(Math.max(read.raw.cols, read.raw.rows)).toBe(13);
    expect(Math.min(read.raw.cols, read.raw.rows)).toBe(6);
    expect(off(read)).toBeLessThan(1e-3);
  });

  it('knows what it does not know, and lets no gap into what lies around it', async () => {
    const holed = await readGeoTiff(tiff({ cols: 5, rows: 4, dx: 10, dy: 10 }, (z) => void (z[7] = -9999))); // prettier-ignore
    // Row 1 from the north is row 2 from the south.
    expect(holed.raw.z.flatMap((z, k) => (z === null ? [k] : []))).toEqual([2 * 5 + 2]);
    const wide = await readGeoTiff(tiff({ cols: 5, rows: 4, dx: 10, dy: 5 }, (z) => void (z[7] = -9999))); // prettier-ignore
    expect(wide.raw.z.filter((z) => z === null).length).toBeGreaterThan(1);
    await expect(readGeoTiff(tiff({ cols: 3, rows: 3, dx: 1, dy: 1 }, (z) => void z.fill(-9999)))).rejects.toThrow('holds no height'); // prettier-ignore
  });

  it('is refused where it cannot be read as a grid', async () => {
    await expect(readGeoTiff(tiff({ cols: 1, rows: 5, dx: 1, dy: 1 }))).rejects.toThrow('two rows and columns'); // prettier-ignore
    await expect(readGeoTiff(tiff({ cols: 5, rows: 1, dx: 1, dy: 1 }))).rejects.toThrow('two rows and columns'); // prettier-ignore
    await expect(readGeoTiff(new Uint8Array([1, 2, 3]))).rejects.toThrow('not a GeoTIFF');
  });
});
