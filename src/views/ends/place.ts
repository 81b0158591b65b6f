/** The ends of a line as the step looks at them. */
import { useMemo } from 'react';
import { frostOf } from '../../core/ends/along.js';
import { judge, weakestOf, type Judged } from '../../core/ends/judge.js';
import { builtOf, pulledOf } from '../../core/ends/options.js';
import { recordOf, type Catalogue } from '../../core/plan/catalogue.js';
import type { EndReport } from '../../core/report/schema.js';
import { useCatalogue } from '../../session/catalogue.js';
import { useSession } from '../../session/session.js';

export { ROLE_WORDS as ROLES } from '../../core/ends/words.js';

export const SIDE_WORDS: Readonly<Record<EndReport['side'], string>> = {
  before: 'of the run before it',
  after: 'of the run after it',
  bend: 'against both runs',
};

/** What an end carries, as it stands. */
export const judgedOf = (e: EndReport, cat: Catalogue): Judged =>
  judge(builtOf(e), pulledOf(e), { soil: recordOf(cat.soils, e.soil), setting: recordOf(cat.settings, e.setting) }, cat); // prettier-ignore

export const worst = (e: EndReport) => weakestOf(e.checks);

export function useFrost(): number {
  const cat = useCatalogue();
  const climate = useSession((s) => s.plan.climate);
  const frost_m = useSession((s) => s.plan.frost_m);
  return useMemo(() => frostOf({ climate, ...(frost_m === undefined ? {} : { frost_m }) }, cat), [climate, frost_m, cat]); // prettier-ignore
}
