/** Tables that come in and go out, stacks of a history, changes of a report: small cases by hand. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { freeId } from '../../src/core/plan/ids.js';
import { simplify } from '../../src/core/plan/simplify.js';
import { distance, nearest } from '../../src/core/plan/geometry.js';
import { changeOf, follow } from '../../src/core/report/change.js';
import type { Report } from '../../src/core/report/schema.js';
import { plainCell } from '../../src/formats/csv.js';
import { parseCsvLines } from '../../src/formats/csvLines.js';
import { parseCsvPoints } from '../../src/formats/csvPoints.js';
import { EMPTY, pushed, stacksOf } from '../../src/formats/stacks.js';
import { line, plan, report } from './scene.js';

const at = (e: number, n: number) => ({ e, n });

describe('lines as a table', () => {
  it('go by name, in the order of the file; without a name they are one walked line', () => {
    const { lines, degrees } = parseCsvLines('Name,East_m,North_m\nA,1,2\nB,5,6\nA,3,4\n,7,8\n');
    expect(degrees).toBe(false);
    expect(lines).toEqual([
      { name: 'A', points: [[1, 2], [3, 4]] }, // prettier-ignore
      { name: 'B', points: [[5, 6]] },
      { name: 'Walked line', points: [[7, 8]] },
    ]);
    expect(parseCsvLines('x,y\n1,2').lines).toEqual([{ name: 'Walked line', points: [[1, 2]] }]);
  });

  it('are in degrees where both headings say so', () => {
    for (const head of ['lon,lat', 'LNG,Lat', 'longitude,latitude'])
      expect(parseCsvLines(`${head}\n-3,54`)).toEqual({ degrees: true, lines: [{ name: 'Walked line', points: [[-3, 54]] }] }); // prettier-ignore
    expect(() => parseCsvLines('lon,north\n1,2')).toThrow('one heading names degrees');
    expect(() => parseCsvLines('east,lat\n1,2')).toThrow('one heading names degrees');
  });

  it('name the line of what is no number', () => {
    expect(() => parseCsvLines('a,b\n1,2')).toThrow('headings are wanted');
    expect(() => parseCsvLines('')).toThrow('headings are wanted');
    expect(() => parseCsvLines('x,y\n1,2\n3,')).toThrow(/^line 3: x and y must be numbers/);
    expect(() => parseCsvLines('x,y\nInfinity,2')).toThrow(/^line 2/);
  });
});

describe('points as a table', () => {
  it('are found by their headings, whatever their order and case, or are the first three', () => {
    expect(parseCsvPoints('id,Height,North,East\n7,30,20,10')).toEqual([{ x: 10, y: 20, z: 30 }]);
    expect(parseCsvPoints('\uFEFF1;2;3\n4;5;6')).toEqual([{ x: 1, y: 2, z: 3 }, { x: 4, y: 5, z: 6 }]); // prettier-ignore
    expect(parseCsvPoints('lon,lat,elev\n-3,54,100')).toEqual([{ x: -3, y: 54, z: 100 }]);
  });

  it('name the row and column of what is wrong', () => {
    expect(() => parseCsvPoints('')).toThrow('the file is empty');
    expect(() => parseCsvPoints('x,y\n1,2')).toThrow('no column for z; call it z, h, height');
    expect(() => parseCsvPoints('x,y,z\n1,2,')).toThrow(/^line 2: z is ""/);
    expect(() => parseCsvPoints('1,2,3\n1,two,3')).toThrow(/^line 2: y is "two"/);
    expect(() => parseCsvPoints('x,y,z\n"1,2,3')).toThrow('a quote is not closed');
    const lengthy = 'q'.repeat(80);
    expect(() => parseCsvPoints(`1,2,3\n1,2,${lengthy}`)).toThrow(`"${'q'.repeat(20)}"`);
  });
});

describe('a cell', () => {
  it('that a spreadsheet would work out is kept as text', () => {
    for (const bad of ['=1+1', '+1', '-1', '@x', ' =1', '\n=1', '\t=1', '\u0000=1', '\rx'])
      expect(plainCell(bad), JSON.stringify(bad)).toBe(`'${bad}`);
    for (const good of ['', 'West side', 'a=b', '3 - 4', ' word'])
      expect(plainCell(good)).toBe(good);
  });
});

describe('stacks', () => {
  const step = (changeId: string, kind: 'do' | 'undo' | 'redo' | 'lift', of?: string) => ({ changeId, kind, words: changeId, ...(of === undefined ? {} : { of }) }); // prettier-ignore
  const names = (s: ReturnType<typeof stacksOf>) => [s.undo.map((c) => c.changeId), s.redo.map((c) => c.changeId)]; // prettier-ignore

  it('an undo names what it takes back, even when something came in between', () => {
    const history = [step('a', 'do'), step('b', 'do'), step('u', 'undo', 'a')];
    expect(names(stacksOf(history))).toEqual([['b'], ['a']]);
    expect(names(stacksOf([...history, step('r', 'redo', 'a')]))).toEqual([['b', 'a'], []]);
    // One that names nothing takes the last.
    expect(names(stacksOf([step('a', 'do'), step('b', 'do'), step('u', 'undo')]))).toEqual([['a'], ['b']]); // prettier-ignore
  });

  it('a new change ends what could be redone, a lift ends all, and nothing comes of nothing', () => {
    const undone = [step('a', 'do'), step('u', 'undo', 'a')];
    expect(names(stacksOf([...undone, step('c', 'do')]))).toEqual([['c'], []]);
    expect(names(stacksOf([...undone, step('l', 'lift')]))).toEqual([[], []]);
    expect(names(stacksOf([step('u', 'undo', 'gone'), step('r', 'redo', 'gone')]))).toEqual([[], []]); // prettier-ignore
    expect(pushed(EMPTY, step('u', 'undo'))).toEqual(EMPTY);
  });

  it('carry bodies where both halves are there', () => {
    const body = { patch: [], inverse: [] };
    expect(pushed(EMPTY, { ...step('a', 'do'), ...body }).undo).toEqual([{ changeId: 'a', words: 'a', body }]); // prettier-ignore
    expect(pushed(EMPTY, { ...step('a', 'do'), patch: [] }).undo).toEqual([{ changeId: 'a', words: 'a' }]); // prettier-ignore
  });
});

describe('what has changed in a report', () => {
  const first = report(plan([line('a', [[0, 0], [60, 0]]), line('b', [[0, 90], [30, 90]])])); // prettier-ignore

  it('is nothing for the same report, and everything for one who has none', () => {
    expect(changeOf(first, first)).toEqual({ top: {}, lines: { a: {}, b: {} } });
    expect(follow(null, changeOf(null, first))).toEqual(first);
    expect(follow(first, changeOf(first, first)).lines['a']).toBe(first.lines['a']);
  });

  it('is by key of a line, and a line that is gone is gone', () => {
    const next: Report = { ...first, lines: { a: { ...first.lines['a']!, plan_m: 61 } } };
    const change = changeOf(first, next);
    expect(change).toEqual({ top: {}, lines: { a: { plan_m: 61 } } });
    const after = follow(first, change);
    expect(after).toEqual(next);
    expect(after.lines['a']!.posts).toBe(first.lines['a']!.posts);
    expect(changeOf(first, { ...first, currency: 'GBP' }).top).toEqual({ currency: 'GBP' });
  });
});

describe('ids', () => {
  it('are the first that is free from the size of the table on', () => {
    expect(freeId({}, 'l')).toBe('l1');
    expect(freeId({ l1: 0, l2: 0 }, 'l')).toBe('l3');
    expect(freeId({ l2: 0 }, 'l')).toBe('l3');
    expect(freeId({ x: 0, l2: 0, l3: 0 }, 'l')).toBe('l4');
    expect(freeId({}, 'constructor'.slice(0, 1))).toBe('c1');
  });
});

describe('a walk', () => {
  it('of any shape keeps its ends and stays within the tolerance of itself', () => {
    const walk = fc.array(fc.tuple(fc.integer({ min: -50, max: 50 }), fc.integer({ min: -50, max: 50 })), { minLength: 2, maxLength: 40 }); // prettier-ignore
    fc.assert(
      fc.property(walk, fc.integer({ min: 0, max: 20 }), (list, tolerance) => {
        const points = list.map(([e, n]) => at(e, n));
        const kept = simplify(points, tolerance);
        expect([kept[0], kept.at(-1)]).toEqual([points[0], points.at(-1)]);
        for (const p of points) expect(nearest(kept, p).off).toBeLessThanOrEqual(tolerance + 1e-9);
      }),
    );
  });

  it('keeps a point that lies further off than asked, and no other', () => {
    const walk = [at(0, 0), at(10, 0.4), at(20, -0.9), at(30, 0), at(30, 30)];
    expect(simplify(walk, 1)).toEqual([at(0, 0), at(30, 0), at(30, 30)]);
    expect(simplify(walk, 0.86)).toHaveLength(4);
    expect(simplify([at(0, 0), at(1, 1)], 5)).toEqual([at(0, 0), at(1, 1)]);
    expect(distance(at(0, 0), at(3, 4))).toBe(5);
  });
});
