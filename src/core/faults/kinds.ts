/** What is wrong, if anything: the kinds of fault weighed against one another by what was read (Bayes). */
import { sum } from '../base/numbers.js';
import type { Meter } from './fence.js';
import { geometric } from './fence.js';
import { logChance, posteriorOf, spread, type FaultReading, type Posterior } from './posterior.js';
import type { Searched } from './property.js';

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
/** Off by more than so many spreads is no chance. */
const ODD = 3.5;

/** Weighs kinds on one fence; what each would read is worked out once. */
export function weigher(fence: Searched): (readings: readonly FaultReading[], prior: KindPrior) => Weighed {
  const { fences, noise, quiet } = fence;
  const models = {
    growth: FACTORS.growth.map((k) => quiet({ growth: k })!),
    earth: FACTORS.earth.map((k) => quiet({ earth_ohm: fence.earth_ohm * k })!),
    unit: FACTORS.unit.map((k) => (m: Meter) => k * fences[0]!.healthy(m)),
  };
  return (readings, prior) => {
    const logOf = (mu: (m: Meter) => number) => sum(readings.map((r) => logChance(r.meter, r.value, mu(r.meter), noise)));
    const averaged = (logs: readonly number[]) => {
      const most = Math.max(...logs);
      return most + Math.log(sum(logs.map((l) => Math.exp(l - most))) / logs.length);
    };
    const local = prior.leak + prior.joint + prior.break;
    const where = posteriorOf(fences, readings, noise, { p_leak: prior.leak / local, p_joint: prior.joint / local, p_broken: prior.break / local });
    const none = fences.map((f) => logOf((m) => f.healthy(m)));
    const logs = { growth: models.growth.map(logOf), earth: models.earth.map(logOf), unit: models.unit.map(logOf) };
    const evidence = { none: averaged(none), growth: averaged(logs.growth), earth: averaged(logs.earth), unit: averaged(logs.unit) };
    const most = Math.max(where.evidence, ...Object.values(evidence));
    const weight = (kind: keyof typeof evidence) => prior[kind] * Math.exp(evidence[kind] - most);
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
