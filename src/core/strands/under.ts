/** How large the gap between the ground and the lowest strand may grow. */
import { figure, type Catalogue } from '../plan/catalogue.js';
import type { Requirement } from '../report/schema.js';

/**
 * The largest gap under the lowest strand, m: over a hollow it may grow by so much above the strand's own
 * height, but by a little only above the widest gap that the animals allow; who asks for a live strand near
 * the ground allows no more than that strand's height (practice: a fox that asks for 130 mm gets 150, not 250).
 * A strand that stands too high already is told as such, and may still grow by that little.
 * @param lowest_m height of the lowest strand on its posts
 */
export function mostUnder(lowest_m: number, need: Requirement | null, cat: Catalogue): number {
  const usual = lowest_m + figure(cat, 'posts.clearanceAbove');
  if (!need) return usual;
  const little = figure(cat, 'posts.clearanceOver');
  const widest = Math.min(
    ...need.needs.map((n) => (n.lowestLive ? n.lowestMax_m : Math.max(n.lowestMax_m, n.gapMax_m))),
  );
  return Math.min(usual, Math.max(lowest_m, widest) + little);
}
