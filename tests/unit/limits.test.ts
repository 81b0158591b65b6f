import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { limitsAt } from '../../src/core/plan/limits.js';
import { PlanSchema } from '../../src/core/plan/schema.js';
import { fits } from '../../src/formats/validate.js';
import { energiser, line, plan } from './scene.js';

describe('limits of the plan', () => {
  it('are those that the door holds to', () => {
    const of = (rods: number) => plan([line('a', [[0, 0], [9, 0]])], { energisers: { unit: energiser('a', 0, { rods }) } }); // prettier-ignore
    const { min, max, whole } = limitsAt('energisers/*/rods');
    expect(whole).toBe(true);
    for (const [rods, good] of [
      [min, true],
      [max, true],
      [min - 1, false],
      [max + 1, false],
      [min + 0.5, false],
    ] as const)
      // prettier-ignore
      expect(fits(PlanSchema, of(rods)), String(rods)).toBe(good);
  });

  it('are found in tables, lists and choices; a place without a number is refused', () => {
    expect(limitsAt('lines/*/maxBay_m')).toEqual({ min: 0.5, max: 100, whole: false });
    expect(limitsAt('lines/*/strands/*/height_m')).toMatchObject({ min: 0.02, max: 3.5 });
    expect(limitsAt('paddocks/*/stock/*')).toMatchObject({ min: 0, whole: true });
    expect(limitsAt('gates/*/at_m')).toMatchObject({ min: 0, max: Infinity });
    expect(() => limitsAt('lines/*/name')).toThrow('no number there');
    expect(() => limitsAt('nowhere/at/all')).toThrow('no number there');
  });

  it('every field that names a place names one that there is', () => {
    const named = readdirSync('src/views', { recursive: true, encoding: 'utf8' })
      .filter((name) => name.endsWith('.tsx'))
      .flatMap((name) => [...readFileSync(`src/views/${name}`, 'utf8').matchAll(/\bat="([^"]+)"/g)])
      .map((m) => m[1]!);
    expect(named.length).toBeGreaterThan(12);
    for (const path of named) expect(() => limitsAt(path), path).not.toThrow();
  });
});
