import { expect, test } from '@playwright/test';
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Ajv } from 'ajv';

const run = (args: string[], input = '') =>
  spawnSync('bin/anabatic', args, { input, encoding: 'utf8' });
const DEMO = 'demo/hollin-scar.plan.json';

test('calc answers a case, and exits 2 with one clear line on a bad one', () => {
  const good = run(
    ['calc'],
    '{"kind":"equal_bays","inputs":{"length_m":26.9,"target_m":4.5,"mode":"aim"}}',
  );
  expect(JSON.parse(good.stdout)).toMatchObject({ kind: 'equal_bays', outputs: { bays: 6 } });
  for (const text of [
    '',
    '{',
    '{"kind":"x","inputs":{}}',
    '{"kind":"wenner","inputs":{"spacing_m":0,"r_measured_ohm":1}}',
  ]) {
    const bad = run(['calc'], text);
    expect(bad.status, text).toBe(2);
    expect(bad.stderr.trim().split('\n'), text).toHaveLength(1);
    expect(bad.stdout).toBe('');
  }
});

test('calc over HTTP gives the same', async ({ request }) => {
  const inputs = { spacing_m: 2, r_measured_ohm: 8, probe_depth_m: 0.1 };
  const all = (await (
    await request.post('/api/calc', { data: { kind: 'wenner', inputs } })
  ).json()) as object;
  const one = (await (await request.post('/api/calc/wenner', { data: inputs })).json()) as object;
  expect(one).toEqual(all);
  expect(JSON.parse(run(['calc'], JSON.stringify({ kind: 'wenner', inputs })).stdout)).toEqual(all);
  const bad = await request.post('/api/calc', {
    data: { kind: 'wenner', inputs: { spacing_m: 'x' } },
  });
  expect(bad.status()).toBe(422);
  expect(((await bad.json()) as { place: string }).place).toContain('/inputs');
});

test('evaluate prints a report that fits the schema it publishes', () => {
  const ajv = new Ajv({ strict: false });
  const fits = ajv.compile(JSON.parse(run(['schema', 'report']).stdout) as object);
  const report = JSON.parse(run(['evaluate', DEMO, '--json']).stdout) as {
    energisers: Record<string, { seasons: object }>;
  };
  expect(fits(report), JSON.stringify(fits.errors)).toBe(true);
  expect(
    ajv.compile(JSON.parse(run(['schema', 'plan']).stdout) as object)(
      JSON.parse(readFileSync(DEMO, 'utf8')),
    ),
  ).toBe(true);
  const dry = JSON.parse(
    run(['evaluate', DEMO, '--season', 'dry', '--json']).stdout,
  ) as typeof report;
  expect(Object.keys(dry.energisers['steading']!.seasons)).toEqual(['dry']);
  expect(run(['evaluate', DEMO]).stdout).toContain('smallest that meets the aim');
});

test('compare prints what can be put on a line; a line that is not there is named', () => {
  const found = JSON.parse(run(['compare', DEMO, 'hut']).stdout) as {
    comparison: { recommended: string; rows: { order: string }[] };
    kinds: object[];
  };
  expect(found.comparison.recommended).toBe('turns');
  expect(found.comparison.rows.map((r) => r.order)).toContain('coldTop');
  expect(found.kinds.length).toBeGreaterThan(5);
  const bad = run(['compare', DEMO, 'nowhere']);
  expect(bad.status).toBe(2);
  expect(bad.stderr).toContain('nowhere: the plan has no such line');
});

test('import takes a plan file into a store and export gives it back; a bad file changes nothing', () => {
  const folder = mkdtempSync(join(tmpdir(), 'anabatic-'));
  const db = join(folder, 'x.sqlite');
  try {
    const id = execFileSync('bin/anabatic', ['import', DEMO, '--db', db], {
      encoding: 'utf8',
    }).trim();
    const out = JSON.parse(run(['export', id, '--db', db]).stdout) as {
      name: string;
      lines: object;
    };
    expect(out.lines).toEqual((JSON.parse(readFileSync(DEMO, 'utf8')) as typeof out).lines);
    expect(run(['export', id, '--db', db, '--format', 'gpx']).stdout).toContain('<trk>');
    const bad = run(['import', '-', '--db', db], '{"format":"anabatic-plan","version":1}');
    expect(bad.status).toBe(2);
    expect(bad.stderr).toContain('lacks');
    expect(run(['export', 'nowhere', '--db', db]).status).toBe(2);
    expect(run(['evaluate', 'no-such-file']).status).toBe(2);
  } finally {
    rmSync(folder, { recursive: true });
  }
});
