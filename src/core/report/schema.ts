/**
 * The report: everything `evaluate` finds out about a plan. Plain JSON, SI units in the keys.
 * The schema is the single definition; stages of the pipeline fill its parts.
 */
import { Type, type Static } from '@sinclair/typebox';
import { ProposalSchema, RequirementSchema, RuleMarkSchema } from './strandSchema.js';

export * from './strandSchema.js';

const closed = { additionalProperties: false } as const;
const num = Type.Number();
const maybe = Type.Union([Type.Number(), Type.Null()]);
const str = Type.String();

/** One leg between two vertices. */
export const LegSchema = Type.Object(
  { plan_m: num, ground_m: num, bearing_deg: num, rise_m: num, grade: num },
  closed,
);

export const PostSchema = Type.Object(
  {
    s_m: Type.Number({ description: 'plan distance from the start' }),
    tape_m: Type.Number({ description: 'distance over ground from the start, as taped' }),
    e: num,
    n: num,
    z_m: num,
    role: Type.Union([
      Type.Literal('end'),
      Type.Literal('corner'),
      Type.Literal('bend'),
      Type.Literal('gate'),
      Type.Literal('line'),
    ]),
    kind: str,
    fixed: Type.Boolean({ description: 'stands here whatever the bays: end, bend, gate, pin' }),
    uplift_N: num,
    holds_N: Type.Number({ description: 'pull-out resistance, without a safety factor' }),
  },
  closed,
);

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

export const ClearanceSchema = Type.Object(
  {
    high: Type.Object({ gap_m: num, at_m: num }, closed),
    low: Type.Object({ gap_m: num, at_m: num }, closed),
  },
  { ...closed, description: 'largest and smallest gap under the lowest strand' },
);

/** Tension of one strand of one run. */
export const StrainSchema = Type.Object(
  {
    run: Type.Integer(),
    ground_m: num,
    bay_m: num,
    wire: str,
    at15_N: num,
    today_N: num,
    cold_N: num,
    hot_N: num,
    limit_N: num,
    sagToday_m: num,
    sagHot_m: num,
    pushed_m: Type.Number({ description: 'sideways give at mid-bay under the push, hot day' }),
  },
  closed,
);

export const LineReportSchema = Type.Object(
  {
    id: str,
    name: str,
    plan_m: num,
    ground_m: num,
    legs: Type.Array(LegSchema),
    unknownGround: Type.Array(Type.Tuple([num, num])),
    runs: Type.Array(RunSchema),
    stretches: Type.Array(StretchSchema),
    posts: Type.Array(PostSchema),
    clearance: Type.Union([ClearanceSchema, Type.Null()]),
    barred: Type.Array(Type.Object({ from_m: num, to_m: num, why: str }, closed), {
      description: 'where no post may stand',
    }),
    fills: Type.Array(Type.Object({ from_m: num, to_m: num, depth_m: num }, closed), {
      description: 'hollows to be filled so that the gap under the lowest strand comes right',
    }),
    signs: Type.Integer({ description: 'warning signs that the line wants' }),
    swings: Type.Record(str, Type.Object({ left: num, right: num }, closed), {
      description: 'rise of the ground under each gate as it swings open, m',
    }),
    requirement: Type.Union([RequirementSchema, Type.Null()]),
    proposal: Type.Union([ProposalSchema, Type.Null()]),
    marks: Type.Array(RuleMarkSchema, { description: 'every rule held against the strands' }),
    effectiveGap_m: maybe,
    strain: Type.Array(StrainSchema),
  },
  closed,
);

export const PaddockReportSchema = Type.Object(
  {
    id: Type.Union([str, Type.Null()], {
      description: 'of the named paddock; null: not named yet',
    }),
    name: str,
    e: num,
    n: num,
    rim: Type.Array(Type.Tuple([num, num])),
    holes: Type.Array(Type.Array(Type.Tuple([num, num]))),
    area_m2: num,
    perimeter_m: num,
    stock: Type.Record(str, Type.Integer()),
    use: str,
    edges: Type.Array(Type.Object({ line: str, from_m: num, to_m: num, side: str }, closed)),
    gates: Type.Array(str),
    water: Type.Array(str, { description: 'water points within' }),
  },
  { ...closed, description: 'a face of the fence network' },
);

const placeOnLine = { line: str, at_m: num };
export const SeasonPowerSchema = Type.Object(
  {
    r_in_ohm: maybe,
    v_out_V: num,
    i_out_A: num,
    capped: Type.Boolean({ description: 'the surge cap set the voltage' }),
    r_earth_ohm: num,
    v_earth_V: num,
    worst: Type.Union([Type.Object({ ...placeOnLine, v_V: num, aim_V: num }, closed), Type.Null()]),
    lines: Type.Record(str, Type.Object({ s_m: Type.Array(num), v_V: Type.Array(num) }, closed), {
      description: 'lowest live voltage along each line that is fed',
    }),
  },
  closed,
);

export const EarthReportSchema = Type.Object(
  {
    rods: Type.Integer(),
    r_dry_ohm: num,
    r_damp_ohm: num,
    r_wet_ohm: num,
    single_dry_ohm: num,
    factor: num,
    rodsNeeded: Type.Union([Type.Integer(), Type.Null()]),
    test: Type.Object(
      { current_A: num, rise_V: num, reading_V: num, fence_V: num, load_ohm: maybe },
      { ...closed, description: 'the predicted earth test in the dry season' },
    ),
  },
  closed,
);

export const EnergiserReportSchema = Type.Object(
  {
    id: str,
    lines: Type.Array(str),
    fence_m: num,
    wire_m: num,
    seasons: Type.Record(str, SeasonPowerSchema),
    earth: EarthReportSchema,
    candidates: Type.Array(
      Type.Object(
        {
          model: str,
          output_J: num,
          margin: Type.Number({ description: 'worst volts over the aim, least of all seasons' }),
          season: str,
          worst_V: num,
          meets: Type.Boolean(),
        },
        closed,
      ),
    ),
    smallest: Type.Union([str, Type.Null()]),
    joulesByLength: num,
  },
  closed,
);

export const SupplySchema = Type.Object(
  {
    id: str,
    name: str,
    quantity: num,
    unit: str,
    price: num,
    per: str,
    cost: num,
    note: str,
    lines: Type.Record(str, num, { description: 'how much of it each line takes' }),
  },
  closed,
);

export const FindingSchema = Type.Object(
  {
    id: str,
    rule: str,
    kind: Type.Union([Type.Literal('stop'), Type.Literal('mend'), Type.Literal('confirm')]),
    title: str,
    why: str,
    todo: str,
    place: Type.Object(
      {
        line: Type.Optional(str),
        from_m: Type.Optional(num),
        to_m: Type.Optional(num),
        e: Type.Optional(num),
        n: Type.Optional(num),
      },
      closed,
    ),
    source: Type.Object({ mark: str, text: str }, closed),
    mend: Type.Optional(
      Type.Object(
        {
          words: str,
          place: Type.Optional(
            Type.String({ description: 'id of the line whose posts are to be placed anew' }),
          ),
          patch: Type.Array(
            Type.Object(
              {
                op: Type.Union([
                  Type.Literal('add'),
                  Type.Literal('remove'),
                  Type.Literal('replace'),
                ]),
                path: str,
                value: Type.Optional(Type.Unknown()),
              },
              closed,
            ),
          ),
        },
        closed,
      ),
    ),
  },
  closed,
);

export const ReportSchema = Type.Object(
  {
    format: Type.Literal('anabatic-report'),
    version: Type.Literal(1),
    plan: str,
    invented: Type.Boolean(),
    currency: str,
    totals: Type.Object(
      { plan_m: num, ground_m: num, wire_m: num, posts: Type.Integer(), cost: num },
      closed,
    ),
    lines: Type.Record(str, LineReportSchema),
    energisers: Type.Record(str, EnergiserReportSchema),
    dead: Type.Array(Type.Object({ line: str, from_m: num, to_m: num }, closed), {
      description: 'stretches with live strands that no energiser reaches',
    }),
    shared: Type.Array(Type.Array(str), { description: 'energisers that feed one network' }),
    paddocks: Type.Array(PaddockReportSchema),
    gaps: Type.Array(
      Type.Object(
        { line: str, vertex: Type.Integer(), e: num, n: num, toLine: str, width_m: num },
        closed,
      ),
      { description: 'free ends that stop short of another line' },
    ),
    supplies: Type.Array(SupplySchema),
    findings: Type.Array(FindingSchema),
  },
  { ...closed, $id: 'anabatic-report-1', title: 'Anabatic report, version 1' },
);

export type Report = Static<typeof ReportSchema>;
export type LineReport = Static<typeof LineReportSchema>;
export type Leg = Static<typeof LegSchema>;
export type Post = Static<typeof PostSchema>;
export type Stretch = Static<typeof StretchSchema>;
export type Run = Static<typeof RunSchema>;
export type Clearance = Static<typeof ClearanceSchema>;

export type Strain = Static<typeof StrainSchema>;
export type SeasonPower = Static<typeof SeasonPowerSchema>;
export type EarthReport = Static<typeof EarthReportSchema>;
export type EnergiserReport = Static<typeof EnergiserReportSchema>;
export type PaddockReport = Static<typeof PaddockReportSchema>;
export type Supply = Static<typeof SupplySchema>;
export type Finding = Static<typeof FindingSchema>;
