import { useMemo } from 'react';
import { type Catalogue } from '../core/plan/catalogue.js';
import { catalogue } from '../core/plan/shipped.js';
import { ownCatalogue } from '../core/plan/ownCatalogue.js';
import { useSession } from './session.js';

/** The catalogue as this property sees it: with its own figures put in. */
export function useCatalogue(): Catalogue {
  const overrides = useSession((s) => s.plan.overrides);
  const units = useSession((s) => s.plan.units);
  const ownWires = useSession((s) => s.plan.ownWires);
  const breakTests = useSession((s) => s.plan.breakTests);
  const book = useSession((s) => s.plan.book);
  const ownItems = useSession((s) => s.plan.ownItems);
  return useMemo(
    () => ownCatalogue(catalogue, { overrides, units, ownWires, breakTests, book, ownItems }),
    [overrides, units, ownWires, breakTests, book, ownItems],
  );
}
