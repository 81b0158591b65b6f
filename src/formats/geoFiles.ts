/** The plan for other programs: GeoJSON, GPX and KML in longitude and latitude. */
import { pointAt } from '../core/plan/geometry.js';
import type { Plan, Point } from '../core/plan/schema.js';
import { heightAt, type Ground } from '../core/terrain/ground.js';
import { converter } from './projection.js';

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

/** GeoJSON (RFC 7946): one LineString for each line, one Point for each gate and energiser. */
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
/** Text made safe inside XML; control characters that XML forbids are left out. */
const xml = (text: string): string =>
  text
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f]/g, '')
    .replace(/[&<>"']/g, (c) => escapes[c]!);

/** GPX 1.1: lines as tracks, gates and energisers as waypoints. */
export function toGpx(plan: Plan, ground: Ground): string {
  const at = positioner(plan, ground);
  const tag = (name: string, p: Point, inner: string) => {
    const [lon, lat, z] = at(p);
    return `<${name} lat="${lat}" lon="${lon}">${z === undefined ? '' : `<ele>${z}</ele>`}${inner}</${name}>`;
  };
  const points = placesOf(plan).map((p) =>
    tag('wpt', p.at, `<name>${xml(p.name)}</name><type>${p.kind}</type>`),
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
    ...tracks,
    '</gpx>',
    '',
  ].join('\n');
}

/** KML 2.2: a placemark for each line, gate and energiser. */
export function toKml(plan: Plan, ground: Ground): string {
  const at = positioner(plan, ground);
  const mark = (name: string, geometry: string, coordinates: string) =>
    `<Placemark><name>${xml(name)}</name><${geometry}><coordinates>${coordinates}</coordinates></${geometry}></Placemark>`;
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<kml xmlns="http://www.opengis.net/kml/2.2"><Document>',
    `<name>${xml(plan.name)}</name>`,
    ...Object.values(plan.lines).map((l) =>
      mark(l.name, 'LineString', l.vertices.map((v) => at(v).join(',')).join(' ')),
    ),
    ...placesOf(plan).map((p) => mark(p.name, 'Point', at(p.at).join(','))),
    '</Document></kml>',
    '',
  ].join('\n');
}
