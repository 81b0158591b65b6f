/** Walked lines and places put into a plan: straightened, brought together where they meet, named. */
import { addEnergiser, addGate, addLine } from './edits.js';
import { builtFor } from './facing.js';
import { addThing } from './landEdits.js';
import { SHAPE_OF } from '../land/things.js';
import { JOIN_TOLERANCE, nearest, planLength } from '../plan/geometry.js';
import { closes } from '../land/ring.js';
import { nearestLine, snap } from '../plan/snap.js';
import { fitWalk } from '../plan/walkFit.js';
import type { Plan, Point, Thing, ThingKind } from '../plan/schema.js';

/** A line as it was walked, drawn or typed. */
export interface Walk {
  readonly name: string;
  readonly points: readonly Point[];
  readonly boundary?: boolean;
}

export type WaypointKind = 'gate' | 'energiser' | ThingKind;

/** A place that was marked on the way; without a kind it is not known yet what stands there. */
export interface Waypoint {
  readonly name: string;
  readonly kind: WaypointKind | null;
  readonly points: readonly Point[];
  readonly attributes?: Partial<Pick<Thing, 'width_m' | 'volts_kV' | 'height_m' | 'barbed' | 'earthed' | 'soil'>>; // prettier-ignore
}

export interface Brought {
  /** Ids of the new lines, in the order of the walks. */
  readonly lines: readonly string[];
  /** Names of the places that could not be put down: of no kind, or gates away from every line. */
  readonly left: readonly string[];
}

/** A gate comes onto a line within this, m, and who walks stops this near a fence that is met. */
const REACH = 6;
/** An energiser's lead-out goes no further by itself, m. */
const LEAD = 120;
const GATE_m = 3.6;

const MEANT: readonly (readonly [RegExp, WaypointKind])[] = [
  [/\b(gate|gateway|slip ?rail)/i, 'gate'],
  [/\b(energi[sz]er|fencer|unit|battery|solar)/i, 'energiser'],
  [/\b(mains|socket|meter)/i, 'mains'],
  [/\b(water|trough|tank|pond|spring|drinker|hydrant)/i, 'water'],
  [/\btree/i, 'tree'],
];

/** What a place most likely is, by what it was called on the way; null when its name says nothing. */
export const kindOfName = (name: string): WaypointKind | null =>
  MEANT.find(([words]) => words.test(name))?.[1] ?? null;

/** What a place may be, by how many points it has: a point; a way; a way or an area. */
export function kindsFor(points: readonly Point[]): WaypointKind[] {
  const shapes = points.length === 1 ? ['point'] : points.length === 2 ? ['way'] : ['way', 'area'];
  const things = (Object.keys(SHAPE_OF) as ThingKind[]).filter((k) => shapes.includes(SHAPE_OF[k]));
  return points.length === 1 ? ['gate', 'energiser', ...things] : things;
}

/**
 * Puts walks and places into a plan.
 * @param tolerance_m how near straight runs keep to the walks; 0 keeps every point
 */
export function bringIn(
  plan: Plan,
  walks: readonly Walk[],
  places: readonly Waypoint[],
  tolerance_m: number,
): Brought {
  const reach = tolerance_m > 0 ? Math.max(REACH / 2, 2 * tolerance_m) : JOIN_TOLERANCE;
  const fitted = walks.map((w) => ({ ...w, points: fitWalk(w.points, tolerance_m) }));
  const ids = new Map<Walk, string>();
  // What closes comes first, then the longest: a cross fence ends on what it crosses.
  const order = [...fitted].sort(
    (a, b) =>
      Number(closes(b.points)) - Number(closes(a.points)) ||
      lengthOf(b.points) - lengthOf(a.points),
  );
  for (const walk of order) {
    const points = closes(walk.points) ? walk.points : endsMet(plan, walk.points, reach);
    const id = addLine(plan, points, walk.name);
    const line = plan.lines[id]!;
    // What a boundary is built of follows from its being one.
    if (walk.boundary && !line.boundary)
      Object.assign(line, { boundary: true }, builtFor({ ...line, boundary: true }, plan));
    ids.set(walk, id);
  }
  const left = places.filter((p) => !putPlace(plan, p, Math.max(REACH, reach))).map((p) => p.name);
  return { lines: fitted.map((w) => ids.get(w)!), left };
}

const lengthOf = (points: readonly Point[]): number => planLength({ vertices: points });

/** Ends that lie within reach of a line that is there already are laid onto it. */
function endsMet(plan: Plan, points: readonly Point[], reach: number): Point[] {
  if (lengthOf(points) < 3 * reach) return [...points];
  const ends = [0, points.length - 1];
  return points.map((p, i) => {
    if (!ends.includes(i)) return p;
    const corner = snap(plan.lines, p, reach / 2);
    return corner.to === 'vertex'
      ? corner.point
      : (nearestLine(plan.lines, p, reach)?.hit.point ?? p);
  });
}

function putPlace(plan: Plan, place: Waypoint, reach: number): boolean {
  const p = place.points[0]!;
  if (place.kind === null) return false;
  if (place.kind === 'energiser') {
    plan.energisers[addEnergiser(plan, p, LEAD)]!.name = place.name;
    return true;
  }
  if (place.kind === 'gate') {
    const on = Object.values(plan.lines)
      .map((line) => ({ line, hit: nearest(line.vertices, p) }))
      .filter(({ hit }) => hit.off <= reach)
      .sort((a, b) => a.hit.off - b.hit.off)[0];
    if (!on) return false;
    const width = place.attributes?.width_m ?? GATE_m;
    plan.gates[addGate(plan, on.line.id, on.hit.s, width)]!.name = place.name;
    return true;
  }
  addThing(plan, place.kind, p, {
    name: place.name,
    points: place.points.map(({ e, n }) => ({ e, n })),
    ...place.attributes,
  });
  return true;
}
