/** Ties that could be made beside those that there are. */
import { Groups } from '../base/groups.js';
import type { SeasonId } from '../plan/catalogue.js';
import { circuitOf, tyingOf } from '../power/circuit.js';
import type { Circuit } from '../power/circuitTypes.js';
import { strandOf } from '../power/joined.js';
import { cutOut } from '../power/ties.js';
import type { Fence, Network } from '../power/wired.js';

/** Two live strands at a place, by their names in the circuit. */
export interface FurtherTie {
  readonly location: string;
  readonly a: string;
  readonly b: string;
  /** It wants a switch, since one of the two has a cut-out. */
  readonly switch?: true;
}

/** At each place, of live strands that are not tied to one another there, the pairs that are nearest in height. */
export function furtherTies(net: Fence, season: SeasonId = 'today'): FurtherTie[] {
  const { present, ties } = tyingOf(net, season);
  const height = (name: string) => {
    const { line, strand } = strandOf(name)!;
    return net.wired[line]!.line.strands[strand]!.height_m;
  };
  const out: FurtherTie[] = [];
  for (const [location, { ties: own }] of ties) {
    const live = present.get(location)?.live ?? [];
    const groups = new Groups();
    for (const { a, b } of own) groups.join(a, b);
    const best = new Map<string, { a: string; b: string; apart: number }>();
    live.forEach((a, i) => {
      for (const b of live.slice(i + 1)) {
        const [p, q] = [groups.of(a), groups.of(b)];
        if (p === q) continue;
        const key = [p, q].sort().join(' ');
        const apart = Math.abs(height(a) - height(b));
        if (apart < (best.get(key)?.apart ?? Infinity) - 1e-9) best.set(key, { a, b, apart });
      }
    });
    for (const { a, b } of best.values())
      out.push({ location, a, b, ...(cutOut(net, a) === cutOut(net, b) ? {} : { switch: true }) });
  }
  return out;
}

/** The circuit with ties more. */
export const withTies = (
  circuit: Circuit,
  more: readonly FurtherTie[],
  r_ohm: number,
): Circuit => ({
  ...circuit,
  jumpers: [
    ...circuit.jumpers,
    ...more.map(({ location, a, b }) => ({ location, strand_a: a, strand_b: b, r_ohm })),
  ],
});

/** The circuit as built today, where something is fed. */
export function fedCircuit(net: Network, season: SeasonId = 'today'): Circuit | null {
  const circuit = circuitOf(net, season);
  return circuit.energiser.hot_strands.length > 0 ? circuit : null;
}
