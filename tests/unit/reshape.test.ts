import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { moveVertex } from '../../src/core/edit/edits.js';
import { distance, nearest, planLength, pointAt } from '../../src/core/plan/geometry.js';
import { levelsFromRises, readLevels } from '../../src/core/plan/levels.js';
import {
  addLaneway,
  joinLines,
  moveLeg,
  moveLines,
  offsetLine,
  offsetPoints,
  removePart,
  reverseLine,
  splitLine,
  squareTo,
} from '../../src/core/edit/reshape.js';
import { readTyped } from '../../src/core/plan/typed.js';
import type { Plan } from '../../src/core/plan/schema.js';
import { edit } from '../../src/formats/patch.js';
import { energiser, line, plan } from './scene.js';

/** A line of three legs with all that can stand on one, and a second line that meets its middle leg. */
const made = (): Plan =>
  plan(
    [
      line(
        'a',
        [
          [0, 0],
          [100, 0],
          [100, 80],
          [180, 80],
        ],
        {
          // prettier-ignore
          left: ['sheep'],
          right: ['horses'],
          pins: [{ at_m: 30, kind: null }],
          placed: [{ at_m: 50, kind: 'steel-180' }, { at_m: 150, kind: 'timber-180' }], // prettier-ignore
          noPosts: [{ from_m: 120, to_m: 130, why: 'rock' }],
          levels: [{ at_m: 0, z_m: 1 }, { at_m: 200, z_m: 5 }], // prettier-ignore
        },
      ),
      line('b', [[100, 40], [200, 40]]), // prettier-ignore
    ],
    {
      gates: {
        g: { id: 'g', name: 'Gate', line: 'a', at_m: 60, width_m: 4, cable: true, hinge: 'start', swing: 'left' }, // prettier-ignore
      },
      energisers: { unit: energiser('a', 160) },
    },
  );
const changed = (recipe: (d: Plan) => void, p = made()): Plan => edit(p, recipe).next;
const gatePlace = (p: Plan) => {
  const g = p.gates['g']!;
  return pointAt(p.lines[g.line]!.vertices, g.at_m);
};

describe('whole lines', () => {
  it('turned round twice is as before; once, sides, hinges and places follow', () => {
    const once = changed((d) => reverseLine(d, 'a'));
    expect(once.lines['a']).toMatchObject({ left: ['horses'], right: ['sheep'] });
    expect(once.gates['g']).toMatchObject({ hinge: 'end', swing: 'right' });
    expect(gatePlace(once)).toEqual(gatePlace(made()));
    expect(once.lines['a']!.noPosts).toEqual([{ from_m: 130, to_m: 140, why: 'rock' }]);
    expect(changed((d) => reverseLine(d, 'a'), once)).toEqual(made());
  });

  it('cut anywhere and joined again keeps length and every place on the ground', () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 255, noNaN: true }), (s) => {
        let id: string | null = null;
        const cut = changed((d) => {
          id = splitLine(d, 'a', s);
        });
        if (id === null) return;
        expect(planLength(cut.lines['a']!) + planLength(cut.lines[id]!)).toBeCloseTo(260, 9);
        expect(distance(gatePlace(cut), gatePlace(made()))).toBeLessThan(1e-9);
        const whole = changed((d) => void joinLines(d, 'a', id!), cut);
        expect(planLength(whole.lines['a']!)).toBeCloseTo(260, 9);
        expect(distance(gatePlace(whole), gatePlace(made()))).toBeLessThan(1e-9);
        expect(whole.lines['a']!.placed).toHaveLength(2);
        expect(whole.energisers['unit']!.at_m).toBeCloseTo(160, 9);
      }),
    );
  });

  it('is not cut through a gate nor at its ends', () => {
    const ids: (string | null)[] = [];
    changed((d) => {
      for (const s of [0, 59, 61.9, 260]) ids.push(splitLine(d, 'a', s));
    });
    expect(ids).toEqual([null, null, null, null]);
  });

  it('moved, a leg or the whole, takes along the line that met it', () => {
    const whole = changed((d) => moveLines(d, ['a'], { e: 7, n: -3 }));
    expect(whole.lines['b']!.vertices[0]).toMatchObject({ e: 107, n: 37 });
    const leg = changed((d) => moveLeg(d, 'a', 1, { e: 5, n: 0 }));
    expect(leg.lines['b']!.vertices[0]).toMatchObject({ e: 105, n: 40 });
    expect(leg.lines['a']!.vertices.map((v) => v.e)).toEqual([0, 105, 105, 180]);
    const vertex = changed((d) => moveVertex(d, 'a', 1, { e: 120, n: 0 }));
    const { e, n } = vertex.lines['b']!.vertices[0]!;
    expect(nearest(vertex.lines['a']!.vertices, { e, n }).off).toBeLessThan(1e-9);
  });

  it('locked, keeps its shape whatever is asked', () => {
    const p = changed((d) => void (d.lines['a']!.locked = true));
    const after = changed((d) => {
      moveVertex(d, 'a', 1, { e: 120, n: 0 });
      moveLeg(d, 'a', 0, { e: 1, n: 1 });
      moveLines(d, ['a'], { e: 1, n: 1 });
      reverseLine(d, 'a');
      removePart(d, 'a', 10, 20);
      joinLines(d, 'b', 'a');
      splitLine(d, 'a', 50);
    }, p);
    expect(after).toEqual(p);
  });

  it('loses a part: what stood in it goes, the rest stays where it was', () => {
    const p = changed((d) => removePart(d, 'a', 40, 90));
    expect(p.gates['g']).toBeUndefined();
    const lengths = Object.values(p.lines)
      .filter((l) => l.id !== 'b')
      .map((l) => planLength(l));
    expect(lengths.sort((x, y) => x - y)).toEqual([expect.closeTo(40, 9), expect.closeTo(170, 9)]);
  });

  it('set off stands at the distance all along, on the side that was asked', () => {
    const p = changed((d) => void offsetLine(d, 'a', 6));
    const beside = Object.values(p.lines).find((l) => l.name.endsWith('beside'))!;
    // Round the outside of a corner it stands further off: up to root two of it at a right angle.
    const offs = Array.from(
      { length: 50 },
      (_, k) =>
        nearest(p.lines['a']!.vertices, pointAt(beside.vertices, (k / 49) * planLength(beside)))
          .off,
    );
    expect(Math.min(...offs)).toBeCloseTo(6, 9);
    expect(Math.max(...offs)).toBeLessThanOrEqual(6 * Math.SQRT2 + 1e-9);
    expect(offs.filter((off) => Math.abs(off - 6) < 1e-9).length).toBeGreaterThan(40);
    // Left of a line that goes east is north.
    expect(offsetPoints([{ e: 0, n: 0 }, { e: 10, n: 0 }], 2)[0]!.n).toBeCloseTo(2, 12); // prettier-ignore
  });

  it('a laneway is as wide as it was asked, at its bends too', () => {
    let ids: string[] = [];
    const p = changed((d) => {
      ids = addLaneway(d, [{ e: 300, n: 0 }, { e: 400, n: 0 }, { e: 460, n: 90 }], 6); // prettier-ignore
    });
    const [left, right] = ids.map((id) => p.lines[id]!);
    for (let s = 5; s < planLength(left!) - 10; s += 5)
      expect(nearest(right!.vertices, pointAt(left!.vertices, s)).off).toBeCloseTo(6, 6);
  });
});

describe('typed and squared legs', () => {
  const [from, before] = [{ e: 10, n: 10 }, { e: 0, n: 10 }]; // prettier-ignore
  it.each([
    ['5', { e: 15, n: 10 }],
    ['5 r', { e: 10, n: 5 }],
    ['5l', { e: 10, n: 15 }],
  ])('%s goes from the last leg', (text, want) => {
    const got = readTyped(text, from, 1, before);
    expect(got).toEqual({ e: expect.closeTo(want.e, 9), n: expect.closeTo(want.n, 9) });
  });
  it('needs a leg to turn from', () => {
    expect(readTyped('5 r', from, 1, null)).toContain('Draw a leg first');
  });
  it('a pointed leg is brought to the nearest right angle', () => {
    expect(squareTo(from, before, { e: 11, n: 30 })).toEqual({ e: expect.closeTo(10, 9), n: 30 });
    expect(squareTo(from, before, { e: 40, n: 13 })).toEqual({ e: 40, n: expect.closeTo(10, 9) });
  });
});

describe('heights by hand', () => {
  it('a traverse adds up distance and rise, in the unit it was typed in', () => {
    expect(readLevels('10 0.5\n20 -1', 100, 1)).toEqual([
      { at_m: 0, z_m: 100 },
      { at_m: 10, z_m: 100.5 },
      { at_m: 30, z_m: 99.5 },
    ]);
    expect(readLevels('10 1', 0, 0.3048)).toEqual([
      { at_m: 0, z_m: 0 },
      { at_m: expect.closeTo(3.048, 9), z_m: expect.closeTo(0.3048, 9) },
    ]);
  });
  it.each(['', 'x 1', '10', '10 1 2', '-3 1', '2 90', '5 NaN'])(
    'refuses %j with a reason',
    (text) => {
      expect(typeof readLevels(text, 0, 1)).toBe('string');
    },
  );
  it('rises for each leg become heights at the vertices', () => {
    expect(levelsFromRises(made().lines['a']!, 10, [1, -2, 0.5]).map((l) => l.z_m)).toEqual([
      10, 11, 9, 9.5,
    ]);
  });
});
