/** The catalogue as a property has it. */
import { allInUnits } from '../base/prose.js';
import type { Units } from '../base/units.js';
import { figureAt, MOVED, splitPath, type Catalogue } from './catalogue.js';
import { withBook } from './book.js';
import { withBroken, withWires } from './ownFigures.js';
import type { Plan } from './schema.js';

/** What of a plan is its own in the catalogue. */
export type OwnFigures = Pick<Plan, 'overrides'> &
  Partial<Pick<Plan, 'units' | 'ownWires' | 'breakTests' | 'book' | 'ownItems'>>;

/**
 * The catalogue as a property has it: its own wires, its own figures by path, and what it broke on a bench. Paths that
 * name no figure are passed over. Words say their quantities in its units; figures are SI in any.
 */
export function ownCatalogue(metric: Catalogue, own: OwnFigures): Catalogue {
  const base = spoken(metric, own.units ?? 'metric');
  // One catalogue for one set of figures: whoever works the same property out shares what rests on it.
  let known = overridden.get(base);
  if (!known) overridden.set(base, (known = new Map()));
  const { overrides, ownWires = {}, breakTests = [], book = {}, ownItems = {} } = own;
  const key = JSON.stringify([overrides, ownWires, breakTests, book, ownItems]);
  let made = known.get(key);
  if (!made) {
    if (known.size >= 50) known.clear();
    made = withBroken(overlaid(withWires(base, ownWires), overrides), breakTests);
    known.set(key, (made = withBook(made, book, ownItems)));
  }
  return made;
}
/** Names and reasons in other units; one catalogue for each. */
function spoken(metric: Catalogue, units: Units): Catalogue {
  if (units === 'metric') return metric;
  let own = inFeet.get(metric);
  if (!own) inFeet.set(metric, (own = allInUnits(metric, units)));
  return own;
}
const inFeet = new WeakMap<Catalogue, Catalogue>();

const overridden = new WeakMap<Catalogue, Map<string, Catalogue>>();

function overlaid(base: Catalogue, overrides: Plan['overrides']): Catalogue {
  const out = { ...base } as Record<string, Record<string, Record<string, unknown>>>;
  for (const [said, { value }] of Object.entries(overrides)) {
    const path = MOVED[said] ?? said;
    if (figureAt(base, path) === undefined) continue;
    const [table, record, field] = splitPath(path);
    out[table] = { ...out[table], [record]: { ...out[table]![record], [field]: value } };
  }
  return out as unknown as Catalogue;
}
