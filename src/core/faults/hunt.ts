/** A search for a fault, reading by reading: how sure it is, and where to go next. */
import { sum } from '../base/numbers.js';
import type { Circuit, Section } from '../power/circuitTypes.js';
import type { Place } from '../power/pulseNet.js';
import type { LoadLinePlate } from '../power/loadLine.js';
import {
  faultFence,
  middle,
  timesOf,
  type FaultFence,
  type FaultGrid,
  type Meter,
} from './fence.js';
import { worthOf, type Stop, type Told } from './next.js';
import {
  posteriorOf,
  type FaultReading,
  type Noise,
  type Posterior,
  type Prior,
} from './posterior.js';
import { metresFrom, waysOf, type OnSection } from './walk.js';

/** Where a wire can be touched: volts there, and the amps that pass on towards the section's `to`. */
export interface Touch extends Stop {
  readonly at: OnSection;
  readonly metres: number;
}

export interface Pace {
  readonly metres_per_minute: number;
  /** To stop, touch the wire and read. */
  readonly reading_min: number;
}

export interface Found {
  readonly posterior: Posterior;
  /** The cell from which the fault is nearest on the average, by its place in the fence. */
  readonly best: number;
  /** Chance that the fault lies within `near_m` of it along the wires. */
  readonly near: number;
}

/** What can be read by touching the wire at a place of a section: one of its ends, or the middle of a cell. */
export function metersAt({ section, x_m }: OnSection, sections: readonly Section[]): Meter[] {
  const own = sections.find((s) => s.id === section)!;
  const location = x_m === 0 ? own.from : x_m === own.length_m ? own.to : middle({ section, x_m });
  const at = x_m === 0 ? 'from' : x_m === own.length_m ? 'to' : x_m;
  return [{ quantity: 'voltage', location }, { quantity: 'current', section, at }];
} // prettier-ignore

/** Every place that is a cell's middle or a section's end. */
export const placesOf = (fence: FaultFence, sections: readonly Section[]): OnSection[] => [
  ...sections.flatMap((s) => [{ section: s.id, x_m: 0 }, { section: s.id, x_m: s.length_m }]),
  ...fence.cells.map(({ section, x_m }) => ({ section, x_m })),
]; // prettier-ignore

/** By how much leakage and resistance of the day may be other than thought, as factors: nobody knows them to better. */
export const MAY_BE = [[1, 1], [0.77, 0.92], [1.3, 0.92], [0.77, 1.09], [1.3, 1.09]] as const; // prettier-ignore

/** The fence as it may be: with more and less leakage and resistance. What is read tells which. */
export const fencesAsTheyMayBe = (circuit: Circuit, plate: LoadLinePlate, grid: FaultGrid): FaultFence[] =>
  MAY_BE.map(([g, r]) => faultFence(timesOf(circuit, g, r), plate, grid)); // prettier-ignore

/** So many of the likeliest cells are tried as the place to begin at. */
const TRIED = 12;
/** Farther is as bad as this, m: one does not look so far. */
const FAR_M = 1000;

/** What is known of the place by now. */
export function foundBy(
  fences: readonly FaultFence[],
  sections: readonly Section[],
  readings: readonly FaultReading[],
  { noise, prior, near_m }: { readonly noise: Noise; readonly prior: Prior; readonly near_m: number },
): Found {
  const posterior = posteriorOf(fences, readings, noise, prior);
  const { cells } = fences[0]!;
  const p = posterior.cells;
  const ways = waysOf(sections);
  // From where the fault is not far on the average: the likeliest cell may lie at the rim of all that are likely.
  const likeliest = cells.map((_, k) => k).sort((a, b) => p[b]! - p[a]!).slice(0, TRIED); // prettier-ignore
  const tried = likeliest.map((k) => {
    const far = cells.map(ways(cells[k]!));
    return { k, far, off: sum(far.map((d, j) => p[j]! * Math.min(d, FAR_M))) };
  });
  const best = tried.reduce((a, b) => (b.off < a.off ? b : a));
  const near = sum(cells.map((c, j) => (best.far[j]! + c.length_m / 2 <= near_m ? p[j]! : 0)));
  return { posterior, best: best.k, near };
} // prettier-ignore

/** So many places are asked about at once; about so many of the best it is asked more closely. */
const PLACES = 120;
const CLOSER = 3;

export interface Going {
  readonly noise: Noise;
  readonly pace: Pace;
  /** Where the wire can be touched; everywhere, where nothing is said. */
  readonly places?: readonly OnSection[];
  /** Switches that stand open there. */
  readonly open?: readonly Place[];
  /** Metres on foot to a place; along the wires, where nothing is said. */
  readonly metres?: (to: OnSection) => number;
}

/** Where to go next from a place, best for each minute first. */
export function nextFrom(
  fences: readonly FaultFence[],
  sections: readonly Section[],
  now: Posterior,
  here: OnSection,
  { noise, pace, open, places = placesOf(fences[0]!, sections), metres: far = metresFrom(sections, here) }: Going,
): Told<Touch>[] {
  const stopAt = (at: OnSection): Touch[] => {
    const metres = far(at);
    return Number.isFinite(metres) ? [{ at, metres, meters: metersAt(at, sections).map((m) => (open?.length ? { ...m, open } : m)), minutes: metres / pace.metres_per_minute + pace.reading_min }] : []; // prettier-ignore
  };
  const told = (some: readonly OnSection[]) => worthOf(fences, now, some.flatMap(stopAt), noise);
  const every = Math.ceil(places.length / PLACES);
  if (every === 1) return told(places);
  // A large farm first roughly, then all that lies about the best places.
  const rough = told(places.filter((_, k) => k % every === 0));
  const about = new Set(rough.slice(0, CLOSER).map((t) => t.stop.at));
  const closer = places.filter((_, k) => {
    for (let j = k - every + 1; j < k + every; j++) if (k % every !== 0 && about.has(places[j]!)) return true;
    return false;
  });
  return [...told(closer), ...rough].sort((a, b) => b.gain / b.stop.minutes - a.gain / a.stop.minutes);
} // prettier-ignore
