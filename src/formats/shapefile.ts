/** A zipped shapefile to GeoJSON, unpacked only as far as it is wanted. */
import { unzipSync } from 'fflate';
import { combine, parseDbf, parseShp } from 'shpjs';
import { FormatError } from './error.js';

const MAX_UNPACKED = 32 * 1024 * 1024;

/**
 * Reads the first shapefile of a zip archive. Coordinates come out in longitude and latitude, by its
 * `.prj` where there is one.
 * @throws FormatError for a broken archive, one that swells, or one without a shapefile
 */
export function shapefileToGeoJson(zip: Uint8Array): unknown {
  const files = unpack(zip);
  const shp = Object.keys(files).find((f) => f.toLowerCase().endsWith('.shp'));
  if (!shp) throw new FormatError('', 'there is no .shp file in this archive');
  const beside = (suffix: string) => {
    const wanted = shp.slice(0, -4).toLowerCase() + suffix;
    const name = Object.keys(files).find((f) => f.toLowerCase() === wanted);
    return name === undefined ? undefined : files[name];
  };
  const text = (bytes: Uint8Array | undefined) =>
    bytes === undefined ? undefined : new TextDecoder().decode(bytes);
  try {
    const shapes = parseShp(files[shp]!, text(beside('.prj')));
    const dbf = beside('.dbf');
    if (dbf) checkTable(dbf);
    const rows = dbf ? parseDbf(dbf, text(beside('.cpg'))) : shapes.map(() => ({}));
    return combine([shapes, rows]);
  } catch (error) {
    if (error instanceof FormatError) throw error;
    throw new FormatError(shp, `not a sound shapefile: ${(error as Error).message}`);
  }
}

/** The header of a table says how many rows there are: no more are believed than the file can hold. */
function checkTable(dbf: Uint8Array): void {
  const view = new DataView(dbf.buffer, dbf.byteOffset, dbf.byteLength);
  if (dbf.length < 32) throw new FormatError('.dbf', 'its header is cut short');
  const [rows, header, row] = [
    view.getUint32(4, true),
    view.getUint16(8, true),
    view.getUint16(10, true),
  ];
  if (row === 0 || header + rows * row > dbf.length + 1)
    throw new FormatError('.dbf', 'its header claims more rows than it holds');
}

function unpack(zip: Uint8Array): Record<string, Uint8Array> {
  let size = 0;
  try {
    const files = unzipSync(zip, {
      filter: (file) => {
        if (!/\.(shp|dbf|prj|cpg)$/i.test(file.name)) return false;
        size += file.originalSize;
        if (size > MAX_UNPACKED)
          throw new FormatError(file.name, 'the archive unpacks to more than 32 MB');
        return true;
      },
    });
    // The archive's own word for the sizes may be too low.
    if (Object.values(files).reduce((n, f) => n + f.length, 0) > MAX_UNPACKED)
      throw new FormatError('', 'the archive unpacks to more than 32 MB');
    return files;
  } catch (error) {
    if (error instanceof FormatError) throw error;
    throw new FormatError('', `not a zip archive: ${(error as Error).message}`);
  }
}
