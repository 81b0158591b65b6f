/** The hand on the bench: heights that pass one another, labels that make room. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { moved } from '../../src/views/strands/moves.js';
import { silhouetteOf } from '../../src/views/strands/outlines.js';
import { spread } from '../../src/views/strands/spread.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import { strands } from './scene.js';

describe('a strand that is moved', () => {
  it('stays in order and 10 mm off the others, wherever it is put', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 3, max: 300 }), { minLength: 1, maxLength: 12 }),
        fc.nat(),
        fc.double({ min: -1, max: 5, noNaN: true }),
        (cm, pick, height) => {
          const own = strands([...cm].sort((a, b) => a - b).map((h) => h / 100));
          const i = pick % own.length;
          const next = moved(own, i, height);
          expect(next.strands).toHaveLength(own.length);
          next.strands.slice(1).forEach((s, k) => {
            expect(s.height_m - next.strands[k]!.height_m).toBeGreaterThan(0.0099);
          });
          expect(next.strands[next.at]!.height_m).toBeGreaterThanOrEqual(0.02);
          expect(next.strands[next.at]!.height_m).toBeLessThanOrEqual(3.5);
        },
      ),
    );
  });

  it('passes another and says where it then stands', () => {
    const next = moved(strands([0.2, 0.4, 0.6]), 0, 0.5);
    expect(next.strands.map((s) => s.height_m)).toEqual([0.4, 0.5, 0.6]);
    expect(next.at).toBe(1);
  });

  it('comes to rest beside a height that is taken', () => {
    const next = moved(strands([0.2, 0.4]), 0, 0.4);
    expect(Math.abs(next.strands[next.at]!.height_m - 0.4)).toBeCloseTo(0.01, 9);
  });
});

describe('labels', () => {
  it('keep their distance and their order, and stay put where there is room', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 400, noNaN: true }), { minLength: 1, maxLength: 12 }),
        fc.double({ min: 4, max: 24, noNaN: true }),
        (list, least) => {
          const wanted = [...list].sort((a, b) => a - b);
          const got = spread(wanted, least);
          expect(got).toHaveLength(wanted.length);
          got.slice(1).forEach((y, k) => expect(y - got[k]!).toBeGreaterThan(least - 1e-6));
        },
      ),
    );
    expect(spread([0, 50, 100], 16)).toEqual([0, 50, 100]);
    expect(spread([10, 10], 16)).toEqual([2, 18]);
  });
});

describe('animals beside the fence', () => {
  it('stand on the ground, as high at the shoulder as the catalogue says', () => {
    for (const [id, animal] of Object.entries(catalogue.animals)) {
      for (const shoulder of [animal.shoulder_m, animal.young_m]) {
        const s = silhouetteOf(id, shoulder);
        const trunk = Math.max(...s.shapes[0]!.map(([, y]) => y));
        expect(trunk).toBeGreaterThan(0.98 * shoulder);
        expect(trunk).toBeLessThan(1.04 * shoulder);
        expect(Math.min(...s.legs.flat().map(([, y]) => y))).toBe(0);
        // Longer than tall, and no longer than four heights.
        expect(s.to_m - s.from_m).toBeGreaterThan(shoulder);
        expect(s.to_m - s.from_m).toBeLessThan(4 * shoulder);
      }
    }
  });

  it('there is one for every profile', () => {
    for (const p of Object.values(catalogue.profiles))
      expect(Object.keys(catalogue.animals)).toContain(p.animal);
  });
});
