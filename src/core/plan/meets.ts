/** Where lines meet: a vertex of one on the other, or two legs that cross. */
import Flatbush from 'flatbush';
import { JOIN_TOLERANCE, nearestOnLeg, stations } from './geometry.js';
import { crossing } from './legIndex.js';
import type { Line, Plan } from './schema.js';

/** A place that two lines share, or one line passes twice. */
export interface Meeting {
  readonly a: string;
  readonly b: string;
  /** Plan distance along each, m; `sa < sb` where both are one line. */
  readonly sa: number;
  readonly sb: number;
  /** They pass through one another, and not both have a vertex there. */
  readonly crosses: boolean;
}

type Vertices = Line['vertices'];
type Met = Pick<Meeting, 'sa' | 'sb' | 'crosses'>;
type Box = readonly [west: number, south: number, east: number, north: number];

/** Found once for each pair of shapes: while one line is dragged only its own meetings are sought. */
const pairs = new WeakMap<Vertices, WeakMap<Vertices, readonly Met[]>>();
const boxes = new WeakMap<Vertices, Box>();

/** All meetings of a property's lines. */
export function meetingsOf(lines: Plan['lines']): Meeting[] {
  const all = Object.values(lines);
  if (all.length === 0) return [];
  const tree = new Flatbush(all.length);
  for (const { vertices } of all) tree.add(...boxOf(vertices));
  tree.finish();
  return all.flatMap((a, i) => {
    const [w, s, e, n] = boxOf(a.vertices);
    return tree
      .search(w, s, e, n, (j) => j >= i)
      .sort((p, q) => p - q)
      .flatMap((j) => {
        const b = all[j]!;
        return metBy(a.vertices, b.vertices).map((met) => ({ a: a.id, b: b.id, ...met }));
      });
  });
}

function metBy(a: Vertices, b: Vertices): readonly Met[] {
  let known = pairs.get(a);
  if (!known) pairs.set(a, (known = new WeakMap()));
  let met = known.get(b);
  if (!met) known.set(b, (met = a === b ? withItself(a) : meet(a, b)));
  return met;
}

/** The box of a line with the tolerance round it. */
function boxOf(vertices: Vertices): Box {
  let box = boxes.get(vertices);
  if (!box) {
    let [w, s, e, n] = [Infinity, Infinity, -Infinity, -Infinity];
    for (const v of vertices) {
      [w, s] = [Math.min(w, v.e), Math.min(s, v.n)];
      [e, n] = [Math.max(e, v.e), Math.max(n, v.n)];
    }
    const t = JOIN_TOLERANCE;
    boxes.set(vertices, (box = [w - t, s - t, e + t, n + t]));
  }
  return box;
}

/** Legs of a line whose boxes touch a box, by their rank. */
function legsIn(vertices: Vertices, [w, s, e, n]: Box): number[] {
  const out: number[] = [];
  for (let i = 0; i + 1 < vertices.length; i++) {
    const [p, q] = [vertices[i]!, vertices[i + 1]!];
    if (Math.max(p.e, q.e) < w || Math.min(p.e, q.e) > e) continue;
    if (Math.max(p.n, q.n) < s || Math.min(p.n, q.n) > n) continue;
    out.push(i);
  }
  return out;
}

function meet(a: Vertices, b: Vertices): Met[] {
  const [ba, bb] = [boxOf(a), boxOf(b)];
  const shared: Box = [
    Math.max(ba[0], bb[0]),
    Math.max(ba[1], bb[1]),
    Math.min(ba[2], bb[2]),
    Math.min(ba[3], bb[3]),
  ];
  const [la, lb] = [legsIn(a, shared), legsIn(b, shared)];
  if (la.length === 0 || lb.length === 0) return [];
  const [sa, sb] = [stations(a), stations(b)];
  const out: Met[] = [];
  const near = (m: { sa: number; sb: number }) =>
    out.some((o) => Math.abs(o.sa - m.sa) <= SAME && Math.abs(o.sb - m.sb) <= SAME);
  const put = (m: Met) => void (near(m) || out.push(m));
  for (const [i, s] of touching(a, la, b, lb, sb)) put({ sa: sa[i]!, sb: s, crosses: false });
  for (const [i, s] of touching(b, lb, a, la, sa)) put({ sa: s, sb: sb[i]!, crosses: false });
  for (const i of la) {
    for (const j of lb) {
      const x = crossing(a[i]!, a[i + 1]!, b[j]!, b[j + 1]!);
      if (!x) continue;
      const at = {
        sa: sa[i]! + x[0] * (sa[i + 1]! - sa[i]!),
        sb: sb[j]! + x[1] * (sb[j + 1]! - sb[j]!),
      };
      put({ ...at, crosses: true });
    }
  }
  return out;
}

/** Meetings closer than this along both lines are one, m. */
const SAME = 2 * JOIN_TOLERANCE;

/** Vertices of one line that lie on another: rank, and the nearest place on the other. */
function touching(
  own: Vertices,
  legs: readonly number[],
  other: Vertices,
  others: readonly number[],
  at: readonly number[],
): [number, number][] {
  const out: [number, number][] = [];
  for (const i of new Set(legs.flatMap((k) => [k, k + 1]))) {
    let best = { off: Infinity, s: 0 };
    for (const j of others) {
      const on = nearestOnLeg(other[j]!, other[j + 1]!, own[i]!);
      if (on.off < best.off) best = { off: on.off, s: at[j]! + on.along };
    }
    if (best.off <= JOIN_TOLERANCE) out.push([i, best.s]);
  }
  return out;
}

/** A ring that closes, and legs of one line that cross one another. */
function withItself(v: Vertices): Met[] {
  const at = stations(v);
  const [first, last] = [v[0]!, v.at(-1)!];
  const closed = v.length > 2 && Math.hypot(first.e - last.e, first.n - last.n) <= JOIN_TOLERANCE;
  const out: Met[] = closed ? [{ sa: 0, sb: at.at(-1)!, crosses: false }] : [];
  for (let i = 0; i + 1 < v.length; i++) {
    for (let j = i + 2; j + 1 < v.length; j++) {
      if (closed && i === 0 && j === v.length - 2) continue;
      const x = crossing(v[i]!, v[i + 1]!, v[j]!, v[j + 1]!);
      if (!x) continue;
      const sa = at[i]! + x[0] * (at[i + 1]! - at[i]!);
      const sb = at[j]! + x[1] * (at[j + 1]! - at[j]!);
      out.push({ sa, sb, crosses: true });
    }
  }
  return out;
}

/** A place of a line that it shares. */
export interface Joint {
  readonly s: number;
  /** The post there is bought with another line, or with the same line where it passes before. */
  readonly shared: boolean;
}

/**
 * The shared places of each line, in order along it. One post stands at each: it belongs to the line
 * whose posts stand already, else to the first of the plan.
 */
export function jointsOf(
  lines: Plan['lines'],
  meetings: readonly Meeting[],
): Record<string, Joint[]> {
  const rank = new Map(
    Object.values(lines)
      .sort((a, b) => Number(b.standing ?? false) - Number(a.standing ?? false))
      .map((line, i) => [line.id, i]),
  );
  const out: Record<string, { s: number; shared: boolean }[]> = {};
  const put = (line: string, s: number, shared: boolean) => {
    const list = (out[line] ??= []);
    const same = list.find((j) => Math.abs(j.s - s) <= JOIN_TOLERANCE);
    if (same) same.shared ||= shared;
    else list.push({ s, shared });
  };
  for (const m of meetings) {
    const later = m.a === m.b || rank.get(m.b)! > rank.get(m.a)!;
    put(m.a, m.sa, !later);
    put(m.b, m.sb, later);
  }
  for (const list of Object.values(out)) list.sort((p, q) => p.s - q.s);
  return out;
}
