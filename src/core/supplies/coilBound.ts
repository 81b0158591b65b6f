/** What no cutting of coils costs less than. */
import { maximise } from '../base/simplex.js';

/** Runs to be cut from coils, lengths in whole parts of a metre. */
export interface Job {
  readonly runs: readonly number[];
  readonly coil: number;
  readonly least: number;
  readonly coilPrice: number;
  readonly joinPrice: number;
  readonly sum: number;
  /** Wire in short pieces that is to come off what is left. */
  readonly loose?: number;
  /** By run, the stretches in which a join may fall, from its start, in order; without it anywhere. */
  readonly places?: readonly (readonly (readonly [from: number, to: number])[])[];
}

/** No fewer coils have all the wire. */
export const fewestCoils = (job: Job): number => Math.ceil((job.sum + (job.loose ?? 0)) / job.coil);

/** Joins of runs that are longer than a coil: they are made whatever else is. */
export const forcedJoins = (job: Job): number =>
  job.runs.reduce((sum, r) => sum + Math.ceil(r / job.coil) - 1, 0);

/** What no cutting costs less than. */
export function boundOf(job: Job): number {
  const fewest = fewestCoils(job);
  const forced = forcedJoins(job);
  if (job.runs.length <= ALL_WAYS)
    return Math.max(cheapestGrouping(job), fewest * job.coilPrice + forced * job.joinPrice);
  let best = Infinity;
  // More coils allow more groups; beyond what all joins would save they cannot pay.
  for (let coils = fewest; coils * job.coilPrice < best; coils++) {
    const joins = Math.max(forced, coils - mostGroups(job, coils));
    best = Math.min(best, coils * job.coilPrice + joins * job.joinPrice);
    if (joins === forced) break;
  }
  return best;
}

/** Runs up to which every way to group them is looked at. */
const ALL_WAYS = 13;

/**
 * What the cheapest cutting costs if no piece were too short: for each set of runs and number of groups the fewest
 * coils, each group taking whole ones.
 */
function cheapestGrouping(job: Job): number {
  const n = job.runs.length;
  const all = (1 << n) - 1;
  const coils = new Uint8Array(1 << n);
  const sums = new Float64Array(1 << n);
  for (let set = 1; set <= all; set++) {
    const low = 31 - Math.clz32(set & -set);
    sums[set] = sums[set & (set - 1)]! + job.runs[low]!;
    coils[set] = Math.ceil(sums[set]! / job.coil);
  }
  let best = Infinity;
  let now = new Uint8Array(1 << n).fill(255);
  now[0] = 0;
  for (let groups = 1; groups <= n; groups++) {
    const next = new Uint8Array(1 << n).fill(255);
    for (let set = 1; set <= all; set++) {
      const first = set & -set;
      const rest = set ^ first;
      // Every group that has the first run of the set in it.
      for (let more = rest; ; more = (more - 1) & rest) {
        const group = more | first;
        const before = now[set ^ group]!;
        if (before < 255) next[set] = Math.min(next[set]!, before + coils[group]!);
        if (more === 0) break;
      }
    }
    now = next;
    const taken = now[all]!;
    if (taken < 255)
      best = Math.min(best, taken * job.coilPrice + (taken - groups) * job.joinPrice);
  }
  return best;
}

/** Groups of up to so many coils are counted by what is in them; of wider ones there is one for each four coils at most. */
const COUNTED = 3;
/** Beyond so many kinds of groups they are not counted. */
const KINDS = 4000;

/**
 * The most groups into which so many coils could fall: groups of few coils by how many runs of each length are in
 * them, none wasting more than there is to waste, in any amounts that use every run once (a linear program).
 */
function mostGroups(job: Job, coils: number): number {
  const lengths = [...new Set(job.runs)].sort((a, b) => b - a);
  const counts = lengths.map((l) => job.runs.filter((r) => r === l).length);
  const kinds = kindsOfGroups(job, lengths, counts, coils);
  if (!kinds) return coils;
  const m = lengths.length;
  const unit = (at: number): number[] =>
    Array.from({ length: m + 2 }, (_, r) => (r === at ? 1 : 0));
  // Rows: runs of each length, coils, and what the wide groups hold against their coils.
  const wide = lengths.map((l, t) => unit(t).map((v, r) => (r === m + 1 ? l / job.coil : v)));
  const columns = [
    ...kinds.map(({ of, coils: k }) => [...of, k, 0]),
    ...wide,
    unit(m).map((v, r) => (r === m + 1 ? -1 : v)),
    unit(m + 1),
  ];
  const worth = [...kinds.map(() => 1), ...lengths.map(() => 0), 1 / (COUNTED + 1), 0];
  // To begin with all runs are in wide groups: their columns are made unit vectors by taking the last row from them.
  const right = [...counts, coils, 0];
  const basis = Array.from({ length: m + 2 }, (_, r) => kinds.length + r);
  for (let r = 0; r <= m; r++) {
    const by = columns[kinds.length + r]![m + 1]!;
    for (const column of columns) column[m + 1]! -= by * column[r]!;
    right[m + 1]! -= by * right[r]!;
  }
  return Math.floor(maximise({ columns, worth, right, basis }) + 1e-6);
}

interface KindOfGroup {
  /** Runs of each length. */
  readonly of: readonly number[];
  readonly coils: number;
}

/** Every kind of group of few coils that wastes no more than there is; null where there are too many. */
function kindsOfGroups(
  job: Job,
  lengths: readonly number[],
  counts: readonly number[],
  coils: number,
): KindOfGroup[] | null {
  const waste = coils * job.coil - job.sum;
  const out: KindOfGroup[] = [];
  let looked = 0;
  const of = lengths.map(() => 0);
  /** What the lengths from here on can add at most. */
  const rest = lengths.map((_, t) => lengths.slice(t).reduce((sum, l, i) => sum + l * counts[t + i]!, 0)); // prettier-ignore
  const add = (t: number, sum: number, k: number): boolean => {
    if (++looked > 60 * KINDS || out.length > KINDS) return false;
    const room = k * job.coil - sum;
    if (t === lengths.length) {
      if (room <= waste && sum > 0) out.push({ of: [...of], coils: k });
      return true;
    }
    if (rest[t]! < room - waste) return true;
    for (let n = 0; n <= counts[t]! && n * lengths[t]! <= room; n++) {
      of[t] = n;
      if (!add(t + 1, sum + n * lengths[t]!, k)) return false;
    }
    of[t] = 0;
    return true;
  };
  for (let k = 1; k <= Math.min(COUNTED, coils); k++) if (!add(0, 0, k)) return null;
  return out;
}
