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

/** A spot with its upright frame, and its corners once they are asked for. */
interface Taken {
  readonly spot: Spot;
  readonly reach_x: number;
  readonly reach_y: number;
  corners: readonly (readonly [number, number])[] | null;
}

const CORNERS = [
  [-0.5, -0.5],
  [0.5, -0.5],
  [0.5, 0.5],
  [-0.5, 0.5],
] as const;

function cornersOf(t: Taken): readonly (readonly [number, number])[] {
  const { x, y, w, h, turn = 0 } = t.spot;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  t.corners ??= CORNERS.map(
    ([dx, dy]) => [x + dx * w * c - dy * h * s, y + dx * w * s + dy * h * c] as const,
  );
  return t.corners;
}

function takenBy(spot: Spot): Taken {
  const { w, h, turn = 0 } = spot;
  if (turn === 0) return { spot, reach_x: w / 2, reach_y: h / 2, corners: null };
  const [c, s] = [Math.abs(Math.cos(turn)), Math.abs(Math.sin(turn))];
  return { spot, reach_x: (w * c + h * s) / 2, reach_y: (w * s + h * c) / 2, corners: null };
}

/** Whether two boxes share more than a rim: by the axes of both (separating axis theorem). */
export function overlap(a: Spot, b: Spot): boolean {
  return meets(takenBy(a), takenBy(b));
}

function meets(a: Taken, b: Taken): boolean {
  if (
    Math.abs(a.spot.x - b.spot.x) >= a.reach_x + b.reach_x ||
    Math.abs(a.spot.y - b.spot.y) >= a.reach_y + b.reach_y
  )
    return false;
  if (!a.spot.turn && !b.spot.turn) return true;
  return !parted(a, b) && !parted(b, a);
}

/** Whether a side of the first box keeps the second one off. */
function parted(a: Taken, b: Taken): boolean {
  const [own, other] = [cornersOf(a), cornersOf(b)];
  for (const k of [0, 1] as const) {
    const [p, q] = [own[k]!, own[k + 1]!];
    const [ux, uy] = [q[0] - p[0], q[1] - p[1]];
    const from = p[0] * ux + p[1] * uy;
    const to = q[0] * ux + q[1] * uy;
    let [low, high] = [Infinity, -Infinity];
    for (const [x, y] of other) {
      const along = x * ux + y * uy;
      if (along < low) low = along;
      if (along > high) high = along;
    }
    if (high <= from || low >= to) return true;
  }
  return false;
}

/**
 * Gives each thing, in the order given, the first of its spots that is still free. What finds none is left
 * out: the most needed things come first.
 * @param blocked where nothing may stand
 * @param sheet the drawing's width and height, where nothing may be cut off by its edge
 */
export function place<S extends Spot>(
  wanting: Iterable<Wanting<S>>,
  blocked: Iterable<Spot> = [],
  sheet?: Pick<Spot, 'w' | 'h'>,
): Map<string, S> {
  const taken = ledger();
  for (const spot of blocked) taken.put(takenBy(spot));
  const out = new Map<string, S>();
  for (const { id, spots } of wanting) {
    for (const spot of spots) {
      const own = takenBy(spot);
      if ((sheet && !within(own, sheet)) || !taken.free(own)) continue;
      taken.put(own);
      out.set(id, spot);
      break;
    }
  }
  return out;
}

const within = (t: Taken, sheet: Pick<Spot, 'w' | 'h'>): boolean =>
  t.spot.x - t.reach_x >= 0 &&
  t.spot.y - t.reach_y >= 0 &&
  t.spot.x + t.reach_x <= sheet.w &&
  t.spot.y + t.reach_y <= sheet.h;

/** Side of a square of the ledger, in the drawing's unit: a few words fall into each. */
const CELL = 48;

/** What is taken, by the squares of a net that it lies in: hundreds of spots are asked for at each zoom. */
function ledger() {
  const cells = new Map<number, Taken[]>();
  const each = ({ spot, reach_x, reach_y }: Taken, see: (key: number) => boolean): boolean => {
    const [x0, x1] = [Math.floor((spot.x - reach_x) / CELL), Math.floor((spot.x + reach_x) / CELL)];
    const [y0, y1] = [Math.floor((spot.y - reach_y) / CELL), Math.floor((spot.y + reach_y) / CELL)];
    for (let x = x0; x <= x1; x++)
      for (let y = y0; y <= y1; y++) if (!see(x * 100_003 + y)) return false;
    return true;
  };
  return {
    put(t: Taken): void {
      each(t, (key) => {
        const cell = cells.get(key);
        if (cell) cell.push(t);
        else cells.set(key, [t]);
        return true;
      });
    },
    free: (t: Taken): boolean =>
      each(t, (key) => !(cells.get(key) ?? []).some((other) => meets(other, t))),
  };
}

/** Each spot with something more said of it, one after another. */
export function* withMore<S extends Spot, M extends object>(
  spots: Iterable<S>,
  more: M,
): Generator<S & M> {
  for (const spot of spots) yield { ...spot, ...more };
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

/** The turn of words from one place to another, never upside down, radians. */
export function upright(
  a: { readonly x: number; readonly y: number },
  b: { readonly x: number; readonly y: number },
): number {
  const turn = Math.atan2(b.y - a.y, b.x - a.x);
  if (turn > Math.PI / 2) return turn - Math.PI;
  return turn <= -Math.PI / 2 ? turn + Math.PI : turn;
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
    const turn = upright(a, b);
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
