/** Cutting coils: what adds up, what is proven, and small cases beside every way there is. */
import { describe, expect, it } from 'vitest';
import { maximise } from '../../src/core/base/simplex.js';
import { cutCoils, type Cutting, type CuttingInputs } from '../../src/core/supplies/coils.js';
import large from '../reference/cases/coils_large.json' with { type: 'json' };
import { sequence } from './farm.js';

/** Pieces make up the runs, no coil is overdrawn, no piece is too short, and the cost is what it says. */
function sound(i: CuttingInputs, c: Cutting): void {
  const got = i.run_lengths_m.map(() => 0);
  let pieces = 0;
  for (const coil of c.plan) {
    expect(coil.reduce((sum, p) => sum + p.length_m, 0)).toBeLessThanOrEqual(
      i.coil_length_m + 1e-6,
    );
    for (const p of coil) {
      got[p.run]! += p.length_m;
      pieces++;
      expect(p.length_m).toBeGreaterThanOrEqual(Math.min(i.min_piece_m, i.run_lengths_m[p.run]!) - 1e-6); // prettier-ignore
    }
  }
  got.forEach((g, k) => expect(g).toBeCloseTo(i.run_lengths_m[k]!, 6));
  expect(c.joins).toBe(pieces - i.run_lengths_m.length);
  expect(c.cost).toBeCloseTo(c.coils * i.coil_price + c.joins * i.join_price, 6);
  expect(c.cost).toBeGreaterThanOrEqual(c.lower_bound - 1e-6);
}

/** The least cost of all orders of all groupings, laid end to end with no shortest piece. */
function byHand({
  run_lengths_m: runs,
  coil_length_m: coil,
  coil_price,
  join_price,
}: CuttingInputs): number {
  let best = Infinity;
  const place = (k: number, groups: number[]) => {
    if (k === runs.length) {
      const coils = groups.map((sum) => Math.ceil(sum / coil - 1e-9));
      const cost = coils.reduce((sum, c) => sum + c * coil_price + (c - 1) * join_price, 0);
      best = Math.min(best, cost);
      return;
    }
    groups.forEach((sum, g) =>
      place(
        k + 1,
        groups.map((s, h) => (h === g ? sum + runs[k]! : s)),
      ),
    );
    place(k + 1, [...groups, runs[k]!]);
  };
  place(0, []);
  return best;
}

describe('cutting coils', () => {
  it('small ones cost what the best of all ways costs, and are proven to', () => {
    const random = sequence(31);
    for (let trial = 0; trial < 40; trial++) {
      const i = {
        run_lengths_m: Array.from({ length: 2 + Math.floor(6 * random()) }, () => Math.round(10 * (20 + 900 * random())) / 10), // prettier-ignore
        coil_length_m: 1000,
        coil_price: 100,
        join_price: 1 + Math.floor(150 * random()),
        min_piece_m: 0,
      };
      const c = cutCoils(i);
      sound(i, c);
      expect(c.cost).toBeCloseTo(byHand(i), 6);
      expect(c.lower_bound).toBeCloseTo(c.cost, 6);
    }
  }, 30_000);

  it('any others are sound, and never under their bound', () => {
    const random = sequence(8);
    for (let trial = 0; trial < 25; trial++) {
      const coil = 200 + Math.floor(1300 * random());
      const i = {
        run_lengths_m: Array.from({ length: 14 + Math.floor(50 * random()) }, () => Math.round(10 * (5 + 1.3 * coil * random() ** 2)) / 10), // prettier-ignore
        coil_length_m: coil,
        coil_price: 50 + 100 * random(),
        join_price: 10 * random(),
        min_piece_m: Math.floor(30 * random()),
      };
      sound(i, cutCoils(i, 40));
    }
  }, 60_000);

  it('400 runs within 1 % of the bound; the reference case of that size', () => {
    const { inputs, expected } = large.cases[0]!;
    const c = cutCoils(inputs);
    sound(inputs, c);
    expect(c.lower_bound).toBeCloseTo(expected.lower_bound, 6);
    expect(c.joins_lower_bound).toBe(expected.joins_lower_bound);
    expect(c.cost / c.lower_bound).toBeLessThan(1.01);
  }, 30_000);

  it('refuses what cannot be cut', () => {
    const i = { run_lengths_m: [100], coil_length_m: 500, coil_price: 1, join_price: 1, min_piece_m: 10 }; // prettier-ignore
    expect(() => cutCoils({ ...i, run_lengths_m: [] })).toThrow(/at least one run/);
    expect(() => cutCoils({ ...i, run_lengths_m: [0] })).toThrow(/0.1 m and more/);
    expect(() => cutCoils({ ...i, min_piece_m: 300 })).toThrow(/half a coil/);
    expect(() => cutCoils({ ...i, coil_price: -1 })).toThrow(/0 and more/);
    expect(cutCoils({ ...i, run_lengths_m: [2300] })).toMatchObject({ coils: 5, joins: 4, joins_lower_bound: 4 }); // prettier-ignore
  });
});

describe('simplex', () => {
  it('comes to the corner that is best, also where many meet in one', () => {
    // 3x + 2y with x + y + s = 4, x + 3y + t = 6, x + u = 3: at (3, 1).
    const columns = [[1, 1, 1], [1, 3, 0], [1, 0, 0], [0, 1, 0], [0, 0, 1]]; // prettier-ignore
    expect(maximise({ columns, worth: [3, 2, 0, 0, 0], right: [4, 6, 3], basis: [2, 3, 4] })).toBeCloseTo(11, 9); // prettier-ignore
    // An example that goes round in circles by the plain rule (published: Beale 1955).
    const beale = [[0.25, 0.5, 0], [-60, -90, 0], [-1 / 25, -1 / 50, 1], [9, 3, 0], [1, 0, 0], [0, 1, 0], [0, 0, 1]]; // prettier-ignore
    expect(maximise({ columns: beale, worth: [0.75, -150, 0.02, -6, 0, 0, 0], right: [0, 0, 1], basis: [4, 5, 6] })).toBeCloseTo(0.05, 9); // prettier-ignore
  });
  it('is never beaten by a point that was found by chance', () => {
    const random = sequence(2);
    for (let trial = 0; trial < 30; trial++) {
      const A = Array.from({ length: 3 }, () => Array.from({ length: 4 }, () => random()));
      const worth = Array.from({ length: 4 }, () => random());
      const columns = [...worth.map((_, c) => A.map((row) => row[c]!)), [1, 0, 0], [0, 1, 0], [0, 0, 1]]; // prettier-ignore
      const most = maximise({ columns, worth: [...worth, 0, 0, 0], right: [1, 1, 1], basis: [4, 5, 6] }); // prettier-ignore
      for (let k = 0; k < 300; k++) {
        const x = worth.map(() => random());
        const by = 1 / Math.max(...A.map((row) => row.reduce((sum, v, c) => sum + v * x[c]!, 0)));
        expect(worth.reduce((sum, v, c) => sum + v * x[c]! * by, 0)).toBeLessThanOrEqual(most + 1e-9); // prettier-ignore
      }
    }
  });
  it('says where there is no most', () => {
    expect(() => maximise({ columns: [[-1], [1]], worth: [1, 0], right: [1], basis: [1] })).toThrow(/no most/); // prettier-ignore
  });
});
