/** Changes of the price book and of the list of supplies. */
import type { Quote } from '../plan/book.js';
import type { Plan } from '../plan/schema.js';

/** Quotes of one item that are kept. */
const KEPT = 60;

/** Puts a price into the book. One of the same day by the same supplier gives way; all older ones are kept. */
export function putQuote(plan: Plan, item: string, quote: Quote): void {
  const same = (q: Quote) => q.on === quote.on && (q.supplier ?? '') === (quote.supplier ?? '');
  const others = (plan.book?.[item] ?? []).filter((q) => !same(q));
  plan.book = { ...plan.book, [item]: [...others, quote].slice(-KEPT) };
  // The price that stood by itself before there was a book.
  delete plan.overrides[`prices.${item}.price`];
}

/** Takes a price out of the book. */
export function dropQuote(plan: Plan, item: string, at: number): void {
  const left = (plan.book?.[item] ?? []).filter((_, k) => k !== at);
  plan.book = { ...plan.book, [item]: left };
  if (left.length === 0) delete plan.book[item];
  if (Object.keys(plan.book).length === 0) delete plan.book;
}

export interface RowChange {
  /** Null: as counted. */
  readonly quantity?: number | null;
  readonly out?: boolean;
  readonly note?: string;
}

/** Changes a row of the list by hand; a row that says nothing any more is as counted. */
export function changeRow(plan: Plan, item: string, change: RowChange): void {
  const row = { ...plan.supplyRows?.[item] };
  if (change.quantity === null) delete row.quantity;
  else if (change.quantity !== undefined) row.quantity = change.quantity;
  if (change.out === false) delete row.out;
  else if (change.out) row.out = true;
  if (change.note === '') delete row.note;
  else if (change.note !== undefined) row.note = change.note;
  plan.supplyRows = { ...plan.supplyRows, [item]: row };
  if (Object.keys(row).length === 0) delete plan.supplyRows[item];
  if (Object.keys(plan.supplyRows).length === 0) delete plan.supplyRows;
}

/** Days from one day to another, both YYYY-MM-DD. */
export const daysBetween = (from: string, to: string): number =>
  Math.round((Date.parse(to) - Date.parse(from)) / 86_400_000);
