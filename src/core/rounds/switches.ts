/** Which cut-out switches stand open when: as somebody put it down, opened and closed. */
import type { Plan } from '../plan/schema.js';
import { planLength } from '../plan/geometry.js';
import type { Place } from '../power/pulseNet.js';
import type { EventKind } from './logged.js';

/** What the log says of a switch. */
export interface Switched {
  readonly time: string;
  readonly what: EventKind;
  readonly line: string | null;
  readonly at_m: number | null;
}

const keyOf = ({ line, at_m }: Place): string => `${line} ${at_m.toFixed(2)}`;

/** What was put down of switches, the oldest first. */
export const switchedOf = <E extends Switched>(events: readonly E[]): E[] =>
  events
    .filter((e) => (e.what === 'switch_open' || e.what === 'switch_closed') && e.line !== null)
    .sort((a, b) => Date.parse(a.time) - Date.parse(b.time));

/**
 * The places where the fence stands parted at a time.
 * @param switched as {@link switchedOf} gives it
 * @param time ISO 8601
 */
export function openAt(switched: readonly Switched[], time: string): Place[] {
  const open = new Map<string, Place>();
  for (const { time: then, what, line, at_m } of switched) {
    if (Date.parse(then) > Date.parse(time)) break;
    const place = { line: line!, at_m: at_m ?? 0 };
    if (what === 'switch_open') open.set(keyOf(place), place);
    else open.delete(keyOf(place));
  }
  return [...open.values()].sort((a, b) => a.line.localeCompare(b.line) || a.at_m - b.at_m);
}

/** The switches that the plan has: the run of a line that ends there is parted by them. */
export function switchesOf({ lines }: Pick<Plan, 'lines'>): Place[] {
  const out = new Map<string, Place>();
  for (const l of Object.values(lines))
    for (const { at_m, ties } of l.joins ?? [])
      for (const { a, b, switch: cut } of ties) {
        if (!cut) continue;
        const own = [a, b].find((end) => !end.line && end.side !== 'through') ?? a;
        const line = own.line ?? l.id;
        // At another line's place: that one's own end is nearest to its tie.
        const length = lines[line] ? planLength(lines[line]) : 0;
        const at = own.line ? (own.side === 'after' ? 0 : length) : at_m + (own.side === 'after' ? BESIDE_M : -BESIDE_M);
        const place = { line, at_m: Math.min(length, Math.max(0, at)) };
        out.set(keyOf(place), place);
      }
  return [...out.values()];
} // prettier-ignore

/** So far into its run a switch parts it, m. */
const BESIDE_M = 1;
