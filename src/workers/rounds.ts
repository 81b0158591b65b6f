/** Questions of Rounds and Faults: what a place should read, what a round says, which figures readings show. */
import { ON_A_ROUND, ON_A_SEARCH, weigher, type FaultKind, type Weighed } from '../core/faults/kinds.js'; // prettier-ignore
import { foundBy, MAY_BE, nextFrom, placesOf } from '../core/faults/hunt.js';
import {
  followLowest,
  hide,
  IN_VAIN_MIN,
  SEEN_M,
  type Hidden,
  type Hunt,
  type Level,
} from '../core/faults/practice.js';
import { NAISMITH, onFoot } from '../core/faults/onFoot.js';
import { searchedOf, voltsAlong } from '../core/faults/property.js';
import { placeOf, touchedAt, type Searched } from '../core/faults/searched.js';
import { entropy } from '../core/faults/posterior.js';
import { metresFrom, type OnSection } from '../core/faults/walk.js';
import { pointAt } from '../core/plan/geometry.js';
import { heightAt, type Ground } from '../core/terrain/ground.js';
import { figure, type SeasonId } from '../core/plan/catalogue.js';
import { earthOf } from '../core/power/earthSide.js';
import type { Place } from '../core/power/pulseNet.js';
import { voltsOf } from '../core/power/volts.js';
import type { Network } from '../core/power/wired.js';
import { fitReadings, type Usable } from '../core/rounds/fitting.js';
import type { Logged } from '../core/rounds/logged.js';
import type { TestPoint } from '../core/rounds/points.js';
import { asFaultReadings, onLine, stretchesOf, type LineStretch } from '../core/rounds/verdict.js';

/** What the fence may read at a point, with leakage and wire as they may be, V. */
export interface Band {
  readonly low_V: number;
  readonly high_V: number;
}

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

/** A place to go to, and what it takes and tells. */
export interface NextPlace extends Place {
  /** On foot and to read. */
  readonly minutes: number;
  /** How much less uncertain the place is then expected to be, as a share of what it is now. */
  readonly tells: number;
}
export interface Search extends Said {
  /** By cell: together 1, but for what lies in cables. */
  readonly chances: readonly LineStretch[];
  /** From where the fault is nearest on the average, and the chance that it is within `near_m` of it. */
  readonly best: (Place & { readonly near: number; readonly near_m: number }) | null;
  /** The best for each minute first. */
  readonly next: readonly NextPlace[];
}

/** Where a practice fault was, and how long others would have taken, min; null: they would not have found it. */
export interface Revealed {
  readonly hidden: Hidden;
  readonly search_min: number | null;
  readonly lowest_min: number | null;
}

export interface FittedFigure {
  readonly name: 'leakage' | 'earth' | 'wire';
  readonly season: SeasonId | null;
  readonly value: number;
  readonly low90: number;
  readonly high90: number;
}
export interface FittedProperty {
  readonly figures: readonly FittedFigure[];
  readonly used: number;
  readonly outliers: readonly { readonly id: string; readonly expected_V: number }[];
}

/** Where it lies, were it a fault of one place, before anything was read [assumed]. */
const PRIOR = { p_leak: 0.7, p_joint: 0.1, p_broken: 0.2 };
/** So near one sees and hears it, m; a minute on foot and at the wire. */
const NEAR_M = 100;
const PACE = { metres_per_minute: NAISMITH.metres_per_minute, reading_min: 5 };
/** Places no further than this from one that was read are not offered, m. */
const READ_M = 40;
/** So many places are offered. */
const OFFERED = 3;

/** Beyond so many squares of spreads a reading on the average, one fault explains nothing well. */
const SEVERAL = 4;
/** Of earlier readings so many at least are wanted before the fence is known by them, and at most the newest so many. */
const KNOWN_BY = { least: 8, most: 150 };

interface Ready {
  readonly key: string;
  readonly fence: Searched | null;
  readonly weigh: ReturnType<typeof weigher> | null;
  readonly knownBy: number;
}

/** So many live strands share the current at a place. */
const strandsOf = (net: Network) => ({ line }: Place): number =>
  Math.max(1, net.wired[line]?.line.strands.filter((s) => s.duty === 'live').length ?? 1); // prettier-ignore

/** Minutes of the search itself on a hidden fault, until it is seen; null: not within so many places. */
function bySearch(
  fence: Searched,
  hunt: Hunt,
  seen: (at: Place) => boolean,
  search: (asked: { readings: readonly Logged[]; here: Place | null }) => Search | null,
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

/** Days between what was read and the last time before. */
function daysSince({ readings, before }: Asked): number {
  const times = (list: readonly Logged[]) => list.map((r) => Date.parse(r.time)).filter(Number.isFinite);
  const [now, was] = [times(readings), times(before.map((u) => u.reading))];
  return now.length && was.length ? Math.max(0, (Math.min(...now) - Math.max(...was)) / 86_400_000) : 7;
} // prettier-ignore

/** @param netOf the network of a unit as the worker has it now; null: there is none */
export function roundQuestions(netOf: (unit: string) => Network | null, groundNow: () => Ground | null = () => null) {
  const usual = ({ cat }: Network) => ({
    leakage: figure(cat, 'sure.leakage'),
    soil: figure(cat, 'sure.soil'),
    resistance: figure(cat, 'sure.resistance'),
  });
  /** The last that was made for each network: the next question is mostly about the same day. */
  const made = new WeakMap<Network, Ready>();
  const ready = ({ unit, season, before, share }: Pick<Asked, 'unit' | 'season' | 'before' | 'share'>): Ready | null => {
    const net = netOf(unit);
    if (!net) return null;
    const like = before.filter((u) => u.season === season).slice(-KNOWN_BY.most);
    const key = JSON.stringify([season, share, like.map(({ reading: r }) => [r.id, r.value])]);
    const was = made.get(net);
    if (was?.key === key) return was;
    const fit = like.length >= KNOWN_BY.least ? fitReadings(net, like, usual(net), share) : null;
    const known = fit ? { growth: fit.found.values[0]!, earth_ohm: earthOf(net, season) * fit.found.values[1]! } : {};
    const fence = searchedOf(net, season, { known });
    const now: Ready = { key, fence, weigh: fence && weigher(fence), knownBy: fit ? fit.used.length : 0 };
    made.set(net, now);
    return now;
  };
  /** Ways on foot over a fence's ground from a place; null: from the unit. */
  const footOn = (fence: Searched, here: Place | null) => {
    const { net, sections } = fence;
    const start = (here && touchedAt(fence, here)) ?? { section: sections.at(-1)!.id, x_m: 0 };
    const spot = (on: OnSection) => {
      const place = placeOf(fence, on);
      return place ? pointAt(net.wired[place.line]!.line.vertices, place.at_m) : { e: net.energiser.e, n: net.energiser.n };
    };
    const ground = groundNow();
    const metres = onFoot(Object.values(net.wired).map((l) => l.line.vertices), (p) => (ground ? heightAt(ground, p) : NaN));
    return { start, from: spot(start), spot, metres };
  };
  /** Minutes on foot from one place of a fence to another. */
  const minutesOn = (fence: Searched, from: Place | null, to: Place): number => {
    const foot = footOn(fence, from);
    const on = touchedAt(fence, to);
    return on ? foot.metres(foot.from, foot.spot(on), metresFrom(fence.sections, foot.start)(on)) / PACE.metres_per_minute : Infinity;
  };
  let hunting: { readonly unit: string; readonly season: SeasonId; readonly seed: number; readonly fence: Searched; readonly hunt: Hunt } | null = null;
  const wireTo = (fence: Searched, hidden: Hidden, at: Place): number => {
    const [a, b] = [touchedAt(fence, at), touchedAt(fence, hidden.at)];
    return a && b ? metresFrom(fence.sections, a)(b) : Infinity;
  };
  const seenFrom = (fence: Searched, hidden: Hidden) => (at: Place): boolean => wireTo(fence, hidden, at) <= SEEN_M;
  const weighed = (asked: Asked) => {
    const own = ready(asked);
    if (!own?.fence || !own.weigh) return null;
    const { fence } = own;
    const taken = asFaultReadings(fence, asked.readings, asked.share, strandsOf(fence.net));
    if (taken.length === 0) return null;
    const readings = taken.map((t) => t.as);
    const w = own.weigh(readings, asked.searching ? ON_A_SEARCH : ON_A_ROUND, own.knownBy > 0 ? daysSince(asked) : null);
    const said: Said = {
      kinds: w.kinds,
      likeliest: w.likeliest,
      factor: w.factor,
      stretches: stretchesOf(fence, w, 0.8),
      leak_ohm: w.where.leak_ohm,
      odd: w.odd.map((i) => taken[i]!.r.id),
      count: taken.length,
      knownBy: own.knownBy,
      several: w.misfit / taken.length > SEVERAL,
    };
    return { fence, said, readings };
  };

  return {
    /** By key of point, what it may read in a season by the plan. */
    bands(unit: string, season: SeasonId, points: readonly TestPoint[]): Record<string, Band> {
      const net = netOf(unit);
      if (!net) return {};
      const all = MAY_BE.flatMap(([growth, r]) => voltsOf(net, season, { growth, scale: { l: 1, r } }) ?? []);
      if (all.length === 0) return {};
      return Object.fromEntries(
        points.flatMap((p) => {
          if (p.kind !== 'volts' || p.unit !== unit) return [];
          const read = all.flatMap((v) => (p.line === null ? v.out_V : (voltsAlong(v, { line: p.line, at_m: p.at_m! }) ?? [])));
          return read.length ? [[p.key, { low_V: Math.min(...read), high_V: Math.max(...read) }]] : [];
        }),
      );
    },
    /** What the readings of one day say of a unit's fence. */
    said: (asked: Asked): Said | null => weighed(asked)?.said ?? null,
    /**
     * Where the fault lies by what was read, and where to go next.
     * @param here where one stands; null: at the unit
     */
    search(asked: Asked, here: Place | null): Search | null {
      const w = weighed(asked);
      if (!w) return null;
      const { fence, said, readings } = w;
      const { fences, sections, noise } = fence;
      const { cells } = fences[0]!;
      const { open = [] } = asked;
      const sameOpen = (of: readonly Place[] = []) => JSON.stringify(of) === JSON.stringify(open);
      const found = foundBy(fences, sections, readings, { noise, prior: PRIOR, near_m: NEAR_M });
      const chances = cells.flatMap(({ section, x_m, length_m }, k) =>
        onLine(fence, { section, from_m: x_m - length_m / 2, to_m: x_m + length_m / 2, p: found.posterior.cells[k]! }) ?? []);
      const { start, from, metres, spot } = footOn(fence, here);
      const along = metresFrom(sections, start);
      // What was read stays read: the same place once more repeats what the model is off there.
      const places = placesOf(fences[0]!, sections).filter((p) => {
        const at = placeOf(fence, p);
        return at !== null && fence.feeds(open, at) && !asked.readings.some((r) => sameOpen(r.open) && r.line === at.line && r.at_m !== null && Math.abs(r.at_m - at.at_m) < READ_M);
      });
      const told = nextFrom(fences, sections, found.posterior, start, { noise, pace: PACE, open, places, metres: (to) => metres(from, spot(to), along(to)) });
      const unsure = entropy(found.posterior.cells);
      const next: NextPlace[] = [];
      for (const { stop, gain } of told) {
        const at = placeOf(fence, stop.at);
        // Neighbours of one that is offered tell the same.
        if (!at || next.some((n) => n.line === at.line && Math.abs(n.at_m - at.at_m) < NEAR_M)) continue;
        next.push({ ...at, minutes: stop.minutes, tells: unsure > 0 ? Math.min(1, gain / unsure) : 0 });
        if (next.length === OFFERED) break;
      }
      const best = placeOf(fence, cells[found.best]!);
      return { ...said, chances, best: best && { ...best, near: found.near, near_m: NEAR_M }, next };
    },
    /** Hides a fault in a unit's fence; false: there is nothing to hide it in. The same seed hides the same. */
    hide(unit: string, season: SeasonId, level: Level, seed: number, share: number): boolean {
      const same = hunting?.unit === unit && hunting.seed === seed && hunting.hunt.hidden.level === level;
      // As long as it is the same hunt its meter goes on; a new one would be off by the same again.
      if (same && hunting?.fence.net === netOf(unit)) return true;
      const fence = ready({ unit, season, before: [], share })?.fence;
      const hunt = fence ? hide(fence, level, seed) : null;
      hunting = fence && hunt ? { unit, season, seed, fence, hunt } : null;
      return hunting !== null;
    },
    /** What the meter shows, and the minutes to get there from where one stood; null: that place is not on the fence. */
    probe(from: Place | null, to: Place | null, share: number): { volts: number; amps: number | null; earth: number | null; minutes: number } | null {
      if (!hunting) return null;
      const { fence, hunt } = hunting;
      if (to && !touchedAt(fence, to)) return null;
      const minutes = (to ? minutesOn(fence, from, to) : 0) + PACE.reading_min;
      const strands = to ? strandsOf(fence.net)(to) : 1;
      const { volts, amps } = hunt.probe(to);
      return { volts, amps: to && amps !== null ? Math.round((10 * amps) / strands) / 10 : null, earth: to ? null : hunt.earth(share), minutes };
    },
    /** Whether the fault is seen from a place. */
    seen: (at: Place): boolean => hunting !== null && seenFrom(hunting.fence, hunting.hunt.hidden)(at),
    /** Where it was; and what the search itself and one who follows the lowest volts would have taken, min; null: never. */
    reveal(share: number): Revealed | null {
      if (!hunting) return null;
      const { unit, season, seed, fence, hunt } = hunting;
      const places = placesOf(fence.fences[0]!, fence.sections).flatMap((p) => (fence.pieces[p.section] ? (placeOf(fence, p) ?? []) : []));
      const seen = seenFrom(fence, hunt.hidden);
      const again = hide(fence, hunt.hidden.level, seed)!;
      const walk = (from: Place | null, to: Place) => minutesOn(fence, from, to) + PACE.reading_min;
      // Every other place or so: nobody reads twice within a stone's throw.
      const lowest_min = followLowest(again, places.filter((_, k) => k % 2 === 0), walk, seen);
      return { hidden: hunt.hidden, search_min: bySearch(fence, hide(fence, hunt.hidden.level, seed)!, seen, (a) => this.search({ unit, season, before: [], share, searching: true, readings: a.readings }, a.here), share, walk, (a) => wireTo(fence, hunt.hidden, a)), lowest_min };
    },
    /** Leakage by season, earth and wire as readings show them, as factors on what the plan reckons with. */
    fitted(unit: string, read: readonly Usable[], share: number): FittedProperty | null {
      const net = netOf(unit);
      const found = net && fitReadings(net, read, usual(net), share);
      if (!found) return null;
      const { seasons, found: of, used } = found;
      const figureAt = (k: number): FittedFigure => ({
        name: k < seasons.length ? 'leakage' : k === seasons.length ? 'earth' : 'wire',
        season: seasons[k] ?? null,
        value: of.values[k]!,
        low90: of.low90[k]!,
        high90: of.high90[k]!,
      });
      return {
        figures: of.values.map((_, k) => figureAt(k)),
        used: used.length,
        outliers: of.outliers.map((i) => ({ id: used[i]!.reading.id, expected_V: of.expected[i]! })),
      };
    },
  };
} // prettier-ignore
