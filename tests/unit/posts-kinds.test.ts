/** Kinds of posts, how far they stand out, and what stands between them. */
import { describe, expect, it } from 'vitest';
import { recordOf } from '../../src/core/plan/catalogue.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import { patched } from '../../src/core/plan/patched.js';
import { kindFor, standsOut, tallEnough } from '../../src/core/posts/kinds.js';
import { mostUnder } from '../../src/core/strands/under.js';
import { requirementOf } from '../../src/core/strands/requirement.js';
import { startingMakeUp } from '../../src/core/strands/proposal.js';
import { pushAside } from '../../src/core/wire/pull.js';
import { wireOf } from '../../src/core/wire/wires.js';
import { line, plan, mended as report, strands } from './scene.js';

const facing = (stock: string[], keepOut: string[] = []) => ({ left: stock, right: [], keepOut, boundary: false }); // prettier-ignore
const found = (p: Parameters<typeof report>[0], rule: string) => report(p).findings.filter((f) => f.rule === rule); // prettier-ignore
const long = (part: Parameters<typeof line>[2]) => plan([line('a', [[0, 0], [300, 0]], part)]); // prettier-ignore

describe('a post stands out of the ground by the top strand and 50 mm', () => {
  it('its length less its depth; common practice', () => {
    expect(standsOut(catalogue.posts['steel-180']!)).toBeCloseTo(1.3, 9);
    expect(standsOut(catalogue.posts['end-240']!)).toBeCloseTo(1.5, 9);
    for (const [id, p] of Object.entries(catalogue.posts)) {
      expect(p.embedment_m, id).toBeGreaterThanOrEqual(0.4);
      expect(p.embedment_m / p.length_m, id).toBeLessThan(0.42);
    }
  });

  it('one that is too short is stopped, and the shortest of its family that does is offered', () => {
    const at = (top: number) => long({ left: [], strands: strands([0.3, 0.6, 0.9, top]) });
    expect(found(at(1.25), 'post-short')).toEqual([]);
    const [short] = found(at(1.26), 'post-short');
    expect(short).toMatchObject({ kind: 'stop', mend: { patch: [{ path: '/lines/a/post', value: 'steel-210' }] } }); // prettier-ignore
    // A deer line of 2.4 m: ends are taken long enough by themselves, line posts are asked for.
    const deer = long({ keepOut: ['deer-out'], strands: startingMakeUp(facing([], ['deer-out']), catalogue), post: 'steel-180' }); // prettier-ignore
    const [tall] = found(deer, 'post-short');
    expect(tall!.mend!.patch).toEqual([{ op: 'replace', path: '/lines/a/post', value: 'timber-360' }]); // prettier-ignore
    expect(found(patched(deer, tall!.mend!.patch), 'post-short')).toEqual([]);
    expect(report(deer).lines['a']!.posts[0]!.kind).toBe('end-370');
  });

  it('pins and placed posts are made long as well', () => {
    const p = long({
      strands: strands([0.3, 0.6, 0.9, 1.35]),
      post: 'steel-210',
      pins: [{ at_m: 50, kind: 'timber-180' }, { at_m: 60, kind: null }], // prettier-ignore
      placed: [{ at_m: 20, kind: 'steel-180' }, { at_m: 40, kind: 'steel-210' }], // prettier-ignore
    });
    const [f] = found(p, 'post-short');
    expect(f!.mend!.patch.map((s) => [s.path, s.value])).toEqual([
      ['/lines/a/pins/0/kind', 'timber-240'],
      ['/lines/a/placed/0/kind', 'steel-210'],
    ]);
  });

  it('ends and bends that nobody has named are tall enough by themselves', () => {
    expect(kindFor('corner', { post: 'steel-180' }, 1.5, catalogue)).toBe('end-240');
    expect(kindFor('corner', { post: 'steel-180' }, 1.51, catalogue)).toBe('end-300');
    expect(kindFor('bend', { post: 'steel-180' }, 1.4, catalogue)).toBe('timber-240');
    expect(tallEnough('fibre-180', 1.4, catalogue)).toBe('steel-210');
    expect(tallEnough('steel-180', 9, catalogue)).toBe('steel-180');
  });
});

it('the gap under the lowest strand may nowhere be more than the handbook’s figures', () => {
  const most = (lowest: number, stock: string[], keepOut: string[] = []) =>
    mostUnder(lowest, requirementOf(facing(stock, keepOut), catalogue), catalogue);
  // The smaller of lowest + 120 mm and the widest gap + 20 mm; a fox at 130 mm asks for 150, not 250.
  expect(most(0.13, [], ['fox'])).toBeCloseTo(0.15, 9);
  expect(most(0.15, [], ['dog'])).toBeCloseTo(0.17, 9);
  expect(most(0.15, ['sheep'])).toBeCloseTo(0.22, 9);
  expect(most(0.15, ['goats'])).toBeCloseTo(0.19, 9);
  expect(most(0.05, ['sheep'])).toBeCloseTo(0.17, 9);
  expect(most(0.4, ['cattle-calves'])).toBeCloseTo(0.42, 9);
  // One strand at 850 mm holds quiet cattle: what is under it is meant.
  expect(most(0.85, ['cattle-quiet'])).toBeCloseTo(0.87, 9);
  // A strand that stands too high is told as such; over a hollow it may still grow by that little.
  expect(most(0.4, ['sheep'])).toBeCloseTo(0.42, 9);
  expect(mostUnder(0.4, null, catalogue)).toBeCloseTo(0.52, 9);
});

describe('droppers', () => {
  const cattle = { left: ['cattle-calves'], strands: strands([0.4, 0.67, 0.95]), school: 'tight' };
  const dropped = long({ ...cattle, maxBay_m: 15, dropper: { kind: 'timber', each_m: 5 } });

  it('share each bay evenly, are counted and priced', () => {
    const r = report(dropped);
    // A rail of 2.4 m at each end, and equal bays between them.
    expect(r.lines['a']!.stretches[1]).toMatchObject({ bays: 20, bay_m: expect.closeTo(14.76, 6) }); // prettier-ignore
    expect(r.lines['a']!.droppers).toHaveLength(40);
    expect(r.lines['a']!.droppers.slice(0, 3)).toEqual([7.32, 12.24, 22.08].map((s) => expect.closeTo(s, 6))); // prettier-ignore
    const row = r.supplies.find((s) => s.id === 'dropper.timber')!;
    expect([row.quantity, row.cost]).toEqual([40, 40 * catalogue.prices['dropper.timber']!.price]);
  });

  it('keep the strands apart: a push opens as much as in a bay from one to the next', () => {
    const s = report(dropped).lines['a']!.strain[0]!;
    const { EA_N } = wireOf('ht25', catalogue);
    expect(s.pushed_m).toBeCloseTo(pushAside(150, s.push_N, 4.92, EA_N, 300), 6);
    expect(found(dropped, 'bays-too-long')).toEqual([]);
    expect(found(dropped, 'gap-opens')).toEqual([]);
    const bare = long({ ...cattle, maxBay_m: 15 });
    expect(found(bare, 'bays-too-long')).toHaveLength(1);
    expect(found(bare, 'gap-opens')).toHaveLength(1);
  });

  it('that hang are carried by the strands, those that rest are not', () => {
    const sag = (kind: string) => report(long({ ...cattle, maxBay_m: 15, dropper: { kind, each_m: 5 } })).lines['a']!.strain[0]!; // prettier-ignore
    const bare = report(long({ ...cattle, maxBay_m: 15 })).lines['a']!.strain[0]!;
    expect(sag('timber').sagHot_m).toBeCloseTo(bare.sagHot_m, 9);
    const w = wireOf('ht25', catalogue).weight_N_per_m;
    const more = (recordOf(catalogue.droppers, 'hung').mass_kg * 9.80665) / (5 * 3);
    expect(sag('hung').sagHot_m / bare.sagHot_m).toBeCloseTo((w + more) / w, 6);
  });

  it.each(Object.entries(catalogue.spacings).filter(([, s]) => s.dropper))(
    'the preset %s does not condemn itself',
    (id, spacing) => {
      const small = /Small|spacer/.test(id);
      const stock = small ? ['sheep'] : ['cattle-calves'];
      const p = long({
        left: stock,
        strands: startingMakeUp(facing(stock), catalogue),
        maxBay_m: spacing.bay_m,
        dropper: { ...spacing.dropper! },
        school: small ? 'moderate' : 'tight',
      });
      expect(report(p).findings.filter((f) => f.kind !== 'confirm' && f.rule !== 'feeding').map((f) => f.title)).toEqual([]); // prettier-ignore
    },
  );
});

it('strands on posts that insulate hang in clips, and flexible posts want slack wire', () => {
  const p = long({ post: 'flexible-150', strands: strands([0.15, 0.31, 0.48, 0.65, 0.9]) });
  const r = report(p);
  const posts = r.lines['a']!.posts.filter((x) => x.role === 'line').length;
  expect(r.supplies.find((s) => s.id === 'clip.insulating')!.quantity).toBe(5 * posts);
  // Insulators only on the two brace posts, which are of timber.
  expect(r.supplies.find((s) => s.id === 'insulator.line')!.quantity).toBe(5 * 2);
  const [f] = found(p, 'post-unsuited');
  expect(f!.kind).toBe('mend');
  expect(found(long({ post: 'flexible-150', school: 'sag-out' }), 'post-unsuited')).toEqual([]);
});
