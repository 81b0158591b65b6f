/** The pack as data: what its contents say of leaves, and how many sheets they take. */
import { describe, expect, it } from 'vitest';
import type { Leaf } from '../../src/views/print/leaf.js';
import { sticksOf } from '../../src/views/pack/fillings.js';
import { contentsOf, papersFor, PARTS } from '../../src/views/pack/pack.js';

const leaves = (of: string): Leaf[] => [...of].map((o, k) => ({ key: `${k}`, of: o, draw: () => o })); // prettier-ignore

describe('contents', () => {
  it('neighbours of the same line are one row; every leaf is in exactly one', () => {
    expect(contentsOf(leaves('aabccca'))).toEqual([
      { of: 'a', from: 1, to: 2 },
      { of: 'b', from: 3, to: 3 },
      { of: 'c', from: 4, to: 6 },
      { of: 'a', from: 7, to: 7 },
    ]);
    expect(contentsOf([])).toEqual([]);
  });
  it('two cards lie on a sheet, an odd one alone', () => {
    expect([0, 1, 2, 7].map((n) => papersFor('pair', n))).toEqual([0, 1, 1, 4]);
    expect(papersFor('tall', 7)).toBe(7);
  });
  it('no two parts have the same letter, and none that is read as a figure', () => {
    const letters = PARTS.map((p) => p.letter);
    expect(new Set(letters).size).toBe(letters.length);
    for (const l of letters) expect('IOQJ').not.toContain(l);
  });
});

describe('sticks', () => {
  const strands = (heights: number[], duty: 'live' | 'earth' = 'live') => heights.map((height_m) => ({ wire: 'ht25', height_m, duty, insulated: true })); // prettier-ignore
  it('lines with the same strands share one; another duty at the same height is another stick', () => {
    const sticks = sticksOf([
      { name: 'East', strands: strands([0.3, 0.6]) },
      { name: 'West', strands: strands([0.3, 0.6], 'earth') },
      { name: 'North', strands: strands([0.3, 0.6]) },
      { name: 'Bare', strands: [] },
    ]);
    expect(sticks.map((s) => s.name)).toEqual(['East, North', 'West']);
  });
});
