/** What a push opens between two strands at mid-bay. */
import { bisect } from '../base/numbers.js';
import { figure, type Catalogue } from '../plan/catalogue.js';
import type { Strand } from '../plan/schema.js';
import type { Requirement, Strain } from '../report/schema.js';
import { panelAt } from '../wire/bottom.js';
import { pushPull } from '../wire/strain.js';
import { wireOf } from '../wire/wires.js';
import { pushAside } from '../wire/pull.js';

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

/** A wire as it is pulled: tension on the hottest day, stiffness, and the run that it can draw on. */
export interface Pulled {
  readonly hot_N: number;
  readonly EA_N: number;
  readonly run_m: number;
}

/** A wire of a line where it gives way most: its least pull, its longest run. */
export const pulledIn = (strain: readonly Strain[], wire: string, cat: Catalogue): Pulled => ({
  hot_N: pushPull(strain, wire),
  EA_N: wireOf(wire, cat).EA_N,
  run_m: Math.max(...strain.map((s) => s.ground_m)),
});

/**
 * The longest bay, m, in which the usual push opens the gap between two wires by no more than so much;
 * 0 where none is short enough, 60 at the most.
 */
export function longestBayThatHolds(
  opening_m: number,
  wires: readonly Pulled[],
  cat: Catalogue,
): number {
  const push = figure(cat, 'wire.pushForce');
  const over = (bay: number) =>
    wires.reduce((sum, w) => sum + pushAside(push, w.hot_N, bay, w.EA_N, w.run_m), -opening_m);
  if (over(0.2) > 0) return 0;
  if (over(60) < 0) return 60;
  return bisect(over, 0.2, 60, 1e-6);
}
