/** What the strained wire does to the posts, and the gap that it leaves over the ground. */
import { Type } from '../../base/type.js';
import { closed, num, str } from '../../plan/schemaParts.js';

export const PostSchema = Type.Object(
  {
    s_m: Type.Number({ description: 'plan distance from the start' }),
    tape_m: Type.Number({ description: 'distance over ground from the start, as taped' }),
    e: num,
    n: num,
    z_m: num,
    role: Type.Union([
      Type.Literal('end'),
      Type.Literal('corner'),
      Type.Literal('bend'),
      Type.Literal('gate'),
      Type.Literal('joint'),
      Type.Literal('brace'),
      Type.Literal('line'),
    ]),
    kind: str,
    fixed: Type.Boolean({ description: 'stands here whatever the bays: end, bend, gate, pin' }),
    uplift_N: num,
    holds_N: Type.Number({ description: 'pull-out resistance, without a safety factor' }),
  },
  closed,
);

export const ClearanceSchema = Type.Object(
  {
    high: Type.Object({ gap_m: num, at_m: num }, closed),
    low: Type.Object({ gap_m: num, at_m: num }, closed),
  },
  { ...closed, description: 'largest and smallest gap under the lowest strand' },
);

export const keys = {
  plan: {
    line: {
      fill_m: Type.Optional(
        Type.Number({ minimum: 0, maximum: 2, description: 'hollows may be filled this deep' }),
      ),
    },
    property: {},
  },
  report: {
    line: {
      posts: Type.Array(PostSchema),
      clearance: Type.Union([ClearanceSchema, Type.Null()]),
      fills: Type.Array(Type.Object({ from_m: num, to_m: num, depth_m: num }, closed), {
        description: 'hollows to be filled so that the gap under the lowest strand comes right',
      }),
    },
    property: {},
  },
} as const;
