/** A face divided by a straight fence: to a wished area, in a wished direction. */
import { areaOf, inFace, type Face } from './faces.js';
import type { Point } from '../plan/schema.js';

export interface Division {
  /** The fences, each from rim to rim; more than one where the face is hollow. */
  readonly fences: readonly (readonly [Point, Point])[];
  /** Area on the side that lies to the left of the bearing, m2. */
  readonly left_m2: number;
  readonly right_m2: number;
}

/** The part of a polygon that lies at most `d` along a unit normal (Sutherland and Hodgman 1974). */
function below(rim: readonly Point[], n: Point, d: number): Point[] {
  const out: Point[] = [];
  rim.forEach((p, i) => {
    const q = rim[(i + 1) % rim.length]!;
    const a = p.e * n.e + p.n * n.n - d;
    const b = q.e * n.e + q.n * n.n - d;
    if (a <= 0) out.push(p);
    if (a < 0 !== b < 0 && a !== b) {
      const t = a / (a - b);
      if (t > 0 && t < 1) out.push({ e: p.e + t * (q.e - p.e), n: p.n + t * (q.n - p.n) });
    }
  });
  return out;
}

const areaBelow = (face: Face, n: Point, d: number): number =>
  [face.rim, ...face.holes].reduce((sum, ring) => {
    const part = below(ring, n, d);
    return part.length < 3 ? sum : sum + areaOf(part);
  }, 0);

/**
 * Divides a face by a fence on a grid bearing so that the area to its left is as wished.
 * @param left_m2 wished area left of the bearing; held between nothing and the whole face
 */
export function divideFace(face: Face, bearing_deg: number, left_m2: number): Division {
  const r = (bearing_deg * Math.PI) / 180;
  const along = { e: Math.sin(r), n: Math.cos(r) };
  // Normal to the left of the bearing; the area left of the fence lies beyond d.
  const n = { e: -along.n, n: along.e };
  const offs = face.rim.map((p) => p.e * n.e + p.n * n.n);
  let [low, high] = [Math.min(...offs), Math.max(...offs)];
  const whole = face.area_m2;
  const wished = Math.min(Math.max(left_m2, 0), whole);
  for (let k = 0; k < 60; k++) {
    const mid = (low + high) / 2;
    if (whole - areaBelow(face, n, mid) > wished) low = mid;
    else high = mid;
  }
  const d = (low + high) / 2;
  const right_m2 = areaBelow(face, n, d);
  return { fences: chords(face, n, along, d), left_m2: whole - right_m2, right_m2 };
}

/** The parts of a straight line that lie inside a face. */
function chords(face: Face, n: Point, along: Point, d: number): [Point, Point][] {
  const cuts: number[] = [];
  for (const ring of [face.rim, ...face.holes]) {
    ring.forEach((p, i) => {
      const q = ring[(i + 1) % ring.length]!;
      const a = p.e * n.e + p.n * n.n - d;
      const b = q.e * n.e + q.n * n.n - d;
      if (a < 0 === b < 0) return;
      const t = a / (a - b);
      const x = { e: p.e + t * (q.e - p.e), n: p.n + t * (q.n - p.n) };
      cuts.push(x.e * along.e + x.n * along.n);
    });
  }
  cuts.sort((x, y) => x - y);
  const at = (s: number): Point => ({ e: d * n.e + s * along.e, n: d * n.n + s * along.n });
  const out: [Point, Point][] = [];
  for (let i = 0; i + 1 < cuts.length; i++) {
    const [a, b] = [at(cuts[i]!), at(cuts[i + 1]!)];
    const mid = { e: (a.e + b.e) / 2, n: (a.n + b.n) / 2 };
    if (inFace(face, mid) && cuts[i + 1]! - cuts[i]! > 0.5) out.push([a, b]);
  }
  return out;
}
