/** What is still to be bought: the need, less what is built in, lies in the shed and is on order. */
import { sum } from '../base/numbers.js';
import type { Catalogue } from '../plan/catalogue.js';
import type { Supply } from '../report/schema.js';
import { deliveryOf, type Delivery } from './groups.js';
import { asSold, coilLength, reelsOf } from './takeoff.js';

/** Why stock moves; `built` also fills the need. */
export const STOCK_MOVES = ['counted', 'built', 'repair', 'lost', 'bought'] as const;
export const DELIVERED = ['received', 'short', 'wrong'] as const;

export interface StockMove {
  readonly item: string;
  readonly quantity: number;
  /** Of a coil that was begun. */
  readonly length_m: number | null;
  readonly why: (typeof STOCK_MOVES)[number];
  /** When, ISO 8601; what has no time stands as it is listed. */
  readonly time?: string;
}
export interface OrderLine {
  readonly order: string;
  readonly supplier: string;
  readonly delivery: string;
  readonly item: string;
  readonly quantity: number;
  readonly unit: string;
  readonly price: number;
  readonly tax: number;
}
export interface Delivered {
  readonly order: string;
  readonly item: string;
  readonly quantity: number;
  readonly state: (typeof DELIVERED)[number];
  readonly time?: string;
}

/** What has happened to the supplies, as the records say. */
export interface Ledger {
  readonly stock: readonly StockMove[];
  readonly orders: readonly OrderLine[];
  readonly deliveries: readonly Delivered[];
}

export interface BasketRow {
  readonly supply: Supply;
  /** Built into the fence. */
  readonly built: number;
  readonly shed: number;
  readonly onOrder: number;
  /** To be bought: in whole packs. */
  readonly buy: number;
  /** Without tax. */
  readonly cost: number;
  /** What the fence wants and nobody has yet: neither built nor in the shed. */
  readonly missing: number;
}

const add = <T>(list: readonly T[], of: (item: T) => number): number => sum(list.map(of));

/** What came of an order line: how much has been received, how much will never come, how much came wrong. */
export function cameOf(
  { order, item, quantity }: Pick<OrderLine, 'order' | 'item' | 'quantity'>,
  deliveries: readonly Delivered[],
) {
  const own = deliveries.filter((d) => d.order === order && d.item === item);
  const of = (state: Delivered['state']) => add(own.filter((d) => d.state === state), (d) => d.quantity); // prettier-ignore
  const [received, short, wrong] = [of('received'), of('short'), of('wrong')];
  // What came wrong is changed: it is still to come.
  return { received, short, wrong, toCome: Math.max(0, quantity - received - short) };
}

/**
 * Whole pieces and coils of an item in the shed; coils that were begun are not among them. Move by move, never under 0:
 * what was built in and never counted came from elsewhere, and is not owed by what comes later.
 */
export function inShed(item: string, { stock, deliveries }: Ledger): number {
  const at = (time: string | undefined) => (time ? Date.parse(time) : 0);
  return [
    ...stock.filter((m) => m.item === item && m.length_m === null),
    ...deliveries.filter((d) => d.item === item && d.state === 'received'),
  ]
    .sort((a, b) => at(a.time) - at(b.time))
    .reduce((there, { quantity }) => Math.max(0, there + quantity), 0);
}

/** What is sold whole: all but lengths and loads. */
const soldWhole = (unit: string): boolean => unit !== 'm' && unit !== 't';

/** Coils of a wire that were begun and lie in the shed, m. */
export const begun = (ledger: Ledger): { wire: string; length_m: number }[] =>
  ledger.stock.flatMap((m) =>
    m.length_m !== null && m.quantity > 0 && m.item.startsWith('wire.')
      ? Array.from({ length: Math.round(m.quantity) }, () => ({ wire: m.item.slice(5), length_m: m.length_m! })) // prettier-ignore
      : [],
  );

/** The list of supplies against the ledger; what is left out is not bought. */
export function basketOf(supplies: readonly Supply[], ledger: Ledger, cat: Catalogue): BasketRow[] {
  const toCome = new Map<string, number>();
  // One line of an order may be split; what came of an item counts against the order as a whole.
  const lines = new Map<string, OrderLine>();
  for (const line of ledger.orders) {
    const key = JSON.stringify([line.order, line.item]);
    const known = lines.get(key);
    lines.set(key, known ? { ...known, quantity: known.quantity + line.quantity } : line);
  }
  for (const line of lines.values())
    toCome.set(line.item, (toCome.get(line.item) ?? 0) + cameOf(line, ledger.deliveries).toCome);
  return supplies.map((supply) => {
    const need = supply.out ? 0 : supply.quantity;
    const built = -add(ledger.stock.filter((m) => m.item === supply.id && m.why === 'built' && m.length_m === null), (m) => m.quantity); // prettier-ignore
    const shed = inShed(supply.id, ledger);
    const onOrder = toCome.get(supply.id) ?? 0;
    const left = Math.max(0, need - Math.max(0, built));
    const missing = Math.max(0, left - shed);
    const short = Math.max(0, missing - onOrder);
    const pack = cat.prices[supply.id]?.pack ?? (soldWhole(supply.unit) ? 1 : 0);
    const buy = pack > 0 ? Math.max(0, Math.ceil(short / pack - 1e-6)) * pack : short;
    return { supply, built: Math.max(0, built), shed, onOrder, buy, cost: buy * supply.price, missing }; // prettier-ignore
  });
}

/** What one stretch of work wants of an item, as it is sold, and what of it is in the shed. */
export interface Wanted {
  readonly supply: Supply;
  readonly need: number;
  readonly shed: number;
  readonly missing: number;
}

/** Wire in the shed in coils of an item: whole ones of any length, and those that were begun. */
function coilsInShed(item: string, ledger: Ledger, cat: Catalogue): number {
  const wire = item.slice('wire.'.length);
  const whole_m = add(reelsOf(wire, cat), (id) => inShed(id, ledger) * coilLength(id, cat));
  const begun_m = add(begun(ledger).filter((b) => b.wire === wire), (b) => b.length_m); // prettier-ignore
  return (whole_m + begun_m) / coilLength(item, cat);
}

/**
 * What the work on a line wants next, and what is missing for it.
 * @param line null: on all that is planned
 * @param delivery which part of the work; null: all of it
 */
export function wantedFor(
  supplies: readonly Supply[],
  ledger: Ledger,
  { line, delivery }: { readonly line: string | null; readonly delivery: Delivery | null },
  cat: Catalogue,
): Wanted[] {
  return supplies.flatMap((supply): Wanted[] => {
    if (supply.out || (delivery !== null && deliveryOf(supply.id) !== delivery)) return [];
    const used = line === null ? sum(Object.values(supply.lines)) : (supply.lines[line] ?? 0);
    const exact = asSold(supply.id, used, cat);
    // Of a coil, a box a part is used.
    const whole = soldWhole(supply.unit) && supply.unit !== 'coil' && supply.unit !== 'box';
    const need = whole ? Math.ceil(exact - 1e-9) : exact;
    if (need <= 0) return [];
    const shed = supply.unit === 'coil' ? coilsInShed(supply.id, ledger, cat) : inShed(supply.id, ledger); // prettier-ignore
    return [{ supply, need, shed, missing: Math.max(0, need - shed) }];
  });
}
