/** What an end costs. */
import { addedPosts, fittings, holeTakes } from '../ends/takes.js';
import { recordOf, type Catalogue } from '../plan/catalogue.js';
import type { EndReport } from '../report/schema.js';
import { priceInUse } from './takeoff.js';

/** What holds an end, beside the post at which it ends, at the prices of the book. */
export function braceCost(e: EndReport, cat: Catalogue): number {
  const price = (item: string) => priceInUse(item, cat);
  const posts = addedPosts(e).reduce((sum, id) => sum + price(recordOf(cat.posts, id).price), 0);
  return fittings(e, cat).reduce((sum, [item, n]) => sum + n * price(item), posts);
}

/** An end with its post and what the holes take. */
export function endCost(e: EndReport, cat: Catalogue): number {
  const price = (item: string) => priceInUse(item, cat);
  const holes = [e.post, ...addedPosts(e)].flatMap((id) =>
    holeTakes(e.setting, id, e.depth_m, cat),
  );
  const own = price(recordOf(cat.posts, e.post).price);
  return holes.reduce((sum, [item, n]) => sum + n * price(item), own + braceCost(e, cat));
}
