/** Gates on lines. */
import { Type } from '../../base/type.js';
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
    mass_kg: Type.Optional(
      Type.Number({ minimum: 1, maximum: 500, description: 'of all leaves; absent: by the width' }),
    ),
    hinges_m: Type.Optional(
      Type.Number({ minimum: 0.2, maximum: 2, description: 'between the pins of a leaf' }),
    ),
    gross: Type.Optional(
      Type.Literal(true, { description: 'the label of the leaf counts hinges and latch in' }),
    ),
    mesh: Type.Optional(Type.Literal(true, { description: 'mesh on its leaves' })),
    live: Type.Optional(Type.Literal(true, { description: 'a live offset wire on it' })),
    later: Type.Optional(
      Type.Literal(true, { description: 'a panel hangs there until a gate comes' }),
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
