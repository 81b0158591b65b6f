/** What lies on the land beside the fences. */
import { Type } from '../../base/type.js';
import { closed, id, metres, words } from '../../plan/schemaParts.js';

/** What else lies on the land; each kind is there for a number or a finding (docs/model.md, Land). */
export const THING_KINDS = [
  'property',
  'water',
  'mains',
  'building',
  'overhead',
  'publicWay',
  'burn',
  'oldFence',
  'obstacle',
  'tree',
  'soil',
] as const;

export const ThingSchema = Type.Object(
  {
    id,
    name: words(80),
    kind: Type.Union(THING_KINDS.map((k) => Type.Literal(k))),
    points: Type.Array(Type.Object({ e: metres, n: metres }, closed), {
      minItems: 1,
      maxItems: 20000,
      description: 'a point, a way of two or more, or the corners of an area',
    }),
    width_m: Type.Optional(
      Type.Number({ minimum: 0, maximum: 1000, description: 'across: of a point, a way, a burn' }),
    ),
    volts_kV: Type.Optional(Type.Number({ minimum: 0.1, maximum: 1200 })),
    height_m: Type.Optional(
      Type.Number({ minimum: 1, maximum: 100, description: 'of the lowest wire over ground' }),
    ),
    barbed: Type.Optional(Type.Boolean({ description: 'an old fence of barbed wire' })),
    earthed: Type.Optional(Type.Boolean({ description: 'a building with a supply earth' })),
    soil: Type.Optional(words(40)),
  },
  closed,
);

export const PaddockSchema = Type.Object(
  {
    id,
    name: words(80),
    e: metres,
    n: metres,
    stock: Type.Record(words(40), Type.Integer({ minimum: 0, maximum: 100000 }), {
      description: 'head by profile',
    }),
    use: Type.Union(['grazing', 'lane', 'hay', 'crop', 'wood', 'yard'].map((u) => Type.Literal(u))),
  },
  { ...closed, description: 'a name for the face of the fence network that (e, n) lies in' },
);
