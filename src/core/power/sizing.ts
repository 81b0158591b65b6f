/** Which unit: the smallest that keeps the aim with the reserve asked for, and every unit on the same fence. */
import { atOnce, type Steps } from '../base/steps.js';
import { seasonsOf, type SeasonId } from '../plan/catalogue.js';
import { DESIGNED } from './design.js';
import { earthOf } from './earthSide.js';
import { offeredUnits, plateOfUnit, unitOf, unitOfPlate, type Unit } from './unit.js';
import { pulseNet, type PulseNet } from './pulseNet.js';
import { voltsBy, type Volts } from './volts.js';
import { leastOfSeasons } from './deciding.js';
import type { Network } from './wired.js';

/** A unit of the catalogue on a fence. */
export interface Candidate {
  readonly model: string;
  readonly output_J: number;
  /** Least of worst volts over aim in the seasons that a unit is chosen for, and where that is. */
  readonly share: number;
  readonly season: SeasonId;
  readonly worst_V: number;
  readonly meets: boolean;
  /** May be proposed: sold, within the limit of the standard, of the supply that is there. */
  readonly offered: boolean;
}

/** Every unit of the catalogue on a fence, weakest first. */
export const candidatesOf = (net: Network): Candidate[] => atOnce(candidatesInSteps(net));

/** The same in steps, one for each that is tried. */
export function* candidatesInSteps(net: Network): Steps<Candidate[]> {
  const tries = tryUnits(net);
  const { supply } = plateOfUnit(net.energiser, net.cat);
  const proposed = new Set(offeredUnits(net.cat, supply).map(([model]) => model));
  const all = Object.entries(net.cat.energisers);
  const out: Candidate[] = [];
  for (const [k, [model, m]] of all.entries()) {
    const of = tries.of(unitOfPlate(m));
    if (of) out.push({ model, output_J: m.output_J, ...of, offered: proposed.has(model) });
    yield (k + 1) / all.length;
  }
  return out.sort((a, b) => a.output_J - b.output_J || a.model.localeCompare(b.model));
}

/**
 * The smallest unit of the same supply that keeps the aim with the reserve; null: none within the limit does.
 * @param own volts of the energiser's own unit, where they are at hand
 */
export function smallestOf(net: Network, own: readonly Volts[]): string | null {
  const tries = tryUnits(net, own);
  const { supply } = plateOfUnit(net.energiser, net.cat);
  const offered = offeredUnits(net.cat, supply);
  // A stronger unit of a kind does better; what ringing takes from that is looked at one by one afterwards.
  let [low, high] = [0, offered.length];
  while (low < high) {
    const mid = Math.floor((low + high) / 2);
    if (tries.meets(unitOfPlate(offered[mid]![1]))) high = mid;
    else low = mid + 1;
  }
  return offered[low]?.[0] ?? null;
}

/** Tries units on the same fence, the season that is likely to decide first. */
function tryUnits(net: Network, own: readonly Volts[] = []) {
  const seasons = seasonsOf(net.plan, net.cat).filter((s) => DESIGNED.includes(s));
  const earths = new Map(seasons.map((s) => [s, earthOf(net, s)]));
  const least = (v: Volts | undefined) => (v?.worst ? v.worst.v_V / v.worst.aim_V : Infinity);
  const order = [...seasons].sort(
    (a, b) => least(own.find((v) => v.season === a)) - least(own.find((v) => v.season === b)),
  );
  const goal = 1 + net.plan.sizing.reserve;
  const ownUnit = unitOf(net.energiser, net.cat);
  const pulses = new Map<SeasonId, PulseNet | null>();
  const volts = (unit: Unit, season: SeasonId, coarse = 1): Volts | null => {
    const known = unit === ownUnit ? own.find((v) => v.season === season) : undefined;
    if (known) return known;
    let pulse = pulses.get(season);
    if (pulse === undefined) pulses.set(season, (pulse = pulseNet(net, season)));
    return pulse && voltsBy(net, season, pulse, { unit, earth_ohm: earths.get(season)!, coarse });
  };
  return {
    of(unit: Unit): Omit<Candidate, 'model' | 'output_J' | 'offered'> | null {
      const out = leastOfSeasons(seasons, (season, coarse) => {
        const worst = volts(unit, season, coarse)?.worst;
        return worst ? { share: worst.v_V / worst.aim_V, season, worst_V: worst.v_V } : null;
      });
      return out && { ...out, meets: out.share >= goal };
    },
    meets: (unit: Unit): boolean =>
      order.every((season) => {
        const worst = volts(unit, season)?.worst;
        return worst != null && worst.v_V / worst.aim_V >= goal;
      }),
  };
}
