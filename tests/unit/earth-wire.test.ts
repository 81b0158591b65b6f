import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { rodGroup, rodsInLine, singleRod, surfaceRise } from '../../src/core/earth/rods.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import { earthing, testLoad } from '../../src/core/power/earthing.js';
import { loadLineOf } from '../../src/core/power/unit.js';
import { wireProperties } from '../../src/core/wire/properties.js';
import { sagFromEndTension, sagFromH } from '../../src/core/wire/span.js';
import { pushAside } from '../../src/core/wire/pull.js';
import { rulingSpan, stateChange } from '../../src/core/wire/temperature.js';
import { energiser } from './scene.js';

describe('earth rods', () => {
  it('one rod of 3.05 m x 15.9 mm in 100 ohm m is about 33 ohm, common practice', () => {
    expect(singleRod(100, 3.05, 0.0159)).toBeCloseTo(33, -0.5);
  });

  // Published: IEEE Std 142 multiplying factors, rods one length apart, which fit hollow squares.
  it.each([
    [4, 1.36],
    [8, 1.68],
    [12, 1.8],
    [16, 1.92],
    [20, 2.0],
  ])('%i rods in a hollow square come within 3 %% of the factor %f', (n, factor) => {
    const side = n / 4;
    const L = 3;
    const xy: [number, number][] = [];
    for (let k = 0; k < side; k++)
      xy.push([k * L, 0], [side * L, k * L], [(side - k) * L, side * L], [0, (side - k) * L]);
    const got = rodGroup({ rho_ohm_m: 100, rod_length_m: L, rod_diameter_m: 0.016, rods_xy_m: xy });
    expect(Math.abs(got.multiplying_factor / factor - 1)).toBeLessThan(0.03);
  });

  it('shares always add up, and one more rod never raises the resistance', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 20 }),
        fc.double({ min: 0.5, max: 8, noNaN: true }),
        (n, spacing) => {
          const of = (k: number) =>
            rodGroup({
              rho_ohm_m: 100,
              rod_length_m: 2,
              rod_diameter_m: 0.016,
              rods_xy_m: rodsInLine(k, spacing),
            });
          const g = of(n);
          expect(g.current_share.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
          expect(of(n + 1).r_group_ohm).toBeLessThan(g.r_group_ohm);
        },
      ),
    );
    expect(() =>
      rodGroup({
        rho_ohm_m: 1,
        rod_length_m: 1,
        rod_diameter_m: 0.01,
        rods_xy_m: [
          [0, 0],
          [0, 0],
        ],
      }),
    ).toThrow('one place');
  });

  it('soil rises towards rho I / (2 pi d) far away, published: point source on a half space', () => {
    expect(surfaceRise(100, 2, 10, 200) / ((100 * 10) / (2 * Math.PI * 200))).toBeCloseTo(1, 3);
  });

  it.each([['m1', 3], ['m35', 5], ['m5', 8]])('in clay a %s wants %d rods of 2 m, 3 m apart (common practice: the test’s own reading)', (model, rods) => {
    const line = loadLineOf(catalogue.energisers[model]!);
    const { rodsNeeded } = earthing(energiser('a', 0), catalogue.soils['clay']!, line, 0.033, catalogue); // prettier-ignore
    expect(rodsNeeded).toBe(rods);
  }); // prettier-ignore

  it('the number of rods meets the test and one fewer does not', () => {
    const line = loadLineOf(catalogue.energisers['m35']!);
    const soil = catalogue.soils['clay']!;
    const e = energiser('a', 0, { rods: 3 });
    const { rodsNeeded } = earthing(e, soil, line, 0.03, catalogue);
    expect(rodsNeeded).toBeGreaterThan(3);
    const reading = (rods: number) =>
      earthing({ ...e, rods }, soil, line, 0.03, catalogue).test.reading_V;
    expect(reading(rodsNeeded!)).toBeLessThanOrEqual(300);
    expect(reading(rodsNeeded! - 1)).toBeGreaterThan(300);
    const { test } = earthing({ ...e, rods: rodsNeeded! }, soil, line, 0.03, catalogue);
    expect(test.reading_V).toBeLessThan(test.rise_V);
    expect(test.fence_V).toBeCloseTo(2000, 3);
  });

  it('a unit too weak to hold 2 kV is tested unloaded', () => {
    expect(testLoad((r) => (1500 * r) / (r + 100), 1, 20, 2000).load_ohm).toBeNull();
  });
});

const steel = {
  density_kg_m3: 7850,
  E_GPa: 200,
  alpha_per_K: 1.15e-5,
  joint_efficiency: 1,
  coil_m: 1500,
};

describe('wire', () => {
  it('2.5 mm: 4.91 mm2, 38.5 g/m, a 1500 m coil of about 57 kg, EA 982 kN; common practice', () => {
    const w = wireProperties({ ...steel, diameter_mm: 2.5, tensile_MPa: 1200 });
    expect(w.section_mm2).toBeCloseTo(4.91, 2);
    expect(w.mass_kg_per_m).toBeCloseTo(0.0385, 4);
    expect(w.coil_mass_kg).toBeCloseTo(57.8, 1);
    expect(w.EA_N / 1000).toBeCloseTo(982, 0);
  });

  it('10 K change a tight fixed wire by about 113 N; common practice', () => {
    const w = wireProperties({ ...steel, diameter_mm: 2.5, tensile_MPa: 1200 });
    const colder = stateChange({
      tension_1_N: 1500,
      span_m: 5,
      delta_theta_K: -10,
      wire_weight_N_per_m: w.weight_N_per_m,
      EA_N: w.EA_N,
      alpha_per_K: 1.15e-5,
    });
    expect(colder.tension_2_N - 1500).toBeCloseTo(113, 0);
  });

  it('there and back again gives the first tension; a spring softens the change', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 300, max: 2500, noNaN: true }),
        fc.double({ min: 2, max: 25, noNaN: true }),
        fc.double({ min: -40, max: 40, noNaN: true }),
        (T, span_m, dTheta) => {
          const base = {
            span_m,
            wire_weight_N_per_m: 0.378,
            EA_N: 981747,
            alpha_per_K: 1.15e-5,
            wire_length_m: 100,
          };
          const there = stateChange({ ...base, tension_1_N: T, delta_theta_K: dTheta }).tension_2_N;
          const back = stateChange({
            ...base,
            tension_1_N: there,
            delta_theta_K: -dTheta,
          }).tension_2_N;
          expect(Math.abs(back / T - 1)).toBeLessThan(1e-9);
          const soft = stateChange({
            ...base,
            tension_1_N: T,
            delta_theta_K: dTheta,
            spring_N_per_m: 20000,
          }).tension_2_N;
          expect(Math.abs(soft - T)).toBeLessThanOrEqual(Math.abs(there - T) + 1e-9);
        },
      ),
    );
    expect(() =>
      stateChange({
        tension_1_N: 1,
        span_m: 1,
        delta_theta_K: 0,
        wire_weight_N_per_m: 1,
        EA_N: 1,
        alpha_per_K: 1,
        spring_N_per_m: 1,
      }),
    ).toThrow('wire_length_m');
  });

  it('exact catenary and parabola agree for a tight wire, and the end tension leads back to H', () => {
    const s = sagFromH({ H_N: 900, span_m: 12, rise_m: 1.5, wire_weight_N_per_m: 0.378 });
    expect(s.sag_mid_exact_m / s.sag_mid_parabola_m).toBeCloseTo(1, 5);
    const back = sagFromEndTension({
      tension_B_N: s.tension_B_N,
      span_m: 12,
      rise_m: 1.5,
      wire_weight_N_per_m: 0.378,
    });
    expect(back.H_N).toBeCloseTo(900, 6);
    expect(() =>
      sagFromEndTension({ tension_B_N: 1, span_m: 60, rise_m: 0, wire_weight_N_per_m: 0.378 }),
    ).toThrow('too low');
  });

  it('ruling span and push aside match the reference set', () => {
    // Source: reference kinds ruling_span (v07), lateral_pull (v09: 142.6926 N move 0.1 m).
    expect(rulingSpan([5, 5, 12, 25, 6, 5, 4])).toBeCloseTo(17.042641019, 8);
    expect(pushAside(142.692631936, 1000, 5, 981747.704247, 5)).toBeCloseTo(0.1, 8);
  });
});
