/** Where a fence is read: what the plan says is worth reading, and every place that was read before. */
import { provePoints } from '../build/prove.js';
import { distance, nearest, pointAt } from '../plan/geometry.js';
import type { Plan, Point } from '../plan/schema.js';
import type { Report } from '../report/schema.js';
import { readAt } from '../terrain/profile.js';
import type { Logged } from './logged.js';

/** A place of the round, or what is read at a unit. */
export interface TestPoint {
  /** The same for the same place as long as its line stands. */
  readonly key: string;
  readonly kind: Logged['kind'];
  readonly unit: string;
  /** Null: at the unit itself. */
  readonly line: string | null;
  readonly at_m: number | null;
  readonly spot: string | null;
  /** On the map. */
  readonly at: Point;
  /** Nobody has read here yet: the plan proposes it. */
  readonly proposed: boolean;
}

/** Readings no further apart than this along a line are of one place, m. */
export const SAME_PLACE_M = 15;
/** As it is called in a record. */
export const TERMINAL = 'terminal';

const near = (a: { line: string | null; at_m: number | null }, b: typeof a): boolean =>
  a.line === b.line && a.at_m !== null && b.at_m !== null && Math.abs(a.at_m - b.at_m) <= SAME_PLACE_M; // prettier-ignore

/**
 * The places of a usual round: of each unit its terminal, its earth and a battery; of each line its weakest place; and
 * every place that was read. In the order of a walk from the unit: always to the nearest that is left.
 */
export function testPoints(plan: Plan, report: Pick<Report, 'energisers'>, read: readonly Logged[], battery: (unit: string) => boolean): TestPoint[] {
  const weakest = provePoints(report, 'today');
  return Object.values(plan.energisers).flatMap((u): TestPoint[] => {
    const own = report.energisers[u.id];
    if (!own) return [];
    const home: Point = { e: u.e, n: u.n };
    const here = (kind: Logged['kind'], spot: string): TestPoint => ({
      key: `${u.id} ${kind}`,
      kind,
      unit: u.id,
      line: null,
      at_m: null,
      spot,
      at: home,
      proposed: !read.some((r) => isOf({ kind, unit: u.id, line: null, at_m: null, spot }, r)),
    });
    const places: { line: string; at_m: number; proposed: boolean }[] = [];
    for (const r of read) {
      if (r.kind !== 'volts' || r.line === null || r.at_m === null || !own.lines.includes(r.line)) continue;
      const place = { line: r.line, at_m: r.at_m, proposed: false };
      if (plan.lines[r.line] && !places.some((p) => near(p, place))) places.push(place);
    }
    for (const { energiser, line, at_m } of weakest)
      if (energiser === u.id && !places.some((p) => p.line === line)) places.push({ line, at_m, proposed: true });
    const made = places.map(({ line, at_m, proposed }): TestPoint => ({
      key: `${line} ${at_m.toFixed(1)}`,
      kind: 'volts',
      unit: u.id,
      line,
      at_m,
      spot: null,
      at: pointAt(plan.lines[line]!.vertices, at_m),
      proposed,
    }));
    return [
      here('volts', TERMINAL),
      here('earth_volts', `${u.name}, last rod`),
      ...(battery(u.id) ? [here('battery_volts', 'battery')] : []),
      ...walked(made, home),
    ];
  });
} // prettier-ignore

function walked(points: readonly TestPoint[], from: Point): TestPoint[] {
  const left = [...points];
  const out: TestPoint[] = [];
  for (let here = from; left.length > 0; here = out.at(-1)!.at) {
    const k = left.reduce((best, p, i) => (distance(p.at, here) < distance(left[best]!.at, here) ? i : best), 0); // prettier-ignore
    out.push(...left.splice(k, 1));
  }
  return out;
}

/** Whether a reading was taken at a point. */
export function isOf(p: Pick<TestPoint, 'kind' | 'unit' | 'line' | 'at_m' | 'spot'>, r: Logged): boolean {
  if (p.kind !== r.kind) return false;
  if (p.line !== null) return near(p, r);
  // Earth tests of before said their unit by name alone.
  return r.line === null && (r.unit === p.unit || (!r.unit && r.spot === p.spot));
} // prettier-ignore

/** Readings by the key of their point, oldest first; what belongs to none is left out. */
export function byPoint<R extends Logged>(points: readonly TestPoint[], read: readonly R[]): Map<string, R[]> {
  const lines = new Map<string, TestPoint[]>();
  const keyOf = (p: { kind: string; line: string | null }) => `${p.kind} ${p.line}`;
  for (const p of points) lines.set(keyOf(p), [...(lines.get(keyOf(p)) ?? []), p]);
  const out = new Map<string, R[]>(points.map((p) => [p.key, []]));
  for (const r of read) {
    const own = lines.get(keyOf(r))?.find((p) => isOf(p, r));
    if (own) out.get(own.key)!.push(r);
  }
  for (const list of out.values()) list.sort((a, b) => Date.parse(a.time) - Date.parse(b.time));
  return out;
} // prettier-ignore

/** The point that is nearest to where somebody stands, and how far that is, m. */
export function nearestPoint(points: readonly TestPoint[], here: Point): { readonly point: TestPoint; readonly m: number } | null {
  const all = points.map((point) => ({ point, m: distance(point.at, here) }));
  return all.length ? all.reduce((a, b) => (b.m < a.m ? b : a)) : null;
} // prettier-ignore

/** The line that is nearest to where somebody stands, and the place on it. */
export function nearestOnLines(lines: Plan['lines'], here: Point): { readonly line: string; readonly at_m: number; readonly m: number } | null {
  const all = Object.values(lines).map((l) => {
    const { s, off } = nearest(l.vertices, here);
    return { line: l.id, at_m: s, m: off };
  });
  return all.length ? all.reduce((a, b) => (b.m < a.m ? b : a)) : null;
} // prettier-ignore

/** Next on the round: the first in its order that was not read since a time; null: all were. */
export const nextPoint = (points: readonly TestPoint[], read: ReadonlyMap<string, readonly Logged[]>, since: number): TestPoint | null =>
  points.find((p) => !(Date.parse(read.get(p.key)?.at(-1)?.time ?? '') >= since)) ?? null; // prettier-ignore

/** What the plan expects at a point in a season, V; null: it knows nothing of it. */
export function expectedAt(report: Pick<Report, 'energisers'>, p: Pick<TestPoint, 'kind' | 'unit' | 'line' | 'at_m'>, season: string): number | null {
  const own = report.energisers[p.unit];
  const of = own?.seasons[season];
  if (!own || !of) return null;
  if (p.kind === 'earth_volts') return of.v_earth_V * earthShare(own.earth.test);
  if (p.kind !== 'volts') return null;
  if (p.line === null) return of.v_out_V;
  const track = of.lines[p.line];
  return track && track.s_m.length > 0 ? readAt(track.s_m, track.v_V, p.at_m!) : null;
} // prettier-ignore

/** A probe beside the last rod stands in raised soil itself: it shows so much of what the rods rise above far soil. */
export const earthShare = ({ reading_V, rise_V }: { readonly reading_V: number; readonly rise_V: number }): number =>
  rise_V > 0 ? reading_V / rise_V : 1; // prettier-ignore
