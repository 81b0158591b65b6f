/**
 * Leakage by season, earth and wire of a property fitted to what was read on it. The pulse is simulated about the best
 * guess, each figure a little up and down; between them volts are read off a parabola of their logarithms, and it is done
 * again about what that gives.
 */
import { atOnce, type Steps } from '../base/steps.js';
import { calibrate, type Calibrated } from '../faults/calibrate.js';
import { voltsAlong } from '../faults/property.js';
import type { SeasonId } from '../plan/catalogue.js';
import { earthOf } from '../power/earthSide.js';
import { COARSE } from '../power/deciding.js';
import { grownTo, pulseNet } from '../power/pulseNet.js';
import { voltsBy, type Volts } from '../power/volts.js';
import type { Network } from '../power/wired.js';
import type { Logged } from './logged.js';

/** A reading, and the season that its day was like. */
export interface Usable {
  readonly reading: Logged;
  readonly season: SeasonId;
}

export interface Fitting {
  readonly seasons: readonly SeasonId[];
  /** Factors on what the plan reckons with: leakage of each of the seasons, then earth, then wire. */
  readonly found: Calibrated;
  /** Readings that were used, in the order of `found.expected`; `found.outliers` are places in it. */
  readonly used: readonly Usable[];
}

/** How far a property usually is off what the plan reckons with, spreads of the logarithm: leakage, earth, wire. */
export interface UsualSpread {
  readonly leakage: number;
  readonly soil: number;
  readonly resistance: number;
}

/** A meter is off by this share, V and its floor; and the model by this share at any one place. */
const VOLTS = { rel: Math.hypot(0.03, 0.04), floor: 60 };
/** A probe in the ground is off by more. */
const EARTH = { rel: 0.25, floor: 30 };
const ROUNDS = 3;
/** A round that moved no figure by more than this, usual spreads, was the last. */
const NEAR = 0.05;
/** Of all readings at most so many, the newest: the rest says the same. */
const MOST = 400;

/**
 * @param share of the earth terminal's volts that a probe beside the rods shows
 * @returns null where nothing that was read rests on the fence
 */
export const fitReadings = (...asked: Parameters<typeof fitInSteps>): Fitting | null =>
  atOnce(fitInSteps(...asked));

/** The same in steps. */
export function* fitInSteps(net: Network, read: readonly Usable[], usual: UsualSpread, share: number): Steps<Fitting | null> {
  const used = read
    .filter(({ reading: r }) => r.kind === 'earth_volts' || (r.kind === 'volts' && (r.line === null || net.ids.includes(r.line))))
    .slice(-MOST);
  const seasons = [...new Set(used.map((u) => u.season))].sort();
  if (used.length === 0) return null;
  const spreads = [...seasons.map(() => usual.leakage), usual.soil, usual.resistance];
  const unknowns = spreads.map((spread) => ({ usual: 1, spread }));
  const measured = used.map(({ reading: r }) => ({ value: r.value, ...(r.kind === 'earth_volts' ? EARTH : VOLTS) }));
  const [earth, wire] = [seasons.length, seasons.length + 1];
  const earths = new Map(seasons.map((s) => [s, earthOf(net, s)]));

  const [bare, grown] = [0, 1].map((growth) => new Map(seasons.map((s) => [s, pulseNet(net, s, { growth })])));
  const logsAt = (season: SeasonId, values: readonly number[], coarse = 1): number[] | null => {
    const k = seasons.indexOf(season);
    const [without, with_] = [bare!.get(season), grown!.get(season)];
    if (!without || !with_) return null;
    const pulse = grownTo(without, with_, { growth: values[k]!, l: 1, r: values[wire]! });
    const volts = voltsBy(net, season, pulse, { earth_ohm: earths.get(season)! * values[earth]!, coarse });
    return used.map((u) => (u.season === season ? Math.log(Math.max(1, readingOf(volts, u.reading, share))) : 0));
  };

  let found: Calibrated | null = null;
  for (let round = 0; round < ROUNDS; round++) {
    const about: readonly number[] = found ? found.values : unknowns.map(() => 1);
    // Half a usual spread up and down; closer once the guess is good.
    const steps = spreads.map((s) => s * (round === 0 ? 0.8 : 0.4));
    const parabolas: { season: SeasonId; at: number[]; own: { j: number; up: number[]; down: number[] }[] }[] = [];
    for (const [k, season] of seasons.entries()) {
      const at = logsAt(season, about);
      // Slope and bend of it are those of coarse pulses: what they are off is off everywhere alike.
      const coarse = logsAt(season, about, COARSE);
      if (!at || !coarse) return null;
      const own = [k, earth, wire].map((j) => {
        const moved = (way: number) => logsAt(season, about.map((v, i) => (i === j ? v * Math.exp(way * steps[j]!) : v)), COARSE)!.map((l, i) => at[i]! + l - coarse[i]!);
        return { j, up: moved(1), down: moved(-1) };
      });
      parabolas.push({ season, at, own });
      yield (round + (k + 1) / seasons.length) / ROUNDS;
    }
    // Of each reading what its season's pulse gives, and slope and bend for each figure; a row of numbers each.
    const rows = used.map(({ season }, i) => {
      const { at, own } = parabolas[seasons.indexOf(season)]!;
      const bends = own.map(({ j, up, down }) => ({ j, a: (up[i]! - down[i]!) / 2, b: (up[i]! + down[i]!) / 2 - at[i]! }));
      return { at: at[i]!, bends };
    });
    const expected = (values: readonly number[]): number[] => {
      const xs = values.map((v, j) => Math.log(v / about[j]!) / steps[j]!);
      return rows.map(({ at, bends }) => {
        let log = at;
        for (const { j, a, b } of bends) {
          // Beyond the steps straight on: a parabola turns round there.
          const held = Math.max(-1.5, Math.min(1.5, xs[j]!));
          log += a * held + b * held * held + (xs[j]! - held) * (a + 2 * b * held);
        }
        return Math.exp(log);
      });
    };
    found = calibrate(unknowns, expected, measured);
    const moved = found.values.map((v, j) => Math.abs(Math.log(v / about[j]!)) / spreads[j]!);
    // About there already: the same pulses once more would say the same.
    if (round > 0 && Math.max(...moved) < NEAR) break;
  }
  return { seasons, found: found!, used };
} // prettier-ignore

/** What a pulse shows where a reading was taken. */
const readingOf = (volts: Volts, r: Logged, share: number): number =>
  r.kind === 'earth_volts' ? share * volts.out_A * volts.earth_ohm
    : r.line === null ? volts.out_V
    : (voltsAlong(volts, { line: r.line, at_m: r.at_m ?? 0 }) ?? 0); // prettier-ignore

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

/** What was fitted, by name. */
export function figuresOf({ seasons, found: of, used }: Fitting): FittedProperty {
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
}
