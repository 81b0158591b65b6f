/** Paddocks: the faces of the fence network with the names, stock and use that they were given. */
import polylabel from 'polylabel';
import { legIndexOf, type Hit } from '../plan/legIndex.js';
import type { Gate, Plan, Point } from '../plan/schema.js';
import type { PaddockReport, Report } from '../report/schema.js';
import { facesOf, inFace, type Face } from './faces.js';
import { thingsOf } from './things.js';

/** A place well inside a face, where its name can be written. */
export function labelPlace(face: Pick<Face, 'rim' | 'holes'>): Point {
  const ring = (points: readonly Point[]) => points.map((p): [number, number] => [p.e, p.n]);
  const [e, n] = polylabel([ring(face.rim), ...face.holes.map(ring)], 1);
  return { e: e!, n: n! };
}

/**
 * The paddocks of a property and the gaps that keep others open.
 * @param bridge_m free ends within this of another line count as closed
 * @param look_m gaps up to this wide are listed
 */
export function paddocksOf(
  lines: Plan['lines'],
  gates: Plan['gates'],
  things: Plan['things'],
  named: Plan['paddocks'],
  bridge_m: number,
  look_m: number,
): Pick<Report, 'paddocks' | 'gaps'> {
  const { faces, gaps } = facesOf(lines, bridge_m, look_m);
  const water = thingsOf({ things }, 'water');
  const index = legIndexOf(lines);
  const troughs = new Map(water.map((w) => [w.id, index.near(w.points[0]!, TROUGH_REACH)]));
  const taken = new Set<string>();
  const pairs = (list: readonly Point[]) => list.map((p): [number, number] => [p.e, p.n]);
  const paddocks = faces.map((face, k): PaddockReport => {
    const own = Object.values(named ?? {}).find((p) => !taken.has(p.id) && inFace(face, p));
    if (own) taken.add(own.id);
    const at = own ?? labelPlace(face);
    return {
      id: own?.id ?? null,
      name: own?.name ?? `Paddock ${k + 1}`,
      e: at.e,
      n: at.n,
      rim: pairs(face.rim),
      holes: face.holes.map(pairs),
      area_m2: face.area_m2,
      perimeter_m: face.perimeter_m,
      stock: { ...own?.stock },
      use: own?.use ?? 'grazing',
      edges: face.edges.map((e) => ({ ...e })),
      gates: Object.values(gates)
        .filter((g) => onEdge(face, g))
        .map((g) => g.id),
      water: water
        .filter((w) => inFace(face, w.points[0]!) || beside(face, troughs.get(w.id)!))
        .map((w) => w.id),
    };
  });
  const seen = gaps.map((g) => ({
    line: g.line,
    vertex: g.vertex,
    e: g.to.e,
    n: g.to.n,
    toLine: g.toLine,
    width_m: g.width_m,
  }));
  return { paddocks, gaps: seen };
}

const onEdge = (face: Face, gate: Gate): boolean =>
  face.edges.some((e) => e.line === gate.line && gate.at_m >= e.from_m && gate.at_m <= e.to_m);

/** A trough set in a fence serves both its sides. */
const TROUGH_REACH = 2;

const beside = (face: Face, hits: readonly Hit[]): boolean =>
  hits.some((h) => face.edges.some((e) => e.line === h.line && h.s >= e.from_m && h.s <= e.to_m));

/** The paddock that a place lies in. */
export function paddockAt(paddocks: readonly PaddockReport[], p: Point): PaddockReport | undefined {
  const ring = (list: readonly (readonly [number, number])[]) => list.map(([e, n]) => ({ e, n }));
  return paddocks.find((f) => inFace({ rim: ring(f.rim), holes: f.holes.map(ring) }, p));
}
