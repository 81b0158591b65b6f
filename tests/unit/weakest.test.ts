/** Rings against predators, lanes through fences, short runs, what is to come later, lines made alike, old wire in pairs. */
import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { COMMON, makeAlike, shared } from '../../src/core/edit/alike.js';
import { removeLine } from '../../src/core/edit/edits.js';
import { addLaneway } from '../../src/core/edit/reshape.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import { patched } from '../../src/core/plan/patched.js';
import { PlanSchema, type Line, type Plan, type Strand } from '../../src/core/plan/schema.js';
import { broken, judge } from '../../src/core/strands/judge.js';
import { requirementOf } from '../../src/core/strands/requirement.js';
import { oldFence, withPair } from '../../src/core/strands/retrofit.js';
import { energiser, line, plan, mended as report, strands } from './scene.js';

const found = (p: Plan, rule: string) => report(p).findings.filter((f) => f.rule === rule);
const titles = (p: Plan, rule: string) => found(p, rule).map((f) => `${f.kind}: ${f.title}`);

describe('a ring that keeps foxes out', () => {
  const FOX = strands([0.12, 0.26, 0.4, 0.54, 0.68, 0.85, 1.05]);
  const fox = { keepOut: ['fox'], strands: FOX };
  const whole = (south: Partial<Line> = fox, more: Partial<Plan> = {}) =>
    plan(
      [
        line('north', [[0, 0], [0, 300], [300, 300], [300, 0]], fox), // prettier-ignore
        line('south', [[300, 0], [0, 0]], south), // prettier-ignore
      ],
      { energisers: { unit: energiser('north', 150) }, ...more },
    );
  it('is silent where it is closed and equal', () => {
    expect(titles(whole(), 'ring')).toEqual([]);
    const alone = line('a', [[0, 0], [100, 0], [100, 100], [0, 100], [0, 0]], fox); // prettier-ignore
    expect(titles(plan([alone]), 'ring')).toEqual([]);
  });
  it('names the fence that lets them in, and what would close it does', () => {
    const p = whole({ strands: FOX });
    const [weak, ...more] = found(p, 'ring');
    expect(more).toEqual([]);
    expect(weak).toMatchObject({ kind: 'mend', title: 'south lets fox in' });
    const mended = patched(p, weak!.mend!.patch as never);
    expect(mended.lines['south']!.keepOut).toEqual(['fox']);
    expect(titles(mended, 'ring')).toEqual([]);
  });
  it('says an end in the open as something to look at, the boundary before a fence within', () => {
    const p = whole();
    removeLine(p, 'south');
    expect(titles(p, 'ring')).toEqual([
      'confirm: north is not closed against fox',
      'confirm: north is not closed against fox',
    ]);
    p.lines['rim'] = line('rim', [[-100, 0], [400, 0]], { boundary: true }); // prettier-ignore
    p.lines['within'] = line('within', [[0, 0], [150, 200]]); // prettier-ignore
    expect(titles(p, 'ring')).toEqual(['mend: rim lets fox in']);
  });
  it('is as good as its weakest stretch and its gates', () => {
    const low = whole({ ...fox, strands: strands([0.12, 0.26, 0.4, 0.54, 0.68, 0.85]) });
    expect(found(low, 'ring').map((f) => [f.kind, f.why])).toEqual([
      ['confirm', expect.stringMatching(/^Its top is at 850.mm, elsewhere at 1.050.mm and 6 of its strands are live, elsewhere 7\.$/)], // prettier-ignore
    ]);
    const gate = { id: 'g', name: 'Top gate', line: 'south', at_m: 150, width_m: 4, cable: true };
    const gated = found(whole(fox, { gates: { g: gate } }), 'ring');
    expect(gated.map((f) => f.title)).toEqual(['A gate is in the ring against fox']);
    expect(gated[0]!.why).toMatch(/^Top gate: .*130.mm .*150.mm/);
  });
});

describe('stock on no paddock’s side', () => {
  const ring = (part: Partial<Line>, use = 'grazing') =>
    plan(
      [
        line(
          'a',
          [
            [0, 0],
            [100, 0],
            [100, 100],
            [0, 100],
            [0, 0],
          ],
          part,
        ),
      ],
      {
        // prettier-ignore
        paddocks: { p: { id: 'p', name: 'P', e: 50, n: 50, stock: {}, use: use as 'grazing' } },
      },
    );
  it('is found, and its sides are changed over', () => {
    const p = ring({ left: [], right: ['sheep'] });
    const [one] = found(p, 'outside-stock');
    const mended = patched(p, one!.mend!.patch as never).lines['a']!;
    expect([mended.left, mended.right]).toEqual([['sheep'], []]);
  });
  it('is not said of a neighbour’s stock, of hay within, or where there is no paddock', () => {
    expect(titles(ring({ left: ['sheep'], right: ['horses'] }), 'outside-stock')).toEqual([]);
    expect(titles(ring({ left: [], right: ['sheep'] }, 'hay'), 'outside-stock')).toEqual([]);
    expect(titles(plan([line('a', [[0, 0], [100, 0]], { right: ['sheep'], left: [] })]), 'outside-stock')).toEqual([]); // prettier-ignore
  });
});

describe('a lane through a fence', () => {
  const farm = () => {
    const p = plan([line('a', [[0, 100], [400, 100]])]); // prettier-ignore
    addLaneway(p, [{ e: 200, n: 0 }, { e: 205, n: 200 }], 6); // prettier-ignore
    return p;
  };
  it('is one finding, whose mend strains all three off and puts a gate across the lane', () => {
    const p = farm();
    const [one, ...more] = found(p, 'crosses');
    expect(more).toEqual([]);
    expect(one!.title).toBe('A lane passes through a');
    const mended = patched(p, one!.mend!.patch as never);
    expect(titles(mended, 'crosses')).toEqual([]);
    const [gate] = Object.values(mended.gates);
    expect(gate).toMatchObject({ line: 'a', width_m: 3.6 });
    // It hangs on one of the lane's posts, and stands between both.
    const posts = mended.lines['a']!.vertices.filter((v) => v.kind === 'corner').map((v) => v.e);
    expect(posts).toHaveLength(2);
    expect(gate!.at_m - 1.8).toBeCloseTo(posts[0]!, 6);
    expect(gate!.at_m + 1.8).toBeLessThan(posts[1]! + 1e-6);
  });
  it('is no lane where two fences cross far from one another, or run apart', () => {
    const p = plan([line('a', [[0, 0], [400, 0]]), line('b', [[100, -50], [100, 50]]), line('c', [[130, -50], [130, 50]])]); // prettier-ignore
    expect(titles(p, 'crosses')).toEqual(['mend: a and b cross', 'mend: a and c cross']);
    const q = plan([line('a', [[0, 0], [400, 0]]), line('b', [[100, -50], [100, 50]]), line('c', [[60, -50], [150, 50]])]); // prettier-ignore
    expect(titles(q, 'crosses').some((t) => t.includes('lane'))).toBe(false);
  });
  it('shut by a lock is said without a mend', () => {
    const p = farm();
    p.lines['a']!.locked = true;
    expect(found(p, 'crosses')[0]!.mend).toBeUndefined();
  });
});

describe('a run too short for two braces', () => {
  it('takes one that serves both ways, is said once, and is bought as that', () => {
    const p = plan([line('a', [[0, 0], [300, 0], [300, 5.2]])]); // prettier-ignore
    expect(titles(p, 'short-run')).toEqual(['confirm: A run of a is too short for two braces']);
    // One brace post between the two ends carries the rail of both.
    const braces = (q: Plan) => report(q).supplies.find((s) => s.id === 'post.brace-240')!.quantity;
    expect(braces(p)).toBe(3);
    const longer = plan([line('a', [[0, 0], [300, 0], [300, 5.4]])]); // prettier-ignore
    expect(titles(longer, 'short-run')).toEqual([]);
    expect(braces(longer)).toBe(4);
    expect(titles({ ...p, lines: { a: { ...p.lines['a']!, standing: true } } }, 'short-run')).toEqual([]); // prettier-ignore
  });
});

describe('what a line is to hold later', () => {
  const cattle = strands([0.4, 0.65, 0.95]);
  it('is said with what would be missing, posts included; and not what is there already', () => {
    const of = (later: string[], part: Partial<Line> = {}) =>
      found(plan([line('a', [[0, 0], [300, 0]], { left: ['cattle-calves'], strands: cattle, later, ...part })]), 'later'); // prettier-ignore
    expect(of(['cattle-quiet'])).toEqual([]);
    const [goats] = of(['goats']);
    expect(goats).toMatchObject({ kind: 'confirm', title: 'a is to hold goats later' });
    expect(goats!.why).toMatch(/6 strands instead of 3, its lowest strand at 150.mm or lower/);
    const [deer] = of(['deer-farmed']);
    expect(deer!.why).toContain('longer posts');
    expect(of(['deer-farmed'], { post: 'timber-300' })[0]!.why).not.toContain('longer posts');
    expect(found(plan([line('a', [[0, 0], [300, 0]])]), 'later')).toEqual([]); // prettier-ignore
  });
});

describe('lines made alike', () => {
  it('share everything that is not bound to their own place', () => {
    const schema = Object.values((PlanSchema.properties.lines as unknown as { patternProperties: Record<string, { properties: object }> }).patternProperties)[0]!; // prettier-ignore
    const own = [
      'id',
      'name',
      'vertices',
      'locked',
      'levels',
      'pins',
      'noPosts',
      'placed',
      'joins',
      'crossings',
      'ends',
      'tensioners',
      'strung_on',
      'takenUp_on',
    ];
    const all = Object.keys(schema.properties).filter((k) => !own.includes(k));
    expect(new Set(Object.values(COMMON).flat())).toEqual(new Set(all));
  });
  it('get what one has, also what it has not, and keep their own place', () => {
    const a = line('a', [[0, 0], [9, 0]], { strands: strands([0.9]), snow: true }); // prettier-ignore
    const b = line('b', [[0, 5], [9, 5]], { dropper: { kind: 'fibreglass', each_m: 4 }, school: 'firm' }); // prettier-ignore
    const p = plan([a, b]);
    makeAlike(p, 'a', ['a', 'b', 'gone'], ['strands', 'posts', 'stock']);
    expect(p.lines['b']).toMatchObject({ strands: a.strands, snow: true, school: 'firm', vertices: b.vertices }); // prettier-ignore
    expect(p.lines['b']!.dropper).toBeUndefined();
    // Its own strands, not the other's.
    p.lines['b']!.strands[0]!.height_m = 1;
    expect(p.lines['a']!.strands[0]!.height_m).toBe(0.9);
    expect(shared([a, b], (l) => l.post)).toBe('steel-180');
    expect(shared([a, b], (l) => l.school)).toBeUndefined();
    expect(shared([], (l) => l.post)).toBeUndefined();
  });
});

describe('two barbed strands as a pair', () => {
  const needOf = (left: string[]) =>
    requirementOf({ left, right: [], keepOut: [], boundary: false }, catalogue)!;
  it('have a live strand between and one above, the upper barbed one as earth, all 150 mm apart, and hold', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('barbed3', 'barbed4'),
        fc.constantFrom('cattle-quiet', 'cattle-calves', 'sheep', 'goats', 'pigs'),
        (kind, left) => {
          const need = needOf([left]);
          const made = withPair(oldFence(kind, catalogue), need, catalogue) as Strand[];
          const at = made.findIndex((s) => s.duty === 'earth');
          const [low, live, earth, above] = made.slice(at - 2, at + 2);
          expect([low, live, earth, above].map((s) => [s!.wire === 'barbed', s!.duty])).toEqual([
            [true, 'cold'],
            [false, 'live'],
            [true, 'earth'],
            [false, 'live'],
          ]);
          for (const [a, b] of [
            [low, live],
            [live, earth],
            [earth, above],
          ])
            // prettier-ignore
            expect(b!.height_m - a!.height_m).toBeCloseTo(0.15, 9);
          expect(made.filter((s) => s.wire === 'barbed').every((s) => s.kept && s.duty !== 'live')).toBe(true); // prettier-ignore
          expect(broken(judge(made, need, catalogue)).filter((m) => m.about !== 'topLive')).toEqual([]); // prettier-ignore
          const r = report(plan([line('a', [[0, 0], [300, 0]], { left: [left], strands: made, standing: true, post: 'timber-180' })], { energisers: { unit: energiser('a', 150) } })); // prettier-ignore
          expect(r.findings.filter((f) => f.kind === 'stop').map((f) => f.why)).toEqual([]);
        },
      ),
      { numRuns: 20 },
    );
  });
  it('are refused where horses run, and where there are no two', () => {
    expect(withPair(oldFence('barbed3', catalogue), needOf(['horses']), catalogue)).toMatchObject({ refused: expect.stringContaining('taken down') }); // prettier-ignore
    expect(withPair(oldFence('netting', catalogue), needOf(['sheep']), catalogue)).toMatchObject({ refused: expect.stringContaining('Two barbed') }); // prettier-ignore
  });
});
