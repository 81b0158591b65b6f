import { useMemo } from 'react';
import { catalogue, withOverrides, type Catalogue } from '../core/plan/catalogue.js';
import { useSession } from './session.js';

/** The catalogue as this property sees it: with its own figures put in. */
export function useCatalogue(): Catalogue {
  const overrides = useSession((s) => s.plan.overrides);
  const units = useSession((s) => s.plan.units);
  return useMemo(() => withOverrides(catalogue, overrides, units), [overrides, units]);
}
