/** Straight runs behind a noisy walk: made here from a known shape, so that the truth is known. */
import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { distance } from '../../src/core/plan/geometry.js';
import { simplify } from '../../src/core/plan/simplify.js';
import type { Point } from '../../src/core/plan/schema.js';
import { fitWalk, furthestOff, noiseOf, toleranceOf } from '../../src/core/plan/walkFit.js';

const SHAPE: Point[] = [[0, 0], [420, 35], [500, 300], [310, 470], [30, 380], [0, 0]].map(([e, n]) => ({ e: e!, n: n! })); // prettier-ignore

/** A walk along a shape, a point every few metres, each off by noise of this spread (Box and Muller 1958). */
function walk(shape: readonly Point[], spread: number, seed: number, step = 4.2): Point[] {
  let state = seed >>> 0;
  const uniform = () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return (state + 1) / 2 ** 32;
  };
  const normal = () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform());
  return shape.slice(1).flatMap((b, i) => {
    const a = shape[i]!;
    const n = Math.round(distance(a, b) / step);
    return Array.from({ length: n + (i === shape.length - 2 ? 1 : 0) }, (_, k) => ({
      e: a.e + ((b.e - a.e) * k) / n + spread * normal(),
      n: a.n + ((b.n - a.n) * k) / n + spread * normal(),
    }));
  });
}
const area = (p: readonly Point[]) =>
  Math.abs(p.reduce((s, a, i) => { const b = p[(i + 1) % p.length]!; return s + a.e * b.n - b.e * a.n; }, 0)) / 2; // prettier-ignore
const length = (p: readonly Point[]) => p.slice(1).reduce((s, b, i) => s + distance(p[i]!, b), 0);

describe('a noisy walk', () => {
  it.each([0.4, 1.2, 2.5])('of spread %d m is measured as that', (spread) => {
    expect(noiseOf(walk(SHAPE, spread, 7))).toBeGreaterThan(0.8 * spread);
    expect(noiseOf(walk(SHAPE, spread, 7))).toBeLessThan(1.2 * spread);
  });

  it('becomes the runs behind it: as many corners, area and length within half a per cent', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const points = walk(SHAPE, 1.2, seed);
      const fitted = fitWalk(points, toleranceOf(points));
      expect(fitted, `seed ${seed}`).toHaveLength(SHAPE.length);
      expect(distance(fitted[0]!, fitted.at(-1)!)).toBeLessThan(1e-9);
      expect(Math.abs(area(fitted) / area(SHAPE) - 1), `seed ${seed}`).toBeLessThan(0.005);
      expect(Math.abs(length(fitted) / length(SHAPE) - 1), `seed ${seed}`).toBeLessThan(0.005);
    }
  });

  it('that is exact stays as it is; short tracks and a tolerance of nothing are left alone', () => {
    const exact = walk(SHAPE, 0, 1);
    const fitted = fitWalk(exact, toleranceOf(exact));
    fitted.forEach((p, i) => expect(distance(p, SHAPE[i]!)).toBeLessThan(0.05));
    expect(fitWalk(SHAPE.slice(0, 2), 2)).toEqual(SHAPE.slice(0, 2));
    expect(fitWalk(exact, 0)).toEqual(simplify(exact, 0));
    expect(noiseOf(SHAPE)).toBe(0);
    expect(toleranceOf(SHAPE)).toBe(0.2);
  });

  it('is never left by much more than what was asked, whatever its shape', () => {
    const point = fc.record({ e: fc.integer({ min: 0, max: 400 }), n: fc.integer({ min: 0, max: 400 }) }); // prettier-ignore
    fc.assert(
      fc.property(
        fc.array(point, { minLength: 2, maxLength: 7 }),
        fc.integer({ min: 1, max: 999 }),
        (shape, seed) => {
          fc.pre(shape.every((p, i) => i === 0 || distance(p, shape[i - 1]!) > 60));
          const points = walk(shape, 1, seed);
          const tolerance = toleranceOf(points);
          const fitted = fitWalk(points, tolerance);
          expect(furthestOff(points, fitted)).toBeLessThan(4 * tolerance);
          fitted.slice(1).forEach((p, i) => expect(distance(p, fitted[i]!)).toBeGreaterThan(0.01));
        },
      ),
      { numRuns: 60 },
    );
  });
});
