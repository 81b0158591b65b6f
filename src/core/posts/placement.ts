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
  const best = search(p, { clearance: true, uplift: true });
  if (best.posts) return describe(p, best.posts);
  return {
    feasible: false,
    furthest_reachable_m: p.ground_s_m[best.furthest]!,
    feasible_without_uplift_limit: search(p, { clearance: true, uplift: false }).posts !== null,
    feasible_without_clearance_limit: search(p, { clearance: false, uplift: true }).posts !== null,
  };
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
  let width = 1;
  for (let i = 0, j = 0; j < n; j++) {
    while (tape[j]! - tape[i]! > p.max_spacing_m + HAIR) i++;
    width = Math.max(width, j - i + 1);
  }
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

  for (let k = 1; k < n; k++) {
    if (p.barred?.[k] && !fixedAt(p, ruled, k)) continue;
    for (let d = 1; d < width && d <= k; d++) {
      const j = k - d;
      if (tape[k]! - tape[j]! > p.max_spacing_m + HAIR || j < ruled.since[k]!) break;
      const reachable = j === 0 || rowReached(cost, j, width);
      if (!reachable || !spanAllowed(p, ruled, j, k, limits.clearance)) continue;
      const at = k * width + d;
      const c = Math.hypot(s[k]! - s[j]!, z[k]! - z[j]!);
      chord[at] = c;
      rise[at] = (z[j]! - z[k]!) / c;
      if (j === 0) {
        cost[at] = 0;
        furthest = k;
        continue;
      }
      const ahead = -rise[at]!;
      const kinds = ruled.own.get(j) ?? ruled.kinds;
      for (let e = 1; e < width && e <= j; e++) {
        const from = j * width + e;
        const before = cost[from]!;
        if (before >= cost[at]!) continue;
        const uplift = total * (rise[from]! + ahead) - weight * (chord[from]! + c);
        let price = Infinity;
        if (!limits.uplift) price = kinds[0]!.price;
        else {
          for (const kind of kinds) {
            if (uplift > holdsAt(kind, j)) continue;
            price = kind.price;
            break;
          }
        }
        if (before + price + each < cost[at]!) {
          cost[at] = before + price + each;
          back[at] = e;
        }
      }
      if (cost[at]! < Infinity) furthest = k;
    }
  }
  return { posts: trace(cost, back, width, n), furthest };
}

function rowReached(cost: Float64Array, j: number, width: number): boolean {
  for (let e = 1; e < width && e <= j; e++) if (cost[j * width + e]! < Infinity) return true;
  return false;
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
