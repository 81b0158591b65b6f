/** The door of every calculator, and what its answers come to in cases that a hand can work out. */
import { describe, expect, it } from 'vitest';
import { monotoneCubic } from '../../src/core/base/interpolate.js';
import { bisect, clamp, round, sum } from '../../src/core/base/numbers.js';
import { calculators } from '../../src/core/calc.js';
import { runCase } from '../../src/server/calc.js';
import continuity from '../reference/cases/continuity.json' with { type: 'json' };
import ends from '../reference/cases/ends.json' with { type: 'json' };
import earthTest from '../reference/cases/earth_test.json' with { type: 'json' };
import plateFit from '../reference/cases/energiser_fit.json' with { type: 'json' };
import plateModel from '../reference/cases/energiser_model.json' with { type: 'json' };
import fence from '../reference/cases/fence_resistive.json' with { type: 'json' };
import transient from '../reference/cases/fence_transient.json' with { type: 'json' };
import located from '../reference/cases/fault_location.json' with { type: 'json' };
import scheduled from '../reference/cases/schedule.json' with { type: 'json' };
import solar from '../reference/cases/solar_supply.json' with { type: 'json' };

const post = { perimeter_m: 0.2, depth_m: 0.9, soil: 'firm_clay', post_mass_kg: 10 };
const placement = {
  ground_s_m: [0, 2, 4, 6],
  ground_z_m: [0, 0, 0, 0],
  strands: 4,
  tension_N: 900,
  wire_weight_N_per_m: 0.38,
  wire_height_low_m: 0.15,
  clearance_min_m: 0.03,
  clearance_max_m: 0.3,
  max_spacing_m: 4,
  safety_factor: 1.5,
  post_kinds: [{ name: 'light', price: 5, pullout_capacity_N: 900 }, { name: 'stout', price: 9, pullout_capacity_N: 4000 }], // prettier-ignore
};
const first = (file: { cases: readonly { inputs: object }[] }): object => file.cases[0]!.inputs;
/** One case for each kind that its door lets in. */
const good: Record<string, object> = {
  rod_group: { rho_ohm_m: 100, rod_length_m: 3, rod_diameter_m: 0.016, rods_xy_m: [[0, 0], [3, 0]] }, // prettier-ignore
  wenner: { spacing_m: 2, r_measured_ohm: 8 },
  fence_resistive: fence.cases[0]!.inputs,
  continuity: first(continuity),
  wire: { diameter_mm: 2.5, tensile_MPa: 1200 },
  sag_from_H: { span_m: 10, rise_m: 0, wire_weight_N_per_m: 0.38, H_N: 900 },
  sag_from_end_tension: { span_m: 10, rise_m: 0, wire_weight_N_per_m: 0.38, tension_B_N: 900 },
  state_change: { tension_1_N: 900, span_m: 10, delta_theta_K: -20, wire_weight_N_per_m: 0.38, EA_N: 982_000, alpha_per_K: 1.15e-5 }, // prettier-ignore
  post_force: { prev_xyz_m: [-5, 0, 0], post_xyz_m: [0, 0, 0], next_xyz_m: [5, 0, 0], tension_prev_N: [900], tension_next_N: [900], wire_weight_N_per_m: 0.38 }, // prettier-ignore
  pullout: post,
  make_up: { left: ['sheep'] },
  state_change_exact: { H_1_N: 400, span_m: 40, rise_m: 6, delta_theta_K: 30, wire_weight_N_per_m: 0.38, EA_N: 982_000, alpha_per_K: 1.15e-5 }, // prettier-ignore
  ruling_span: { tension_1_N: 900, spans_m: [5, 12], delta_theta_K: 30, wire_weight_N_per_m: 0.38, EA_N: 982_000, alpha_per_K: 1.15e-5 }, // prettier-ignore
  lateral_pull: { tension_N: 1000, span_m: 5, deflection_m: 0.1, EA_N: 982_000, wire_length_m: 5 },
  lateral_pull_inverse: { force_N: 100, span_m: 4, deflection_m: 0.08, EA_N: 982_000, wire_length_m: 20 }, // prettier-ignore
  wave: { mass_kg_per_m: 0.0385, returns: 5, length_m: 100, time_s: 6 },
  run: { attachments_xyz_m: [[0, 0, 1], [5, 0, 1], [10, 0, 2]], tensioner_chainage_m: 0, mu: 0.3, drag_N_per_post: 0, tension_applied_N: 1000, hand_tension_N: 50, spool_diameter_m: 0.05, wire_diameter_m: 0.0025, wire_weight_N_per_m: 0.38, EA_N: 982_000, alpha_per_K: 1.15e-5 }, // prettier-ignore
  placement,
  coils: { run_lengths_m: [312.4, 871, 140.6], coil_length_m: 1250, coil_price: 148, join_price: 5, min_piece_m: 15 }, // prettier-ignore
  equal_bays: { length_m: 30, target_m: 10 },
  earth_test: first(earthTest),
  energiser_fit: first(plateFit),
  energiser_model: first(plateModel),
  fence_transient: first(transient),
  line_constants: { wire_diameter_mm: 2.5, heights_m: [0.9] },
  solar_supply: first(solar),
  fault_location: first(located),
  schedule_cpm: first(scheduled),
  schedule: { ...first(scheduled), crew: 2 },
  wire_impedance: { wire_diameter_mm: 2.5, zinc_thickness_um: 35, rho_steel_ohm_m: 1.8e-7, mu_r_steel: 200, rho_zinc_ohm_m: 5.9e-8, frequency_hz: 5000 }, // prettier-ignore
};
const ofEnds = (kind: string): object => ends.cases.find((c) => c.kind === kind)!.inputs;
for (const { kind } of ends.cases) good[kind] = ofEnds(kind);
const ask = (kind: string, inputs: object) => runCase({ kind, inputs }).outputs as never;
/** The same inputs with something else in them. */
const but = (kind: string, part: object) => ({ ...good[kind], ...part });

describe('the doors', () => {
  it('every calculator has a case here, says what it is for, and answers', () => {
    expect(Object.keys(good).sort()).toEqual(Object.keys(calculators).sort());
    for (const [kind, { about }] of Object.entries(calculators)) {
      expect(about.length).toBeGreaterThan(20);
      expect(Object.keys(ask(kind, good[kind]!)).length).toBeGreaterThan(0);
    }
  });

  it.each(Object.keys(good))('%s wants each of its inputs, in place and kind', (kind) => {
    const schema = calculators[kind]!.inputs as unknown as {
      required?: string[];
      properties: Record<
        string,
        { exclusiveMinimum?: number; minimum?: number; default?: unknown }
      >;
    };
    for (const key of schema.required ?? []) {
      const { [key]: gone, ...rest } = good[kind] as Record<string, unknown>;
      // What has a usual value is put in.
      if (gone === undefined || schema.properties[key]!.default !== undefined) continue;
      expect(() => ask(kind, rest), `${kind} without ${key}`).toThrow(`lacks "${key}"`);
      expect(() => ask(kind, but(kind, { [key]: {} })), `${kind} with a wrong ${key}`).toThrow('/inputs'); // prettier-ignore
    }
    for (const [key, { exclusiveMinimum, minimum }] of Object.entries(schema.properties)) {
      if (exclusiveMinimum === 0)
        expect(() => ask(kind, but(kind, { [key]: 0 })), `${kind}: ${key} of 0`).toThrow('> 0');
      if (minimum !== undefined)
        expect(() => ask(kind, but(kind, { [key]: minimum - 1 })), `${kind}: ${key}`).toThrow('>=');
    }
  });

  it('what no schema can say is refused in words', () => {
    expect(() => ask('wire', { diameter_mm: 2.5 })).toThrow('one of them');
    expect(() => ask('wire', but('wire', { tensile_ksi: 170 }))).toThrow('one of them');
    expect(() => ask('make_up', {})).toThrow('name one profile');
    expect(() => ask('equal_bays', { length_m: 1e6, target_m: 1 })).toThrow('100000 bays');
    expect(() => ask('placement', but('placement', { ground_z_m: [0, 0] }))).toThrow();
    expect(() => ask('nothing', {})).toThrow('no calculator "nothing"');
    expect(() => ask('toString', {})).toThrow('no calculator');
  });

  it('a network names what points at nothing', () => {
    const net = good['fence_resistive'] as { sections: { id: string; length_m: number; strands: Record<string, string> }[] }; // prettier-ignore
    const [first] = net.sections;
    const strand = Object.keys(first!.strands)[0]!;
    const here = { section: first!.id, x_m: first!.length_m / 2, strand };
    const shunt = { ...here, to: 'ground', r_ohm: 500 };
    const of = (part: object) => () => ask('fence_resistive', but('fence_resistive', part));
    expect(of({ sections: [first, first] })).toThrow(`two are called "${first!.id}"`);
    for (const list of ['breaks', 'probes']) {
      expect(of({ [list]: [{ ...here, section: 'gone' }] })).toThrow(
        `${list}/0: no section "gone"`,
      );
      expect(of({ [list]: [here, { ...here, strand: 'gone' }] })).toThrow(`${list}/1`);
    }
    expect(of({ shunts: [{ ...shunt, section: 'gone' }] })).toThrow('shunts/0: no section');
    expect(of({ shunts: [{ ...shunt, location: 'A' }] })).toThrow('either location, or section');
    expect(of({ shunts: [{ strand, to: 'ground', r_ohm: 5 }] })).toThrow('either location');
    expect(of({ shunts: [{ section: first!.id, strand, to: 'ground', r_ohm: 5 }] })).toThrow('either location'); // prettier-ignore
  });
});

describe('by hand', () => {
  it('pull-out: shaft below the top 150 mm, its way of setting, and the weight', () => {
    const weight = 10 * 9.80665;
    const clay = 0.2 * 24_000 * (0.9 - 0.15);
    expect(ask('pullout', post)).toEqual({ pullout_N: expect.closeTo(clay + weight, 6), allowable_N: expect.closeTo((clay + weight) / 1.5, 6) }); // prettier-ignore
    expect(ask('pullout', { ...post, install: 'tamped_hole' })).toMatchObject({ pullout_N: expect.closeTo(0.6 * clay + weight, 6) }); // prettier-ignore
    const sand = (0.2 * 4480 * (0.9 ** 2 - 0.15 ** 2)) / 2;
    expect(ask('pullout', { ...post, soil: 'loose_sand', safety_factor: 2 })).toEqual({ pullout_N: expect.closeTo(sand + weight, 6), allowable_N: expect.closeTo((sand + weight) / 2, 6) }); // prettier-ignore
    expect(ask('pullout', { ...post, depth_m: 0.1 })).toMatchObject({ pullout_N: expect.closeTo(weight, 6) }); // prettier-ignore
  });

  it('placement counts the posts of each kind under the names it was given', () => {
    expect(ask('placement', placement)).toMatchObject({ feasible: true, count_light: 1, count_stout: 0, cost: 5 }); // prettier-ignore
    expect(ask('placement', but('placement', { max_spacing_m: 1 }))).toMatchObject({ feasible: false }); // prettier-ignore
  });

  it('bays: a longest bay is kept, an aim is met as near as can be', () => {
    expect(ask('equal_bays', { length_m: 30, target_m: 10 })).toEqual({ bays: 3, bay_m: 10, inner_posts: 2, stations_m: [0, 10, 20, 30] }); // prettier-ignore
    expect(ask('equal_bays', { length_m: 31, target_m: 10 })).toMatchObject({ bays: 4, bay_m: 7.75 }); // prettier-ignore
    expect(ask('equal_bays', { length_m: 31, target_m: 10, mode: 'aim' })).toMatchObject({ bays: 3 }); // prettier-ignore
    expect(ask('equal_bays', { length_m: 3, target_m: 10, mode: 'aim' })).toMatchObject({ bays: 1, inner_posts: 0 }); // prettier-ignore
    expect(ask('equal_bays', { length_m: 30.00000001, target_m: 10 })).toMatchObject({ bays: 3 });
  });

  it('soil: 2 pi a R with pins that barely touch [published: Wenner 1915]', () => {
    const { rho_simple_ohm_m: simple, rho_finite_depth_ohm_m: deep } = ask('wenner', { spacing_m: 2, r_measured_ohm: 8 }) as Record<string, number>; // prettier-ignore
    expect(simple).toBeCloseTo(2 * Math.PI * 2 * 8, 9);
    expect(deep).toBeCloseTo(simple!, 9);
    expect((ask('wenner', { spacing_m: 2, r_measured_ohm: 8, probe_depth_m: 0.3 }) as Record<string, number>)['rho_finite_depth_ohm_m']).toBeGreaterThan(simple!); // prettier-ignore
  });

  it('a make-up for each order of duties', () => {
    const orders = ask('make_up', { left: ['sheep'] }) as Record<string, { strands: { duty: string }[] }>; // prettier-ignore
    expect(Object.keys(orders)).toEqual(['live', 'turns', 'switched', 'coldTop']);
  });
});

describe('numbers', () => {
  it('are held, added, rounded and found', () => {
    expect([clamp(5, 0, 3), clamp(-5, 0, 3), clamp(2, 0, 3)]).toEqual([3, 0, 2]);
    expect([sum([]), sum([1, 2, 3])]).toEqual([0, 6]);
    expect([round(1.2345, 2), round(-1.5, 0), round(12345, -2)]).toEqual([1.23, -1, 12300]);
    expect(bisect((x) => x * x - 2, 0, 2)).toBeCloseTo(Math.SQRT2, 11);
    expect(bisect((x) => 2 - x * x, 0, 2)).toBeCloseTo(Math.SQRT2, 11);
    expect(bisect((x) => x, 0, 2)).toBe(0);
    expect(() => bisect((x) => x * x + 1, -1, 1)).toThrow('no sign change');
  });

  it('a curve runs through its points, goes on straight, and refuses points that do not rise', () => {
    const f = monotoneCubic([0, 1, 3], [0, 2, 3]);
    expect([f(0), f(1), f(3)]).toEqual([0, 2, 3]);
    expect(f(5)).toBeCloseTo(4, 12);
    expect(f(-1)).toBeCloseTo(-2, 12);
    expect(monotoneCubic([0, 2], [0, 4])(1)).toBe(2);
    // Flat on one side of a point: flat in it.
    expect(monotoneCubic([0, 1, 2, 3], [0, 0, 1, 1])(0.5)).toBe(0);
    expect(() => monotoneCubic([0], [0])).toThrow('two or more');
    expect(() => monotoneCubic([0, 1], [0])).toThrow('two or more');
    expect(() => monotoneCubic([0, 0], [0, 1])).toThrow('strictly upward');
  });
});
