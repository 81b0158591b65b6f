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

const NOWHERE = localProjection([0, 0]);
/** Whether local metres were counted from 0, 0 of nothing: such a property has no place on the globe. */
export const nowhere = (origin: Origin): boolean => origin.proj === NOWHERE;

/**
 * A projection as a user names it: `utm 30n`, `epsg 27700`, or a full proj definition in metres.
 * @throws FormatError when it is neither
 */
export function projection(text: string): string {
  const utm = /^utm\s*(\d{1,2})\s*([ns])$/i.exec(text.trim());
  if (utm) {
    const zone = Number(utm[1]);
    if (zone < 1 || zone > 60) throw new FormatError('projection', 'UTM zones run from 1 to 60');
    return `+proj=utm +zone=${zone}${utm[2]!.toLowerCase() === 's' ? ' +south' : ''} +datum=WGS84 +units=m +no_defs`;
  }
  const epsg = /^epsg\s*:?\s*(\d{4,5})$/i.exec(text.trim());
  if (epsg) {
    const known = epsgProjection(Number(epsg[1]));
    if (known) return known;
    throw new FormatError(
      'projection',
      `EPSG ${epsg[1]} does not ship; give its +proj= definition`,
    );
  }
  if (text.trim().startsWith('+proj=')) {
    if (/\+proj=longlat/.test(text)) {
      throw new FormatError('projection', 'degrees are no metres: choose geographic instead');
    }
    tryProjection(text.trim());
    return text.trim();
  }
  const zone = /^(?:utm)?\s*(?:zone)?\s*(\d{1,2})\s*(north|south|n|s)$/i.exec(text.trim());
  throw new FormatError(
    'projection',
    zone
      ? `"${text.trim()}" names no projection by itself: for that zone of UTM write "utm ${zone[1]}${zone[2]![0]!.toLowerCase()}"`
      : 'write it as "utm 30n", "epsg 27700", or as a definition that starts with +proj=',
  );
}

/** National grids by their EPSG number [published: EPSG registry, from memory; checked in the tests]. */
export const NATIONAL: Readonly<Record<number, string>> = {
  2154: '+proj=lcc +lat_0=46.5 +lon_0=3 +lat_1=49 +lat_2=44 +x_0=700000 +y_0=6600000 +ellps=GRS80 +units=m +no_defs',
  2157: '+proj=tmerc +lat_0=53.5 +lon_0=-8 +k=0.99982 +x_0=600000 +y_0=750000 +ellps=GRS80 +units=m +no_defs',
  2193: '+proj=tmerc +lat_0=0 +lon_0=173 +k=0.9996 +x_0=1600000 +y_0=10000000 +ellps=GRS80 +units=m +no_defs',
  3035: '+proj=laea +lat_0=52 +lon_0=10 +x_0=4321000 +y_0=3210000 +ellps=GRS80 +units=m +no_defs',
  27700:
    '+proj=tmerc +lat_0=49 +lon_0=-2 +k=0.9996012717 +x_0=400000 +y_0=-100000 +ellps=airy +towgs84=446.448,-125.157,542.06,0.15,0.247,0.842,-20.489 +units=m +no_defs',
};

/** The definition of a projected EPSG number that ships with the program; null for others. */
export function epsgProjection(code: number): string | null {
  const utm = (zone: number, rest: string) => `+proj=utm +zone=${zone} ${rest} +units=m +no_defs`;
  if (code >= 32601 && code <= 32660) return utm(code - 32600, '+datum=WGS84');
  if (code >= 32701 && code <= 32760) return utm(code - 32700, '+south +datum=WGS84');
  if (code >= 25828 && code <= 25838) return utm(code - 25800, '+ellps=GRS80');
  if (code === 3006) return utm(33, '+ellps=GRS80');
  if (code >= 28348 && code <= 28358) return utm(code - 28300, '+south +ellps=GRS80');
  if (code >= 7846 && code <= 7859) return utm(code - 7800, '+south +ellps=GRS80');
  return NATIONAL[code] ?? null;
}

/**
 * An origin whose projection was tried: there and back at its own place gives the place again.
 * @throws FormatError when it is not understood, or is not in metres
 */
export function soundOrigin(origin: Origin): Origin {
  if (!origin.proj.startsWith('+proj=') || /\+proj=longlat/.test(origin.proj))
    throw new FormatError('/origin/proj', 'a +proj= definition in metres is wanted');
  tryProjection(origin.proj, '/origin/proj', [origin.x, origin.y]);
  return origin;
}

function tryProjection(definition: string, place = 'projection', at: LonLat = [0, 0]): void {
  try {
    const { forward, inverse } = proj4(definition, WGS84);
    const there = forward([at[0], at[1]]);
    if (!there.every(Number.isFinite)) throw new Error('not finite');
    if (!inverse(there).every(Number.isFinite)) throw new Error('not finite');
  } catch {
    throw new FormatError(place, 'this definition is not understood');
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
