/** Ties at a place set by hand, taken back, given to places alike; and what follows when strands come and go. */
import type { Line, Plan, Strand } from '../plan/schema.js';
import { Groups } from '../base/groups.js';
import type { Metal } from '../plan/schemaParts.js';
import { strandOf } from '../power/joined.js';
import { nearestPair, USUAL_CONNECTOR } from '../power/ties.js';
import type { FurtherTie } from '../wiring/further.js';
import type { Arriving, Place } from '../wiring/place.js';

type Join = NonNullable<Line['joins']>[number];
type End = Join['ties'][number]['a'];

/** Two ends tied, by their numbers at the place. */
export type NewTie = Place['ties'][number];

/** What is tied at a place from now on: exactly this. Answers with the place as it is then. */
export function setTies(plan: Plan, place: Place, ties: readonly NewTie[]): Place {
  const line = plan.lines[place.join?.line ?? place.line];
  if (!line) return place;
  const own = ties.map(({ a, b, ...how }): Join['ties'][number] => ({
    a: endOf(place.arriving[a]!, line.id),
    b: endOf(place.arriving[b]!, line.id),
    ...how,
  }));
  const join = place.join && line.joins?.find((j) => j.at_m === place.join!.at_m);
  const at_m = join?.at_m ?? place.at_m;
  if (join) join.ties = own;
  else line.joins = [...(line.joins ?? []), { at_m, ties: own }].sort((p, q) => p.at_m - q.at_m);
  return { ...place, ties, join: { line: line.id, at_m } };
}

/** One tie more; nothing where the two are tied already. */
export function tie(plan: Plan, place: Place, more: NewTie): void {
  if (more.a === more.b || tieBetween(place, more.a, more.b) >= 0) return;
  setTies(plan, place, [...place.ties, more]);
}

/** The number of the tie between two ends; -1: none. */
export const tieBetween = ({ ties }: Pick<Place, 'ties'>, a: number, b: number): number =>
  ties.findIndex((t) => (t.a === a && t.b === b) || (t.a === b && t.b === a));

export const untie = (plan: Plan, place: Place, k: number): Place =>
  setTies(plan, place, place.ties.filter((_, i) => i !== k)); // prettier-ignore

/**
 * A cut-out switch between the live strands of a run and all else at the place where it ends: they are tied to one
 * another on both sides, and across once, through the switch. Answers with the place as it is then; null: there is
 * nothing on one of the sides.
 */
export function switchIn(plan: Plan, place: Place, of: RunEnd): Place | null {
  const live = place.arriving.flatMap((a, k) => (a.duty === 'live' ? [k] : []));
  const inside = new Set(live.filter((k) => endsHere(place.arriving[k]!, of)));
  const [own, rest] = [live.filter((k) => inside.has(k)), live.filter((k) => !inside.has(k))];
  const across = place.ties.filter((t) => inside.has(t.a) !== inside.has(t.b));
  if (own.length === 0 || rest.length === 0) return null;
  const kind = across[0]?.kind ?? kindAt(plan, place);
  const kept = place.ties.filter((t) => !across.includes(t));
  const nearest = (from: readonly number[], to: readonly number[]) =>
    nearestPair(from, to, (k) => place.arriving[k]!.height_m);
  /** Ties that make one of ends that those kept leave in several groups. */
  const bound = (ends: readonly number[]): NewTie[] => {
    const out: NewTie[] = [];
    for (;;) {
      const groups = new Groups();
      for (const { a, b } of [...kept, ...out]) groups.join(String(a), String(b));
      const first = ends.filter((k) => groups.of(String(k)) === groups.of(String(ends[0]!)));
      const others = ends.filter((k) => !first.includes(k));
      if (others.length === 0) return out;
      const [a, b] = nearest(first, others);
      out.push({ a, b, kind });
    }
  };
  const [a, b] = nearest(own, rest);
  return setTies(plan, place, [
    ...kept,
    ...bound(own),
    ...bound(rest),
    { a, b, kind, switch: true },
  ]);
}

/** Which end of which run. */
export interface RunEnd {
  readonly line: string;
  readonly run: number;
  readonly side: Arriving['side'];
}

const endsHere = (a: Arriving, { line, run, side }: RunEnd): boolean =>
  a.line === line && a.side === side && strandOf(a.name)?.run === run;

/** The metal of the jumpers at a place; null: the fence's own. */
export function setMetal(plan: Plan, place: Place, metal: Metal | null): void {
  const { line, at_m } = (place.join ? place : setTies(plan, place, place.ties)).join!;
  const join = plan.lines[line]?.joins?.find((j) => j.at_m === at_m);
  if (join && metal) join.metal = metal;
  else delete join?.metal;
}

/** A switch put into a tie, or taken out. */
export function setSwitch(plan: Plan, place: Place, k: number, on: boolean): Place {
  const { a, b, kind } = place.ties[k]!;
  const now: NewTie = on ? { a, b, kind, switch: true } : { a, b, kind };
  return setTies(plan, place, place.ties.map((t, i) => (i === k ? now : t))); // prettier-ignore
}

/** With what it is tied at a place, where nothing else is said. */
const kindAt = (plan: Plan, { ties }: Place) => ties[0]?.kind ?? plan.connectors ?? USUAL_CONNECTOR;

/** Ties more, where they are named by strands of the circuit. */
export function tieFurther(plan: Plan, place: Place, more: readonly FurtherTie[]): Place {
  const end = (name: string) => place.arriving.findIndex((a) => a.name === name);
  const kind = kindAt(plan, place);
  const ties = more.map(({ a, b, switch: cut }): NewTie => ({ a: end(a), b: end(b), kind, ...(cut ? { switch: true } : {}) })); // prettier-ignore
  return setTies(plan, place, [...place.ties, ...ties.filter((t) => t.a >= 0 && t.b >= 0)]);
}

/** Back to what is proposed. */
export function asProposed(plan: Plan, { join }: Pick<Place, 'join'>): void {
  const line = join ? plan.lines[join.line] : undefined;
  if (!join || !line?.joins) return;
  line.joins = line.joins.filter((j) => j.at_m !== join.at_m);
  if (line.joins.length === 0) delete line.joins;
}

/** Other places at which the same strands arrive from the same sides. */
export const placesAlike = (place: Place, all: readonly Place[]): Place[] =>
  all.filter((p) => p.location !== place.location && shapeOf(p) === shapeOf(place));

const shapeOf = ({ arriving }: Place): string => {
  const lines = [...new Set(arriving.map((a) => a.line))];
  return arriving.map((a) => [lines.indexOf(a.line), a.side, a.strand, a.duty].join()).join(' ');
};

/** Gives what is tied at a place to others that are alike. */
export function copyTies(plan: Plan, from: Place, to: readonly Place[]): void {
  for (const place of to) {
    if (from.join) setTies(plan, place, from.ties);
    else asProposed(plan, place);
  }
}

/**
 * Puts other strands on a line. Ties follow their strand by its height; one that was moved is the one left over; ties
 * of a strand that was taken away go with it.
 */
export function restring(plan: Plan, id: string, strands: Strand[]): void {
  const line = plan.lines[id]!;
  const was = line.strands.map((s) => s.height_m);
  line.strands = strands;
  const to = new Map<number, number>();
  const free = new Set(strands.keys());
  const near = (a: number, b: number) => Math.abs(a - b) < 5e-4;
  was.forEach((h, i) => {
    const k = [...free].find((f) => near(strands[f]!.height_m, h));
    if (k === undefined) return;
    to.set(i, k);
    free.delete(k);
  });
  // Moved ones keep their order; of more strands than before the new ones stay free.
  const left = was.flatMap((_, i) => (to.has(i) ? [] : [i]));
  const rest = [...free];
  if (left.length === rest.length) left.forEach((i, n) => to.set(i, rest[n]!));
  for (const other of Object.values(plan.lines)) {
    const isOwn = (e: End) => (e.line ?? other.id) === id;
    const follow = (e: End): End | null => {
      if (!isOwn(e)) return e;
      const strand = to.get(e.strand);
      return strand === undefined ? null : { ...e, strand };
    };
    for (const join of other.joins ?? [])
      if (join.ties.some((t) => isOwn(t.a) || isOwn(t.b)))
        join.ties = join.ties.flatMap(({ a, b, ...how }) => {
          const [p, q] = [follow(a), follow(b)];
          return p && q ? [{ a: p, b: q, ...how }] : [];
        });
  }
}

const endOf = ({ line, side, strand }: Arriving, own: string): End => ({
  ...(line === own ? {} : { line }),
  side,
  strand,
});
