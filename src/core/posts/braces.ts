/** How many braces a run takes, and whether they fit into it. */
import { figure, type Catalogue } from '../plan/catalogue.js';

/** Between two brace posts a bay is left, m: else the rails would meet. */
const BETWEEN = 0.5;

/** The shortest run, m over the ground, that has room for a brace at both its ends. */
export const roomForTwo = (cat: Catalogue): number => 2 * figure(cat, 'end.offsetPost') + BETWEEN;

/** Braces of a run: one at each end, or a single one that serves both ways where two have no room. */
export const bracesIn = (ground_m: number, cat: Catalogue): number =>
  ground_m < roomForTwo(cat) ? 1 : 2;
