/** What lies on the land beside the fences: how far off, what soil, where no post may stand. */
import { figure, type Catalogue } from '../plan/catalogue.js';
import { inside, offPath } from './faces.js';
import { bearing, stations } from '../plan/geometry.js';
import { crossing } from '../plan/legIndex.js';
import type { Line, Plan, Point, Thing, ThingKind } from '../plan/schema.js';

/** How a kind of thing is drawn: a place, a way along points, or the rim of an area. */
export const SHAPE_OF: Readonly<Record<ThingKind, 'point' | 'way' | 'area'>> = {
  property: 'area',
  water: 'point',
  mains: 'point',
  building: 'area',
  overhead: 'way',
  publicWay: 'way',
  burn: 'way',
  oldFence: 'way',
  obstacle: 'area',
  tree: 'point',
  soil: 'area',
};

/** All things of a kind. */
export const thingsOf = (plan: Pick<Plan, 'things'>, ...kinds: ThingKind[]): Thing[] =>
  Object.values(plan.things ?? {}).filter((t) => kinds.includes(t.kind));

const isArea = (t: Thing): boolean => SHAPE_OF[t.kind] === 'area' && t.points.length >= 3;

/** Distance from a place to a thing, m; 0 on it or in it. Half its width counts as the thing. */
export function offThing(t: Thing, p: Point): number {
  if (isArea(t) && inside(t.points, p)) return 0;
  return Math.max(0, offPath(t.points, p, isArea(t)) - (t.width_m ?? 0) / 2);
}

/** The soil at a place: of the patch that covers it, the last drawn first, else the property's. */
export function soilAt(plan: Pick<Plan, 'soil' | 'things'>, p: Point): string {
  const patch = thingsOf(plan, 'soil').findLast((t) => isArea(t) && inside(t.points, p));
  return patch?.soil ?? plan.soil;
}

/** A part of a line where no post may stand, and why. */
export interface Barred {
  readonly from_m: number;
  readonly to_m: number;
  readonly why: string;
}

/** A line is looked at in steps of this length, m, and where a stretch begins to this. */
const STEP = 0.25;
const EDGE = 1e-3;

/**
 * The stretches of a line that lie within reach of a thing, to a millimetre at their ends; one shorter
 * than a quarter of a metre may be missed.
 */
export function stretchesNear(
  line: Pick<Line, 'vertices'>,
  t: Thing,
  reach: number,
): [number, number][] {
  const out: [number, number][] = [];
  const at = stations(line.vertices);
  let from: number | null = null;
  const close = (to: number) => {
    if (from !== null) out.push([from, to]);
    from = null;
  };
  for (let i = 0; i + 1 < line.vertices.length; i++) {
    const [a, b] = [line.vertices[i]!, line.vertices[i + 1]!];
    if (!mayTouch(t, a, b, reach)) {
      close(at[i]!);
      continue;
    }
    const length = at[i + 1]! - at[i]!;
    const off = (d: number) => {
      const f = length === 0 ? 0 : d / length;
      return offThing(t, { e: a.e + f * (b.e - a.e), n: a.n + f * (b.n - a.n) });
    };
    /** Where a stretch begins or ends between a place within reach and one without. */
    const edge = (within: number, without: number) => {
      let [on, not] = [within, without];
      while (Math.abs(on - not) > EDGE) {
        const mid = (on + not) / 2;
        if (off(mid) <= reach) on = mid;
        else not = mid;
      }
      return at[i]! + on;
    };
    for (let d = 0, last = 0; ;) {
      const away = off(d);
      const on = away <= reach;
      if (on && from === null) from = edge(d, last);
      if (!on && from !== null) close(edge(last, d));
      if (d >= length) break;
      last = d;
      // Nothing can come nearer than the way gone: far off, big steps are as sure as small ones.
      d = Math.min(length, d + Math.max(STEP, on ? 0 : away - reach));
    }
  }
  close(at.at(-1)!);
  return out;
}

/** Where no post may stand on a line: stretches that say so, rock, water, trees, buildings. */
export function barredOn(
  line: Pick<Line, 'vertices' | 'noPosts'>,
  things: readonly Thing[],
  cat: Catalogue,
): Barred[] {
  const typed = (line.noPosts ?? []).map(({ from_m, to_m, why }): Barred => ({
    from_m,
    to_m,
    why: why || 'no posts here',
  }));
  const found = things
    .filter((t) => ['obstacle', 'burn', 'tree', 'building'].includes(t.kind))
    .flatMap((t) => {
      // A tree's width is its crown; its roots are what a post must keep off.
      const own = t.kind === 'tree' ? { ...t, width_m: 0 } : t;
      const reach = t.kind === 'tree' ? figure(cat, 'posts.treeReach') : 0;
      return stretchesNear(line, own, reach).map(([from_m, to_m]) => ({
        from_m,
        to_m,
        why: t.name,
      }));
    });
  return [...typed, ...found].sort((x, y) => x.from_m - y.from_m);
}

/** Where a line crosses a way: plan distance along the line, and the angle between them, degrees. */
export function crossingsOf(
  line: Pick<Line, 'vertices'>,
  t: Thing,
): { s: number; angle_deg: number }[] {
  const out: { s: number; angle_deg: number }[] = [];
  const at = stations(line.vertices);
  for (let i = 0; i + 1 < line.vertices.length; i++) {
    const [a, b] = [line.vertices[i]!, line.vertices[i + 1]!];
    for (let j = 0; j + 1 < t.points.length; j++) {
      const [c, d] = [t.points[j]!, t.points[j + 1]!];
      const x = crossing(a, b, c, d);
      if (!x) continue;
      const turn = Math.abs(bearing(a, b) - bearing(c, d)) % 180;
      const s = at[i]! + x[0] * (at[i + 1]! - at[i]!);
      // A crossing at a vertex belongs to both its legs.
      if (out.some((o) => Math.abs(o.s - s) < 0.01)) continue;
      out.push({ s, angle_deg: Math.min(turn, 180 - turn) });
    }
  }
  return out.sort((p, q) => p.s - q.s);
}

/** Whether the boxes of a thing and a leg touch, with a reach around. */
function mayTouch(t: Thing, a: Point, b: Point, reach: number): boolean {
  const r = reach + (t.width_m ?? 0) / 2;
  const over = (k: 'e' | 'n') =>
    t.points.some((p) => p[k] >= Math.min(a[k], b[k]) - r) &&
    t.points.some((p) => p[k] <= Math.max(a[k], b[k]) + r);
  return over('e') && over('n');
}
