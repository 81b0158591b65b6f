/** Gates on lines. */
import { Type } from '@sinclair/typebox';
import { byId, closed, id, num, str, words } from '../../plan/schemaParts.js';

export const GateSchema = Type.Object(
  {
    id,
    name: words(80),
    line: id,
    at_m: Type.Number({ minimum: 0, description: 'plan distance of its middle from the start' }),
    width_m: Type.Number({ minimum: 0.5, maximum: 20 }),
    cable: Type.Boolean({ description: 'insulated cable under the gate' }),
    earthCable: Type.Optional(
      Type.Boolean({
        description: 'cable for the earth strands; absent: where there is one for the live',
      }),
    ),
    conduit: Type.Optional(Type.Boolean({ description: 'absent: its cables lie in one' })),
    depth_m: Type.Optional(
      Type.Number({ minimum: 0, maximum: 2, description: 'cover over its cables' }),
    ),
    leaves: Type.Optional(Type.Union([Type.Literal(1), Type.Literal(2)])),
    hinge: Type.Optional(
      Type.Union([Type.Literal('start'), Type.Literal('end')], {
        description: 'which post carries a single leaf, seen along the line',
      }),
    ),
    swing: Type.Optional(
      Type.Union([Type.Literal('left'), Type.Literal('right'), Type.Literal('both')]),
    ),
  },
  closed,
);

export const keys = {
  plan: { line: {}, property: { gates: byId(GateSchema) } },
  report: {
    line: {
      swings: Type.Record(str, Type.Object({ left: num, right: num }, closed), {
        description: 'rise of the ground under each gate as it swings open, m',
      }),
    },
    property: {},
  },
} as const;
