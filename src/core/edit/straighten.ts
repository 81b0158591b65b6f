/** A line of many points made into the straight runs behind it. */
import { closes } from '../land/ring.js';
import { vertexId, verticesFrom } from './edits.js';
import { keepTouch, mapPlaces } from './places.js';
import { distance, JOIN_TOLERANCE, nearest, stations } from '../plan/geometry.js';
import { fitWalk } from '../plan/walkFit.js';
import type { Line, Plan, Point } from '../plan/schema.js';

/**
 * The straight runs of a line that keep within a tolerance; ends that meet another line stay there.
 * @param tolerance_m 0 keeps every vertex
 */
export function straightened(plan: Pick<Plan, 'lines'>, id: string, tolerance_m: number): Point[] {
  const { vertices } = plan.lines[id]!;
  const out = fitWalk(vertices, tolerance_m).map(({ e, n }) => ({ e, n }));
  if (closes(vertices) || out.length < 2) return out;
  const others = Object.values(plan.lines).filter((l) => l.id !== id);
  for (const rank of [0, -1]) {
    const end = vertices.at(rank)!;
    if (others.some((l) => nearest(l.vertices, end).off <= JOIN_TOLERANCE))
      out[rank === 0 ? 0 : out.length - 1] = { e: end.e, n: end.n };
  }
  return out;
}

/** Straightens a line; what stands on it and what meets it goes along. A locked line stays as it is. */
export function straighten(plan: Plan, id: string, tolerance_m: number): void {
  const line = plan.lines[id]!;
  if (line.locked) return;
  const before = line.vertices.map((v) => ({ ...v }));
  const points = straightened(plan, id, tolerance_m);
  if (points.length < 2) return;
  keepTouch(plan, id, () => {
    const at = anchors(before, points);
    line.vertices = named(before, points, at);
    const [from, to] = [stations(before), stations(points)];
    mapPlaces(plan, id, (s) => {
      let i = 0;
      while (i < at.length - 2 && s > from[at[i + 1]!]!) i++;
      const [a, b] = [from[at[i]!]!, from[at[i + 1]!]!];
      const t = b === a ? 0 : Math.min(1, Math.max(0, (s - a) / (b - a)));
      return to[i]! + t * (to[i + 1]! - to[i]!);
    });
  });
}

/** For each new point the old vertex that it came from, in the line's order. */
function anchors(before: readonly Point[], points: readonly Point[]): number[] {
  const last = before.length - 1;
  let from = 0;
  return points.map((p, i) => {
    if (i === 0) return 0;
    if (i === points.length - 1) return last;
    // As many old ones are left as new ones are still to come.
    const until = last - (points.length - 1 - i);
    let best = from + 1;
    for (let k = from + 1; k <= until; k++)
      if (distance(before[k]!, p) < distance(before[best]!, p)) best = k;
    return (from = best);
  });
}

/** New vertices under the names of those that they came from; a kind that was set by hand is kept. */
function named(before: Line['vertices'], points: readonly Point[], at: readonly number[]) {
  const taken: Line['vertices'] = [];
  return verticesFrom(points).map((v, i) => {
    const old = before[at[i]!];
    const id = old && !taken.some((t) => t.id === old.id) ? old.id : vertexId({ vertices: taken });
    const made = { ...v, id, kind: old?.kind === 'end' ? ('end' as const) : v.kind };
    taken.push(made);
    return made;
  });
}
