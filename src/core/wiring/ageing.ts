/** What ties that have aged make of the far end of a fence, by kind of connector. */
import { recordOf, type SeasonId } from '../plan/catalogue.js';
import { circuitOf } from '../power/circuit.js';
import { solveUnit, type Unit } from '../power/network.js';
import { strandOf } from '../power/joined.js';
import type { ConnectorId } from '../power/ties.js';
import type { Network } from '../power/wired.js';

export const CONNECTORS: readonly ConnectorId[] = ['hand', 'clamp', 'tap'];

/** How a fence stands when all its ties are of one kind, and have aged as that kind does. */
export interface Aged {
  readonly kind: ConnectorId;
  /** What is left of the volts with sound ties at the place that loses most, 0 to 1. */
  readonly left: number;
  /** The line of that place; null: nothing is fed. */
  readonly line: string | null;
}

/**
 * By the resistive network, at the same volts at the unit: ties are the only thing that differs. Ties that were set by
 * hand count as of their own kind.
 */
export function agedOf(net: Network, season: SeasonId): Aged[] {
  const of = (kind: ConnectorId, ohmOf?: (kind: ConnectorId) => number) =>
    sharesOf(solveUnit(circuitOf({ ...net, plan: { ...net.plan, connectors: kind } }, season, ohmOf))); // prettier-ignore
  const sound = of('tap');
  return CONNECTORS.map((kind) => {
    const aged = of(kind, (k) => recordOf(net.cat.connectors, k).aged_ohm);
    let worst: Aged = { kind, left: 1, line: null };
    for (const [key, was] of sound) {
      // What has hardly any volts with sound ties says nothing about them.
      if (was < 0.02) continue;
      const left = (aged.get(key) ?? 0) / was;
      if (worst.line === null || left < worst.left)
        worst = { kind, left, line: strandOf(key.slice(key.indexOf(' ') + 1))!.line };
    }
    return worst;
  });
}

/** Volts of each node of the fence as a share of those at the hot terminal. */
function sharesOf({ nodes, v_hot, v_earth }: Unit): Map<string, number> {
  const out = new Map<string, number>();
  for (const { location, strand, v_v } of nodes)
    if (v_v !== null && strandOf(strand))
      out.set(`${location} ${strand}`, v_v / (v_hot - v_earth || 1));
  return out;
}
