/** Changes of things on the land and of paddocks. */
import { freeId } from '../plan/ids.js';
import type { Paddock, Plan, Point, Thing, ThingKind } from '../plan/schema.js';

/** What each kind of thing is called. */
export const THING_NAMES: Readonly<Record<ThingKind, string>> = {
  property: 'Property edge',
  water: 'Water point',
  mains: 'Mains point',
  building: 'Building',
  overhead: 'Overhead line',
  publicWay: 'Public way',
  burn: 'Burn',
  oldFence: 'Old fence',
  obstacle: 'Obstacle, such as rock or a drain',
  tree: 'Tree',
  soil: 'Soil patch',
};

/** What a new thing of each kind starts with. */
const START: Readonly<Partial<Record<ThingKind, Partial<Thing>>>> = {
  building: { earthed: true },
  publicWay: { width_m: 1.5 },
  burn: { width_m: 2 },
  oldFence: { barbed: true },
  tree: { width_m: 6 },
};

/** Puts a thing down with its first point; gives its id. */
export function addThing(plan: Plan, kind: ThingKind, p: Point, part: Partial<Thing> = {}): string {
  const things = (plan.things ??= {});
  const id = freeId(things, 't');
  const count = Object.values(things).filter((t) => t.kind === kind).length + 1;
  const short = THING_NAMES[kind].split(',')[0]!;
  things[id] = {
    id,
    name: `${short} ${count}`,
    kind,
    points: [{ e: p.e, n: p.n }],
    ...START[kind],
    ...(kind === 'soil' ? { soil: plan.soil } : {}),
    ...part,
  };
  return id;
}

/** Puts a further point to a way or an area. */
export function extendThing(plan: Plan, id: string, p: Point): void {
  plan.things![id]!.points.push({ e: p.e, n: p.n });
}

/** Moves one point of a thing. */
export function moveThingPoint(plan: Plan, id: string, index: number, p: Point): void {
  const point = plan.things?.[id]?.points[index];
  // It may have been taken away meanwhile.
  if (!point) return;
  point.e = p.e;
  point.n = p.n;
}

/** Moves a whole thing by a step east and north. */
export function moveThing(plan: Plan, id: string, by: Point): void {
  for (const p of plan.things?.[id]?.points ?? []) {
    p.e += by.e;
    p.n += by.n;
  }
}

/**
 * Changes a paddock; a face that has no name yet gets one, at a place inside it.
 * @param face id of the named paddock, or null, with the place and the name that it is shown by
 */
export function setPaddock(
  plan: Plan,
  face: {
    readonly id: string | null;
    readonly e: number;
    readonly n: number;
    readonly name: string;
  },
  change: Partial<Omit<Paddock, 'id'>>,
): string {
  const paddocks = (plan.paddocks ??= {});
  const id = face.id ?? freeId(paddocks, 'p');
  paddocks[id] ??= { id, name: face.name, e: face.e, n: face.n, stock: {}, use: 'grazing' };
  Object.assign(paddocks[id], change);
  return id;
}
