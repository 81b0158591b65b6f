/** The work planned: when each task, by whom, what may be late, what hired machines cost, and what cannot be. */
import { sum } from '../base/numbers.js';
import type { Catalogue } from '../plan/catalogue.js';
import type { BuildPlan } from '../plan/schema.js';
import {
  calendarOf,
  isWorked,
  SLOT_H,
  workingOf,
  type Calendar,
  type Working,
} from './calendar.js';
import { endOf_h } from './clock.js';
import { dayNumber, dayText, timeAt } from '../base/days.js';
import { kindOf, MACHINES } from './kinds.js';
import { inOrder } from './network.js';
import { fromOf, hiredIn, problemOf, resourcesOf, slotsOf, urgent, type Left, type Resources } from './problem.js'; // prettier-ignore
import { AS_SAID, ratesOf, type Did, type Rate } from './rates.js';
import { schedule, type Found } from './schedule.js';
import { followers, pushedLate, timetable, type Problem } from './serial.js';
import { doneOf, finished, plannedTasks, type Done, type PlannedTask } from './shifts.js';
import type { Task } from './task.js';
import { hireOf, usualOrders, weigher, type Hire, type Site } from './weighed.js';

export interface Planned {
  /** Why there is no plan. */
  readonly fault: string | null;
  readonly tasks: readonly PlannedTask[];
  readonly start: string | null;
  /** When the fence stands. */
  readonly finish: string | null;
  /** No plan with these people ends before. */
  readonly bound: string | null;
  /** With as many people and machines as anybody could want. */
  readonly unlimited: string | null;
  readonly hires: readonly Hire[];
  readonly warnings: readonly string[];
  readonly rates: Readonly<Record<string, Rate>>;
  /** Hours of one person that are left. */
  readonly left_h: number;
}

export interface Asked {
  readonly tasks: readonly Task[];
  readonly build: BuildPlan | undefined;
  readonly did: readonly Did[];
  /** Today, YYYY-MM-DD: nothing that is not done is planned before. */
  readonly today: string;
  readonly cat: Catalogue;
  /** Timetables made, at most. */
  readonly tries?: number;
}

const NOTHING: Planned = {
  fault: null,
  tasks: [],
  start: null,
  finish: null,
  bound: null,
  unlimited: null,
  hires: [],
  warnings: [],
  rates: {},
  left_h: 0,
};
const failed = (fault: string): Planned => ({ ...NOTHING, fault });

/** Plans the work. What cannot be is a fault in words; nothing is thrown for it. */
export function planWork(asked: Asked): Planned {
  const { tasks, build, did, today, cat } = asked;
  if (tasks.length === 0) return NOTHING;
  let w: Working;
  let sorted: Task[];
  try {
    const said = workingOf(build, today, cat);
    dayNumber(said.start);
    w = { ...said, start: said.start < today ? today : said.start };
    sorted = inOrder(tasks).map((k) => tasks[k]!);
  } catch (e) {
    if (e instanceof RangeError) return failed(e.message);
    throw e;
  }
  const site: Site = { w, build, cat };
  const rates = ratesOf(did, cat);
  const done = doneOf(did);
  const { left, warnings } = leftOf(sorted, site, rates, done);
  const main = left.some((l) => !l.task.aside);
  const machines = [...new Set(left.flatMap((l) => l.task.machine ?? []))];
  const res = resourcesOf(w, machines);
  let cal = calendarOf(w, roomFor(left, w));
  if (cal.there.length === 0)
    return failed('Nobody works on any day: say which days are worked, and by whom.');
  let fits = searched(left, cal, res, machines, asked, site);
  // The room is a guess: where it was too little, there is more.
  for (let more = 3; !fits && more <= 27; more *= 3) {
    cal = calendarOf(w, roomFor(left, w) * more);
    fits = searched(left, cal, res, machines, asked, site);
  }
  if (!fits)
    return failed('The work does not fit: not enough people are ever there at once, or the days run out within three years.'); // prettier-ignore
  const { found, problem } = fits;
  const late = pushedLate(problem, found);
  const unlimited = unlimitedOf(problem);
  const { critical } = unlimited;
  const shown = [
    ...plannedTasks({ left, table: found, late, critical, cal, w, res, done }),
    ...tasks.filter((t) => done.ended.has(t.id)).map((t) => finished(t, done)),
  ];
  const place = new Map(sorted.map((t, k) => [t.id, k]));
  const time = (slot: number) => timeAt(cal.first, endOf_h(cal.clock, slot));
  const when = main ? time : () => null;
  return {
    fault: null,
    tasks: shown.sort((a, b) => (a.start ?? '').localeCompare(b.start ?? '') || place.get(a.id)! - place.get(b.id)!), // prettier-ignore
    start: shown.flatMap((t) => t.start ?? []).sort()[0] ?? null,
    finish: when(found.finish),
    bound: when(found.bound),
    unlimited: when(unlimited.finish),
    hires: machines.flatMap((m) => hireOf(m, found, left, cal, site) ?? []),
    warnings: [...warnings, ...(fits.tooShort ? ['The hire is too short for its work: the plan is as if the machine stayed.'] : [])], // prettier-ignore
    rates,
    left_h: sum(left.map((l) => l.slots * l.people * SLOT_H)),
  };
}

interface Fits {
  readonly problem: Problem;
  readonly found: Found;
  /** Some machine is hired for less than its work takes. */
  readonly tooShort: boolean;
}

function searched(
  left: readonly Left[],
  cal: Calendar,
  res: Resources,
  machines: readonly string[],
  { tries, tasks }: Asked,
  site: Site,
): Fits | null {
  const lines = [...new Set(tasks.flatMap((t) => t.line ?? []))];
  const options = {
    cost: weigher(left, cal, site),
    orders: usualOrders(left, lines),
    groups: left.map((l) => lines.indexOf(l.task.line ?? '') + 1),
    ...(tries === undefined ? {} : { tries }),
  };
  const windows: NonNullable<BuildPlan['machines']> = site.build?.machines ?? {};
  for (const kept of [windows, {} as typeof windows]) {
    const caps = machines.map((m) => [m, hiredIn(kept[m], cal)]);
    const problem = problemOf(left, cal, res, Object.fromEntries(caps));
    const found = schedule(problem, options);
    if (found) return { problem, found, tooShort: kept !== windows };
  }
  return null;
}

function leftOf(
  tasks: readonly Task[],
  { w, build }: Site,
  rates: Partial<Record<string, Rate>>,
  done: Done,
): { left: Left[]; warnings: Set<string> } {
  const edits = build?.tasks ?? {};
  const warnings = new Set<string>();
  const most = mostThere(w);
  const first = dayNumber(w.start);
  const open = tasks.filter((t) => !done.ended.has(t.id));
  const early = urgent(open, new Set(open.filter((t) => edits[t.id]?.first).map((t) => t.id)));
  const left = open.map((task): Left => {
    const kind = kindOf(task.kind);
    const edit = edits[task.id];
    const given = (edit?.who ?? []).map((id) => w.crew.findIndex((m) => m.id === id)).filter((k) => k >= 0); // prettier-ignore
    const people = Math.min(most, Math.max(given.length, task.people));
    if (people < kind.least && task.work_h > 0)
      warnings.add(`${kind.name}: ${kind.least} people are wanted at once, nobody does it alone.`);
    const { machine } = task;
    const drivers = w.crew.flatMap((m, k) => (machine !== null && m.runs.includes(machine) ? [k] : [])); // prettier-ignore
    if (machine !== null && drivers.length === 0)
      warnings.add(
        `Nobody of the crew is named as trained on the ${MACHINES[machine] ?? machine}.`,
      );
    const share = 1 - (done.share.get(task.id) ?? 0);
    const times = edit?.hours === undefined ? (rates[task.kind] ?? AS_SAID).times : 1;
    return {
      task,
      people,
      given,
      drivers,
      slots: slotsOf(task.work_h * share * times, people),
      from_h: fromOf(task, edit, done.ended, w, first),
      first: early.has(task.id),
    };
  });
  return { left, warnings };
}

/** The most that are there on a day of the first weeks. */
function mostThere(w: Working): number {
  const first = dayNumber(w.start);
  const days = Array.from({ length: 28 }, (_, k) => first + k).filter((d) => isWorked(d, w));
  return Math.max(0, ...days.map((d) => w.crew.filter((m) => !m.off.has(dayText(d))).length));
}

/** About so many slots the work takes, with room to spare. */
function roomFor(left: readonly Left[], w: Working): number {
  const waits = left.map((l) => Math.max(0, ...l.task.after.map((a) => a.wait_h))).sort((a, b) => b - a); // prettier-ignore
  // A chain has few waits by the clock; what is asked for by hand may lie far ahead.
  const apart_h = sum(waits.slice(0, 6)) + Math.max(0, ...left.map((l) => l.from_h));
  const work = sum(left.map((l) => l.slots * Math.max(1, l.people))) / Math.max(1, w.crew.length);
  return Math.ceil(1.5 * work + apart_h / SLOT_H / 2) + 300;
}

/** The plan with people and machines for everything that could be done, and what has no float in it. */
function unlimitedOf(problem: Problem): {
  readonly finish: number;
  readonly critical: Set<number>;
} {
  const caps = problem.caps.map((c) => Int16Array.from(c, (n) => (n > 0 ? 10_000 : 0)));
  const { jobs } = problem;
  const many = { ...problem, caps };
  const table = timetable(many, followers(jobs), new Float64Array(jobs.length))!;
  const late = pushedLate(many, table);
  const critical = new Set<number>();
  late?.forEach((slot, k) => slot === table.start[k]! && !jobs[k]!.aside && critical.add(k));
  return { finish: table.finish, critical };
}
