/** What a placement is compared with: equal bays, and the longest span again and again. */
import {
  allowed,
  check,
  describe,
  fixedAt,
  rules,
  spanAllowed,
  type Placement,
  type PlacementInputs,
} from './limits.js';

/**
 * Equal bays between the posts that must stand, in each stretch the fewest that meet the limits there,
 * as near as the samples allow; null where no number of them does.
 */
export function placeUniform(p: PlacementInputs): Placement | null {
  check(p);
  const t = p.tape_m ?? p.ground_s_m;
  const last = t.length - 1;
  const stops = [0, ...(p.musts ?? []).map((m) => m.at).filter((k) => k > 0 && k < last), last];
  const posts = [0];
  for (let m = 0; m + 1 < stops.length; m++) {
    const part = uniformPart(p, t, stops[m]!, stops[m + 1]!);
    if (!part) return null;
    posts.push(...part.slice(1));
  }
  return allowed(p, posts) ? describe(p, posts) : null;
}

function uniformPart(
  p: PlacementInputs,
  t: readonly number[],
  from: number,
  to: number,
): number[] | null {
  const total = t[to]! - t[from]!;
  const longest = Math.min(p.max_spacing_m, p.longest_m?.[from] ?? Infinity);
  const window = slice(p, from, to);
  for (let spans = Math.max(1, Math.ceil(total / longest - 1e-9)); spans <= to - from; spans++) {
    const posts: number[] = [];
    let at = from;
    for (let k = 0; k <= spans; k++) {
      const want = t[from]! + (total * k) / spans;
      while (at + 1 <= to && Math.abs(t[at + 1]! - want) <= Math.abs(t[at]! - want)) at++;
      posts.push(at);
    }
    if (
      allowed(
        window,
        posts.map((k) => k - from),
      )
    )
      return posts;
    if (spans > 1 && total / spans < p.min_spacing_m) return null;
  }
  return null;
}

/** The inputs of the part between two samples; the posts at its ends count as fixed. */
function slice(p: PlacementInputs, from: number, to: number): PlacementInputs {
  const cut = <T>(list: readonly T[]): T[] => list.slice(from, to + 1);
  return {
    ...p,
    ground_s_m: cut(p.ground_s_m),
    ground_z_m: cut(p.ground_z_m),
    musts: [],
    post_kinds: p.post_kinds.map((k) => ({
      ...k,
      ...(k.pullout_by_sample_N ? { pullout_by_sample_N: cut(k.pullout_by_sample_N) } : {}),
    })),
    ...(p.tape_m ? { tape_m: cut(p.tape_m) } : {}),
    ...(p.longest_m ? { longest_m: cut(p.longest_m) } : {}),
    ...(p.barred ? { barred: cut(p.barred) } : {}),
  };
}

/**
 * The longest span that spacing and clearance allow, again and again: what a hurried hand would do.
 * It looks at no uplift; null where it gets stuck.
 */
export function placeGreedy(p: PlacementInputs): Placement | null {
  check(p);
  const ruled = rules(p);
  const last = p.ground_s_m.length - 1;
  const posts = [0];
  for (let j = 0; j < last; j = posts.at(-1)!) {
    let best = -1;
    for (let k = j + 1; k <= last; k++) {
      if (ruled.since[k]! > j) break;
      if (p.barred?.[k] && !fixedAt(p, ruled, k)) continue;
      if (spanAllowed(p, ruled, j, k, true)) best = k;
    }
    if (best < 0) return null;
    posts.push(best);
  }
  return describe(p, posts);
}
