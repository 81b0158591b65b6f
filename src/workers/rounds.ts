/** Questions of Rounds and Faults: what a place should read, what a round says, which figures readings show. */
import { ON_A_ROUND, ON_A_SEARCH, weigher, type FaultKind, type Weighed } from '../core/faults/kinds.js'; // prettier-ignore
import { foundBy, MAY_BE, nextFrom, placesOf } from '../core/faults/hunt.js';
import { onFoot } from '../core/faults/onFoot.js';
import {
  placeOf,
  searchedOf,
  touchedAt,
  voltsAlong,
  type Searched,
} from '../core/faults/property.js';
import { metresFrom } from '../core/faults/walk.js';
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
import { asFaultReading, stretchesOf, type LineStretch } from '../core/rounds/verdict.js';

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

/** A stretch of a line, and how likely the fault lies in it. */
export interface Chance {
  readonly line: string;
  readonly from_m: number;
  readonly to_m: number;
  readonly p: number;
}
/** A place to go to, and what it takes and tells. */
export interface NextPlace extends Place {
  /** On foot and to read. */
  readonly minutes: number;
  /** How much less uncertain the place is then expected to be, as a share of what it is now. */
  readonly tells: number;
}
export interface Search extends Said {
  readonly chances: readonly Chance[];
  /** From where the fault is nearest on the average, and the chance that it is within `near_m` of it. */
  readonly best: (Place & { readonly near: number; readonly near_m: number }) | null;
  /** The best for each minute first. */
  readonly next: readonly NextPlace[];
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
const PACE = { metres_per_minute: 67, reading_min: 5 };
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
  const strandsOf = (net: Network) => ({ line }: Place) =>
    Math.max(1, net.wired[line]?.line.strands.filter((s) => s.duty === 'live').length ?? 1);

  const weighed = (asked: Asked) => {
    const own = ready(asked);
    if (!own?.fence || !own.weigh) return null;
    const { fence } = own;
    const taken = asked.readings.flatMap((r) => {
      const as = asFaultReading(fence, r, asked.share, strandsOf(fence.net));
      return as ? [{ r, as }] : [];
    });
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
      const { fences, sections, noise, net } = fence;
      const { cells } = fences[0]!;
      const found = foundBy(fences, sections, readings, { noise, prior: PRIOR, near_m: NEAR_M });
      const chances = cells.flatMap((c, k): Chance[] => {
        const [from, to] = [-0.5, 0.5].map((half) => placeOf(fence, { section: c.section, x_m: c.x_m + half * c.length_m }));
        return from && to ? [{ line: from.line, from_m: from.at_m, to_m: to.at_m, p: found.posterior.cells[k]! }] : [];
      });
      const start = (here && touchedAt(fence, here)) ?? { section: sections.at(-1)!.id, x_m: 0 };
      const spot = (on: { section: string; x_m: number }) => {
        const place = placeOf(fence, on);
        return place ? pointAt(net.wired[place.line]!.line.vertices, place.at_m) : { e: net.energiser.e, n: net.energiser.n };
      };
      const ground = groundNow();
      const walk = onFoot(Object.values(net.wired).map((l) => l.line.vertices), (p) => (ground ? heightAt(ground, p) : NaN));
      const along = metresFrom(sections, start);
      const from = spot(start);
      const places = placesOf(fences[0]!, sections).filter((p) => fence.pieces[p.section]);
      const told = nextFrom(fences, sections, found.posterior, start, { noise, pace: PACE, places, metres: (to) => walk(from, spot(to), along(to)) });
      const unsure = -found.posterior.cells.reduce((sum, p) => sum + (p > 0 ? p * Math.log(p) : 0), 0);
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
