/** The currency of a property's prices, and what becomes of them when it is another. */
import { figure, type Catalogue } from '../plan/catalogue.js';
import type { Plan } from '../plan/schema.js';

/** Currencies that are offered. */
export const CURRENCIES = ['EUR', 'GBP', 'USD', 'AUD', 'NZD', 'CAD', 'ZAR', 'CHF'];

/**
 * Gives a property another currency.
 * @param factor what one unit of the old is worth in the new; 1 leaves every figure as it is
 * @param cat with the property's own prices
 */
export function changeCurrency(plan: Plan, to: string, factor: number, cat: Catalogue): void {
  if (!(factor > 0) || !Number.isFinite(factor)) throw new RangeError('a factor above 0 is wanted');
  plan.currency = to;
  if (factor === 1) return;
  const other = (price: number) => Math.round(price * factor * 100) / 100;
  const { book } = plan;
  for (const [id, { price }] of Object.entries(cat.prices)) {
    if (book?.[id]) book[id] = book[id].map((q) => ({ ...q, price: other(q.price) }));
    else plan.overrides[`prices.${id}.price`] = { value: other(price) };
  }
  // An hour of work is money as well.
  plan.overrides['defaults.supplies.wage.value'] = { value: other(figure(cat, 'supplies.wage')) };
}
