/**
 * What every part keeps in the plan and says in the report: schemas alone, so that the types of plan
 * and report, on which all else stands, can be read from them. `index.ts` lists the parts themselves
 * in the same order; a test holds the two lists together.
 */
import type { TProperties } from '@sinclair/typebox';
import { keys as build } from './build/keys.js';
import { keys as ends } from './ends/keys.js';
import { keys as gates } from './gates/keys.js';
import { keys as ground } from './ground/keys.js';
import { keys as hold } from './hold/keys.js';
import { keys as joins } from './joins/keys.js';
import { keys as land } from './land/keys.js';
import { keys as posts } from './posts/keys.js';
import { keys as power } from './power/keys.js';
import { keys as stock } from './stock/keys.js';
import { keys as strands } from './strands/keys.js';
import { keys as supplies } from './supplies/keys.js';
import { keys as wire } from './wire/keys.js';

/** The schemas that one part adds. */
export interface PartKeys {
  readonly plan: { readonly line: TProperties; readonly property: TProperties };
  readonly report: { readonly line: TProperties; readonly property: TProperties };
}

export const KEYS = [
  ground,
  stock,
  gates,
  ends,
  posts,
  wire,
  hold,
  strands,
  land,
  power,
  joins,
  supplies,
  build,
] as const satisfies readonly PartKeys[];

type All = (typeof KEYS)[number];
type Together<U> = (U extends unknown ? (one: U) => void : never) extends (all: infer T) => void
  ? T
  : never;
/** The keys of all parts together, as one set of properties. */
export type Merged<In extends 'plan' | 'report', Of extends 'line' | 'property'> = Together<
  All[In][Of]
>;

/** The keys of some parts as one set of properties. @throws RangeError when two parts claim one key */
export function merged<In extends 'plan' | 'report', Of extends 'line' | 'property'>(
  parts: readonly PartKeys[],
  where: In,
  of: Of,
): Merged<In, Of> {
  const out: TProperties = {};
  for (const part of parts) {
    for (const [key, schema] of Object.entries(part[where][of])) {
      if (Object.hasOwn(out, key))
        throw new RangeError(`two parts claim the ${where} key "${key}"`);
      out[key] = schema;
    }
  }
  return out as Merged<In, Of>;
}
