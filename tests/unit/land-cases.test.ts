/** Paddocks, water and gates in small made-up places, worked out by hand. */
import { describe, expect, it } from 'vitest';
import { figureText, say } from '../../src/core/base/units.js';
import { facesOf } from '../../src/core/land/faces.js';
import { paddockAt } from '../../src/core/land/paddocks.js';
import type { Gate, Line, Plan } from '../../src/core/plan/schema.js';
import { line, plan, report } from './scene.js';
import { thing, things } from './wrong-land.js';

const square = (id: string, from: number, to: number): Line =>
  line(id, [[from, from], [to, from], [to, to], [from, to], [from, from]]); // prettier-ignore
const gate = (on: string, at_m: number, width_m = 4): Gate => ({ id: 'g', name: 'G', line: on, at_m, width_m, cable: true }); // prettier-ignore
const paddocks = (lines: Line[], part: Partial<Plan> = {}) => report(plan(lines, part)).paddocks;

describe('rings within rings', () => {
  const lines = [square('out', 0, 100), square('mid', 20, 80), square('in', 40, 60)];
  const faces = facesOf(plan(lines).lines, 0, 0).faces;

  it('each is a hole of the one around it, and not of the ones further out', () => {
    const bySize = [...faces].sort((x, y) => y.area_m2 - x.area_m2);
    expect(bySize.map((f) => Math.round(f.area_m2))).toEqual([6400, 3200, 400]);
    expect(bySize.map((f) => f.holes.length)).toEqual([1, 1, 0]);
    // An outer fence looks in by its left; around a hole the paddock lies on the right of its fence.
    expect(new Set(bySize[0]!.edges.map((e) => `${e.line} ${e.side}`))).toEqual(new Set(['out left', 'mid right'])); // prettier-ignore
  });

  it('a place belongs to the innermost', () => {
    const list = paddocks(lines);
    const areaAt = (e: number, n: number) => paddockAt(list, { e, n })?.area_m2;
    expect([areaAt(10, 50), areaAt(30, 50), areaAt(50, 50)]).toEqual([6400, 3200, 400].map((a) => expect.closeTo(a, 6))); // prettier-ignore
    expect(areaAt(150, 50)).toBeUndefined();
  });
});

describe('a paddock', () => {
  it('takes name and stock from the first of the names that lie in it', () => {
    const named = {
      p: { id: 'p', name: 'Croft', e: 50, n: 50, stock: { sheep: 20 }, use: 'grazing' as const },
      q: { id: 'q', name: 'Late', e: 60, n: 60, stock: {}, use: 'hay' as const },
      far: { id: 'far', name: 'Far', e: 500, n: 0, stock: {}, use: 'hay' as const },
    };
    expect(paddocks([square('a', 0, 100)], { paddocks: named as never })).toMatchObject([{ id: 'p', name: 'Croft', stock: { sheep: 20 }, use: 'grazing', area_m2: expect.closeTo(10_000, 6), perimeter_m: expect.closeTo(400, 6) }]); // prettier-ignore
    const [own] = paddocks([square('a', 0, 100)]);
    expect(own).toMatchObject({ id: null, name: 'Paddock 1', stock: {}, use: 'grazing' });
    // Where nobody named it, its label stands well inside.
    expect(Math.min(own!.e, own!.n, 100 - own!.e, 100 - own!.n)).toBeGreaterThan(40);
  });

  it('has the gates that stand in its fences, either end of a stretch included', () => {
    const cut = [square('a', 0, 100), line('b', [[50, 0], [50, 100]])]; // prettier-ignore
    const of = (g: Gate) => paddocks(cut, { gates: { g } }).map((p) => p.gates.length);
    // 20 m along: in the west; 70 m: in the east; in the fence between them: in both.
    expect(of(gate('a', 20)).sort()).toEqual([0, 1]);
    expect(of(gate('b', 40))).toEqual([1, 1]);
    expect(of(gate('a', 50))).toEqual([1, 1]);
  });

  it('has the water that lies in it, or within 2 m of its fences', () => {
    const cut = [square('a', 0, 100), line('b', [[50, 0], [50, 100]])]; // prettier-ignore
    const of = (e: number, n: number) =>
      paddocks(cut, things(thing('water', [[e, n]]))).map((p) => p.water.length);
    expect(of(20, 50).sort()).toEqual([0, 1]);
    expect(of(51.9, 50)).toEqual([1, 1]);
    expect(of(52.1, 50).sort()).toEqual([0, 1]);
    expect(of(-1.9, 50).sort()).toEqual([0, 1]);
    expect(of(-2.1, 50)).toEqual([0, 0]);
  });

  it('without a head of stock wants no water', () => {
    const asks = (head: number) =>
      report(plan([square('a', 0, 100)], { paddocks: { p: { id: 'p', name: 'P', e: 50, n: 50, stock: { sheep: head }, use: 'grazing' } } })).findings.some((f) => f.rule === 'paddock-water'); // prettier-ignore
    expect([asks(0), asks(1)]).toEqual([false, true]);
  });
});

describe('two lines on the same legs', () => {
  it('bound the faces beside them once', () => {
    const lines = [square('a', 0, 100), line('twin', [[0, 0], [100, 0]])]; // prettier-ignore
    const { faces } = facesOf(plan(lines).lines, 0, 0);
    expect(faces).toHaveLength(1);
    expect(faces[0]!.perimeter_m).toBeCloseTo(400, 6);
  });
});

describe('figures in words', () => {
  it('nothing is never minus nothing, thousands are grouped, what is not known is a dash', () => {
    expect(figureText(-0.3, 'force', 'metric')).toBe('0');
    expect(figureText(-0.001, 'tape', 'metric')).toBe('0.00');
    expect(figureText(-0.3, 'tape', 'metric')).toBe('-0.30');
    expect(figureText(12345, 'force', 'metric')).toBe('12\u202f345');
    expect(figureText(999, 'force', 'metric')).toBe('999');
    expect(figureText(NaN, 'force', 'metric')).toBe('–');
    // 1 ft is 0.3048 m, 1 lbf 4.4482 N, 0 degrees C 32 degrees F [published: NIST SP 811]
    expect(say(3.048, 'tape', 'imperial')).toBe('10′\u202f0″');
    expect(say(444.82, 'force', 'imperial')).toMatch(/^100\slbf$/);
    expect(say(0, 'temperature', 'imperial')).toMatch(/^32\s°F$/);
    expect(say(-40, 'temperature', 'imperial')).toMatch(/^-40\s°F$/);
  });
});
