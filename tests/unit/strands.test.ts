/** Requirements, judgement and proposals of strands, against the make-ups of common practice. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { calculators } from '../../src/core/calc.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import type { Strand } from '../../src/core/plan/schema.js';
import type { Order, Proposal, Requirement } from '../../src/core/report/schema.js';
import { broken, judge } from '../../src/core/strands/judge.js';
import { hung, ORDERS, propose, proposeOne } from '../../src/core/strands/proposal.js';
import { requirementOf, type Facing } from '../../src/core/strands/requirement.js';
import { search } from '../../src/core/strands/search.js';
import { strands } from './scene.js';

const facing = (left: string[], part: Partial<Facing> = {}): Facing => ({
  left,
  right: [],
  keepOut: [],
  boundary: false,
  ...part,
});
const needOf = (left: string[], part: Partial<Facing> = {}) =>
  requirementOf(facing(left, part), catalogue)!;
const mm = (p: Proposal) => p.heights_m.map((h) => Math.round(h * 1000));
const faults = (s: readonly Strand[], need: Requirement) =>
  broken(judge(s, need, catalogue)).map((m) => m.about);
const STOCK = Object.keys(catalogue.profiles);

/** Does the order itself hold: earth in every gap that is pushed into, a cold top, a cut-out? */
function inOrder(s: readonly Strand[], need: Requirement, order: Order): boolean {
  const reach = Math.max(...need.needs.map((n) => n.reach_m));
  if (order === 'coldTop') return s.at(-1)?.duty === 'cold';
  if (order === 'switched')
    return s.some((x) => x.switched) && s.some((x) => x.duty === 'live' && !x.switched);
  if (order !== 'turns') return true;
  return (
    s.some((x) => x.duty === 'earth') &&
    s.slice(1).every((b, i) => {
      const a = s[i]!;
      if ((a.height_m + b.height_m) / 2 >= reach) return true;
      return [a.duty, b.duty].sort().join() === 'earth,live';
    })
  );
}

describe('make-ups of common practice', () => {
  // Common practice: usual make-ups by stock; counts as in the trade, heights evened out.
  it.each([
    [['cattle-quiet'], false, 1, 850, 850],
    [['cattle-calves'], false, 3, 400, 950],
    [['cattle-calves'], true, 4, 350, 1100],
    [['horses'], false, 4, 450, 1350],
    [['sheep'], false, 5, 150, 900],
    [['goats'], false, 5, 150, 900],
    [['fox'], false, 7, 130, 1100],
    [['deer-farmed'], false, 9, 200, 1900],
  ])('%j on a boundary %s: %i strands from %i to %i mm', (ids, boundary, count, low, top) => {
    const h = mm(proposeOne(needOf(ids, { boundary }), catalogue)!);
    expect([h.length, h[0], h.at(-1)]).toEqual([count, low, top]);
  });

  // Common practice: the usual make-ups as they are told; each either keeps every rule beside it and
  // has no fewer strands than the proposal, or breaks the rule named here.
  it.each<[string, number[], boolean, string[]]>([
    ['cattle-quiet', [850], false, []],
    ['cattle-quiet', [550, 900], false, []],
    ['cattle-calves', [400, 650, 950], false, []],
    ['cattle-calves', [350, 550, 800, 1100], true, []],
    ['cattle-calves', [300, 500, 700, 900, 1150], true, []],
    ['horses', [450, 700, 1000, 1350], false, []],
    ['sheep', [150, 300, 450, 650, 900], false, []],
    ['goats', [150, 300, 450, 650, 900], false, ['gap']],
    ['goats', [150, 300, 450, 600, 800, 1050], false, []],
    ['goats', [130, 260, 400, 540, 700, 880, 1100], false, []],
    ['pigs', [200, 400, 650], false, ['gap']],
  ])('%s: %j on a boundary %s breaks %j', (stock, heights, boundary, wrong) => {
    const need = needOf([stock], { boundary });
    const s = strands(heights.map((h) => h / 1000));
    if (need.seenTop) s[s.length - 1] = { ...s.at(-1)!, wire: 'rope' };
    expect([...new Set(faults(s, need))]).toEqual(wrong);
    if (wrong.length === 0)
      expect(proposeOne(need, catalogue)!.heights_m.length).toBeLessThanOrEqual(heights.length);
  });

  it('live and earth by turns with a top to step over is L E L L C, as is common from the ground', () => {
    const need = needOf(['sheep'], { stepOver: true });
    const p = propose(need, 'turns', catalogue) as Proposal;
    expect(p.duties).toEqual(['live', 'earth', 'live', 'live', 'cold']);
    expect(mm(p)[0]).toBe(150);
  });

  it('says why an order is not for a line', () => {
    expect(propose(needOf(['horses']), 'coldTop', catalogue)).toMatchObject({
      refused: expect.stringContaining('lean on a cold one'),
    });
    expect(propose(needOf(['sheep'], { keepOut: ['fox'] }), 'switched', catalogue)).toMatchObject({
      refused: expect.stringContaining('stays live for fox'),
    });
    expect(propose(needOf(['sheep'], { stepOver: true }), 'live', catalogue)).toMatchObject({
      refused: expect.stringContaining('step over'),
    });
  });
});

describe('every proposal', () => {
  const lines = fc
    .uniqueArray(fc.constantFrom(...STOCK), { minLength: 1, maxLength: 3 })
    .chain((ids) =>
      fc.record({
        ids: fc.constant(ids),
        stepOver: fc.boolean(),
        snow: fc.boolean(),
        order: fc.constantFrom(...ORDERS),
      }),
    );

  it('keeps every rule, and no strand of it can go', () => {
    let seen = 0;
    fc.assert(
      fc.property(lines, ({ ids, stepOver, snow, order }) => {
        const need = needOf(ids, { stepOver, snow });
        const p = propose(need, order, catalogue);
        if ('refused' in p) return;
        seen++;
        const s = hung(p, need, [], 'steel-180', catalogue);
        const holds = (list: Strand[]) =>
          faults(list, need).length === 0 && inOrder(list, need, order);
        expect(faults(s, need)).toEqual([]);
        expect(holds(s)).toBe(true);
        s.forEach((_, i) => {
          const rest = s.filter((__, k) => k !== i);
          // What is seen from afar goes on whatever is then the top: wire is not what decides here.
          const top = rest.at(-1);
          if (top && need.seenTop) rest[rest.length - 1] = { ...top, wire: 'rope' };
          expect(holds(rest), `without strand ${i + 1}`).toBe(false);
        });
      }),
      { numRuns: 120 },
    );
    expect(seen).toBeGreaterThan(40);
  });

  it('puts no strand above the first that reaches the top', () => {
    fc.assert(
      fc.property(lines, ({ ids, stepOver, snow, order }) => {
        const need = needOf(ids, { stepOver, snow });
        const p = propose(need, order, catalogue);
        if ('refused' in p) return;
        expect(p.heights_m.at(-2) ?? 0).toBeLessThan(need.topMin_m);
      }),
      { numRuns: 80 },
    );
  });

  it('never has fewer strands for more demanding stock', () => {
    fc.assert(
      fc.property(lines, fc.constantFrom(...STOCK), ({ ids, order }, more) => {
        const [asked, harder] = [needOf(ids), needOf([...ids, more])];
        // By turns a higher top gives the live strands room that close ones had to be put in for.
        if (order === 'turns' && harder.topMin_m > asked.topMin_m) return;
        const few = propose(asked, order, catalogue);
        const many = propose(harder, order, catalogue);
        if ('refused' in few || 'refused' in many) return;
        expect(many.heights_m.length).toBeGreaterThanOrEqual(few.heights_m.length);
      }),
      { numRuns: 120 },
    );
  });

  // The search against a plain enumeration of every set of heights on a coarse need.
  it('has as few strands as trying every set of heights finds', () => {
    const need = needOf(['pigs']);
    const step = 0.05;
    const heights = Array.from({ length: 13 }, (_, k) => 0.1 + k * step);
    let least = Infinity;
    for (let bits = 1; bits < 1 << heights.length; bits++) {
      const list = heights.filter((_, k) => bits & (1 << k));
      if (list.length >= least) continue;
      if (faults(strands(list), need).length === 0) least = list.length;
    }
    expect(search(need, 'live')!.heights_m.length).toBe(least);
  });
});

describe('what a line asks', () => {
  it('takes the strictest figure of everybody, and names whose it is', () => {
    const need = needOf(['sheep'], { right: ['cattle-calves'], keepOut: ['fox'], boundary: true });
    const row = (about: string) => need.rows.find((r) => r.about === about)!;
    expect(need.profiles).toEqual(['sheep', 'cattle-calves', 'fox', 'cattle-boundary']);
    expect(row('lowest')).toMatchObject({ profile: 'fox', value: 0.13 });
    expect(row('top')).toMatchObject({ value: 1.1 });
    expect(row('live')).toMatchObject({ profile: 'fox', value: 7 });
    expect(requirementOf(facing([]), catalogue)).toBeNull();
  });

  it('holds its own figure instead of the catalogue, with its note', () => {
    const demands = { lowest: { value: 0.2, note: 'Short grass, no lambs here.' } };
    const need = needOf(['sheep'], { demands });
    expect(need.rows.find((r) => r.about === 'lowest')).toMatchObject({
      value: 0.2,
      usual: 0.15,
      note: demands.lowest.note,
    });
    expect(proposeOne(need, catalogue)!.heights_m[0]).toBe(0.2);
    // A figure between the steps of the search is kept, not rounded away.
    const odd = needOf(['sheep'], { demands: { top: { value: 0.903, note: 'Wall beside it.' } } });
    expect(proposeOne(odd, catalogue)!.heights_m.at(-1)).toBe(0.91);
  });

  it('leaves out on one line what is asked everywhere else, and says so', () => {
    const note = 'The ponies know this fence.';
    const need = needOf(['horses'], {
      demands: { seen: { value: 0, note }, topLive: { value: 0, note } },
    });
    expect(need.rows.filter((r) => r.note === note).map((r) => [r.about, r.value])).toEqual([
      ['topLive', 0],
      ['seen', 0],
    ]);
    const cold = strands([0.45, 0.75, 1.05, 1.35]).map((s, i) =>
      i === 3 ? { ...s, duty: 'cold' as const } : s,
    );
    expect(faults(cold, need)).toEqual([]);
    expect(faults(cold, needOf(['horses']))).toEqual(['topLive', 'seen']);
    expect(propose(need, 'coldTop', catalogue)).toMatchObject({
      order: 'coldTop',
      duties: expect.anything(),
    });
  });

  it('wants the top seen by horses, in snow and in dim light', () => {
    expect(needOf(['horses']).seenTop).toBe(true);
    expect(needOf(['sheep']).seenTop).toBe(false);
    expect(needOf(['sheep'], { dim: true }).seenTop).toBe(true);
    const need = needOf(['sheep'], { snow: true });
    expect(faults(strands([0.15, 0.3, 0.45, 0.65, 0.9]), need)).toEqual(['seen']);
  });

  it('keeps live strands off barbed wire, in height or with a bracket', () => {
    const need = needOf(['cattle-quiet']);
    const barbed = { ...strands([0.8])[0]!, wire: 'barbed', duty: 'cold' as const };
    const live = strands([0.9])[0]!;
    expect(faults([barbed, live], need)).toEqual(['offBarbed']);
    expect(faults([barbed, { ...live, offset_m: 0.22 }], need)).toEqual([]);
    expect(faults([{ ...barbed, height_m: 0.7 }, live], need)).toEqual([]);
  });

  it('sees no gap below the top of a woven panel', () => {
    const need = needOf(['sheep']);
    const panel: Strand = { height_m: 0.8, duty: 'cold', wire: 'woven', insulated: false };
    expect(faults([panel, ...strands([0.95])], need)).toEqual([]);
    expect(faults([panel, ...strands([1.2])], need)).toEqual(['gap']);
  });
});

describe('the typed door to the same search', () => {
  it('calc make_up answers every order, or why not', () => {
    const { run, inputs } = calculators['make_up']!;
    expect(Object.keys(inputs.properties)).toContain('keep_out');
    const none = { boundary: false, step_over: false, snow: false, dim: false };
    const answer = run({ left: ['horses'], right: [], keep_out: [], ...none } as never);
    expect(answer).toMatchObject({
      live: { heights_m: [0.45, expect.any(Number), expect.any(Number), 1.35] },
      coldTop: { refused: expect.stringContaining('lean') },
    });
    expect(() => run({ left: [], right: [], keep_out: [], ...none } as never)).toThrow(
      /one profile at least/,
    );
  });
});
