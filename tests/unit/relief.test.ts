/** Pictures of the ground, and grids from points, on ground that a formula gives. */
import { describe, expect, it } from 'vitest';
import type { Grid } from '../../src/core/plan/schema.js';
import { gridFromSpots } from '../../src/core/terrain/gridding.js';
import {
  contourInterval,
  contourLines,
  heightRange,
  hillShade,
} from '../../src/core/terrain/relief.js';

const grid = (cols: number, rows: number, z: (i: number, j: number) => number | null): Grid => ({
  east0_m: 100,
  north0_m: 200,
  cell_m: 2,
  cols,
  rows,
  z_m: Array.from({ length: cols * rows }, (_, k) => z(k % cols, Math.floor(k / cols))),
});

describe('contours', () => {
  it('stand at 1, 2 or 5 times a power of ten', () => {
    expect([24, 25, 48, 49, 120, 121, 240].map((rise) => contourInterval(0, rise))).toEqual([1, 2, 2, 5, 5, 10, 10]); // prettier-ignore
    expect(contourInterval(0, 2.4)).toBeCloseTo(0.1, 12);
    expect(contourInterval(5, 5)).toBeGreaterThan(0);
    expect(contourInterval(0, 100, 10)).toBe(10);
  });

  it('of a slope lie where its height is theirs, from the lowest to the highest', () => {
    // 1 m a cell to the east: height 0 to 9 over 18 m.
    const lines = contourLines(grid(10, 6, (i) => i), 2); // prettier-ignore
    expect(lines.map((c) => c.z_m)).toEqual([0, 2, 4, 6, 8]);
    for (const c of lines.slice(1))
      for (const p of c.lines.flat()) expect(p.e).toBeCloseTo(100 + 2 * c.z_m, 6);
    const four = lines.find((c) => c.z_m === 4)!.lines.flat();
    expect(Math.max(...four.map((p) => p.n)) - Math.min(...four.map((p) => p.n))).toBeGreaterThan(7); // prettier-ignore
  });

  it('the range of heights leaves gaps out, and is nothing where nothing is known', () => {
    expect(heightRange(grid(3, 2, (i, j) => (i === 1 ? null : i - 5 * j)))).toEqual([-5, 2]);
    expect(heightRange(grid(2, 2, () => null))).toEqual([0, 0]);
    expect(heightRange(grid(2, 2, () => 7))).toEqual([7, 7]);
  });
});

describe('a grid from points', () => {
  const plane = (e: number, n: number) => 3 + 0.5 * e - 0.25 * n;
  const spots = (list: [number, number][]) => list.map(([e, n]) => ({ e, n, z: plane(e, n) }));

  it('of a triangle is its plane within it, rim included, and nothing beyond', () => {
    const made = gridFromSpots(spots([[0, 0], [8, 0], [0, 6]]), 2); // prettier-ignore
    expect([made.cols, made.rows, made.east0_m, made.north0_m]).toEqual([5, 4, 0, 0]);
    for (let j = 0; j < made.rows; j++)
      for (let i = 0; i < made.cols; i++) {
        const [e, n] = [2 * i, 2 * j];
        const z = made.z_m[j * made.cols + i];
        if (e / 8 + n / 6 <= 1 + 1e-9) expect(z, `${e} ${n}`).toBeCloseTo(plane(e, n), 9);
        else expect(z, `${e} ${n}`).toBeNull();
      }
  });

  it('points on one line make no ground', () => {
    expect(() => gridFromSpots(spots([[0, 0], [5, 5], [10, 10]]), 2)).toThrow(); // prettier-ignore
  });
});

describe('contours beside what is not known', () => {
  it('end there instead of running along it', () => {
    // A plane that rises to the east, unknown in its southern half.
    const half = grid(12, 12, (i, j) => (j < 6 ? null : i));
    const lines = contourLines(half, 2).flatMap((c) => c.lines);
    expect(lines.length).toBeGreaterThan(3);
    for (const l of lines)
      for (const p of l) {
        const of = Math.round(((p.e - half.east0_m) / half.cell_m) * 1000) / 1000;
        expect(Math.abs(of / 2 - Math.round(of / 2)), 'on its own height').toBeLessThan(1e-6);
      }
    // And nothing is in shade along its edge.
    const shade = hillShade(grid(12, 12, (_, j) => (j < 6 ? null : 5)));
    expect(new Set(shade)).toEqual(new Set([Math.round(255 * Math.SQRT1_2)]));
  });
});
