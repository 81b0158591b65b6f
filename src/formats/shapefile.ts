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
    const rows = dbf ? parseDbf(dbf, text(beside('.cpg'))) : shapes.map(() => ({}));
    return combine([shapes, rows]);
  } catch (error) {
    throw new FormatError(shp, `not a sound shapefile: ${(error as Error).message}`);
  }
}

function unpack(zip: Uint8Array): Record<string, Uint8Array> {
  let size = 0;
  try {
    return unzipSync(zip, {
      filter: (file) => {
        if (!/\.(shp|dbf|prj|cpg)$/i.test(file.name)) return false;
        size += file.originalSize;
        if (size > MAX_UNPACKED)
          throw new FormatError(file.name, 'the archive unpacks to more than 32 MB');
        return true;
      },
    });
  } catch (error) {
    if (error instanceof FormatError) throw error;
    throw new FormatError('', `not a zip archive: ${(error as Error).message}`);
  }
}
