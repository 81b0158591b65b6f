/**
 * Cutting from reels of several lengths, part coils that lie in the shed, and with short pieces to come off what is left.
 * Without part coils and with one reel the search of coils.ts is tried as well.
 */
import { sum } from '../base/numbers.js';
import { shuffle } from '../base/random.js';
import { boundOf, type Job } from './coilBound.js';
import { chance, fill, layCheaply, layThrough, type Cut } from './coils.js';
import { ALL_WAYS, coversOf, wholeRuns, type Bin } from './reels.js';

export interface MixedInputs {
  readonly runs_m: readonly number[];
  /** By run, the stretches from its start in which a join may fall, m, in order. */
  readonly places_m?: readonly (readonly (readonly [from: number, to: number])[])[];
  /** Pieces that come off what is left. */
  readonly shorts_m: readonly number[];
  readonly reels: readonly { readonly length_m: number; readonly price: number }[];
  /** Part coils that are there already. */
  readonly parts_m: readonly number[];
  /** A join: its part and its work. */
  readonly join_price: number;
  readonly min_piece_m: number;
}

/** One coil as it is cut, in the order off the jenny. */
export interface CutCoil {
  /** Which of the reels it is; null: a part coil of the shed. */
  readonly reel: number | null;
  readonly length_m: number;
  readonly pieces: readonly { readonly run: number; readonly length_m: number }[];
  /** Which of the short pieces come off its end. */
  readonly shorts: readonly number[];
  readonly left_m: number;
}

export interface MixedCutting {
  readonly coils: readonly CutCoil[];
  readonly joins: number;
  /** Reels and joins. */
  readonly cost: number;
  /** No cutting costs less. */
  readonly lower_bound: number;
}

const PARTS = 10;
/** More runs are laid in fewer ways: each takes longer, and there is more choice in each. */
const triesFor = (runs: number): number => (runs <= 120 ? 200 : runs <= 600 ? 16 : 3);
/** Beyond so many times the tries of one way to buy, what is found is taken. */
const PATIENCE = 5;
const up = (m: number): number => Math.ceil(m * PARTS - 1e-6);
const down = (m: number): number => Math.floor(m * PARTS + 1e-6);

interface Way {
  readonly bins: readonly (Bin & { readonly cuts: readonly Cut[]; readonly shorts: readonly number[]; readonly left: number })[]; // prettier-ignore
  readonly joins: number;
  readonly cost: number;
}

/**
 * A cutting that costs little, with what none can cost less than.
 * @throws RangeError for lengths or prices that cannot be
 */
export function cutMixed(i: MixedInputs, tries = triesFor(i.runs_m.length)): MixedCutting {
  if (i.reels.length === 0 || !i.reels.every((r) => r.length_m > 0 && r.price >= 0)) throw new RangeError('reels: lengths above 0, prices 0 and more'); // prettier-ignore
  if (![...i.runs_m, ...i.shorts_m, ...i.parts_m].every((m) => m > 0 && Number.isFinite(m))) throw new RangeError('lengths: above 0'); // prettier-ignore
  if (!(i.join_price >= 0 && i.min_piece_m >= 0)) throw new RangeError('join: price and shortest piece of 0 and more'); // prettier-ignore
  const longest = Math.max(...i.reels.map((r) => down(r.length_m)));
  const tooLong = i.shorts_m.find((m) => up(m) > longest);
  if (tooLong !== undefined) throw new RangeError('shorts_m: no reel is as long as a short piece');
  const reels = i.reels.map((r) => ({ size: down(r.length_m), price: r.price }));
  const runs = i.runs_m.map(up);
  const shorts = i.shorts_m.map(up);
  const cheapest = reels.reduce((a, b) => (b.price / b.size < a.price / a.size ? b : a));
  const job: Job = {
    runs,
    coil: cheapest.size,
    least: Math.min(up(i.min_piece_m), Math.floor(Math.min(...reels.map((r) => r.size)) / 2)),
    coilPrice: cheapest.price,
    joinPrice: i.join_price,
    sum: sum(runs),
    loose: sum(shorts),
    ...(i.places_m ? { places: i.places_m.map((of) => of.map(([a, b]) => [up(a), down(b)] as const).filter(([a, b]) => b >= a)) } : {}), // prettier-ignore
  };
  const parts = i.parts_m.map(down).filter((m) => m > 0).sort((a, b) => b - a); // prettier-ignore
  const need = job.sum + job.loose!;
  const covers = coversOf(reels, need - sum(parts));
  const top = Math.max(longest, ...parts);
  const forced = sum(runs.map((r) => Math.ceil(r / top) - 1));
  const alone = reels.length === 1 && parts.length === 0;
  const lower_bound = Math.max(covers[0]!.price + forced * job.joinPrice, alone && runs.length > 0 ? boundOf(job) : 0); // prettier-ignore

  let best: Way | null = null;
  const take = (way: Way | null) => {
    if (way && (!best || way.cost < best.cost - 1e-9)) best = way;
  };
  const cost = (bins: readonly Bin[], joins: number) =>
    joins * job.joinPrice + sum(bins.map((b) => (b.reel === null ? 0 : reels[b.reel]!.price)));
  if (alone && runs.length > 0) {
    const bin = { reel: 0, size: job.coil };
    const shaped = (coils: readonly (readonly Cut[])[], joins: number) =>
      withShorts(coils.map((cuts) => ({ ...bin, cuts })), shorts, joins, cost); // prettier-ignore
    const laid = layCheaply(job, tries, lower_bound, ({ coils, joins }) => shaped(coils, joins) !== null); // prettier-ignore
    take(shaped(laid.coils, laid.joins));
  }
  if (parts.length === 0 && runs.length > 0 && runs.length <= ALL_WAYS) {
    const bins = wholeRuns(runs, reels);
    if (bins) take(withShorts(bins, shorts, 0, cost));
  }
  const random = chance(23);
  // So many runs are laid near enough to the bound, rather than for long.
  const near = runs.length > 240 ? 1.005 * lower_bound : lower_bound;
  let spent = 0;
  for (const { counts, price } of covers) {
    if (best && (spent > PATIENCE * tries || (best as Way).cost <= near)) break;
    if (best && price + forced * job.joinPrice >= (best as Way).cost - 1e-9) break;
    const bins: Bin[] = [
      ...parts.map((size) => ({ reel: null, size })),
      ...counts.flatMap((n, reel) => Array.from({ length: n }, () => ({ reel, size: reels[reel]!.size }))), // prettier-ignore
    ];
    for (let t = 0; t < tries; t++) {
      spent++;
      const laid = lay(job, bins, t, random);
      if (laid) take(withShorts(laid.bins, shorts, laid.joins, cost));
      if (best && (best as Way).cost <= Math.max(near, price + forced * job.joinPrice) + 1e-9) break; // prettier-ignore
    }
  }
  const found = best as Way | null;
  if (!found) throw new RangeError('runs_m: no cutting was found');
  return {
    coils: found.bins.map((b) => ({
      reel: b.reel,
      length_m: b.size / PARTS,
      pieces: b.cuts.map((c) => ({ run: c.run, length_m: c.length / PARTS })),
      shorts: b.shorts,
      left_m: b.left / PARTS,
    })),
    joins: found.joins,
    cost: found.cost,
    lower_bound,
  };
}

const LEAVES = [0, 0.02, 0.1, 0.3, 1, 3, Infinity];

/** Fills coils with whole runs where little is left, and lays the rest end to end; null: it takes more. */
function lay(
  job: Job,
  all: readonly Bin[],
  turn: number,
  random: () => number,
): { bins: (Bin & { cuts: readonly Cut[] })[]; joins: number } | null {
  const bins = [...all];
  // Part coils are used up first; which comes before which is tried.
  if (turn >= LEAVES.length) shuffle(bins, random);
  bins.sort((a, b) => Number(a.reel !== null) - Number(b.reel !== null));
  const waste = bins.reduce((total, b) => total + b.size, 0) - job.sum;
  if (waste < (job.loose ?? 0)) return null;
  const leave = LEAVES[turn % LEAVES.length]! * (waste / bins.length);
  let left = [...job.runs.keys()].sort((a, b) => job.runs[b]! - job.runs[a]!);
  const out: (Bin & { cuts: readonly Cut[] })[] = [];
  const waiting: Bin[] = [];
  for (const bin of bins) {
    const chosen = fill(job, left, bin.size);
    const used = chosen.reduce((sum, r) => sum + job.runs[r]!, 0);
    if (chosen.length === 0 || bin.size - used > leave) {
      waiting.push(bin);
      continue;
    }
    out.push({ ...bin, cuts: chosen.map((run) => ({ run, length: job.runs[run]! })) });
    const taken = new Set(chosen);
    left = left.filter((r) => !taken.has(r));
  }
  const order = [...left];
  let joined: ReturnType<typeof layThrough> = null;
  for (let t = 0; t < ORDERS && left.length > 0; t++) {
    if (t > 0) shuffle(order, random);
    const laid = layThrough(job, order, (k) => waiting[k]?.size ?? 0);
    if (laid && (!joined || laid.joins < joined.joins)) joined = laid;
  }
  if (left.length > 0 && !joined) return null;
  waiting.forEach((bin, k) => out.push({ ...bin, cuts: joined?.coils[k] ?? [] }));
  return { bins: out, joins: joined?.joins ?? 0 };
}
const ORDERS = 12;

/** Short pieces off what is left, the longest first into the tightest offcut; null: they do not all fit. */
function withShorts(
  bins: readonly (Bin & { cuts: readonly Cut[] })[],
  shorts: readonly number[],
  joins: number,
  cost: (bins: readonly Bin[], joins: number) => number,
): Way | null {
  const left = bins.map((b) => b.size - b.cuts.reduce((sum, c) => sum + c.length, 0));
  const taken: number[][] = bins.map(() => []);
  const order = [...shorts.keys()].sort((a, b) => shorts[b]! - shorts[a]!);
  // Coils by what is left of them, the least first.
  const by = [...left.keys()].sort((a, b) => left[a]! - left[b]!);
  const place = (room: number) => {
    let [low, high] = [0, by.length];
    while (low < high) {
      const mid = (low + high) >> 1;
      if (left[by[mid]!]! < room) low = mid + 1;
      else high = mid;
    }
    return low;
  };
  for (const short of order) {
    const at = place(shorts[short]!);
    const [coil] = by.splice(at, 1);
    if (coil === undefined) return null;
    left[coil]! -= shorts[short]!;
    taken[coil]!.push(short);
    by.splice(place(left[coil]!), 0, coil);
  }
  // What nothing comes off is not bought.
  const kept = bins.map((b, k) => ({ ...b, shorts: taken[k]!, left: left[k]! })).filter((b) => b.cuts.length > 0 || b.shorts.length > 0); // prettier-ignore
  return { bins: kept, joins, cost: cost(kept, joins) };
}
