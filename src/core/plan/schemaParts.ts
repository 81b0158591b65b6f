/** Pieces that every schema of the plan is made of. */
import { Type, type TSchema } from '@sinclair/typebox';

export const closed = { additionalProperties: false } as const;
export const id = Type.String({ pattern: '^[A-Za-z0-9][A-Za-z0-9_-]{0,39}$' });
export const words = (max: number) => Type.String({ maxLength: max });
export const byId = <T extends TSchema>(item: T) =>
  Type.Record(Type.String({ pattern: '^[A-Za-z0-9][A-Za-z0-9_-]{0,39}$' }), item, closed);
export const metres = Type.Number({ minimum: -1e7, maximum: 1e7 });
