/**
 * The plan document: one per property. The schema is the single definition; the types below are
 * read from it. SI units, named in the keys; geometry in local metres east and north of `origin`.
 */
import { Type, type Static } from '@sinclair/typebox';
import { PaddockSchema, ThingSchema, type THING_KINDS } from './landSchema.js';
import { byId, closed, id, metres, words } from './schemaParts.js';
import { DemandsSchema, DesignSchema, StrandSchema } from './strandSchema.js';

export { THING_KINDS } from './landSchema.js';
export { DEMANDS, type Demand } from './strandSchema.js';

export const VertexSchema = Type.Object(
  {
    id,
    e: metres,
    n: metres,
    kind: Type.Union([Type.Literal('end'), Type.Literal('corner'), Type.Literal('bend')], {
      description: 'end or corner: the wire is strained off here; bend: it runs through',
    }),
  },
  closed,
);

const along = Type.Number({
  minimum: 0,
  maximum: 1e7,
  description: 'plan distance from the start',
});

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
export const PlacedPostSchema = Type.Object({ at_m: along, kind: words(40) }, closed);
export const LevelSchema = Type.Object({ at_m: along, z_m: metres }, closed);

const side = Type.Array(words(40), { maxItems: 12, description: 'profile ids of the stock here' });

export const LineSchema = Type.Object(
  {
    id,
    name: words(80),
    vertices: Type.Array(VertexSchema, { minItems: 2, maxItems: 20000 }),
    left: side,
    right: side,
    keepOut: Type.Array(words(40), { maxItems: 8 }),
    boundary: Type.Boolean(),
    strands: Type.Array(StrandSchema, { maxItems: 20, description: 'from the ground up' }),
    design: Type.Optional(id),
    standing: Type.Optional(Type.Boolean({ description: 'its posts stand already' })),
    stepOver: Type.Optional(Type.Boolean({ description: 'people step over it' })),
    snow: Type.Optional(Type.Boolean({ description: 'snow lies, or the ground freezes' })),
    dim: Type.Optional(Type.Boolean({ description: 'stock meet it in dim light' })),
    demands: Type.Optional(DemandsSchema),
    post: words(40),
    maxBay_m: Type.Union([Type.Null(), Type.Number({ minimum: 0.5, maximum: 100 })], {
      description: 'longest bay; null: from the catalogue for this stock and ground',
    }),
    school: words(40),
    tensioner: Type.Boolean({ description: 'an in-line tensioner on each strand of each run' }),
    locked: Type.Optional(Type.Boolean({ description: 'its shape is not to be changed' })),
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
    fill_m: Type.Optional(
      Type.Number({ minimum: 0, maximum: 2, description: 'hollows may be filled this deep' }),
    ),
    levels: Type.Optional(
      Type.Array(LevelSchema, {
        maxItems: 5000,
        description: 'heights levelled by hand, in order; they replace the ground along the line',
      }),
    ),
  },
  closed,
);

export const GateSchema = Type.Object(
  {
    id,
    name: words(80),
    line: id,
    at_m: Type.Number({ minimum: 0, description: 'plan distance of its middle from the start' }),
    width_m: Type.Number({ minimum: 0.5, maximum: 20 }),
    cable: Type.Boolean({ description: 'insulated cable under the gate' }),
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

export const EnergiserSchema = Type.Object(
  {
    id,
    name: words(80),
    model: words(40),
    e: metres,
    n: metres,
    line: Type.Union([Type.Null(), id], { description: 'the line that its lead-out feeds' }),
    at_m: Type.Number({ minimum: 0 }),
    rods: Type.Integer({ minimum: 1, maximum: 60 }),
    rodLength_m: Type.Number({ minimum: 0.3, maximum: 6 }),
    rodDiameter_m: Type.Number({ minimum: 0.005, maximum: 0.1 }),
    rodSpacing_m: Type.Number({ minimum: 0.2, maximum: 30 }),
  },
  closed,
);

export const GridSchema = Type.Object(
  {
    east0_m: metres,
    north0_m: metres,
    cell_m: Type.Number({ exclusiveMinimum: 0, maximum: 10000 }),
    cols: Type.Integer({ minimum: 2, maximum: 5000 }),
    rows: Type.Integer({ minimum: 2, maximum: 5000 }),
    z_m: Type.Array(Type.Union([Type.Number(), Type.Null()]), {
      description: 'heights, row by row from the south, west to east; null where unknown',
    }),
  },
  { ...closed, description: 'square grid of ground heights; east0, north0: the south-west value' },
);

export const PlanSchema = Type.Object(
  {
    format: Type.Literal('anabatic-plan'),
    version: Type.Literal(1),
    name: Type.String({ minLength: 1, maxLength: 80 }),
    invented: Type.Optional(Type.Boolean({ description: 'everything in it is made up' })),
    units: Type.Union([Type.Literal('metric'), Type.Literal('imperial')]),
    currency: Type.String({ pattern: '^[A-Z]{3}$' }),
    origin: Type.Object(
      {
        proj: Type.String({ minLength: 4, maxLength: 300, description: 'proj definition, metres' }),
        x: Type.Number(),
        y: Type.Number(),
      },
      { ...closed, description: 'local (e, n) is (x + e, y + n) in this projection' },
    ),
    ground: Type.Union([
      Type.Object({ kind: Type.Literal('flat'), z_m: metres }, closed),
      Type.Object({ kind: Type.Literal('grid'), id }, closed),
    ]),
    grids: Type.Optional(byId(GridSchema)),
    soil: words(40),
    climate: Type.Object(
      {
        cold_C: Type.Number({ minimum: -60, maximum: 40 }),
        today_C: Type.Number({ minimum: -60, maximum: 60 }),
        hot_C: Type.Number({ minimum: -20, maximum: 80 }),
      },
      closed,
    ),
    lines: byId(LineSchema),
    designs: Type.Optional(byId(DesignSchema)),
    gates: byId(GateSchema),
    energisers: byId(EnergiserSchema),
    things: Type.Optional(byId(ThingSchema)),
    paddocks: Type.Optional(byId(PaddockSchema)),
    sizing: Type.Object(
      {
        resistance: Type.Union([
          Type.Literal('planning'),
          Type.Literal('best'),
          Type.Literal('guaranteed'),
        ]),
        reserve: Type.Number({ minimum: 0, maximum: 3 }),
      },
      closed,
    ),
    newLines: Type.Object(
      {
        left: side,
        right: side,
        keepOut: side,
        boundary: Type.Boolean(),
        model: Type.Optional(words(40)),
      },
      { ...closed, description: 'what a newly drawn line, and a new energiser, starts with' },
    ),
    overrides: Type.Record(
      Type.String({ maxLength: 120 }),
      Type.Object({ value: Type.Number(), note: Type.Optional(words(400)) }, closed),
      { description: 'catalogue figures that this property replaces, by path' },
    ),
  },
  {
    ...closed,
    $id: 'anabatic-plan-1',
    title: 'Anabatic plan, version 1',
    description: 'A property with its fences. SI units, named in the keys.',
  },
);

export type Plan = Static<typeof PlanSchema>;
export type Line = Static<typeof LineSchema>;
export type Vertex = Static<typeof VertexSchema>;
export type Strand = Static<typeof StrandSchema>;
export type Design = Static<typeof DesignSchema>;
export type Gate = Static<typeof GateSchema>;
export type Energiser = Static<typeof EnergiserSchema>;
export type Pin = Static<typeof PinSchema>;
export type PlacedPost = Static<typeof PlacedPostSchema>;
export type Level = Static<typeof LevelSchema>;
export type Thing = Static<typeof ThingSchema>;
export type ThingKind = (typeof THING_KINDS)[number];
export type Paddock = Static<typeof PaddockSchema>;
export type Grid = Static<typeof GridSchema>;
export type Duty = Strand['duty'];
export type Resistance = Plan['sizing']['resistance'];
/** A place on the map, local metres. */
export interface Point {
  readonly e: number;
  readonly n: number;
}
/** One step of an RFC 6902 JSON Patch. */
export interface PatchStep {
  op: 'add' | 'remove' | 'replace';
  path: string;
  value?: unknown;
}
