import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Type } from '../../src/core/base/type.js';
import { describe, expect, it } from 'vitest';
import { FormatError } from '../../src/formats/error.js';
import { readGround } from '../../src/formats/ground.js';
import { converter } from '../../src/formats/projection.js';
import { validate } from '../../src/formats/validate.js';
import { openDatabase } from '../../src/server/database.js';
import { exportAs } from '../../src/server/exports.js';
import { answer, bodyJson, bodyText, Refused, ROOM } from '../../src/server/http.js';
import { planStore } from '../../src/server/plans/store.js';
import { newPlan } from '../../src/core/edit/firstPlan.js';
import { pointsOf } from '../../src/views/start/answers.js';
import { checkPlan } from '../../src/core/check.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import { line, plan, report } from './scene.js';

const post = (body: BodyInit, headers: Record<string, string> = {}) =>
  new Request('http://127.0.0.1/', {
    method: 'POST',
    body,
    headers,
    duplex: 'half',
  } as RequestInit);

describe('bodies', () => {
  it('are read as text and as JSON', async () => {
    expect(await bodyText(post('häh'), ROOM.record)).toBe('häh');
    expect(await bodyJson(post('{"a":[1]}'), ROOM.record)).toEqual({ a: [1] });
    await expect(bodyJson(post('{'), ROOM.record)).rejects.toThrow('not JSON');
  });

  it('too large are refused by their announced length, and while they come when they announce none', async () => {
    await expect(
      bodyText(post('x', { 'content-length': String(ROOM.change + 1) }), ROOM.change),
    ).rejects.toThrow('larger than 8 MB');
    const chunk = new Uint8Array(1024 * 1024);
    let sent = 0;
    const endless = new ReadableStream<Uint8Array>({
      pull(controller) {
        sent += chunk.length;
        controller.enqueue(chunk);
      },
    });
    await expect(bodyText(post(endless), ROOM.change)).rejects.toThrow('larger than');
    // Reading stops soon after the bound instead of filling the memory.
    expect(sent).toBeLessThan(ROOM.change + 4 * chunk.length);
  });

  it('faults become answers: 422 with place and reason, 500 without a word of the inside', async () => {
    const bad = await answer(() => Promise.reject(new FormatError('/a/b', 'is wrong')));
    expect([bad.status, await bad.json()]).toEqual([
      422,
      { error: '/a/b: is wrong', place: '/a/b', reason: 'is wrong' },
    ]);
    const range = await answer(() => Promise.reject(new RangeError('too far')));
    expect(range.status).toBe(422);
    const large = await answer(() => Promise.reject(new Refused(413, 'too much')));
    expect(large.status).toBe(413);
    const quiet = console.error;
    console.error = () => undefined;
    try {
      const broken = await answer(() => Promise.reject(new Error('secret path')));
      expect(broken.status).toBe(500);
      expect(JSON.stringify(await broken.json())).not.toContain('secret');
    } finally {
      console.error = quiet;
    }
  });
});

describe('schemas', () => {
  const schema = Type.Object(
    { n: Type.Number({ minimum: 1 }), kind: Type.Literal('x'), d: Type.Number({ default: 5 }) },
    { additionalProperties: false },
  );
  it.each([
    [{ n: 0, kind: 'x' }, '/n: must be >= 1'],
    [{ n: 'one', kind: 'x' }, '/n: must be number'],
    [{ kind: 'x' }, '/: lacks "n"'],
    [{ n: 1, kind: 'y' }, '/kind: must be "x"'],
    [{ n: 1, kind: 'x', more: 1 }, '/: knows no "more"'],
    [[], '/: must be object'],
  ])('%j: %s', (value, words) => {
    expect(() => validate(schema, value)).toThrow(words);
  });
  it('put their defaults in, and leave the rest as it is', () => {
    expect(validate(schema, { n: 2, kind: 'x' })).toEqual({ n: 2, kind: 'x', d: 5 });
  });
});

describe('ground beside an origin that is there already', () => {
  const origin = {
    proj: '+proj=utm +zone=30 +datum=WGS84 +units=m +no_defs',
    x: 500_000,
    y: 5_980_000,
  };
  it('points in degrees land where the origin puts them', () => {
    const { toLonLat } = converter(origin);
    const corners = [
      [0, 0, 10],
      [200, 0, 30],
      [0, 100, 20],
      [200, 100, 40],
    ] as const;
    const text = `lon,lat,height\n${corners.map(([e, n, z]) => `${toLonLat({ e, n }).join(',')},${z}`).join('\n')}`;
    const { grid, origin: kept } = readGround('csv', text, 'geographic', origin);
    expect(kept).toBe(origin);
    expect([grid.east0_m, grid.north0_m]).toEqual([expect.closeTo(0, 3), expect.closeTo(0, 3)]);
    expect(grid.z_m[0]).toBeCloseTo(10, 3);
  });
  it('a grid of the neighbouring zone is turned and read into the property’s own metres', () => {
    const there = converter({ ...origin, proj: origin.proj.replace('30', '31'), x: 0, y: 0 });
    const corner = there.fromLonLat(converter(origin).toLonLat({ e: 0, n: 0 }));
    const text = `ncols 40\nnrows 40\nxllcenter ${corner.e - 400}\nyllcenter ${corner.n - 400}\ncellsize 20\n${Array.from({ length: 40 }, () => new Array(40).fill(77).join(' ')).join('\n')}`;
    const { grid } = readGround('asc', text, { projection: 'utm 31n' }, origin);
    const known = grid.z_m.filter((z) => z !== null);
    expect(known.length).toBeGreaterThan(800);
    expect(known.every((z) => z === 77)).toBe(true);
    // The zones' norths differ: the corners of the new grid hold nothing.
    expect(grid.z_m.length).toBeGreaterThan(known.length);
  });
});

describe('guided start', () => {
  const answers = {
    name: ' Long Meadow ',
    units: 'metric' as const,
    currency: 'EUR',
    ground: { kind: 'flat' as const, z_m: 0 },
    origin: plan([]).origin,
    lines: [
      {
        name: 'First',
        points: [
          { e: 0, n: 0 },
          { e: 300, n: 0 },
        ],
      },
    ],
    left: ['sheep'],
    right: [],
    keepOut: ['fox'],
    boundary: true,
    soil: 'clay',
    supply: 'solar' as const,
  };
  it('gives a sound plan with the proposed make-up and a unit of the supply that feeds the line', () => {
    const p = newPlan(answers);
    expect(checkPlan(p, catalogue, new Set())).toEqual([]);
    expect(p.name).toBe('Long Meadow');
    const l = Object.values(p.lines)[0]!;
    expect(l.strands).toHaveLength(7);
    expect(l).toMatchObject({ boundary: true, left: ['sheep'], keepOut: ['fox'] });
    const e = Object.values(p.energisers)[0]!;
    expect(catalogue.energisers[e.model]!.supply).toBe('solar');
    expect(e).toMatchObject({ line: l.id, at_m: 150 });
    expect(report(p).dead).toEqual([]);
  });
  it('reads typed legs row by row and names the row that is wrong', () => {
    const points = pointsOf('100 @ 90\n\n50 @ 0', 'metric') as { e: number; n: number }[];
    expect(points.map((p) => [Math.round(p.e), Math.round(p.n)])).toEqual([
      [0, 0],
      [100, 0],
      [100, 50],
    ]);
    expect(pointsOf('100 @ 90\nnorth', 'metric')).toMatch(/^Row 2/);
    expect(pointsOf('  ', 'metric')).toContain('at least one leg');
    expect((pointsOf('100 @ 90', 'imperial') as { e: number }[])[1]!.e).toBeCloseTo(30.48, 9);
  });
});

describe('exports', () => {
  const opened = {
    plan: plan(
      [
        line('a', [
          [0, 0],
          [50, 0],
        ]),
      ],
      { name: 'Über die Höhe / 1' },
    ),
    grids: {},
  };
  it('carry a plain file name and a media type', () => {
    expect(exportAs('kml', opened)).toMatchObject({ type: 'application/vnd.google-earth.kml+xml' });
    expect(exportAs('order', opened).file).toMatch(/^[a-z0-9-]+\.order\.csv$/);
    expect(() => exportAs('shapefile', opened)).toThrow('there are plan');
    expect(() => exportAs('constructor', opened)).toThrow('there are plan');
  });
  it('a property whose ground is gone says so instead of leaving it out', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'anabatic-'));
    const db = await openDatabase(join(folder, 'x.sqlite'));
    try {
      const store = planStore(db);
      const grid = { east0_m: 0, north0_m: 0, cell_m: 1, cols: 2, rows: 2, z_m: [1, 2, 3, 4] };
      const id = await store.create({
        plan: { ...opened.plan, ground: { kind: 'grid', id: 'mine' } },
        grids: { mine: grid },
      });
      const whole = (await store.withGround(id))!;
      expect(Object.values(whole.grids)).toEqual([grid]);
      await db('grid').delete();
      await expect(store.withGround(id)).rejects.toThrow('missing');
    } finally {
      await db.destroy();
      rmSync(folder, { recursive: true });
    }
  });
});
