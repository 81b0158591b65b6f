/** How long others would have taken in a practice hunt: the search itself, and one who follows the lowest volts. */
import { placesOf } from '../faults/hunt.js';
import {
  followLowest,
  hide,
  IN_VAIN_MIN,
  SEEN_M,
  type Hidden,
  type Hunt,
} from '../faults/practice.js';
import { placeOf, touchedAt, type Searched } from '../faults/searched.js';
import { metresFrom } from '../faults/walk.js';
import type { Place } from '../power/pulseNet.js';
import type { Logged } from './logged.js';
import { strandsOf } from './said.js';
import { NEAR_M, PACE, type NextPlace, type Search } from './search.js';

/** Where a practice fault was, and how long others would have taken, min; null: they would not have found it. */
export interface Revealed {
  readonly hidden: Hidden;
  readonly search_min: number | null;
  readonly lowest_min: number | null;
}

/** Where it lies, and where to go next. */
export interface Led extends Search {
  readonly next: readonly NextPlace[];
}

/** Minutes of the search itself on a hidden fault, until it is seen; null: not within so many places. */
function bySearch(
  fence: Searched,
  hunt: Hunt,
  seen: (at: Place) => boolean,
  search: (asked: { readings: readonly Logged[]; here: Place | null }) => Led | null,
  share: number,
  walk: (from: Place | null, to: Place) => number,
  metresTo: (at: Place) => number,
): number | null {
  const at = (k: number) => new Date(k * 60_000).toISOString();
  const plain = { at_m: null, line: null, spot: 'terminal', unit: fence.net.energiser.id };
  const readings: Logged[] = [
    { id: 't', time: at(0), kind: 'volts', value: hunt.probe(null).volts, ...plain },
    { id: 'e', time: at(1), kind: 'earth_volts', value: hunt.earth(share), ...plain },
  ];
  let [here, spent]: [Place | null, number] = [null, PACE.reading_min];
  const looked = new Set<string>();
  for (let k = 0; k < MOST_TOUCHES; k++) {
    const now = search({ readings, here });
    if (!now) return null;
    const sure = now.best && now.best.near >= 0.9 && !looked.has(`${now.best.line} ${now.best.at_m}`) ? now.best : null;
    const go = sure ?? now.next[0];
    if (!go) return null;
    const to = { line: go.line, at_m: go.at_m };
    spent += walk(here, to);
    here = to;
    if (seen(to)) return spent;
    if (sure) {
      // Sure of a place one looks along the wire on both sides of it.
      looked.add(`${to.line} ${to.at_m}`);
      const off = metresTo(to);
      if (off <= NEAR_M) return spent + off / PACE.metres_per_minute;
      spent += IN_VAIN_MIN;
    }
    const { volts, amps } = hunt.probe(to);
    const strands = strandsOf(fence.net)(to);
    readings.push({ id: `v${k}`, time: at(2 + k), kind: 'volts', value: volts, ...to, spot: null });
    if (amps !== null) readings.push({ id: `a${k}`, time: at(2 + k), kind: 'amps', value: Math.abs(amps) / strands, towards: amps > 0 ? 'end' : 'start', ...to, spot: null });
  }
  return null;
} // prettier-ignore
const MOST_TOUCHES = 25;

/** Metres of wire from a place to what is hidden. */
const wireTo = (fence: Searched, hidden: Hidden, at: Place): number => {
  const [a, b] = [touchedAt(fence, at), touchedAt(fence, hidden.at)];
  return a && b ? metresFrom(fence.sections, a)(b) : Infinity;
};

/** Whether what is hidden is seen from a place. */
export const seenFrom = (fence: Searched, hidden: Hidden) => (at: Place): boolean => wireTo(fence, hidden, at) <= SEEN_M; // prettier-ignore

export interface Reckoned {
  readonly fence: Searched;
  readonly hidden: Hidden;
  readonly seed: number;
  readonly share: number;
  /** Minutes on foot from one place to another. */
  readonly minutes: (from: Place | null, to: Place) => number;
  /** What the search says of some readings to one who stands somewhere. */
  readonly search: (asked: { readings: readonly Logged[]; here: Place | null }) => Led | null;
}

/** What the search and one who follows the lowest volts would have taken. */
export function revealOf({ fence, hidden, seed, share, minutes, search }: Reckoned): Revealed {
  const places = placesOf(fence.fences[0]!, fence.sections).flatMap((p) => (fence.pieces[p.section] ? (placeOf(fence, p) ?? []) : []));
  const seen = seenFrom(fence, hidden);
  const again = (): Hunt => hide(fence, hidden.level, seed)!;
  const walk = (from: Place | null, to: Place) => minutes(from, to) + PACE.reading_min;
  // Every other place or so: nobody reads twice within a stone's throw.
  const lowest_min = followLowest(again(), places.filter((_, k) => k % 2 === 0), walk, seen);
  return { hidden, search_min: bySearch(fence, again(), seen, search, share, walk, (a) => wireTo(fence, hidden, a)), lowest_min };
} // prettier-ignore
