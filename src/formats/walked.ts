/** Walked lines: GPX tracks and routes, GeoJSON lines. */
import { gpx as gpxToGeoJson } from '@tmcw/togeojson';
import { DOMParser } from '@xmldom/xmldom';
import type { Point } from '../core/plan/schema.js';
import { FormatError, parseJson } from './error.js';
import { converter, originAt, type LonLat, type Origin } from './projection.js';

export interface WalkedLine {
  readonly name: string;
  readonly points: readonly Point[];
}

const MAX_POINTS = 200_000;

/**
 * Reads every line of a walked file into local metres.
 * @param origin the property's origin, or null to make one at the first point
 * @throws FormatError naming the reason
 */
export function readWalked(
  format: 'gpx' | 'geojson',
  text: string,
  origin: Origin | null,
): { lines: WalkedLine[]; origin: Origin } {
  const found =
    format === 'gpx' ? linesOfGeoJson(gpxDocument(text)) : linesOfGeoJson(parseJson(text));
  const long = found.filter((l) => l.points.length >= 2);
  if (long.length === 0)
    throw new FormatError('', 'there is no line of two or more points in this file');
  if (long.reduce((n, l) => n + l.points.length, 0) > MAX_POINTS) {
    throw new FormatError('', `more than ${MAX_POINTS} points`);
  }
  const home = origin ?? originAt(long[0]!.points[0]!);
  const { fromLonLat } = converter(home);
  const lines = long.map(({ name, points }) => ({
    name,
    points: distinct(points.map(fromLonLat)),
  }));
  return { lines: lines.filter((l) => l.points.length >= 2), origin: home };
}

/** Standing still gives many points in one place: only those 5 cm apart count. */
function distinct(points: readonly Point[]): Point[] {
  const out: Point[] = [];
  for (const p of points) {
    const last = out.at(-1);
    if (!last || Math.hypot(p.e - last.e, p.n - last.n) > 0.05) out.push(p);
  }
  return out;
}

function gpxDocument(text: string): unknown {
  // No track needs a document type; entities in one can be made to swell without end.
  if (/<!DOCTYPE|<!ENTITY/i.test(text))
    throw new FormatError('', 'a GPX file with a document type is not read');
  let fault = '';
  const parser = new DOMParser({
    onError: (level, message) => {
      if (level !== 'warning' && !fault) fault = message.split('\n')[0]!;
    },
  });
  try {
    const doc = parser.parseFromString(text, 'text/xml');
    if (!fault && doc.documentElement?.localName !== 'gpx') fault = 'the file holds no <gpx>';
    if (!fault) return gpxToGeoJson(doc as unknown as Document);
  } catch (error) {
    fault ||= (error as Error).message.split('\n')[0]!;
  }
  throw new FormatError('', `not a GPX file: ${fault}`);
}

interface Found {
  name: string;
  points: LonLat[];
}

function linesOfGeoJson(value: unknown, name = 'Walked line', depth = 0): Found[] {
  if (depth > 8) throw new FormatError('', 'collections nested too deep');
  const v = value as {
    type?: string;
    features?: unknown[];
    geometries?: unknown[];
    geometry?: unknown;
    properties?: { name?: unknown };
    coordinates?: unknown;
  };
  if (typeof v !== 'object' || v === null || typeof v.type !== 'string') {
    throw new FormatError('', 'not GeoJSON: an object with a "type" is wanted');
  }
  switch (v.type) {
    case 'FeatureCollection':
      return (v.features ?? []).flatMap((f) => linesOfGeoJson(f, name, depth + 1));
    case 'GeometryCollection':
      return (v.geometries ?? []).flatMap((g) => linesOfGeoJson(g, name, depth + 1));
    case 'Feature': {
      const own = typeof v.properties?.name === 'string' ? v.properties.name.slice(0, 80) : name;
      return v.geometry ? linesOfGeoJson(v.geometry, own, depth + 1) : [];
    }
    case 'LineString':
      return [{ name, points: positions(v.coordinates) }];
    case 'MultiLineString':
      return (v.coordinates as unknown[]).map((c) => ({ name, points: positions(c) }));
    default:
      return [];
  }
}

function positions(value: unknown): LonLat[] {
  if (!Array.isArray(value)) throw new FormatError('coordinates', 'a list of positions is wanted');
  return value.map((p: unknown, i) => {
    const [lon, lat] = Array.isArray(p) ? (p as unknown[]) : [];
    if (
      typeof lon !== 'number' ||
      typeof lat !== 'number' ||
      !(Math.abs(lon) <= 180 && Math.abs(lat) <= 90)
    ) {
      throw new FormatError(`position ${i + 1}`, 'longitude and latitude in degrees are wanted');
    }
    return [lon, lat] as const;
  });
}
