/** The single calculators, by kind: what each takes, and its answer. Keys carry their units. */
import { Type, type Static, type TObject } from '@sinclair/typebox';
import { catalogue } from './plan/catalogue.js';
import { ORDERS, propose } from './strands/proposal.js';
import { requirementOf } from './strands/requirement.js';
import { rodGroup } from './earth/rods.js';
import { wenner } from './earth/wenner.js';
import { equalBays } from './posts/bays.js';
import { postForce } from './posts/forces.js';
import { place } from './posts/placement.js';
import { pullOutForce, SETTINGS, SHAFTS } from './posts/pullout.js';
import { solveFence, type FenceResistiveInputs } from './power/network.js';
import { sagFromEndTension, sagFromH } from './wire/span.js';
import { stateChange } from './wire/temperature.js';
import { wireProperties } from './wire/properties.js';

const positive = Type.Number({ exclusiveMinimum: 0, maximum: 1e12 });
const notNegative = Type.Number({ minimum: 0, maximum: 1e12 });
const any = Type.Number({ minimum: -1e9, maximum: 1e9 });
const name = Type.String({ minLength: 1, maxLength: 200 });

/** One calculator: the schema of its inputs and the function behind it. */
export interface Calculator {
  readonly about: string;
  readonly inputs: TObject;
  run(inputs: never): object;
}

function calculator<S extends TObject>(
  about: string,
  inputs: S,
  run: (inputs: Static<S>) => object,
): Calculator {
  return { about, inputs, run: run as (inputs: never) => object };
}

const span = { span_m: positive, rise_m: any, wire_weight_N_per_m: positive };

const profileIds = Type.Array(
  Type.Union(Object.keys(catalogue.profiles).map((id) => Type.Literal(id))),
  { default: [], maxItems: 12 },
);

const networkInputs = Type.Object({
  strand_types: Type.Record(
    Type.String(),
    Type.Object({
      role: Type.Union([Type.Literal('hot'), Type.Literal('earth')]),
      r_ohm_per_km: positive,
      g_s_per_km: notNegative,
    }),
  ),
  energiser: Type.Object({
    location: name,
    hot_strands: Type.Array(name, { minItems: 1 }),
    earth_strands: Type.Array(name, { default: [] }),
    lead_ohm: positive,
    load_line: Type.Object({
      v_open_v: positive,
      v_500_ohm_v: Type.Optional(positive),
      v_200_ohm_v: Type.Optional(positive),
      v_100_ohm_v: Type.Optional(positive),
      v_50_ohm_v: Type.Optional(positive),
    }),
  }),
  r_earth_ohm: positive,
  sections: Type.Array(
    Type.Object({
      id: name,
      from: name,
      to: name,
      length_m: positive,
      strands: Type.Record(Type.String(), name),
    }),
    { minItems: 1 },
  ),
  jumpers: Type.Array(
    Type.Object({ location: name, strand_a: name, strand_b: name, r_ohm: positive }),
    { default: [] },
  ),
  shunts: Type.Array(
    Type.Object({
      section: Type.Optional(name),
      x_m: Type.Optional(notNegative),
      location: Type.Optional(name),
      strand: name,
      to: name,
      r_ohm: positive,
    }),
    { default: [] },
  ),
  breaks: Type.Array(Type.Object({ section: name, x_m: positive, strand: name }), { default: [] }),
  probes: Type.Array(Type.Object({ section: name, x_m: positive, strand: name }), { default: [] }),
});

/** Names in a network that point at nothing, before the solver meets them. */
function checkNetwork(i: FenceResistiveInputs): void {
  const ids = new Set<string>();
  for (const s of i.sections) {
    if (ids.has(s.id)) throw new RangeError(`sections: two are called "${s.id}"`);
    ids.add(s.id);
  }
  i.shunts.forEach((s, k) => {
    if ((s.location === undefined) === (s.section === undefined || s.x_m === undefined)) {
      throw new RangeError(`shunts/${k}: give either location, or section and x_m`);
    }
  });
  for (const [list, what] of [
    [i.shunts, 'shunts'],
    [i.breaks, 'breaks'],
    [i.probes, 'probes'],
  ] as const) {
    list.forEach((m, k) => {
      if (m.section === undefined) return;
      const section = i.sections.find((s) => s.id === m.section);
      if (!section) throw new RangeError(`${what}/${k}: no section "${m.section}"`);
      if (!Object.hasOwn(section.strands, m.strand)) {
        throw new RangeError(`${what}/${k}: section "${m.section}" has no strand "${m.strand}"`);
      }
    });
  }
}

export const calculators: Readonly<Record<string, Calculator>> = {
  rod_group: calculator(
    'Resistance of a group of equal earth rods in uniform soil, and the share of each',
    Type.Object({
      rho_ohm_m: positive,
      rod_length_m: positive,
      rod_diameter_m: positive,
      rods_xy_m: Type.Array(Type.Tuple([any, any]), { minItems: 1, maxItems: 500 }),
    }),
    rodGroup,
  ),
  wenner: calculator(
    'Soil resistivity from four equally spaced pins',
    Type.Object({
      spacing_m: positive,
      r_measured_ohm: positive,
      probe_depth_m: Type.Number({ minimum: 0, default: 0 }),
    }),
    wenner,
  ),
  fence_resistive: calculator(
    'Volts and amps everywhere on a fence network, resistive peak model without the surge cap',
    networkInputs,
    (i) => {
      const inputs = i as unknown as FenceResistiveInputs;
      checkNetwork(inputs);
      return solveFence(inputs);
    },
  ),
  wire: calculator(
    'Section, mass, stiffness and break load of a round steel wire',
    Type.Object({
      diameter_mm: positive,
      tensile_MPa: Type.Optional(positive),
      tensile_ksi: Type.Optional(positive),
      density_kg_m3: Type.Number({ exclusiveMinimum: 0, default: 7850 }),
      E_GPa: Type.Number({ exclusiveMinimum: 0, default: 200 }),
      alpha_per_K: Type.Number({ minimum: 0, default: 1.15e-5 }),
      joint_efficiency: Type.Number({ exclusiveMinimum: 0, maximum: 1, default: 1 }),
      coil_m: Type.Number({ exclusiveMinimum: 0, default: 1500 }),
    }),
    (i) => {
      if ((i.tensile_MPa === undefined) === (i.tensile_ksi === undefined)) {
        throw new RangeError('inputs: give tensile_MPa or tensile_ksi, one of them');
      }
      return wireProperties(i);
    },
  ),
  sag_from_H: calculator(
    'Shape of one span from its horizontal tension',
    Type.Object({ ...span, H_N: positive }),
    sagFromH,
  ),
  sag_from_end_tension: calculator(
    'Shape of one span from the tension at its far end B',
    Type.Object({ ...span, tension_B_N: positive }),
    sagFromEndTension,
  ),
  state_change: calculator(
    'Tension of a fixed wire after a change of temperature, with or without a spring',
    Type.Object({
      tension_1_N: positive,
      span_m: positive,
      delta_theta_K: Type.Number({ minimum: -300, maximum: 1000 }),
      wire_weight_N_per_m: positive,
      EA_N: positive,
      alpha_per_K: positive,
      wire_length_m: Type.Optional(positive),
      spring_N_per_m: Type.Optional(positive),
    }),
    stateChange,
  ),
  post_force: calculator(
    'What the strands do to one post: the vector sum of their pulls less half their weight',
    Type.Object({
      prev_xyz_m: Type.Tuple([any, any, any]),
      post_xyz_m: Type.Tuple([any, any, any]),
      next_xyz_m: Type.Tuple([any, any, any]),
      tension_prev_N: Type.Array(notNegative, { minItems: 1, maxItems: 50 }),
      tension_next_N: Type.Array(notNegative, { minItems: 1, maxItems: 50 }),
      wire_weight_N_per_m: notNegative,
    }),
    postForce,
  ),
  pullout: calculator(
    'Pull-out resistance of one post by shaft friction and weight; soil figures are judgement',
    Type.Object({
      perimeter_m: positive,
      depth_m: positive,
      soil: Type.Union(Object.keys(SHAFTS).map((k) => Type.Literal(k))),
      install: Type.Union(
        Object.keys(SETTINGS).map((k) => Type.Literal(k)),
        { default: 'driven' },
      ),
      neglect_depth_m: Type.Number({ minimum: 0, default: 0.15 }),
      post_mass_kg: notNegative,
      safety_factor: Type.Number({ minimum: 1, default: 1.5 }),
    }),
    (i) => {
      const pullout_N = pullOutForce({ ...i, ...SHAFTS[i.soil]!, factor: SETTINGS[i.install]! });
      return { pullout_N, allowable_N: pullout_N / i.safety_factor };
    },
  ),
  make_up: calculator(
    'Strands with which a line holds its stock, for each order of duties, from the catalogue',
    Type.Object({
      left: profileIds,
      right: profileIds,
      keep_out: profileIds,
      boundary: Type.Boolean({ default: false }),
      step_over: Type.Boolean({ default: false }),
      snow: Type.Boolean({ default: false }),
      dim: Type.Boolean({ default: false }),
    }),
    (i) => {
      const need = requirementOf({ ...i, keepOut: i.keep_out, stepOver: i.step_over }, catalogue);
      if (!need) throw new RangeError('left, right, keep_out: name one profile at least');
      return Object.fromEntries(ORDERS.map((order) => [order, propose(need, order, catalogue)]));
    },
  ),
  placement: calculator(
    'Posts along a straight run that cost least within spacing, clearance and uplift',
    Type.Object({
      ground_s_m: Type.Array(any, { minItems: 2, maxItems: 20_000 }),
      ground_z_m: Type.Array(any, { minItems: 2, maxItems: 20_000 }),
      strands: Type.Integer({ minimum: 1, maximum: 50 }),
      tension_N: positive,
      wire_weight_N_per_m: positive,
      wire_height_low_m: notNegative,
      clearance_min_m: any,
      clearance_max_m: any,
      max_spacing_m: positive,
      min_spacing_m: Type.Number({ minimum: 0, default: 0 }),
      safety_factor: positive,
      post_kinds: Type.Array(
        Type.Object({ name, price: notNegative, pullout_capacity_N: notNegative }),
        { minItems: 1, maxItems: 20 },
      ),
    }),
    (i) => {
      const found = place(i);
      if (!('kinds' in found)) return found;
      // How many of each kind, under the names that the caller gave them.
      const counts = i.post_kinds.map((k) => [
        `count_${k.name}`,
        found.kinds.filter((name) => name === k.name).length,
      ]);
      return { ...found, ...(Object.fromEntries(counts) as Record<string, number>) };
    },
  ),
  equal_bays: calculator(
    'Equal division of a length into bays: a longest bay, or a bay to aim at',
    Type.Object({
      length_m: positive,
      target_m: positive,
      mode: Type.Union([Type.Literal('maximum'), Type.Literal('aim')], { default: 'maximum' }),
    }),
    (i) => equalBays(i.length_m, i.target_m, i.mode),
  ),
};
