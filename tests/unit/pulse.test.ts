/** The pulse: closed forms, bookkeeping of energy, what the trade expects, and no cliff anywhere. */
import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { leastSquares } from '../../src/core/base/leastSquares.js';
import { solveSpd } from '../../src/core/base/spd.js';
import { earthTest, layered } from '../../src/core/earth/earthTest.js';
import { solarSupply } from '../../src/core/sizing/solar.js';
import { lineConstants } from '../../src/core/pulse/lineConstants.js';
import { energiserModel, into, MOST_CHI2, plateOf } from '../../src/core/pulse/plate.js';
import { simulate, type PulseLine, type PulseNetwork } from '../../src/core/pulse/simulate.js';
import { wireImpedance } from '../../src/core/pulse/wireImpedance.js';

/** An invented 3.5 J unit with lossy windings. */
const UNIT = { c_eq_f: 1.23e-7, n_v0_v: 9210, r_s_ohm: 52, l_s_h: 1.4e-3, r_d_ohm: 257 };
/** Five tied strands over damp soil, leaking so much a strand, S/km. */
const five = (from: string, to: string, length_m: number, leak = 1e-5, part: Partial<PulseLine> = {}): PulseLine => ({ from, to, length_m, r_ohm_per_m: 0.033, l_h_per_m: 1.49e-6, c_f_per_m: 25.8e-12, g_s_per_m: 5 * leak * 1e-3, ...part }); // prettier-ignore
const run = (lines: PulseLine[], part: Partial<PulseNetwork> = {}) =>
  simulate({ source: UNIT, at: 'out', lines, ...part }, { until_s: 3e-4, blocksReverse: true });
const worst = (lines: PulseLine[], part: Partial<PulseNetwork> = {}) =>
  run(lines, part).peak_V.reduce((a, b) => Math.min(a, b));
const at = (p: ReturnType<typeof run>, name: string) => p.peak_V[p.nodes.get(name)!]!;

describe('a unit into a resistance', () => {
  it.each([20, 50, 100, 500, 2000, 20_000])(
    'of %d ohm: closed form and steps in time agree',
    (r) => {
      for (const source of [UNIT, { ...UNIT, r_d_ohm: undefined }]) {
        const own = JSON.parse(JSON.stringify(source)) as typeof UNIT;
        const p = run([], { source: own, loads: [{ node: 'out', r_ohm: r }] });
        const form = into(own, r);
        expect(at(p, 'out') / form.peak_V).toBeCloseTo(1, 2);
        expect(p.load_J[0]! / form.energy_J).toBeGreaterThan(r > 500 ? 0.2 : 0.97);
        expect(p.load_J[0]! / form.energy_J).toBeLessThan(1.01);
        expect(form.energy_J).toBeLessThan((own.c_eq_f * own.n_v0_v ** 2) / 2);
      }
    },
  );
  it('with nothing connected stands at the capacitor’s volts', () => {
    expect(at(run([]), 'out')).toBeCloseTo(9210, 6);
    expect(into(UNIT, 1e9).peak_V / 9210).toBeCloseTo(1, 3);
  });
});

describe('the pulse on a fence', () => {
  it('gives loads no more than the unit stored, whatever the network', () => {
    const net = fc.array(fc.record({ to: fc.integer({ min: 0, max: 6 }), from: fc.integer({ min: 0, max: 6 }), m: fc.integer({ min: 30, max: 900 }) }), { minLength: 1, maxLength: 8 }); // prettier-ignore
    fc.assert(
      fc.property(net, fc.integer({ min: 50, max: 5000 }), (list, r_ohm) => {
        const lines = [five('out', 'n0', 200), ...list.filter((l) => l.from !== l.to).map((l) => five(`n${l.from}`, `n${l.to}`, l.m))]; // prettier-ignore
        const p = run(lines, { loads: [{ node: 'n0', r_ohm }], earth_ohm: 10 });
        expect(p.load_J[0]).toBeGreaterThan(0);
        expect(p.load_J[0]).toBeLessThan((UNIT.c_eq_f * UNIT.n_v0_v ** 2) / 2);
        expect([...p.peak_V].every((v) => v >= 0 && v < 3 * UNIT.n_v0_v)).toBe(true);
      }),
      { numRuns: 25 },
    );
  });

  it('is the same fence in one piece or in many', () => {
    const whole = run([five('out', 'f', 1000)]);
    const cut = [0, 1, 2, 3, 4, 5, 6, 7].map((k) => five(k === 0 ? 'out' : `c${k}`, k === 7 ? 'f' : `c${k + 1}`, 125)); // prettier-ignore
    expect(at(run(cut), 'f') / at(whole, 'f')).toBeCloseTo(1, 6);
    // A piece too short for a cell of its own still counts with its capacitance.
    const short = run([five('out', 'a', 500), five('a', 'b', 4), five('b', 'f', 496)]);
    expect(Math.abs(at(short, 'f') / at(whole, 'f') - 1)).toBeLessThan(0.005);
  });

  it('jumps nowhere: a metre more of fence changes no volts by more than two per cent', () => {
    for (let m = 8; m < 130; m += 1) {
      const of = (length: number) => worst([five('out', 'a', 600), five('a', 'b', length), five('a', 'c', 300)]); // prettier-ignore
      expect(Math.abs(of(m + 1) / of(m) - 1), `${m} m`).toBeLessThan(0.02);
    }
  });

  it('never gains by growth, nor loses by thicker wire', () => {
    for (const arms of [1, 3, 6]) {
      const of = (leak: number, r: number) => worst(Array.from({ length: arms }, (_, k) => five('out', `f${k}`, 700, leak, { r_ohm_per_m: r }))); // prettier-ignore
      const grown = [1e-5, 1e-4, 2e-4, 6e-4, 2e-3].map((leak) => of(leak, 0.033));
      grown.slice(1).forEach((v, i) => expect(v).toBeLessThanOrEqual(grown[i]! * 1.0001));
      const wires = [0.02, 0.033, 0.06].map((r) => of(1e-4, r));
      wires.slice(1).forEach((v, i) => expect(v).toBeLessThanOrEqual(wires[i]! * 1.0001));
    }
  });

  it('is lowered by the wires’ own capacitance, and not by a cliff (independent simulation, reference set)', () => {
    // The same unit and five strands, dry: three arms of 1 km, eight of 0.6 and of 1 km.
    const arms = (n: number, m: number) => worst(Array.from({ length: n }, (_, k) => five('out', `f${k}`, m))); // prettier-ignore
    const [three, small, eight] = [arms(3, 1000), arms(8, 600), arms(8, 1000)];
    expect(three).toBeGreaterThan(small);
    expect(small).toBeGreaterThan(eight);
    expect(Math.abs(arms(1, 1340) / arms(1, 1300) - 1)).toBeLessThan(0.02);
    // 206 nF of wire on 123 nF of unit: well under half of the open volts.
    expect(eight).toBeLessThan(0.55 * UNIT.n_v0_v);
  });

  it('1 J for each 1.6 km of five strands leaves about 4 kV in the kept-cut wet season (common practice)', () => {
    const wet = run(Array.from({ length: 4 }, (_, k) => five('out', `f${k}`, 1400, 2e-4)));
    const middle = [...wet.peak_V].sort((a, b) => a - b)[wet.peak_V.length >> 1]!;
    expect(middle).toBeGreaterThan(3700);
    expect(middle).toBeLessThan(5000);
  });

  it('refuses figures that are none, and what would never end', () => {
    expect(() => run([five('out', 'f', 0)])).toThrow(/length_m/);
    expect(() => run([], { source: { ...UNIT, l_s_h: 0 } })).toThrow(/l_s_h/);
    expect(() => run([], { loads: [{ node: 'out', r_ohm: -1 }] })).toThrow(/loads\/0/);
    expect(() => simulate({ source: UNIT, at: 'out', lines: [five('out', 'f', 5e6)] }, { until_s: 0.1 })).toThrow(/too many/); // prettier-ignore
  });
});

describe('a plate', () => {
  it('gives back the circuit that it was made from, within what a plate determines', () => {
    const made = { c_eq_f: 6e-8, n_v0_v: 8400, r_s_ohm: 70, l_s_h: 1.6e-3, r_d_ohm: 1.7 * Math.sqrt((2 * 1.6e-3) / 6e-8) }; // prettier-ignore
    const plate = plateOf(made);
    const fit = energiserModel(plate);
    expect(fit.chi2).toBeLessThan(0.1);
    expect(fit.c_eq_f / made.c_eq_f).toBeCloseTo(1, 1);
    expect(into(fit, 300).peak_V / into(made, 300).peak_V).toBeCloseTo(1, 2);
  });
  it('that no circuit has is told by its misfit', () => {
    const fit = energiserModel({
      stored_j: 5,
      v_open_v: 9000,
      v_500_ohm_v: 8900,
      v_100_ohm_v: 1200,
    });
    expect(fit.chi2).toBeGreaterThan(MOST_CHI2);
  });
});

describe('constants of a line', () => {
  it('of one wire is Z = 60 ln(2h/a) (published: any text on transmission lines)', () => {
    const { z0_ohm } = lineConstants({ wire_diameter_mm: 2.5, heights_m: [0.9] });
    expect(z0_ohm).toBeCloseTo(59.96 * Math.log((2 * 0.9) / 0.00125), 0);
  });
  it('falls in impedance with each wire, and with earthed ones between', () => {
    const z = (heights_m: number[], earth_heights_m: number[] = []) => lineConstants({ wire_diameter_mm: 2.5, heights_m, earth_heights_m }).z0_ohm; // prettier-ignore
    expect(z([0.5, 0.9])).toBeLessThan(z([0.9]));
    expect(z([0.15, 0.45, 0.9], [0.3, 0.65])).toBeLessThan(z([0.15, 0.45, 0.9]));
  });
  it.each([[[], 'one live wire'], [[0.001], 'clear of the ground'], [[0.5, 0.501], 'touch']])('refuses %j', (heights_m, words) => {
    expect(() => lineConstants({ wire_diameter_mm: 2.5, heights_m })).toThrow(words);
  }); // prettier-ignore
  it('of the wire itself rises as the root of the frequency where the skin is thin', () => {
    const r = (frequency_hz: number) => wireImpedance({ wire_diameter_mm: 2.5, zinc_thickness_um: 0, rho_steel_ohm_m: 1.8e-7, mu_r_steel: 200, rho_zinc_ohm_m: 5.9e-8, frequency_hz }).r_ohm_per_km; // prettier-ignore
    expect(r(4e6) / r(1e6)).toBeCloseTo(2, 1);
    expect(r(1)).toBeCloseTo(r(0), 3);
    expect(() => wireImpedance({ wire_diameter_mm: 0.1, zinc_thickness_um: 60, rho_steel_ohm_m: 1.8e-7, mu_r_steel: 200, rho_zinc_ohm_m: 5.9e-8, frequency_hz: 1 })).toThrow(/thicker/); // prettier-ignore
  });
});

describe('earth and sun', () => {
  it('a rod in one soil meets that soil; a dry top counts by its share', () => {
    expect(layered(2, 80, 80, 0.6)).toBeCloseTo(80, 12);
    expect(layered(2, 1e9, 80, 0.6)).toBeCloseTo((2 / 1.4) * 80, 3);
    expect(layered(0.5, 200, 80, 0.6)).toBeCloseTo(200, 9);
  });
  it('the reading is less than the rise, and more the further the probe', () => {
    const of = (d: number) => earthTest({ rods_m: [[0, 0], [3, 0]], rod_length_m: 2, rod_diameter_m: 0.016, rho_dry_ohm_m: 200, rho_damp_ohm_m: 80, dry_depth_m: 0.6, probe_m: [3 + d, 0], current_a: 20 }); // prettier-ignore
    expect(of(1).reading_v).toBeLessThan(of(1).rise_v);
    expect(of(5).reading_v).toBeGreaterThan(of(1).reading_v);
    expect(of(5000).reading_v / of(1).rise_v).toBeCloseTo(1, 2);
    expect(() => of(0)).toThrow(/stands on a rod/);
  });
  it('a battery without sun lasts as many days as it was chosen for', () => {
    const base = { stored_J: 2, pulses_per_min: 40, efficiency: 0.6, standby_W: 0.15, battery_V: 12, usable_share: 0.5, panel_W: 50, panel_share: 0.65, days_of_cloud: 5, month_sun_h: Array<number>(12).fill(2), start_share: 1 }; // prettier-ignore
    const need = solarSupply({ ...base, battery_Ah: 1, sun_h_by_day: [] }).battery_needed_Ah;
    const days = solarSupply({ ...base, battery_Ah: need * 1.001, sun_h_by_day: Array<number>(8).fill(0) }); // prettier-ignore
    expect(days).toMatchObject({ first_flat_day: 5, flat_days: 3 });
  });
});

describe('least squares and dense systems', () => {
  it('find a known curve from its points, and stay within bounds', () => {
    const x = [0, 1, 2, 3, 4];
    const fit = leastSquares((p) => x.map((v) => p[0]! * Math.exp(-p[1]! * v) - 3 * Math.exp(-0.5 * v)), [1, 1], [[0, 10], [0, 5]]); // prettier-ignore
    expect(fit.x[0]).toBeCloseTo(3, 5);
    expect(fit.x[1]).toBeCloseTo(0.5, 5);
    expect(leastSquares((p) => [p[0]! - 7], [1], [[0, 5]]).x[0]).toBeCloseTo(5, 9);
    // What stands at its bound does not lead the others astray: with x held at 1 the best y is 2.
    let asked = 0;
    const held = leastSquares(([a, b]) => (asked++, [a! - 9, 10 * (a! + b! - 3)]), [0, 0], [[-1, 1], [-9, 9]]); // prettier-ignore
    expect(held.x[0]).toBeCloseTo(1, 9);
    expect(held.x[1]).toBeCloseTo(2, 6);
    expect(asked).toBeLessThan(60);
  });
  it('refuse what is not positive definite', () => {
    expect(solveSpd([[4, 1], [1, 3]], [1, 2])).toEqual([expect.closeTo(1 / 11), expect.closeTo(7 / 11)]); // prettier-ignore
    expect(() =>
      solveSpd(
        [
          [1, 2],
          [2, 1],
        ],
        [1, 1],
      ),
    ).toThrow(/positive definite/);
  });
});
