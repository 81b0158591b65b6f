import { spawnSync } from 'node:child_process';
import { expect, test } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { small } from './small.js';

const DEMO = readFileSync('demo/hollin-scar.plan.json', 'utf8');
/** Told apart by its name: other tests make properties meanwhile. */
const REFUSED = DEMO.replace('"Hollin Scar"', '"Refused"');
// As bytes: a string would be turned into JSON once more.
const json = (text: string) => ({
  headers: { 'content-type': 'application/json' },
  data: Buffer.from(text),
});
interface Refusal {
  error: string;
  place: string;
  reason: string;
}

test('what is not there answers 404 in words', async ({ request, page }) => {
  for (const path of [
    '/api/properties/none',
    '/api/properties/none/export',
    '/api/properties/none/report',
    '/api/grids/none',
    '/api/schema/none',
  ]) {
    const answer = await request.get(path);
    expect(answer.status(), path).toBe(404);
    expect(((await answer.json()) as Refusal).error, path).toMatch(/\w{3}/);
  }
  await page.goto('/p/none/land');
  await expect(page.getByRole('alert')).toContainText('no such property');
});

test('bodies that are no JSON, no plan or no ground are refused with place and reason', async ({
  request,
}) => {
  const refused = async (path: string, body: string, words: RegExp) => {
    const answer = await request.post(path, json(body));
    expect(answer.status(), `${path} ${body.slice(0, 40)}`).toBe(422);
    expect(((await answer.json()) as Refusal).error).toMatch(words);
  };
  await refused('/api/properties', '{', /not JSON/);
  await refused('/api/properties', 'null', /object/);
  await refused('/api/properties', '{"format":"other"}', /lacks|must be/);
  await refused('/api/properties', REFUSED.replace('"version":2', '"version":7'), /later version/);
  await refused('/api/properties', REFUSED.replace('"id":"g1"', '"id":"g9"'), /gates\/g1\/id/);
  await refused(
    '/api/grids',
    '{"format":"asc","text":"x","reference":"local","origin":null}',
    /lacks ncols/,
  );
  await refused(
    '/api/grids',
    '{"format":"xyz","text":"x","reference":"local","origin":null}',
    /format/,
  );
  await refused(
    '/api/grids',
    JSON.stringify({ format: 'csv', text: '1,2,3\n4,5,6', reference: 'local', origin: null }),
    /three points/,
  );
  await refused('/api/walked', '{"format":"gpx","text":"<gpx/>","origin":null}', /no line/);
  await refused('/api/properties/hollin-scar/changes', '{"changeId":"x"}', /changeId|lacks/);
  const all = (await (await request.get('/api/properties')).json()) as { name: string }[];
  expect(all.map((p) => p.name)).not.toContain('Refused');
});

test('a change that would leave an unsound plan is refused, and the plan stays', async ({
  request,
}) => {
  const { id } = (await (await request.post('/api/properties', json(DEMO))).json()) as {
    id: string;
  };
  const change = (patch: object[], inverse: object[]) => ({
    data: {
      changeId: crypto.randomUUID(),
      tab: 'test-tab',
      base: 0,
      kind: 'do',
      words: 'test',
      patch,
      inverse,
    },
  });
  const bad: [object[], RegExp][] = [
    [[{ op: 'replace', path: '/lines/burn/strands/0/height_m', value: -1 }], /height_m/],
    [[{ op: 'replace', path: '/lines/nowhere/name', value: 'x' }], /no such place/],
    [[{ op: 'remove', path: '/lines/pony' }], /\/line: no line is called "pony"/],
    [[{ op: 'add', path: '/__proto__/polluted', value: 1 }], /no such place/],
    [[{ op: 'test', path: '/name', value: 'x' }], /patch/],
  ];
  for (const [patch, words] of bad) {
    const answer = await request.post(`/api/properties/${id}/changes`, change(patch, patch));
    expect(answer.status(), JSON.stringify(patch)).toBe(422);
    expect(((await answer.json()) as Refusal).error).toMatch(words);
  }
  const good = [{ op: 'replace', path: '/name', value: 'Renamed' }];
  const answer = await request.post(`/api/properties/${id}/changes`, change(good, good));
  expect(await answer.json()).toMatchObject({ status: 'saved', revision: 1 });
  const all = (await (await request.get('/api/properties')).json()) as {
    id: string;
    name: string;
  }[];
  expect(all.find((p) => p.id === id)!.name).toBe('Renamed');
});

test('ground in degrees and in a projection lands in local metres; the plan can stand on it', async ({
  request,
}) => {
  const rows = Array.from({ length: 12 }, (_, r) =>
    Array.from({ length: 10 }, (_, c) => 100 + r + c).join(' '),
  ).join('\n');
  const header = (x: number, y: number, cell: number) =>
    `ncols 10\nnrows 12\nxllcenter ${x}\nyllcenter ${y}\ncellsize ${cell}\n`;
  const put = async (text: string, reference: unknown) =>
    (await (
      await request.post('/api/grids', { data: { format: 'asc', text, reference, origin: null } })
    ).json()) as {
      id: string;
      cell_m: number;
      origin: { proj: string };
      low_m: number;
      high_m: number;
    };
  const degrees = await put(header(-2, 54, 0.001) + rows, 'geographic');
  expect(degrees.origin.proj).toContain('tmerc');
  // Published: 0.001 degrees of longitude at 54 degrees north are 65.6 m on WGS 84.
  expect(degrees.cell_m).toBeCloseTo(65.6, 0);
  const projected = await put(header(500000, 5980000, 25) + rows, { projection: 'utm 30n' });
  expect(projected).toMatchObject({ cell_m: 25, low_m: 100, high_m: 120 });
  const grid = (await (await request.get(`/api/grids/${projected.id}`)).json()) as {
    east0_m: number;
    cols: number;
  };
  expect(grid).toMatchObject({ east0_m: 0, cols: 10 });
  const stands = await request.post('/api/properties', {
    data: {
      ...small,
      grids: undefined,
      origin: projected.origin,
      ground: { kind: 'grid', id: projected.id },
    },
  });
  expect(stands.status()).toBe(201);
  const { id } = (await stands.json()) as { id: string };
  const report = (await (await request.get(`/api/properties/${id}/report`)).json()) as {
    lines: Record<string, { unknownGround: unknown[] }>;
  };
  // The lines reach beyond this small ground, and the report says so.
  expect(report.lines['north']!.unknownGround.length).toBeGreaterThan(0);
});

test('a form of another site cannot post', async ({ request }) => {
  const answer = await request.post('/api/properties', {
    headers: {
      'content-type': 'application/x-www-form-urlencoded',
      origin: 'http://elsewhere.example',
    },
    data: 'a=b',
  });
  expect(answer.status()).toBe(403);
});

test('calculators answer alike over HTTP, by their own address and at the terminal', async ({
  request,
}) => {
  const inputs = { spacing_m: 2, r_measured_ohm: 8, probe_depth_m: 0.1 };
  const one = { kind: 'wenner', inputs };
  const all = (await (await request.post('/api/calc', { data: one })).json()) as object;
  expect(await (await request.post('/api/calc/wenner', { data: inputs })).json()).toEqual(all);
  const terminal = spawnSync('bin/anabatic', ['calc'], { input: JSON.stringify(one) });
  expect(JSON.parse(terminal.stdout.toString())).toEqual(all);
  const bad = await request.post('/api/calc', { data: { ...one, inputs: { spacing_m: 'x' } } });
  expect(bad.status()).toBe(422);
  expect(((await bad.json()) as { place: string }).place).toContain('/inputs');
});
