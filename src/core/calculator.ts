/** What a single calculator is: the schema of its inputs and the function behind it. Keys carry their units. */
import type { Static, TObject } from '@sinclair/typebox';
import { Type } from './base/type.js';

export const positive = Type.Number({ exclusiveMinimum: 0, maximum: 1e12 });
export const notNegative = Type.Number({ minimum: 0, maximum: 1e12 });
export const any = Type.Number({ minimum: -1e9, maximum: 1e9 });
export const name = Type.String({ minLength: 1, maxLength: 200 });

/** One calculator: the schema of its inputs and the function behind it. */
export interface Calculator {
  readonly about: string;
  readonly inputs: TObject;
  run(inputs: never): object;
}

export function calculator<S extends TObject>(
  about: string,
  inputs: S,
  run: (inputs: Static<S>) => object,
): Calculator {
  return { about, inputs, run: run as (inputs: never) => object };
}
