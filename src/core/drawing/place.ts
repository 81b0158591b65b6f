/** Where the words and symbols of a drawing stand so that none lies on another. */

/** A box on the drawing: its centre, its size, and how far it is turned, in the drawing's own unit. */
export interface Spot {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
  /** Turn about the centre, radians; none where left out. */
  readonly turn?: number;
}

/** Something that wants room. */
export interface Wanting<S extends Spot = Spot> {
  readonly id: string;
  /** Where it may stand, best first. Asked for one after another, until one is free. */
  readonly spots: Iterable<S>;
}

interface Taken {
  readonly corners: readonly (readonly [number, number])[];
  readonly west: number;
  readonly east: number;
  readonly low: number;
  readonly high: number;
}

function cornersOf({ x, y, w, h, turn = 0 }: Spot): [number, number][] {
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return [
    [-w / 2, -h / 2],
    [w / 2, -h / 2],
    [w / 2, h / 2],
    [-w / 2, h / 2],
  ].map(([dx, dy]) => [x + dx! * c - dy! * s, y + dx! * s + dy! * c]);
}

function takenBy(spot: Spot): Taken {
  const corners = cornersOf(spot);
  const xs = corners.map(([x]) => x);
  const ys = corners.map(([, y]) => y);
  return {
    corners,
    west: Math.min(...xs),
    east: Math.max(...xs),
    low: Math.min(...ys),
    high: Math.max(...ys),
  };
}

/** Whether two boxes share more than a rim: by the axes of both (separating axis theorem). */
export function overlap(a: Spot, b: Spot): boolean {
  return meets(takenBy(a), takenBy(b));
}

function meets(a: Taken, b: Taken): boolean {
  if (a.west >= b.east || b.west >= a.east || a.low >= b.high || b.low >= a.high) return false;
  for (const { corners } of [a, b]) {
    for (const k of [0, 1] as const) {
      const [p, q] = [corners[k]!, corners[k + 1]!];
      const axis = [q[0] - p[0], q[1] - p[1]] as const;
      const along = (t: Taken) => t.corners.map(([x, y]) => x * axis[0] + y * axis[1]);
      const [pa, pb] = [along(a), along(b)];
      if (Math.max(...pa) <= Math.min(...pb) || Math.max(...pb) <= Math.min(...pa)) return false;
    }
  }
  return true;
}

/**
 * Gives each thing, in the order given, the first of its spots that is still free. What finds none is left
 * out: the most needed things come first.
 * @param blocked where nothing may stand
 */
export function place<S extends Spot>(
  wanting: readonly Wanting<S>[],
  blocked: readonly Spot[] = [],
): Map<string, S> {
  const taken = blocked.map(takenBy);
  const out = new Map<string, S>();
  for (const { id, spots } of wanting) {
    for (const spot of spots) {
      const own = takenBy(spot);
      if (taken.some((t) => meets(t, own))) continue;
      taken.push(own);
      out.set(id, spot);
      break;
    }
  }
  return out;
}

const ROUND: readonly (readonly [number, number])[] = [
  [0, 1],
  [0, -1],
  [1, 0],
  [-1, 0],
  [1, 1],
  [-1, 1],
  [1, -1],
  [-1, -1],
];

/**
 * Spots round a place: below, above, beside it, at its corners, then the same further off.
 * @param size of what is to stand there; @param gap to the place, and the further ones
 */
export function* round(
  at: { readonly x: number; readonly y: number },
  size: { readonly w: number; readonly h: number },
  gaps: readonly number[],
): Generator<Spot> {
  for (const gap of gaps)
    for (const [dx, dy] of ROUND)
      yield {
        ...size,
        x: at.x + dx * (gap + size.w / 2) * (dy === 0 ? 1 : 0.85),
        y: at.y + dy * (gap + size.h / 2),
      };
}

/**
 * Spots along a path for words that do not bend: beside its straight legs, the longest first, never upside
 * down; only on legs that are long enough for them.
 * @param path corners of the path on the drawing, y downwards
 * @param off from the path to the middle of the words
 */
export function* alongLegs(
  path: readonly { readonly x: number; readonly y: number }[],
  { w, h }: { readonly w: number; readonly h: number },
  off: number,
): Generator<Spot & { readonly turn: number }> {
  const legs = path
    .slice(1)
    .map((b, i) => ({ a: path[i]!, b, length: Math.hypot(b.x - path[i]!.x, b.y - path[i]!.y) }))
    .filter((leg) => leg.length >= w)
    .sort((p, q) => q.length - p.length);
  for (const { a, b, length } of legs) {
    let turn = Math.atan2(b.y - a.y, b.x - a.x);
    if (turn > Math.PI / 2) turn -= Math.PI;
    if (turn <= -Math.PI / 2) turn += Math.PI;
    const room = (length - w) / 2 / length;
    for (const t of [0.5, 0.5 - room * 0.6, 0.5 + room * 0.6, 0.5 - room, 0.5 + room])
      for (const side of [-1, 1])
        yield {
          x: a.x + t * (b.x - a.x) - Math.sin(turn) * off * side,
          y: a.y + t * (b.y - a.y) + Math.cos(turn) * off * side,
          w,
          h,
          turn,
        };
  }
}
