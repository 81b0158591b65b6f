/** Ties that could be made beside those that there are. */
import { Groups } from '../base/groups.js';
import type { SeasonId } from '../plan/catalogue.js';
import { circuitOf, tyingOf } from '../power/circuit.js';
import type { Circuit } from '../power/circuitTypes.js';
import { strandIn } from '../power/joined.js';
import { cutOut, nearestPair } from '../power/ties.js';
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
  const height = (name: string) => strandIn(net, name).height_m;
  const out: FurtherTie[] = [];
  for (const [location, { ties: own }] of ties) {
    const groups = new Groups();
    for (const { a, b } of own) groups.join(a, b);
    const apart = new Map<string, string[]>();
    for (const name of present.get(location)?.live ?? []) {
      const group = groups.of(name);
      apart.set(group, [...(apart.get(group) ?? []), name]);
    }
    const all = [...apart.values()];
    all.forEach((one, k) => {
      for (const other of all.slice(k + 1)) {
        const [a, b] = nearestPair(one, other, height);
        out.push({
          location,
          a,
          b,
          ...(cutOut(net, a) === cutOut(net, b) ? {} : { switch: true }),
        });
      }
    });
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
