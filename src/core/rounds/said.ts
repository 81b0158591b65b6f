/** What the readings of one day say of a unit's fence, against its plan and against what it read before on days like that. */
import { within, type Steps } from '../base/steps.js';
import { ON_A_ROUND, ON_A_SEARCH, weigher, type FaultKind, type Weighed } from '../faults/kinds.js';
import type { FaultReading } from '../faults/posterior.js';
import { searchedInSteps } from '../faults/property.js';
import type { Searched } from '../faults/searched.js';
import { figure, type SeasonId } from '../plan/catalogue.js';
import { earthOf } from '../power/earthSide.js';
import type { Place } from '../power/pulseNet.js';
import type { Network } from '../power/wired.js';
import { fitInSteps, type Usable, type UsualSpread } from './fitting.js';
import type { Logged } from './logged.js';
import { asFaultReadings, stretchesOf, type LineStretch } from './verdict.js';

/** A unit's fence on one day: what was read, and what it read before on days like that. */
export interface Asked {
  readonly unit: string;
  readonly season: SeasonId;
  readonly readings: readonly Logged[];
  readonly before: readonly Usable[];
  /** Share of the earth's volts that a probe beside the rods shows. */
  readonly share: number;
  /** Somebody looks for a fault because there is one. */
  readonly searching: boolean;
  /** Switches that stand open now. */
  readonly open?: readonly Place[];
}

export interface Said {
  readonly kinds: Readonly<Record<FaultKind, number>>;
  readonly likeliest: FaultKind;
  readonly factor: Weighed['factor'];
  /** Where it lies, were it a fault of one place: stretches that hold it with four chances of five. */
  readonly stretches: readonly LineStretch[];
  readonly leak_ohm: number | null;
  /** Ids of readings that the likeliest explanation is far from. */
  readonly odd: readonly string[];
  /** Readings that were weighed, and earlier ones that the fence was known by; 0: by its plan alone. */
  readonly count: number;
  readonly knownBy: number;
  /** Even the likeliest leaves more over than chance does: there may be several. */
  readonly several: boolean;
}

/** Beyond so many squares of spreads a reading on the average, one fault explains nothing well. */
const SEVERAL = 4;
/** Of earlier readings so many at least are wanted before the fence is known by them, and at most the newest so many. */
const KNOWN_BY = { least: 8, most: 150 };

/** A fence made ready for the questions of a day. */
export interface Ready {
  readonly fence: Searched | null;
  readonly weigh: ReturnType<typeof weigher> | null;
  readonly knownBy: number;
}

/** So many live strands share the current at a place. */
export const strandsOf = (net: Network) => ({ line }: Place): number =>
  Math.max(1, net.wired[line]?.line.strands.filter((s) => s.duty === 'live').length ?? 1); // prettier-ignore

/** How far a property usually is off its plan. */
export const usualOf = ({ cat }: Pick<Network, 'cat'>): UsualSpread => ({
  leakage: figure(cat, 'sure.leakage'),
  soil: figure(cat, 'sure.soil'),
  resistance: figure(cat, 'sure.resistance'),
});

/** What a fence is made ready by. */
export type Days = Pick<Asked, 'season' | 'before' | 'share'>;

/** Days like the one that is asked about, of late. */
const likeDays = ({ season, before }: Days) =>
  before.filter((u) => u.season === season).slice(-KNOWN_BY.most);

/** The same for the same network: the same fence, made ready. */
export const readyKey = (days: Days): string =>
  JSON.stringify([
    days.season,
    days.share,
    likeDays(days).map(({ reading: r }) => [r.id, r.value]),
  ]);

/** Makes a fence ready, in steps: the fit to earlier days, then what each fault would read. */
export function* readyInSteps(net: Network, days: Days): Steps<Ready> {
  const { season, share } = days;
  const like = likeDays(days);
  const fit = like.length >= KNOWN_BY.least ? yield* within(fitInSteps(net, like, usualOf(net), share), 0, 0.3) : null;
  const known = fit ? { growth: fit.found.values[0]!, earth_ohm: earthOf(net, season) * fit.found.values[1]! } : {};
  const fence = yield* within(searchedInSteps(net, season, { known }), 0.3, 0.8);
  return { fence, weigh: fence && weigher(fence), knownBy: fit ? fit.used.length : 0 };
} // prettier-ignore

/** A day's readings, weighed. */
export interface OfADay {
  readonly fence: Searched;
  readonly said: Said;
  readonly readings: readonly FaultReading[];
}

/** Null: nothing of it rests on the fence. */
export function weighed({ fence, weigh, knownBy }: Ready, asked: Asked): OfADay | null {
  if (!fence || !weigh) return null;
  const taken = asFaultReadings(fence, asked.readings, asked.share, strandsOf(fence.net));
  if (taken.length === 0) return null;
  const readings = taken.map((t) => t.as);
  const w = weigh(readings, asked.searching ? ON_A_SEARCH : ON_A_ROUND, knownBy > 0 ? daysSince(asked) : null);
  const said: Said = {
    kinds: w.kinds,
    likeliest: w.likeliest,
    factor: w.factor,
    stretches: stretchesOf(fence, w, 0.8),
    leak_ohm: w.where.leak_ohm,
    odd: w.odd.map((i) => taken[i]!.r.id),
    count: taken.length,
    knownBy,
    several: w.misfit / taken.length > SEVERAL,
  };
  return { fence, said, readings };
} // prettier-ignore

/** Days between what was read and the last time before. */
function daysSince({ readings, before }: Asked): number {
  const times = (list: readonly Logged[]) => list.map((r) => Date.parse(r.time)).filter(Number.isFinite);
  const [now, was] = [times(readings), times(before.map((u) => u.reading))];
  return now.length && was.length ? Math.max(0, (Math.min(...now) - Math.max(...was)) / 86_400_000) : 7;
} // prettier-ignore
