/** Plane geometry of lines, in local metres; distances are plan distances from the first vertex. */
import type { Point, Vertex } from './schema.js';

/** Ends and vertices closer to another line than this are joined to it, m. */
export const JOIN_TOLERANCE = 0.3;

/** Plan distance, m. A plain root: `hypot` guards against overflow that no farm comes near, and is slow. */
export const distance = (a: Point, b: Point): number => {
  const [de, dn] = [b.e - a.e, b.n - a.n];
  return Math.sqrt(de * de + dn * dn);
};

/** Grid bearing from a to b, degrees clockwise from north, 0 <= bearing < 360. */
export function bearing(a: Point, b: Point): number {
  const d = (Math.atan2(b.e - a.e, b.n - a.n) * 180) / Math.PI;
  return (d + 360) % 360;
}

/** The point that lies `length` metres from `a` on a grid bearing in degrees. */
export function fromBearing(a: Point, length: number, bearingDeg: number): Point {
  const r = (bearingDeg * Math.PI) / 180;
  return { e: a.e + length * Math.sin(r), n: a.n + length * Math.cos(r) };
}

/** Plan distance of every vertex from the first. */
export function stations(vertices: readonly Point[]): number[] {
  const s = [0];
  for (let i = 1; i < vertices.length; i++) {
    s.push(s[i - 1]! + distance(vertices[i - 1]!, vertices[i]!));
  }
  return s;
}

/** Plan length of a line. */
export const planLength = (line: { readonly vertices: readonly Point[] }): number =>
  stations(line.vertices).at(-1)!;

/** The point at plan distance s; held to the line's ends. */
export function pointAt(vertices: readonly Point[], s: number): Point {
  // Asked for every post: it walks the legs without making a list of stations.
  let left = s;
  let i = 0;
  let span = distance(vertices[0]!, vertices[1]!);
  while (i < vertices.length - 2 && left > span) {
    left -= span;
    i++;
    span = distance(vertices[i]!, vertices[i + 1]!);
  }
  const t = span === 0 ? 0 : Math.min(1, Math.max(0, left / span));
  const a = vertices[i]!;
  const b = vertices[i + 1]!;
  return { e: a.e + t * (b.e - a.e), n: a.n + t * (b.n - a.n) };
}

/**
 * The place beside a line.
 * @param s plan distance along it, m
 * @param off distance at right angles from it, m; to the right positive, looking the way it runs
 */
export function beside(vertices: readonly Point[], s: number, off: number): Point {
  const at = stations(vertices);
  const k = Math.max(
    1,
    at.findIndex((x, i) => i > 0 && x >= s),
  );
  const leg = k < 1 || k >= vertices.length ? vertices.length - 1 : k;
  return fromBearing(pointAt(vertices, s), off, bearing(vertices[leg - 1]!, vertices[leg]!) + 90);
}

/** The nearest place of a leg to a point: distance along it from `a`, distance off it, m. */
export function nearestOnLeg(a: Point, b: Point, p: Point) {
  const [dx, dy] = [b.e - a.e, b.n - a.n];
  // The square, since it may vanish where the length itself does not.
  const square = dx * dx + dy * dy;
  const length = Math.sqrt(square);
  const t = square === 0 ? 0 : ((p.e - a.e) * dx + (p.n - a.n) * dy) / square;
  const held = Math.min(1, Math.max(0, t));
  const point = { e: a.e + held * dx, n: a.n + held * dy };
  return { along: held * length, off: Math.hypot(p.e - point.e, p.n - point.n), point };
}

/** Nearest place of a line to a point: plan distance along it, distance off it, leg index. */
export function nearest(vertices: readonly Point[], p: Point) {
  let best = { s: 0, off: Infinity, leg: 0, point: vertices[0]! as Point };
  let start = 0;
  for (let i = 0; i + 1 < vertices.length; i++) {
    const [a, b] = [vertices[i]!, vertices[i + 1]!];
    const { along, off, point } = nearestOnLeg(a, b, p);
    if (off < best.off) best = { s: start + along, off, leg: i, point };
    start += distance(a, b);
  }
  return best;
}

/** Turn at each interior vertex, degrees, 0 for straight on; 0 at both ends of the line. */
export function deflections(vertices: readonly Point[]): number[] {
  return vertices.map((v, i) => {
    const before = vertices[i - 1];
    const after = vertices[i + 1];
    if (!before || !after) return 0;
    const turn = bearing(v, after) - bearing(before, v);
    return Math.abs(((turn + 540) % 360) - 180);
  });
}

/** The kind a vertex gets when nobody has said: ends at the ends, else by its turn. */
export function defaultKind(turnDeg: number, bendLimitDeg: number, isEnd: boolean): Vertex['kind'] {
  if (isEnd) return 'end';
  return turnDeg > bendLimitDeg ? 'corner' : 'bend';
}
