/** Energisers, how they are sized, and what they make of the fence. */
import { Type } from '@sinclair/typebox';
import { byId, closed, id, maybe, metres, num, str, words } from '../../plan/schemaParts.js';

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

export const keys = {
  plan: {
    line: {},
    property: {
      energisers: byId(EnergiserSchema),
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
    },
  },
  report: {
    line: {},
    property: {
      energisers: Type.Record(str, EnergiserReportSchema),
      dead: Type.Array(Type.Object({ line: str, from_m: num, to_m: num }, closed), {
        description: 'stretches with live strands that no energiser reaches',
      }),
      shared: Type.Array(Type.Array(str), { description: 'energisers that feed one network' }),
    },
  },
} as const;
