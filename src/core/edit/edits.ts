/** Changes to a plan as recipes that write into a draft; the interface keeps the old plan whole. */
import { deflections, defaultKind, distance, planLength } from '../plan/geometry.js';
import { nearestLine } from '../plan/snap.js';
import { PLACED, type Placed } from '../parts/placed.js';
import { freeId } from '../plan/ids.js';
import { builtFor, facingOf, settle } from './facing.js';
import { keepJoints, keepPlaces, keepTouch, leaveLine, mapPlaces } from './places.js';
import type { Energiser, Gate, Line, Plan, Point, Vertex } from '../plan/schema.js';

/** Turn beyond which a new vertex starts as a corner, degrees. */
const BEND_LIMIT = 15;

export const vertexId = (line: Pick<Line, 'vertices'>): string => {
  const taken = Object.fromEntries(line.vertices.map((v) => [v.id, true]));
  return freeId(taken, 'v');
};

/** Vertices made of plain points, kinds by their turns. */
export function verticesFrom(points: readonly Point[]): Vertex[] {
  const turns = deflections(points);
  return points.map((p, i) => ({
    id: `v${i + 1}`,
    e: p.e,
    n: p.n,
    kind: defaultKind(turns[i]!, BEND_LIMIT, i === 0 || i === points.length - 1),
  }));
}

/** Adds a line with what it faces and is usually built of; gives its id. */
export function addLine(plan: Plan, points: readonly Point[], name?: string): string {
  const id = freeId(plan.lines, 'l');
  const facing = facingOf(plan, points);
  plan.lines[id] = {
    id,
    name: name?.trim().slice(0, 80) || `Line ${Object.keys(plan.lines).length + 1}`,
    vertices: verticesFrom(points),
    ...facing,
    ...builtFor(facing, plan),
    maxBay_m: null,
    tensioner: true,
  };
  return id;
}

/** Two neighbours closer than this would make a leg of no length, m. */
export const LEAST_LEG = 0.01;

/** True when a vertex at `p` would stand apart from the vertices at these ranks. */
const apart = (line: Line, p: Point, ...ranks: number[]): boolean =>
  ranks.every((i) => {
    const v = line.vertices[i];
    return !v || distance(v, p) >= LEAST_LEG;
  });

/** Puts a vertex behind the last one, or before the first. */
export function extendLine(
  plan: Plan,
  id: string,
  p: Point,
  atStart = false,
  parts: readonly Placed[] = PLACED,
): void {
  const line = plan.lines[id]!;
  if (line.locked || !apart(line, p, atStart ? 0 : line.vertices.length - 1)) return;
  const vertex: Vertex = { id: vertexId(line), e: p.e, n: p.n, kind: 'end' };
  if (atStart) {
    const added = distance(p, line.vertices[0]!);
    line.vertices.unshift(vertex);
    // What stands on the line keeps its place on the ground.
    mapPlaces(plan, id, (s) => s + added, parts);
  } else line.vertices.push(vertex);
  rekind(line, atStart ? 1 : line.vertices.length - 2);
  settle(plan, id);
}

/** A vertex that was an end and is one no more gets the kind that its turn asks for. */
export function rekind(line: Line, index: number): void {
  const v = line.vertices[index];
  if (!v || index === 0 || index === line.vertices.length - 1) return;
  v.kind = defaultKind(deflections(line.vertices)[index]!, BEND_LIMIT, false);
}

/** Moves one vertex, not onto its neighbours; vertices of other lines that met the line go along. */
export function moveVertex(plan: Plan, id: string, index: number, p: Point): void {
  const line = plan.lines[id]!;
  if (line.locked || !apart(line, p, index - 1, index + 1)) return;
  keepJoints(plan, [id], () =>
    keepPlaces(plan, id, () => {
      const v = line.vertices[index]!;
      v.e = p.e;
      v.n = p.n;
    }),
  );
}

/** Puts a vertex into a leg; a straight-on vertex starts as a bend. */
export function insertVertex(plan: Plan, id: string, leg: number, p: Point): void {
  if (plan.lines[id]!.locked || !apart(plan.lines[id]!, p, leg, leg + 1)) return;
  keepPlaces(plan, id, () => {
    const line = plan.lines[id]!;
    line.vertices.splice(leg + 1, 0, { id: vertexId(line), e: p.e, n: p.n, kind: 'bend' });
  });
}

/** Takes a vertex out; a line of two vertices goes as a whole. */
export function removeVertex(plan: Plan, id: string, index: number): void {
  const line = plan.lines[id]!;
  if (line.locked) return;
  if (line.vertices.length <= 2) return removeLine(plan, id);
  // What the vertex kept apart may now lie in one place: then one of the two goes with it.
  const [before, after] = [line.vertices[index - 1], line.vertices[index + 1]];
  const also = before !== undefined && after !== undefined && distance(before, after) < LEAST_LEG;
  if (also && line.vertices.length <= 3) return removeLine(plan, id);
  keepTouch(plan, id, () =>
    keepPlaces(plan, id, () => {
      line.vertices.splice(index, also ? 2 : 1);
    }),
  );
  line.vertices[0]!.kind = line.vertices[0]!.kind === 'bend' ? 'end' : line.vertices[0]!.kind;
  const last = line.vertices.at(-1)!;
  if (last.kind === 'bend') last.kind = 'end';
}

/** Takes a line away with what goes with it; what stays, such as an energiser, stands on no line then. */
export function removeLine(plan: Plan, id: string): void {
  if (plan.lines[id]!.locked) return;
  delete plan.lines[id];
  leaveLine(plan, id);
}

/** Puts a gate on a line; held so that both its posts stand on the line. */
export function addGate(plan: Plan, line: string, at_m: number, width_m: number): string {
  const id = freeId(plan.gates, 'g');
  const total = planLength(plan.lines[line]!);
  const half = Math.min(width_m, total) / 2;
  const gate: Gate = {
    id,
    name: `Gate ${Object.keys(plan.gates).length + 1}`,
    line,
    at_m: Math.min(Math.max(at_m, half), total - half),
    width_m,
    cable: true,
  };
  plan.gates[id] = gate;
  return id;
}

/** Puts an energiser down at a place; it feeds the nearest line within `reach` metres, if any. */
export function addEnergiser(plan: Plan, p: Point, reach: number): string {
  const id = freeId(plan.energisers, 'e');
  const unit: Energiser = {
    id,
    name: `Energiser ${Object.keys(plan.energisers).length + 1}`,
    model: plan.newLines.model ?? 'm2',
    e: p.e,
    n: p.n,
    line: null,
    at_m: 0,
    rods: 3,
    rodLength_m: 2,
    rodDiameter_m: 0.016,
    rodSpacing_m: 3,
  };
  plan.energisers[id] = unit;
  attach(plan, id, p, reach);
  return id;
}

/** Moves an energiser and feeds the nearest line within reach. */
export function moveEnergiser(plan: Plan, id: string, p: Point, reach: number): void {
  const unit = plan.energisers[id]!;
  unit.e = p.e;
  unit.n = p.n;
  attach(plan, id, p, reach);
}

function attach(plan: Plan, id: string, p: Point, reach: number): void {
  const unit = plan.energisers[id]!;
  const found = nearestLine(plan.lines, p, reach);
  unit.line = found?.line.id ?? null;
  if (found) unit.at_m = found.hit.s;
}
