/** What coordinates a file of heights most likely has: by its numbers, and by where the property lies. */
import type { Point } from '../core/plan/schema.js';
import {
  converter,
  NATIONAL,
  nowhere,
  originAt,
  projection,
  type LonLat,
  type Origin,
} from './projection.js';

/** What the file's coordinates are: degrees, a projection, or plain metres of the site. */
export type Reference = 'geographic' | 'local' | { readonly projection: string };

/** West, south, east, north of the file's own numbers. */
export type Box = readonly [west: number, south: number, east: number, north: number];

/** What was taken, in words; `sure` is false where the user should say what it is. */
export interface Guess {
  readonly reference: Reference;
  readonly words: string;
  readonly sure: boolean;
}

/** Beyond this no site counts its own metres, and every projection does. */
const SITE_m = 50_000;
/** Whether metres are too many to be a site's own. */
export const isFar = (...metres: number[]): boolean => Math.max(...metres.map(Math.abs)) > SITE_m;

/** What the user says needs no guess. */
export const asSaid = (reference: Reference): Guess => ({
  reference,
  words: 'you say',
  sure: true,
});

/** No property is so many degrees wide. */
const WIDE_deg = 3;

/** The zone of the transverse Mercator grid that a place lies in, as a user names it: `utm 34s`. */
export const zoneAt = ([lon, lat]: LonLat): string =>
  `utm ${Math.min(60, Math.max(1, Math.floor((lon + 180) / 6) + 1))}${lat < 0 ? 's' : 'n'}`;

/** A zone's name in words: `UTM zone 34 south`. */
export const zoneWords = (name: string): string =>
  name.replace(/^utm (\d+)([ns])$/, (_, zone, half) => `UTM zone ${zone} ${half === 's' ? 'south' : 'north'}`); // prettier-ignore

/**
 * Guesses the coordinates of a ground.
 * @param box of the file's numbers
 * @param origin of the property; null, or one that lies nowhere on the globe, when that is not known
 */
export function guessReference(box: Box, origin: Origin | null): Guess {
  const at = origin && !nowhere(origin) ? converter(origin).toLonLat({ e: 0, n: 0 }) : null;
  const [west, south, east, north] = box;
  const couldBeDegrees =
    Math.max(Math.abs(west), Math.abs(east)) <= 180 &&
    Math.max(Math.abs(south), Math.abs(north)) <= 89 &&
    Math.max(east - west, north - south) < WIDE_deg;
  if (couldBeDegrees && (!at || covers(box, at)))
    return {
      reference: 'geographic',
      words: at ? 'degrees: the property lies on it' : 'degrees of longitude and latitude, by their size', // prettier-ignore
      sure: true,
    };
  if (!isFar(...box))
    return {
      reference: 'local',
      words: at
        ? 'metres of the site itself; whether they are counted from where the property begins, the file does not say'
        : 'metres of the site itself',
      sure: !at,
    };
  if (!at)
    return {
      reference: 'local',
      words: 'metres of a projection that the file does not name: say which one, or bring a walk in degrees', // prettier-ignore
      sure: false,
    };
  const own = zoneAt(at);
  for (const name of [own, ...neighbours(own), ...Object.keys(NATIONAL).map((k) => `epsg ${k}`)]) {
    const { e, n } = converter({ proj: projection(name), x: 0, y: 0 }).fromLonLat(at);
    if (covers(box, [e, n]))
      return {
        reference: { projection: name },
        words: `${zoneWords(name)}, since the property lies on it`,
        sure: true,
      };
  }
  return {
    reference: { projection: own },
    words: `${zoneWords(own)}, in which the property lies, though not on this ground`,
    sure: false,
  };
}

/** Whether a place lies on the file, or no further off than the file is wide. */
function covers([west, south, east, north]: Box, [x, y]: LonLat): boolean {
  const room = Math.max(east - west, north - south);
  return x > west - room && x < east + room && y > south - room && y < north + room;
}

/** Near a zone's edge maps are often kept in the zone beside it. */
function neighbours(name: string): string[] {
  const [, zone, half] = /^utm (\d+)([ns])$/.exec(name)!;
  return [-1, 1].map((by) => `utm ${((Number(zone) - 1 + by + 60) % 60) + 1}${half}`);
}

/** The origin that a property gets from the first place of a file; far metres are counted from there. */
export function originFor(reference: Reference, [x, y]: LonLat): Origin {
  if (reference === 'geographic') return originAt([x, y]);
  if (reference === 'local')
    return { ...originAt([0, 0]), ...(isFar(x, y) ? { x: Math.round(x), y: Math.round(y) } : {}) };
  return { proj: projection(reference.projection), x: Math.round(x), y: Math.round(y) };
}

/**
 * Coordinates of a file to local metres. In the projection that the property has itself nothing is rounded.
 */
export function placed(reference: Reference, home: Origin): (at: LonLat) => Point {
  const own = converter(home);
  if (reference === 'geographic') return own.fromLonLat;
  if (reference === 'local') {
    const from = nowhere(home) ? home : { x: 0, y: 0 };
    return ([x, y]) => ({ e: x - from.x, n: y - from.y });
  }
  const proj = projection(reference.projection);
  if (proj === home.proj) return ([x, y]) => ({ e: x - home.x, n: y - home.y });
  const theirs = converter({ proj, x: 0, y: 0 });
  return ([x, y]) => own.fromLonLat(theirs.toLonLat({ e: x, n: y }));
}
