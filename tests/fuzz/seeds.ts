/** Sound files and requests, to be damaged. */
import { readFileSync } from 'node:fs';
import { createHash } from 'node:crypto';
import { unzipSync, zipSync } from 'fflate';
import { writeArrayBuffer } from 'geotiff';

export interface Seed {
  readonly name: string;
  readonly path: string;
  /** The file that is damaged, and how it is put into a body; a body alone is damaged itself. */
  readonly bytes: Uint8Array;
  body(damaged: Uint8Array): string | Uint8Array;
  readonly headers?: Readonly<Record<string, string>>;
}

const bytes = (text: string) => new TextEncoder().encode(text);
const text = (b: Uint8Array) => Buffer.from(b).toString('utf8');
const base64 = (b: Uint8Array) => Buffer.from(b).toString('base64');
const json = (value: unknown) => bytes(JSON.stringify(value));

/** A shapefile of one line with a table, as its description has it (ESRI white paper, 1998). */
function shapefile(): Uint8Array {
  const points = [[-2.1, 54.1], [-2.2, 54.2], [-2.3, 54.1]] as const; // prettier-ignore
  const content = 44 + 4 + 16 * points.length;
  const shp = new DataView(new ArrayBuffer(108 + content));
  shp.setInt32(0, 9994);
  shp.setInt32(24, shp.byteLength / 2);
  shp.setInt32(28, 1000, true);
  shp.setInt32(32, 3, true);
  const box = (at: number) =>
    [-2.3, 54.1, -2.1, 54.2].forEach((v, i) => shp.setFloat64(at + 8 * i, v, true));
  box(36);
  shp.setInt32(100, 1);
  shp.setInt32(104, content / 2);
  shp.setInt32(108, 3, true);
  box(112);
  shp.setInt32(144, 1, true);
  shp.setInt32(148, points.length, true);
  points.forEach(([x, y], i) => {
    shp.setFloat64(156 + 16 * i, x, true);
    shp.setFloat64(164 + 16 * i, y, true);
  });
  const dbf = new DataView(new ArrayBuffer(32 + 32 + 1 + 11));
  dbf.setUint8(0, 3);
  dbf.setUint32(4, 1, true);
  dbf.setUint16(8, 65, true);
  dbf.setUint16(10, 11, true);
  'NAME'.split('').forEach((c, i) => dbf.setUint8(32 + i, c.charCodeAt(0)));
  dbf.setUint8(43, 'C'.charCodeAt(0));
  dbf.setUint8(48, 10);
  dbf.setUint8(64, 13);
  ' Hay field '.split('').forEach((c, i) => dbf.setUint8(65 + i, c.charCodeAt(0)));
  return zipSync({ 'a.shp': new Uint8Array(shp.buffer), 'a.dbf': new Uint8Array(dbf.buffer) });
}

const heights = Array.from({ length: 30 * 20 }, (_, i) => 100 + (i % 30) + Math.floor(i / 30));
const tiff = () =>
  new Uint8Array(
    writeArrayBuffer(
      Float32Array.from(heights) as never,
      {
        width: 30,
        height: 20,
        ModelPixelScale: [10, 10, 0],
        ModelTiepoint: [0, 0, 0, 500000, 5980000, 0],
        GTModelTypeGeoKey: 1,
        ProjectedCSTypeGeoKey: 32630,
      } as never,
    ) as ArrayBuffer,
  );

const demo = JSON.parse(readFileSync('demo/hollin-scar.plan.json', 'utf8')) as Record<string, unknown>; // prettier-ignore
const small = JSON.parse(readFileSync('tests/fixtures/plans/version-1.json', 'utf8')) as object;
const grid = readFileSync('demo/hollin-scar.asc', 'utf8').split('\n');
const asc = `${grid.slice(0, 6).join('\n').replace(/ncols.*/, 'ncols 40').replace(/nrows.*/, 'nrows 3')}\n${grid.slice(6, 9).map((row) => row.split(' ').slice(0, 40).join(' ')).join('\n')}`; // prettier-ignore
const gpx = readFileSync('demo/new-cross-fence.gpx', 'utf8');
const kml = '<?xml version="1.0"?><kml xmlns="http://www.opengis.net/kml/2.2"><Document><Placemark><name>A</name><LineString><coordinates>-2.1,54.1 -2.2,54.2</coordinates></LineString></Placemark></Document></kml>'; // prettier-ignore
const geojson = JSON.stringify({ type: 'FeatureCollection', features: [{ type: 'Feature', properties: { name: 'A' }, geometry: { type: 'LineString', coordinates: [[-2.1, 54.1], [-2.2, 54.2]] } }] }); // prettier-ignore

const walked = (format: string, file: Uint8Array, binary = false): Seed => ({
  name: `walked ${format}`,
  path: '/api/walked',
  bytes: file,
  body: (b) => JSON.stringify({ format, ...(binary ? { base64: base64(b) } : { text: text(b) }), origin: null }), // prettier-ignore
});
const ground = (format: string, file: Uint8Array, binary = false): Seed => ({
  name: `ground ${format}`,
  path: '/api/grids',
  bytes: file,
  body: (b) => JSON.stringify({ format, ...(binary ? { base64: base64(b) } : { text: text(b) }), reference: { projection: 'utm 30n' }, origin: null }), // prettier-ignore
});
const request = (name: string, path: string, value: unknown): Seed => ({
  name,
  path,
  bytes: json(value),
  body: text,
});

const zip = { 'content-type': 'application/zip' };
/** A part of a backup, damaged before its hash is made: what the doors behind the hash must find. */
function forged(backup: Uint8Array, path: string): Seed {
  const files = unzipSync(backup);
  return {
    name: `forged ${path}`,
    path: '/api/restore',
    headers: zip,
    bytes: files[path]!,
    body: (b) => {
      const list = JSON.parse(text(files['bundle.json']!)) as { parts: Record<string, { sha256: string }> }; // prettier-ignore
      list.parts[path]!.sha256 = createHash('sha256').update(b).digest('hex');
      return zipSync({ ...files, [path]: b, 'bundle.json': json(list) }, { level: 1 });
    },
  };
}

/**
 * @param id a property that there is
 * @param backup of the store, with that property, a reading of it and a monitor
 * @param token of the monitor
 */
export const seeds = (id: string, backup: Uint8Array, token: string): readonly Seed[] => [
  { name: 'backup', path: '/api/restore', headers: zip, bytes: backup, body: (b) => b },
  ...['property.json', 'snapshots.ndjson', 'history.ndjson', 'records/readings.ndjson', 'monitors.ndjson'].map((part) => forged(backup, `${id}/${part}`)), // prettier-ignore
  { ...request('report of a monitor', '/api/monitor', { value: 6200, id: 'report-0001' }), headers: { 'content-type': 'application/json', authorization: `Bearer ${token}` } }, // prettier-ignore
  request('monitor', `/api/properties/${id}/monitors`, { name: 'A', kind: 'volts', line: 'a', at_m: 1, unit: null, simulated: true }), // prettier-ignore
  walked('gpx', bytes(gpx)),
  walked('kml', bytes(kml)),
  walked('geojson', bytes(geojson)),
  walked('csv', bytes('name,lon,lat\nA,-2.1,54.1\nA,-2.2,54.2\n"B",-2.1,54.3\nB,-2.0,54.3')),
  walked('zip', shapefile(), true),
  ground('asc', bytes(asc)),
  ground('csv', bytes('x,y,z\n0,0,1\n10,0,2\n0,10,3\n10,10,4\n5,5,2')),
  ground('tif', tiff(), true),
  request('walked', '/api/walked', { format: 'csv', text: 'lon,lat\n-30,48\n-30.001,48.001', origin: demo['origin'] }), // prettier-ignore
  request('plan', '/api/properties', small),
  request('change', `/api/properties/${id}/changes`, {
    changeId: 'change-0001',
    tab: 'tab-1',
    base: 0,
    kind: 'do',
    words: 'w',
    patch: [
      { op: 'replace', path: '/name', value: 'New' },
      {
        op: 'add',
        path: '/things/t1',
        value: { id: 't1', name: 'T', kind: 'tree', points: [{ e: 1, n: 2 }] },
      },
    ],
    inverse: [{ op: 'replace', path: '/name', value: 'Old' }], // prettier-ignore
  }),
  request('reading', `/api/properties/${id}/records/readings`, {
    id: 'reading-0001',
    time: '2026-05-01T10:00:00Z',
    who: 'A',
    note: '',
    line: null,
    at_m: 3,
    spot: null,
    kind: 'volts',
    value: 5000, // prettier-ignore
  }),
  request('stock', `/api/properties/${id}/records/stock`, {
    id: 'stock-0001',
    time: '2026-05-01T10:00:00Z',
    who: '',
    note: '',
    item: 'tensioner',
    quantity: 5,
    length_m: null,
    why: 'counted', // prettier-ignore
  }),
  ...['placement', 'fence_resistive', 'rod_group', 'span', 'wire', 'post_force'].map((kind) => {
    const { cases } = JSON.parse(readFileSync(`tests/reference/cases/${kind}.json`, 'utf8')) as { cases: { kind?: string; inputs: object }[] }; // prettier-ignore
    const first = cases[0]!;
    return request(`calc ${kind}`, '/api/calc', { kind: first.kind ?? kind, inputs: first.inputs });
  }),
];
