/** Ends: what stands at the places where wire is strained off or turned, as set by hand; and what comes of it. */
import { Type } from '../../base/type.js';
import { along, closed, num, str, words } from '../../plan/schemaParts.js';

export const END_KINDS = ['post', 'stay', 'n', 'h', 'double-h', 'tie-back', 'concreted'] as const;
export const SETTINGS = ['driven', 'tamped', 'gravel', 'concrete', 'wet'] as const;
export const WOODS = ['treated', 'untreated', 'recycled'] as const;
export const WIRE_WAYS = ['end', 'brace', 'both'] as const;
export const HELD = ['lift', 'foot', 'second', 'wire', 'rail', 'bend', 'log'] as const;
export const REASONS = [
  'hand',
  'bend',
  'steel',
  'frost',
  'light',
  'many',
  'long',
  'usual',
  'soft',
  'none',
  'short',
  'engineer',
] as const;
export const SIDES = ['before', 'after', 'bend'] as const;

const oneOf = <T extends readonly string[]>(values: T, description: string) =>
  Type.Union(
    values.map((v) => Type.Literal(v as T[number])),
    { description },
  );

/** What holds one pull; what is absent is as proposed. */
export const AssemblySchema = Type.Object(
  {
    kind: oneOf(END_KINDS, 'what holds the pull'),
    rail_m: Type.Optional(
      Type.Number({ minimum: 0.5, maximum: 8, description: 'length of the rail, or of the way to the foot of a stay' }), // prettier-ignore
    ),
    wire: Type.Optional(
      oneOf(WIRE_WAYS, 'from whose foot the brace wire runs: the end post’s, which is right, the brace post’s, or both'), // prettier-ignore
    ),
    foot: Type.Optional(
      Type.Union([Type.Literal('post'), Type.Literal('block')], {
        description: 'of a stay: the next post of the fence, or a block in the ground',
      }),
    ),
  },
  closed,
);

export const EndPlaceSchema = Type.Object(
  {
    at_m: along,
    before: Type.Optional(AssemblySchema),
    after: Type.Optional(AssemblySchema),
    bend: Type.Optional(AssemblySchema),
    post: Type.Optional(words(40)),
    depth_m: Type.Optional(
      Type.Number({ minimum: 0.2, maximum: 3, description: 'of its posts in the ground' }),
    ),
    setting: Type.Optional(oneOf(SETTINGS, 'how its posts are set')),
    wood: Type.Optional(oneOf(WOODS, 'absent: treated for ground contact')),
  },
  {
    ...closed,
    description:
      'a post at which wire ends or bends: what holds the run before it, the run after it, or the bend',
  },
);

/** One thing that could give way: what is asked of it, what it gives, and the share that is used, safety included. */
export const HoldCheckSchema = Type.Object(
  {
    of: oneOf(
      HELD,
      'lifting of the end post, its foot, the second post, brace wire, rail or strut, bending, depth, buried log',
    ),
    asked: num,
    gives: num,
    unit: Type.Union([Type.Literal('N'), Type.Literal('Nm'), Type.Literal('m')]),
    safety: num,
    share: num,
  },
  closed,
);

export const EndReportSchema = Type.Object(
  {
    at_m: num,
    side: oneOf(SIDES, 'which run it holds; a bend holds what both pull'),
    role: str,
    hand: Type.Boolean({ description: 'set by hand' }),
    kind: oneOf(END_KINDS, 'what holds the pull'),
    reason: oneOf(REASONS, 'why this one'),
    against: Type.Union([HoldCheckSchema, Type.Null()], {
      description: 'what ruled out the one before it',
    }),
    soil: str,
    pull_N: Type.Number({ description: 'of all strands on the coldest night' }),
    strands: Type.Array(Type.Tuple([num, num]), { description: 'height, m, and pull, N, of each' }),
    moment_Nm: num,
    grade: Type.Number({ description: 'rise of the fence away from the end, m for each' }),
    rail_m: num,
    railHeight_m: num,
    rise_m: Type.Number({ description: 'ground at the brace post over that at the end post' }),
    wire: oneOf(WIRE_WAYS, 'see the plan'),
    foot: Type.Union([Type.Literal('post'), Type.Literal('block')]),
    shared: Type.Boolean({ description: 'one brace serves both ends of a run' }),
    post: str,
    second: Type.Union([str, Type.Null()]),
    depth_m: num,
    setting: oneOf(SETTINGS, 'how its posts are set'),
    wood: oneOf(WOODS, 'timber in the ground'),
    hinged: Type.Boolean({ description: 'a gate hangs on it' }),
    turn_deg: num,
    checks: Type.Array(HoldCheckSchema),
  },
  closed,
);

export const keys = {
  plan: {
    line: {
      ends: Type.Optional(
        Type.Array(EndPlaceSchema, {
          maxItems: 2000,
          description: 'ends set by hand, in order; elsewhere they are as proposed',
        }),
      ),
    },
    property: {
      frost_m: Type.Optional(
        Type.Number({ minimum: 0, maximum: 3, description: 'how deep the ground freezes; absent: by the coldest night' }), // prettier-ignore
      ),
      noDriver: Type.Optional(Type.Literal(true, { description: 'no post driver is to be had' })),
    },
  },
  report: { line: { ends: Type.Array(EndReportSchema) }, property: {} },
} as const;
