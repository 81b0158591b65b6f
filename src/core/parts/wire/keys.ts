/** The wire: how tight it is strung, from where, and what the temperature makes of it. */
import { Type } from '../../base/type.js';
import { along, byId, closed, num, str, words } from '../../plan/schemaParts.js';

/** Where in its run the tensioner of a strand works; best: where the slackest span keeps most. */
export const TENSIONER_PLACES = ['start', 'middle', 'end', 'best'] as const;

const date = Type.String({ pattern: '^\\d{4}-\\d{2}-\\d{2}$', description: 'a day, YYYY-MM-DD' });

export const OwnWireSchema = Type.Object(
  {
    name: Type.String({ minLength: 1, maxLength: 60 }),
    diameter_mm: Type.Number({ minimum: 1, maximum: 6 }),
    tensile_MPa: Type.Number({ minimum: 200, maximum: 2200 }),
    coating: Type.Union([Type.Literal('zinc'), Type.Literal('aluminium')]),
    coil_m: Type.Number({ minimum: 10, maximum: 5000 }),
    creep: Type.Optional(
      Type.Number({ minimum: 0, maximum: 0.6, description: 'share of tension lost in a year' }),
    ),
    price: Type.Optional(Type.Number({ minimum: 0, description: 'of a coil' })),
  },
  { ...closed, description: 'a wire that the catalogue does not have' },
);

export const BreakTestSchema = Type.Object(
  {
    wire: words(40),
    joint: Type.Union([Type.Null(), words(40)], { description: 'null: the wire alone' }),
    break_N: Type.Number({ minimum: 50, maximum: 50_000 }),
  },
  { ...closed, description: 'one piece pulled until it broke' },
);

/** Tension of one wire of one run. */
export const StrainSchema = Type.Object(
  {
    run: Type.Integer(),
    ground_m: num,
    bay_m: num,
    ruling_m: Type.Number({ description: 'ruling span of its bays' }),
    wire: str,
    at_m: Type.Number({ description: 'where it is tensioned, plan distance; middle of that bay' }),
    at15_N: Type.Number({ description: 'at the tensioner, at 15 degrees C' }),
    least15_N: Type.Number({ description: 'in its slackest bay, at 15 degrees C' }),
    today_N: Type.Number({ description: 'at the tensioner: to be set today' }),
    cold_N: Type.Number({ description: 'the most in any bay on the coldest night, sliding' }),
    hot_N: Type.Number({ description: 'the least in any bay on the hottest day, sliding' }),
    coldHeld_N: Type.Number({ description: 'the same with the wire held fast at all posts' }),
    hotHeld_N: Type.Number({ description: 'the same with the wire held fast at all posts' }),
    limit_N: num,
    joint: Type.String({ description: 'its weakest joint' }),
    sagToday_m: num,
    sagHot_m: num,
    sagBay_m: Type.Number({ description: 'the bay that sags most on the hottest day' }),
    pushed_m: Type.Number({ description: 'sideways give at mid-bay under the push, hot day' }),
    push_N: Type.Number({ description: 'the least tension that a push is judged at, hot day' }),
    spring_N: Type.Optional(Type.Number({ description: 'pull on its spring, coldest night' })),
  },
  closed,
);

export const keys = {
  plan: {
    line: {
      school: words(40),
      tensioner: Type.Boolean({ description: 'an in-line tensioner on each strand of each run' }),
      tensionerAt: Type.Optional(
        Type.Union(
          TENSIONER_PLACES.map((p) => Type.Literal(p)),
          {
            description: 'where in each run; absent: in the middle, without tensioners at its end',
          },
        ),
      ),
      tensioners: Type.Optional(
        Type.Array(Type.Object({ at_m: along }, closed), {
          maxItems: 500,
          description: 'places by hand: a run takes the first that lies in it',
        }),
      ),
      springs: Type.Optional(
        Type.Boolean({ description: 'an in-line spring on each strand of each run' }),
      ),
      tie: Type.Optional(words(40)),
      join: Type.Optional(words(40)),
      strung_on: Type.Optional(date),
      takenUp_on: Type.Optional(date),
    },
    property: {
      climate: Type.Object(
        {
          cold_C: Type.Number({ minimum: -60, maximum: 40 }),
          today_C: Type.Number({ minimum: -60, maximum: 60 }),
          hot_C: Type.Number({ minimum: -20, maximum: 80 }),
        },
        closed,
      ),
      ownWires: Type.Optional(byId(OwnWireSchema)),
      breakTests: Type.Optional(Type.Array(BreakTestSchema, { maxItems: 500 })),
    },
  },
  report: { line: { strain: Type.Array(StrainSchema) }, property: {} },
} as const;
