import { DOMParser } from '@xmldom/xmldom';
import fc from 'fast-check';
import { catalogue } from '../../src/core/plan/shipped.js';
import Papa from 'papaparse';
import proj4 from 'proj4';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { parseAsciiGrid } from '../../src/formats/asciiGrid.js';
import { parseCsvPoints } from '../../src/formats/csvPoints.js';
import { toGeoJson, toGpx, toKml } from '../../src/formats/geoFiles.js';
import { readGround } from '../../src/formats/ground.js';
import { orderCsv } from '../../src/formats/orderCsv.js';
import { applyPatch, edit, patchesTouch } from '../../src/formats/patch.js';
import { openPlan, parsePlan, printPlan } from '../../src/formats/planFile.js';
import { converter, originAt, projection } from '../../src/formats/projection.js';
import { readWalked } from '../../src/formats/walked.js';
import type { Plan } from '../../src/core/plan/schema.js';
import { energiser, FLAT, line, plan, report } from './scene.js';

const ASC =
  'ncols 3\nnrows 2\nxllcorner 100\nyllcorner 200\ncellsize 10\nNODATA_value -9999\n1 2 3\n4 5 -9999\n';

describe('ascii grid', () => {
  it('reads rows from the north, corners as half a cell, gaps as null', () => {
    expect(parseAsciiGrid(ASC)).toEqual({
      x0: 105,
      y0: 205,
      cell: 10,
      cols: 3,
      rows: 2,
      z: [4, 5, null, 1, 2, 3],
    });
    expect(parseAsciiGrid(ASC.replaceAll('corner', 'center')).x0).toBe(100);
  });
  it.each([
    [ASC.replace('4 5', '4 x'), 'line 8'],
    [ASC.replace('4 5 -9999', '4 5'), 'heights where'],
    [`${ASC}7 8`, 'more heights'],
    [ASC.replace('ncols 3', 'ncols 3e9'), 'ncols'],
    [ASC.replace('cellsize 10', 'cellsize -1'), 'cellsize'],
    ['hello', 'lacks ncols'],
    ['', 'lacks ncols'],
  ])('refuses %#, naming the place', (text, words) => {
    expect(() => parseAsciiGrid(text)).toThrow(words);
  });
  it('lands in local metres for its own projection, exactly', () => {
    const { grid, origin } = readGround('asc', ASC, { projection: 'utm 30n' }, null);
    expect(origin).toMatchObject({ x: 105, y: 205 });
    expect(grid).toMatchObject({ east0_m: 0, north0_m: 0, cell_m: 10 });
  });
  it('in degrees is put onto square metres, heights where proj4 says they are', () => {
    const text = `ncols 21\nnrows 21\nxllcenter -2.01\nyllcenter 54\ncellsize 0.001\n${Array.from({ length: 21 }, (_, r) => Array.from({ length: 21 }, (_, c) => 100 + c + (20 - r) * 2).join(' ')).join('\n')}\n`;
    const { grid, origin } = readGround('asc', text, 'geographic', null);
    const { fromLonLat } = converter(origin);
    const p = fromLonLat([-2.0, 54.01]);
    const k =
      Math.round((p.n - grid.north0_m) / grid.cell_m) * grid.cols +
      Math.round((p.e - grid.east0_m) / grid.cell_m);
    expect(grid.z_m[k]!).toBeCloseTo(100 + 10 + 20, -1);
    expect(grid.cell_m).toBeGreaterThan(50);
    expect(() => readGround('asc', text.replace('-2.01', '402000'), 'geographic', null)).toThrow(
      'no degrees',
    );
  });
});

describe('csv points', () => {
  it('finds columns by heading, or takes the first three', () => {
    expect(parseCsvPoints('name,height,east,north\na,5,1,2\n')).toEqual([{ x: 1, y: 2, z: 5 }]);
    expect(parseCsvPoints('1;2;3\n4;5;6\n')).toEqual([
      { x: 1, y: 2, z: 3 },
      { x: 4, y: 5, z: 6 },
    ]);
  });
  it('names the line of a bad number', () => {
    expect(() => parseCsvPoints('x,y,z\n1,2,3\n1,,3\n')).toThrow('line 3');
    expect(() => parseCsvPoints('x,y,depth\n1,2,3\n')).toThrow('no column for z');
  });
});

describe('walked lines', () => {
  const gpx = readFileSync('demo/new-cross-fence.gpx', 'utf8');
  it('reads a GPX track into local metres', () => {
    const { lines } = readWalked('gpx', gpx, originAt([-30, 48]));
    expect(lines).toHaveLength(1);
    expect(lines[0]!.name).toBe('New cross fence');
    expect(lines[0]!.points[0]!.e).toBeCloseTo(672, -1);
  });
  it('makes an origin at the first point when there is none', () => {
    const { lines, origin } = readWalked(
      'geojson',
      '{"type":"LineString","coordinates":[[10,50],[10.001,50]]}',
      null,
    );
    expect(lines[0]!.points[0]).toEqual({ e: expect.closeTo(0, 6), n: expect.closeTo(0, 6) });
    // Published: a degree of longitude at 50 degrees north on WGS 84 is 71.70 km.
    expect(lines[0]!.points[1]!.e).toBeCloseTo(71.7, 1);
    expect(origin.proj).toContain('+lon_0=10');
  });
  it.each([
    ['gpx', '<gpx><trk>', 'not a GPX file'],
    ['gpx', '<!DOCTYPE x [<!ENTITY a "b">]><gpx/>', 'document type'],
    ['gpx', 'hello', 'not a GPX file'],
    ['gpx', '<kml/>', 'no <gpx>'],
    ['geojson', '{', 'not JSON'],
    ['geojson', '{"type":"Point","coordinates":[1,2]}', 'no line'],
    ['geojson', '{"type":"LineString","coordinates":[[400,2],[1,2]]}', 'position 1'],
    ['geojson', '{"type":"LineString","coordinates":[[null,2],[1,2]]}', 'position 1'],
    ['geojson', '[]', 'not GeoJSON'],
  ] as const)('refuses %s %j', (format, text, words) => {
    expect(() => readWalked(format, text, null)).toThrow(words);
  });
});

const sample = () =>
  plan(
    [
      line(
        'a',
        [
          [0, 0],
          [120, 30],
          [180, -40],
        ],
        { name: 'Hill & "dale" <1>' },
      ),
    ],
    {
      gates: { g: { id: 'g', name: 'Gate', line: 'a', at_m: 50, width_m: 4, cable: true } },
      energisers: { unit: energiser('a', 0) },
    },
  );

describe('geographic files', () => {
  it.each(['geojson', 'gpx'] as const)(
    '%s out and in again keeps geometry within 1 cm, and names',
    (format) => {
      const p = sample();
      const text = format === 'gpx' ? toGpx(p, FLAT) : toGeoJson(p, FLAT);
      const { lines } = readWalked(format, text, p.origin);
      expect(lines[0]!.name).toBe('Hill & "dale" <1>');
      lines[0]!.points.forEach((q, i) => {
        const v = p.lines['a']!.vertices[i]!;
        expect(Math.hypot(q.e - v.e, q.n - v.n)).toBeLessThan(0.01);
      });
    },
  );
  it('KML is well-formed and holds line, gate and energiser', () => {
    const doc = new DOMParser().parseFromString(toKml(sample(), FLAT), 'text/xml');
    const names = Array.from(doc.getElementsByTagName('Placemark')).map(
      (m) => m.getElementsByTagName('name').item(0)!.textContent,
    );
    expect(names).toEqual(['Hill & "dale" <1>', 'Gate', 'Unit']);
  });
  it('local metres agree with proj4 on the same definition', () => {
    const p = sample();
    const [lon, lat] = converter(p.origin).toLonLat({ e: 10, n: 20 });
    const [x, y] = proj4('EPSG:4326', p.origin.proj, [lon, lat]);
    expect([x! - p.origin.x, y! - p.origin.y]).toEqual([
      expect.closeTo(10, 5),
      expect.closeTo(20, 5),
    ]);
    expect(() => projection('utm 99n')).toThrow('1 to 60');
    expect(() => projection('+proj=nonsense')).toThrow('not understood');
    expect(() => projection('somewhere')).toThrow('utm 30n');
  });
});

describe('order list', () => {
  it('is CSV with a row an item and a total that adds up', () => {
    const r = report(sample());
    const rows = Papa.parse<string[]>(orderCsv(r, sample(), catalogue)).data;
    expect(rows[0]).toEqual([
      'item',
      'quantity',
      'unit',
      'price',
      'price per',
      'cost EUR',
      'tax %',
      'note',
      'places',
    ]);
    expect(rows).toHaveLength(r.supplies.length + 3);
    const items = rows.slice(1, -2);
    const sum = items.reduce((t, row) => t + Number(row[5]), 0);
    expect(sum).toBeCloseTo(Number(rows.at(-2)![5]), 1);
    const taxed = items.reduce((t, row) => t + Number(row[5]) * (1 + Number(row[6]) / 100), 0);
    expect(taxed).toBeCloseTo(Number(rows.at(-1)![5]), 1);
    // What belongs to places says which, and they add up to what is bought.
    for (const s of r.supplies.filter((x) => x.places && x.unit === 'each')) {
      const counts = Object.values(s.places!).flat().map(([, n]) => n); // prettier-ignore
      expect(
        counts.reduce((a, b) => a + b, 0),
        s.id,
      ).toBeLessThanOrEqual(s.quantity);
    }
    const ends = r.supplies.find((s) => s.id === 'insulator.end')!;
    expect(Object.values(ends.places!).flat().reduce((a, [, n]) => a + n, 0)).toBe(ends.quantity); // prettier-ignore
  });
});

describe('plan file', () => {
  it('goes out and comes in as it was, ground included', () => {
    const text = readFileSync('demo/hollin-scar.plan.json', 'utf8');
    const opened = parsePlan(text);
    expect(parsePlan(printPlan(opened.plan, opened.grids))).toEqual(opened);
    expect(opened.plan.invented).toBe(true);
  });
  it.each([
    [(p: Plan) => void (p.lines['a']!.strands[0]!.height_m = -1), '/lines/a/strands/0/height_m'],
    [(p: Plan) => void ((p as unknown as { extra: number }).extra = 1), 'extra'],
    [(p: Plan) => void (p.gates['g']!.line = 'zz'), '/gates/g/line'],
    [(p: Plan) => void ((p as unknown as { version: number }).version = 9), 'later version'],
    [(p: Plan) => void ((p as unknown as { name?: string }).name = undefined), 'name'],
    [(p: Plan) => void (p.lines['a']!.vertices[0]!.e = NaN), '/lines/a/vertices/0/e'],
  ])('refuses a broken one with its place, %#', (change, words) => {
    const p = structuredClone(sample());
    change(p);
    expect(() => openPlan(p)).toThrow(words);
  });
});

describe('patches', () => {
  const document = { a: { x: 1, list: [1, 2, 3] }, b: { y: 'z' } };
  type Doc = { a: { x: number; list: number[] }; b: { y: string; n?: number } };
  it('every edit can be taken back, and shares what it did not touch', () => {
    const change = fc.constantFrom<(d: Doc) => void>(
      (d) => void (d.a.x += 1),
      (d) => void d.a.list.splice(1, 1),
      (d) => void d.a.list.unshift(9),
      (d) => void d.a.list.push(7),
      (d) => void (d.b.n = 4),
      (d) => void (d.b.y = 'q'),
    );
    fc.assert(
      fc.property(fc.array(change, { minLength: 1, maxLength: 6 }), (changes) => {
        const made = edit<Doc>(document, (d) => changes.forEach((c) => c(d)));
        expect(applyPatch<Doc>(document, made.patch)).toEqual(made.next);
        expect(applyPatch(made.next, made.inverse)).toEqual(document);
      }),
    );
    expect(edit<Doc>(document, (d) => void (d.a.x = 5)).next.b).toBe(document.b);
  });
  it.each([
    [{ op: 'replace', path: '/a/none', value: 1 }],
    [{ op: 'remove', path: '/a/list/9' }],
    [{ op: 'add', path: '/a/list/01', value: 1 }],
    [{ op: 'add', path: '/none/x', value: 1 }],
    [{ op: 'add', path: '/__proto__/x', value: 1 }],
    [{ op: 'add', path: '/constructor/prototype', value: 1 }],
  ] as const)('refuses %j and leaves the document', (step) => {
    expect(() => applyPatch(document, [step as never])).toThrow('no such place');
    expect(({} as { x?: number }).x).toBeUndefined();
  });
  it('knows which changes touch', () => {
    const step = (op: 'add' | 'remove' | 'replace', path: string) => [{ op, path, value: 1 }];
    expect(patchesTouch(step('replace', '/a/x'), step('replace', '/a/y'))).toBe(false);
    expect(patchesTouch(step('replace', '/a'), step('replace', '/a/y'))).toBe(true);
    expect(patchesTouch(step('replace', '/l/0/e'), step('replace', '/l/1/e'))).toBe(false);
    expect(patchesTouch(step('add', '/l/0'), step('replace', '/l/1/e'))).toBe(true);
    expect(patchesTouch(step('replace', '/ab'), step('replace', '/a'))).toBe(false);
  });
});

describe('a projection as a user names it', () => {
  it('is taken with or without blanks and colons, in either case', () => {
    const north = projection('utm 30n');
    for (const words of ['UTM30N', ' utm  30 n ', 'Utm 30 N'])
      expect(projection(words)).toBe(north);
    expect(north).toContain('+zone=30');
    expect(north).not.toContain('+south');
    expect(projection('utm 5s')).toContain('+south');
    const grid = projection('epsg 32630');
    for (const words of ['EPSG:32630', 'epsg : 32630', 'epsg:  32630', 'EPSG32630']) expect(projection(words)).toBe(grid); // prettier-ignore
  });

  it('is refused beyond what there is', () => {
    for (const words of ['utm 0n', 'utm 61s']) expect(() => projection(words)).toThrow('1 to 60');
    for (const words of ['utm 60n', 'utm 1s']) expect(projection(words)).toContain('+proj=utm');
    expect(() => projection('epsg 99999')).toThrow('99999 does not ship');
    expect(() => projection('somewhere')).toThrow();
  });
});
