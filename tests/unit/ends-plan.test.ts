/** Ends in a plan: set by hand, turned, given to others, counted; old plans brought up; gates. */
import { describe, expect, it } from 'vitest';
import { placeLine } from '../../src/core/edit/placeLine.js';
import { asProposed, copyEnd, endsAlike, setAssembly, setEnd } from '../../src/core/edit/ending.js';
import { reverseLine } from '../../src/core/edit/reshape.js';
import { withEnd } from '../../src/core/ends/hand.js';
import { fittings } from '../../src/core/ends/takes.js';
import { stepsOf } from '../../src/core/ends/steps.js';
import { gateFigures, gateLoads } from '../../src/core/ends/gates.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import type { Line, Plan } from '../../src/core/plan/schema.js';
import { endCost } from '../../src/core/supplies/braceCost.js';
import { openPlan } from '../../src/formats/planFile.js';
import { edit } from '../../src/formats/patch.js';
import { line, plan, report, strands } from './scene.js';
import { fed, gate } from './wrong.js';

const change = (p: Plan, recipe: (d: Plan) => void): Plan => edit(p, recipe).next;
const ends = (p: Plan, id = 'a') => report(p).lines[id]!.ends;
const supply = (p: Plan, id: string) => report(p).supplies.find((s) => s.id === id)?.quantity ?? 0;
const on = (p: Plan, k = 0, id = 'a') => ({ line: id, end: ends(p, id)[k]! });

describe('an end set by hand', () => {
  it('stands in the list in order, keeps its other keys, and goes when nothing is left of it', () => {
    const one = withEnd({}, 40, { after: { kind: 'h' } });
    expect(one).toEqual([{ at_m: 40, after: { kind: 'h' } }]);
    const two = withEnd({ ends: one! }, 10, { depth_m: 1.2 });
    expect(two!.map((e) => e.at_m)).toEqual([10, 40]);
    const more = withEnd({ ends: two! }, 40.02, { setting: 'gravel' });
    expect(more![1]).toEqual({ at_m: 40, after: { kind: 'h' }, setting: 'gravel' });
    expect(withEnd({ ends: one! }, 40, { after: undefined })).toBeUndefined();
  });

  it('decides what stands and what is bought; taken back it is as proposed', () => {
    const p = fed({});
    const rails = supply(p, 'end.rail');
    const by = change(p, (d) => setAssembly(d, on(p), { kind: 'double-h' }));
    expect(ends(by)[0]).toMatchObject({ kind: 'double-h', hand: true, reason: 'hand' });
    expect(supply(by, 'end.rail')).toBe(rails + 1);
    expect(supply(by, 'post.brace-240')).toBe(supply(p, 'post.brace-240') + 1);
    // Its two brace posts are posts of the run, one rail after the other.
    const posts = report(by)
      .lines['a']!.posts.filter((x) => x.role === 'brace')
      .map((x) => x.s_m);
    expect(posts.slice(0, 2)).toEqual([2.4, 4.8].map((s) => expect.closeTo(s, 6) as number));
    const back = change(by, (d) => asProposed(d, on(by)));
    expect(back.lines['a']!.ends).toBeUndefined();
    expect(ends(back)).toEqual(ends(p));
  });

  it('of another post and depth is bought as that', () => {
    const p = change(fed({}), (d) => setEnd(d, 'a', 0, { post: 'end-300', depth_m: 1.4 }));
    expect(ends(p)[0]).toMatchObject({ post: 'end-300', depth_m: 1.4 });
    expect([supply(p, 'post.end-300'), supply(p, 'post.end-240')]).toEqual([1, 1]);
  });

  it('turned with its line it holds the same run', () => {
    const p = fed({ ends: [{ at_m: 0, after: { kind: 'h', rail_m: 3 } }] });
    const turned = change(p, (d) => reverseLine(d, 'a'));
    expect(turned.lines['a']!.ends).toEqual([{ at_m: 300, before: { kind: 'h', rail_m: 3 } }]);
    const [own, other] = [ends(p)[0]!, ends(turned).at(-1)!];
    // The other way round the forces are the same.
    expect(other.checks).toEqual(own.checks);
    expect(other.pull_N).toBe(own.pull_N);
  });

  it('is given to ends alike, and to none that differs', () => {
    const two = (b: Partial<Line>) => plan([line('a', [[0, 0], [200, 0]]), line('b', [[0, 50], [200, 50]], b)]); // prettier-ignore
    const p = change(two({}), (d) => setAssembly(d, { line: 'a', end: ends(two({}))[0]! }, { kind: 'h', rail_m: 3 })); // prettier-ignore
    const alike = endsAlike(on(p), report(p).lines);
    expect(alike).toHaveLength(3);
    const given = change(p, (d) => copyEnd(d, on(p), alike));
    expect(ends(given, 'b').map((e) => e.rail_m)).toEqual([3, 3]);
    const other = two({ strands: strands([0.4, 0.9]) });
    expect(endsAlike(on(other), report(other).lines)).toHaveLength(1);
  });

  it('is refused where it names no post, or is out of order', () => {
    const bad = fed({ ends: [{ at_m: 0, post: 'nothing' }] });
    expect(() => openPlan(structuredClone(bad))).toThrow('/lines/a/ends/0/post');
    const order = fed({ ends: [{ at_m: 300, depth_m: 1 }, { at_m: 0, depth_m: 1 }] }); // prettier-ignore
    expect(() => openPlan(structuredClone(order))).toThrow('/lines/a/ends/1/at_m');
  });
});

describe('the ends of a line', () => {
  it('a net pulls at half its height, a bend by both runs, a gate post away from the gate', () => {
    const net = plan([line('a', [[0, 0], [100, 0]], { strands: [{ ...strands([0.9])[0]!, wire: 'woven', duty: 'cold', insulated: false }, ...strands([1.1])] })]); // prettier-ignore
    expect(ends(net)[0]!.strands.map(([at]) => at)).toEqual([0.45, 1.1]);
    const bent = plan([
      line('a', [
        [0, 0],
        [100, 0],
        [150, 50],
      ]),
    ]);
    bent.lines['a']!.vertices[1]!.kind = 'bend';
    const [first, bend] = ends(bent);
    // 2 T sin(45 / 2) of every strand.
    expect(bend).toMatchObject({ side: 'bend', role: 'bend' });
    expect(bend!.pull_N / first!.pull_N).toBeCloseTo(2 * Math.sin(Math.PI / 8), 6);
  });

  it('a run of 2.5 m has one rail, bought once, both ways; one of 4 m a brace post between', () => {
    const short = (m: number) =>
      plan([
        line('a', [
          [0, 0],
          [100, 0],
          [100, m],
        ]),
      ]);
    const own = (m: number) => ends(short(m)).filter((e) => e.shared);
    expect(own(2.5).map((e) => [e.rail_m, e.second])).toEqual([[2.5, null], [2.5, null]].map(([r, s]) => [expect.closeTo(r as number, 6), s])); // prettier-ignore
    expect(own(2.5).map((e) => e.wire)).toEqual(['both', 'both']);
    expect(supply(short(2.5), 'end.rail')).toBe(3);
    expect(supply(short(4), 'end.rail')).toBe(4);
    expect(report(short(4)).lines['a']!.posts.filter((x) => x.role === 'brace')).toHaveLength(3);
    expect(own(6)).toEqual([]);
  });

  it('two sides of a corner that want posts of two lengths get the longer', () => {
    const p = plan([line('a', [[0, 0], [100, 0], [100, 100]], { strands: strands([0.2, 0.4, 0.6, 0.8, 1, 1.2]), school: 'tight' })], { soil: 'loam' }); // prettier-ignore
    const at = ends(p).filter((e) => e.role === 'corner');
    const long = Math.max(...at.map((e) => catalogue.posts[e.post]!.length_m));
    const post = report(p).lines['a']!.posts.find((x) => x.role === 'corner')!;
    expect(catalogue.posts[post.kind]!.length_m).toBe(long);
    const mixed = change(p, (d) => setEnd(d, 'a', 100, { post: 'end-300' }));
    expect(report(mixed).lines['a']!.posts.find((x) => x.role === 'corner')!.kind).toBe('end-300');
  });

  it('no post stands under a rail, however short the bays', () => {
    const p = fed({ maxBay_m: 1 });
    const inside = report(p).lines['a']!.posts.filter((x) => x.s_m > 0.01 && x.s_m < 2.39);
    expect(inside).toEqual([]);
    expect(report(fed({ placed: [{ at_m: 1.2, kind: 'steel-180' }, { at_m: 50, kind: 'steel-180' }] })).lines['a']!.posts.map((x) => x.s_m).slice(0, 3)).toEqual([0, 2.4, 50].map((s) => expect.closeTo(s, 6) as number)); // prettier-ignore
  });

  it('where the grade breaks on a crest a stout post stands of itself', () => {
    const crest = fed({ levels: [{ at_m: 0, z_m: 0 }, { at_m: 90, z_m: 0 }, { at_m: 97, z_m: 3 }, { at_m: 104, z_m: 0 }, { at_m: 300, z_m: 0 }] }); // prettier-ignore
    const stout = report(crest).lines['a']!.posts.filter((x) => x.kind === 'timber-210').map((x) => x.s_m); // prettier-ignore
    expect(stout.length).toBeGreaterThan(0);
    expect(stout.every((s) => s > 80 && s < 115)).toBe(true);
    expect(report(fed({})).lines['a']!.posts.some((x) => x.kind === 'timber-210')).toBe(false);
  });
});

describe('what the ends take', () => {
  it('both diagonals at gate posts, mix by the hole, nothing for what stands or is kept', () => {
    const p = fed({}, { gates: gate(true) });
    const wires = ends(p).map((e) => e.wire);
    expect(wires).toEqual(['end', 'both', 'both', 'end']);
    // A second diagonal is five legs more: two full wraps and one for its ends.
    const [plain, gated] = [fed({}), p].map((q) => report(q).supplies.find((s) => s.id === 'wire.ht25')!.lines['a']!); // prettier-ignore
    const way = Math.hypot(2.4, 0.775);
    expect(gated! - plain!).toBeGreaterThan(4 * 5 * way - 5 * 4);
    const stony = fed({}, { soil: 'stony' });
    // Two posts an end, two thirds of a ring of 50 mm, half of it mix; 10 litres a bag.
    const ring = (per: number, deep: number) => { const d = per / Math.PI; return ((Math.PI * ((d + 0.1) ** 2 - d * d)) / 4) * ((deep * 2) / 3) * 1000; }; // prettier-ignore
    const [e] = ends(stony);
    expect(e!.setting).toBe('wet');
    const bags = (ring(0.53, e!.depth_m) + ring(0.37, e!.depth_m)) / 20;
    expect(supply(stony, 'concrete')).toBe(Math.ceil(2 * bags));
    expect(endCost(e!, catalogue)).toBeGreaterThan(27.5 + 15.2 + 11.4 + 2.2);
    expect(supply(fed({ standing: true }), 'end.rail')).toBe(0);
  });

  it('the foot of a stay is the next post of the run, equal bays begin after it', () => {
    const p = plan([
      line(
        'a',
        [
          [0, 0],
          [100, 0],
        ],
        { strands: strands([0.4, 0.9]) },
      ),
    ]);
    expect(ends(p)[0]).toMatchObject({ kind: 'stay', foot: 'post' });
    const { posts, stretches } = report(p).lines['a']!;
    expect(posts[1]).toMatchObject({ role: 'brace', kind: 'timber-210', s_m: 3 });
    expect(stretches[1]).toMatchObject({ from_m: 3, to_m: 97, equal: true });
    const block = change(p, (d) => setAssembly(d, on(p), { kind: 'stay', foot: 'block' }));
    expect(report(block).lines['a']!.posts[1]!.role).toBe('line');
    expect(supply(block, 'end.block')).toBe(1);
  });

  it('placed by the ground, brace posts stand and are no posts to be placed', () => {
    const p = fed({});
    const { patch } = placeLine(p, 'a', { kind: 'flat', z_m: 0 }, report(p).lines['a']!.requirement, catalogue); // prettier-ignore
    const at = (patch![0]!.value as { at_m: number }[]).map((x) => x.at_m);
    expect(Math.min(...at)).toBeGreaterThan(2.4);
    expect(at.some((s) => Math.abs(s - 297.6) < 0.05)).toBe(false);
  });
});

describe('what is fixed to the posts of an end', () => {
  const end = (part: object) => ({ kind: 'h', wire: 'end', foot: 'block', rail_m: 2.4, railHeight_m: 1, shared: false, side: 'before', second: undefined, ...part }) as unknown as Parameters<typeof fittings>[0]; // prettier-ignore
  const count = (part: object) => Object.fromEntries(fittings(end(part), catalogue).map(([item, n]) => [item, n])); // prettier-ignore
  // Two full wraps and as much again as one leg: five legs.
  const way = Math.hypot(2.4, 1);

  it('by hand, kind for kind', () => {
    expect(count({})).toEqual({ 'end.rail': 1, 'end.pin': 2, 'wire.ht25': 5 * way, staple: 4 });
    expect(count({ wire: 'both' })).toEqual({ 'end.rail': 1, 'end.pin': 2, 'wire.ht25': 10 * way, staple: 8 }); // prettier-ignore
    expect(count({ kind: 'double-h' })).toEqual({ 'end.rail': 2, 'end.pin': 4, 'wire.ht25': 10 * way, staple: 8 }); // prettier-ignore
    expect(count({ kind: 'n' })).toEqual({ 'end.strut': 1, 'end.pin': 2, 'wire.ht25': 5 * 2.4, staple: 4 }); // prettier-ignore
    expect(count({ kind: 'stay' })).toEqual({ 'end.strut': 1, 'end.pin': 2, 'end.block': 1 });
    expect(count({ kind: 'stay', foot: 'post' })).toEqual({ 'end.strut': 1, 'end.pin': 2 });
    expect(count({ kind: 'post' })).toEqual({});
  });

  it('a tie-back has its wire: down to its log, 0.8 m under the ground and half a metre further out', () => {
    expect(count({ kind: 'tie-back' })).toEqual({ 'end.log': 1, 'wire.ht25': 5 * Math.hypot(2.4 + 0.5, 1 + 0.8), staple: 2 }); // prettier-ignore
  });

  it('what two lines share is taken once', () => {
    expect(fittings(end({ shared: true, side: 'after' }), catalogue)).toEqual([]);
    expect(count({ shared: true, side: 'after', second: 'before' })).toHaveProperty('end.rail');
  });
});

describe('a gate post with one diagonal', () => {
  const found = (before: NonNullable<Line['ends']>[number]['before'], gates: Plan['gates'] | undefined = gate(true)) =>
    report(fed({ ends: [{ at_m: 148, before }] }, gates ? { gates } : {})).findings.filter((f) => f.rule === 'gate-one-diagonal').length;

  it('is found on one frame and on two, and not where both are there or no gate hangs', () => {
    expect(found({ kind: 'h', wire: 'end' })).toBe(1);
    expect(found({ kind: 'double-h', wire: 'end' })).toBe(1);
    expect(found({ kind: 'h', wire: 'both' })).toBe(0);
    expect(found({ kind: 'double-h', wire: 'both' })).toBe(0);
    expect(found({ kind: 'post', wire: 'end' })).toBe(0);
  });
}); // prettier-ignore

describe('a plan of version 1', () => {
  it('has its own length of rail as heights of its fence from then on', () => {
    const old = { ...structuredClone(fed({})), version: 1, overrides: { 'defaults.end.offsetPost.value': { value: 2.7, note: 'ours' } } }; // prettier-ignore
    const { plan: now } = openPlan(old);
    expect(now.version).toBe(2);
    // The tallest strand stands at 0.9 m.
    expect(now.overrides).toEqual({
      'defaults.ends.railHeights.value': { value: 3, note: 'ours' },
    });
    expect(ends(now)[0]!.rail_m).toBeCloseTo(3, 6);
  });
});

describe('the steps of a card', () => {
  const say = { metres: (m: number) => `${m.toFixed(2)} m`, mm: (m: number) => `${Math.round(m * 1000)} mm`, newtons: (n: number) => `${Math.round(n)} N` }; // prettier-ignore
  const steps = (p: Plan, k = 0) => {
    const e = ends(p)[k]!;
    return stepsOf(e, say, catalogue, 800).join('\n');
  };
  it('say where each thing goes, the wire from the foot of the end post, and what it is twisted to', () => {
    const own = steps(fed({}));
    expect(own).toMatch(/foot of the END post, 100 mm up/);
    expect(own.indexOf('END post')).toBeLessThan(own.indexOf('top of the BRACE post'));
    for (const words of [
      '2.40 m from it',
      '775 mm above',
      '125 mm',
      '250 mm',
      'two full wraps',
      'Half-drive',
      'about 800 N a leg',
      'Drive it',
    ])
      // prettier-ignore
      expect(own, words).toContain(words);
    // The strands are tensioned last of all.
    expect(own.trim().split('\n').at(-1)).toContain('only then tension them');
  });
  it('follow kind, setting and gate', () => {
    const gated = fed({}, { gates: gate(true) });
    expect(steps(gated, 1)).toContain('second brace wire');
    expect(steps(gated, 0)).not.toContain('second brace wire');
    const by = (kind: 'n' | 'stay' | 'tie-back' | 'post') => steps(change(fed({}), (d) => setAssembly(d, on(fed({})), { kind }))); // prettier-ignore
    expect(by('n')).toContain('tie wire along the ground');
    expect(by('stay')).toContain('equal bays begin after it');
    expect(by('tie-back')).toContain('trench');
    expect(by('post')).toContain('leaning 2.5 degrees');
    const concrete = change(fed({}), (d) => setEnd(d, 'a', 0, { setting: 'concrete' }));
    expect(steps(concrete)).toContain('stop 200 mm below the surface');
    expect(steps(concrete)).toContain('Wait 7 days');
  });
});

describe('a gate', () => {
  const g = { id: 'g', name: 'Gate', line: 'a', at_m: 150, width_m: 4, cable: true };
  it('has its leaf, its label with hinges or without, and its gap by the stock', () => {
    const f = gateFigures(g, true, catalogue);
    expect(f).toMatchObject({ opening_m: 4, leaf_kg: 56, gap_m: 0.08 });
    expect([f.leaf_m, f.label_m]).toEqual([3.92, 3.92]);
    expect(gateFigures({ ...g, gross: true }, false, catalogue)).toMatchObject({ label_m: 4, gap_m: 0.15 }); // prettier-ignore
    const two = gateFigures({ ...g, leaves: 2 }, false, catalogue);
    expect([two.leaf_kg, two.leaf_m]).toEqual([28, 1.92]);
    // By hand: (56 x 1.96 + 80 x 3.92) kg m.
    const loads = gateLoads(f, { strand_heights_m: [1], strand_tensions_N: [1000] }, 'end-240', catalogue.soils['clay']!, catalogue); // prettier-ignore
    expect(loads.gate_moment_Nm).toBeCloseTo(9.80665 * (56 * 1.96 + 80 * 3.92), 3);
    expect(loads.hinge_horizontal_force_N).toBeCloseTo(loads.gate_moment_Nm / 0.9, 3);
  });
  it('is a panel until it comes, with mesh and a live wire where they are wanted', () => {
    const p = fed({}, { gates: { g: { ...g, later: true, mesh: true, live: true, leaves: 2 } } });
    expect([supply(p, 'gate'), supply(p, 'gate.panel'), supply(p, 'gate.mesh'), supply(p, 'gate.live')]).toEqual([0, 1, 2, 2]); // prettier-ignore
  });
});
