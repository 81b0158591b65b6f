/** Cut-out switches of a fence for the search of a fault, counted in minutes of walking. */
import { figure } from '../plan/catalogue.js';
import { cablesOf, feedOf, tyingOf } from '../power/circuit.js';
import { strandIn, strandOf } from '../power/joined.js';
import { insideOf, NEAR, type Network } from '../power/wired.js';
import { halve, type Opening, type Stretch, type Switchable } from './halving.js';
import type { Side } from './place.js';

/** A switch between a run and all else at the place where it ends. */
export interface CutOut {
  readonly location: string;
  readonly line: string;
  readonly run: number;
  readonly side: Exclude<Side, 'through'>;
  readonly at_m: number;
  /** It is in already. */
  readonly in: boolean;
}

export interface SearchOpening {
  /** Opened together. */
  readonly switches: readonly CutOut[];
  readonly off_min: number;
  readonly on_min: number;
  readonly saves_min: number;
  readonly after: Opening['after'];
}

export interface CutOuts {
  /** The whole fence, and the longest part between switches with those proposed, min of walking. */
  readonly whole_min: number;
  readonly part_min: number;
  readonly openings: readonly SearchOpening[];
}

/**
 * Switches so that each opening halves what is left to search. One can stand where the strands of a run end.
 * @param part_min a part that is walked through in this time is parted no further
 * Null while nothing is fed.
 */
export function cutOutsOf(net: Network, part_min: number): CutOuts | null {
  const feed = feedOf(net.energiser, net.wired, net.topology);
  if (!feed) return null;
  const { stretches, ends } = stretchesOf(net);
  const { whole_min, part_min: longest, openings } = halve(stretches, feed.location, part_min);
  return {
    whole_min,
    part_min: longest,
    openings: openings.map(({ switches, ...o }) => ({
      ...o,
      switches: switches.map(({ stretch, end }) => ({
        ...ends[stretch]![end]!,
        location: end === 0 ? stretches[stretch]!.u : stretches[stretch]!.v,
        in: stretches[stretch]!.ends[end] === 'in',
      })),
    })),
  };
}

type End = Pick<CutOut, 'line' | 'run' | 'side' | 'at_m'>;

/** Runs between named places, and cables, with the walk along each and where a switch can stand. */
function stretchesOf(net: Network) {
  const { ids, wired, topology, cat } = net;
  const walk = figure(cat, 'search.walk');
  const { present, ties } = tyingOf(net, 'today');
  const stretches: Stretch[] = [];
  const ends: (readonly [End | null, End | null])[] = [];
  const able = (location: string, end: End | null): Switchable => {
    if (!end) return false;
    const own = of(end.line, end.run);
    // At a gate post a run may end with nothing but the cable there: no tie is left to put a switch into.
    if ((present.get(location)?.live ?? []).every(own)) return false;
    const leaving = (ties.get(location)?.ties ?? []).filter((t) => own(t.a) !== own(t.b));
    const between = leaving.filter((t) => strandIn(net, t.a).duty === 'live');
    return between.length > 0 && between.every((t) => t.switch) ? 'in' : true;
  };
  for (const id of ids)
    for (const [run, r] of wired[id]!.runs.entries()) {
      const inside = insideOf(r, topology.marks[id]!);
      const scale = r.ground_m / Math.max(r.to_m - r.from_m, 1e-6);
      for (let k = 0; k + 1 < inside.length; k++) {
        const [a, b] = [inside[k]!, inside[k + 1]!];
        if ((present.get(a.location)?.live.length ?? 0) === 0) continue;
        const first = a.s <= r.from_m + NEAR ? ({ line: id, run, side: 'after', at_m: a.s } as const) : null; // prettier-ignore
        const last = b.s >= r.to_m - NEAR ? ({ line: id, run, side: 'before', at_m: b.s } as const) : null; // prettier-ignore
        ends.push([first, last]);
        stretches.push({
          u: a.location,
          v: b.location,
          min: ((b.s - a.s) * scale) / walk,
          ends: [able(a.location, first), able(b.location, last)],
        });
      }
    }
  for (const c of cablesOf(net, 'today', present)) {
    if (c.duty !== 'live') continue;
    ends.push([null, null]);
    stretches.push({ u: c.from, v: c.to, min: c.length_m / walk, ends: [false, false] });
  }
  return { stretches, ends };
}

/** Whether a strand is of a run. */
const of = (line: string, run: number) => (name: string) => {
  const own = strandOf(name);
  return own?.line === line && own.run === run;
};
