/**
 * The order of the work with so many people: no exact answer is known for long lists in short time, so timetables are
 * made by several rules and from the best of them others, until the time under which none can be is reached or enough
 * have been made.
 */
import { uniform } from '../base/random.js';
import { topological } from './network.js';
import {
  earliest,
  followers,
  justified,
  timetable,
  type Problem,
  type Timetable,
} from './serial.js';

export interface SearchOptions {
  /** Timetables made, at most. */
  readonly tries?: number;
  /** What a timetable costs, the less the better; absent: its length. */
  readonly cost?: (table: Timetable) => number;
  /** Orders to begin with, besides the usual rules: by job, the less the earlier. */
  readonly orders?: readonly ArrayLike<number>[];
  /** By job, what it belongs together with, counted from 0: such jobs are moved together as well as alone. */
  readonly groups?: ArrayLike<number>;
  readonly seed?: number;
}

export interface Found extends Timetable {
  /** Slots under which no timetable can be. */
  readonly bound: number;
}

/** About so many jobs are placed in all, whatever the length of the list. */
const EFFORT = 150_000;
/** Tries without gain before the search goes back to the best. */
const PATIENCE = 40;

/**
 * A timetable that costs little, the same for the same problem.
 * @returns null when some job never fits: more people asked for than there ever are, or the clock ends before
 */
export function schedule(problem: Problem, options: SearchOptions = {}): Found | null {
  const { jobs } = problem;
  const { cost = (t: Timetable) => t.finish, orders = [], groups, seed = 11 } = options;
  const tries = options.tries ?? Math.round(Math.min(3000, Math.max(60, EFFORT / jobs.length)));
  const next = followers(jobs);
  const bound = boundOf(problem);
  const random = uniform(seed);
  let best: { readonly table: Timetable; readonly cost: number } | null = null;
  let made = 0;
  const seen = (table: Timetable) => {
    const own = { table, cost: cost(table) };
    if (!best || own.cost < best.cost) best = own;
    return own;
  };
  /** The better of a timetable as it comes and as it is after it was turned about. */
  const tryKeys = (key: ArrayLike<number>) => {
    made++;
    const first = timetable(problem, next, key);
    if (!first) return null;
    let own = seen(first);
    for (let t = first, last = Infinity; t.finish < last;) {
      last = t.finish;
      t = justified(problem, next, t);
      made += 2;
      const turned = seen(t);
      if (turned.cost < own.cost) own = turned;
    }
    return own;
  };
  for (const key of [...orders, ...rules(problem, next)]) if (!tryKeys(key)) return null;
  let here = best!;
  let stale = 0;
  const ends = (b: typeof here) => options.cost === undefined && b.cost <= bound;
  while (made < tries && !ends(best!)) {
    const from = here.table;
    const span = from.finish * [0.03, 0.08, 0.2, 0.5][Math.floor(random() * 4)]!;
    const share = [1, 0.15, 0.03][Math.floor(random() * 3)]!;
    const off = () => (random() < share ? (random() - 0.5) * 2 * span : 0);
    const together = groups && random() < 0.5 ? Float64Array.from(groups, off) : null;
    const key = Float64Array.from(from.start, (s, k) => s + (together ? together[groups![k]!]! : off())); // prettier-ignore
    const own = tryKeys(key);
    if (!own) continue;
    stale = own.cost < here.cost ? 0 : stale + 1;
    if (own.cost <= here.cost) here = own;
    if (stale > PATIENCE) {
      here = random() < 0.5 ? best! : own;
      stale = 0;
    }
  }
  return { ...best!.table, bound };
}

/** Keys by the usual rules: latest start, latest end, most work behind, most that wait. */
function rules({ jobs }: Problem, next: readonly (readonly number[])[]): Float64Array[] {
  const behind = tails(jobs);
  const all = behindSets(jobs.length, next);
  return [
    Float64Array.from(behind, (b, k) => -b - jobs[k]!.slots),
    Float64Array.from(behind, (b) => -b),
    Float64Array.from(all, (set, k) => -jobs[k]!.slots - [...set].reduce((s, f) => s + jobs[f]!.slots, 0)), // prettier-ignore
    Float64Array.from(all, (set) => -set.size),
  ];
}

/** Slots of work behind each job on the longest way to the end; waits count as work of their length. */
function tails(jobs: Problem['jobs']): Float64Array {
  const out = new Float64Array(jobs.length);
  for (const k of order(jobs).reverse())
    for (const a of jobs[k]!.after)
      out[a.job] = Math.max(out[a.job]!, out[k]! + jobs[k]!.slots + a.wait_h);
  return out;
}

const order = (jobs: Problem['jobs']): number[] =>
  topological(jobs.map((j) => j.after.map((a) => a.job)));

function behindSets(n: number, next: readonly (readonly number[])[]): Set<number>[] {
  const sets: (Set<number> | undefined)[] = Array.from({ length: n });
  const of = (k: number): Set<number> => {
    const known = sets[k];
    if (known) return known;
    const own = new Set<number>();
    for (const f of next[k]!) {
      own.add(f);
      for (const g of of(f)) own.add(g);
    }
    return (sets[k] = own);
  };
  for (let k = 0; k < n; k++) of(k);
  return sets as Set<number>[];
}

/**
 * Slots under which no timetable can be: the longest way through the waits with people without limit, and the work
 * that can begin at some slot only, with the whole of each resource at it.
 */
export function boundOf({ clock, jobs, caps }: Problem): number {
  const sorted = order(jobs);
  const head = new Float64Array(jobs.length);
  let bound = 0;
  for (const k of sorted) {
    const job = jobs[k]!;
    const at = earliest(job, jobs, head, clock);
    head[k] = at;
    if (!job.aside) bound = Math.max(bound, at + job.slots);
  }
  // Work behind a job, by the work alone: waits behind it may fall into the nights.
  const tail = new Float64Array(jobs.length);
  for (const k of sorted.toReversed())
    for (const a of jobs[k]!.after) tail[a.job] = Math.max(tail[a.job]!, tail[k]! + jobs[k]!.slots);
  caps.forEach((cap, r) => {
    const users = jobs.flatMap((j, k) => {
      const n = j.needs.find(([q]) => q === r)?.[1] ?? 0;
      return n > 0 && !j.aside ? [{ head: head[k]!, tail: tail[k]!, work: n * j.slots }] : [];
    });
    const until = new Float64Array(cap.length + 1);
    cap.forEach((n, s) => (until[s + 1] = until[s]! + n));
    for (const from of some(users.map((u) => u.head)))
      for (const rest of some(users.map((u) => u.tail))) {
        let work = 0;
        for (const u of users) if (u.head >= from && u.tail >= rest) work += u.work;
        if (work > 0) bound = Math.max(bound, firstWith(until, until[from]! + work) + rest);
      }
  });
  return bound;
}

/** Some of the values, spread over all of them. */
function some(values: readonly number[]): number[] {
  const all = [...new Set(values)].sort((a, b) => a - b);
  const step = Math.max(1, all.length / MOST);
  return Array.from({ length: Math.min(all.length, MOST) }, (_, k) => all[Math.floor(k * step)]!);
}
/** Values that a bound is tried at, of each kind: any of them gives one, the best of some is nearly the best of all. */
const MOST = 30;

/** The first place at which a rising list has come to a value. */
function firstWith(rising: Float64Array, value: number): number {
  let [low, high] = [0, rising.length - 1];
  while (low < high) {
    const mid = (low + high) >> 1;
    if (rising[mid]! < value) low = mid + 1;
    else high = mid;
  }
  return low;
}
