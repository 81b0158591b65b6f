/** The calculators of pulse, network, earth and supply, by kind. */
import { Type } from './base/type.js';
import { any, calculator, name, notNegative, positive, type Calculator } from './calculator.js';
import { earthTest } from './earth/earthTest.js';
import { rodGroup } from './earth/rods.js';
import { wenner } from './earth/wenner.js';
import { continuity } from './joins/continuity.js';
import { solveFence, type FenceResistiveInputs } from './power/network.js';
import { solarSupply } from './sizing/solar.js';
import { lineConstants } from './pulse/lineConstants.js';
import { energiserFit, energiserModel } from './pulse/plate.js';
import { simulate } from './pulse/simulate.js';
import { wireImpedance } from './pulse/wireImpedance.js';

/** A fence with its unit, as `fence_resistive` takes it. */
export const networkInputs = Type.Object({
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

/** Refuses sections of one name. */
function twice(sections: readonly { readonly id: string }[]): void {
  const ids = new Set<string>();
  for (const s of sections) {
    if (ids.has(s.id)) throw new RangeError(`sections: two are called "${s.id}"`);
    ids.add(s.id);
  }
}

/** Names in a network that point at nothing, before the solver meets them. */
export function checkNetwork(i: FenceResistiveInputs): void {
  twice(i.sections);
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

const volts = Type.Optional(positive);
const plate = {
  stored_j: positive,
  v_open_v: positive,
  v_500_ohm_v: volts,
  v_200_ohm_v: volts,
  v_100_ohm_v: volts,
  v_50_ohm_v: volts,
};
const range = Type.Tuple([positive, positive]);
const share = Type.Number({ exclusiveMinimum: 0, maximum: 1 });
const seconds = Type.Number({ exclusiveMinimum: 0, maximum: 0.1 });

export const electric: Readonly<Record<string, Calculator>> = {
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
    'Volts and amps everywhere on a fence network, resistive model',
    networkInputs,
    (i) => {
      const inputs = i as unknown as FenceResistiveInputs;
      checkNetwork(inputs);
      return solveFence(inputs);
    },
  ),
  continuity: calculator(
    'What of a fence is fed, from one side only or not at all, and what one break costs',
    Type.Object({
      strand_types: Type.Record(
        Type.String(),
        Type.Object({
          role: Type.Union([Type.Literal('hot'), Type.Literal('earth')]),
          r_ohm_per_km: Type.Optional(positive),
          g_s_per_km: Type.Optional(notNegative),
        }),
      ),
      energiser: Type.Object({
        location: name,
        hot_strands: Type.Array(name, { minItems: 1 }),
        earth_strands: Type.Array(name, { default: [] }),
      }),
      sections: networkInputs.properties.sections,
      jumpers: Type.Array(
        Type.Object({
          location: name,
          strand_a: name,
          strand_b: name,
          r_ohm: Type.Optional(positive),
        }),
        { default: [] },
      ),
      switches: Type.Array(Type.Object({ section: name, strand: name, open: Type.Boolean() }), {
        default: [],
      }),
      breaks: networkInputs.properties.breaks,
    }),
    (i) => {
      twice(i.sections);
      return continuity(i);
    },
  ),
  earth_test: calculator(
    'Reading of a probe beside earth rods that lead a current, in soil of two layers',
    Type.Object({
      rods_m: Type.Array(Type.Tuple([any, any]), { minItems: 1, maxItems: 500 }),
      rod_length_m: positive,
      rod_diameter_m: positive,
      rho_dry_ohm_m: positive,
      rho_damp_ohm_m: positive,
      dry_depth_m: notNegative,
      probe_m: Type.Tuple([any, any]),
      current_a: notNegative,
    }),
    earthTest,
  ),
  line_constants: calculator(
    'Inductance, capacitance and surge impedance of tied wires over the ground, by images',
    Type.Object({
      wire_diameter_mm: positive,
      heights_m: Type.Array(positive, { minItems: 1, maxItems: 50 }),
      earth_heights_m: Type.Array(positive, { default: [], maxItems: 50 }),
    }),
    lineConstants,
  ),
  wire_impedance: calculator(
    'Resistance and inner inductance of a zinc-coated steel wire at a frequency',
    Type.Object({
      wire_diameter_mm: positive,
      zinc_thickness_um: notNegative,
      rho_steel_ohm_m: positive,
      mu_r_steel: positive,
      rho_zinc_ohm_m: positive,
      frequency_hz: Type.Number({ minimum: 0, maximum: 1e8 }),
    }),
    wireImpedance,
  ),
  fence_transient: calculator(
    'Peak volts of one pulse on a network of lines, branches and loops included',
    Type.Object({
      energiser: Type.Object({
        c_eq_f: positive,
        n_v0_v: positive,
        r_s_ohm: notNegative,
        l_s_h: positive,
        r_d_ohm: Type.Optional(positive),
      }),
      lines: Type.Array(
        Type.Object({
          from: name,
          to: name,
          length_m: positive,
          r_ohm_per_m: notNegative,
          l_h_per_m: positive,
          c_f_per_m: positive,
          g_s_per_m: notNegative,
        }),
        { maxItems: 5000 },
      ),
      loads: Type.Array(Type.Object({ node: name, r_ohm: positive }), { default: [] }),
      probes: Type.Array(name, { default: [] }),
      source_node: Type.String({ default: 'out' }),
      r_earth_ohm: Type.Number({ minimum: 0, maximum: 1e6, default: 0 }),
      t_end_s: seconds,
      peak_window_s: Type.Optional(seconds),
      energy_window_s: Type.Optional(seconds),
      thyristor_blocks_reverse: Type.Boolean({ default: true }),
    }),
    (i) => {
      const pulse = simulate(
        { source: i.energiser, at: i.source_node, earth_ohm: i.r_earth_ohm, lines: i.lines, loads: i.loads }, // prettier-ignore
        {
          until_s: i.t_end_s,
          peaksUntil_s: i.peak_window_s ?? i.t_end_s,
          energyUntil_s: i.energy_window_s ?? i.t_end_s,
          blocksReverse: i.thyristor_blocks_reverse,
        },
      );
      const probes = i.probes.map((at) => {
        const node = pulse.nodes.get(at);
        if (node === undefined) throw new RangeError(`probes: there is no node "${at}"`);
        return [at, { v_peak_v: pulse.peak_V[node]!, t_peak_us: pulse.peak_s[node]! * 1e6 }] as const; // prettier-ignore
      });
      return {
        probes: Object.fromEntries(probes),
        load_energy_j: i.loads.map((load, k) => ({ ...load, energy_j: pulse.load_J[k]! })),
        thyristor_off_us: pulse.off_s === null ? null : pulse.off_s * 1e6,
        stored_energy_j: (i.energiser.c_eq_f * i.energiser.n_v0_v ** 2) / 2,
      };
    },
  ),
  energiser_fit: calculator(
    'The circuit without losses that comes nearest to a plate, with the spreads given',
    Type.Object({
      ...plate,
      output_into_500_ohm_j: Type.Optional(positive),
      // Four figures are sought: fewer data determine none of them.
      sigma_rel: Type.Record(Type.String(), positive, { minProperties: 4 }),
      stored_energy_is_upper_bound: Type.Boolean({ default: true }),
      bounds: Type.Object({ c_eq_f: range, n_v0_v: range, r_s_ohm: range, l_s_h: range }),
    }),
    energiserFit,
  ),
  energiser_model: calculator(
    'The circuit of a unit as a property takes it, with lossy windings, from its plate',
    Type.Object({ ...plate, rise_500_ohm_s: Type.Optional(seconds) }),
    energiserModel,
  ),
  solar_supply: calculator(
    'Battery and panel of an energiser, and its charge day by day',
    Type.Object({
      stored_J: positive,
      pulses_per_min: positive,
      efficiency: share,
      standby_W: notNegative,
      battery_V: positive,
      battery_Ah: positive,
      usable_share: share,
      panel_W: notNegative,
      panel_share: share,
      days_of_cloud: notNegative,
      month_sun_h: Type.Array(Type.Number({ exclusiveMinimum: 0, maximum: 24 }), {
        minItems: 12,
        maxItems: 12,
      }),
      start_share: Type.Number({ minimum: 0, maximum: 1, default: 1 }),
      sun_h_by_day: Type.Array(Type.Number({ minimum: 0, maximum: 24 }), { maxItems: 4000 }),
    }),
    solarSupply,
  ),
};
