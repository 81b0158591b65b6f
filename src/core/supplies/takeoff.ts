/** What to buy: counted from the layout, priced from the price book. */
import { say, type Units } from '../base/units.js';
import { figure, type Catalogue, recordOf } from '../plan/catalogue.js';
import { isBarbed, isPanel } from '../wire/bottom.js';
import { crossingsOf, thingsOf } from '../land/things.js';
import type { Energiser, Gate, Line, Plan, Strand } from '../plan/schema.js';
import type { Layout } from '../posts/layout.js';
import type { Supply } from '../report/schema.js';

/** A line with its posts, as the takeoff needs it. */
export interface CountedLine {
  readonly line: Line;
  readonly gates: readonly Gate[];
  readonly layout: Layout;
  /** Warning signs that the line wants. */
  readonly signs: number;
  /** Places where the line crosses an old fence. */
  readonly crossings: number;
}

/** How often a line crosses an old fence: each crossing of a live strand wants a sleeve. */
export const oldFencesCrossed = (line: Line, things: Plan['things']): number =>
  thingsOf({ things }, 'oldFence').reduce((n, old) => n + crossingsOf(line, old).length, 0);

/** Running tally: item -> line -> quantity. */
class Tally {
  readonly items = new Map<string, Map<string, number>>();
  add(item: string, line: string, quantity: number): void {
    if (quantity === 0) return;
    let row = this.items.get(item);
    if (!row) this.items.set(item, (row = new Map()));
    row.set(line, (row.get(line) ?? 0) + quantity);
  }
}

/** Quantities of one line: counts in pieces, wire, cable and conduit in metres. */
export function countLine(
  { line, gates, layout, signs, crossings }: CountedLine,
  cat: Catalogue,
): [string, number][] {
  const t = new Tally();
  const add = (item: string, n: number) => t.add(item, line.id, n);
  const tail = figure(cat, 'end.tail');
  // What stands already of an old fence is not bought.
  const bought = line.strands.filter((s) => !s.kept);
  const insulated = bought.filter((s) => s.insulated).length;
  const offset = bought.filter((s) => s.insulated && s.offset_m).length;
  const switched = bought.filter((s) => s.switched).length;
  const live = line.strands.filter((s) => s.duty === 'live').length;
  const earth = line.strands.filter((s) => s.duty === 'earth').length;
  for (const post of layout.posts) {
    const kind = recordOf(cat.posts, post.kind);
    if (!line.standing) add(kind.price, 1);
    if (post.role === 'line' || post.role === 'bend') {
      add('insulator.line', insulated - offset);
      add('insulator.offset', offset);
      const onTimber = kind.conducts ? 0 : bought.length;
      add('staple', onTimber * figure(cat, 'supplies.staplesPerPost'));
    }
  }
  for (const run of layout.runs) {
    for (const s of bought) add(`wire.${s.wire}`, run.ground_m + 2 * tail);
    add('insulator.end', 2 * insulated);
    add('clamp.jumper', 2 * ((live > 1 ? live : 0) + (earth > 1 ? earth : 0)));
    add('staple', 4 * bought.length);
    // Earth strands are bonded to rods of their own along the run.
    const rods = earth > 0 ? Math.floor(run.ground_m / figure(cat, 'earth.strandRod')) + 1 : 0;
    add('earth.rod', rods);
    add('earth.clamp', rods);
    add('switch.cutout', switched);
    add('sleeve.crossing', 2 * barbedWithin(line.strands, cat));
    if (line.tensioner) add('tensioner', bought.filter((s) => !isPanel(s, cat)).length);
    // A brace at both ends of the run, pulling against its wire.
    if (bought.length > 0 && !line.standing) {
      add('post.brace-240', 2);
      add('end.rail', 2);
      add('end.pin', 4);
      add('wire.ht25', 2 * figure(cat, 'end.braceWire'));
    }
  }
  for (const gate of gates) {
    add('gate', 1);
    if (!gate.cable) continue;
    const cables = (live ? 1 : 0) + (earth ? 1 : 0);
    add('cable', cables * (gate.width_m + figure(cat, 'gate.cableExtra')));
    add('conduit', cables ? gate.width_m + 1 : 0);
    add('clamp.jumper', 2 * cables);
  }
  add('sign', signs);
  add('sleeve.crossing', crossings * live);
  return [...t.items].map(([item, row]) => [item, row.get(line.id)!]);
}

/** Barbed strands between the lowest and the highest live one: each tie between live passes them. */
function barbedWithin(strands: readonly Strand[], cat: Catalogue): number {
  const live = strands.flatMap((s, i) => (s.duty === 'live' ? [i] : []));
  if (live.length < 2) return 0;
  return strands.slice(live[0], live.at(-1)).filter((s) => isBarbed(s, cat)).length;
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

/** Quantities of one energiser with its earth and lead-out. */
function countEnergiser(e: Energiser, lead_m: number, cat: Catalogue): [string, number][] {
  const rodLead = e.rodSpacing_m * Math.max(0, e.rods - 1) * figure(cat, 'supplies.rodLead');
  return [
    [`energiser.${e.model}`, 1],
    ['earth.rod', e.rods],
    ['earth.clamp', e.rods],
    ['cable', lead_m + rodLead],
    ['clamp.jumper', 1],
  ];
}

/**
 * The whole list with costs. Wire is bought by the coil and staples by the box, each rounded up
 * over the property; a join is counted for every coil but the first of its kind.
 */
export function supplyList(
  counted: Readonly<Record<string, readonly [string, number][]>>,
  energisers: readonly { energiser: Energiser; lead_m: number }[],
  cat: Catalogue,
  units: Units,
): Supply[] {
  const t = new Tally();
  for (const [line, items] of Object.entries(counted)) {
    for (const [item, n] of items) t.add(item, line, n);
  }
  for (const { energiser, lead_m } of energisers) {
    for (const [item, n] of countEnergiser(energiser, lead_m, cat)) t.add(item, energiser.id, n);
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
        priced(item, Math.ceil(exact / 500), 'box', lines, cat, `${Math.ceil(exact)} pieces`),
      );
    } else if (item === 'cable' || item === 'conduit') {
      out.push(priced(item, Math.ceil(exact), 'm', lines, cat, ''));
    } else {
      out.push(priced(item, Math.ceil(exact - 1e-9), 'each', lines, cat, ''));
    }
  }
  if (joiners > 0)
    out.push(priced('joiner', joiners, 'each', {}, cat, 'one for each coil that follows another'));
  return out;
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
