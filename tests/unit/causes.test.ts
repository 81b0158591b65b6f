/** Findings by cause, and the mends of all alike taken at once. */
import { describe, expect, it } from 'vitest';
import { createEvaluator } from '../../src/core/evaluate.js';
import { causesOf, inOrder, matching } from '../../src/core/findings/causes.js';
import { takeTogether } from '../../src/core/findings/together.js';
import { PARTS } from '../../src/core/parts/index.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import { patched } from '../../src/core/plan/patched.js';
import type { Plan } from '../../src/core/plan/schema.js';
import type { Finding } from '../../src/core/report/schema.js';
import { FLAT, line, plan as planOf } from './scene.js';

/** A straight line with some gates, none with a cable. */
const flatPlan = ({ gates }: { gates: number }): Plan =>
  planOf(
    [
      line('n', [
        [0, 0],
        [200, 0],
      ]),
    ],
    {
      gates: Object.fromEntries(
        Array.from({ length: gates }, (_, k) => {
          const id = `g${k}`;
          return [
            id,
            { id, name: `Gate ${k}`, line: 'n', at_m: 60 + 60 * k, width_m: 3.6, cable: false },
          ];
        }),
      ),
    },
  );

const STEPS = ['land', 'strands', 'section', 'power'];
let count = 0;
const finding = (part: Partial<Finding>): Finding => ({
  id: `f${count++}`,
  rule: 'post-lifts',
  cause: 'Posts will lift',
  step: 'section',
  kind: 'stop',
  title: 'A post of North will lift',
  why: '',
  todo: '',
  place: { line: 'n' },
  source: { mark: 'memory', text: '' },
  badness: 1,
  ...part,
});

describe('findings by cause', () => {
  const lifts = [
    finding({ place: { line: 'n' }, badness: 2 }),
    finding({ place: { line: 's' }, badness: 5, title: 'A post of South will lift' }),
  ];
  const hollow = ['n', 's', 'w'].map((line) =>
    finding({ rule: 'clearance', cause: 'Hollow', kind: 'mend', place: { line } }),
  );
  const bay = finding({ rule: 'bays', cause: 'Bays', kind: 'mend', place: { line: 'w' } });
  const dead = finding({ rule: 'dead', cause: 'Dead', kind: 'mend', step: 'power' });
  const let_ = finding({
    rule: 'trees',
    cause: 'Trees',
    kind: 'confirm',
    accepted: { note: 'x', who: '', at: '', kind: 'confirm', badness: 1, holds: true },
  });
  const all = [bay, ...hollow, let_, dead, ...lifts];

  it('stand together by kind and cause, gravest first, then the most places', () => {
    const { here, elsewhere, accepted } = causesOf(all, { steps: STEPS, step: 'section', line: null }); // prettier-ignore
    expect(here.map((c) => [c.words, c.findings.length])).toEqual([
      ['Posts will lift', 2],
      ['Hollow', 3],
      ['Bays', 1],
    ]);
    expect(here[1]!.lines).toEqual(['n', 's', 'w']);
    expect(elsewhere.map((e) => e.step)).toEqual(['power']);
    expect(accepted.map((c) => c.words)).toEqual(['Trees']);
  });

  it('those of the line that is looked at come first, within a cause and among causes', () => {
    const { here } = causesOf(all, { steps: STEPS, step: 'section', line: 'w' });
    // A graver one stays above all the same.
    expect(here.map((c) => c.words)).toEqual(['Posts will lift', 'Hollow', 'Bays']);
    expect(here[1]!.findings[0]!.place.line).toBe('w');
    const only = causesOf([bay, ...hollow.slice(0, 2)], { steps: STEPS, step: 'section', line: 'w' }); // prettier-ignore
    expect(only.here.map((c) => c.words)).toEqual(['Bays', 'Hollow']);
    // Without a line the worst of a cause leads.
    expect(causesOf(lifts, { steps: STEPS, step: 'section', line: null }).here[0]!.findings[0]).toBe(lifts[1]); // prettier-ignore
  });

  it('a walk goes through all that is open, this step first, and leaves out what is let be', () => {
    const walked = inOrder(causesOf(all, { steps: STEPS, step: 'power', line: null }));
    expect(walked[0]).toBe(dead);
    expect(walked).toHaveLength(all.length - 1);
    expect(walked).not.toContain(let_);
  });

  it('are found by their cause, their words and the name of their line', () => {
    const { here } = causesOf(all, { steps: STEPS, step: 'section', line: null });
    const names = (id: string) => ({ n: 'North', s: 'South', w: 'West' })[id] ?? '';
    expect(matching(here, 'HOLLOW', names)[0]!.findings).toHaveLength(3);
    expect(matching(here, 'west', names).map((c) => [c.words, c.findings.length])).toEqual([
      ['Hollow', 1],
      ['Bays', 1],
    ]);
    expect(matching(here, 'nothing of the kind', names)).toEqual([]);
    expect(matching(here, ' ', names)).toHaveLength(3);
  });
});

describe('mends taken together', () => {
  const evaluator = createEvaluator(PARTS);
  const findingsOf = (plan: Plan) => evaluator(plan, FLAT, catalogue).findings;

  it('all mends of one cause go as one change, and what they mended is gone', () => {
    const plan = flatPlan({ gates: 2 });
    const before = findingsOf(plan);
    const wanted = before.filter((f) => f.rule === 'gate-no-cable');
    expect(wanted).toHaveLength(2);
    const made = takeTogether(wanted, plan, before, findingsOf);
    expect(made.taken).toEqual(wanted.map((f) => f.id));
    expect(made.left).toEqual([]);
    const after = findingsOf(patched(plan, made.patch));
    expect(after.filter((f) => f.rule === 'gate-no-cable')).toEqual([]);
    expect(made.gone).toEqual(expect.arrayContaining(wanted.map((f) => f.title)));
  });

  it('a mend that does harm beside another is left out, and why is said', () => {
    const plan = flatPlan({ gates: 0 });
    const one = finding({ id: 'one', kind: 'mend', mend: { words: 'A', patch: [{ op: 'replace', path: '/name', value: 'A' }] } }); // prettier-ignore
    const two = finding({ id: 'two', kind: 'mend', mend: { words: 'B', patch: [{ op: 'replace', path: '/currency', value: 'NZD' }] } }); // prettier-ignore
    const harm = finding({ id: 'harm', kind: 'mend', title: 'Both at once do harm' });
    const judge = (p: Plan) => [
      ...(p.name === 'A' ? [] : [one]),
      ...(p.currency === 'NZD' ? [] : [two]),
      ...(p.name === 'A' && p.currency === 'NZD' ? [harm] : []),
    ];
    const made = takeTogether([one, two], plan, judge(plan), judge);
    expect(made.taken).toEqual(['one']);
    expect(made.left).toEqual([{ id: 'two', why: expect.stringContaining('Both at once do harm') as string }]); // prettier-ignore
    expect(made.patch.map((s) => s.path)).toEqual(['/name']);
  });

  it('a mend that is not enough beside the others is left out', () => {
    const plan = flatPlan({ gates: 0 });
    const stubborn = finding({ id: 'x', kind: 'mend', mend: { words: 'A', patch: [{ op: 'replace', path: '/name', value: 'A' }] } }); // prettier-ignore
    const made = takeTogether([stubborn], plan, [stubborn], () => [stubborn]);
    expect(made.taken).toEqual([]);
    expect(made.left[0]!.why).toMatch(/not be enough/);
  });
});
