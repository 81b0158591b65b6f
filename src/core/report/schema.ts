/**
 * The report: everything `evaluate` finds out about a plan. Plain JSON, SI units in the keys.
 * The schema is the single definition; the parts of the fence bring their pieces of it.
 */
import type { Static } from '@sinclair/typebox';
import { Type } from '../base/type.js';
import { KEYS, merged, type PartKeys } from '../parts/keys.js';
import type { EndReportSchema, HoldCheckSchema } from '../parts/ends/keys.js';
import type { LegSchema } from '../parts/ground/keys.js';
import type { ClearanceSchema, PostSchema } from '../parts/hold/keys.js';
import type { PaddockReportSchema } from '../parts/land/keys.js';
import type { RunSchema, StretchSchema } from '../parts/posts/keys.js';
import type {
  EarthReportSchema,
  EnergiserReportSchema,
  SeasonPowerSchema,
} from '../parts/power/keys.js';
import type { StrainSchema } from '../parts/wire/keys.js';
import { closed, num, str } from '../plan/schemaParts.js';

export * from '../parts/strands/reportKeys.js';

const lineOf = (parts: readonly PartKeys[]) =>
  Type.Object({ id: str, name: str, ...merged(parts, 'report', 'line') }, closed);

export const SupplySchema = Type.Object(
  {
    id: str,
    name: str,
    quantity: Type.Number({ description: 'to be bought, as changed by hand' }),
    counted: Type.Number({ description: 'to be bought, as counted on the plan' }),
    unit: str,
    price: num,
    per: str,
    tax: Type.Number({ description: 'share of the price that is added' }),
    cost: Type.Number({ description: 'without tax; of what is left out, 0' }),
    note: str,
    changed: Type.Optional(Type.String({ description: 'by hand, with its note' })),
    out: Type.Optional(Type.Literal(true, { description: 'not to be bought' })),
    uses: Type.Optional(
      Type.Record(str, num, { description: 'what it goes into, pieces or metres' }),
    ),
    lines: Type.Record(str, num, { description: 'how much of it each line takes' }),
    places: Type.Optional(
      Type.Record(str, Type.Array(Type.Tuple([num, num])), {
        description: 'of what belongs to places: by line, plan distance, m, and how much',
      }),
    ),
  },
  closed,
);

const kind = Type.Union([Type.Literal('stop'), Type.Literal('mend'), Type.Literal('confirm')]);
export const FindingSchema = Type.Object(
  {
    id: str,
    rule: str,
    cause: Type.String({
      description: 'what is the matter, in words that hold for all its places',
    }),
    step: Type.String({ description: 'of the work, where it is mended' }),
    kind,
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
    badness: Type.Union([num, Type.Null()], { description: 'how bad it is; greater is worse' }),
    accepted: Type.Optional(
      Type.Object(
        {
          note: str,
          who: str,
          at: str,
          kind,
          badness: Type.Union([num, Type.Null()]),
          holds: Type.Boolean({ description: 'false: it has become worse since' }),
        },
        { ...closed, description: 'somebody has looked at it and lets it be' },
      ),
    ),
    withheld: Type.Optional(Type.String({ description: 'why a mend is not offered' })),
    trying: Type.Optional(Type.Boolean({ description: 'a mend is still to be tried' })),
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

/** The report's schema with the pieces of these parts. */
export const reportSchemaOf = (parts: readonly PartKeys[] = KEYS) =>
  Type.Object(
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
      lines: Type.Record(str, lineOf(parts)),
      ...merged(parts, 'report', 'property'),
      supplies: Type.Array(SupplySchema),
      findings: Type.Array(FindingSchema),
      unjudged: Type.Integer({ description: 'mends that were not judged yet, and so not offered' }),
    },
    { ...closed, $id: 'anabatic-report-1', title: 'Anabatic report, version 1' },
  );

export const ReportSchema = reportSchemaOf();

export type Report = Static<typeof ReportSchema>;
export type LineReport = Report['lines'][string];
export type EndReport = Static<typeof EndReportSchema>;
export type HoldCheck = Static<typeof HoldCheckSchema>;
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
