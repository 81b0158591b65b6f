/**
 * Paddocks as the faces of the fence network: legs are cut where lines cross or meet, small gaps are
 * bridged, and every closed face is followed round by its left side.
 */
import { nearestOnLeg, stations } from '../plan/geometry.js';
import { crossing, legIndexOf } from '../plan/legIndex.js';
import { JOIN_TOLERANCE } from '../plan/geometry.js';
import type { Plan, Point } from '../plan/schema.js';

/** A stretch of a line that bounds a face, and the side of the line that the face lies on. */
export interface Edge {
  readonly line: string;
  readonly from_m: number;
  readonly to_m: number;
  readonly side: 'left' | 'right';
}

export interface Face {
  /** The rim, anticlockwise, not closed; holes clockwise. */
  readonly rim: readonly Point[];
  readonly holes: readonly (readonly Point[])[];
  readonly area_m2: number;
  readonly perimeter_m: number;
  readonly edges: readonly Edge[];
}

/** A free end that stops short of another line. */
export interface Gap {
  readonly line: string;
  /** Rank of the vertex: the first or the last. */
  readonly vertex: number;
  readonly to: Point;
  readonly toLine: string;
  readonly width_m: number;
}

export interface Faces {
  readonly faces: readonly Face[];
  readonly gaps: readonly Gap[];
}

interface Piece {
  readonly a: number;
  readonly b: number;
  /** Null for a bridged gap. */
  readonly line: string | null;
  readonly from_m: number;
  readonly to_m: number;
}

/**
 * Finds the faces and the gaps of a network.
 * @param bridge_m free ends within this of another line are taken as closed
 * @param look_m gaps up to this wide are listed
 */
export function facesOf(lines: Plan['lines'], bridge_m: number, look_m: number): Faces {
  const index = legIndexOf(lines);
  const nodes = nodeTable(JOIN_TOLERANCE);
  const cuts = new Map<string, number[]>();
  const at = new Map(Object.values(lines).map((l) => [l.id, stations(l.vertices)]));
  const cut = (line: string, s: number) => {
    const list = cuts.get(line);
    if (list) list.push(s);
    else cuts.set(line, [s]);
  };
  for (const line of Object.values(lines)) {
    at.get(line.id)!.forEach((s) => cut(line.id, s));
    line.vertices.forEach((v, i) => {
      // What meets here within the tolerance shares a node.
      nodes.at(v);
      for (const hit of index.near(v, JOIN_TOLERANCE)) {
        if (hit.line !== line.id) cut(hit.line, hit.s);
      }
      const next = line.vertices[i + 1];
      if (!next) return;
      const [w, e] = [Math.min(v.e, next.e), Math.max(v.e, next.e)];
      const [s, n] = [Math.min(v.n, next.n), Math.max(v.n, next.n)];
      for (const [id, leg] of index.within(w, s, e, n)) {
        if (id < line.id || (id === line.id && leg <= i + 1)) continue;
        const other = lines[id]!.vertices;
        const x = crossing(v, next, other[leg]!, other[leg + 1]!);
        if (!x) continue;
        const mine = at.get(line.id)!;
        const theirs = at.get(id)!;
        cut(line.id, mine[i]! + x[0] * (mine[i + 1]! - mine[i]!));
        cut(id, theirs[leg]! + x[1] * (theirs[leg + 1]! - theirs[leg]!));
      }
    });
  }
  const { gaps, bridges } = gapsOf(lines, bridge_m, look_m);
  for (const g of bridges) {
    const hit = index.near(g.to, JOIN_TOLERANCE).find((h) => h.line === g.toLine);
    if (hit) cut(g.toLine, hit.s);
  }
  const pieces = piecesOf(lines, at, cuts, nodes);
  for (const g of bridges) {
    const a = nodes.at(lines[g.line]!.vertices[g.vertex]!);
    const b = nodes.at(g.to);
    // Two free ends that face one another name the same gap.
    const known = pieces.some((p) => (p.a === a && p.b === b) || (p.a === b && p.b === a));
    if (a !== b && !known) pieces.push({ a, b, line: null, from_m: 0, to_m: 0 });
  }
  return { faces: follow(pieces, nodes.points), gaps };
}

/** Points that lie together share a number. */
function nodeTable(tolerance: number) {
  const points: Point[] = [];
  const cells = new Map<number, number[]>();
  const cell = 2 * tolerance;
  // Cell numbers of places within 1e7 m stay whole and apart.
  const key = (i: number, j: number) => i * 67_108_864 + j;
  return {
    points,
    at(p: Point): number {
      const [i, j] = [Math.floor(p.e / cell), Math.floor(p.n / cell)];
      for (let di = -1; di <= 1; di++) {
        for (let dj = -1; dj <= 1; dj++) {
          for (const k of cells.get(key(i + di, j + dj)) ?? []) {
            const q = points[k]!;
            if (Math.hypot(q.e - p.e, q.n - p.n) <= tolerance) return k;
          }
        }
      }
      const here = cells.get(key(i, j));
      if (here) here.push(points.length);
      else cells.set(key(i, j), [points.length]);
      points.push({ e: p.e, n: p.n });
      return points.length - 1;
    },
  };
}

function piecesOf(
  lines: Plan['lines'],
  at: ReadonlyMap<string, readonly number[]>,
  cuts: ReadonlyMap<string, readonly number[]>,
  nodes: ReturnType<typeof nodeTable>,
): Piece[] {
  const seen = new Set<number>();
  const out: Piece[] = [];
  for (const line of Object.values(lines)) {
    const stops = [...cuts.get(line.id)!].sort((x, y) => x - y);
    const own = at.get(line.id)!;
    let leg = 0;
    let before: { node: number; s: number } | null = null;
    for (const s of stops) {
      while (leg < own.length - 2 && s > own[leg + 1]!) leg++;
      const span = own[leg + 1]! - own[leg]!;
      const t = span === 0 ? 0 : (s - own[leg]!) / span;
      const [a, b] = [line.vertices[leg]!, line.vertices[leg + 1]!];
      const node = nodes.at({ e: a.e + t * (b.e - a.e), n: a.n + t * (b.n - a.n) });
      if (before && before.node === node) continue;
      if (before) {
        // Two lines on the same legs bound one face, not a face of no width.
        const key = Math.min(before.node, node) * 67_108_864 + Math.max(before.node, node);
        if (!seen.has(key))
          out.push({ a: before.node, b: node, line: line.id, from_m: before.s, to_m: s });
        seen.add(key);
      }
      before = { node, s };
    }
  }
  return out;
}

/** Free ends and what they stop short of. */
function gapsOf(lines: Plan['lines'], bridge: number, look: number) {
  const index = legIndexOf(lines);
  const gaps: Gap[] = [];
  for (const line of Object.values(lines)) {
    const [first, last] = [line.vertices[0]!, line.vertices.at(-1)!];
    if (Math.hypot(first.e - last.e, first.n - last.n) <= JOIN_TOLERANCE) continue;
    for (const vertex of [0, line.vertices.length - 1]) {
      const v = line.vertices[vertex]!;
      const hits = index.near(v, look).filter((h) => h.line !== line.id);
      if (hits.some((h) => h.off <= JOIN_TOLERANCE)) continue;
      const others = hits.map((h) => ({ to: h.point, toLine: h.line, width_m: h.off }));
      // The other end of the same line counts when the line nearly closes on itself.
      const own = vertex === 0 ? last : first;
      const ring = Math.hypot(own.e - v.e, own.n - v.n);
      if (line.vertices.length > 3 && ring <= look)
        others.push({ to: { e: own.e, n: own.n }, toLine: line.id, width_m: ring });
      if (others.length === 0) continue;
      const best = others.reduce((x, y) => (y.width_m < x.width_m ? y : x));
      // A short stub beyond the place where the line meets the other leaves no gap.
      const next = line.vertices[vertex === 0 ? 1 : vertex - 1]!;
      if (Math.hypot(next.e - best.to.e, next.n - best.to.n) <= JOIN_TOLERANCE) continue;
      gaps.push({ line: line.id, vertex, ...best });
    }
  }
  return { gaps, bridges: gaps.filter((g) => g.width_m <= bridge) };
}

/** Follows every face round by always turning as far right as can be: the face lies on the left. */
function follow(pieces: readonly Piece[], points: readonly Point[]): Face[] {
  interface Half {
    readonly from: number;
    readonly to: number;
    readonly piece: Piece;
    readonly forward: boolean;
    next: number;
  }
  const halves: Half[] = [];
  const around = new Map<number, number[]>();
  const angle = (h: Half) =>
    Math.atan2(points[h.to]!.n - points[h.from]!.n, points[h.to]!.e - points[h.from]!.e);
  for (const piece of pieces) {
    for (const forward of [true, false]) {
      const [from, to] = forward ? [piece.a, piece.b] : [piece.b, piece.a];
      const here = around.get(from);
      if (here) here.push(halves.length);
      else around.set(from, [halves.length]);
      halves.push({ from, to, piece, forward, next: -1 });
    }
  }
  for (const [, list] of around) {
    list.sort((x, y) => angle(halves[x]!) - angle(halves[y]!));
    // Arriving by the twin of list[k], the way on with the face at the left is the one before it.
    list.forEach((h, k) => {
      halves[h ^ 1]!.next = list[(k - 1 + list.length) % list.length]!;
    });
  }
  const done = new Uint8Array(halves.length);
  const faces: (Face & { holes: Point[][]; area_m2: number })[] = [];
  const outers: { rim: Point[]; edges: Edge[]; area: number }[] = [];
  for (let start = 0; start < halves.length; start++) {
    if (done[start]) continue;
    const rim: Point[] = [];
    const edges: Edge[] = [];
    let perimeter = 0;
    for (let k = start; !done[k]; k = halves[k]!.next) {
      done[k] = 1;
      const h = halves[k]!;
      const [p, q] = [points[h.from]!, points[h.to]!];
      rim.push(p);
      perimeter += Math.hypot(q.e - p.e, q.n - p.n);
      if (h.piece.line !== null) {
        const { line, from_m, to_m } = h.piece;
        edges.push({ line, from_m, to_m, side: h.forward ? 'left' : 'right' });
      }
    }
    const area = areaOf(rim);
    if (area > 1)
      faces.push({ rim, holes: [], area_m2: area, perimeter_m: perimeter, edges: merged(edges) });
    else if (area < -1) outers.push({ rim, edges, area });
  }
  // A network that stands free inside a face is a hole in it.
  for (const outer of outers) {
    const p = outer.rim[0]!;
    const around = faces.filter((f) => !f.rim.includes(p) && inside(f.rim, p));
    if (around.length === 0) continue;
    const host = around.reduce((x, y) => (areaOf(y.rim) < areaOf(x.rim) ? y : x));
    host.holes.push(outer.rim);
    host.area_m2 += outer.area;
    (host.edges as Edge[]).push(...merged(outer.edges));
  }
  return faces;
}

/** Neighbouring stretches of one line on one side become one. */
function merged(edges: readonly Edge[]): Edge[] {
  const out: Edge[] = [];
  for (const e of edges) {
    const last = out.at(-1);
    const joins =
      last &&
      last.line === e.line &&
      last.side === e.side &&
      Math.abs(
        (e.side === 'left' ? last.to_m : last.from_m) - (e.side === 'left' ? e.from_m : e.to_m),
      ) < 1e-6;
    if (joins)
      out[out.length - 1] = {
        ...last,
        from_m: Math.min(last.from_m, e.from_m),
        to_m: Math.max(last.to_m, e.to_m),
      };
    else out.push(e);
  }
  return out;
}

/** Area of a polygon, anticlockwise positive, m2 [published: shoelace formula]. */
export function areaOf(rim: readonly Point[]): number {
  let twice = 0;
  rim.forEach((p, i) => {
    const q = rim[(i + 1) % rim.length]!;
    // About the first point, so that far-off coordinates do not cost digits.
    twice += (p.e - rim[0]!.e) * (q.n - rim[0]!.n) - (q.e - rim[0]!.e) * (p.n - rim[0]!.n);
  });
  return twice / 2;
}

/** True when a point lies inside a polygon [published: even-odd rule]. */
export function inside(rim: readonly Point[], p: Point): boolean {
  let odd = false;
  rim.forEach((a, i) => {
    const b = rim[(i + 1) % rim.length]!;
    if (a.n > p.n === b.n > p.n) return;
    if (p.e < a.e + ((p.n - a.n) / (b.n - a.n)) * (b.e - a.e)) odd = !odd;
  });
  return odd;
}

/** True when a place lies in a face, holes left out. */
export const inFace = (face: Pick<Face, 'rim' | 'holes'>, p: Point): boolean =>
  inside(face.rim, p) && !face.holes.some((hole) => inside(hole, p));

/** Distance from a point to the rim of a polygon or along a way, m. */
export function offPath(points: readonly Point[], p: Point, closed = false): number {
  if (points.length === 1) return Math.hypot(p.e - points[0]!.e, p.n - points[0]!.n);
  let least = Infinity;
  const count = closed ? points.length : points.length - 1;
  for (let i = 0; i < count; i++)
    least = Math.min(least, nearestOnLeg(points[i]!, points[(i + 1) % points.length]!, p).off);
  return least;
}
