/** Posts along a line: what was asked of them, and the runs and bays that come of it. */
import { Type } from '../../base/type.js';
import { along, closed, num, words } from '../../plan/schemaParts.js';

export const PinSchema = Type.Object(
  {
    at_m: along,
    kind: Type.Union([Type.Null(), words(40)], { description: 'kind of post; null: the cheapest' }),
    equal: Type.Optional(
      Type.Boolean({ description: 'equal bays from here to the next fixed post' }),
    ),
  },
  closed,
);
export const NoPostsSchema = Type.Object({ from_m: along, to_m: along, why: words(80) }, closed);
export const DropperSchema = Type.Object(
  { kind: words(40), each_m: Type.Number({ minimum: 0.5, maximum: 50 }) },
  {
    ...closed,
    description:
      'spacers between the posts; each_m: the furthest from one to the next, or to a post',
  },
);
export const PlacedPostSchema = Type.Object({ at_m: along, kind: words(40) }, closed);

/** The bays between two fixed posts; `bay_m` is the longest of them. */
export const StretchSchema = Type.Object(
  {
    from_m: num,
    to_m: num,
    ground_m: num,
    bays: Type.Integer(),
    bay_m: num,
    maxBay_m: num,
    undulating: Type.Boolean(),
    equal: Type.Boolean(),
  },
  closed,
);

/** A strained length between two ends; each of its strands is one wire. */
export const RunSchema = Type.Object({ from_m: num, to_m: num, ground_m: num }, closed);

export const keys = {
  plan: {
    line: {
      post: words(40),
      maxBay_m: Type.Union([Type.Null(), Type.Number({ minimum: 0.5, maximum: 100 })], {
        description: 'longest bay; null: from the catalogue for this stock and ground',
      }),
      dropper: Type.Optional(DropperSchema),
      standing: Type.Optional(Type.Boolean({ description: 'its posts stand already' })),
      pins: Type.Optional(
        Type.Array(PinSchema, { maxItems: 5000, description: 'posts that must stand, in order' }),
      ),
      noPosts: Type.Optional(
        Type.Array(NoPostsSchema, { maxItems: 1000, description: 'stretches without posts' }),
      ),
      placed: Type.Optional(
        Type.Array(PlacedPostSchema, {
          maxItems: 50000,
          description: 'line posts as placed by the ground, in order; absent: equal bays',
        }),
      ),
    },
    property: {},
  },
  report: {
    line: {
      runs: Type.Array(RunSchema),
      stretches: Type.Array(StretchSchema),
      droppers: Type.Array(num, { description: 'places of the droppers, plan distance, m' }),
    },
    property: {},
  },
} as const;
