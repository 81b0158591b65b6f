/** Between local metres, projected coordinates and longitude/latitude. */
import proj4 from 'proj4';
import type { Plan, Point } from '../core/plan/schema.js';
import { FormatError } from './error.js';

export type Origin = Plan['origin'];
export type LonLat = readonly [lon: number, lat: number];

const WGS84 = 'EPSG:4326';

/** A projection made for one farm: transverse Mercator about a point, in metres. */
export const localProjection = ([lon, lat]: LonLat): string =>
  `+proj=tmerc +lat_0=${lat.toFixed(6)} +lon_0=${lon.toFixed(6)} +k=1 +x_0=0 +y_0=0 +ellps=WGS84 +units=m +no_defs`;

/** Origin of local metres at a longitude and latitude. */
export const originAt = (at: LonLat): Origin => ({ proj: localProjection(at), x: 0, y: 0 });

/**
 * A projection as a user names it: `utm 30n`, or a full proj definition in metres.
 * @throws FormatError when it is neither
 */
export function projection(text: string): string {
  const utm = /^utm\s*(\d{1,2})\s*([ns])$/i.exec(text.trim());
  if (utm) {
    const zone = Number(utm[1]);
    if (zone < 1 || zone > 60) throw new FormatError('projection', 'UTM zones run from 1 to 60');
    return `+proj=utm +zone=${zone}${utm[2]!.toLowerCase() === 's' ? ' +south' : ''} +datum=WGS84 +units=m +no_defs`;
  }
  if (text.trim().startsWith('+proj=')) {
    if (/\+proj=longlat/.test(text)) {
      throw new FormatError('projection', 'degrees are no metres: choose geographic instead');
    }
    tryProjection(text.trim());
    return text.trim();
  }
  throw new FormatError(
    'projection',
    'write it as "utm 30n", or as a definition that starts with +proj=',
  );
}

function tryProjection(definition: string): void {
  try {
    const [lon, lat] = proj4(definition, WGS84, [0, 0]);
    if (!Number.isFinite(lon) || !Number.isFinite(lat)) throw new Error('not finite');
  } catch {
    throw new FormatError('projection', 'this definition is not understood');
  }
}

/** Converters of one origin, made once: proj4 parses the definition each time it is named. */
export function converter(origin: Origin) {
  const lens = proj4(origin.proj, WGS84);
  return {
    toLonLat(p: Point): [number, number] {
      const [lon, lat] = lens.forward([origin.x + p.e, origin.y + p.n]);
      return [lon!, lat!];
    },
    fromLonLat(at: LonLat): Point {
      const [x, y] = lens.inverse([at[0], at[1]]);
      return { e: x! - origin.x, n: y! - origin.y };
    },
  };
}
