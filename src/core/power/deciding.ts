/** Which season asks most of a unit, without working every season out finely. */
import type { SeasonId } from '../plan/catalogue.js';

/** Cells so many times as long tell the season that decides, at a third of the work. */
export const COARSE = 2;
/** A coarse pulse is off a fine one by a few in 100, and alike in all seasons: whatever comes so near the least is looked at finely. */
const NEAR = 1.1;

/** The score of the season that asks most: every season coarsely, those that may decide finely. */
export function leastOfSeasons<S extends { readonly share: number }>(
  seasons: readonly SeasonId[],
  scoreIn: (season: SeasonId, coarse: number) => S | null,
): S | null {
  const about = seasons.flatMap((season) => {
    const score = scoreIn(season, COARSE);
    return score ? [{ season, share: score.share }] : [];
  });
  const least = Math.min(...about.map((a) => a.share));
  return about
    .filter((a) => a.share <= NEAR * least)
    .map((a) => scoreIn(a.season, 1))
    .reduce<S | null>((a, b) => (b && (!a || b.share < a.share) ? b : a), null);
}
