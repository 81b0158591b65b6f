/** The ground under a line: heights levelled by hand, and what its legs are. */
import { Type } from '../../base/type.js';
import { along, closed, metres, num } from '../../plan/schemaParts.js';

export const LevelSchema = Type.Object({ at_m: along, z_m: metres }, closed);

/** One leg between two vertices. */
export const LegSchema = Type.Object(
  { plan_m: num, ground_m: num, bearing_deg: num, rise_m: num, grade: num },
  closed,
);

export const keys = {
  plan: {
    line: {
      levels: Type.Optional(
        Type.Array(LevelSchema, {
          maxItems: 5000,
          description: 'heights levelled by hand, in order; they replace the ground along the line',
        }),
      ),
    },
    property: {},
  },
  report: {
    line: {
      plan_m: num,
      ground_m: num,
      legs: Type.Array(LegSchema),
      unknownGround: Type.Array(Type.Tuple([num, num])),
    },
    property: {},
  },
} as const;
