/** The tasks as jobs in slots: what the search is given. */
import type { BuildPlan } from '../plan/schema.js';
import { SLOT_H, type Calendar, type Working } from './calendar.js';
import { dayNumber, hoursSince } from '../base/days.js';
import type { Job, Problem } from './serial.js';
import type { Task } from './task.js';

/** A task with what is left of it. */
export interface Left {
  readonly task: Task;
  /** Slots of work that are left. */
  readonly slots: number;
  readonly people: number;
  /** Members of the crew that it was given to, by their place. */
  readonly given: readonly number[];
  /** Members one of whom runs the machine; none: nobody was named for it. */
  readonly drivers: readonly number[];
  /** It cannot begin before, h of the clock: waits for what is done already, and what was asked for by hand. */
  readonly from_h: number;
  readonly first: boolean;
}

/** Resources: the crew as a number, each of its members, then the machines. */
export interface Resources {
  readonly crew: number;
  readonly member: (k: number) => number;
  readonly machine: Readonly<Record<string, number>>;
}

export const resourcesOf = (w: Working, machines: readonly string[]): Resources => ({
  crew: 0,
  member: (k) => 1 + k,
  machine: Object.fromEntries(machines.map((m, k) => [m, 1 + w.crew.length + k])),
});

/** When a machine is there, by slot. */
export function hiredIn(
  hire: NonNullable<BuildPlan['machines']>[string] | undefined,
  cal: Calendar,
): Int16Array {
  const from = hire?.own || !hire?.from ? -Infinity : dayNumber(hire.from);
  const to = hire?.own || !hire?.to ? Infinity : dayNumber(hire.to);
  return Int16Array.from(cal.day, (d) => (d >= from && d <= to ? 1 : 0));
}

/** @param left by task id, all that are to be done now */
export function problemOf(
  left: readonly Left[],
  cal: Calendar,
  res: Resources,
  machines: Readonly<Record<string, Int16Array>>,
): Problem {
  const at = new Map(left.map((l, k) => [l.task.id, k]));
  return {
    clock: cal.clock,
    caps: [cal.there, ...cal.each, ...Object.values(machines)],
    jobs: left.map(({ task, slots, people, given, drivers, from_h, first }): Job => {
      const machine = task.machine === null ? undefined : res.machine[task.machine];
      return {
        slots,
        first,
        from_h,
        ...(task.aside ? { aside: true } : {}),
        after: task.after.flatMap((a) => {
          const job = at.get(a.id);
          return job === undefined ? [] : [{ job, wait_h: a.wait_h }];
        }),
        needs: [
          ...(people > 0 ? [[res.crew, people] as const] : []),
          ...given.map((m) => [res.member(m), 1] as const),
          ...(machine === undefined ? [] : [[machine, 1] as const]),
        ],
        oneOf: given.some((m) => drivers.includes(m)) ? [] : drivers.map(res.member),
      };
    }),
  };
}

/** Slots of so many hours of one person, with so many at it; a quarter of an hour at least, unless there is no work. */
export const slotsOf = (work_h: number, people: number): number =>
  work_h <= 0 || people <= 0 ? 0 : Math.max(1, Math.round(work_h / people / SLOT_H));

/** What is asked for by hand, and what waits for work that is done. @param ended by task, day on which it was done */
export function fromOf(
  task: Task,
  edit: { readonly from?: string } | undefined,
  ended: ReadonlyMap<string, string>,
  w: Pick<Working, 'to'>,
  first: number,
): number {
  const asked = edit?.from ? hoursSince(first, edit.from) : 0;
  const waited = task.after.map((a) => {
    const day = ended.get(a.id);
    return day === undefined || a.wait_h === 0 ? 0 : hoursSince(first, `${day}T${w.to}`) + a.wait_h;
  });
  return Math.max(0, asked, ...waited);
}

/** Those that are to come first, with all that they wait for. */
export function urgent(tasks: readonly Task[], asked: ReadonlySet<string>): Set<string> {
  const all = new Map(tasks.map((t) => [t.id, t]));
  const out = new Set<string>();
  const add = (id: string): void => {
    if (out.has(id) || !all.has(id)) return;
    out.add(id);
    all.get(id)!.after.forEach((a) => add(a.id));
  };
  asked.forEach(add);
  return out;
}
