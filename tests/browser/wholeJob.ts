/** Files of a made-up farm whose truth is known: a noisy walk in degrees, heights in a zone of UTM. */
import proj4 from 'proj4';

const UTM = '+proj=utm +zone=34 +south +datum=WGS84 +units=m +no_defs';
/** South-west corner of everything, metres of the zone. */
const AT = { x: 262_000, y: 6_243_000 };

type Spot = readonly [e: number, n: number];
export const RING: readonly Spot[] = [[60, 40], [720, 70], [860, 420], [640, 720], [180, 690], [40, 380], [60, 40]]; // prettier-ignore

/** A number evenly between 0 and 1, the same each time. */
function dice(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return (state + 1) / 2 ** 32;
  };
}

/** Points every few metres along a shape, each off by noise of this spread (Box and Muller 1958). */
function walked(shape: readonly Spot[], spread_m: number, next: () => number): Spot[] {
  const normal = () => Math.sqrt(-2 * Math.log(next())) * Math.cos(2 * Math.PI * next());
  return shape.slice(1).flatMap((b, i) => {
    const a = shape[i]!;
    const n = Math.round(Math.hypot(b[0] - a[0], b[1] - a[1]) / 6);
    return Array.from({ length: n + (i === shape.length - 2 ? 1 : 0) }, (_, k): Spot => [
      a[0] + ((b[0] - a[0]) * k) / n + spread_m * normal(),
      a[1] + ((b[1] - a[1]) * k) / n + spread_m * normal(),
    ]);
  });
}

const degrees = ([e, n]: Spot) => proj4(UTM, 'EPSG:4326', [AT.x + e, AT.y + n]) as [number, number];
const height = (e: number, n: number): number =>
  180 + 12 * Math.sin(e / 170) + 9 * Math.cos(n / 140) + 0.02 * e;

/** True area, m², and length over the ground, m: the grid of the zone is 0.04 % short or long here. */
export function truth() {
  const scale = groundPerGrid();
  const ring = RING.slice(0, -1);
  const twice = ring.reduce((s, a, i) => {
    const b = ring[(i + 1) % ring.length]!;
    return s + a[0] * b[1] - b[0] * a[1];
  }, 0);
  let length = 0;
  for (const [i, b] of RING.slice(1).entries()) {
    const a = RING[i]!;
    const steps = 400;
    for (let k = 0; k < steps; k++) {
      const at = (t: number): Spot => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t];
      const [p, q] = [at(k / steps), at((k + 1) / steps)];
      const flat = Math.hypot(q[0] - p[0], q[1] - p[1]) * scale;
      length += Math.hypot(flat, height(...q) - height(...p));
    }
  }
  return { area_m2: (Math.abs(twice) / 2) * scale * scale, length_m: length };
}

/** Metres on the ellipsoid for each metre of the zone's grid, by a long arc of its meridian. */
function groundPerGrid(): number {
  const [lon, lat] = degrees([450, 400]);
  const own = `+proj=tmerc +lat_0=${lat} +lon_0=${lon} +k=1 +ellps=WGS84 +units=m`;
  const [x, y] = proj4(UTM, own, [AT.x + 450, AT.y + 1400]) as [number, number];
  return Math.hypot(x, y) / 1000;
}

/** The files as text. */
export function made() {
  const next = dice(11);
  const points = walked(RING, 1.2, next).map(degrees);
  const mark = (name: string, at: Spot) => {
    const [lon, lat] = degrees(at);
    return `<wpt lat="${lat.toFixed(7)}" lon="${lon.toFixed(7)}"><name>${name}</name></wpt>`;
  };
  const gpx = [
    '<?xml version="1.0"?><gpx version="1.1" xmlns="http://www.topografix.com/GPX/1/1">',
    mark('Road gate', [390, 56]),
    mark('Trough', [300, 300]),
    mark('Stile', [852, 400]),
    '<trk><name>Ring</name><trkseg>',
    ...points.map(([lon, lat]) => `<trkpt lat="${lat.toFixed(7)}" lon="${lon.toFixed(7)}"/>`),
    '</trkseg></trk></gpx>',
  ].join('\n');
  const [cols, rows, cell] = [101, 91, 10];
  const z = Array.from(
    { length: rows },
    (_, j) =>
    Array.from({ length: cols }, (_, i) => height(i * cell - 50, (rows - 1 - j) * cell - 50).toFixed(2)).join(' '), // prettier-ignore
  );
  const asc = [
    `ncols ${cols}`,
    `nrows ${rows}`,
    `xllcenter ${AT.x - 50}`,
    `yllcenter ${AT.y - 50}`,
    `cellsize ${cell}`,
    'NODATA_value -9999',
    ...z,
  ].join('\n');
  return { gpx, asc, points: points.length };
}
