/** The calculators of wire, span and run. Keys carry their units. */
import { Type } from './base/type.js';
import { any, calculator, notNegative, positive, type Calculator } from './calculator.js';
import { stateChangeExact } from './wire/elastic.js';
import { wireProperties } from './wire/properties.js';
import { lateralPull, lateralPullInverse, wave } from './wire/pull.js';
import { runCase } from './wire/runCase.js';
import { sagFromEndTension, sagFromH } from './wire/span.js';
import { ruledChange, stateChange } from './wire/temperature.js';

const span = { span_m: positive, rise_m: any, wire_weight_N_per_m: positive };
const warmer = Type.Number({ minimum: -300, maximum: 1000 });
const steel = { wire_weight_N_per_m: positive, EA_N: positive, alpha_per_K: positive };
const pulled = {
  span_m: positive,
  deflection_m: positive,
  EA_N: positive,
  wire_length_m: positive,
  spring_N_per_m: Type.Optional(positive),
};

export const wire: Readonly<Record<string, Calculator>> = {
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
      delta_theta_K: warmer,
      ...steel,
      wire_length_m: Type.Optional(positive),
      spring_N_per_m: Type.Optional(positive),
    }),
    stateChange,
  ),
  state_change_exact: calculator(
    'The same change for one span by the elastic catenary, exactly',
    Type.Object({
      ...span,
      H_1_N: positive,
      delta_theta_K: warmer,
      EA_N: positive,
      alpha_per_K: positive,
    }),
    stateChangeExact,
  ),
  ruling_span: calculator(
    'Several spans of one wire after a change of temperature, over their ruling span',
    Type.Object({
      tension_1_N: positive,
      spans_m: Type.Array(positive, { minItems: 1, maxItems: 20_000 }),
      delta_theta_K: warmer,
      ...steel,
    }),
    ruledChange,
  ),
  lateral_pull: calculator(
    'Force at mid-bay that moves a strand sideways by so much',
    Type.Object({ ...pulled, tension_N: positive }),
    lateralPull,
  ),
  lateral_pull_inverse: calculator(
    'Tension of a strand from a pull at mid-bay and what it moved, corrected for stretch',
    Type.Object({ ...pulled, force_N: positive }),
    lateralPullInverse,
  ),
  wave: calculator(
    'Tension from the time of some returns of a pulse over a length of wire',
    Type.Object({
      mass_kg_per_m: positive,
      returns: Type.Integer({ minimum: 1, maximum: 1000 }),
      length_m: positive,
      time_s: positive,
      target_N: Type.Optional(positive),
    }),
    wave,
  ),
  run: calculator(
    'Tension of every span of a run: friction at its supports, the place of its tensioner, temperature',
    Type.Object({
      attachments_xyz_m: Type.Array(Type.Tuple([any, any, any]), { minItems: 2, maxItems: 5000 }),
      tensioner_chainage_m: notNegative,
      mu: Type.Number({ minimum: 0, maximum: 5 }),
      drag_N_per_post: notNegative,
      tension_applied_N: positive,
      hand_tension_N: positive,
      spool_diameter_m: positive,
      spool_turns_per_layer: Type.Optional(Type.Integer({ minimum: 1, maximum: 10_000 })),
      wire_diameter_m: positive,
      ...steel,
      delta_theta_K: Type.Optional(warmer),
      spring_N_per_m: Type.Optional(positive),
      compare: Type.Boolean({ default: false }),
      split_at_posts: Type.Optional(
        Type.Array(Type.Integer({ minimum: 1, maximum: 5000 }), { maxItems: 1000 }),
      ),
    }),
    runCase,
  ),
};
