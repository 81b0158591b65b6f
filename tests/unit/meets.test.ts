/** Where lines meet, cross and share posts; what goes along when one of them is moved. */
import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  addLine,
  extendLine,
  moveVertex,
  removeLine,
  removeVertex,
} from '../../src/core/edit/edits.js';
import { addLaneway } from '../../src/core/edit/reshape.js';
import { planLength, pointAt } from '../../src/core/plan/geometry.js';
import { jointsOf, meetingsOf } from '../../src/core/plan/meets.js';
import { patched } from '../../src/core/plan/patched.js';
import type { Plan } from '../../src/core/plan/schema.js';
import { topologyOf } from '../../src/core/plan/topology.js';
import { applyPatch, edit } from '../../src/formats/patch.js';
import { energiser, line, plan, mended as report } from './scene.js';

const lines = (...all: ReturnType<typeof line>[]) => plan(all).lines;
const met = (...all: ReturnType<typeof line>[]) =>
  meetingsOf(lines(...all)).map((m) => [m.a, m.b, +m.sa.toFixed(3), +m.sb.toFixed(3), m.crosses]);
const found = (p: Plan, rule: string) => report(p).findings.filter((f) => f.rule === rule);
const change = (p: Plan, recipe: (d: Plan) => void) => edit(p, recipe).next;

describe('meetings', () => {
  it('an end on a leg touches, legs that pass through one another cross, ends that meet are one place', () => {
    const a = line('a', [[0, 0], [100, 0]]); // prettier-ignore
    expect(met(a, line('b', [[40, 0], [40, 50]]))).toEqual([['a', 'b', 40, 0, false]]); // prettier-ignore
    expect(met(a, line('b', [[40, -10], [40, 50]]))).toEqual([['a', 'b', 40, 10, true]]); // prettier-ignore
    expect(met(a, line('b', [[100, 0], [100, 50]]))).toEqual([['a', 'b', 100, 0, false]]); // prettier-ignore
    expect(met(a, line('b', [[40, 0.31], [40, 50]]))).toEqual([]); // prettier-ignore
    expect(met(a, line('b', [[40, 0.29], [40, 50]]))).toEqual([['a', 'b', 40, 0, false]]); // prettier-ignore
    // A vertex of each where they cross is a joint.
    expect(met(line('a', [[0, 0], [50, 0], [100, 0]]), line('b', [[50, -9], [50, 0], [50, 9]]))).toEqual([['a', 'b', 50, 9, false]]); // prettier-ignore
  });

  it('a ring closes on itself, and a line that crosses itself is told', () => {
    const ring = line('a', [[0, 0], [100, 0], [100, 50], [0, 0]]); // prettier-ignore
    expect(meetingsOf(lines(ring))).toEqual([{ a: 'a', b: 'a', sa: 0, sb: planLength(ring), crosses: false }]); // prettier-ignore
    const knot = line('a', [[0, 0], [100, 0], [100, 50], [50, 50], [50, -20]]); // prettier-ignore
    expect(met(knot)).toEqual([['a', 'a', 50, 250, true]]);
    expect(found(plan([knot]), 'crosses')[0]!.title).toBe('a crosses itself');
  });

  it('are those of a search over all pairs of places', () => {
    const point = fc.tuple(fc.integer({ min: 0, max: 60 }), fc.integer({ min: 0, max: 60 }));
    const path = fc.uniqueArray(point, { minLength: 2, maxLength: 4, selector: String });
    fc.assert(
      fc.property(path, path, (p, q) => {
        const [a, b] = [line('a', p), line('b', q)];
        const got = meetingsOf(lines(a, b)).filter((m) => m.a !== m.b);
        for (const m of got) {
          const [x, y] = [pointAt(a.vertices, m.sa), pointAt(b.vertices, m.sb)];
          expect(Math.hypot(x.e - y.e, x.n - y.n)).toBeLessThanOrEqual(0.3 + 1e-9);
        }
        // Every pair of close places lies near a meeting, or on legs that run along one another.
        const step = 0.4;
        for (let s = 0; s <= planLength(a); s += step) {
          const x = pointAt(a.vertices, s);
          for (let t = 0; t <= planLength(b); t += step) {
            const y = pointAt(b.vertices, t);
            if (Math.hypot(x.e - y.e, x.n - y.n) > 0.05) continue;
            const near = got.some((m) => Math.abs(m.sa - s) < 30 && Math.abs(m.sb - t) < 30);
            expect(near, `${s} ${t}`).toBe(true);
          }
        }
      }),
      { numRuns: 60 },
    );
  });

  it('join the network: beyond a crossing a fence is fed', () => {
    const p = plan([line('a', [[0, 0], [300, 0]]), line('b', [[150, -100], [150, 100]])], { energisers: { unit: energiser('a', 0) } }); // prettier-ignore
    expect(report(p).dead).toEqual([]);
    expect(topologyOf(p.lines, {}).groups).toEqual([['a', 'b']]);
  });
});

describe('a crossing', () => {
  const p = plan([line('a', [[0, 0], [300, 0]]), line('b', [[150, -100], [150, 100]])]); // prettier-ignore

  it('is told until both are strained off there; the mend puts a corner into both', () => {
    const [f] = found(p, 'crosses');
    expect(f!.why).toMatch(/At 150\.0.m \(post \d+\) of a it passes through b at 100\.0.m/);
    const next = patched(p, f!.mend!.patch);
    expect(found(next, 'crosses')).toEqual([]);
    expect(next.lines['a']!.vertices.map((v) => [v.e, v.n, v.kind])).toEqual([[0, 0, 'end'], [150, 0, 'corner'], [300, 0, 'end']]); // prettier-ignore
    expect(next.lines['b']!.vertices[1]).toMatchObject({ e: 150, n: 0, kind: 'corner' });
    expect(report(next).lines['a']!.runs).toHaveLength(2);
  });

  it('in a gate of one of them is none', () => {
    const gates = { g: { id: 'g', name: 'G', line: 'a', at_m: 150, width_m: 4, cable: true } };
    expect(found({ ...p, gates }, 'crosses')).toEqual([]);
  });

  it('twice by one line: both are mended at once', () => {
    const wavy = line('b', [[50, -40], [50, 40], [250, 40], [250, -40]]); // prettier-ignore
    const twice = plan([line('a', [[0, 0], [300, 0]]), wavy]); // prettier-ignore
    const [f] = found(twice, 'crosses');
    expect(f!.why).toContain('and at 1 more');
    const next = patched(twice, f!.mend!.patch);
    expect(found(next, 'crosses')).toEqual([]);
    expect(next.lines['a']!.vertices.map((v) => v.e)).toEqual([0, 50, 250, 300]);
    expect(next.lines['b']!.vertices.map((v) => v.n)).toEqual([-40, 0, 40, 40, 0, -40]);
  });
});

describe('posts where lines meet', () => {
  const posts = (p: Plan) => report(p).lines['a']!.posts.filter((x) => x.role === 'joint');
  const bought = (p: Plan, id: string) => report(p).supplies.find((s) => s.id === id)?.quantity ?? 0; // prettier-ignore

  it('one stands where another fence ends on this one, and it is bought once', () => {
    const a = line('a', [[0, 0], [300, 0]]); // prettier-ignore
    const t = plan([a, line('b', [[150, 0], [150, 100]])]); // prettier-ignore
    expect(posts(t).map((x) => x.s_m)).toEqual([150]);
    // Two ends of a, one end of b, and the shared one.
    expect(bought(t, 'post.end-240')).toBe(4);
    const apart = plan([a, line('b', [[150, 5], [150, 100]])]); // prettier-ignore
    expect(bought(apart, 'post.end-240')).toBe(4);
    expect(posts(apart)).toEqual([]);
  });

  it('ends that meet share a post; a ring has its closing corner once; posts that stand are not bought', () => {
    const a = line('a', [[0, 0], [300, 0]]); // prettier-ignore
    expect(bought(plan([a, line('b', [[300, 0], [300, 100]])]), 'post.end-240')).toBe(3); // prettier-ignore
    const ring = line('a', [[0, 0], [100, 0], [100, 100], [0, 100], [0, 0]]); // prettier-ignore
    expect(bought(plan([ring]), 'post.end-240')).toBe(4);
    const old = plan([line('a', [[0, 0], [300, 0]]), line('b', [[150, 0], [150, 100]], { standing: true })]); // prettier-ignore
    expect(bought(old, 'post.end-240')).toBe(2);
    expect(jointsOf(old.lines, meetingsOf(old.lines))).toEqual({ a: [{ s: 150, shared: true }], b: [{ s: 0, shared: false }] }); // prettier-ignore
  });
});

describe('what meets a moved line goes along', () => {
  const apart = (p: Plan, a: string, b: string) =>
    meetingsOf(p.lines).filter((m) => [m.a, m.b].sort().join() === [a, b].sort().join()).length;

  it('at mid-leg too, and what meets that in turn', () => {
    const p = plan([
      line('a', [[0, 0], [200, 0], [200, 100]]), // prettier-ignore
      line('b', [[100, 0], [100, 200]]), // prettier-ignore
      line('c', [[100, 100], [0, 100]]), // prettier-ignore
      line('d', [[50, 100], [50, 160]]), // prettier-ignore
    ]);
    const next = change(p, (d) => moveVertex(d, 'a', 0, { e: -20, n: -60 }));
    expect(apart(next, 'a', 'b')).toBe(1);
    expect(apart(next, 'b', 'c')).toBe(1);
    expect(apart(next, 'c', 'd')).toBe(1);
    expect(next.lines['b']!.vertices[0]).toMatchObject({ e: 90, n: -30 });
    expect(next.lines['b']!.vertices[1]).toMatchObject({ e: 100, n: 200 });
  });

  it('a locked one stays, and what then ends in the air is said', () => {
    const p = plan([
      line('a', [[0, 0], [200, 0], [200, 100]], { boundary: true }), // prettier-ignore
      line('b', [[100, 0], [100, 200], [200, 100]], { locked: true }), // prettier-ignore
    ]);
    expect(found(p, 'loose-end')).toEqual([]);
    const next = change(p, (d) => moveVertex(d, 'a', 0, { e: 0, n: -60 }));
    expect(next.lines['b']).toBe(p.lines['b']);
    const [f] = found(next, 'loose-end');
    expect(f!.title).toBe('b ends in the air');
    expect(f!.why).toMatch(/a is 29.m away/);
  });

  it('where a vertex goes, its fences come to the leg that is left', () => {
    const p = plan([line('a', [[0, 0], [100, 50], [200, 0]]), line('b', [[100, 50], [100, 200]])]); // prettier-ignore
    const next = change(p, (d) => removeVertex(d, 'a', 1));
    expect(next.lines['b']!.vertices[0]).toMatchObject({ e: 100, n: 0 });
    expect(apart(next, 'a', 'b')).toBe(1);
  });

  it('nothing of a random net comes apart, whichever vertex is moved', () => {
    const at = fc.double({ min: 0.1, max: 0.9, noNaN: true });
    const by = fc.double({ min: -15, max: 15, noNaN: true });
    fc.assert(
      fc.property(at, at, at, by, by, fc.integer({ min: 0, max: 2 }), (u, v, w, de, dn, k) => {
        const a = line('a', [[0, 0], [100, 0], [160, 80]]); // prettier-ignore
        const pb = pointAt(a.vertices, u * planLength(a));
        const b = line('b', [[pb.e, pb.n], [20, 150]]); // prettier-ignore
        const pc = pointAt(b.vertices, v * planLength(b));
        const c = line('c', [[pc.e, pc.n], [-80, 60]]); // prettier-ignore
        const pd = pointAt(c.vertices, w * planLength(c));
        const d = line('d', [[pd.e, pd.n], [-60, -40]]); // prettier-ignore
        const p = plan([a, b, c, d]);
        const from = p.lines['a']!.vertices[k]!;
        const next = change(p, (x) => moveVertex(x, 'a', k, { e: from.e + de, n: from.n + dn }));
        for (const [x, y] of [
          ['a', 'b'],
          ['b', 'c'],
          ['c', 'd'],
        ] as const)
          // prettier-ignore
          expect(apart(next, x, y)).toBeGreaterThan(0);
      }),
      { numRuns: 80 },
    );
  });
});

describe('a new fence knows what it is', () => {
  const home = (part: Partial<Plan> = {}) =>
    plan(
      [
        line('a', [[0, 0], [200, 0], [200, 200], [0, 200], [0, 0]], { left: ['cattle-calves'], keepOut: ['fox'], boundary: true }), // prettier-ignore
      ],
      {
        newLines: { left: ['cattle-calves'], right: [], keepOut: ['fox'], boundary: true },
        ...part,
      },
    );
  const drawn = (p: Plan, ...points: [number, number][]) => {
    let id = '';
    const next = change(p, (d) => {
      id = addLine(d, points.slice(0, 2).map(([e, n]) => ({ e, n }))); // prettier-ignore
      for (const [e, n] of points.slice(2)) extendLine(d, id, { e, n });
    });
    return next.lines[id]!;
  };

  it('from fence to fence it is within: the stock of the paddock on both sides, nothing kept out', () => {
    expect(drawn(home(), [0, 100], [200, 100])).toMatchObject({ left: ['cattle-calves'], right: ['cattle-calves'], keepOut: [], boundary: false, school: 'tight' }); // prettier-ignore
    // Once its last leg comes to a fence, too.
    expect(drawn(home(), [0, 100], [90, 120], [200, 100])).toMatchObject({ right: ['cattle-calves'], boundary: false }); // prettier-ignore
    expect(drawn(home(), [0, 100], [90, 120])).toMatchObject({ right: [], keepOut: ['fox'], boundary: true }); // prettier-ignore
  });

  it('what the paddock was given stands before what its fences say', () => {
    const p = home({ paddocks: { p: { id: 'p', name: 'Home', e: 50, n: 50, stock: { sheep: 40, horses: 0 }, use: 'grazing' } } } as never); // prettier-ignore
    expect(drawn(p, [0, 100], [200, 100])).toMatchObject({ left: ['sheep'], right: ['sheep'], school: 'moderate' }); // prettier-ignore
  });

  it('what was changed by hand meanwhile stays', () => {
    let id = '';
    const p = change(home(), (d) => {
      id = addLine(d, [{ e: 0, n: 100 }, { e: 90, n: 100 }]); // prettier-ignore
      d.lines[id]!.left = ['horses'];
      extendLine(d, id, { e: 200, n: 100 });
    });
    expect(p.lines[id]).toMatchObject({ left: ['horses'], boundary: true });
  });

  it('both sides of a laneway reach what its middle was snapped to, on the slant too', () => {
    const p = plan([line('a', [[0, 0], [200, 40]]), line('b', [[0, 200], [200, 150]])]); // prettier-ignore
    let made: string[] = [];
    const next = change(p, (d) => {
      made = addLaneway(d, [{ e: 100, n: 20 }, { e: 100, n: 175 }], 8); // prettier-ignore
    });
    for (const id of made) {
      const touched = meetingsOf(next.lines).filter((m) => m.b === id && !m.crosses);
      expect(touched.map((m) => m.a).sort()).toEqual(['a', 'b']);
    }
    expect(next.lines[made[0]!]!.vertices[0]!.e).toBeCloseTo(96, 6);
  });
});

describe('undoing a deletion', () => {
  const square = (id: string, e: number) => line(id, [[e, 0], [e + 100, 0], [e + 100, 100], [e, 100], [e, 0]]); // prettier-ignore
  const farm = plan([square('a', 0), square('b', 200), square('c', 400), square('d', 600)]);
  it.each([[['b']], [['a']], [['d']], [['b', 'c']], [['c', 'b']], [['a', 'c', 'd']], [['a', 'b', 'c', 'd']]])(
    'of %j puts the lines where they stood, and every paddock has its name again',
    (gone) => {
      const { next, inverse } = edit(farm, (d) => gone.forEach((id) => removeLine(d, id)));
      const back = applyPatch(next, inverse);
      expect(Object.keys(back.lines)).toEqual(['a', 'b', 'c', 'd']);
      expect(report(back).paddocks.map((p) => [p.name, p.e])).toEqual(report(farm).paddocks.map((p) => [p.name, p.e]));
    },
  ); // prettier-ignore
  it('stands at the end where what it stood before has gone since', () => {
    const { next, inverse } = edit(farm, (d) => removeLine(d, 'b'));
    const later = edit(next, (d) => removeLine(d, 'c')).next;
    expect(Object.keys(applyPatch(later, inverse).lines)).toEqual(['a', 'd', 'b']);
  });
});
