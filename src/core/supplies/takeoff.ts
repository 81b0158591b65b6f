/** What to buy: what the parts counted, priced from the price book. */
import { say, type Units } from '../base/units.js';
import { figure, type Catalogue, recordOf } from '../plan/catalogue.js';
import type { Supply } from '../report/schema.js';

/** Quantities by item of the price book: pieces, or metres of wire, cable and conduit; of a place, where along its line, m. */
export type Items = readonly (readonly [item: string, quantity: number, at_m?: number])[];

/** Running tally: item -> line -> quantity. */
class Tally {
  readonly items = new Map<string, Map<string, number>>();
  readonly places = new Map<string, Record<string, [at_m: number, quantity: number][]>>();
  add(item: string, line: string, quantity: number, at_m?: number): void {
    if (quantity === 0) return;
    if (at_m !== undefined) {
      const own = this.places.get(item) ?? {};
      this.places.set(item, own);
      const here = (own[line] ??= []);
      const same = here.find((p) => p[0] === at_m);
      if (same) same[1] += quantity;
      else here.push([at_m, quantity]);
    }
    let row = this.items.get(item);
    if (!row) this.items.set(item, (row = new Map()));
    row.set(line, (row.get(line) ?? 0) + quantity);
  }
}

/** What one unit of an item costs as it is used: wire by the metre with its spare, staples by the piece. */
export function priceInUse(item: string, cat: Catalogue): number {
  const { price, per } = recordOf(cat.prices, item);
  if (per === 'coil') {
    const spare = 1 + figure(cat, 'supplies.spareWire');
    return (price * spare) / (cat.wires[item.slice(5)]?.coil_m ?? 50);
  }
  return item === 'staple' ? price / 500 : price;
}

/**
 * The whole list with costs.
 * @param counted by line, or by what else takes them
 * Wire is bought by the coil and staples by the box, each rounded up
 * over the property; a join is counted for every coil but the first of its kind.
 */
export function supplyList(
  counted: Readonly<Record<string, Items>>,
  cat: Catalogue,
  units: Units,
): Supply[] {
  const t = new Tally();
  for (const [owner, items] of Object.entries(counted)) {
    for (const [item, n, at_m] of items) t.add(item, owner, n, at_m);
  }
  const spare = 1 + figure(cat, 'supplies.spareWire');
  const out: Supply[] = [];
  let joiners = 0;
  for (const item of Object.keys(cat.prices)) {
    const row = t.items.get(item);
    if (!row) continue;
    const exact = [...row.values()].reduce((a, b) => a + b, 0);
    const lines = Object.fromEntries(row);
    if (item.startsWith('wire.')) {
      const coil = cat.wires[item.slice(5)]!.coil_m;
      const coils = Math.ceil((exact * spare) / coil - 1e-9);
      joiners += Math.max(0, coils - 1);
      out.push(
        priced(
          item,
          coils,
          'coil',
          lines,
          cat,
          `${say(exact * spare, 'length', units)} with tails and spare; coils of ${say(coil, 'length', units)}`,
        ),
      );
    } else if (item === 'staple') {
      out.push(
        priced(
          item,
          Math.ceil(exact / 500),
          'box',
          lines,
          cat,
          `${say(Math.ceil(exact), 'count', units)} pieces`,
        ),
      );
    } else if (item === 'cable' || item === 'conduit') {
      out.push(priced(item, Math.ceil(exact), 'm', lines, cat, ''));
    } else if (item === 'gravel') {
      out.push(priced(item, Math.ceil(exact * 10 - 1e-9) / 10, 't', lines, cat, ''));
    } else {
      const unit = item === 'concrete' ? 'bag' : 'each';
      out.push(priced(item, Math.ceil(exact - 1e-9), unit, lines, cat, ''));
    }
  }
  for (const supply of out) {
    const places = t.places.get(supply.id);
    if (places) supply.places = places;
  }
  if (joiners > 0)
    out.push(priced('joiner', joiners, 'each', {}, cat, 'one for each coil that follows another'));
  return out;
}

/** What one line takes of an item, at its price as it is used; null when it takes none. */
export function ownShare(supply: Supply, line: string, cat: Catalogue): Supply | null {
  const used = supply.lines[line];
  if (!used) return null;
  const byLength = supply.unit === 'coil' || supply.unit === 'm';
  const quantity = byLength ? Math.round(used * 100) / 100 : Math.ceil(used - 1e-9);
  const unit = byLength ? 'm' : supply.unit === 'box' ? 'pieces' : supply.unit;
  const { places: all, ...rest } = supply;
  const places = all?.[line] ? { places: { [line]: all[line] } } : {};
  return {
    ...rest,
    ...places,
    quantity,
    unit,
    cost: used * priceInUse(supply.id, cat),
    note: '',
  };
}

function priced(
  item: string,
  quantity: number,
  unit: string,
  lines: Record<string, number>,
  cat: Catalogue,
  note: string,
): Supply {
  const p = cat.prices[item]!;
  return {
    id: item,
    name: p.name,
    quantity,
    unit,
    price: p.price,
    per: p.per,
    cost: quantity * p.price,
    note,
    lines,
  };
}
