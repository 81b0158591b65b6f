/** What stands on a line by its plan distance, and how it follows when the line changes. */
import { PLACED, type Placed } from '../parts/placed.js';
import { JOIN_TOLERANCE, nearest, pointAt, stations } from '../plan/geometry.js';
import type { Line, Plan, Point } from '../plan/schema.js';

/** A list of a line, or an item of a table, that measures along a line. */
type Spot = { at_m: number };
type Stretch = { from_m: number; to_m: number };
export type Standing = { id: string; line: string | null; at_m: number };

const lists = <T>(line: Line, parts: readonly Placed[], of: 'spots' | 'stretches') =>
  parts.flatMap((part) =>
    (part.places?.[of] ?? []).map((key) => ({
      key,
      list: (line as unknown as Record<string, T[] | undefined>)[key],
    })),
  );

/** The lists of places of a line, absent ones too. */
export const spotsOf = (line: Line, parts: readonly Placed[]) => lists<Spot>(line, parts, 'spots');
export const stretchesOf = (line: Line, parts: readonly Placed[]) =>
  lists<Stretch>(line, parts, 'stretches');

/** Everything of the property that stands on a line, with the table that holds it. */
export function standingOn(plan: Plan, id: string, parts: readonly Placed[]) {
  return parts.flatMap((part) =>
    Object.entries(part.places?.tables ?? {}).flatMap(([key, { goes }]) => {
      const table = (plan as unknown as Record<string, Record<string, Standing> | undefined>)[key];
      return Object.values(table ?? {})
        .filter((item) => item.line === id)
        .map((item) => ({ item, goes, table: table! }));
    }),
  );
}

/** Takes what stood on a line off it: what goes with a line is deleted, the rest stands on none. */
export function leaveLine(
  plan: Plan,
  id: string,
  which: (item: Standing) => boolean = () => true,
  parts: readonly Placed[] = PLACED,
): void {
  for (const { item, goes, table } of standingOn(plan, id, parts)) {
    if (!which(item)) continue;
    if (goes) delete table[item.id];
    else item.line = null;
  }
}

/** Moves everything that stands on a line by a rule from old to new plan distance. */
export function mapPlaces(
  plan: Plan,
  id: string,
  to: (s: number) => number,
  parts: readonly Placed[] = PLACED,
): void {
  for (const { item } of standingOn(plan, id, parts)) {
    const s = to(item.at_m);
    // A place that rounding alone would move stays: the lines beside it need no new work.
    if (Math.abs(s - item.at_m) > 1e-9) item.at_m = s;
  }
  const line = plan.lines[id];
  if (!line) return;
  for (const { list } of spotsOf(line, parts)) {
    for (const item of list ?? []) item.at_m = to(item.at_m);
    list?.sort((a, b) => a.at_m - b.at_m);
  }
  for (const { list } of stretchesOf(line, parts)) {
    for (const item of list ?? []) {
      const [a, b] = [to(item.from_m), to(item.to_m)];
      [item.from_m, item.to_m] = [Math.min(a, b), Math.max(a, b)];
    }
    list?.sort((a, b) => a.from_m - b.from_m);
  }
}

/** Keeps what stands on a line at the same share of its leg after the line's shape changed. */
export function keepPlaces(plan: Plan, id: string, change: () => void): void {
  const line = plan.lines[id]!;
  const before = stations(line.vertices);
  const ids = line.vertices.map((v) => v.id);
  change();
  const after = stations(line.vertices);
  const rank = new Map(line.vertices.map((v, i) => [v.id, i]));
  mapPlaces(plan, id, (s) => {
    let i = 0;
    while (i < before.length - 2 && s > before[i + 1]!) i++;
    const from = rank.get(ids[i]!);
    const to = rank.get(ids[i + 1]!);
    if (from === undefined || to === undefined) return Math.min(s, after.at(-1)!);
    const span = before[i + 1]! - before[i]!;
    const t = span === 0 ? 0 : Math.min(1, (s - before[i]!) / span);
    return after[from]! + t * (after[to]! - after[from]!);
  });
}

/** A vertex of a line on a leg of another, at a share of that leg. */
interface Joined {
  readonly line: string;
  readonly vertex: number;
  readonly host: string;
  readonly leg: number;
  readonly t: number;
}

/** Vertices of lines that are not among these and lie on one of these. */
function joinedTo(plan: Plan, ids: readonly string[], stay: ReadonlySet<string>): Joined[] {
  return ids.flatMap((host) => {
    const own = plan.lines[host]!.vertices;
    const at = stations(own);
    const box = boxOf(own);
    return Object.values(plan.lines).flatMap((other) => {
      if (stay.has(other.id) || other.locked) return [];
      return other.vertices.flatMap((v, vertex): Joined[] => {
        if (!inBox(box, v)) return [];
        const hit = nearest(own, v);
        if (hit.off > JOIN_TOLERANCE) return [];
        const span = at[hit.leg + 1]! - at[hit.leg]!;
        const t = span === 0 ? 0 : (hit.s - at[hit.leg]!) / span;
        return [{ line: other.id, vertex, host, leg: hit.leg, t }];
      });
    });
  });
}

/**
 * Takes along the vertices of other lines that met these ones, and what met those in turn: they stay
 * joined at the same share of the same leg. Locked lines stay where they are; a finding tells what then
 * ends in the air.
 */
export function keepJoints(plan: Plan, ids: readonly string[], change: () => void): void {
  carry(plan, ids, new Set(ids), change);
}

function carry(plan: Plan, ids: readonly string[], moved: Set<string>, change: () => void): void {
  const joined = joinedTo(plan, ids, moved);
  change();
  const byLine = new Map<string, Joined[]>();
  for (const joint of joined) byLine.set(joint.line, [...(byLine.get(joint.line) ?? []), joint]);
  for (const [line, own] of byLine) {
    // Two lines of these may both have brought it along.
    if (moved.has(line)) continue;
    const goes = own.flatMap((joint) => target(plan, joint) ?? []);
    if (goes.length === 0) continue;
    moved.add(line);
    carry(plan, [line], moved, () =>
      keepPlaces(plan, line, () => {
        const { vertices } = plan.lines[line]!;
        for (const { vertex, p } of goes) put(vertices, vertex, p);
      }),
    );
  }
}

/** Moves a vertex, but not onto a neighbour of its own: a leg of no length is none. */
function put(vertices: Line['vertices'], vertex: number, p: Point): void {
  const onNeighbour = [vertices[vertex - 1], vertices[vertex + 1]].some(
    (w) => w && Math.hypot(w.e - p.e, w.n - p.n) < 0.01,
  );
  if (!onNeighbour) Object.assign(vertices[vertex]!, { e: p.e, n: p.n });
}

/** Where a vertex goes that was on its host; null where it stays. */
function target(plan: Plan, { line, vertex, host, leg, t }: Joined) {
  const own = plan.lines[host]!.vertices;
  const at = stations(own);
  const p = pointAt(own, at[leg]! + t * (at[leg + 1]! - at[leg]!));
  const { vertices } = plan.lines[line]!;
  const v = vertices[vertex]!;
  return Math.hypot(p.e - v.e, p.n - v.n) < 1e-9 ? null : { vertex, p };
}

/** As `keepJoints`, for a change that takes legs away: what met the line goes to where it is now nearest. */
export function keepTouch(plan: Plan, id: string, change: () => void): void {
  const joined = joinedTo(plan, [id], new Set([id]));
  change();
  const host = plan.lines[id];
  if (!host) return;
  const moved = new Set([id]);
  for (const { line, vertex } of joined) {
    const v = plan.lines[line]!.vertices[vertex]!;
    const hit = nearest(host.vertices, v);
    if (hit.off <= JOIN_TOLERANCE) continue;
    moved.add(line);
    carry(plan, [line], moved, () =>
      keepPlaces(plan, line, () => put(plan.lines[line]!.vertices, vertex, hit.point)),
    );
  }
}

function boxOf(points: readonly Point[]): [number, number, number, number] {
  let [w, s, e, n] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const p of points) {
    w = Math.min(w, p.e);
    e = Math.max(e, p.e);
    s = Math.min(s, p.n);
    n = Math.max(n, p.n);
  }
  return [w - JOIN_TOLERANCE, s - JOIN_TOLERANCE, e + JOIN_TOLERANCE, n + JOIN_TOLERANCE];
}

const inBox = ([w, s, e, n]: [number, number, number, number], p: Point): boolean =>
  p.e >= w && p.e <= e && p.n >= s && p.n <= n;
