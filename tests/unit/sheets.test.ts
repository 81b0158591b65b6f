import { describe, expect, it } from 'vitest';
import {
  boxOf,
  mapSize,
  PAPERS,
  SCALES,
  scaleFor,
  sheetsOf,
  type Paper,
} from '../../src/views/print/sheets.js';

const papers = Object.keys(PAPERS) as Paper[];
const box = { west: -300, south: 100, east: 920, north: 850 };

describe('sheets of the printed map', () => {
  it.each(papers)('%s: the scale for one sheet is the largest that fits', (paper) => {
    const scale = scaleFor(box, paper);
    expect(sheetsOf(box, paper, scale)).toHaveLength(1);
    const larger = SCALES[SCALES.indexOf(scale as (typeof SCALES)[number]) - 1]!;
    expect(sheetsOf(box, paper, larger).length).toBeGreaterThan(1);
  });
  it.each(papers)(
    '%s: at any scale the sheets cover the whole, true to scale, and lap over',
    (paper) => {
      const [w, h] = mapSize(paper);
      for (const scale of [1000, 2500, 5000]) {
        const sheets = sheetsOf(box, paper, scale);
        for (const { box: b } of sheets) {
          expect(((b.east - b.west) * 1000) / scale).toBeCloseTo(w, 9);
          expect(((b.north - b.south) * 1000) / scale).toBeCloseTo(h, 9);
        }
        const outer = boxOf(sheets.flatMap(({ box: b }) => [{ e: b.west, n: b.south }, { e: b.east, n: b.north }]), 0); // prettier-ignore
        expect(outer.west).toBeLessThanOrEqual(box.west);
        expect(outer.east).toBeGreaterThanOrEqual(box.east);
        expect(outer.south).toBeLessThanOrEqual(box.south);
        expect(outer.north).toBeGreaterThanOrEqual(box.north);
        const beside = sheets.find((s) => s.col === 1 && s.row === 0);
        if (beside)
          expect(sheets[0]!.box.east - beside.box.west).toBeCloseTo((10 * scale) / 1000, 9);
      }
    },
  );
  it('an empty property has a sheet too', () => {
    expect(sheetsOf(boxOf([]), 'A4 portrait', 1000)).toHaveLength(2);
  });
});
