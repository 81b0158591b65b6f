/** Jobs put into a timetable one after another, each as early as people, machines and waits allow. */
import { endOf_h, slotFrom, turned, type Clock } from './clock.js';

export interface Job {
  /** Slots of work, without a break but that of the clock. */
  readonly slots: number;
  /** What must have ended, each so long before, by the clock and not by the work. */
  readonly after: readonly { readonly job: number; readonly wait_h: number }[];
  /** How much of which resource it takes throughout. */
  readonly needs: readonly (readonly [resource: number, n: number])[];
  /** One more of these, throughout; none given, none needed. */
  readonly oneOf: readonly number[];
  /** It does not begin before, h of the clock. */
  readonly from_h: number;
  /** Chosen before the others wherever there is a choice. */
  readonly first: boolean;
  /** Its end is not the end of the whole: it is put in as soon as it may be, and holds nothing back. */
  readonly aside?: boolean;
}

export interface Problem {
  readonly clock: Clock;
  readonly jobs: readonly Job[];
  /** By resource, how much of it there is in each slot. */
  readonly caps: readonly Int16Array[];
}

export interface Timetable {
  /** By job, the slot in which it starts. */
  readonly start: Int32Array;
  /** By job, which of its `oneOf` it has; -1: none needed. */
  readonly chosen: Int32Array;
  /** Slots to the end of the last job, those aside left out. */
  readonly finish: number;
}

/** Which jobs wait for each. */
export function followers(jobs: readonly Pick<Job, 'after'>[]): number[][] {
  const next: number[][] = jobs.map(() => []);
  jobs.forEach((j, k) => j.after.forEach((a) => next[a.job]!.push(k)));
  return next;
}

/** The first slot that a job's waits and its own time allow. @param start of the jobs that it waits for */
export function earliest(
  { from_h, after }: Job,
  jobs: readonly Job[],
  start: ArrayLike<number>,
  clock: Clock,
): number {
  let first = from_h > 0 ? slotFrom(clock, from_h) : 0;
  for (const a of after) {
    const ends = start[a.job]! + jobs[a.job]!.slots;
    // A wait of nothing is counted in slots: work that ends as a day ends goes on as the next one begins.
    const at = a.wait_h > 0 ? slotFrom(clock, endOf_h(clock, ends) + a.wait_h) : ends;
    if (at > first) first = at;
  }
  return first;
}

/**
 * The timetable of an order [published: serial schedule generation, Kelley 1963]: of the jobs that wait for nothing
 * more, the one with the least key comes next, at the earliest slot in which all that it needs is free throughout.
 * @param next followers of the jobs
 * @returns null when the clock ends before all are done
 */
export function timetable(
  { clock, jobs, caps }: Problem,
  next: readonly (readonly number[])[],
  key: ArrayLike<number>,
): Timetable | null {
  const free = freeOf(
    caps,
    Math.max(1, ...jobs.map((j) => Math.max(0, ...j.needs.map(([, n]) => n)))),
  );
  const start = new Int32Array(jobs.length).fill(-1);
  const chosen = new Int32Array(jobs.length).fill(-1);
  const left = jobs.map((j) => j.after.length);
  const order = ranked(jobs, key);
  const rank = new Int32Array(jobs.length);
  order.forEach((k, i) => (rank[k] = i));
  const open = new Heap(jobs.length);
  left.forEach((n, k) => n === 0 && open.push(rank[k]!));
  let finish = 0;
  for (let done = 0; done < jobs.length; done++) {
    const k = order[open.pop()]!;
    const job = jobs[k]!;
    const at = fit(free, job, earliest(job, jobs, start, clock), clock.at_h.length);
    if (!at) return null;
    start[k] = at[0];
    chosen[k] = at[1];
    for (const [r, n] of job.needs) take(free, r, at[0], job.slots, n);
    if (at[1] >= 0) take(free, at[1], at[0], job.slots, 1);
    if (!job.aside) finish = Math.max(finish, at[0] + job.slots);
    for (const f of next[k]!) if (--left[f]! === 0) open.push(rank[f]!);
  }
  return { start, chosen, finish };
}

/** Jobs in the order of their keys, those that come first before all others. */
function ranked(jobs: readonly Job[], key: ArrayLike<number>): Int32Array {
  const early = Uint8Array.from(jobs, (j) => (j.first || j.aside ? 0 : 1));
  return Int32Array.from(jobs, (_, k) => k).sort(
    (a, b) => early[a]! - early[b]! || key[a]! - key[b]! || a - b,
  );
}

/** The least of some numbers first. */
class Heap {
  private readonly of: Int32Array;
  private size = 0;
  constructor(most: number) {
    this.of = new Int32Array(most);
  }
  push(value: number): void {
    const { of } = this;
    let i = this.size++;
    for (let up = (i - 1) >> 1; i > 0 && of[up]! > value; up = (i - 1) >> 1) {
      of[i] = of[up]!;
      i = up;
    }
    of[i] = value;
  }
  /** @throws RangeError when there is none: jobs that wait for one another */
  pop(): number {
    if (this.size === 0) throw new RangeError('jobs wait for one another');
    const { of } = this;
    const least = of[0]!;
    const value = of[--this.size]!;
    let i = 0;
    for (let down = 1; down < this.size; down = 2 * i + 1) {
      if (down + 1 < this.size && of[down + 1]! < of[down]!) down++;
      if (of[down]! >= value) break;
      of[i] = of[down]!;
      i = down;
    }
    of[i] = value;
    return least;
  }
}

/** What is free of each resource as jobs are put in. */
interface Free {
  readonly caps: readonly Int16Array[];
  /** By resource and number, a slot before which so many are never free; they only grow. */
  readonly low: readonly Int32Array[];
}

const freeOf = (caps: readonly Int16Array[], most: number): Free => ({
  caps: caps.map((c) => c.slice()),
  low: caps.map(() => new Int32Array(most + 1)),
});

function take({ caps }: Free, resource: number, from: number, slots: number, n: number): void {
  const cap = caps[resource]!;
  for (let s = from; s < from + slots; s++) cap[s]! -= n;
}

/** The earliest slot at which a job fits, and which of its choice it has; null when there is none. */
function fit(
  free: Free,
  job: Job,
  from: number,
  end: number,
): [slot: number, chosen: number] | null {
  if (job.oneOf.length === 0) {
    const at = fitAll(free, job.needs, job.slots, from, end);
    return at < 0 ? null : [at, -1];
  }
  let best: [number, number] | null = null;
  for (const one of job.oneOf) {
    const stop = best ? best[0] + job.slots - 1 : end;
    const at = fitAll(free, [...job.needs, [one, 1]], job.slots, from, stop);
    if (at >= 0 && (!best || at < best[0])) best = [at, one];
  }
  return best;
}

function fitAll(
  { caps, low }: Free,
  needs: Job['needs'],
  slots: number,
  from: number,
  end: number,
): number {
  let at = from;
  if (slots === 0) return at <= end ? at : -1;
  for (const [r, n] of needs) {
    const [cap, lows] = [caps[r]!, low[r]!];
    let l = lows[n]!;
    while (l < cap.length && cap[l]! < n) l++;
    lows[n] = l;
    if (l > at) at = l;
  }
  next: while (at + slots <= end) {
    for (const [r, n] of needs) {
      const cap = caps[r]!;
      for (let s = at + slots - 1; s >= at; s--)
        if (cap[s]! < n) {
          at = s + 1;
          continue next;
        }
    }
    return at;
  }
  return -1;
}

/**
 * Turned about: from its end a timetable is filled towards its start, then forward again, which never makes it longer
 * and often shorter [published: double justification, Valls, Ballestin and Quintanilla 2005].
 */
export function justified(
  problem: Problem,
  next: readonly (readonly number[])[],
  table: Timetable,
): Timetable {
  const { jobs } = problem;
  const late = pushedLate(problem, table);
  if (!late) return table;
  const key = Float64Array.from(jobs, (_, k) => late[k]!);
  const better = timetable(problem, next, key);
  return better && better.finish <= table.finish ? better : table;
}

/** A problem seen from its end: who waited is waited for. */
interface Mirror {
  readonly jobs: readonly Job[];
  readonly next: readonly (readonly number[])[];
}
const mirrors = new WeakMap<readonly Job[], Mirror>();

function mirrorOf(jobs: readonly Job[]): Mirror {
  const known = mirrors.get(jobs);
  if (known) return known;
  const waits: { job: number; wait_h: number }[][] = jobs.map(() => []);
  jobs.forEach((j, k) => {
    if (!j.aside) for (const a of j.after) waits[a.job]!.push({ job: k, wait_h: a.wait_h });
  });
  // What is aside stays where it is: its room is taken out (below).
  const turnedJobs = jobs.map((j, k): Job =>
    j.aside
      ? { slots: 0, after: [], needs: [], oneOf: [], from_h: 0, first: false }
      : { ...j, after: waits[k]!, from_h: 0, first: false },
  );
  const made = { jobs: turnedJobs, next: followers(turnedJobs) };
  mirrors.set(jobs, made);
  return made;
}

/**
 * The latest start of each job in a timetable that ends no later, all others as late as they can be.
 * @returns null where a choice of people leaves no room for it
 */
export function pushedLate(problem: Problem, table: Timetable): Int32Array | null {
  const { clock, jobs, caps } = problem;
  const slots = table.finish;
  const mirror = mirrorOf(jobs);
  const room = caps.map((c) => c.slice(0, slots));
  jobs.forEach((j, k) => {
    if (!j.aside) return;
    const chosen = table.chosen[k]! >= 0 ? [[table.chosen[k]!, 1] as const] : [];
    const to = Math.min(slots, table.start[k]! + j.slots);
    for (const [r, n] of [...j.needs, ...chosen])
      for (let s = table.start[k]!; s < to; s++) room[r]![s]! -= n;
  });
  const seen = {
    clock: turned(clock, slots),
    jobs: mirror.jobs,
    caps: room.map((c) => c.reverse()),
  };
  const key = Float64Array.from(jobs, (j, k) => slots - (table.start[k]! + j.slots));
  const back = timetable(seen, mirror.next, key);
  if (!back) return null;
  const late = Int32Array.from(jobs, (j, k) =>
    j.aside ? table.start[k]! : slots - back.start[k]! - j.slots,
  );
  return late.every((s, k) => s >= table.start[k]! || !jobs[k]!.from_h) ? late : null;
}
