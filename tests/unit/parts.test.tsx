/** A part and a step that the program does not have are added here, with no other file touched. */
import { readFileSync, readdirSync } from 'node:fs';
import { lazy } from 'react';
import { prerender } from 'react-dom/static';
import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import { checkPlan } from '../../src/core/check.js';
import { joinLines, removePart, reverseLine, splitLine } from '../../src/core/edit/reshape.js';
import { extendLine } from '../../src/core/edit/edits.js';
import { createEvaluator } from '../../src/core/evaluate.js';
import { KEYS } from '../../src/core/parts/keys.js';
import { PARTS } from '../../src/core/parts/index.js';
import { PLACED, type Placed } from '../../src/core/parts/placed.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import { VERSION, type Plan } from '../../src/core/plan/schema.js';
import { reportSchemaOf } from '../../src/core/report/schema.js';
import { changeOf, follow } from '../../src/core/report/change.js';
import { liftPlan, versionOf } from '../../src/core/versions.js';
import { openPlan } from '../../src/formats/planFile.js';
import { edit } from '../../src/formats/patch.js';
import { validate } from '../../src/formats/validate.js';
import { KEYS as KEY_LIST, sheet } from '../../src/ui/keys.js';
import { RailList } from '../../src/views/shell/Rail.js';
import { StepView } from '../../src/views/shell/StepView.js';
import { stepNamed, STEPS, type Step } from '../../src/views/steps.js';
import { FLAT, line, plan } from './scene.js';
import { toy } from './toy/part.js';

const parts = [...PARTS, toy];
type Toy = {
  scarers: { at_m: number; loud: boolean }[];
  quiet: { from_m: number; to_m: number }[];
};
const toyOf = (p: Plan, id: string) => p.lines[id] as unknown as Toy;
const posters = (p: Plan) =>
  (p as unknown as { posters: Record<string, { line: string; at_m: number }> }).posters;

function noisy(): Plan {
  const one = { ...line('a', [[0, 0], [100, 0], [200, 0]]), scarers: [10, 60, 150].map((at_m) => ({ at_m, loud: at_m < 100 })), quiet: [{ from_m: 40, to_m: 120 }] }; // prettier-ignore
  const two = { ...line('b', [[200, 0], [300, 0]]), scarers: [{ at_m: 30, loud: false }] }; // prettier-ignore
  const own = { posters: { p1: { id: 'p1', line: 'a', at_m: 150 } }, version: 3 };
  return plan([one, two], own as unknown as Partial<Plan>);
}

describe('a toy part', () => {
  it('is checked at the door: its schema, its own check, and keys of parts that are not there', () => {
    expect(openPlan(noisy(), new Set(), parts).plan).toEqual(noisy());
    expect(() => openPlan(noisy())).toThrow('later version');
    expect(() => openPlan({ ...noisy(), version: 2 })).toThrow('knows no "posters"');
    const wrong = noisy();
    toyOf(wrong, 'a').scarers[0] = { at_m: -1, loud: true };
    expect(() => openPlan(wrong, new Set(), parts)).toThrow('/lines/a/scarers/0/at_m');
    toyOf(wrong, 'a').scarers[0] = { at_m: 2000, loud: true };
    expect(checkPlan(wrong, catalogue, new Set(), parts)).toEqual([
      { place: '/lines/a/scarers/0/at_m', reason: 'too far off to be heard' },
    ]);
  });

  it('brings older plans up to its version, and a newer one is refused in one line', () => {
    const old = { ...noisy(), version: 2, posters: undefined };
    delete (old as Record<string, unknown>)['posters'];
    const { plan: now } = openPlan(old, new Set(), parts);
    expect(now).toMatchObject({ version: 3, posters: {} });
    expect(old).not.toHaveProperty('posters');
    expect(() => openPlan({ ...noisy(), version: 7 }, new Set(), parts)).toThrow(
      '/version: this plan is of version 7, written by a later version of the program, which reads up to 3 here',
    );
  });

  it('is evaluated, counted and judged; its piece is remembered and told apart from others', () => {
    const evaluate = createEvaluator(parts);
    const r = evaluate(noisy(), FLAT, catalogue);
    expect(() =>
      validate(reportSchemaOf(parts.map((p) => p.keys)), structuredClone(r)),
    ).not.toThrow();
    expect(r.lines['a']).toMatchObject({ scarers: 3, perKm: 15 });
    expect(r).toMatchObject({ loudest: 'a' });
    expect(r.supplies.find((s) => s.id === 'sign')!.lines).toEqual({ a: 3, b: 1 });
    expect(r.supplies.find((s) => s.id === 'gate')!.lines).toEqual({ p1: 1 });
    expect(r.findings.filter((f) => f.step === 'noise').map((f) => f.id)).toEqual(['too-loud:a']);

    const plain = noisy();
    const start = evaluate(plain, FLAT, catalogue);
    const changed = edit(plain, (d) => void toyOf(d, 'a').scarers.pop()).next;
    const after = evaluate(changed, FLAT, catalogue);
    // One changed part is one part's piece: all else of the line is the very object of before.
    const change = changeOf(start, after);
    expect(Object.keys(change.lines['a']!).sort()).toEqual(['perKm', 'scarers']);
    expect(change.lines['b']).toEqual({});
    expect(follow(start, change)).toEqual(after);
    expect(follow(null, changeOf(null, after))).toEqual(after);
  });

  it('is cut, joined, turned, extended and taken away with its line', () => {
    const cut = edit(noisy(), (d) => void splitLine(d, 'a', 80, parts)).next;
    const made = Object.keys(cut.lines).find((id) => !['a', 'b'].includes(id))!;
    expect(toyOf(cut, 'a')).toMatchObject({
      scarers: [{ at_m: 10 }, { at_m: 60 }],
      quiet: [{ from_m: 40, to_m: 80 }],
    });
    expect(toyOf(cut, made)).toMatchObject({
      scarers: [{ at_m: 70 }],
      quiet: [{ from_m: 0, to_m: 40 }],
    });
    expect(posters(cut)['p1']).toEqual({ id: 'p1', line: made, at_m: 70 });

    const joined = edit(noisy(), (d) => void joinLines(d, 'b', 'a', parts)).next;
    expect(joined.lines).not.toHaveProperty('a');
    // b was turned round so that its start meets the end of a, which was turned as well.
    expect(toyOf(joined, 'b').scarers).toEqual([
      { at_m: 70, loud: true },
      { at_m: 150, loud: true },
      { at_m: 240, loud: false },
      { at_m: 290, loud: false },
    ]);
    expect(posters(joined)['p1']).toEqual({ id: 'p1', line: 'b', at_m: 150 });

    const turned = edit(noisy(), (d) => reverseLine(d, 'a', parts)).next;
    expect(toyOf(turned, 'a').scarers).toEqual([
      { at_m: 50, loud: true },
      { at_m: 140, loud: false },
      { at_m: 190, loud: false },
    ]);
    expect(toyOf(turned, 'a').quiet).toEqual([{ from_m: 80, to_m: 160 }]);

    const longer = edit(noisy(), (d) => extendLine(d, 'a', { e: -20, n: 0 }, true, parts)).next;
    expect(toyOf(longer, 'a').scarers.map((s) => s.at_m)).toEqual([30, 80, 170]);
    expect(posters(longer)['p1']!.at_m).toBe(170);

    const shorter = edit(noisy(), (d) => removePart(d, 'a', 140, 200, parts)).next;
    expect(toyOf(shorter, 'a').scarers.map((s) => s.at_m)).toEqual([10, 60]);
    expect(posters(shorter)).toEqual({});
  });
});

describe('a toy step', () => {
  const noise: Step = {
    id: 'noise',
    name: 'Noise',
    key: 'y',
    section: false,
    view: lazy(() => import('./toy/NoiseView.js').then((m) => ({ default: m.NoiseView }))),
  };
  const steps = [...STEPS, noise];

  it('is listed with what is left on it, found by its address, and its view is loaded and shown', async () => {
    const { findings } = createEvaluator(parts)(noisy(), FLAT, catalogue);
    const rail = renderToStaticMarkup(
      <RailList steps={steps} current="noise" property="p" findings={findings} begun />,
    );
    expect(rail).toContain('href="/p/p/noise" aria-current="page"');
    expect(rail).toMatch(/Noise<\/span><span[^>]*aria-label="1 open"/);
    expect(stepNamed('noise', steps)).toEqual({ step: noise, said: null });
    const { prelude } = await prerender(<StepView step={noise} />);
    expect(await new Response(prelude).text()).toContain('Nothing but birds');
  });

  it('an address that names no step leads to the first, with a word', () => {
    expect(stepNamed('nonsense')).toEqual({
      step: STEPS[0],
      said: 'There is no step called "nonsense". This is Land.',
    });
    expect(stepNamed(undefined).said).toBeNull();
  });
});

describe('the lists of parts', () => {
  it('hold the same parts in the same order, write one version, and claim no key twice', () => {
    expect(PARTS.map((p) => p.keys)).toEqual([...KEYS]);
    const hooks = (p: Placed) => [p.places, p.turned, p.joining, p.blocksCut];
    expect(PARTS.map(hooks).filter((h) => h.some(Boolean))).toEqual(PLACED.map(hooks));
    expect(versionOf(PARTS)).toBe(VERSION);
    expect(() => reportSchemaOf([...KEYS, KEYS[0]])).toThrow('two parts claim');
  });

  it('every rule names a step that there is, and no step has the key of another', () => {
    const steps = new Set(STEPS.map((s) => s.id));
    const rules = PARTS.flatMap((p) => p.rules ?? []);
    expect(rules.filter((r) => !steps.has(r.step)).map((r) => r.id)).toEqual([]);
    expect(new Set(rules.map((r) => r.id)).size).toBe(rules.length);
    const everywhere = [
      ...STEPS.map((s) => s.key),
      ...Object.values(KEY_LIST.everywhere).flatMap((k) => k.keys.split(',')),
    ];
    const onLand = Object.values(KEY_LIST.land).flatMap((k) => k.keys.split(','));
    expect(new Set([...everywhere, ...onLand]).size).toBe(everywhere.length + onLand.length);
    // The sheet has them all, and each step of a longer list too.
    expect(sheet(STEPS).map((k) => k.shown)).toEqual(expect.arrayContaining(['1', '6', 'D', 'Ctrl+Z', '?'])); // prettier-ignore
  });
});

describe('plans of every version', () => {
  it.each(readdirSync('tests/fixtures/plans'))('%s opens, lifted to the newest', (name) => {
    const value = JSON.parse(readFileSync(`tests/fixtures/plans/${name}`, 'utf8')) as {
      version: number;
    };
    expect(name).toContain(`version-${value.version}`);
    expect(openPlan(value).plan.version).toBe(versionOf());
    expect(liftPlan('no plan')).toBe('no plan');
  });
});
