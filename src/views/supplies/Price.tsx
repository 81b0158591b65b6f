/** The price of an item: typed anywhere, it goes into the book with today's day. */
import { FOOT, type Units } from '../../core/base/units.js';
import { newest, type Quote } from '../../core/plan/book.js';
import type { Plan } from '../../core/plan/schema.js';
import { putQuote } from '../../core/supplies/bookEdits.js';
import { useCatalogue } from '../../session/catalogue.js';
import { commit } from '../../session/session.js';
import { PriceField } from '../../ui/parts/bookFields.js';
import { useUnits } from '../../ui/parts/Num.js';
import { today } from '../../session/today.js';

/** What is sold by length is shown by the foot where feet are used. */
export const shownPrice = (price: number, per: string, units: Units): number =>
  per === 'm' && units === 'imperial' ? price * FOOT : price;
export const shownPer = (per: string, units: Units): string =>
  per === 'm' && units === 'imperial' ? 'ft' : per;

/** Puts a price of today into the book, with what the last one said beside. */
export function quoteToday(plan: Plan, item: string, price: number, part: Partial<Quote>): void {
  const before = plan.book?.[item];
  const { supplier, tax, pack } = before ? newest(before) : ({} as Partial<Quote>);
  const next = { price, supplier, tax, pack, ...part, on: today() };
  // What is not said is left out.
  const said = Object.entries(next).filter(([, v]) => v !== undefined && v !== '');
  putQuote(plan, item, Object.fromEntries(said) as Quote);
}

export function Price({ item, name }: { item: string; name: string }) {
  const units = useUnits();
  const { price, per } = useCatalogue().prices[item]!;
  const factor = shownPrice(1, per, units);
  return (
    <PriceField
      label={`Price of ${name}`}
      price={price * factor}
      onCommit={(shown) =>
        commit(`price of ${name}`, (d) => quoteToday(d, item, shown / factor, {}))
      }
    />
  );
}
