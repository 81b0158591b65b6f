/** What is wrong, if anything: the kinds of fault weighed against one another by what was read (Bayes). */
import { sum } from '../base/numbers.js';
import type { Meter } from './fence.js';
import { geometric } from './fence.js';
import { chancesOf, posteriorOf, spread, type FaultReading, type Posterior } from './posterior.js';
import type { Searched } from './searched.js';

/** `growth`: all that grows leaks more; `earth`: the unit's earth has become bad; `unit`: it gives less than its plate. */
export const FAULT_KINDS = ['none', 'growth', 'earth', 'unit', 'leak', 'joint', 'break'] as const;
export type FaultKind = (typeof FAULT_KINDS)[number];

/** Chances of the kinds before anything was read. */
export type KindPrior = Readonly<Record<FaultKind, number>>;
/** On a round nothing is wrong as a rule [assumed]. */
export const ON_A_ROUND: KindPrior = { none: 0.55, growth: 0.14, earth: 0.05, unit: 0.04, leak: 0.14, joint: 0.03, break: 0.05 }; // prettier-ignore
/** Somebody looks for a fault because there is one [assumed]. */
export const ON_A_SEARCH: KindPrior = { none: 0.02, growth: 0.12, earth: 0.08, unit: 0.06, leak: 0.5, joint: 0.07, break: 0.15 }; // prettier-ignore

export interface Weighed {
  readonly kinds: Readonly<Record<FaultKind, number>>;
  readonly likeliest: FaultKind;
  /** Times so much: leakage, earth or the unit's volts, were it that; the middle of what fits. */
  readonly factor: Readonly<Record<'growth' | 'earth' | 'unit', number>>;
  /** Where it lies, were it a leak, a joint or a break. */
  readonly where: Posterior;
  /** Squares of what the likeliest explanation leaves over, each by its spread, and how many readings there are. */
  readonly misfit: number;
  readonly readings: number;
  /** Readings that the likeliest explanation is far from, by their place. */
  readonly odd: readonly number[];
}

/** Factors that are tried of each. */
const FACTORS = {
  growth: geometric(1.6, 12, 7),
  earth: geometric(2, 60, 6),
  unit: [0.9, 0.8, 0.7, 0.6, 0.5, 0.4, 0.3, 0.2],
} as const;
/** Places in those lists that are simulated: what is read runs so smoothly over the logarithm of the factor that a cubic through them gives the rest. */
const SIMULATED = { growth: [0, 2, 4, 6], earth: [0, 2, 3, 5] } as const;

/** What is read at each factor, of which some are worked out and the others lie between them (Lagrange). */
function between<T>(factors: readonly number[], at: readonly number[], of: (factor: number) => (about: T) => number): ((about: T) => number)[] {
  const x = factors.map(Math.log);
  const known = at.map((i) => of(factors[i]!));
  return factors.map((_, i) => {
    if (at.includes(i)) return known[at.indexOf(i)]!;
    const weights = at.map((j) => at.reduce((w, k) => (k === j ? w : (w * (x[i]! - x[k]!)) / (x[j]! - x[k]!)), 1));
    return (about) => known.reduce((sum, read, j) => sum + weights[j]! * read(about), 0);
  });
} // prettier-ignore

/** Growth that leaks many times as much is rarer than a little more of it, as one over its square; a bad earth as one over it [assumed]. */
const RARER = { growth: 2, earth: 1, unit: 0 } as const;
/**
 * By how much growth may have changed what leaks since the fence was read before on a day like that, a spread of the
 * logarithm: grass comes slowly, a branch at once [assumed].
 */
const growsIn = (days: number): number => Math.min(0.9, 0.1 + 0.02 * days);

/** Off by more than so many spreads is no chance. */
const ODD = 3.5;

/**
 * Weighs kinds on one fence; what each would read is worked out once. The answer takes the days since the fence was read
 * before and known by that; null: nobody has.
 */
export function weigher(fence: Searched): (readings: readonly FaultReading[], prior: KindPrior, since_d?: number | null) => Weighed {
  const { fences, noise, quiet } = fence;
  const models = {
    growth: between(FACTORS.growth, SIMULATED.growth, (k) => quiet({ growth: k })!),
    earth: between(FACTORS.earth, SIMULATED.earth, (k) => quiet({ earth_ohm: fence.earth_ohm * k })!),
    unit: FACTORS.unit.map((k) => (m: Meter) => k * fences[0]!.healthy(m)),
  };
  return (readings, prior, since_d = null) => {
    const chances = readings.map(({ meter, value }) => ({ meter, of: chancesOf(meter, value, noise) }));
    const logOf = (mu: (m: Meter) => number) => sum(chances.map(({ meter, of }) => of(mu(meter))));
    const averaged = (logs: readonly number[], weights: readonly number[] = logs.map(() => 1)) => {
      const most = Math.max(...logs);
      return most + Math.log(sum(logs.map((l, k) => weights[k]! * Math.exp(l - most))) / sum(weights));
    };
    const local = prior.leak + prior.joint + prior.break;
    const where = posteriorOf(fences, readings, noise, { p_leak: prior.leak / local, p_joint: prior.joint / local, p_broken: prior.break / local });
    const none = fences.map((f) => logOf((m) => f.healthy(m)));
    const logs = { growth: models.growth.map(logOf), earth: models.earth.map(logOf), unit: models.unit.map(logOf) };
    const of = (kind: 'growth' | 'earth' | 'unit') => averaged(logs[kind], FACTORS[kind].map((k) => k ** -RARER[kind]));
    const grown = since_d === null ? null : FACTORS.growth.map((k) => Math.exp(-((Math.log(k) / growsIn(since_d)) ** 2) / 2));
    const known = grown && prior.growth * Math.min(1, 2 * Math.max(...grown));
    const evidence = { none: averaged(none), growth: grown ? averaged(logs.growth, grown) : of('growth'), earth: of('earth'), unit: of('unit') };
    const most = Math.max(where.evidence, ...Object.values(evidence));
    const weight = (kind: keyof typeof evidence) => (kind === 'growth' && known !== null ? known : prior[kind]) * Math.exp(evidence[kind] - most);
    const placed = local * Math.exp(where.evidence - most);
    const raw: Record<FaultKind, number> = {
      none: weight('none'),
      growth: weight('growth'),
      earth: weight('earth'),
      unit: weight('unit'),
      leak: placed * (1 - where.broken - where.joint),
      joint: placed * where.joint,
      break: placed * where.broken,
    };
    const total = sum(Object.values(raw));
    const kinds = Object.fromEntries(FAULT_KINDS.map((k) => [k, raw[k] / total])) as Record<FaultKind, number>;
    const likeliest = FAULT_KINDS.reduce((a, b) => (kinds[b] > kinds[a] ? b : a));
    const best = <T>(of: readonly T[], l: readonly number[]): T => of[l.indexOf(Math.max(...l))]!;
    const explained = likeliest === 'none' ? (m: Meter) => best(fences, none).healthy(m)
      : likeliest === 'growth' || likeliest === 'earth' || likeliest === 'unit' ? best(models[likeliest], logs[likeliest])
      : null;
    const left = readings.map((r, i) => {
      const mu = explained ? explained(r.meter) : where.expected[i]!;
      return (r.value - mu) / spread(r.meter, mu, noise);
    });
    return {
      kinds,
      likeliest,
      factor: { growth: best(FACTORS.growth, logs.growth), earth: best(FACTORS.earth, logs.earth), unit: best(FACTORS.unit, logs.unit) },
      where,
      misfit: sum(left.map((x) => x * x)),
      readings: readings.length,
      odd: left.flatMap((x, i) => (Math.abs(x) > ODD ? [i] : [])),
    };
  };
} // prettier-ignore
