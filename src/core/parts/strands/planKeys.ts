/** Strands, the designs that name them, and what a line may ask of them for itself. */
import type { TOptional } from '@sinclair/typebox';
import { Type } from '../../base/type.js';
import { closed, id, words } from '../../plan/schemaParts.js';

export const StrandSchema = Type.Object(
  {
    height_m: Type.Number({ minimum: 0.02, maximum: 3.5 }),
    duty: Type.Union([Type.Literal('live'), Type.Literal('earth'), Type.Literal('cold')]),
    wire: words(40),
    insulated: Type.Boolean(),
    switched: Type.Optional(
      Type.Boolean({ description: 'has a cut-out: off in the season of long grass' }),
    ),
    offset_m: Type.Optional(
      Type.Number({ minimum: 0.05, maximum: 1, description: 'held off the posts by brackets' }),
    ),
    kept: Type.Optional(Type.Boolean({ description: 'stands already, of an old fence' })),
  },
  {
    ...closed,
    description: 'height_m: of the wire; of a woven panel, its top, which stands on the ground',
  },
);

/** Requirements of a line that can be replaced by hand, each with a note. */
export const DEMANDS = [
  'lowest',
  'clear',
  'gap',
  'upperGap',
  'top',
  'count',
  'live',
  'aim',
  'opening',
  'offBarbed',
  // Kept or not: 0 leaves them out.
  'lowestLive',
  'topLive',
  'seen',
  'noBarbed',
] as const;
const DemandSchema = Type.Object(
  {
    value: Type.Number({ minimum: 0, maximum: 1e5 }),
    note: Type.String({ minLength: 1, maxLength: 400 }),
  },
  closed,
);

export const DesignSchema = Type.Object(
  {
    id,
    name: Type.String({ minLength: 1, maxLength: 80 }),
    strands: Type.Array(StrandSchema, { maxItems: 20 }),
  },
  { ...closed, description: 'a make-up with a name, to be put on many lines' },
);

export type Demand = (typeof DEMANDS)[number];

/** A line's own requirements. */
export const DemandsSchema = Type.Object(
  Object.fromEntries(DEMANDS.map((d) => [d, Type.Optional(DemandSchema)])) as Record<
    Demand,
    TOptional<typeof DemandSchema>
  >,
  closed,
);
