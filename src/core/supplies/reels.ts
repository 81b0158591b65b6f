/** Which reels to buy: ways to have enough wire, cheapest first, and the cheapest that take all runs whole. */
import type { Cut } from './coils.js';

/** A coil that may be cut. */
export interface Bin {
  readonly reel: number | null;
  readonly size: number;
}

/** A reel that is sold: its length in whole parts of a metre, and its price. */
export interface Reel {
  readonly size: number;
  readonly price: number;
}

/** Runs up to which every way to share them out among reels, none of them cut, is looked at. */
export const ALL_WAYS = 11;

/** The cheapest reels that take the runs whole: for each set of them the cheapest reel and the cheapest of the rest. */
export function wholeRuns(
  runs: readonly number[],
  reels: readonly Reel[],
): (Bin & { cuts: readonly Cut[] })[] | null {
  const all = (1 << runs.length) - 1;
  const sum = new Float64Array(all + 1);
  const reelFor = new Int8Array(all + 1).fill(-1);
  for (let set = 1; set <= all; set++) {
    const low = 31 - Math.clz32(set & -set);
    sum[set] = sum[set & (set - 1)]! + runs[low]!;
    reels.forEach(({ size, price }, r) => {
      const now = reelFor[set]!;
      if (size >= sum[set]! && (now < 0 || price < reels[now]!.price)) reelFor[set] = r;
    });
  }
  const least = new Float64Array(all + 1).fill(Infinity);
  const by = new Int32Array(all + 1);
  least[0] = 0;
  for (let set = 1; set <= all; set++) {
    const first = set & -set;
    for (let rest = set ^ first, more = rest; ; more = (more - 1) & rest) {
      const group = more | first;
      const reel = reelFor[group]!;
      const price = reel < 0 ? Infinity : least[set ^ group]! + reels[reel]!.price;
      if (price < least[set]!) [least[set], by[set]] = [price, group];
      if (more === 0) break;
    }
  }
  if (!Number.isFinite(least[all]!)) return null;
  const out: (Bin & { cuts: readonly Cut[] })[] = [];
  for (let set = all; set > 0; set ^= by[set]!) {
    const group = by[set]!;
    const reel = reelFor[group]!;
    const cuts = [...runs.keys()].filter((k) => group & (1 << k)).map((run) => ({ run, length: runs[run]! })); // prettier-ignore
    out.push({ reel, size: reels[reel]!.size, cuts });
  }
  return out;
}

export interface Cover {
  readonly counts: readonly number[];
  readonly price: number;
}

/** Ways to buy reels that are looked at, from the cheapest. */
const COVERS = 24;

/** Reels that together have so much wire, cheapest first; each in turn with one reel more for what cannot be used. */
export function coversOf(reels: readonly Reel[], need: number): Cover[] {
  const out: Cover[] = [];
  const counts = reels.map(() => 0);
  // Of the kind that is cheapest by the metre any number, of the others no more than a few.
  const order = [...reels.keys()].sort((a, b) => reels[a]!.price / reels[a]!.size - reels[b]!.price / reels[b]!.size); // prettier-ignore
  const walk = (k: number, left: number, price: number) => {
    const reel = order[k]!;
    const { size, price: each } = reels[reel]!;
    const enough = Math.max(0, Math.ceil(left / size));
    if (k === order.length - 1) {
      // One, two more than the wire alone asks for: what is left of coils is not always to be used.
      for (let more = 0; more < 3; more++) {
        counts[reel] = enough + more;
        out.push({ counts: [...counts], price: price + (enough + more) * each });
      }
      counts[reel] = 0;
      return;
    }
    const from = k === 0 ? Math.max(0, enough - OTHERS) : 0;
    for (let n = from; n <= enough + (k === 0 ? 2 : 0) && n <= (k === 0 ? Infinity : OTHERS); n++) {
      counts[reel] = n;
      walk(k + 1, left - n * size, price + n * each);
    }
    counts[reel] = 0;
  };
  walk(0, Math.max(0, need), 0);
  out.push(cheapestCover(reels, need));
  const seen = new Set<string>();
  const sorted = out
    .sort((a, b) => a.price - b.price)
    .filter(({ counts: c }) => {
      const key = c.join();
      const covers = c.reduce((sum, n, r) => sum + n * reels[r]!.size, 0) >= need;
      const known = seen.has(key);
      seen.add(key);
      return covers && !known;
    });
  // In the end there are coils enough, whatever of them cannot be used.
  const last = sorted.at(-1)!;
  const many = last.counts.map((n, r) => (r === order[0] ? 2 * n + 2 : n));
  return [
    ...sorted.slice(0, COVERS),
    { counts: many, price: many.reduce((sum, n, r) => sum + n * reels[r]!.price, 0) },
  ];
}

/** The reels that cost least and have so much wire: by length, the cheapest way to reach it. */
function cheapestCover(reels: readonly Reel[], need: number): Cover {
  const counts = reels.map(() => 0);
  if (need <= 0) return { counts, price: 0 };
  // All reels are whole numbers of this.
  const step = reels
    .map((r) => r.size)
    .reduce(function common(a, b): number {
      return b === 0 ? a : common(b, a % b);
    });
  const goal = Math.ceil(need / step);
  const least = new Float64Array(goal + 1).fill(Infinity);
  const by = new Int32Array(goal + 1);
  least[0] = 0;
  for (let at = 1; at <= goal; at++)
    reels.forEach(({ size, price }, r) => {
      const before = least[Math.max(0, at - size / step)]! + price;
      if (before < least[at]!) [least[at], by[at]] = [before, r];
    });
  for (let at = goal; at > 0; at = Math.max(0, at - reels[by[at]!]!.size / step))
    counts[by[at]!]!++;
  return { counts, price: least[goal]! };
}
/** Reels of the kinds that are dearer by the metre, at most. */
const OTHERS = 3;
