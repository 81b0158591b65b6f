/** The wire: how tight it is strung, and what the temperature makes of it. */
import { Type } from '@sinclair/typebox';
import { closed, num, str, words } from '../../plan/schemaParts.js';

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

export const keys = {
  plan: {
    line: {
      school: words(40),
      tensioner: Type.Boolean({ description: 'an in-line tensioner on each strand of each run' }),
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
    },
  },
  report: { line: { strain: Type.Array(StrainSchema) }, property: {} },
} as const;
