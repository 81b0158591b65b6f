/** Fitting a property's figures to what was read: seeded readings with noise of fences whose figures are known. */
import { describe, expect, it } from 'vitest';
import { normal } from '../../src/core/base/random.js';
import { calibrate, type Measured, type Unknown } from '../../src/core/faults/calibrate.js';
import { solveFence, type FenceResistiveInputs } from '../../src/core/power/network.js';
import farm from '../reference/cases/fault_location.json' with { type: 'json' };

const { network } = farm.cases[0]!.inputs as unknown as { network: FenceResistiveInputs };
const PLACES = ['A', 'C', 'F', 'M', 'P', 'Q'];
/** Leakage as a multiple, earth, wire as a multiple. */
const unknowns: readonly Unknown[] = [
  { usual: 1, spread: 0.8 },
  { usual: 8, spread: 0.5 },
  { usual: 1, spread: 0.1 },
];
/** Volts at the places, and of the earth terminal. */
function expected([leak, earth, wire]: readonly number[]): number[] {
  const solved = solveFence({
    ...network,
    r_earth_ohm: earth!,
    strand_types: Object.fromEntries(Object.entries(network.strand_types).map(([k, t]) => [k, { ...t, g_s_per_km: t.g_s_per_km * leak!, r_ohm_per_km: t.r_ohm_per_km * wire! }])), // prettier-ignore
  });
  const at = (place: string) => solved.nodes.find((n) => n.location === place)!.v_v!;
  return [...PLACES.map(at), -solved.v_earth_terminal_v];
}
const [rel, floor] = [0.03, 60];
/** A round of readings, twice. */
const rounds = (truth: readonly number[], bell: () => number): Measured[] =>
  [...expected(truth), ...expected(truth)].map((mu) => ({ value: mu + Math.hypot(rel * mu, floor) * bell(), rel, floor })); // prettier-ignore
const twice = (values: readonly number[]) => [...expected(values), ...expected(values)];

describe('calibration', () => {
  it('holds the true leakage, earth and wire in its 90 % in 85 to 95 of 100 runs', () => {
    const bell = normal(6);
    const held = [0, 0, 0];
    for (let run = 0; run < 100; run++) {
      const truth = unknowns.map((u) => u.usual * Math.exp(u.spread * bell()));
      const { low90, high90 } = calibrate(unknowns, twice, rounds(truth, bell));
      truth.forEach((v, k) => {
        if (low90[k]! <= v && v <= high90[k]!) held[k]!++;
      });
    }
    for (const n of held) {
      expect(n, String(held)).toBeGreaterThanOrEqual(85);
      expect(n, String(held)).toBeLessThanOrEqual(95);
    }
  });

  it('names a reading that fits none of the rest, and is not moved by it', () => {
    const truth = [2.5, 12, 1];
    const read = rounds(truth, normal(9)).map((m, i) => (i === 4 ? { ...m, value: m.value / 2 } : m)); // prettier-ignore
    const { values, outliers } = calibrate(unknowns, twice, read);
    expect(outliers).toEqual([4]);
    expect(values[0]! / 2.5).toBeGreaterThan(0.8);
    expect(values[0]! / 2.5).toBeLessThan(1.25);
    // Where half of them are wrong it is the model that is: few are named.
    const odd = read.map((m, i) => (i % 2 ? { ...m, value: m.value / 3 } : m));
    expect(calibrate(unknowns, twice, odd).outliers.length).toBeLessThanOrEqual(2);
  });

  it('leaves as usual what the readings say nothing of', () => {
    const { values, low90, high90 } = calibrate([{ usual: 5, spread: 0.4 }], () => [100], [{ value: 101, rel: 0.03, floor: 1 }]); // prettier-ignore
    expect(values[0]).toBeCloseTo(5, 6);
    // 5 times or by e^(1.645 x 0.4) = 1.93, by hand.
    expect(high90[0]! / 5).toBeCloseTo(1.93, 2);
    expect(5 / low90[0]!).toBeCloseTo(1.93, 2);
  });

  it('wants a reading, and figures above 0', () => {
    expect(() => calibrate(unknowns, expected, [])).toThrow('no reading');
    expect(() => calibrate([{ usual: 0, spread: 1 }], () => [1], [{ value: 1, rel: 0, floor: 1 }])).toThrow('above 0'); // prettier-ignore
  });
});
