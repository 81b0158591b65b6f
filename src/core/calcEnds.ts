/** The single calculators of ends and of posts that nothing braces. */
import { Type } from './base/type.js';
import { calculator, notNegative, positive, type Calculator } from './calculator.js';
import { gatePost, poleEmbedment } from './ends/embedment.js';
import { doubleH, hBraceEmbedded } from './ends/frames.js';
import { diagonalStay, hBrace, nBrace, tieBack } from './ends/statics.js';

const height = Type.Number({ exclusiveMinimum: 0, maximum: 10 });
const length = Type.Number({ exclusiveMinimum: 0, maximum: 100 });
const pulled = {
  strand_heights_m: Type.Array(height, { minItems: 1, maxItems: 50 }),
  strand_tensions_N: Type.Array(notNegative, { minItems: 1, maxItems: 50 }),
};
const legs = Type.Integer({ minimum: 1, maximum: 50, default: 4 });
const brace = {
  ...pulled,
  rail_length_m: length,
  rail_height_m: height,
  wire_top_height_m: height,
  wire_foot_height_m: Type.Number({ minimum: 0, maximum: 10, default: 0.1 }),
  brace_wire_legs: legs,
  fence_height_m: Type.Number({ exclusiveMinimum: 0, maximum: 10, default: 1.1 }),
  rise_m: Type.Number({ minimum: -5, maximum: 5, default: 0 }),
};
const stiff = {
  post_EA_N: positive,
  post_EI_Nm2: positive,
  rail_EA_N: positive,
  brace_leg_EA_N: positive,
};
const bearing = {
  post_width_m: Type.Number({ exclusiveMinimum: 0, maximum: 5 }),
  lateral_bearing_kPa_per_m: Type.Number({ minimum: 0.1, maximum: 1e5 }),
  bearing_factor: Type.Number({ minimum: 1, maximum: 2, default: 1 }),
};

export const ends: Readonly<Record<string, Calculator>> = {
  h_brace: calculator(
    'Forces of a horizontal brace, all posts hinged at the ground',
    Type.Object(brace),
    hBrace,
  ),
  double_h: calculator(
    'Forces of two horizontal braces one behind the other, posts that bend, hinged at the ground',
    Type.Object({ ...brace, ...stiff }),
    doubleH,
  ),
  h_brace_embedded: calculator(
    'Forces of a horizontal brace whose posts bend and stand in springy ground',
    Type.Object({
      ...brace,
      ...stiff,
      embed_depth_m: Type.Number({ minimum: 0.1, maximum: 10 }),
      nh_N_per_m3: notNegative,
      vertical_spring_N_per_m: positive,
      embed_node_spacing_m: Type.Number({ minimum: 0.01, maximum: 1, default: 0.05 }),
      k0_N_per_m2: Type.Optional(notNegative),
    }),
    (i) => {
      if (i.embed_depth_m / i.embed_node_spacing_m > 60)
        throw new RangeError('embed_node_spacing_m: more than 60 nodes in the depth');
      if (i.nh_N_per_m3 === 0 && !i.k0_N_per_m2)
        throw new RangeError('nh_N_per_m3: ground that gives nothing holds no post');
      return hBraceEmbedded(i);
    },
  ),
  n_brace: calculator(
    'Forces of a brace with a sloping strut, for ground that freezes',
    Type.Object({
      ...pulled,
      rail_length_m: length,
      strut_top_height_m: height,
      strut_foot_height_m: Type.Number({ minimum: 0, maximum: 10 }),
      brace_wire_legs: legs,
    }),
    nBrace,
  ),
  diagonal_stay: calculator(
    'Forces of an end post with a strut to a block or a picket',
    Type.Object({ ...pulled, stay_height_m: height, stay_foot_distance_m: length }),
    diagonalStay,
  ),
  tie_back: calculator(
    'Forces of an end post with a guy to a buried log, and what the log holds',
    Type.Object({
      ...pulled,
      guy_height_m: height,
      guy_distance_m: length,
      soil_phi_deg: Type.Number({ minimum: 0, maximum: 60 }),
      soil_gamma_kN_m3: Type.Number({ exclusiveMinimum: 0, maximum: 30 }),
      deadman_width_m: length,
      deadman_top_depth_m: Type.Number({ minimum: 0, maximum: 10 }),
      deadman_bottom_depth_m: Type.Number({ exclusiveMinimum: 0, maximum: 10 }),
      deadman_length_m: length,
    }),
    tieBack,
  ),
  pole_embedment: calculator(
    'Depth of a post that nothing holds at the ground, by the building code',
    Type.Object({
      lateral_load_N: positive,
      load_height_m: Type.Number({ minimum: 0, maximum: 20 }),
      ...bearing,
    }),
    poleEmbedment,
  ),
  gate_post: calculator(
    'What a gate and the fence do to a gate post, and the depths that it would want without a brace',
    Type.Object({
      ...pulled,
      gate_mass_kg: Type.Number({ minimum: 0, maximum: 2000 }),
      gate_width_m: length,
      load_at_tip_kg: Type.Number({ minimum: 0, maximum: 2000, default: 0 }),
      hinge_spacing_m: height,
      ...bearing,
    }),
    gatePost,
  ),
};
