/** The season that decides, and how well a network does in it. */
import { seasonsOf, type SeasonId } from '../plan/catalogue.js';
import { leastOfSeasons } from '../power/deciding.js';
import { DESIGNED } from '../power/design.js';
import { voltsOf, type Volts, type VoltsOptions, type Worst } from '../power/volts.js';
import type { Network } from '../power/wired.js';

/** Least volts against the aim, in one season. */
export interface Score {
  readonly season: SeasonId;
  readonly share: number;
  readonly worst: Worst;
}

export const scoreOf = (volts: Volts | null): Score | null =>
  volts?.worst
    ? { season: volts.season, share: volts.worst.v_V / volts.worst.aim_V, worst: volts.worst }
    : null;

/**
 * Of the seasons that a unit is chosen for, the one that asks most, with something thought of beside the plan;
 * null: nothing is fed.
 */
export function decidingSeason(net: Network, options: VoltsOptions = {}): Score | null {
  const seasons = seasonsOf(net.plan, net.cat).filter((s) => DESIGNED.includes(s));
  return leastOfSeasons(seasons, (season, coarse) =>
    scoreWith(net, season, { ...options, coarse }),
  );
}

/** How a network does in a season with something thought of beside it. */
export const scoreWith = (
  net: Network,
  season: SeasonId,
  options: VoltsOptions = {},
): Score | null => {
  const volts = voltsOf(net, season, options);
  const score = scoreOf(volts);
  if (!score || !volts) return score;
  // What is thought of beside the fence must keep the aim of the line that it is like, as well as what is there.
  return (options.links ?? []).reduce((worst, { like }, k) => {
    const v_V = volts.links[k] ?? null;
    const aim_V = net.wired[like]!.aim_V;
    return v_V !== null && v_V / aim_V < worst.share ? { ...worst, share: v_V / aim_V } : worst;
  }, score);
};
