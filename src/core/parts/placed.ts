/**
 * What of a part lies along a line, and how it follows when the line is cut, joined or turned. A list of
 * its own beside `index.ts`, in the same order (a test holds it), since the map draws with it and is not
 * to load all that works the fence out.
 */
import type { Line, Plan } from '../plan/schema.js';
import { placed as ends } from './ends/placed.js';
import { placed as gates } from './gates/placed.js';
import { placed as ground } from './ground/placed.js';
import { placed as joins } from './joins/placed.js';
import { placed as posts } from './posts/placed.js';
import { placed as power } from './power/placed.js';
import { placed as stock } from './stock/placed.js';
import { placed as wire } from './wire/placed.js';

/** Lists and tables whose `at_m` (or `from_m`, `to_m`) is a plan distance along a line. */
export interface Places {
  /** Keys of a line: lists of `{ at_m }`, in order. */
  readonly spots?: readonly string[];
  /** Keys of a line: lists of `{ from_m, to_m }`, in order. */
  readonly stretches?: readonly string[];
  /** Tables of the property with `{ line, at_m }`; `goes`: an item goes with its line, else `line` becomes null. */
  readonly tables?: Readonly<Record<string, { readonly goes: boolean }>>;
}

/** The side of a part that changes of lines ask. */
export interface Placed {
  readonly places?: Places;
  /** After a line was turned round and its places with it. */
  turned?(plan: Plan, line: Line): void;
  /** Before the places of `other` are put behind those of `line`. */
  joining?(line: Line, other: Line): void;
  /** True where a cut of the line at `s` would go through something. */
  blocksCut?(plan: Plan, line: Line, s: number): boolean;
}

export const PLACED: readonly Placed[] = [ground, stock, gates, ends, posts, wire, power, joins];
