/** The plan for other programs: GeoJSON, GPX and KML in longitude and latitude. */
import { pointAt } from '../core/plan/geometry.js';
import { SHAPE_OF } from '../core/land/things.js';
import type { Plan, Point, Thing } from '../core/plan/schema.js';
import { heightAt, type Ground } from '../core/terrain/ground.js';
import { converter } from './projection.js';
import { ATTRIBUTES } from './walked.js';

interface Place {
  readonly kind: 'gate' | 'energiser';
  readonly name: string;
  readonly at: Point;
}

function placesOf(plan: Plan): Place[] {
  const gates = Object.values(plan.gates).flatMap((g): Place[] => {
    const line = plan.lines[g.line];
    return line ? [{ kind: 'gate', name: g.name, at: pointAt(line.vertices, g.at_m) }] : [];
  });
  const units = Object.values(plan.energisers).map((e): Place => ({
    kind: 'energiser',
    name: e.name,
    at: e,
  }));
  return [...gates, ...units];
}

/** Longitude, latitude and, where the ground is known, height; 1e-8 degrees is about a millimetre. */
function positioner(plan: Plan, ground: Ground) {
  const { toLonLat } = converter(plan.origin);
  const cut = (x: number) => Number(x.toFixed(8));
  return (p: Point): number[] => {
    const [lon, lat] = toLonLat(p);
    const z = heightAt(ground, p);
    return Number.isNaN(z) ? [cut(lon), cut(lat)] : [cut(lon), cut(lat), Number(z.toFixed(2))];
  };
}

/** What a thing is drawn as: a single point stays one, whatever its kind. */
const shapeOf = (t: Thing): 'point' | 'way' | 'area' => {
  if (t.points.length === 1) return 'point';
  return SHAPE_OF[t.kind] === 'area' && t.points.length >= 3 ? 'area' : 'way';
};

/** The points of a thing, an area closed by its first one again. */
const pathOf = (t: Thing): readonly Point[] =>
  shapeOf(t) === 'area' ? [...t.points, t.points[0]!] : t.points;

const attributesOf = (t: Thing): [string, string | number | boolean][] =>
  ATTRIBUTES.flatMap((key) => {
    const value = t[key];
    return value === undefined ? [] : [[key, value] as [string, string | number | boolean]];
  });

const thingsIn = (plan: Plan): Thing[] => Object.values(plan.things ?? {});

/** GeoJSON (RFC 7946): one LineString for each line, one Point for each gate and energiser, things by shape. */
export function toGeoJson(plan: Plan, ground: Ground): string {
  const at = positioner(plan, ground);
  const feature = (properties: object, type: string, coordinates: unknown) => ({
    type: 'Feature',
    properties,
    geometry: { type, coordinates },
  });
  const features = [
    ...Object.values(plan.lines).map((l) =>
      feature(
        {
          kind: 'line',
          id: l.id,
          name: l.name,
          boundary: l.boundary,
          strand_heights_m: l.strands.map((s) => s.height_m),
          strand_duties: l.strands.map((s) => s.duty),
        },
        'LineString',
        l.vertices.map(at),
      ),
    ),
    ...placesOf(plan).map((p) => feature({ kind: p.kind, name: p.name }, 'Point', at(p.at))),
    ...thingsIn(plan).map((t) => {
      const properties = {
        kind: t.kind,
        id: t.id,
        name: t.name,
        ...Object.fromEntries(attributesOf(t)),
      };
      const path = pathOf(t).map(at);
      if (shapeOf(t) === 'point') return feature(properties, 'Point', path[0]);
      if (shapeOf(t) === 'way') return feature(properties, 'LineString', path);
      return feature(properties, 'Polygon', [path]);
    }),
  ];
  return JSON.stringify({ type: 'FeatureCollection', name: plan.name, features }, null, 1);
}

const escapes: Record<string, string> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&apos;',
};
/** Text made safe inside XML; what XML cannot hold is left out: controls, lone surrogates, no characters. */
const xml = (text: string): string =>
  text
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]|\p{Surrogate}/gu, '')
    .replace(/[&<>"']/g, (c) => escapes[c]!);

/** GPX 1.1: lines as tracks; gates, energisers and point things as waypoints, other things as routes. */
export function toGpx(plan: Plan, ground: Ground): string {
  const at = positioner(plan, ground);
  const tag = (name: string, p: Point, inner: string) => {
    const [lon, lat, z] = at(p);
    return `<${name} lat="${lat}" lon="${lon}">${z === undefined ? '' : `<ele>${z}</ele>`}${inner}</${name}>`;
  };
  const points = placesOf(plan).map((p) =>
    tag('wpt', p.at, `<name>${xml(p.name)}</name><type>${p.kind}</type>`),
  );
  const marks = thingsIn(plan)
    .filter((t) => shapeOf(t) === 'point')
    .map((t) => tag('wpt', t.points[0]!, `<name>${xml(t.name)}</name><type>${t.kind}</type>`));
  const routes = thingsIn(plan)
    .filter((t) => shapeOf(t) !== 'point')
    .map(
      (t) =>
        `<rte><name>${xml(t.name)}</name><type>${t.kind}</type>${pathOf(t)
          .map((p) => tag('rtept', p, ''))
          .join('')}</rte>`,
    );
  const tracks = Object.values(plan.lines).map(
    (l) =>
      `<trk><name>${xml(l.name)}</name><trkseg>${l.vertices.map((v) => tag('trkpt', v, '')).join('')}</trkseg></trk>`,
  );
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<gpx version="1.1" creator="Anabatic" xmlns="http://www.topografix.com/GPX/1/1">',
    `<metadata><name>${xml(plan.name)}</name></metadata>`,
    ...points,
    ...marks,
    ...routes,
    ...tracks,
    '</gpx>',
    '',
  ].join('\n');
}

/** KML 2.2: a placemark for each line, gate, energiser and thing; kinds as extended data. */
export function toKml(plan: Plan, ground: Ground): string {
  const at = positioner(plan, ground);
  const text = (points: readonly Point[]) => points.map((p) => at(p).join(',')).join(' ');
  const mark = (
    name: string,
    shape: 'point' | 'way' | 'area',
    points: readonly Point[],
    data: [string, string | number | boolean][],
  ) => {
    const coordinates = `<coordinates>${text(points)}</coordinates>`;
    const geometry = {
      point: `<Point>${coordinates}</Point>`,
      way: `<LineString>${coordinates}</LineString>`,
      area: `<Polygon><outerBoundaryIs><LinearRing>${coordinates}</LinearRing></outerBoundaryIs></Polygon>`,
    }[shape];
    const extended = data
      .map(([k, v]) => `<Data name="${k}"><value>${xml(String(v))}</value></Data>`)
      .join('');
    return `<Placemark><name>${xml(name)}</name><ExtendedData>${extended}</ExtendedData>${geometry}</Placemark>`;
  };
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<kml xmlns="http://www.opengis.net/kml/2.2"><Document>',
    `<name>${xml(plan.name)}</name>`,
    ...Object.values(plan.lines).map((l) => mark(l.name, 'way', l.vertices, [['kind', 'line']])),
    ...placesOf(plan).map((p) => mark(p.name, 'point', [p.at], [['kind', p.kind]])),
    ...thingsIn(plan).map((t) =>
      mark(t.name, shapeOf(t), pathOf(t), [['kind', t.kind], ...attributesOf(t)]),
    ),
    '</Document></kml>',
    '',
  ].join('\n');
}
