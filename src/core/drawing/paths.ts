/** Paths on a drawing: what of them is in view, and where a figure can stand on a curve. */
import { upright, type Spot } from './place.js';

/** A place on the drawing, y downwards. */
export interface Pixel {
  readonly x: number;
  readonly y: number;
}

/** Size of a drawing; its corner is at nought. */
export interface Size {
  readonly width: number;
  readonly height: number;
}

/** Whether a place is in view, or no further than `rim` beyond its edge; with a negative one, well inside. */
export const inView = ({ x, y }: Pixel, view: Size, rim = 0): boolean =>
  x > -rim && y > -rim && x < view.width + rim && y < view.height + rim;

/** What is cut keeps so far inside the edge. */
const RIM = 10;

/** The parts of a path that are in view, a little inside its edge. */
export function clipped(path: readonly Pixel[], view: Size): Pixel[][] {
  const out: Pixel[][] = [];
  let last: Pixel | null = null;
  for (let i = 0; i + 1 < path.length; i++) {
    const leg = clip(path[i]!, path[i + 1]!, view);
    if (!leg) continue;
    if (last && last.x === leg[0].x && last.y === leg[0].y) out.at(-1)!.push(leg[1]);
    else out.push([...leg]);
    last = leg[1];
  }
  return out;
}

/** One leg cut to the view (Liang and Barsky); null where it is not in it. */
function clip(a: Pixel, b: Pixel, view: Size): [Pixel, Pixel] | null {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  let [from, to] = [0, 1];
  for (const [p, q] of [
    [-dx, a.x - RIM],
    [dx, view.width - RIM - a.x],
    [-dy, a.y - RIM],
    [dy, view.height - RIM - a.y],
  ] as const) {
    if (p === 0) {
      if (q < 0) return null;
    } else if (p < 0) from = Math.max(from, q / p);
    else to = Math.min(to, q / p);
  }
  if (from >= to) return null;
  const spot = (t: number): Pixel =>
    t === 0 ? a : t === 1 ? b : { x: a.x + t * dx, y: a.y + t * dy };
  return [spot(from), spot(to)];
}

/** How far a curve may leave the chord that its figure stands on. */
const BOW = 2.5;
/** A figure stands on a few dozen corners at the most: on more the curve is too small for it. */
const MOST_CORNERS = 60;

/** Spots on a curve where it is nearly straight for as long as its figure. */
export function onCurve(
  path: readonly Pixel[],
  size: { readonly w: number; readonly h: number },
  view: Size,
): Spot[] {
  const out: Spot[] = [];
  for (let i = 0; i < path.length && out.length < 6; i += 5) {
    const a = path[i]!;
    if (!inView(a, view, -20)) continue;
    const most = Math.min(path.length, i + MOST_CORNERS);
    let j = i + 1;
    while (j < most && Math.hypot(path[j]!.x - a.x, path[j]!.y - a.y) < size.w) j++;
    if (j === i + MOST_CORNERS) continue;
    const b = path[j];
    if (!b || !inView(b, view, -20)) continue;
    const length = Math.hypot(b.x - a.x, b.y - a.y);
    const bows = path
      .slice(i + 1, j)
      .some((p) => Math.abs((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)) / length > BOW);
    if (bows || length > size.w * 3) continue;
    out.push({ ...size, x: (a.x + b.x) / 2, y: (a.y + b.y) / 2, turn: upright(a, b) });
    i = j;
  }
  return out;
}
