/** Lines, places and areas from other programs and from walks, in local metres. */
import { SHAPE_OF } from '../core/land/things.js';
import { THING_KINDS, type Point, type Thing, type ThingKind } from '../core/plan/schema.js';
import { parseCsvLines } from './csvLines.js';
import { FormatError, parseJson } from './error.js';
import { nowhere, type LonLat, type Origin } from './projection.js';
import {
  originFor,
  placed,
  asSaid,
  isFar,
  zoneAt,
  zoneWords,
  type Guess,
  type Reference,
} from './reference.js';
import { shapefileToGeoJson } from './shapefile.js';
import { xmlToGeoJson } from './xmlGeo.js';

export interface WalkedLine {
  readonly name: string;
  readonly points: readonly Point[];
  readonly boundary?: boolean;
}

/** A place that is no line: what it is called, and what it is where the file says so. */
export interface WalkedPlace {
  readonly name: string;
  readonly kind: 'gate' | 'energiser' | ThingKind | null;
  readonly points: readonly Point[];
  readonly attributes: Partial<Pick<Thing, (typeof ATTRIBUTES)[number]>>;
}

export interface Walked {
  readonly lines: readonly WalkedLine[];
  readonly places: readonly WalkedPlace[];
  readonly origin: Origin;
  /** What the file's coordinates were taken for, and whether that is certain. */
  readonly as: Guess;
}

export const WALKED_FORMATS = ['gpx', 'kml', 'geojson', 'csv', 'zip'] as const;
export type WalkedFormat = (typeof WALKED_FORMATS)[number];

/** What a thing carries besides its shape, where a format can. */
export const ATTRIBUTES = ['width_m', 'volts_kV', 'height_m', 'barbed', 'earthed', 'soil'] as const;

const MAX_POINTS = 200_000;
/** No walk of a property begins so far from it, m. */
const ELSEWHERE_m = 100_000;
/** Largest file of lines that is read, bytes. A day's walk is under one. */
export const MAX_WALKED_BYTES = 16 * 1024 * 1024;

/**
 * Reads every line and place of a file into local metres.
 * @param content text; bytes for a zipped shapefile
 * @param origin the property's origin, or null to make one at the first point
 * @param said what metres in the file are; degrees say it themselves
 * @throws FormatError naming the reason
 */
export function readWalked(
  format: WalkedFormat,
  content: string | Uint8Array,
  origin: Origin | null,
  said: Reference | 'guess' = 'guess',
): Walked {
  if (content.length > MAX_WALKED_BYTES)
    throw new FormatError(
      '',
      `larger than ${MAX_WALKED_BYTES / 1024 / 1024} MB: no walk is so long`,
    );
  const { found, degrees } = foundIn(format, content);
  const long = found.filter((f) => f.points.length > 0);
  if (long.reduce((n, f) => n + f.points.length, 0) > MAX_POINTS)
    throw new FormatError('', `more than ${MAX_POINTS} points`);
  if (long.length === 0) throw new FormatError('', 'there is no line and no place in this file');
  const first = long[0]!.points[0]!;
  const as = degrees ? inDegrees(first) : metresFor(said, first, origin);
  const home = origin ?? originFor(as.reference, first);
  const local = placed(as.reference, home);
  if (origin && as.reference !== 'local') refuseElsewhere(local(first), origin);
  const lines: WalkedLine[] = [];
  const places: WalkedPlace[] = [];
  for (const f of long) {
    const points = distinct(f.points.map(local));
    const kind = kindOf(f.properties['kind'] ?? f.properties['type']);
    const asLine = f.shape === 'line' && (kind === null || kind === 'line');
    if (asLine && points.length >= 2)
      lines.push({
        name: f.name,
        points,
        ...(f.properties['boundary'] === true ? { boundary: true } : {}),
      });
    else if (!asLine)
      places.push({
        name: f.name,
        kind: kind === 'line' ? null : kind,
        points: isArea(f.shape, kind) ? open(points) : points,
        attributes: attributesOf(f.properties),
      });
  }
  if (lines.length === 0 && places.every((p) => p.kind === null))
    throw new FormatError('', 'there is no line of two or more points in this file');
  return { lines, places, origin: home, as };
}

const inDegrees = (first: LonLat): Guess => ({
  reference: 'geographic',
  words: `degrees, in ${zoneWords(zoneAt(first))}`,
  sure: true,
});

/** What metres in a file are: those of the property's projection where they are as large, else of the site. */
function metresFor(said: Reference | 'guess', [x, y]: LonLat, origin: Origin | null): Guess {
  if (said !== 'guess') return asSaid(said);
  if (!isFar(x, y)) return { reference: 'local', words: 'metres of the site itself', sure: true };
  if (!origin)
    return {
      reference: 'local',
      words: 'metres of a projection that the file does not name: say which one',
      sure: false,
    };
  if (nowhere(origin))
    return { reference: 'local', words: 'metres like those of the ground', sure: true };
  return {
    reference: { projection: origin.proj },
    words: "metres of the ground's projection",
    sure: true,
  };
}

/** A walk that would lie a long way from the property belongs to another one, or one of the two is misread. */
function refuseElsewhere(first: Point, origin: Origin): void {
  if (nowhere(origin))
    throw new FormatError(
      '',
      'this property has no place on the globe: it was begun in plain metres. Begin a new one from this file',
    );
  const off = Math.hypot(first.e, first.n);
  if (off > ELSEWHERE_m)
    throw new FormatError('', `lies ${Math.round(off / 1000)} km from this property`);
}

/** GPX has no areas: there a closed route of a kind that is an area is one. */
const isArea = (shape: Found['shape'], kind: WalkedPlace['kind'] | 'line'): boolean =>
  shape === 'area' || (kind !== null && kind in SHAPE_OF && SHAPE_OF[kind as ThingKind] === 'area');

interface Found {
  readonly name: string;
  readonly shape: 'line' | 'point' | 'area';
  readonly points: readonly LonLat[];
  readonly properties: Readonly<Record<string, unknown>>;
}

function foundIn(format: WalkedFormat, content: string | Uint8Array) {
  const text = () => (typeof content === 'string' ? content : new TextDecoder().decode(content));
  if (format === 'csv') {
    const { lines, degrees } = parseCsvLines(text());
    const found = lines.map(({ name, points }): Found => ({
      name,
      shape: 'line',
      points: degrees ? points.map(degreesOf) : points,
      properties: {},
    }));
    return { found, degrees };
  }
  const value =
    format === 'zip'
      ? shapefileToGeoJson(
          typeof content === 'string' ? new TextEncoder().encode(content) : content,
        )
      : format === 'geojson'
        ? parseJson(text())
        : xmlToGeoJson(format, text());
  return { found: featuresOf(value), degrees: true };
}

function kindOf(value: unknown): WalkedPlace['kind'] | 'line' {
  if (value === 'gate' || value === 'energiser' || value === 'line') return value;
  return THING_KINDS.find((k) => k === value) ?? null;
}

function attributesOf(properties: Found['properties']): WalkedPlace['attributes'] {
  const out: Record<string, unknown> = {};
  for (const key of ATTRIBUTES) {
    const value = properties[key];
    if (value === undefined || value === null || value === '') continue;
    if (key === 'soil') out[key] = String(value).slice(0, 40);
    else if (key === 'barbed' || key === 'earthed') out[key] = value === true || value === 'true';
    else if (Number.isFinite(Number(value))) out[key] = Number(value);
  }
  return out;
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

/** The corners of an area without its first one again. */
function open(points: Point[]): Point[] {
  const [first, last] = [points[0]!, points.at(-1)!];
  const closed = points.length > 3 && Math.hypot(first.e - last.e, first.n - last.n) <= 0.05;
  return closed ? points.slice(0, -1) : points;
}

function featuresOf(
  value: unknown,
  of: Pick<Found, 'name' | 'properties'> = NAMELESS,
  depth = 0,
): Found[] {
  if (depth > 8) throw new FormatError('', 'collections nested too deep');
  const v = value as {
    type?: string;
    features?: unknown[];
    geometries?: unknown[];
    geometry?: unknown;
    properties?: Record<string, unknown> | null;
    coordinates?: unknown;
  };
  if ((value as { format?: unknown } | null)?.format === 'anabatic-plan')
    throw new FormatError('', 'this is a plan file: the first page brings it in as a property');
  if (typeof v !== 'object' || v === null || typeof v.type !== 'string') {
    throw new FormatError('', 'not GeoJSON: an object with a "type" is wanted');
  }
  const list = (x: unknown): unknown[] => {
    if (x === undefined || x === null) return [];
    if (!Array.isArray(x)) throw new FormatError(v.type!, 'a list is wanted');
    return x as unknown[];
  };
  const made = (shape: Found['shape'], c: unknown): Found => ({
    ...of,
    shape,
    points: positions(c),
  });
  switch (v.type) {
    case 'FeatureCollection':
      return list(v.features).flatMap((f) => featuresOf(f, of, depth + 1));
    case 'GeometryCollection':
      return list(v.geometries).flatMap((g) => featuresOf(g, of, depth + 1));
    case 'Feature': {
      const properties = v.properties ?? {};
      const name = properties['name'] ?? properties['NAME'] ?? properties['Name'];
      const own = {
        properties,
        name: typeof name === 'string' && name.trim() ? name.trim().slice(0, 80) : of.name,
      };
      return v.geometry ? featuresOf(v.geometry, own, depth + 1) : [];
    }
    case 'LineString':
      return [made('line', v.coordinates)];
    case 'MultiLineString':
      return list(v.coordinates).map((c) => made('line', c));
    case 'Point':
      return [made('point', [v.coordinates])];
    case 'MultiPoint':
      return list(v.coordinates).map((c) => made('point', [c]));
    case 'Polygon':
      return [made('area', list(v.coordinates)[0])];
    case 'MultiPolygon':
      return list(v.coordinates).map((c) => made('area', list(c)[0]));
    default:
      return [];
  }
}

const NAMELESS = { name: 'Walked line', properties: {} };

function degreesOf([lon, lat]: LonLat, i: number): LonLat {
  if (!(Math.abs(lon) <= 180 && Math.abs(lat) <= 90))
    throw new FormatError(`position ${i + 1}`, 'longitude and latitude in degrees are wanted');
  return [lon, lat];
}

function positions(value: unknown): LonLat[] {
  if (!Array.isArray(value)) throw new FormatError('coordinates', 'a list of positions is wanted');
  return value.map((p: unknown, i) => {
    const [lon, lat] = Array.isArray(p) ? (p as unknown[]) : [];
    if (typeof lon !== 'number' || typeof lat !== 'number')
      throw new FormatError(`position ${i + 1}`, 'longitude and latitude in degrees are wanted');
    return degreesOf([lon, lat], i);
  });
}
