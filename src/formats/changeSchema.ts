/** What a change at the door must look like; apart, since a tab that makes changes needs no schemas. */
import { Type } from '../core/base/type.js';

const pointer = Type.String({ pattern: '^(/[^/]*)+$', maxLength: 400 });
const closed = { additionalProperties: false } as const;

/** What a patch at the door must look like. */
export const PatchSchema = Type.Array(
  Type.Union([
    Type.Object(
      {
        op: Type.Union([Type.Literal('add'), Type.Literal('replace')]),
        path: pointer,
        value: Type.Unknown(),
        before: Type.Optional(Type.String({ maxLength: 200 })),
      },
      closed,
    ),
    Type.Object({ op: Type.Literal('remove'), path: pointer }, closed),
  ]),
  { minItems: 1, maxItems: 50_000 },
);

const name = (least: number) => Type.String({ pattern: `^[A-Za-z0-9-]{${least},64}$` });
/** What a change at the door must look like. */
export const ProposedSchema = Type.Object(
  {
    changeId: name(8),
    tab: name(4),
    base: Type.Integer({ minimum: 0 }),
    kind: Type.Union([Type.Literal('do'), Type.Literal('undo'), Type.Literal('redo')]),
    of: Type.Optional(name(8)),
    words: Type.String({ maxLength: 200 }),
    patch: PatchSchema,
    inverse: PatchSchema,
    after: Type.Optional(Type.Array(name(8), { maxItems: 1000 })),
  },
  { additionalProperties: false },
);
