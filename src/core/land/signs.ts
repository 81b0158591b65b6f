/** Warning signs along a fence. */
import { figure, type Catalogue } from '../plan/catalogue.js';

/** How many signs a stretch of so many metres wants: one at each end, and none too far from the next. */
export const signsAlong = (length_m: number, cat: Catalogue): number =>
  Math.ceil(length_m / figure(cat, 'supplies.signEvery') - 1e-9) + 1;
