/** Which seasons a unit is chosen for, and which of them asks most. */
import type { SeasonId } from '../plan/catalogue.js';
import type { EnergiserReport } from '../report/schema.js';
import type { Volts } from './volts.js';

/** Not cut is what happens, and not what a unit is chosen for. */
export const DESIGNED: readonly SeasonId[] = ['dry', 'today', 'wet', 'frozen'];

/** Of the seasons that a unit is chosen for, the one with the least of volts against aim. */
export function leastOf(all: readonly Volts[]): EnergiserReport['least'] {
  let least: EnergiserReport['least'] = null;
  for (const { season, worst } of all) {
    if (!worst || !DESIGNED.includes(season)) continue;
    const share = worst.v_V / worst.aim_V;
    if (!least || share < least.share) least = { season, share };
  }
  return least;
}
