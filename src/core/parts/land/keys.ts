/** What lies on the land beside the fences, and the paddocks between them. */
import { Type } from '../../base/type.js';
import { byId, closed, num, str } from '../../plan/schemaParts.js';
import { PaddockSchema, ThingSchema } from './planKeys.js';

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

export const keys = {
  plan: {
    line: {},
    property: {
      things: Type.Optional(byId(ThingSchema)),
      paddocks: Type.Optional(byId(PaddockSchema)),
    },
  },
  report: {
    line: {
      barred: Type.Array(Type.Object({ from_m: num, to_m: num, why: str }, closed), {
        description: 'where no post may stand',
      }),
      signs: Type.Integer({ description: 'warning signs that the line wants' }),
    },
    property: {
      paddocks: Type.Array(PaddockReportSchema),
      gaps: Type.Array(
        Type.Object(
          { line: str, vertex: Type.Integer(), e: num, n: num, toLine: str, width_m: num },
          closed,
        ),
        { description: 'free ends that stop short of another line' },
      ),
    },
  },
} as const;
