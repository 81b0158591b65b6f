/** The single calculators, by kind: what each takes, and its answer. Keys carry their units. */
import { Type } from './base/type.js';
import { building } from './calcBuild.js';
import { electric } from './calcElectric.js';
import { ends } from './calcEnds.js';
import { faults } from './calcFaults.js';
import { wire } from './calcWire.js';
import { any, calculator, name, notNegative, positive, type Calculator } from './calculator.js';
import { catalogue } from './plan/shipped.js';
import { ORDERS, propose } from './strands/proposal.js';
import { requirementOf } from './strands/requirement.js';
import { equalBays } from './posts/bays.js';
import { postForce } from './posts/forces.js';
import { place } from './posts/placement.js';
import { cutCoils } from './supplies/coils.js';
import { pullOutForce, SETTINGS, SHAFTS } from './posts/pullout.js';

const profileIds = Type.Array(
  Type.Union(Object.keys(catalogue.profiles).map((id) => Type.Literal(id))),
  { default: [], maxItems: 12 },
);

export const calculators: Readonly<Record<string, Calculator>> = {
  ...electric,
  ...ends,
  ...wire,
  ...building,
  ...faults,
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
  coils: calculator(
    'Runs of wire cut from coils so that coils and joins cost least, with a bound under which none can',
    Type.Object({
      run_lengths_m: Type.Array(Type.Number({ minimum: 0.1, maximum: 20_000 }), {
        minItems: 1,
        maxItems: 1000,
      }),
      coil_length_m: Type.Number({ minimum: 1, maximum: 10_000 }),
      coil_price: notNegative,
      join_price: notNegative,
      min_piece_m: Type.Number({ minimum: 0, maximum: 5000, default: 0 }),
    }),
    (i) => {
      const { plan, cost, waste_m, ...found } = cutCoils(i);
      return {
        ...found,
        optimal_cost: cost,
        proven_optimal: cost <= found.lower_bound + 1e-6,
        waste_total_m: waste_m,
        plan,
      };
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
