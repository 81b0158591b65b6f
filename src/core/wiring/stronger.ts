/** The fewest ties more so that no single break darkens more than a share of the live strand. */
import { figure } from '../plan/catalogue.js';
import { fedOf } from '../power/fed.js';
import type { Network } from '../power/wired.js';
import { fedCircuit, furtherTies, withTies, type FurtherTie } from './further.js';

export interface Stronger {
  readonly live_m: number;
  /** What one break may cost, m. */
  readonly limit_m: number;
  /** What the dearest costs now, and with the ties, m. */
  readonly worst_m: number;
  readonly left_m: number;
  /** In the order in which they buy most. */
  readonly ties: readonly FurtherTie[];
}

/**
 * Tie by tie, each the one that takes most off what is over the limit; then whatever the later ones made needless is left
 * out. Equal to the fewest by trying all on small fences (tests). Null while nothing is fed.
 * @param share of the live strand, 0 to 1
 */
export function strongerTies(net: Network, share: number): Stronger | null {
  const base = fedCircuit(net);
  if (!base) return null;
  const ohm = figure(net.cat, 'network.jumper');
  const judge = (ties: readonly FurtherTie[]) => fedOf(withTies(base, ties, ohm))!;
  const now = judge([]);
  const limit_m = share * now.live_m;
  const over = (ties: readonly FurtherTie[]) =>
    judge(ties).break_cost.reduce((sum, b) => sum + Math.max(0, b.lost_m - limit_m), 0);
  const worst = (ties: readonly FurtherTie[]) =>
    Math.max(0, ...judge(ties).break_cost.map((b) => b.lost_m));

  let ties: FurtherTie[] = [];
  let left = over(ties);
  const all = left > EVEN ? furtherTies(net) : [];
  while (left > EVEN) {
    let best: { tie: FurtherTie; over: number } | null = null;
    for (const tie of all) {
      if (ties.includes(tie)) continue;
      const o = over([...ties, tie]);
      if (o < (best?.over ?? left) - EVEN) best = { tie, over: o };
    }
    if (!best) break;
    ties.push(best.tie);
    left = best.over;
  }
  for (const tie of [...ties]) {
    const without = ties.filter((t) => t !== tie);
    if (over(without) <= left + EVEN) ties = without;
  }
  return { live_m: now.live_m, limit_m, worst_m: worst([]), left_m: worst(ties), ties };
}

/** Sums of lengths that differ by less are the same, m. */
const EVEN = 1e-6;
