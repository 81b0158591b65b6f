/** A timetable in days and hours: who is where from when to when, and how far a task has come then. */
import { SLOT_H, type Calendar, type Working } from './calendar.js';
import { endOf_h } from './clock.js';
import { dayText, timeAt } from '../base/days.js';
import type { Left, Resources } from './problem.js';
import type { Did } from './rates.js';
import type { Timetable } from './serial.js';
import type { Task } from './task.js';
import { seat } from './who.js';

/** A stretch of one day at a task. */
export interface Shift {
  readonly day: string;
  /** HH:MM. */
  readonly from: string;
  readonly to: string;
  /** Ids of the crew. */
  readonly who: readonly string[];
  /** From which share of the task to which. */
  readonly part: readonly [number, number];
}

export interface PlannedTask extends Task {
  /** Hours of one person that are left, at this crew's rate. */
  readonly left_h: number;
  /** YYYY-MM-DDTHH:MM; null: it is done. */
  readonly start: string | null;
  readonly end: string | null;
  readonly shifts: readonly Shift[];
  /** By how many working hours it may be later without the end being later; null: it does not bear on the end. */
  readonly float_h: number | null;
  /** On the path of waits and work that no number of people makes shorter. */
  readonly critical: boolean;
  /** Share that is done, and on which day last. */
  readonly done: number;
  readonly doneOn: string | null;
}

export interface Done {
  /** By task. */
  readonly share: ReadonlyMap<string, number>;
  /** Day on which a whole task was done. */
  readonly ended: ReadonlyMap<string, string>;
  readonly last: ReadonlyMap<string, string>;
}

/** A hair under the whole is the whole. */
const WHOLE = 0.995;

/** What the records say is done. */
export function doneOf(did: readonly Did[]): Done {
  const share = new Map<string, number>();
  const last = new Map<string, string>();
  for (const d of did) {
    share.set(d.task, Math.min(1, (share.get(d.task) ?? 0) + d.share));
    if (d.day > (last.get(d.task) ?? '')) last.set(d.task, d.day);
  }
  const ended = new Map([...last].filter(([id]) => share.get(id)! >= WHOLE));
  return { share, ended, last };
}

/** A task that is done. */
export const finished = (t: Task, done: Done): PlannedTask => ({
  ...t,
  left_h: 0,
  start: null,
  end: null,
  shifts: [],
  float_h: null,
  critical: false,
  done: 1,
  doneOn: done.ended.get(t.id) ?? null,
});

export interface Seated {
  readonly left: readonly Left[];
  readonly table: Timetable;
  /** The latest start of each; null: they do not bear on the end. */
  readonly late: Int32Array | null;
  /** Those that are critical. */
  readonly critical: ReadonlySet<number>;
  readonly cal: Calendar;
  readonly w: Working;
  readonly res: Resources;
  readonly done: Done;
}

/** The tasks of a timetable, with who is at each. */
export function plannedTasks({
  left,
  table,
  late,
  critical,
  cal,
  w,
  res,
  done,
}: Seated): PlannedTask[] {
  const time = (slot: number) => timeAt(cal.first, cal.clock.at_h[slot]!);
  const ended = (slot: number) => timeAt(cal.first, endOf_h(cal.clock, slot));
  const stints = seat(
    left.map((l, k) => {
      const driver = table.chosen[k]! >= 0 ? [table.chosen[k]! - res.member(0)] : [];
      return { start: table.start[k]!, slots: l.slots, people: l.people, given: [...l.given, ...driver] }; // prettier-ignore
    }),
    cal.each,
  );
  return left.map(({ task, slots, people }, k): PlannedTask => {
    const share = done.share.get(task.id) ?? 0;
    const start = table.start[k]!;
    const part = (slot: number) => share + ((1 - share) * (slot - start)) / slots;
    const float = late && !task.aside ? Math.max(0, late[k]! - start) : null;
    return {
      ...task,
      people,
      left_h: slots * people * SLOT_H,
      start: slots > 0 ? time(start) : ended(start),
      end: ended(start + slots),
      shifts: stints[k]!.flatMap(({ from, to, who }) =>
        byDay(from, to, cal).map(([a, b]): Shift => ({
          day: dayText(cal.day[a]!),
          from: time(a).slice(11),
          to: ended(b).slice(11),
          who: who.map((m) => w.crew[m]!.id),
          part: [part(a), part(b)],
        })),
      ),
      float_h: float === null ? null : float * SLOT_H,
      critical: critical.has(k),
      done: share,
      doneOn: done.last.get(task.id) ?? null,
    };
  });
}

/** Slots parted where a day ends. */
function byDay(from: number, to: number, cal: Calendar): [from: number, to: number][] {
  const out: [number, number][] = [];
  for (let s = from; s < to; s++) {
    const last = out.at(-1);
    if (last && cal.day[last[0]] === cal.day[s]) last[1] = s + 1;
    else out.push([s, s + 1]);
  }
  return out;
}
