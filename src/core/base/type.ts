/**
 * The builders of JSON schemas that we use, with the types of the package that they stand for: its own bring a parser and a
 * cloner along, ten kilobytes of what a page waits for. What they make is the same (tests/unit/type.test.ts).
 */
import type { Type as Package } from '@sinclair/typebox';

type Schema = Record<string | symbol, unknown>;
/** Marks what an object may lack. */
const MAY_LACK = Symbol('may lack');

const build = {
  Array: (items: Schema, options?: Schema) => ({ ...options, type: 'array', items }),
  Boolean: (options?: Schema) => ({ ...options, type: 'boolean' }),
  Integer: (options?: Schema) => ({ ...options, type: 'integer' }),
  Literal: (value: unknown, options?: Schema) => ({
    ...options,
    const: value,
    type: typeof value,
  }),
  Null: (options?: Schema) => ({ ...options, type: 'null' }),
  Number: (options?: Schema) => ({ ...options, type: 'number' }),
  Object(properties: Readonly<Record<string, Schema>>, options?: Schema) {
    const required = Object.keys(properties).filter((key) => !(MAY_LACK in properties[key]!));
    const of = { ...options, type: 'object', properties };
    return required.length > 0 ? { ...of, required } : of;
  },
  Optional: (schema: Schema) => ({ ...schema, [MAY_LACK]: true }),
  /** @param keys a string with a pattern, or any */
  Record: (keys: Schema, value: Schema, options?: Schema) => ({
    ...options,
    type: 'object',
    patternProperties: { [(keys['pattern'] as string | undefined) ?? '^(.*)$']: value },
  }),
  String: (options?: Schema) => ({ ...options, type: 'string' }),
  Tuple: (items: readonly Schema[], options?: Schema) => ({
    ...options,
    type: 'array',
    items,
    additionalItems: false,
    minItems: items.length,
    maxItems: items.length,
  }),
  Union: (anyOf: readonly Schema[], options?: Schema) => ({ ...options, anyOf }),
  Unknown: (options?: Schema) => ({ ...options }),
  Unsafe: (schema: Schema) => ({ ...schema }),
};

export const Type = build as unknown as Pick<typeof Package, keyof typeof build>;
