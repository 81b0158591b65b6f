/** What the report says of strands: what is asked, how the rules stand, what is proposed. */
import type { Static } from '@sinclair/typebox';
import { Type } from '../../base/type.js';
import { closed, num, str } from '../../plan/schemaParts.js';

/** What one kind of stock or predator asks of this line. */
export const NeedSchema = Type.Object(
  {
    profile: str,
    lowestMax_m: num,
    gapMax_m: num,
    gapZone_m: num,
    upperGapMax_m: num,
    topMin_m: num,
    minStrands: Type.Integer(),
    minLive: Type.Integer(),
    lowestLive: Type.Boolean(),
    reach_m: num,
    aim_V: num,
    opening_m: Type.Number({ description: 'what a push may open beyond the widest gap' }),
  },
  closed,
);

export const ABOUTS = [
  'lowest',
  'clear',
  'gap',
  'upperGap',
  'top',
  'count',
  'live',
  'lowestLive',
  'topLive',
  'stepOver',
  'seen',
  'noBarbed',
  'offBarbed',
  'opening',
  'aim',
  'bay',
] as const;
const about = Type.Union(ABOUTS.map((a) => Type.Literal(a)));

/** One line of the list of requirements: the figure, whose it is, and where it comes from. */
export const DemandRowSchema = Type.Object(
  {
    about,
    profile: Type.Union([str, Type.Null()]),
    path: Type.String({ description: 'of the figure in the catalogue' }),
    value: num,
    note: Type.Union([str, Type.Null()], { description: 'why this line has a figure of its own' }),
    usual: Type.Number({ description: 'the figure before it was replaced' }),
  },
  closed,
);

export const RequirementSchema = Type.Object(
  {
    profiles: Type.Array(str),
    needs: Type.Array(NeedSchema),
    lowestMax_m: num,
    lowestMin_m: num,
    gapMin_m: num,
    topMin_m: num,
    minStrands: Type.Integer(),
    minLive: Type.Integer(),
    topDuty: Type.Union([Type.Literal('live'), Type.Literal('cold'), Type.Null()]),
    seenTop: Type.Boolean(),
    aim_V: num,
    small: Type.Boolean(),
    noBarbed: Type.Boolean(),
    offBarbed_m: num,
    holdBay_m: Type.Number({ description: 'the bay that just holds the most pressing of them' }),
    decidedBy: Type.Object({ lowest: str, gap: str, top: str, aim: str, bay: str }, closed),
    rows: Type.Array(DemandRowSchema),
  },
  closed,
);

/** One rule held against the strands: what it finds, and how far it is from its limit. */
export const RuleMarkSchema = Type.Object(
  {
    about,
    profile: Type.Union([str, Type.Null()]),
    strands: Type.Array(Type.Integer(), { description: 'one strand, or the two of a gap' }),
    value: num,
    limit: num,
    state: Type.Union([Type.Literal('broken'), Type.Literal('limit'), Type.Literal('kept')]),
  },
  closed,
);

const ORDERS = ['live', 'turns', 'switched', 'coldTop'] as const;
const order = Type.Union(ORDERS.map((o) => Type.Literal(o)));
const DUTIES = ['live', 'earth', 'cold'] as const;
const duty = Type.Union(DUTIES.map((d) => Type.Literal(d)));
export const ProposalSchema = Type.Object(
  {
    order,
    heights_m: Type.Array(num),
    duties: Type.Array(duty),
    reasons: Type.Array(
      Type.Object(
        {
          about,
          profile: Type.Union([str, Type.Null()]),
          value: num,
        },
        { ...closed, description: 'the profile whose figure decided' },
      ),
    ),
  },
  closed,
);

export type Requirement = Static<typeof RequirementSchema>;
export type Proposal = Static<typeof ProposalSchema>;
export type Need = Static<typeof NeedSchema>;
export type DemandRow = Static<typeof DemandRowSchema>;
export type RuleMark = Static<typeof RuleMarkSchema>;
export type About = (typeof ABOUTS)[number];
export type Order = Proposal['order'];
