/** What of a network hangs on its energiser by metal: the graph of its circuit, strand by strand. */
import { judgeOf, type Continuity } from '../joins/continuity.js';
import type { SeasonId } from '../plan/catalogue.js';
import { circuitOf, presentAt } from './circuit.js';
import type { Circuit } from './circuitTypes.js';
import { takesOff } from './leakage.js';
import { handTies, joinedBy, strandOf, type Joined } from './joined.js';
import type { Network } from './wired.js';

/** Continuity of a circuit of the plan, m of fence strand. Null while the energiser feeds no live strand. */
export function fedOf(circuit: Circuit): Continuity | null {
  if (circuit.energiser.hot_strands.length === 0) return null;
  // Cables lead on, but what is counted is fence.
  const sections = circuit.sections.map((s) => (s.id in s.strands ? { ...s, length_m: 0 } : s));
  return judgeOf({ ...circuit, sections })({
    jumpers: circuit.jumpers,
    switches: [],
    breaks: circuit.breaks,
  });
}

const known = new WeakMap<Network, Map<boolean, Joined | null>>();

/**
 * What joins set by hand make of the runs; null where all of them are as proposed, and every run hangs together.
 * It goes by metal alone: seasons in which the same strands carry share their answer.
 */
export function joinedOf(net: Network, season: SeasonId): Joined | null {
  let own = known.get(net);
  if (!own) known.set(net, (own = new Map()));
  const cutOut = takesOff(season);
  let joined = own.get(cutOut);
  if (joined === undefined) own.set(cutOut, (joined = joinedIn(net, season)));
  return joined;
}

function joinedIn(net: Network, season: SeasonId): Joined | null {
  const hand = handTies(net);
  if (hand.size === 0) return null;
  const fed = fedOf(circuitOf(net, season));
  const present = presentAt(net, season);
  return joinedBy(
    hand,
    (location) => present.get(location)?.live ?? [],
    new Set(fed?.dead.map((d) => d.strand).filter((name) => strandOf(name) !== null)),
  );
}
