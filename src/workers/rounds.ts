/** Questions of Rounds and Faults: what a place should read, what a round says, where to go, which figures readings show. */
import { atOnce, type Steps } from '../core/base/steps.js';
import { hide, type Hunt, type Level } from '../core/faults/practice.js';
import { touchedAt, type Searched } from '../core/faults/searched.js';
import type { SeasonId } from '../core/plan/catalogue.js';
import type { Place } from '../core/power/pulseNet.js';
import type { Network } from '../core/power/wired.js';
import { bandsOf, type Band } from '../core/rounds/bands.js';
import { figuresOf, fitInSteps, type FittedProperty, type Usable } from '../core/rounds/fitting.js';
import type { TestPoint } from '../core/rounds/points.js';
import { revealOf, seenFrom, type Revealed } from '../core/rounds/reckoning.js';
import {
  readyInSteps,
  readyKey,
  strandsOf,
  usualOf,
  weighed,
  type Asked,
  type Days,
  type OfADay,
  type Ready,
  type Said,
} from '../core/rounds/said.js';
import {
  minutesOn,
  nextOf,
  PACE,
  searchOf,
  type NextPlace,
  type Search,
} from '../core/rounds/search.js';
import type { Ground } from '../core/terrain/ground.js';

interface Making {
  readonly key: string;
  readonly steps: Steps<Ready>;
  made: Ready | null;
}

interface Hunting {
  readonly unit: string;
  readonly season: SeasonId;
  readonly seed: number;
  readonly fence: Searched;
  readonly hunt: Hunt;
}

/** @param netOf the network of a unit as the worker has it now; null: there is none */
export function roundQuestions(netOf: (unit: string) => Network | null, groundNow: () => Ground | null = () => null) {
  /** The last that was made for each network, or is being made: the next question is mostly about the same days. */
  const making = new WeakMap<Network, Making>();
  function* ready(unit: string, days: Days): Steps<Ready | null> {
    const net = netOf(unit);
    if (!net) return null;
    const key = readyKey(days);
    let own = making.get(net);
    if (own?.key !== key) making.set(net, (own = { key, steps: readyInSteps(net, days), made: null }));
    try {
      // Another question that was stopped on its way there may have left it half done.
      return (own.made ??= yield* own.steps);
    } catch (error) {
      making.delete(net);
      throw error;
    }
  }
  /** What was weighed last: where it lies and where to go are two questions of one day. */
  let last: { readonly of: Ready; readonly key: string; readonly day: OfADay | null } | null = null;
  function* weigh(asked: Asked): Steps<OfADay | null> {
    const of = yield* ready(asked.unit, asked);
    if (!of) return null;
    yield 0.9;
    const key = JSON.stringify([asked.readings, asked.searching, asked.open, asked.before.at(-1)?.reading.id]);
    if (last?.of !== of || last.key !== key) last = { of, key, day: weighed(of, asked) };
    return last.day;
  }
  let hunting: Hunting | null = null;

  return {
    /** By key of point, what it may read in a season by the plan. */
    bands(unit: string, season: SeasonId, points: readonly TestPoint[]): Record<string, Band> {
      const net = netOf(unit);
      return net ? bandsOf(net, season, points) : {};
    },
    /** What the readings of one day say of a unit's fence. */
    *said(asked: Asked): Steps<Said | null> {
      return (yield* weigh(asked))?.said ?? null;
    },
    /** Where the fault lies by what was read. */
    *search(asked: Asked): Steps<Search | null> {
      const day = yield* weigh(asked);
      return day && searchOf(day);
    },
    /** Where to go and read next. @param here where one stands; null: at the unit */
    *next(asked: Asked, here: Place | null): Steps<NextPlace[] | null> {
      const day = yield* weigh(asked);
      return day && nextOf(day, asked, groundNow(), here);
    },
    /** Hides a fault in a unit's fence; false: there is nothing to hide it in. The same seed hides the same. */
    *hide(unit: string, season: SeasonId, level: Level, seed: number, share: number): Steps<boolean> {
      const same = hunting?.unit === unit && hunting.seed === seed && hunting.hunt.hidden.level === level;
      // As long as it is the same hunt its meter goes on; a new one would be off by the same again.
      if (same && hunting?.fence.net === netOf(unit)) return true;
      const fence = (yield* ready(unit, { season, before: [], share }))?.fence;
      const hunt = fence ? hide(fence, level, seed) : null;
      hunting = fence && hunt ? { unit, season, seed, fence, hunt } : null;
      return hunting !== null;
    },
    /** What the meter shows, and the minutes to get there from where one stood; null: that place is not on the fence. */
    probe(from: Place | null, to: Place | null, share: number): { volts: number; amps: number | null; earth: number | null; minutes: number } | null {
      if (!hunting) return null;
      const { fence, hunt } = hunting;
      if (to && !touchedAt(fence, to)) return null;
      const minutes = (to ? minutesOn(fence, groundNow(), from, to) : 0) + PACE.reading_min;
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
      return revealOf({
        fence,
        hidden: hunt.hidden,
        seed,
        share,
        minutes: (from, to) => minutesOn(fence, groundNow(), from, to),
        search: ({ readings, here }) => {
          const asked = { unit, season, before: [], share, searching: true, readings };
          const day = atOnce(weigh(asked));
          return day && { ...searchOf(day), next: nextOf(day, asked, groundNow(), here) };
        },
      });
    },
    /** Leakage by season, earth and wire as readings show them, as factors on what the plan reckons with. */
    *fitted(unit: string, read: readonly Usable[], share: number): Steps<FittedProperty | null> {
      const net = netOf(unit);
      const found = net && (yield* fitInSteps(net, read, usualOf(net), share));
      return found && figuresOf(found);
    },
  };
} // prettier-ignore
