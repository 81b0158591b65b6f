/**
 * Where each post goes along a straight run so that the posts cost least: exact second-order dynamic
 * programming over ground samples. A state is the last two posts, since the uplift of a post needs
 * both its neighbours (docs/model.md, Posts).
 */
import {
  check,
  describe,
  fixedAt,
  HAIR,
  holdsAt,
  rules,
  spanAllowed,
  type NoPlacement,
  type Placement,
  type PlacementInputs,
  type Ruled,
} from './limits.js';

interface Limits {
  readonly clearance: boolean;
  readonly uplift: boolean;
}

/**
 * The cheapest placement, and of those the one with fewest posts; or what stands in the way.
 * Both ends of the run are fixed and cost nothing here.
 * @throws RangeError when the samples do not rise or there is no kind of post
 */
export function place(p: PlacementInputs): Placement | NoPlacement {
  check(p);
  bound(p);
  const best = search(p, { clearance: true, uplift: true });
  if (best.posts) return describe(p, best.posts);
  return {
    feasible: false,
    furthest_reachable_m: p.ground_s_m[best.furthest]!,
    feasible_without_uplift_limit: search(p, { clearance: true, uplift: false }).posts !== null,
    feasible_without_clearance_limit: search(p, { clearance: false, uplift: true }).posts !== null,
  };
}

/** Pairs of samples that one search looks at, at the most, and samples within them: some seconds. */
const MOST_SPANS = 4e6;
const MOST_LOOKS = 8e8;

/** How many samples the longest span holds. */
function windowOf(p: PlacementInputs): number {
  const tape = p.tape_m ?? p.ground_s_m;
  let width = 1;
  for (let i = 0, j = 0; j < tape.length; j++) {
    while (tape[j]! - tape[i]! > p.max_spacing_m + HAIR) i++;
    width = Math.max(width, j - i + 1);
  }
  return width;
}

function bound(p: PlacementInputs): void {
  const [n, width] = [p.ground_s_m.length, windowOf(p)];
  if (n * width > MOST_SPANS || (n * width * width) / 2 > MOST_LOOKS)
    throw new RangeError(
      `${n} samples with up to ${width} within the longest span are too many: take them further apart, a shorter run or a shorter max_spacing_m`,
    );
}

/**
 * The search itself. Spans that end at one sample are kept as one row of fixed width, the span that
 * comes from d samples before at place d; the row holds the least cost of any sequence whose last
 * span it is.
 */
function search(p: PlacementInputs, limits: Limits): { posts: number[] | null; furthest: number } {
  const { ground_s_m: s, ground_z_m: z } = p;
  const tape = p.tape_m ?? s;
  const ruled = rules(p);
  const n = s.length;
  const width = windowOf(p);
  const cost = new Float64Array(n * width).fill(Infinity);
  const back = new Int32Array(n * width);
  // Rise of a span over its chord, seen from its far end, and the chord: for the uplift there.
  const rise = new Float64Array(n * width);
  const chord = new Float64Array(n * width);
  const total = p.strands * p.tension_N;
  const weight = (p.strands * p.wire_weight_N_per_m) / 2;
  // A post more is dearer than a post less at equal cost.
  const each = 1e-7 * Math.max(1, ...ruled.kinds.map((k) => k.price));
  let furthest = 0;

  const ahead = ranks(ruled, width, limits.uplift);
  for (let k = 1; k < n; k++) {
    if (p.barred?.[k] && !fixedAt(p, ruled, k)) continue;
    for (let d = 1; d < width && d <= k; d++) {
      const j = k - d;
      if (tape[k]! - tape[j]! > p.max_spacing_m + HAIR || j < ruled.since[k]!) break;
      const row =
        j === 0
          ? null
          : ahead.rowOf(j, (e) => {
              const from = j * width + e;
              return { cost: cost[from]!, lift: total * rise[from]! - weight * chord[from]! };
            });
      if (j > 0 && !row) continue;
      if (!spanAllowed(p, ruled, j, k, limits.clearance)) continue;
      const at = k * width + d;
      const c = Math.hypot(s[k]! - s[j]!, z[k]! - z[j]!);
      chord[at] = c;
      rise[at] = (z[j]! - z[k]!) / c;
      if (!row) {
        cost[at] = 0;
        furthest = k;
        continue;
      }
      // Uplift at j: what the span before adds to it and what this one does.
      const best = ahead.cheapest(row, j, -total * rise[at]! - weight * c);
      if (best.cost === Infinity) continue;
      cost[at] = best.cost + each;
      back[at] = best.e;
      furthest = k;
    }
  }
  return { posts: trace(cost, back, width, n), furthest };
}

/** The spans that end at one sample, by rising lift: how cheap the best of the first m is. */
interface Row {
  readonly lift: Float64Array;
  /** Least cost among the first m + 1, and which span has it. */
  readonly least: Float64Array;
  readonly who: Int32Array;
}

/**
 * Finds the cheapest span before a post without looking at all of them: a kind of post holds every
 * span whose lift stays below a limit, so that they are ranked once and the limit looked up.
 */
function ranks(ruled: Ruled, width: number, judged: boolean) {
  const rows = new Map<number, Row | null>();
  return {
    rowOf(j: number, span: (e: number) => { cost: number; lift: number }): Row | null {
      let row = rows.get(j);
      if (row === undefined) {
        const all = [];
        for (let e = 1; e < width && e <= j; e++) {
          const own = span(e);
          if (own.cost < Infinity) all.push({ e, ...own });
        }
        rows.set(j, (row = all.length === 0 ? null : ranked(all)));
        // No span reaches further back than the window.
        rows.delete(j - width);
      }
      return row;
    },
    /** @param lift what the span ahead adds to the uplift of the post at j, N */
    cheapest(row: Row, j: number, lift: number): { cost: number; e: number } {
      let best = { cost: Infinity, e: 0 };
      for (const kind of ruled.own.get(j) ?? ruled.kinds) {
        const m = judged ? below(row.lift, holdsAt(kind, j) - lift) : row.lift.length;
        if (m > 0) {
          const cost = row.least[m - 1]! + kind.price;
          const e = row.who[m - 1]!;
          if (cost < best.cost || (cost === best.cost && e < best.e)) best = { cost, e };
        }
        if (m === row.lift.length) break;
      }
      return best;
    },
  };
}

function ranked(spans: readonly { e: number; cost: number; lift: number }[]): Row {
  const order = [...spans].sort((a, b) => a.lift - b.lift || a.e - b.e);
  const lift = Float64Array.from(order, (o) => o.lift);
  const least = new Float64Array(order.length);
  const who = new Int32Array(order.length);
  let [cost, e] = [Infinity, 0];
  order.forEach((o, m) => {
    if (o.cost < cost || (o.cost === cost && o.e < e)) [cost, e] = [o.cost, o.e];
    least[m] = cost;
    who[m] = e;
  });
  return { lift, least, who };
}

/** How many of rising values are at most x. */
function below(rising: Float64Array, x: number): number {
  let [low, high] = [0, rising.length];
  while (low < high) {
    const mid = (low + high) >> 1;
    if (rising[mid]! <= x) low = mid + 1;
    else high = mid;
  }
  return low;
}

function trace(cost: Float64Array, back: Int32Array, width: number, n: number): number[] | null {
  let k = n - 1;
  let d = 0;
  for (let e = 1; e < width; e++) {
    const at = k * width + e;
    if (cost[at]! < Infinity && (d === 0 || cost[at]! < cost[k * width + d]!)) d = e;
  }
  if (d === 0) return null;
  const posts = [k];
  while (k > 0) {
    const next = back[k * width + d]!;
    k -= d;
    posts.unshift(k);
    d = next;
  }
  return posts;
}
