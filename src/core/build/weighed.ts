/** What a timetable costs: the crew until the end, hired machines for as long as they stand there, and moving about. */
import { sum } from '../base/numbers.js';
import { figure, recordOf, type Catalogue } from '../plan/catalogue.js';
import type { BuildPlan } from '../plan/schema.js';
import { SLOT_H, type Calendar, type Working } from './calendar.js';
import { dayNumber, dayText, weekday } from '../base/days.js';
import type { Left } from './problem.js';
import type { Timetable } from './serial.js';

export interface Hire {
  readonly item: string;
  readonly from: string;
  readonly to: string;
  /** Days for which it is paid, and on which it works. */
  readonly days: number;
  readonly used: number;
  readonly idle: number;
  readonly idleCost: number;
  readonly cost: number;
}

/** What stays the same while the work is planned. */
export interface Site {
  readonly w: Working;
  readonly build: BuildPlan | undefined;
  readonly cat: Catalogue;
}

/** How long a machine is there; null: nothing is hired. */
function stay(
  item: string,
  t: Timetable,
  left: readonly Left[],
  cal: Calendar,
  { w, build }: Site,
): { from: number; to: number; days: number; used: number } | null {
  const said = build?.machines?.[item];
  if (said?.own) return null;
  const worked = new Set<number>();
  for (let k = 0; k < left.length; k++) {
    const { task, slots } = left[k]!;
    if (task.machine !== item || slots === 0) continue;
    const last = cal.day[t.start[k]! + slots - 1]!;
    for (let s = t.start[k]!; s < t.start[k]! + slots; s++) {
      worked.add(cal.day[s]!);
      if (cal.day[s] === last) break;
    }
  }
  if (worked.size === 0) return null;
  const from = said?.from ? dayNumber(said.from) : Math.min(...worked);
  const to = said?.to ? dayNumber(said.to) : Math.max(...worked);
  // It is paid for on every day of the week that is worked: in rain, and when nobody comes.
  let days = 0;
  for (let d = from; d <= to; d++) if (w.days.includes(weekday(d))) days++;
  let used = 0;
  for (const d of worked) if (d >= from && d <= to) used++;
  return { from, to, days, used };
}

/** What a machine costs; null: nothing is hired. */
export function hireOf(
  item: string,
  t: Timetable,
  left: readonly Left[],
  cal: Calendar,
  site: Site,
): Hire | null {
  const there = stay(item, t, left, cal, site);
  if (!there) return null;
  const { from, to, days, used } = there;
  const { price } = recordOf(site.cat.prices, item);
  const idle = Math.max(0, days - used);
  return {
    item,
    from: dayText(from),
    to: dayText(to),
    days,
    used,
    idle,
    idleCost: idle * price,
    cost: Math.max(days, used) * price,
  };
}

/** In the property's money. @param left those that the timetable is of, in its order */
export function weigher(
  left: readonly Left[],
  cal: Calendar,
  site: Site,
): (t: Timetable) => number {
  const { w, cat } = site;
  const wage = figure(cat, 'supplies.wage');
  const aSlot = Math.max(1, w.crew.length) * wage * SLOT_H;
  // Two go together.
  const aMove = 2 * figure(cat, 'build.moveHours') * wage;
  const machines = [...new Set(left.flatMap((l) => l.task.machine ?? []))];
  const days = (cal.day.at(-1) ?? cal.first) - cal.first + 1;
  const lines = [...new Set(left.map((l) => l.task.line))];
  const line = left.map((l) => lines.indexOf(l.task.line) * days - cal.first);
  const seen = new Uint8Array(lines.length * days);
  /** On how many days each line is worked at, all lines together: every one of them is a move. */
  const moves = (t: Timetable): number => {
    seen.fill(0);
    let n = 0;
    for (let k = 0; k < left.length; k++) {
      const slots = left[k]!.slots;
      if (slots === 0) continue;
      const last = cal.day[t.start[k]! + slots - 1]!;
      for (let d = cal.day[t.start[k]!]!; d <= last; d++)
        if (seen[line[k]! + d]! === 0) {
          seen[line[k]! + d] = 1;
          n++;
        }
    }
    return n;
  };
  return (t) =>
    t.finish * aSlot +
    moves(t) * aMove +
    sum(
      machines.map((m) => (stay(m, t, left, cal, site)?.days ?? 0) * recordOf(cat.prices, m).price),
    );
}

/**
 * Orders in which people build: line after line; all that wants a machine first, line after line; stage after stage.
 * @returns by order and task, the less the earlier
 */
export function usualOrders(left: readonly Left[], lines: readonly string[]): Float64Array[] {
  const n = left.length;
  const line = left.map(({ task }) =>
    task.line === null ? lines.length : lines.indexOf(task.line),
  );
  const at = new Map(left.map((l, k) => [l.task.id, k]));
  const early = new Uint8Array(n);
  const mark = (k: number): void => {
    if (early[k]) return;
    early[k] = 1;
    for (const a of left[k]!.task.after) if (at.has(a.id)) mark(at.get(a.id)!);
  };
  left.forEach((l, k) => l.task.machine !== null && mark(k));
  const by = (key: (k: number) => number) =>
    Float64Array.from(left, (_, k) => key(k) + k / (n + 1));
  return [
    by((k) => line[k]!),
    by((k) => line[k]! + (early[k] ? 0 : 1000)),
    by((k) => line[k]! + 1000 * STAGE.indexOf(left[k]!.task.kind)),
  ];
}
const STAGE = ['clear', 'guide', 'set', 'stout', 'brace', 'posts', 'insulators', 'trench', 'hang', 'run', 'tie', 'walk', 'tension', 'again', 'jumpers']; // prettier-ignore
