/** What is tied at each place of a network: by hand in the plan, elsewhere by one rule. */
import type { Plan } from '../plan/schema.js';
import { handTies, strandIn, strandOf } from './joined.js';
import type { Fence } from './wired.js';

export type ConnectorId = NonNullable<Plan['connectors']>;

/** Two strands of a place, by their names in the circuit. */
export interface Tied {
  readonly a: string;
  readonly b: string;
  readonly kind: ConnectorId;
  /** A cut-out switch stands in it. */
  readonly switch?: true;
}

/** A join of the plan: its line, and where it says that it is, m. */
export interface JoinAt {
  readonly line: string;
  readonly at_m: number;
}

export interface TiesHere {
  /** Where the plan says so; null: as proposed. */
  readonly join: JoinAt | null;
  readonly ties: readonly Tied[];
}

/** Strands that carry at a place, by duty, in the order in which the runs reach it. */
export interface Present {
  readonly live: readonly string[];
  readonly earth: readonly string[];
}

/** With what strands are tied where nothing else was chosen. */
export const USUAL_CONNECTOR: ConnectorId = 'clamp';

/**
 * What is tied, by place.
 * @param ended places where runs end, lines meet or a cable comes in: each duty is tied there
 * @param rods places where only the earth strands are, at a rod of their own
 */
export function tiesOf(
  net: Fence,
  present: ReadonlyMap<string, Present>,
  ended: ReadonlySet<string>,
  rods: ReadonlySet<string>,
): Map<string, TiesHere> {
  const out = new Map<string, TiesHere>();
  for (const [location, { line, at_m, ties: pairs }] of handTies(net)) {
    const here = present.get(location);
    const there = new Set(here && [...here.live, ...here.earth]);
    const ties = pairs.filter(({ a, b }) => there.has(a) && there.has(b));
    out.set(location, { join: { line, at_m }, ties });
  }
  const kind = net.plan.connectors ?? USUAL_CONNECTOR;
  for (const location of new Set([...ended, ...rods])) {
    const here = present.get(location);
    if (out.has(location) || !here) continue;
    const ties = [
      ...(ended.has(location) ? proposedTies(net, here.live) : []),
      ...proposedTies(net, here.earth),
    ].map(([a, b]): Tied =>
      cutOut(net, a) === cutOut(net, b) ? { a, b, kind } : { a, b, kind, switch: true },
    );
    if (ties.length > 0) out.set(location, { join: null, ties });
  }
  return out;
}

/**
 * Strands of one duty tied at a place: those of the first run one to the next; of each further run of the same line
 * strand by strand across the post, so that no single jumper holds the run; of another line one to the next and then
 * once to the strand of the first that is nearest in height.
 */
export function proposedTies(net: Fence, names: readonly string[]): [a: string, b: string][] {
  const runs = new Map<string, string[]>();
  for (const name of names) {
    const { line, run } = strandOf(name)!;
    const key = `${line} ${run}`;
    runs.set(key, [...(runs.get(key) ?? []), name]);
  }
  const [first, ...others] = [...runs.values()];
  if (!first) return [];
  const out = ladder(first);
  const lineOf = (name: string) => strandOf(name)!.line;
  const numberOf = (name: string) => strandOf(name)!.strand;
  for (const own of others) {
    const across = own.flatMap((b): [string, string][] => {
      const a = first.find((f) => lineOf(f) === lineOf(b) && numberOf(f) === numberOf(b));
      return a === undefined ? [] : [[a, b]];
    });
    if (across.length === own.length) {
      out.push(...across);
      continue;
    }
    out.push(...ladder(own));
    out.push(nearestPair(first, own, (name) => strandIn(net, name).height_m));
  }
  return out;
}

/** Whether a strand has a cut-out: it hangs on the others through a switch. */
export const cutOut = (net: Fence, name: string): boolean => strandIn(net, name).switched ?? false;

/** Of two lists of ends the two, one of each, that are nearest in height; the first of equals. */
export function nearestPair<T>(
  from: readonly T[],
  to: readonly T[],
  height: (end: T) => number,
): [T, T] {
  const pairs = from.flatMap((a) => to.map((b): [T, T] => [a, b]));
  const apart = ([a, b]: [T, T]) => Math.abs(height(a) - height(b));
  return pairs.reduce((best, p) => (apart(p) < apart(best) - 1e-9 ? p : best));
}

const ladder = (names: readonly string[]): [string, string][] =>
  names.slice(1).map((b, k) => [names[k]!, b]);
