/** Changes to whole lines: moved, split, joined, turned round, set off, cut. */
import { PLACED, type Placed } from '../parts/placed.js';
import { freeId } from '../plan/ids.js';
import { addLine, LEAST_LEG, rekind, removeLine, vertexId } from './edits.js';
import {
  bearing,
  distance,
  fromBearing,
  JOIN_TOLERANCE,
  nearest,
  planLength,
  pointAt,
  stations,
} from '../plan/geometry.js';
import {
  keepJoints,
  keepPlaces,
  leaveLine,
  mapPlaces,
  spotsOf,
  standingOn,
  stretchesOf,
} from './places.js';
import { crossing } from '../plan/legIndex.js';
import type { Line, Plan, Point } from '../plan/schema.js';

/**
 * Moves lines as a whole by a step east and north. What meets them goes along, except locked lines.
 */
export function moveLines(plan: Plan, ids: readonly string[], by: Point): void {
  const free = ids.filter((id) => plan.lines[id] && !plan.lines[id]!.locked);
  keepJoints(plan, free, () => {
    for (const id of free) {
      for (const v of plan.lines[id]!.vertices) {
        v.e += by.e;
        v.n += by.n;
      }
    }
  });
}

/** Moves one leg: both its vertices by the same step. */
export function moveLeg(plan: Plan, id: string, leg: number, by: Point): void {
  const line = plan.lines[id]!;
  if (line.locked) return;
  const next = line.vertices.map((v, i) =>
    i === leg || i === leg + 1 ? { e: v.e + by.e, n: v.n + by.n } : v,
  );
  if (next.some((v, i) => i > 0 && distance(next[i - 1]!, v) < LEAST_LEG)) return;
  keepJoints(plan, [id], () =>
    keepPlaces(plan, id, () => {
      next.forEach((p, i) => Object.assign(line.vertices[i]!, { e: p.e, n: p.n }));
    }),
  );
}

/** Turns a line round: its end becomes its start, and its two sides change places. */
export function reverseLine(plan: Plan, id: string, parts: readonly Placed[] = PLACED): void {
  const line = plan.lines[id]!;
  if (line.locked) return;
  const total = planLength(line);
  line.vertices.reverse();
  mapPlaces(plan, id, (s) => total - s, parts);
  for (const part of parts) part.turned?.(plan, line);
}

/** Gives what stands beyond `s` on one line to another, counted from there. */
function handOver(plan: Plan, from: Line, to: Line, s: number, parts: readonly Placed[]): void {
  for (const { item } of standingOn(plan, from.id, parts)) {
    if (item.at_m <= s) continue;
    item.line = to.id;
    item.at_m -= s;
  }
  for (const { key, list } of spotsOf(from, parts)) {
    if (!list) continue;
    const beyond = list.filter((x) => x.at_m > s).map((x) => ({ ...x, at_m: x.at_m - s }));
    Object.assign(from, { [key]: list.filter((x) => x.at_m <= s) });
    Object.assign(to, { [key]: beyond });
  }
  for (const { key, list } of stretchesOf(from, parts)) {
    if (!list) continue;
    const beyond = list.filter((x) => x.to_m > s);
    Object.assign(to, {
      [key]: beyond.map((x) => ({ ...x, from_m: Math.max(0, x.from_m - s), to_m: x.to_m - s })),
    });
    Object.assign(from, {
      [key]: list.filter((x) => x.from_m < s).map((x) => ({ ...x, to_m: Math.min(x.to_m, s) })),
    });
  }
}

/**
 * Cuts a line in two at a plan distance; both parts keep its make-up. A gate that the cut would go
 * through stays whole: then nothing is changed.
 * @returns id of the new line, or null when the cut falls on an end or in a gate
 */
export function splitLine(
  plan: Plan,
  id: string,
  s: number,
  parts: readonly Placed[] = PLACED,
): string | null {
  const line = plan.lines[id]!;
  const at = stations(line.vertices);
  if (line.locked || s < LEAST_LEG || s > at.at(-1)! - LEAST_LEG) return null;
  if (parts.some((part) => part.blocksCut?.(plan, line, s))) return null;
  const p = pointAt(line.vertices, s);
  const beyond = line.vertices.filter((_, i) => at[i]! > s + LEAST_LEG).map((v) => ({ ...v }));
  const before = line.vertices.filter((_, i) => at[i]! < s - LEAST_LEG);
  const newId = freeId(plan.lines, 'l');
  const other: Line = {
    ...(JSON.parse(JSON.stringify(line)) as Line),
    id: newId,
    name: `${line.name} 2`.slice(0, 80),
    vertices: [{ id: vertexId(line), e: p.e, n: p.n, kind: 'end' }, ...beyond],
  };
  plan.lines[newId] = other;
  handOver(plan, line, other, s, parts);
  line.vertices = [...before, { id: vertexId(line), e: p.e, n: p.n, kind: 'end' }];
  return newId;
}

/**
 * Joins two lines whose ends lie nearest to one another into the first; a leg closes the distance
 * between them where there is one. The second line's own make-up is given up.
 * @returns false when one of them is locked, or both are the same line
 */
export function joinLines(
  plan: Plan,
  id: string,
  otherId: string,
  parts: readonly Placed[] = PLACED,
): boolean {
  const line = plan.lines[id];
  const other = plan.lines[otherId];
  if (!line || !other || id === otherId || line.locked || other.locked) return false;
  const ends = [
    [true, false],
    [true, true],
    [false, false],
    [false, true],
  ] as const;
  const endOf = (l: Line, start: boolean): Point => (start ? l.vertices[0]! : l.vertices.at(-1)!);
  const [mine, theirs] = ends.reduce((a, b) =>
    distance(endOf(line, b[0]), endOf(other, b[1])) <
    distance(endOf(line, a[0]), endOf(other, a[1]))
      ? b
      : a,
  );
  if (mine) reverseLine(plan, id, parts);
  if (!theirs) reverseLine(plan, otherId, parts);
  const total = planLength(line);
  const gap = distance(line.vertices.at(-1)!, other.vertices[0]!);
  const touching = gap < LEAST_LEG;
  const seam = line.vertices.length - 1;
  for (const v of other.vertices.slice(touching ? 1 : 0)) {
    line.vertices.push({ ...v, id: vertexId(line) });
  }
  rekind(line, seam);
  if (!touching) rekind(line, seam + 1);
  const shift = total + (touching ? 0 : gap);
  for (const { item } of standingOn(plan, otherId, parts)) {
    item.line = id;
    item.at_m += shift;
  }
  for (const part of parts) part.joining?.(line, other);
  for (const [k, { key, list }] of spotsOf(other, parts).entries()) {
    const own = spotsOf(line, parts)[k]!.list ?? [];
    if (list)
      Object.assign(line, {
        [key]: [...own, ...list.map((x) => ({ ...x, at_m: x.at_m + shift }))],
      });
  }
  for (const [k, { key, list }] of stretchesOf(other, parts).entries()) {
    const own = stretchesOf(line, parts)[k]!.list ?? [];
    const moved = list?.map((x) => ({ ...x, from_m: x.from_m + shift, to_m: x.to_m + shift }));
    if (moved) Object.assign(line, { [key]: [...own, ...moved] });
  }
  delete plan.lines[otherId];
  return true;
}

/**
 * Points of a line set off sideways by a distance, left positive: corners meet where the set-off legs
 * do, held to ten times the distance at sharp turns.
 */
export function offsetPoints(points: readonly Point[], left_m: number): Point[] {
  return points.map((p, i) => {
    const before = points[i - 1];
    const after = points[i + 1];
    const normal = (a: Point, b: Point) => fromBearing({ e: 0, n: 0 }, 1, bearing(a, b) - 90);
    if (!before || !after) {
      const n = normal(before ?? p, after ?? p);
      return { e: p.e + left_m * n.e, n: p.n + left_m * n.n };
    }
    const [a, b] = [normal(before, p), normal(p, after)];
    const mid = { e: a.e + b.e, n: a.n + b.n };
    const dot = mid.e * a.e + mid.n * a.n;
    const k = dot < 0.1 ? 10 : 1 / dot;
    return { e: p.e + left_m * k * mid.e, n: p.n + left_m * k * mid.n };
  });
}

/** Sets a copy of a line off to one side, left positive; gives its id. */
export function offsetLine(plan: Plan, id: string, left_m: number): string {
  const line = plan.lines[id]!;
  const newId = addLine(plan, offsetPoints(line.vertices, left_m), `${line.name} beside`);
  const made = plan.lines[newId]!;
  for (const key of ['post', 'maxBay_m', 'school', 'tensioner', 'strands'] as const)
    Object.assign(made, { [key]: line[key] });
  return newId;
}

/**
 * A laneway of a width: two lines either side of a middle line; gives both ids.
 * @param width_m between the two fences
 */
export function addLaneway(
  plan: Plan,
  middle: readonly Point[],
  width_m: number,
): [string, string] {
  const n = Object.keys(plan.lines).length + 1;
  const sides = [width_m / 2, -width_m / 2].map((off, k) =>
    addLine(
      plan,
      reaching(plan, middle, offsetPoints(middle, off), width_m),
      `Lane ${n} ${k === 0 ? 'left' : 'right'}`,
    ),
  );
  return [sides[0]!, sides[1]!];
}

/**
 * One side of a laneway with its ends on what the middle's ends were snapped to: each side is drawn on, or
 * cut back, along its own first and last leg.
 */
function reaching(
  plan: Plan,
  middle: readonly Point[],
  side: readonly Point[],
  width_m: number,
): Point[] {
  const out = [...side];
  for (const [end, before] of [
    [0, 1],
    [side.length - 1, side.length - 2],
  ] as const) {
    for (const line of Object.values(plan.lines)) {
      if (nearest(line.vertices, middle[end]!).off > JOIN_TOLERANCE) continue;
      const [from, to] = [side[before]!, side[end]!];
      const length = distance(from, to);
      // As far beyond its end as the lane is wide, twice over for a flat angle.
      const far = along(from, to, (length + 3 * width_m) / length);
      const hits = line.vertices.slice(1).flatMap((d, i) => {
        const x = crossing(from, far, line.vertices[i]!, d);
        return x ? [along(from, far, x[0])] : [];
      });
      if (hits.length === 0) continue;
      out[end] = hits.reduce((a, b) => (distance(b, to) < distance(a, to) ? b : a));
    }
  }
  return out;
}

const along = (a: Point, b: Point, t: number): Point => ({
  e: a.e + t * (b.e - a.e),
  n: a.n + t * (b.n - a.n),
});

/**
 * Takes a part out of a line; the two parts that are left become two lines, or one where the part
 * reached an end.
 */
export function removePart(
  plan: Plan,
  id: string,
  from_m: number,
  to_m: number,
  parts: readonly Placed[] = PLACED,
): void {
  const line = plan.lines[id]!;
  if (line.locked) return;
  const total = planLength(line);
  const [a, b] = [Math.max(0, Math.min(from_m, to_m)), Math.min(total, Math.max(from_m, to_m))];
  // What stands in the part goes with it.
  leaveLine(plan, id, (item) => item.at_m > a && item.at_m < b, parts);
  if (a < LEAST_LEG && b > total - LEAST_LEG) return removeLine(plan, id);
  if (b <= total - LEAST_LEG && splitLine(plan, id, b, parts) === null) return;
  if (a < LEAST_LEG) return removeLine(plan, id);
  const middle = splitLine(plan, id, a, parts);
  if (middle) removeLine(plan, middle);
}

/** Turns the next leg to a right angle with the last one: where the foot of `p` on it falls. */
export function squareTo(last: Point, before: Point, p: Point): Point {
  const along = bearing(before, last);
  const dirs = [along, along + 90, along - 90].map((d) => fromBearing({ e: 0, n: 0 }, 1, d));
  const d = { e: p.e - last.e, n: p.n - last.n };
  const best = dirs.reduce((a, b) => (b.e * d.e + b.n * d.n > a.e * d.e + a.n * d.n ? b : a));
  const k = Math.max(0, best.e * d.e + best.n * d.n);
  return { e: last.e + k * best.e, n: last.n + k * best.n };
}
