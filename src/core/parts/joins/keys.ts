/** What is tied to what: by hand at the places of a line, and what of the fence is fed through it. */
import { Type } from '../../base/type.js';
import { along, closed, id, METALS, num, str, words } from '../../plan/schemaParts.js';

/** The end of a strand at a place. */
export const EndSchema = Type.Object(
  {
    line: Type.Optional(
      Type.Unsafe<string>({ ...id, description: 'another line that meets here' }),
    ),
    side: Type.Union([Type.Literal('before'), Type.Literal('after'), Type.Literal('through')], {
      description: 'of the run that ends here, of the one that begins, or of one that goes through',
    }),
    strand: Type.Integer({ minimum: 0, maximum: 19, description: 'its place among the strands' }),
  },
  closed,
);

export const ConnectorSchema = Type.Union(
  [Type.Literal('hand'), Type.Literal('clamp'), Type.Literal('tap')],
  { description: 'tied by hand, bolted line clamp, open tap crimp' },
);

export const TieSchema = Type.Object(
  {
    a: EndSchema,
    b: EndSchema,
    kind: ConnectorSchema,
    switch: Type.Optional(
      Type.Literal(true, { description: 'a cut-out switch stands in it: opened, it ties nothing' }),
    ),
  },
  closed,
);

export const JoinSchema = Type.Object(
  {
    at_m: along,
    ties: Type.Array(TieSchema, { maxItems: 200 }),
    metal: Type.Optional(
      Type.Union(
        METALS.map((m) => Type.Literal(m)),
        { description: 'of the jumpers; absent: the fence’s own' },
      ),
    ),
  },
  { ...closed, description: 'all that is tied at a place, instead of what is proposed there' },
);

/** How the ends of a wire are held together under tension, where a span is to be opened. */
export const JOINERS = ['wedge', 'sleeve', 'clamp', 'tap'] as const;

export const CrossingSchema = Type.Object(
  {
    at_m: along,
    kind: Type.Union([Type.Literal('sleeve'), Type.Literal('flood'), Type.Literal('closure')], {
      description:
        'sleeves on an old wire that it crosses; a flood gate on a switch of its own; a span that is taken down',
    }),
    width_m: Type.Optional(
      Type.Number({ minimum: 0.5, maximum: 60, description: 'of a flood gate or a closure' }),
    ),
    joiner: Type.Optional(
      Type.Union(
        JOINERS.map((j) => Type.Literal(j)),
        { description: 'at both ends of a closure; absent: wedge joiners' },
      ),
    ),
  },
  closed,
);

/** Strands of one run that are alike. */
const StrandsSchema = Type.Object(
  {
    line: str,
    from_m: num,
    to_m: num,
    strands: Type.Array(Type.Integer(), { minItems: 1 }),
  },
  closed,
);

export const FedSchema = Type.Object(
  {
    live_m: num,
    fed_m: num,
    touches: Type.Boolean({
      description: 'live strands are joined to the earth terminal by metal',
    }),
    dead: Type.Array(StrandsSchema),
    single: Type.Array(
      Type.Object(
        {
          ...StrandsSchema.properties,
          lost_m: Type.Number({ description: 'live strand that one break costs' }),
        },
        closed,
      ),
      { description: 'fed from one side only' },
    ),
  },
  { ...closed, description: 'what hangs on an energiser by metal, as built today, m of strand' },
);

export const keys = {
  plan: {
    line: {
      deadTail_m: Type.Optional(
        Type.Number({
          minimum: 0.02,
          maximum: 1,
          description: 'wire between post and end insulator; absent: as is usual for the stock',
        }),
      ),
      insulators: Type.Optional(
        Type.Record(words(40), words(40), {
          description:
            'what strands hang on, by family of post, and at `bend` and `end`; absent: what fits',
        }),
      ),
      crossings: Type.Optional(Type.Array(CrossingSchema, { maxItems: 1000 })),
      joins: Type.Optional(
        Type.Array(JoinSchema, {
          maxItems: 1000,
          description:
            'places whose ties were set by hand, in order; elsewhere they are as proposed',
        }),
      ),
    },
    property: { connectors: Type.Optional(ConnectorSchema) },
  },
  report: {
    line: {},
    property: { fed: Type.Record(str, FedSchema, { description: 'by energiser' }) },
  },
} as const;
