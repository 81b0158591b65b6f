/** What a live strand leaks into the growth that it stands in. */
import { figure, type Catalogue, type SeasonId } from '../plan/catalogue.js';
import type { Line, Strand } from '../plan/schema.js';

/** Heights of the five strands that the figures of the seasons are meant for, m. */
const USUAL = [0.15, 0.3, 0.45, 0.65, 0.9];

/** How rank the growth under a line is against the usual: a factor on what it leaks. */
export const growthOf = (line: Pick<Line, 'growth'>, cat: Catalogue): number =>
  line.growth ? figure(cat, `growth.${line.growth}`) : 1;

/**
 * Leakage of a live strand by its height, S/km, in absolute terms: a strand that is raised leaks less, whatever
 * the others do. The season's figure is the mean of the usual five [derived; docs/model.md, Leakage].
 * @param growth factor on what grows there
 */
export function leakage(
  height_m: number,
  season: SeasonId,
  growth: number,
  cat: Catalogue,
): number {
  const fall = figure(cat, 'network.leakHeight');
  const mean = USUAL.reduce((sum, h) => sum + Math.exp(-h / fall), 0) / USUAL.length;
  const grown =
    (cat.seasons[season]!.leakage_S_per_km * growth * Math.exp(-height_m / fall)) / mean;
  return grown + figure(cat, 'network.leakClean');
}

/** Strands with a cut-out are taken off while the grass is long and wet. */
export const takesOff = (season: SeasonId): boolean => season === 'wet' || season === 'weedy';

/** Whether a strand is on in a season; cold strands carry nothing. */
export const carries = (s: Strand, season: SeasonId): boolean =>
  s.duty !== 'cold' && !(s.switched && takesOff(season));

/** Leakage of all live strands together, S/km; one that is switched off then leaks nothing. */
export const leakageOfAll = (
  strands: readonly Strand[],
  season: SeasonId,
  growth: number,
  cat: Catalogue,
): number =>
  strands
    .filter((s) => s.duty === 'live' && carries(s, season))
    .reduce((sum, s) => sum + leakage(s.height_m, season, growth, cat), 0);
