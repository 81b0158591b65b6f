/** Words for what the figures on the screen obey. */
import type { SeasonId } from '../../core/plan/catalogue.js';

export const SEASON_WORDS: Readonly<Record<SeasonId, string>> = {
  dry: 'driest',
  today: 'today',
  wet: 'wettest',
  weedy: 'not cut',
  frozen: 'frozen',
};
export const SEASON_ORDER: readonly SeasonId[] = ['dry', 'today', 'wet', 'weedy', 'frozen'];
