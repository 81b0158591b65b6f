/** The price book as CSV, out and in. */
import Papa from 'papaparse';
import type { Catalogue } from '../core/plan/catalogue.js';
import type { Quote } from '../core/plan/book.js';
import type { Plan } from '../core/plan/schema.js';
import { plainCell } from './csv.js';

const FIELDS = ['item', 'name', 'price', 'per', 'date', 'supplier', 'tax %', 'pack'] as const;

/** Every price that the book has had, the newest of an item first; what has none yet with the price it came with. */
export function pricesCsv(cat: Catalogue, book: NonNullable<Plan['book']>): string {
  const cell = (n: number | undefined, by = 1) => (n === undefined ? '' : String(Math.round(n * by * 1e6) / 1e6)); // prettier-ignore
  const rows = Object.entries(cat.prices).flatMap(([item, p]) => {
    const quotes = [...(book[item] ?? [])].sort((a, b) => b.on.localeCompare(a.on));
    const line = (q: Partial<Quote> & { price: number }) => [item, plainCell(p.name), q.price.toFixed(2), p.per, q.on ?? '', plainCell(q.supplier ?? ''), cell(q.tax, 100), cell(q.pack)]; // prettier-ignore
    return quotes.length > 0 ? quotes.map(line) : [line({ price: p.price })];
  });
  return Papa.unparse({ fields: [...FIELDS], data: rows }, { newline: '\r\n' });
}

export interface PricesRead {
  readonly quotes: readonly { readonly item: string; readonly quote: Quote }[];
  /** Rows that were passed over, with the reason. */
  readonly faults: readonly { readonly line: number; readonly reason: string }[];
}

/** Bytes beyond which a file is no price list. */
export const MOST_BYTES = 1_000_000;

/**
 * Prices out of a CSV file with a heading of `item` (or `name`) and `price`; the others where they are there. Semicolons
 * and decimal commas are read too. A row without a date is of today.
 * @param today YYYY-MM-DD
 */
export function readPrices(text: string, cat: Catalogue, today: string): PricesRead {
  const { data, errors } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (h) => h.trim().toLowerCase(),
  });
  const faults: { line: number; reason: string }[] = errors
    .filter((e) => e.type === 'Quotes')
    .map((e) => ({ line: (e.row ?? 0) + 2, reason: 'a quote mark is missing' }));
  const heads = Object.keys(data[0] ?? {});
  if (!heads.includes('price') || !(heads.includes('item') || heads.includes('name')))
    return { quotes: [], faults: [{ line: 1, reason: 'the first line names the columns: item or name, and price' }] }; // prettier-ignore
  const byName = new Map(Object.entries(cat.prices).map(([id, p]) => [p.name.toLowerCase(), id]));
  const quotes: { item: string; quote: Quote }[] = [];
  data.forEach((row, k) => {
    const line = k + 2;
    const of = (key: string) => (row[key] ?? '').trim().replace(/^'(?=[=+\-@])/, '');
    const refuse = (reason: string) => void faults.push({ line, reason });
    const named = of('item') || of('name');
    const item = Object.hasOwn(cat.prices, of('item')) ? of('item') : byName.get(of('name').toLowerCase()); // prettier-ignore
    if (!item) return refuse(`the price book has no "${named.slice(0, 60)}"`);
    const price = numberIn(of('price'));
    if (price === null || price < 0 || price > 1e7) return refuse(`price: a number of 0 or more, not "${of('price').slice(0, 20)}"`); // prettier-ignore
    const on = of('date') || today;
    if (!/^\d{4}-\d{2}-\d{2}$/.test(on) || Number.isNaN(Date.parse(on))) return refuse(`date: YYYY-MM-DD, not "${on.slice(0, 20)}"`); // prettier-ignore
    const tax = of('tax %') === '' ? undefined : numberIn(of('tax %'));
    if (tax === null || (tax !== undefined && !(tax >= 0 && tax <= 100))) return refuse('tax %: 0 to 100'); // prettier-ignore
    const pack = of('pack') === '' ? undefined : numberIn(of('pack'));
    if (pack === null || (pack !== undefined && !(pack > 0 && pack <= 1e5))) return refuse('pack: a number above 0'); // prettier-ignore
    const supplier = of('supplier').slice(0, 80);
    quotes.push({
      item,
      quote: {
        price,
        on,
        ...(supplier ? { supplier } : {}),
        ...(tax === undefined ? {} : { tax: tax / 100 }),
        ...(pack === undefined ? {} : { pack }),
      },
    });
  });
  return { quotes, faults };
}

/** A number with a point or a comma; null where it could be read two ways, such as 1,250. */
function numberIn(text: string): number | null {
  const plain = text.replace(/[\s\u00a0\u202f']/g, '');
  if (!/^[-+]?\d[\d.,]*$/.test(plain)) return null;
  const marks = plain.replace(/[^.,]/g, '');
  const last = marks.at(-1);
  // One mark alone, with three digits behind it and no nought before it: thousands, or a fraction.
  if (marks.length === 1 && last === ',' && /^[-+]?[1-9]\d{0,2},\d{3}$/.test(plain)) return null;
  const clean =
    last === ',' && !marks.slice(0, -1).includes(',')
      ? plain.replaceAll('.', '').replace(',', '.')
      : plain.replaceAll(',', '');
  const value = Number(clean);
  return Number.isFinite(value) ? value : null;
}
