/** What a push opens between two strands at mid-bay. */
import { bisect } from '../base/numbers.js';
import { figure, type Catalogue } from '../plan/catalogue.js';
import type { Strand } from '../plan/schema.js';
import type { Requirement, Strain } from '../report/schema.js';
import { panelAt } from '../wire/bottom.js';
import { wireOf } from '../wire/strain.js';
import { pushAside } from '../wire/temperature.js';

/** Sideways give of each wire in the worst run of a line under the usual push, hot day, m. */
export const pushedBy =
  (strain: readonly Strain[]) =>
  (wire: string): number =>
    strain.reduce((most, s) => (s.wire === wire ? Math.max(most, s.pushed_m) : most), 0);

/**
 * The gap that a push opens widest, m: both strands give way, one up and one down.
 * @param reach_m gaps whose middle lies higher are not pushed into
 */
export function effectiveGap(
  strands: readonly Strand[],
  pushed: (wire: string) => number,
  cat: Catalogue,
  reach_m = Infinity,
): number | null {
  let widest: number | null = null;
  for (let i = Math.max(0, panelAt(strands, cat)); i + 1 < strands.length; i++) {
    const [a, b] = [strands[i]!, strands[i + 1]!];
    if ((a.height_m + b.height_m) / 2 >= reach_m) continue;
    widest = Math.max(widest ?? 0, b.height_m - a.height_m + pushed(a.wire) + pushed(b.wire));
  }
  return widest;
}

/** How high the animals at a line push in, m. */
export const reachOf = (need: Requirement | null): number =>
  need ? Math.max(...need.needs.map((n) => n.reach_m)) : Infinity;

/**
 * The longest bay, m, in which the usual push opens a gap by no more than every need allows.
 * @param tighter how much smaller than allowed every gap is, m: that much more may open
 * @param hot_N pull of the wire on the hottest day
 */
export function longestBayThatHolds(
  need: Requirement,
  tighter: number,
  hot_N: number,
  run_m: number,
  cat: Catalogue,
): number {
  const allowed = Math.min(...need.needs.map((n) => n.opening_m)) + tighter;
  const push = figure(cat, 'wire.pushForce');
  const { EA_N } = wireOf('ht25', cat);
  const over = (bay: number) => 2 * pushAside(push, hot_N, bay, EA_N, run_m) - allowed;
  if (over(0.2) > 0) return 0;
  if (over(60) < 0) return 60;
  return bisect(over, 0.2, 60, 1e-6);
}
