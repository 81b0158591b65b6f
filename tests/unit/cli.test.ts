import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Ajv } from 'ajv';
import { afterAll, beforeAll, describe, expect, it, onTestFinished } from 'vitest';
import { run } from '../../src/cli/cli.js';
import { energiser, line, plan as scene } from './scene.js';

const DEMO = 'demo/hollin-scar.plan.json';

/** What a command says and how it ends. */
async function said(args: string[], input = '') {
  const out: string[] = [];
  const err: string[] = [];
  const status = await run(args, {
    out: (text) => out.push(text),
    err: (text) => err.push(text),
    stdin: () => input,
  });
  return { status, out: out.join('\n'), err: err.join('\n') };
}
const json = async <T>(args: string[], input = ''): Promise<T> =>
  JSON.parse((await said(args, input)).out) as T;

describe('the command line', () => {
  it('calc answers a case, and exits 2 with one clear line on a bad one', async () => {
    const bays = '{"kind":"equal_bays","inputs":{"length_m":26.9,"target_m":4.5,"mode":"aim"}}';
    expect(await json(['calc'], bays)).toMatchObject({ kind: 'equal_bays', outputs: { bays: 6 } });
    for (const text of [
      '',
      '{',
      '{"kind":"x","inputs":{}}',
      '{"kind":"wenner","inputs":{"spacing_m":0,"r_measured_ohm":1}}',
    ]) {
      const bad = await said(['calc'], text);
      expect(bad.status, text).toBe(2);
      expect(bad.err.split('\n'), text).toHaveLength(1);
      expect(bad.out).toBe('');
    }
  });

  it('evaluate prints a report that fits the schema it publishes; one season, or in words', async () => {
    const ajv = new Ajv({ strict: false });
    const fits = ajv.compile(await json<object>(['schema', 'report']));
    // Two units and two lines: the demo takes six seconds, and has no other keys.
    const folder = mkdtempSync(join(tmpdir(), 'anabatic-'));
    onTestFinished(() => rmSync(folder, { recursive: true }));
    const file = join(folder, 'two.json');
    const units = { a: energiser('a', 0, { id: 'a' }), b: energiser('b', 0, { id: 'b', n: 90 }) };
    writeFileSync(file, JSON.stringify(scene([line('a', [[0, 0], [300, 0]]), line('b', [[0, 90], [300, 90]])], { energisers: units }))); // prettier-ignore
    const report = await json<object>(['evaluate', file, '--json']);
    expect(fits(report), JSON.stringify(fits.errors)).toBe(true);
    const plan = ajv.compile(await json<object>(['schema', 'plan']));
    expect(plan(JSON.parse(readFileSync(DEMO, 'utf8')))).toBe(true);
    const dry = await json<{ energisers: Record<string, { seasons: object }> }>(['evaluate', file, '--season', 'dry', '--json']); // prettier-ignore
    expect(Object.values(dry.energisers).map((e) => Object.keys(e.seasons))).toEqual([['dry'], ['dry']]); // prettier-ignore
    expect((await said(['evaluate', file])).out).toContain('smallest that meets the aim');
    expect((await said(['evaluate', file, '--season', 'never'])).status).toBe(2);
  });

  it('compare prints what can be put on a line; a line that is not there is named', async () => {
    const found = await json<{
      comparison: { recommended: string; rows: { order: string }[] };
      kinds: object[];
    }>(['compare', DEMO, 'hut']);
    expect(found.comparison.recommended).toBe('turns');
    expect(found.comparison.rows.map((r) => r.order)).toContain('coldTop');
    expect(found.kinds.length).toBeGreaterThan(5);
    const bad = await said(['compare', DEMO, 'nowhere']);
    expect(bad).toMatchObject({ status: 2, out: '' });
    expect(bad.err).toContain('nowhere: the plan has no such line');
  });

  it('says what it knows, and what is not known, in a line', async () => {
    const help = await said(['--help']);
    expect(help.status).toBe(0);
    for (const word of [
      'serve',
      'demo',
      'evaluate',
      'compare',
      'calc',
      'import',
      'export',
      'schema',
    ])
      // prettier-ignore
      expect(help.out).toContain(word);
    expect(await said(['fly'])).toMatchObject({ status: 2 });
    expect(await said(['serve', '--port', '99999'])).toMatchObject({ status: 2, err: expect.stringContaining('0 to 65535') }); // prettier-ignore
    expect(await said(['serve', '--host', '0.0.0.0'])).toMatchObject({ status: 2, err: expect.stringContaining('without HTTPS') }); // prettier-ignore
  });
});

describe('import and export', () => {
  let folder: string;
  beforeAll(() => void (folder = mkdtempSync(join(tmpdir(), 'anabatic-'))));
  afterAll(() => rmSync(folder, { recursive: true }));

  it('a plan goes into a store and comes out the same; a bad file changes nothing', async () => {
    const db = join(folder, 'x.sqlite');
    const id = (await said(['import', DEMO, '--db', db])).out;
    const out = await json<{ lines: object }>(['export', id, '--db', db]);
    expect(out.lines).toEqual((JSON.parse(readFileSync(DEMO, 'utf8')) as typeof out).lines);
    expect((await said(['export', id, '--db', db, '--format', 'gpx'])).out).toContain('<trk>');
    const file = join(folder, 'x.csv');
    const wrote = await said(['export', DEMO, '--format', 'order', '--out', file]);
    expect(wrote).toEqual({ status: 0, out: '', err: '' });
    expect(readFileSync(file, 'utf8')).toMatch(/^item,quantity,unit/);
    const bad = await said(['import', '-', '--db', db], '{"format":"anabatic-plan","version":1}');
    expect(bad).toMatchObject({ status: 2, err: expect.stringContaining('lacks') });
    expect((await said(['export', 'nowhere', '--db', db])).status).toBe(2);
    expect(await said(['evaluate', 'no-such-file'])).toMatchObject({ status: 2, err: expect.stringContaining('no-such-file') }); // prettier-ignore
  });
});
