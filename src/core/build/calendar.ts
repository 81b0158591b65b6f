/** When there is work: the days and hours of a property, and who is there in each quarter of an hour. */
import { figure, type Catalogue } from '../plan/catalogue.js';
import type { BuildPlan } from '../plan/schema.js';
import type { Clock } from './clock.js';
import { dayNumber, dayText, minutes, weekday } from '../base/days.js';

/** The schedule counts in quarters of an hour. */
export const SLOT_H = 0.25;
const SLOT_MIN = 60 * SLOT_H;
/** The break lies here, when the day has it, min since midnight. */
const NOON = 12 * 60;
/** No work is planned beyond so many days. */
const HORIZON = 3 * 366;

export interface Member {
  readonly id: string;
  readonly name: string;
  readonly runs: readonly string[];
  readonly off: ReadonlySet<string>;
}

/** How the work is planned, with the usual where nothing is said. */
export interface Working {
  /** First day of all. */
  readonly start: string;
  readonly from: string;
  readonly to: string;
  readonly break_min: number;
  readonly days: readonly number[];
  readonly off: ReadonlySet<string>;
  readonly rain: ReadonlySet<string>;
  readonly crew: readonly Member[];
}

const NAMES = ['Lead hand', 'Second hand', 'Third hand', 'Fourth hand'];

/** The crew that is there when nobody was named: as many as gloves are counted for. */
export const usualCrew = (cat: Catalogue): NonNullable<BuildPlan['crew']> =>
  Object.fromEntries(
    Array.from({ length: Math.max(1, Math.round(figure(cat, 'supplies.crew'))) }, (_, k) => {
      const id = `hand${k + 1}`;
      return [id, { id, name: NAMES[k] ?? `Hand ${k + 1}` }];
    }),
  );

/** The crew as it is named, else the usual one. */
export const crewOf = (
  build: BuildPlan | undefined,
  cat: Catalogue,
): NonNullable<BuildPlan['crew']> =>
  build?.crew && Object.keys(build.crew).length > 0 ? build.crew : usualCrew(cat);

/** @param today the first day when none is said */
export function workingOf(build: BuildPlan | undefined, today: string, cat: Catalogue): Working {
  const { start, from = '08:00', to = '16:30', break_min = 30, days = [1, 2, 3, 4, 5], off = [], rain = [] } = build ?? {}; // prettier-ignore
  return {
    start: start ?? today,
    from,
    to,
    break_min,
    days,
    off: new Set(off),
    rain: new Set(rain),
    crew: Object.values(crewOf(build, cat)).map(({ id, name, runs: on = [], off: away = [] }) => ({ id, name, runs: on, off: new Set(away) })), // prettier-ignore
  };
}

export interface Calendar {
  readonly clock: Clock;
  /** Number of the day at whose midnight the clock began. */
  readonly first: number;
  /** By slot, the number of its day. */
  readonly day: Int32Array;
  /** By slot, how many are there. */
  readonly there: Int16Array;
  /** By member of the crew and slot, 1 where it is there. */
  readonly each: readonly Int16Array[];
}

/** Minutes since midnight at which the slots of a day begin, the break left out. */
export function slotsOfDay({ from, to, break_min }: Pick<Working, 'from' | 'to' | 'break_min'>): number[] {
  const out: number[] = [];
  for (let m = minutes(from); m + SLOT_MIN <= minutes(to); m += SLOT_MIN)
    if (m < NOON || m >= NOON + break_min) out.push(m);
  return out;
} // prettier-ignore

/** Whether anybody works on a day; weather takes it whole. */
export const isWorked = (day: number, w: Working): boolean => {
  const text = dayText(day);
  return w.days.includes(weekday(day)) && !w.off.has(text) && !w.rain.has(text) && w.crew.some((m) => !m.off.has(text)); // prettier-ignore
};

/**
 * The working time from the first day on.
 * @param slots about so many are wanted; it has fewer where the days run out
 * @throws RangeError for a first day that the calendar does not have
 */
export function calendarOf(w: Working, slots: number): Calendar {
  const first = dayNumber(w.start);
  const ofDay = slotsOfDay(w);
  const at: number[] = [];
  const day: number[] = [];
  const there: number[][] = w.crew.map(() => []);
  for (let d = first; d < first + HORIZON && at.length < slots; d++) {
    if (!isWorked(d, w)) continue;
    const text = dayText(d);
    const here = w.crew.map((m) => (m.off.has(text) ? 0 : 1));
    for (const m of ofDay) {
      at.push((d - first) * 24 + m / 60);
      day.push(d);
      here.forEach((n, k) => there[k]!.push(n));
    }
  }
  const each = there.map((one) => Int16Array.from(one));
  return {
    clock: { slot_h: SLOT_H, at_h: Float64Array.from(at) },
    first,
    day: Int32Array.from(day),
    there: Int16Array.from(day, (_, s) => each.reduce((n, one) => n + one[s]!, 0)),
    each,
  };
}
