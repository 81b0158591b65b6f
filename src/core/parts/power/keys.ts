/** Energisers, how they are sized, and what they make of the fence. */
import { Type } from '../../base/type.js';
import { byId, closed, id, maybe, metres, num, str, words } from '../../plan/schemaParts.js';

const volts = Type.Number({ exclusiveMinimum: 0, maximum: 50_000 });
const joules = Type.Number({ exclusiveMinimum: 0, maximum: 200 });

/** The plate of a unit that is no model of the catalogue. */
export const PlateSchema = Type.Object(
  {
    supply: Type.Union([Type.Literal('mains'), Type.Literal('battery'), Type.Literal('solar')]),
    stored_J: joules,
    output_J: joules,
    open_V: volts,
    at500_V: volts,
    at200_V: Type.Optional(volts),
    at100_V: Type.Optional(volts),
    at50_V: Type.Optional(volts),
    rise_us: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 1000 })),
    interval_s: Type.Number({ minimum: 0.2, maximum: 10 }),
  },
  { ...closed, description: 'data plate of its own; without it, that of its model' },
);

/** What a battery or solar unit runs on. */
const SupplySchema = Type.Object(
  {
    battery_V: Type.Number({ minimum: 3, maximum: 60 }),
    battery_Ah: Type.Number({ exclusiveMinimum: 0, maximum: 5000 }),
    panel_W: Type.Number({ minimum: 0, maximum: 5000 }),
    usable: Type.Number({ exclusiveMinimum: 0, maximum: 1 }),
    cloud_days: Type.Number({ minimum: 0, maximum: 60 }),
    sun_h: Type.Optional(
      Type.Array(Type.Number({ exclusiveMinimum: 0, maximum: 24 }), {
        minItems: 12,
        maxItems: 12,
        description: 'hours of full sun a day, by month',
      }),
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
    plate: Type.Optional(PlateSchema),
    supply: Type.Optional(SupplySchema),
    diverter: Type.Optional(
      Type.Object({ rods: Type.Integer({ minimum: 1, maximum: 60 }) }, closed),
    ),
    pins: Type.Optional(
      Type.Array(
        Type.Object(
          {
            spacing_m: Type.Number({ minimum: 0.1, maximum: 100 }),
            r_ohm: Type.Number({ exclusiveMinimum: 0, maximum: 1e6 }),
            depth_m: Type.Number({ minimum: 0, maximum: 5 }),
          },
          closed,
        ),
        { maxItems: 50, description: 'four-pin readings of the soil at the rods' },
      ),
    ),
  },
  closed,
);

const placeOnLine = { line: str, at_m: num };
export const SeasonPowerSchema = Type.Object(
  {
    v_out_V: num,
    i_out_A: num,
    r_earth_ohm: num,
    v_earth_V: num,
    worst: Type.Union([
      Type.Object({ ...placeOnLine, v_V: num, aim_V: num, peak_s: num }, closed),
      Type.Null(),
    ]),
    lines: Type.Record(str, Type.Object({ s_m: Type.Array(num), v_V: Type.Array(num) }, closed), {
      description: 'peak of the live strands along each line; 0 where nothing feeds it',
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
    about: Type.Optional(
      Type.Boolean({ description: 'first figures in closed form; the pulse follows' }),
    ),
    plateFits: Type.Boolean({ description: 'a circuit has such a plate' }),
    output_J: Type.Number({ description: 'into 500 ohm, by the plate' }),
    seasons: Type.Record(str, SeasonPowerSchema),
    least: Type.Union([Type.Object({ season: str, share: num }, closed), Type.Null()], {
      description: 'of the seasons that a unit is chosen for, least volts over aim',
    }),
    smallest: Type.Union([str, Type.Null()], {
      description: 'smallest unit of the same supply that keeps the aim with the reserve',
    }),
    felt: Type.Union(
      [
        Type.Object(
          {
            ...placeOnLine,
            profile: str,
            season: str,
            way: Type.Union([Type.Literal('hoof'), Type.Literal('between')]),
            volts_V: num,
            amps_A: num,
            want_V: num,
            open_V: num,
            rho_ohm_m: num,
            lines: Type.Array(str, { description: 'on which so little is felt, the worst first' }),
          },
          { ...closed, description: 'the animal that feels least against what its aim gives' },
        ),
        Type.Null(),
      ],
      {},
    ),
    earth: EarthReportSchema,
    joulesByLength: num,
  },
  closed,
);

export const keys = {
  plan: {
    line: {
      growth: Type.Optional(
        Type.Union([Type.Literal('bare'), Type.Literal('rank')], {
          description: 'what grows under it, where that is not the usual',
        }),
      ),
    },
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
