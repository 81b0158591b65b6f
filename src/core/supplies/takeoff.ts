/** What to buy: what the parts counted, priced from the price book. */
import { USES } from '../report/uses.js';
import { sum } from '../base/numbers.js';
import { say } from '../base/units.js';
import { figure, type Catalogue, recordOf } from '../plan/catalogue.js';
import type { Plan } from '../plan/schema.js';
import type { Supply } from '../report/schema.js';
import { jointsOfLine } from '../wire/wires.js';

/**
 * Quantities by item of the price book: pieces, or metres of wire, cable and conduit; of a place, where along its line,
 * m; of what is used in several ways, which.
 */
export type Items = readonly (readonly [
  item: string,
  quantity: number,
  at_m?: number | undefined,
  use?: string,
])[];

/** Running tally of an item. */
interface Count {
  readonly lines: Record<string, number>;
  readonly places: Record<string, [at_m: number, quantity: number][]>;
  readonly uses: Record<string, number>;
}

function tallied(counted: Readonly<Record<string, Items>>): Map<string, Count> {
  const all = new Map<string, Count>();
  for (const [owner, items] of Object.entries(counted)) {
    for (const [item, quantity, at_m, use] of items) {
      if (quantity === 0) continue;
      let own = all.get(item);
      if (!own) all.set(item, (own = { lines: {}, places: {}, uses: {} }));
      own.lines[owner] = (own.lines[owner] ?? 0) + quantity;
      if (use !== undefined) own.uses[use] = (own.uses[use] ?? 0) + quantity;
      if (at_m === undefined) continue;
      const here = (own.places[owner] ??= []);
      const same = here.find((p) => p[0] === at_m);
      if (same) same[1] += quantity;
      else here.push([at_m, quantity]);
    }
  }
  return all;
}

/** Staples in a box. */
export const A_BOX = 500;

/** Wire on one coil of an item, m. */
export const coilLength = (item: string, cat: Catalogue): number =>
  cat.prices[item]!.coil_m ?? recordOf(cat.wires, item.slice('wire.'.length)).coil_m;

/** Items of the coils on which a wire is sold: its usual one, then the others, the longest first. */
export const reelsOf = (wire: string, cat: Catalogue): string[] => [
  `wire.${wire}`,
  ...Object.keys(cat.prices)
    .filter((item) => cat.prices[item]!.of === wire)
    .sort((a, b) => coilLength(b, cat) - coilLength(a, cat)),
];

/** How much of an item is used in what it is sold by: parts of a coil with its spare, of a box. */
export function asSold(item: string, used: number, cat: Catalogue): number {
  const { per } = recordOf(cat.prices, item);
  if (per === 'box') return used / A_BOX;
  if (per !== 'coil') return used;
  return (used * (1 + figure(cat, 'supplies.spareWire'))) / coilLength(item, cat);
}

/** What one unit of an item costs as it is used: wire by the metre with its spare, staples by the piece. */
export const priceInUse = (item: string, cat: Catalogue): number =>
  recordOf(cat.prices, item).price * asSold(item, 1, cat);

/** How much of an item is bought for what is used of it: whole coils, boxes, packs; loads to a tenth. */
function sold(item: string, used: number, cat: Catalogue): number {
  const { per, pack } = cat.prices[item]!;
  const whole = (n: number) => Math.ceil(n - 1e-9);
  const n = asSold(item, used, cat);
  const bought = per === 't' ? whole(n * 10) / 10 : whole(n);
  return pack ? whole(bought / pack) * pack : bought;
}

/**
 * The whole list with costs, in the order of the price book.
 * @param counted by line, or by what else takes them
 * Wire is bought by the coil, staples by the box, anything by its pack, each rounded up over the property; a join is
 * counted for every coil but the first of its wire, until the coils are cut (wireCuts.ts).
 */
export function supplyList(
  counted: Readonly<Record<string, Items>>,
  cat: Catalogue,
  plan: Pick<Plan, 'units' | 'supplyRows' | 'lines'>,
): Supply[] {
  const { units, supplyRows = {} } = plan;
  const all = tallied(counted);
  const spare = 1 + figure(cat, 'supplies.spareWire');
  const out: Supply[] = [];
  for (const [part, n] of joinsIn(all, cat, plan.lines)) {
    const known = all.get(part);
    if (!known) all.set(part, { lines: {}, places: {}, uses: { [USES.coilsJoined]: n } });
    else known.uses[USES.coilsJoined] = n;
  }
  for (const item of Object.keys(cat.prices)) {
    const count = all.get(item);
    if (!count && !supplyRows[item]) continue;
    const inLines = sum(Object.values(count?.lines ?? {}));
    const used = inLines + (count?.uses[USES.coilsJoined] ?? 0);
    const unit = cat.prices[item]!.per;
    const row: Supply = {
      ...priced(item, sold(item, used, cat), cat, supplyRows[item]),
      lines: count?.lines ?? {},
    };
    if (unit === 'coil' && count) {
      row.note = `${say(used * spare, 'length', units)} with tails and spare; coils of ${say(coilLength(item, cat), 'length', units)}`;
    } else if (item === 'concrete' && used > 0)
      row.note = `${say(used * figure(cat, 'ends.bag'), 'litre', units)} of mix`;
    else if (unit === 'box') row.note = `${say(Math.ceil(used), 'count', units)} pieces`;
    if (Object.keys(count?.places ?? {}).length > 0) row.places = count!.places;
    if (Object.keys(count?.uses ?? {}).length > 0) row.uses = count!.uses;
    out.push(row);
  }
  return out;
}

/** A join for each coil but the first of a wire, as the line joins that has most of it; tied by hand it takes no part. */
function joinsIn(
  all: ReadonlyMap<string, Count>,
  cat: Catalogue,
  lines: Plan['lines'],
): Map<string, number> {
  const parts = new Map<string, number>();
  for (const [item, { lines: of }] of all) {
    if (cat.prices[item]?.per !== 'coil') continue;
    const quantity = sold(item, sum(Object.values(of)), cat);
    const [most] = Object.entries(of).sort((a, b) => b[1] - a[1])[0]!;
    const part = recordOf(cat.joints, jointsOfLine(lines[most] ?? {}).join).price;
    if (part && quantity > 1) parts.set(part, (parts.get(part) ?? 0) + quantity - 1);
  }
  return parts;
}

/** What one line takes of an item, at its price as it is used; null when it takes none. */
export function ownShare(supply: Supply, line: string, cat: Catalogue): Supply | null {
  const used = supply.lines[line];
  if (!used) return null;
  const byLength = supply.unit === 'coil' || supply.unit === 'm';
  const quantity = byLength ? Math.round(used * 100) / 100 : Math.ceil(used - 1e-9);
  const unit = byLength ? 'm' : supply.unit === 'box' ? 'pieces' : supply.unit;
  const out: Supply = {
    ...supply,
    quantity,
    counted: quantity,
    unit,
    cost: supply.out ? 0 : used * priceInUse(supply.id, cat),
    note: '',
  };
  const own = supply.places?.[line];
  if (own) out.places = { [line]: own };
  else delete out.places;
  delete out.uses;
  delete out.changed;
  return out;
}

/** A row of the list. @param by what was changed of it by hand */
export function priced(
  item: string,
  counted: number,
  cat: Catalogue,
  by?: NonNullable<Plan['supplyRows']>[string],
): Omit<Supply, 'lines'> {
  const p = cat.prices[item]!;
  const quantity = by?.quantity ?? counted;
  return {
    id: item,
    name: p.name,
    quantity,
    counted,
    unit: p.per,
    price: p.price,
    per: p.per,
    tax: p.tax ?? figure(cat, 'supplies.tax'),
    cost: by?.out ? 0 : quantity * p.price,
    note: '',
    ...(by ? { changed: by.note ?? '' } : {}),
    ...(by?.out ? { out: true as const } : {}),
  };
}
