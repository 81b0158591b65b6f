/** Files in and out: round trips, hostile files, and a general library where this machine has it. */
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { zipSync } from 'fflate';
import { writeArrayBuffer } from 'geotiff';
import Papa from 'papaparse';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { catalogue } from '../../src/core/plan/shipped.js';
import type { Plan } from '../../src/core/plan/schema.js';
import { heightAt } from '../../src/core/terrain/ground.js';
import { toGeoJson, toGpx, toKml } from '../../src/formats/geoFiles.js';
import { readGround, readGroundTiff } from '../../src/formats/ground.js';
import { converter, epsgProjection } from '../../src/formats/projection.js';
import { setOutCsv, toDxf } from '../../src/formats/setOut.js';
import { readWalked, type WalkedFormat } from '../../src/formats/walked.js';
import { energiser, FLAT, line, plan, report } from './scene.js';
import { thing, things } from './wrong-land.js';

const gdal = spawnSync('ogr2ogr', ['--version']).status === 0;
if (!gdal)
  console.warn(
    'SKIPPED: gdal-bin is not installed; its checks of GPX, KML, GeoJSON, GeoTIFF and shapefile do not run',
  );
const withGdal = describe.skipIf(!gdal);

const farm = (): Plan =>
  plan(
    [
      line('a', [[0, 0], [120, 30], [180, -40]], { name: 'Hill & "dale" <1>' }), // prettier-ignore
      line('b', [[-900, 400], [-700, 420]], { name: '=cmd' }), // prettier-ignore
    ],
    {
      gates: { g: { id: 'g', name: 'Ford gate', line: 'a', at_m: 50, width_m: 4, cable: true } },
      energisers: { unit: energiser('a', 0, { e: 3, n: -5 }) },
      ...things(
        thing('water', [[30, 60]], { name: 'Trough' }),
        thing('burn', [[-50, 10], [60, 20], [90, -80]], { name: 'Burn', width_m: 3 }), // prettier-ignore
        thing('soil', [[0, 0], [40, 0], [40, 40]], { name: 'Sand pit', soil: 'sand' }), // prettier-ignore
        thing('overhead', [[5, 5], [80, 90]], { name: '11 kV', volts_kV: 11, height_m: 6.5 }), // prettier-ignore
      ),
    },
  );
const out = (format: WalkedFormat, p: Plan): string =>
  format === 'gpx' ? toGpx(p, FLAT) : format === 'kml' ? toKml(p, FLAT) : toGeoJson(p, FLAT);
const apart = (a: { e: number; n: number }, b: { e: number; n: number }) =>
  Math.hypot(a.e - b.e, a.n - b.n);

describe('out and in again', () => {
  it.each(['geojson', 'gpx', 'kml'] as const)(
    '%s keeps places within 1 cm, names and kinds',
    (format) => {
      const p = farm();
      const back = readWalked(format, out(format, p), p.origin);
      expect(back.lines.map((l) => l.name)).toEqual(Object.values(p.lines).map((l) => l.name));
      Object.values(p.lines).forEach((l, i) =>
        l.vertices.forEach((v, k) =>
          expect(apart(v, back.lines[i]!.points[k]!)).toBeLessThan(0.01),
        ),
      );
      const byName = new Map(back.places.map((x) => [x.name, x]));
      expect(byName.get('Ford gate')!.kind).toBe('gate');
      expect(byName.get('Unit')!.kind).toBe('energiser');
      for (const t of Object.values(p.things!)) {
        const found = byName.get(t.name)!;
        expect(found.kind, t.name).toBe(t.kind);
        expect(found.points).toHaveLength(t.points.length);
        t.points.forEach((q, k) => expect(apart(q, found.points[k]!)).toBeLessThan(0.01));
        // GPX has no room for further attributes.
        if (format !== 'gpx') expect({ ...t, ...found.attributes }).toEqual(t);
      }
    },
  );

  it('set-out CSV: every post with its tape from its run, east, north and kind; no cell is a formula', () => {
    const p = farm();
    const r = report(p);
    const { data } = Papa.parse<Record<string, string>>(setOutCsv(p, r, catalogue), {
      header: true,
    });
    expect(data).toHaveLength(r.totals.posts);
    const posts = r.lines['a']!.posts;
    data.slice(0, posts.length).forEach((row, i) => {
      expect(Number(row['east_m'])).toBeCloseTo(p.origin.x + posts[i]!.e, 3);
      expect(Number(row['tape_from_line_start_m'])).toBeCloseTo(posts[i]!.tape_m, 2);
    });
    // The gate parts the line: behind it the tape begins anew.
    const after = data.find((row) => row['run'] === '2')!;
    expect(Number(after['tape_from_run_start_m'])).toBeLessThan(7);
    expect(data.at(-1)!['line']).toBe("'=cmd");
  });

  it('lines as a table, in degrees or local metres', () => {
    const { lines } = readWalked(
      'csv',
      'name,east,north\nA,0,0\nA,10,5\nB,3,3\nB,4,9\n',
      farm().origin,
    );
    expect(lines).toEqual([
      { name: 'A', points: [{ e: 0, n: 0 }, { e: 10, n: 5 }] }, // prettier-ignore
      { name: 'B', points: [{ e: 3, n: 3 }, { e: 4, n: 9 }] }, // prettier-ignore
    ]);
    const p = farm();
    const { toLonLat } = converter(p.origin);
    const rows = p.lines['a']!.vertices.map((v) =>
      toLonLat(v)
        .map((x) => x.toFixed(8))
        .join(),
    );
    const back = readWalked('csv', `lon,lat\n${rows.join('\n')}`, p.origin).lines[0]!;
    back.points.forEach((q, k) => expect(apart(q, p.lines['a']!.vertices[k]!)).toBeLessThan(0.01));
  });
});

describe('hostile and broken files', () => {
  const deep = (n: number) => `<gpx>${'<a>'.repeat(n)}${'</a>'.repeat(n)}</gpx>`;
  const bomb = () => zipSync({ 'a.shp': new Uint8Array(40 * 1024 * 1024) }, { level: 9 });
  const cases: [string, WalkedFormat, () => string | Uint8Array, RegExp][] = [
    ['50 MB', 'gpx', () => 'x'.repeat(50 * 1024 * 1024), /larger than 16 MB/],
    ['50 MB', 'geojson', () => '['.repeat(50 * 1024 * 1024), /larger than 16 MB/],
    [
      'an entity bomb',
      'kml',
      () => '<!DOCTYPE k [<!ENTITY a "aaaa">]><kml>&a;</kml>',
      /document type/,
    ],
    ['deep nesting', 'gpx', () => deep(200_000), /too deep/],
    ['deep nesting', 'kml', () => deep(100).replaceAll('gpx', 'kml'), /too deep/],
    ['deep lists', 'geojson', () => '['.repeat(2_000_000), /not JSON|not GeoJSON/],
    ['deep collections', 'geojson', () => `${'{"type":"GeometryCollection","geometries":['.repeat(60)}${']}'.repeat(60)}`, /too deep/], // prettier-ignore
    ['NaN', 'gpx', () => '<gpx><trk><trkseg><trkpt lat="NaN" lon="1"/><trkpt lat="2" lon="1"/></trkseg></trk></gpx>', /degrees|no line/], // prettier-ignore
    ['NaN', 'csv', () => 'lon,lat\nNaN,1\n', /line 2/],
    ['no headings', 'csv', () => '1,2\n3,4\n', /headings/],
    ['mixed headings', 'csv', () => 'lon,north\n3,4\n', /degrees and the other metres/],
    ['a zip bomb', 'zip', bomb, /more than 32 MB/],
    ['no zip', 'zip', () => new Uint8Array([1, 2, 3]), /not a zip/],
    ['a zip without shapes', 'zip', () => zipSync({ 'a.txt': new Uint8Array(3) }), /no \.shp/],
    [
      'a broken shapefile',
      'zip',
      () => zipSync({ 'a.shp': new Uint8Array(300) }),
      /shapefile|no line/,
    ],
    ['a wrong root', 'kml', () => '<gpx/>', /no <kml>/],
    ['a property of null', 'geojson', () => '{"type":"FeatureCollection","features":7}', /list/],
  ];
  it.each(cases)('%s in %s is refused with its reason', (_name, format, content, words) => {
    expect(() => readWalked(format, content(), null)).toThrow(words);
  });
  it('a GeoTIFF that is none, is too large, or is a huge promise, is refused', async () => {
    await expect(readGroundTiff(new Uint8Array(200), 'local', null)).rejects.toThrow(/GeoTIFF/);
    await expect(readGroundTiff(new Uint8Array(41 * 1024 * 1024), 'local', null)).rejects.toThrow(/40 MB/); // prettier-ignore
    expect(() => readGround('asc', ' '.repeat(41 * 1024 * 1024), 'local', null)).toThrow(/40 MB/);
    const bytes = new Uint8Array(writeArrayBuffer([1, 2, 3, 4], { width: 2, height: 2 } as never));
    // The file says that it is 60,000 cells wide and high.
    const view = new DataView(bytes.buffer);
    for (let i = 0; i + 12 < bytes.length; i++) {
      const tag = view.getUint16(i);
      if ((tag === 256 || tag === 257) && view.getUint16(i + 2) <= 4) view.setUint16(i + 8, 60_000);
    }
    await expect(readGroundTiff(bytes, 'local', null)).rejects.toThrow(/cells|GeoTIFF/);
  });
});

withGdal('against a general library of geographic files', () => {
  let folder = '';
  beforeAll(() => void (folder = mkdtempSync(join(tmpdir(), 'anabatic-files-'))));
  afterAll(() => rmSync(folder, { recursive: true }));
  const run = (tool: string, ...args: string[]) =>
    execFileSync(tool, args, { encoding: 'utf8', stdio: ['pipe', 'pipe', 'pipe'] });

  it.each(['geojson', 'gpx', 'kml'] as const)(
    'it reads our %s with all lines and places within 1 cm',
    (format) => {
      const p = farm();
      const file = join(folder, `out.${format}`);
      writeFileSync(file, out(format, p));
      const layers = format === 'gpx' ? ['tracks'] : [];
      const made = join(folder, `${format}-back.geojson`);
      run('ogr2ogr', '-f', 'GeoJSON', '-lco', 'COORDINATE_PRECISION=9', made, file, ...layers);
      const back = readWalked('geojson', readFileSync(made, 'utf8'), p.origin);
      const first = back.lines.find((l) => l.name === 'Hill & "dale" <1>')!;
      p.lines['a']!.vertices.forEach((v, k) =>
        expect(apart(v, first.points[k]!)).toBeLessThan(0.01),
      );
    },
  );

  it.each([
    ['GPX', 'gpx', ['-dsco', 'GPX_USE_EXTENSIONS=NO', '-nlt', 'LINESTRING']],
    ['KML', 'kml', []],
    ['ESRI Shapefile', 'shp', ['-where', "kind='line'", '-nlt', 'LINESTRING']],
  ] as const)('we read its %s within 1 cm', (driver, suffix, more) => {
    const p: Plan = { ...farm(), things: {}, gates: {}, energisers: {} };
    const source = join(folder, `${suffix}-in.geojson`);
    writeFileSync(source, toGeoJson(p, FLAT));
    const file = join(folder, `made.${suffix}`);
    run('ogr2ogr', '-f', driver, '-select', 'name,kind', ...more, file, source, '-skipfailures');
    let content: string | Uint8Array;
    if (suffix === 'shp') {
      const part = (s: string) => new Uint8Array(readFileSync(join(folder, `made.${s}`)));
      content = zipSync({
        'made.shp': part('shp'),
        'made.dbf': part('dbf'),
        'made.prj': part('prj'),
      });
    } else content = readFileSync(file, 'utf8');
    const back = readWalked(suffix === 'shp' ? 'zip' : suffix, content, p.origin);
    expect(back.lines.length).toBe(2);
    p.lines['a']!.vertices.forEach((v, k) =>
      expect(apart(v, back.lines[0]!.points[k]!)).toBeLessThan(0.02),
    );
  });

  it.each([
    ['projected', 'EPSG:32630', []],
    ['on the British grid', 'EPSG:27700', []],
    ['geographic', 'EPSG:4326', ['-ts', '120', '120']],
    [
      'compressed floats with tiles',
      'EPSG:32630',
      ['-co', 'COMPRESS=DEFLATE', '-co', 'TILED=YES', '-co', 'PREDICTOR=3'],
    ],
  ] as const)('a GeoTIFF that it makes, %s, gives the same heights', async (name, srs, more) => {
    // A plane is kept exactly by any bilinear resampling: z = 100 + 0.05 x + 0.02 y about the south-west.
    const [x0, y0] = [550_000, 5_900_000];
    const rows = Array.from({ length: 60 }, (_, j) =>
      Array.from({ length: 60 }, (_, i) => (100 + 0.5 * i + 0.2 * (59 - j)).toFixed(6)).join(' '),
    );
    const asc = join(folder, 'plane.asc');
    writeFileSync(asc, `ncols 60\nnrows 60\nxllcenter ${x0}\nyllcenter ${y0}\ncellsize 10\nNODATA_value -9999\n${rows.join('\n')}\n`); // prettier-ignore
    const tif = join(folder, `${name.replaceAll(' ', '-')}.tif`);
    const base = join(folder, 'base.tif');
    run('gdal_translate', '-q', '-a_srs', 'EPSG:32630', '-ot', 'Float32', asc, base);
    run(
      'gdalwarp',
      '-q',
      '-overwrite',
      '-r',
      'bilinear',
      '-t_srs',
      srs,
      '-dstnodata',
      '-9999',
      ...more,
      base,
      tif,
    );
    const origin = { proj: '+proj=utm +zone=30 +datum=WGS84 +units=m +no_defs', x: x0, y: y0 };
    const { grid } = await readGroundTiff(new Uint8Array(readFileSync(tif)), 'local', origin);
    const ground = { kind: 'grid' as const, ...grid };
    for (const [e, n] of [
      [200, 200],
      [300, 410],
      [455, 123],
    ] as const) {
      // prettier-ignore
      expect(Math.abs(heightAt(ground, { e, n }) - (100 + 0.05 * e + 0.02 * n))).toBeLessThan(0.25);
    }
  });

  it.each([
    [27700, 400_000, 300_000, 1],
    [2154, 700_000, 6_600_000, 0.01],
    [2157, 600_000, 750_000, 0.01],
    [2193, 1_600_000, 5_500_000, 0.01],
    [3035, 4_321_000, 3_210_000, 0.01],
    [3006, 600_000, 6_600_000, 0.01],
    [32630, 500_000, 5_300_000, 0.01],
    [28355, 400_000, 5_800_000, 0.01],
  ])('EPSG %i lies where its own definition puts it', (code, x, y, metres) => {
    const target = code === 28355 ? 'EPSG:4283' : [2154, 3035, 3006, 2157, 2193].includes(code) ? 'EPSG:4326' : 'EPSG:4326'; // prettier-ignore
    const text = execFileSync(
      'gdaltransform',
      ['-s_srs', `EPSG:${code}`, '-t_srs', target, '-output_xy'],
      {
        input: `${x} ${y}\n`,
        encoding: 'utf8',
      },
    );
    const theirs = text.trim().split(/\s+/).map(Number) as [number, number];
    const ours = converter({ proj: epsgProjection(code)!, x: 0, y: 0 });
    const p = ours.fromLonLat(theirs);
    // The shift of the British grid is good to a few metres in any seven-figure form.
    expect(Math.hypot(p.e - x, p.n - y)).toBeLessThan(code === 27700 ? 5 : metres);
  });

  it('it reads our DXF: lines on their layer, posts by role', () => {
    const p = farm();
    const file = join(folder, 'out.dxf');
    writeFileSync(file, toDxf(p, report(p)));
    const made = join(folder, 'dxf.geojson');
    run('ogr2ogr', '-f', 'GeoJSON', made, file);
    const { features } = JSON.parse(readFileSync(made, 'utf8')) as {
      features: {
        properties: { Layer: string };
        geometry: { type: string; coordinates: number[][] };
      }[];
    };
    const fence = features.filter((f) => f.properties.Layer === 'FENCE');
    expect(fence).toHaveLength(2);
    expect(fence[0]!.geometry.coordinates[1]!.slice(0, 2)).toEqual([
      expect.closeTo(p.origin.x + 120, 2),
      expect.closeTo(p.origin.y + 30, 2),
    ]);
    expect(features.filter((f) => f.properties.Layer.startsWith('POST-'))).toHaveLength(
      report(p).totals.posts,
    );
  });
});
