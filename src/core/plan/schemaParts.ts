/** Pieces that every schema of the plan is made of. */
import type { TSchema } from '@sinclair/typebox';
import { Type } from '../base/type.js';

export const closed = { additionalProperties: false } as const;
export const id = Type.String({ pattern: '^[A-Za-z0-9][A-Za-z0-9_-]{0,39}$' });
export const words = (max: number) => Type.String({ maxLength: max });
export const byId = <T extends TSchema>(item: T) =>
  Type.Record(Type.String({ pattern: '^[A-Za-z0-9][A-Za-z0-9_-]{0,39}$' }), item, closed);
export const metres = Type.Number({ minimum: -1e7, maximum: 1e7 });
/** Plan distance from the start of a line, m. */
export const along = Type.Number({
  minimum: 0,
  maximum: 1e7,
  description: 'plan distance from the start',
});
/** The stock of one side of a line. */
export const stock = Type.Array(words(40), {
  maxItems: 12,
  description: 'profile ids of the stock here',
});
export const num = Type.Number();
export const maybe = Type.Union([Type.Number(), Type.Null()]);
export const str = Type.String();

/** Metals of strands and jumpers, by their surface. */
export const METALS = ['zinc', 'aluminium', 'stainless', 'copper'] as const;
export type Metal = (typeof METALS)[number];
