/** How the work on the fence is planned: who, when, with what; what of its tasks was changed by hand. */
import { Type } from '../../base/type.js';
import { along, byId, closed, id, words } from '../../plan/schemaParts.js';

/** Of this century: a plan of years that have five figures, or none, is a slip of the hand. */
const DAY = '20\\d{2}-(0[1-9]|1[0-2])-(0[1-9]|[12]\\d|3[01])';
const day = Type.String({
  pattern: `^${DAY}$`,
  description: 'a day from 2000 to 2099, YYYY-MM-DD',
});
const days = Type.Array(day, { maxItems: 400 });
const clock = Type.String({ pattern: '^([01]\\d|2[0-3]):(00|15|30|45)$', description: 'HH:MM' });
/** Names of tasks: `posts:burn`, `set:burn.v2`, with `#2` for the second piece of one. */
const TASK = '^[A-Za-z0-9][A-Za-z0-9_.:#-]{0,119}$';

export const HIRED = ['hire.driver', 'hire.auger'] as const;
const hired = Type.Union(HIRED.map((h) => Type.Literal(h)));

export const CrewSchema = Type.Object(
  {
    id,
    name: Type.String({ minLength: 1, maxLength: 60, description: 'a role: lead hand, driver' }),
    runs: Type.Optional(Type.Array(hired, { maxItems: 4 })), // prettier-ignore
    off: Type.Optional(days),
  },
  closed,
);

export const OwnTaskSchema = Type.Object(
  {
    id,
    name: Type.String({ minLength: 1, maxLength: 80 }),
    line: Type.Optional(id),
    at_m: Type.Optional(along),
    hours: Type.Number({ exclusiveMinimum: 0, maximum: 2000 }),
    people: Type.Integer({ minimum: 1, maximum: 20 }),
    after: Type.Optional(Type.Array(Type.String({ pattern: TASK }), { maxItems: 20 })),
  },
  closed,
);

export const TaskEditSchema = Type.Object(
  {
    hours: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 2000 })), // prettier-ignore
    people: Type.Optional(Type.Integer({ minimum: 1, maximum: 20 })),
    from: Type.Optional(
      Type.String({ pattern: `^${DAY}T\\d{2}:\\d{2}$`, description: 'not to begin before' }),
    ),
    first: Type.Optional(Type.Literal(true)),
    who: Type.Optional(Type.Array(id, { minItems: 1, maxItems: 20 })),
    split: Type.Optional(Type.Integer({ minimum: 2, maximum: 20 })), // prettier-ignore
    out: Type.Optional(Type.Literal(true)),
    note: Type.Optional(words(400)),
  },
  closed,
);

const HireSchema = Type.Object(
  {
    from: Type.Optional(day),
    to: Type.Optional(day),
    own: Type.Optional(Type.Literal(true)),
  },
  closed,
);

export const BuildSchema = Type.Object(
  {
    start: Type.Optional(day),
    from: Type.Optional(clock),
    to: Type.Optional(clock),
    break_min: Type.Optional(Type.Integer({ minimum: 0, maximum: 240, multipleOf: 15 })),
    days: Type.Optional(
      Type.Array(Type.Integer({ minimum: 1, maximum: 7 }), { minItems: 1, maxItems: 7, uniqueItems: true }), // prettier-ignore
    ),
    off: Type.Optional(days),
    rain: Type.Optional(days),
    crew: Type.Optional(byId(CrewSchema)),
    machines: Type.Optional(Type.Record(Type.String({ pattern: '^hire\\.[a-z]{1,20}$' }), HireSchema, closed)), // prettier-ignore
    own: Type.Optional(byId(OwnTaskSchema)),
    tasks: Type.Optional(Type.Record(Type.String({ pattern: TASK }), TaskEditSchema, closed)),
  },
  closed,
);

export const keys = {
  plan: { line: {}, property: { build: Type.Optional(BuildSchema) } },
  report: { line: {}, property: {} },
} as const;
