/** Changes of the price book and of the list of supplies. */
import { ownItem, type Quote } from '../plan/book.js';
import type { Plan } from '../plan/schema.js';

/** Tables of the plan that are not there while nothing is in them. */
type Table = 'book' | 'supplyRows' | 'ownItems';

/** Takes an entry out of a table, and the table with its last one. */
function drop(plan: Plan, table: Table, key: string): void {
  delete plan[table]?.[key];
  if (plan[table] && Object.keys(plan[table]).length === 0) delete plan[table];
}

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
  if (left.length === 0) drop(plan, 'book', item);
}

/** Takes an item of the property's own away, with its prices and what was changed of it. */
export function dropOwnItem(plan: Plan, id: string): void {
  drop(plan, 'ownItems', id);
  drop(plan, 'book', ownItem(id));
  drop(plan, 'supplyRows', ownItem(id));
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
  if (Object.keys(row).length === 0) drop(plan, 'supplyRows', item);
}
