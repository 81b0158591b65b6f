/** Minutes on foot from place to place of a property: straight across where no fence is in the way, else along the fences. */
import { distance } from '../plan/geometry.js';
import type { Point } from '../plan/schema.js';

export interface OnFoot {
  /** Level, m/min [practice: 4 km an hour]. */
  readonly metres_per_minute: number;
  /** A minute more for each so many metres up [published: Naismith, Scottish Mountaineering Club Journal 2 (1892) 136]. */
  readonly climb_m: number;
}

export const NAISMITH: OnFoot = { metres_per_minute: 67, climb_m: 10 };
/** Where one stands at a fence, and where one goes to, is no crossing, m. */
const AT_FENCE = 2;

/**
 * @param lines each a way of points that nobody crosses
 * @param height of the ground, m; NaN where it is not known
 * @returns metres on the level that take as long, from one place to another, where it is `along_m` along the fences
 */
export function onFoot(lines: readonly (readonly Point[])[], height: (p: Point) => number, { metres_per_minute, climb_m }: OnFoot = NAISMITH) {
  const legs = lines.flatMap((points) => points.slice(1).map((b, k) => [points[k]!, b] as const));
  const climb = (a: Point, b: Point): number => {
    const up = height(b) - height(a);
    return up > 0 ? (up / climb_m) * metres_per_minute : 0;
  };
  return (from: Point, to: Point, along_m: number): number => {
    const straight = distance(from, to);
    const clear = straight < along_m && !legs.some(([a, b]) => crosses(from, to, a, b));
    return (clear ? straight : along_m) + climb(from, to);
  };
} // prettier-ignore

/** Whether one crosses the other, ends of the first left alone. */
function crosses(from: Point, to: Point, a: Point, b: Point): boolean {
  const [dx, dy] = [to.e - from.e, to.n - from.n];
  const [ex, ey] = [b.e - a.e, b.n - a.n];
  const det = dx * ey - dy * ex;
  if (det === 0) return false;
  const t = ((a.e - from.e) * ey - (a.n - from.n) * ex) / det;
  const u = ((a.e - from.e) * dy - (a.n - from.n) * dx) / det;
  const slack = AT_FENCE / Math.hypot(dx, dy);
  return t > slack && t < 1 - slack && u >= 0 && u <= 1;
}
