/** A ground over the wire: the same to the last bit, and smaller. */
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { brotliCompressSync } from 'node:zlib';
import { describe, expect, it } from 'vitest';
import type { Grid } from '../../src/core/plan/schema.js';
import { inSteps, outOfSteps } from '../../src/formats/gridSteps.js';
import { parsePlan } from '../../src/formats/planFile.js';

const demo = Object.values(parsePlan(readFileSync('demo/hollin-scar.plan.json', 'utf8')).grids)[0]!;
const sent = (grid: Grid): Grid => outOfSteps(JSON.parse(JSON.stringify(inSteps(grid))) as Grid);

describe('a ground in steps', () => {
  it('the demo, the same to the last bit and less than half of its text packed', () => {
    expect(sent(demo)).toEqual(demo);
    const packed = (of: unknown) => brotliCompressSync(JSON.stringify(of)).length;
    expect(packed(inSteps(demo))).toBeLessThan(packed(demo) / 2);
  });

  it('any heights of so many decimals, in any shape, below nought too', () => {
    const shape = fc.record({ cols: fc.integer({ min: 2, max: 7 }), rows: fc.integer({ min: 2, max: 7 }), decimals: fc.integer({ min: 0, max: 3 }) }); // prettier-ignore
    const grids = shape.chain(({ cols, rows, decimals }) =>
      fc
        .array(fc.integer({ min: -400_000, max: 8_000_000 }), { minLength: cols * rows, maxLength: cols * rows })
        .map((whole): Grid => ({ east0_m: -50, north0_m: 3.5, cell_m: 5, cols, rows, z_m: whole.map((w) => w / 10 ** decimals) })),
    ); // prettier-ignore
    fc.assert(
      fc.property(grids, (grid) => {
        expect(inSteps(grid)).toHaveProperty('steps');
        expect(sent(grid)).toEqual(grid);
      }),
    );
  });

  it('heights that are not known, or of finer decimals, go as they are', () => {
    const small = { east0_m: 0, north0_m: 0, cell_m: 1, cols: 2, rows: 2 };
    for (const z_m of [
      [1, null, 2, 3],
      [1, 2, 3, 1 / 3],
    ]) {
      // prettier-ignore
      expect(inSteps({ ...small, z_m })).toEqual({ ...small, z_m });
      expect(sent({ ...small, z_m })).toEqual({ ...small, z_m });
    }
  });
});
