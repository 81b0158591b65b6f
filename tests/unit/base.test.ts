/** The small things that everything stands on: memories, plane geometry, joints, pins, levels. */
import fc from 'fast-check';
import { describe, expect, it, vi } from 'vitest';
import { passing } from '../../src/core/base/numbers.js';
import { memoLast, memoOn, sameItems, steady } from '../../src/core/base/memo.js';
import * as geo from '../../src/core/plan/geometry.js';
import { crossing, legIndexOf, segmentsApart } from '../../src/core/plan/legIndex.js';
import { levelsFromRises, readLevels } from '../../src/core/plan/levels.js';
import { pinAt, removePin, setPin } from '../../src/core/plan/pins.js';
import { snap } from '../../src/core/plan/snap.js';
import { topologyOf } from '../../src/core/plan/topology.js';
import { line, plan } from './scene.js';

const at = (e: number, n: number) => ({ e, n });

describe('memories', () => {
  it('the last answer is given again for the very same arguments, and made anew for others', () => {
    const work = vi.fn((a: object, n: number) => ({ a, n }));
    const memo = memoLast(work);
    const key = {};
    const first = memo(key, 1);
    expect(memo(key, 1)).toBe(first);
    expect(memo({}, 1)).not.toBe(first);
    expect(memo(key, 1)).not.toBe(first);
    expect(memo(key, 2)).toEqual({ a: key, n: 2 });
    expect(work).toHaveBeenCalledTimes(4);
  });

  it('on what it rests on: the same list by identity, whatever else', () => {
    const memo = memoOn<object>();
    const [x, y] = [{}, {}];
    const first = memo.get('k', [x, 1], () => ({}));
    expect(memo.get('k', [x, 1], () => ({}))).toBe(first);
    expect(memo.get('k', [y, 1], () => ({}))).not.toBe(first);
    const again = memo.get('k', [x, 1, 2], () => ({}));
    expect(memo.get('k', [x, 1], () => ({}))).not.toBe(again);
    const kept = memo.get('k', [], () => ({}));
    memo.keep(new Set(['k']));
    expect(memo.get('k', [], () => ({}))).toBe(kept);
    memo.keep(new Set());
    expect(memo.get('k', [], () => ({}))).not.toBe(kept);
    expect([sameItems([x], [x]), sameItems([x], [y]), sameItems([x], [x, x])]).toEqual([true, false, false]); // prettier-ignore
  });

  it('a row that says the same stays the very row', () => {
    const keep = steady<{ n: number }>((a, b) => a.n === b.n);
    const first = keep({ a: { n: 1 }, b: { n: 2 } });
    const next = keep({ a: { n: 1 }, b: { n: 3 }, c: { n: 4 } });
    expect(next['a']).toBe(first['a']);
    expect(next).toEqual({ a: { n: 1 }, b: { n: 3 }, c: { n: 4 } });
    expect(keep({ b: { n: 3 } })['b']).toBe(next['b']);
  });
});

describe('plane geometry', () => {
  const bent = [at(0, 0), at(30, 40), at(30, 100)];

  it('stations, places and bearings of a bent line', () => {
    expect(geo.stations(bent)).toEqual([0, 50, 110]);
    expect(geo.planLength({ vertices: line('a', [[0, 0], [3, 4]]).vertices })).toBe(5); // prettier-ignore
    expect(geo.pointAt(bent, 25)).toEqual(at(15, 20));
    expect(geo.pointAt(bent, 80)).toEqual(at(30, 70));
    expect(geo.pointAt(bent, -5)).toEqual(at(0, 0));
    expect(geo.pointAt(bent, 500)).toEqual(at(30, 100));
    expect(geo.pointAt([at(1, 1), at(1, 1)], 3)).toEqual(at(1, 1));
    const bearings = [at(0, 5), at(5, 5), at(5, 0), at(0, -5), at(-5, 0)].map((p) => geo.bearing(at(0, 0), p)); // prettier-ignore
    expect(bearings).toEqual([0, 45, 90, 180, 270]);
    const east = geo.fromBearing(at(1, 1), 10, 90);
    expect([east.e, east.n]).toEqual([expect.closeTo(11, 9), expect.closeTo(1, 9)]);
  });

  it('turns are told from 0 straight on to 180 back, either hand; ends have none', () => {
    const turns = (c: { e: number; n: number }) => geo.deflections([at(0, 0), at(0, 10), c])[1];
    expect(turns(at(0, 20))).toBeCloseTo(0, 9);
    expect(turns(at(10, 10))).toBeCloseTo(90, 9);
    expect(turns(at(-10, 10))).toBeCloseTo(90, 9);
    expect(turns(at(10, 20))).toBeCloseTo(45, 9);
    expect(turns(at(0, 5))).toBeCloseTo(180, 9);
    expect(geo.deflections(bent).map((d) => Math.round(d))).toEqual([0, 37, 0]);
    expect([geo.defaultKind(15, 15, false), geo.defaultKind(15.1, 15, false), geo.defaultKind(90, 15, true)]).toEqual(['bend', 'corner', 'end']); // prettier-ignore
  });

  it('the nearest place agrees with looking every 5 cm', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -50, max: 150 }),
        fc.integer({ min: -50, max: 150 }),
        (e, n) => {
          const p = at(e, n);
          const looked = Array.from({ length: 2201 }, (_, k) => geo.distance(geo.pointAt(bent, k / 20), p)); // prettier-ignore
          const found = geo.nearest(bent, p);
          expect(found.off).toBeLessThanOrEqual(Math.min(...looked) + 1e-9);
          expect(found.off).toBeGreaterThan(Math.min(...looked) - 0.03);
          expect(geo.distance(geo.pointAt(bent, found.s), found.point)).toBeLessThan(1e-9);
          expect(found.leg).toBe(found.s > 50 ? 1 : 0);
        },
      ),
    );
  });

  it('segments cross at their ends too, not beyond, and never when they run alike', () => {
    const [a, b] = [at(0, 0), at(10, 0)];
    expect(crossing(a, b, at(5, -5), at(5, 5))).toEqual([0.5, 0.5]);
    expect(crossing(a, b, at(10, 0), at(10, 5))).toEqual([1, 0]);
    expect(crossing(a, b, at(0, 5), at(0, 0))).toEqual([0, 1]);
    expect(crossing(a, b, at(10.001, -1), at(10.001, 1))).toBeNull();
    expect(crossing(a, b, at(5, 0.001), at(5, 5))).toBeNull();
    expect(crossing(a, b, at(0, 1), at(10, 1))).toBeNull();
    expect(segmentsApart(a, b, at(5, 3), at(8, 9))).toBe(3);
    expect(segmentsApart(a, b, at(13, 4), at(20, 9))).toBe(5);
    expect(segmentsApart(a, b, at(5, -5), at(5, 5))).toBe(0);
    expect(segmentsApart(at(5, 3), at(8, 9), a, b)).toBe(3);
  });
});

describe('what lies near', () => {
  const { lines } = plan([line('a', [[0, 0], [100, 0], [100, 50]]), line('b', [[50, 20], [50, 90]])]); // prettier-ignore

  it('one place of each line within reach, the nearest of its legs', () => {
    const near = legIndexOf(lines).near(at(98, 3), 5);
    expect(near).toEqual([{ line: 'a', leg: 1, s: 103, off: 2, point: at(100, 3) }]);
    expect(legIndexOf(lines).near(at(98, 3), 60).map((h) => h.line).sort()).toEqual(['a', 'b']); // prettier-ignore
    expect(legIndexOf(lines).near(at(98, 3), 1.9)).toEqual([]);
    expect(legIndexOf({}).near(at(0, 0), 1e9)).toEqual([]);
    expect(legIndexOf(lines)).toBe(legIndexOf(lines));
  });

  it('the pointer catches on vertices before lines, on lines before the land, on the land last', () => {
    const rim = [[at(0, 200), at(100, 200)]];
    expect(snap(lines, at(98, 48), 5)).toMatchObject({ to: 'vertex', line: 'a', vertex: 2 });
    expect(snap(lines, at(97, 25), 5)).toMatchObject({ to: 'line', line: 'a', leg: 1, s: 125, point: at(100, 25) }); // prettier-ignore
    expect(snap(lines, at(2, 203), 5, undefined, rim)).toEqual({ to: 'land', point: at(0, 200) });
    expect(snap(lines, at(50, 203), 5, undefined, rim)).toMatchObject({ to: 'land', point: at(50, 200) }); // prettier-ignore
    expect(snap(lines, at(50, 206), 5, undefined, rim).to).toBe('free');
    // The nearer of two within reach.
    expect(snap(lines, at(52, 11), 15)).toMatchObject({ to: 'vertex', line: 'b', vertex: 0 });
    // What is moved catches neither on itself nor on its neighbours, nor on its own legs.
    expect(snap(lines, at(99, 1), 5, { line: 'a', vertex: 2 }).to).toBe('free');
    expect(snap(lines, at(1, 1), 5, { line: 'a', vertex: 2 })).toMatchObject({ to: 'vertex', vertex: 0 }); // prettier-ignore
  });
});

describe('joints', () => {
  const marksOf = (lines: ReturnType<typeof line>[], extra = {}) => topologyOf(plan(lines).lines, extra); // prettier-ignore

  it('lines that touch within 0.3 m share a place and hang together; others do not', () => {
    const t = marksOf([line('a', [[0, 0], [100, 0]]), line('b', [[50, 0.29], [50, 80]]), line('c', [[20, 0.31], [20, 80]])]); // prettier-ignore
    expect(t.groups.map((g) => [...g].sort())).toEqual([['a', 'b'], ['c']]); // prettier-ignore
    expect(t.marks['a']!.map((m) => m.s)).toEqual([0, 50, 100]);
    expect(t.marks['b']![0]!.location).toBe(t.marks['a']![1]!.location);
    expect(t.marks['c']!.map((m) => m.s)).toEqual([0, expect.closeTo(79.69, 6)]);
  });

  it('asked for places are named once, held to the line', () => {
    const t = marksOf([line('a', [[0, 0], [100, 0]])], { a: [40, 40.2, 400, -3] }); // prettier-ignore
    expect(t.marks['a']!.map((m) => m.s)).toEqual([0, 40, 100]);
    expect(new Set(t.marks['a']!.map((m) => m.location)).size).toBe(3);
  });

  it('a ring is one place at its seam, a line of two vertices is none', () => {
    const ring = marksOf([line('r', [[0, 0], [50, 0], [50, 50], [0, 0.2]])]).marks['r']!; // prettier-ignore
    expect(ring[0]!.location).toBe(ring.at(-1)!.location);
    const short = marksOf([line('s', [[0, 0], [0.2, 0]])]).marks['s']!; // prettier-ignore
    expect(new Set(short.map((m) => m.location)).size).toBe(short.length);
  });

  it('chains hang together from end to end', () => {
    const chain = [0, 1, 2, 3].map((k) => line(`l${k}`, [[k * 10, 0], [k * 10 + 10, 0]])); // prettier-ignore
    expect(marksOf(chain).groups).toHaveLength(1);
    expect(marksOf([chain[0]!, chain[2]!]).groups).toHaveLength(2);
  });
});

describe('pins', () => {
  const own = () => structuredClone(plan([line('a', [[0, 0], [100, 0]], { placed: [{ at_m: 10, kind: 'steel-180' }, { at_m: 20, kind: 'steel-180' }] })])); // prettier-ignore

  it('are found within 5 cm, kept in order, held to the line; a placed post nearby gives way', () => {
    const p = own();
    setPin(p, 'a', 20.4, {});
    setPin(p, 'a', 5, { kind: 'timber-180' });
    setPin(p, 'a', 500, {});
    const a = p.lines['a']!;
    expect(a.pins).toEqual([{ at_m: 5, kind: 'timber-180' }, { at_m: 20.4, kind: null }, { at_m: 100, kind: null }]); // prettier-ignore
    expect(a.placed!.map((x) => x.at_m)).toEqual([10]);
    expect(pinAt(a, 5.04)).toBe(a.pins![0]);
    expect(pinAt(a, 5.06)).toBeUndefined();
    setPin(p, 'a', 5.03, { kind: null });
    expect(p.lines['a']!.pins).toHaveLength(3);
    expect(p.lines['a']!.pins![0]).toEqual({ at_m: 5, kind: null });
    removePin(p, 'a', 50);
    removePin(p, 'a', 100);
    expect(p.lines['a']!.pins).toHaveLength(2);
  });
});

describe('levels by hand', () => {
  it('add up from the start, in the unit they were typed in', () => {
    expect(readLevels('10 0.5\n20 -1; 5, 2', 100, 1)).toEqual([{ at_m: 0, z_m: 100 }, { at_m: 10, z_m: 100.5 }, { at_m: 30, z_m: 99.5 }, { at_m: 35, z_m: 101.5 }]); // prettier-ignore
    expect(readLevels('10 1', 0, 0.3048)).toMatchObject([{}, { at_m: expect.closeTo(3.048, 9), z_m: expect.closeTo(0.3048, 9) }]); // prettier-ignore
  });

  it('say which row is wrong, and why', () => {
    expect(readLevels('  ', 0, 1)).toMatch(/^Type one row/);
    expect(readLevels('10 1\nx 2', 0, 1)).toMatch(/^Row 2: two numbers/);
    expect(readLevels('10 1 7', 0, 1)).toMatch(/^Row 1: two numbers/);
    expect(readLevels('10', 0, 1)).toMatch(/^Row 1: two numbers/);
    expect(readLevels('0 1', 0, 1)).toMatch(/above 0/);
    expect(readLevels('10 30', 0, 1)).toHaveLength(2);
    expect(readLevels('10 30.1', 0, 1)).toMatch(/cliff/);
    expect(readLevels('10 -30.1', 0, 1)).toMatch(/cliff/);
  });

  it('from the rise of each leg', () => {
    const l = line('a', [[0, 0], [30, 40], [30, 100]]); // prettier-ignore
    expect(levelsFromRises(l, 5, [2, -3])).toEqual([{ at_m: 0, z_m: 5 }, { at_m: 50, z_m: 7 }, { at_m: 110, z_m: 4 }]); // prettier-ignore
    expect(levelsFromRises(l, 5, [2]).map((x) => x.z_m)).toEqual([5, 7, 7]);
  });
});

describe('where a rising function passes nought', () => {
  const within = { low: 30, high: 5000 };
  /** Bent like what a window asks: a kink where another bay sags most, steep below and flat above. */
  const bent = (at: number, kink: number) => (x: number) =>
    (x < kink ? 3 : 1) * (1 / kink - 1 / x) - (at < kink ? 3 : 1) * (1 / kink - 1 / at);

  it('found from any guess, within what was asked, in few tries', () => {
    const far = fc.double({ min: 31, max: 4999, noNaN: true });
    fc.assert(
      fc.property(far, far, far, (at, kink, near) => {
        const f = vi.fn(bent(at, kink));
        expect(Math.abs(passing(f, { ...within, near }, 1e-4) / at - 1)).toBeLessThan(1e-4);
        expect(f.mock.calls.length).toBeLessThan(24);
      }),
      { numRuns: 500 },
    );
  });

  it('an end of the range where it does not pass', () => {
    expect(passing((x) => x, { ...within, near: 600 }, 1e-4)).toBe(30);
    expect(passing((x) => x - 6000, { ...within, near: 600 }, 1e-4)).toBe(5000);
    expect(passing((x) => x - 700, { ...within, near: 700 }, 1e-4)).toBe(700);
    expect(passing((x) => x - 700, { ...within, near: 9000 }, 1e-9)).toBeCloseTo(700, 5);
  });
});
