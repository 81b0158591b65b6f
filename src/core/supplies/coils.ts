/**
 * Cutting runs of wire from coils so that coils and joins cost least. A run may be cut anywhere into pieces, each from
 * one coil and none too short to be joined. Runs that share coils, laid end to end, are a group; a group of k coils
 * has k - 1 joins. So the fewest coils are taken, and then as many groups as their waste allows.
 */

import { shuffle } from '../base/random.js';
import { boundOf, fewestCoils, forcedJoins, type Job } from './coilBound.js';

export interface CuttingInputs {
  readonly run_lengths_m: readonly number[];
  readonly coil_length_m: number;
  readonly coil_price: number;
  readonly join_price: number;
  /** No piece is shorter, but a run that is shorter itself. */
  readonly min_piece_m: number;
}

/** A piece of a run, in the order in which it comes off the jenny. */
export interface CoilPiece {
  readonly run: number;
  readonly length_m: number;
}

export interface Cutting {
  /** By coil, its pieces. */
  readonly plan: readonly (readonly CoilPiece[])[];
  readonly coils: number;
  readonly joins: number;
  readonly cost: number;
  /** No cutting costs less. */
  readonly lower_bound: number;
  readonly coils_lower_bound: number;
  /** Joins of runs that are longer than a coil. */
  readonly joins_lower_bound: number;
  readonly waste_m: number;
}

/** Lengths are whole tenths of a metre. */
const PARTS = 10;
const whole = (m: number): number => Math.round(m * PARTS);

/**
 * A cutting that costs little, with a bound under which none can cost.
 * @param tries how many cuttings are made, at most; it stops at the bound
 * @throws RangeError for lengths or prices that cannot be, or a piece longer than half a coil
 */
export function cutCoils(
  i: CuttingInputs,
  tries = i.run_lengths_m.length > 120 ? 8 : 400,
): Cutting {
  const job = jobOf(i);
  const bound = boundOf(job);
  const best = layCheaply(job, tries, bound);
  return {
    plan: best.coils.map((coil) => coil.map((p) => ({ run: p.run, length_m: p.length / PARTS }))),
    coils: best.coils.length,
    joins: best.joins,
    cost: costOf(job, best),
    lower_bound: bound,
    coils_lower_bound: fewestCoils(job),
    joins_lower_bound: forcedJoins(job),
    waste_m: (best.coils.length * job.coil - job.sum) / PARTS,
  };
}

/** The cheapest of some ways to lay the runs; it stops at the bound. @param fits what else a way must do */
export function layCheaply(
  job: Job,
  tries: number,
  bound: number,
  fits: (laid: Laid) => boolean = () => true,
): Laid {
  const fewest = fewestCoils(job);
  const random = chance(17);
  let best: Laid | null = null;
  for (let t = 0; t < tries; t++) {
    const made = build(job, fewest + (t % 8 === 7 ? 1 : 0), t, random);
    if (made && (!best || costOf(job, made) < costOf(job, best) - 1e-9) && fits(made)) best = made;
    if (best && costOf(job, best) <= bound + 1e-9) break;
  }
  return best ?? endToEnd(job);
}

function jobOf(i: CuttingInputs): Job {
  const runs = i.run_lengths_m.map(whole);
  const [coil, least] = [whole(i.coil_length_m), whole(i.min_piece_m)];
  if (runs.length === 0) throw new RangeError('run_lengths_m: at least one run');
  if (!runs.every((r) => r > 0)) throw new RangeError('run_lengths_m: lengths of 0.1 m and more');
  if (!(coil > 0)) throw new RangeError('coil_length_m: 0.1 m and more');
  if (!(least >= 0 && 2 * least <= coil)) throw new RangeError('min_piece_m: at most half a coil');
  if (!(i.coil_price >= 0 && i.join_price >= 0)) throw new RangeError('prices: 0 and more');
  return { runs, coil, least, coilPrice: i.coil_price, joinPrice: i.join_price, sum: runs.reduce((a, b) => a + b, 0) }; // prettier-ignore
}

/** Numbers between 0 and 1, the same each time. */
export function chance(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 1_103_515_245 + 12_345) % 2_147_483_648) / 2_147_483_648;
}

export interface Cut {
  readonly run: number;
  readonly length: number;
}
/** Coils with their pieces, as they are laid. */
export interface Laid {
  readonly coils: readonly (readonly Cut[])[];
  readonly joins: number;
}

export const costOf = (job: Job, laid: Laid): number =>
  laid.coils.length * job.coilPrice + laid.joins * job.joinPrice;

/**
 * Lays runs end to end through coils, in this order; null where the cuts do not come out. A cut that would leave too
 * short a piece, or fall where no join may be, is drawn back, and what is left of the coil is waste.
 * @param length of each coil, and 0 where there are no more
 */
export function layThrough(
  job: Job,
  order: readonly number[],
  length: (coil: number) => number,
): Laid | null {
  const coils: Cut[][] = [[]];
  let room = length(0);
  let joins = 0;
  for (const run of order) {
    const whole = job.runs[run]!;
    let left = whole;
    let missed = 0;
    while (left > room) {
      const done = whole - left;
      const piece = upTo(job.places?.[run], done + Math.min(room, left - job.least)) - done;
      if (piece >= job.least && piece > 0) {
        coils.at(-1)!.push({ run, length: piece });
        left -= piece;
        joins++;
        missed = 0;
      } else if (++missed > MISSES) return null;
      room = length(coils.length);
      if (room === 0) return null;
      coils.push([]);
    }
    coils.at(-1)!.push({ run, length: left });
    room -= left;
  }
  return { coils, joins };
}

/** Coils in a row from which no piece of a run can be cut. */
const MISSES = 2;

/** The last place at which a join may fall, no further than this. */
function upTo(places: NonNullable<Job['places']>[number] | undefined, at: number): number {
  if (!places) return at;
  let [low, high] = [0, places.length];
  while (low < high) {
    const mid = (low + high) >> 1;
    if (places[mid]![0] <= at) low = mid + 1;
    else high = mid;
  }
  return low === 0 ? 0 : Math.min(at, places[low - 1]![1]);
}

const layIn = (job: Job, order: readonly number[], most: number): Laid | null =>
  layThrough(job, order, (k) => (k < most ? job.coil : 0));

/** Orders in which a group is tried. */
const ORDERS = 40;

/** Lays a group with as few joins as an order of some comes to. */
function layGroup(
  job: Job,
  group: readonly number[],
  most: number,
  random: () => number,
): Laid | null {
  let best: Laid | null = null;
  const order = [...group].sort((a, b) => job.runs[b]! - job.runs[a]!);
  for (let t = 0; t < (most === 1 ? 1 : ORDERS); t++) {
    if (t > 0) shuffle(order, random);
    const laid = layIn(job, order, most);
    if (laid && (!best || laid.joins < best.joins)) best = laid;
    if (best && best.joins <= best.coils.length - 1) break;
  }
  return best;
}

/** All runs end to end, whatever it costs. */
function endToEnd(job: Job): Laid {
  const order = [...job.runs.keys()].sort((a, b) => job.runs[b]! - job.runs[a]!);
  return layIn(job, order, Infinity) ?? layIn({ ...job, places: undefined }, order, Infinity)!;
}

/** Runs that one room is filled from, at most: with so many nearly every sum is reached. */
const LOOKED_AT = 400;

/**
 * Of these runs those that fill a room best without running over: sums that can be reached as bits, one run after
 * another, and back along them.
 */
export function fill(job: Job, from: readonly number[], room: number): number[] {
  if (room <= 0) return [];
  const words = (room >> 5) + 1;
  const reach = [new Uint32Array(words)];
  reach[0]![0] = 1;
  const last = room & 31;
  const mask = last === 31 ? 0xffffffff : (1 << (last + 1)) - 1;
  const used: number[] = [];
  /** Of each length no more are looked at than have room. */
  const alike = new Map<number, number>();
  for (const run of from) {
    const length = job.runs[run]!;
    if (length > room) continue;
    const n = (alike.get(length) ?? 0) + 1;
    if (n * length > room) continue;
    if (used.length === LOOKED_AT) break;
    alike.set(length, n);
    const before = reach.at(-1)!;
    const after = before.slice();
    const [skip, bits] = [length >> 5, length & 31];
    for (let w = words - 1; w >= skip; w--) {
      const low = before[w - skip]!;
      const high = bits && w > skip ? before[w - skip - 1]! >>> (32 - bits) : 0;
      after[w]! |= (low << bits) | high;
    }
    after[words - 1]! &= mask;
    reach.push(after);
    used.push(run);
    if ((after[words - 1]! >>> last) & 1) break;
  }
  const has = (bits: Uint32Array, sum: number) => (bits[sum >> 5]! >>> (sum & 31)) & 1;
  let sum = room;
  while (!has(reach.at(-1)!, sum)) sum--;
  const chosen: number[] = [];
  for (let k = used.length; k > 0; k--) {
    if (has(reach[k - 1]!, sum)) continue;
    chosen.push(used[k - 1]!);
    sum -= job.runs[used[k - 1]!]!;
  }
  return chosen;
}

/** Shares of the mean waste of a coil that one group may waste, from the strictest. */
const LEAVES = [0, 0.05, 0.25, 0.5, 1, 2, 4, Infinity];
/** Most coils of a group that is sought; what is left over is one group. */
const WIDEST = 4;

/** One cutting in so many coils: groups of one coil first, then of two and more; null where it takes more. */
function build(job: Job, coils: number, turn: number, random: () => number): Laid | null {
  let waste = coils * job.coil - job.sum;
  if (waste < (job.loose ?? 0)) return null;
  const leave = LEAVES[turn % LEAVES.length]! * (waste / coils);
  let left = [...job.runs.keys()];
  const groups: { runs: number[]; coils: number }[] = [];
  for (let k = 1; k <= WIDEST; k++) {
    // Runs that found no company of this width wait for the next.
    const waiting: number[] = [];
    left.sort((a, b) => job.runs[b]! - job.runs[a]!);
    while (left.length > 0) {
      const seed = left.shift()!;
      const length = job.runs[seed]!;
      if (length > k * job.coil) {
        waiting.push(seed);
        continue;
      }
      const others = [...left];
      if (turn >= LEAVES.length) shuffle(others, random);
      const chosen = fill(job, others, k * job.coil - length);
      const spare = k * job.coil - chosen.reduce((sum, r) => sum + job.runs[r]!, length);
      if (spare > Math.min(leave, waste)) {
        waiting.push(seed);
        continue;
      }
      waste -= spare;
      groups.push({ runs: [seed, ...chosen], coils: k });
      const taken = new Set(chosen);
      left = left.filter((r) => !taken.has(r));
    }
    left = waiting;
  }
  const used = groups.reduce((sum, g) => sum + g.coils, 0);
  if (left.length > 0) {
    const sum = left.reduce((a, r) => a + job.runs[r]!, 0);
    groups.push({ runs: left, coils: Math.max(coils - used, Math.ceil(sum / job.coil)) });
  }
  const laid = groups.map((g) => layGroup(job, g.runs, g.coils, random));
  if (laid.some((l) => l === null)) return null;
  return {
    coils: laid.flatMap((l) => l!.coils),
    joins: laid.reduce((sum, l) => sum + l!.joins, 0),
  };
}
