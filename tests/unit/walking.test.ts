/** Where a receiver stands on a line, against a fine search; rings, corners, gaps, and a walk with noise from end to end. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { normal } from '../../src/core/base/random.js';
import { range } from '../../src/core/base/numbers.js';
import { fromBearing, pointAt, stations } from '../../src/core/plan/geometry.js';
import {
  nearestLine,
  nextPost,
  standAt,
  STAKE_WITHIN_M,
  tickEvery,
  wayTo,
} from '../../src/core/posts/walking.js';

type P = { e: number; n: number };
const posts = (vertices: readonly P[], every: number, rise = 1) => {
  const length = stations(vertices).at(-1)!;
  return range(Math.floor(length / every) + 1).map((k) => ({
    s_m: k * every,
    tape_m: k * every * rise,
  }));
};
const at = (p: P, within_m = 4) => ({ at: p, within_m });
const straight = [{ e: 0, n: 0 }, { e: 100, n: 0 }]; // prettier-ignore

describe('where one stands', () => {
  it('is the nearest place of the line, as a search in centimetres finds it', () => {
    const place = fc.record({
      e: fc.integer({ min: 0, max: 200 }),
      n: fc.integer({ min: 0, max: 200 }),
    });
    fc.assert(
      fc.property(fc.array(place, { minLength: 2, maxLength: 6 }), place, (vertices, p) => {
        const length = stations(vertices).at(-1)!;
        fc.pre(length > 1);
        const found = standAt({ vertices }, posts(vertices, 5), at(p, 0));
        const least = Math.min(...range(Math.ceil(length / 0.05) + 1).map((k) => {
          const q = pointAt(vertices, Math.min(length, k * 0.05));
          return Math.hypot(q.e - p.e, q.n - p.n);
        }));
        expect(Math.abs(Math.abs(found.off_m) - least)).toBeLessThan(0.03);
        const own = pointAt(vertices, found.s_m);
        expect(Math.hypot(own.e - p.e, own.n - p.n)).toBeCloseTo(Math.abs(found.off_m), 6);
      }),
      { numRuns: 60 },
    ); // prettier-ignore
  });

  it('tells right from left as one walks to the end, and how far by the tape over the ground', () => {
    const own = posts(straight, 5, 1.02);
    expect(standAt({ vertices: straight }, own, at({ e: 40, n: -3 })).off_m).toBeCloseTo(3);
    expect(standAt({ vertices: straight }, own, at({ e: 40, n: 3 })).off_m).toBeCloseTo(-3);
    const back = [...straight].reverse();
    expect(standAt({ vertices: back }, own, at({ e: 40, n: 3 })).off_m).toBeCloseTo(3);
    expect(standAt({ vertices: straight }, own, at({ e: 42.5, n: 0 })).tape_m).toBeCloseTo(
      42.5 * 1.02,
    );
  });

  it('is not on the line further off than the receiver can tell and a few steps', () => {
    const on = (n: number, within: number) => standAt({ vertices: straight }, [], at({ e: 50, n }, within)).on; // prettier-ignore
    expect([on(5, 1), on(8, 1), on(8, 4), on(11, 4), on(25, 20)]).toEqual([true, false, true, false, true]); // prettier-ignore
  });

  it('on a ring goes on from where one was: its start and its end are one place', () => {
    const ring = [{ e: 0, n: 0 }, { e: 60, n: 0 }, { e: 60, n: 60 }, { e: 0, n: 60 }, { e: 0, n: 0 }]; // prettier-ignore
    const own = posts(ring, 5);
    const near = at({ e: 0.5, n: 0.5 });
    expect(standAt({ vertices: ring }, own, near, 3).s_m).toBeLessThan(5);
    expect(standAt({ vertices: ring }, own, near, 236).s_m).toBeGreaterThan(235);
  });

  it('walked with noise of 1.5 m it never runs back or ahead by more than the noise allows, corners and ring included', () => {
    const ring = [{ e: 0, n: 0 }, { e: 80, n: 10 }, { e: 90, n: 14 }, { e: 70, n: 60 }, { e: 5, n: 58 }, { e: 0, n: 0 }]; // prettier-ignore
    const length = stations(ring).at(-1)!;
    const own = posts(ring, 5);
    const bell = normal(7);
    let before: number | null = null;
    let worst = 0;
    for (let s = 6; s < length - 6; s += 0.4) {
      const p = pointAt(ring, s);
      const now = standAt({ vertices: ring }, own, at({ e: p.e + 1.5 * bell(), n: p.n + 1.5 * bell() }, 3), before); // prettier-ignore
      before = now.s_m;
      worst = Math.max(worst, Math.abs(now.s_m - s));
    }
    // Four times the noise, and what a sharp corner swallows.
    expect(worst).toBeLessThan(9);
  });
});

describe('on to the next post', () => {
  const own = posts(straight, 5);
  const stand = (e: number, n = 0, within = 4) => standAt({ vertices: straight }, own, at({ e, n }, within)); // prettier-ignore

  it('the first ahead, none behind the last; so far on, so far back', () => {
    expect(nextPost(own, stand(42))).toBe(9);
    expect(nextPost(own, stand(100))).toBeNull();
    expect(wayTo(own[9]!, stand(42)).on_m).toBeCloseTo(3);
    expect(wayTo(own[8]!, stand(42)).on_m).toBeCloseTo(-2);
  });

  it('is here as near as the receiver can tell, never at two posts at once, and stakes only by a good one', () => {
    expect(wayTo(own[9]!, stand(43.5)).here).toBe(true);
    expect(wayTo(own[9]!, stand(42.5)).here).toBe(false);
    expect(wayTo(own[9]!, stand(45, 3)).here).toBe(false);
    for (let e = 0; e <= 100; e += 0.1) expect(own.filter((p) => wayTo(p, stand(e)).here).length).toBeLessThan(2); // prettier-ignore
    expect(wayTo(own[9]!, stand(45, 0, 4)).stake).toBe(false);
    expect(wayTo(own[9]!, stand(45, 0, STAKE_WITHIN_M)).stake).toBe(true);
    expect(wayTo(own[9]!, stand(45.2, 0, 0.02)).here).toBe(false);
  });

  it('ticks quicker the nearer, without a jump', () => {
    let last = 0;
    for (let d = 0; d < 40; d += 0.1) {
      expect(tickEvery(d)).toBeGreaterThanOrEqual(last);
      expect(tickEvery(d) - last).toBeLessThan(d === 0 ? 0.2 : 0.01);
      last = tickEvery(d);
    }
    expect(tickEvery(-3)).toBe(tickEvery(3));
    expect(tickEvery(1e6)).toBe(1.5);
  });

  it('finds the line that one stands at; one without a leg is none', () => {
    const other = { vertices: straight.map((p) => fromBearing(p, 30, 0)) };
    expect(nearestLine({ a: { vertices: straight }, b: other, c: { vertices: [{ e: 50, n: 28 }] } }, at({ e: 50, n: 28 }))).toEqual({ id: 'b', off_m: expect.closeTo(2) as number }); // prettier-ignore
    expect(nearestLine({}, at({ e: 0, n: 0 }))).toBeNull();
  });
});
