/** The price book of a property: what was asked for each item, the newest counts; and items of its own. */
import type { Catalogue } from './catalogue.js';
import type { Plan } from './schema.js';

export type Quote = NonNullable<Plan['book']>[string][number];

/** The quote of the latest day; of one day the one that was put in last. */
export const newest = (quotes: readonly Quote[]): Quote =>
  quotes.reduce((a, b) => (b.on >= a.on ? b : a));

/** Item of the price book that stands for an own item. */
export const ownItem = (id: string): string => `own.${id}`;

/** The catalogue with the prices of a book, and with items of the property's own. */
export function withBook(
  base: Catalogue,
  book: NonNullable<Plan['book']>,
  own: NonNullable<Plan['ownItems']>,
): Catalogue {
  const prices = { ...base.prices };
  for (const [id, { name, per }] of Object.entries(own))
    prices[ownItem(id)] = {
      name,
      per,
      price: 0,
      mark: 'assumed',
      why: 'An item of this property.',
    };
  let changed = Object.keys(own).length > 0;
  for (const [item, quotes] of Object.entries(book)) {
    const known = prices[item];
    if (!known) continue;
    const { price, on, supplier, tax, pack } = newest(quotes);
    prices[item] = {
      ...known,
      price,
      on,
      mark: 'assumed',
      why: `As asked on ${on}${supplier ? ` by ${supplier}` : ''}.`,
      ...(supplier ? { supplier } : {}),
      ...(tax === undefined ? {} : { tax }),
      ...(pack === undefined ? {} : { pack }),
    };
    changed = true;
  }
  return changed ? { ...base, prices } : base;
}
