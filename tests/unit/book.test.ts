/** The price book, rows changed by hand, the shed and orders, designs apart, kinds over the years. */
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { checkPlan } from '../../src/core/check.js';
import { apart, hoursOfAll, oneMore, taxOf, type Designed } from '../../src/core/compare/apart.js';
import { crossings, paidAfter } from '../../src/core/compare/years.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import { ownCatalogue } from '../../src/core/plan/ownCatalogue.js';
import type { Plan } from '../../src/core/plan/schema.js';
import { basketOf, begun, cameOf, inShed, wantedFor, type Delivered, type Ledger, type OrderLine, type StockMove } from '../../src/core/supplies/basket.js'; // prettier-ignore
import { changeRow, dropQuote, putQuote } from '../../src/core/supplies/bookEdits.js';
import { daysBetween } from '../../src/core/base/days.js';
import { changeCurrency } from '../../src/core/supplies/currency.js';
import { withCuts } from '../../src/core/supplies/cutSupplies.js';
import { DELIVERIES, deliveryOf, GROUPS, groupOf } from '../../src/core/supplies/groups.js';
import { cutWires } from '../../src/core/supplies/wireCuts.js';
import { orderLinesCsv } from '../../src/formats/orderCsv.js';
import { pricesCsv, readPrices } from '../../src/formats/priceCsv.js';
import { energiser, line, plan, report, strands } from './scene.js';

const small = (part: Partial<Plan> = {}) => plan([line('a', [[0, 0], [200, 0]])], part); // prettier-ignore
const row = (p: Plan, id: string) => report(p).supplies.find((s) => s.id === id)!;
const changed = (by: (p: Plan) => void, part: Partial<Plan> = {}) => {
  const p = structuredClone(small(part));
  by(p);
  return p;
};

describe('price book', () => {
  it('the newest price counts, older ones are kept, and a price that stood by itself gives way', () => {
    const p = changed(
      (d) => {
        putQuote(d, 'tensioner', { price: 5, on: '2026-03-01', supplier: 'Shed' });
        putQuote(d, 'tensioner', { price: 4, on: '2025-01-01' });
        putQuote(d, 'tensioner', { price: 6, on: '2026-03-01', supplier: 'Shed' });
      },
      { overrides: { 'prices.tensioner.price': { value: 99 } } },
    );
    expect(p.book!['tensioner']!.map((q) => q.price)).toEqual([4, 6]);
    expect(p.overrides).toEqual({});
    const s = row(p, 'tensioner');
    expect([s.price, s.cost]).toEqual([6, 5 * 6]);
    expect(ownCatalogue(catalogue, p).prices['tensioner']).toMatchObject({ on: '2026-03-01', supplier: 'Shed' }); // prettier-ignore
    dropQuote(p, 'tensioner', 1);
    expect(row(p, 'tensioner').price).toBe(4);
    dropQuote(p, 'tensioner', 0);
    expect(p.book).toBeUndefined();
  });

  it('what is sold by the pack is bought by the pack', () => {
    const p = changed((d) => putQuote(d, 'insulator.steel', { price: 0.4, on: '2026-01-01', pack: 25 })); // prettier-ignore
    const [loose, packed] = [row(small(), 'insulator.steel'), row(p, 'insulator.steel')];
    expect(packed.quantity).toBe(Math.ceil(loose.quantity / 25) * 25);
    expect(packed.cost).toBeCloseTo(packed.quantity * 0.4, 9);
  });

  it('tax is that of each price, else of the property', () => {
    const p = changed((d) => putQuote(d, 'tensioner', { price: 10, on: '2026-01-01', tax: 0 }), {
      overrides: { 'defaults.supplies.tax.value': { value: 0.1 } },
    });
    const r = report(p);
    const others = r.supplies.filter((s) => s.id !== 'tensioner').reduce((sum, s) => sum + s.cost, 0); // prettier-ignore
    expect(taxOf(r)).toBeCloseTo(0.1 * others, 6);
  });

  it('another currency works out every price, the kept ones and an hour of work too', () => {
    const p = changed((d) => putQuote(d, 'tensioner', { price: 10, on: '2026-01-01' }));
    changeCurrency(p, 'USD', 2, ownCatalogue(catalogue, p));
    expect(p.book!['tensioner']![0]!.price).toBe(20);
    expect(p.overrides['prices.tensioner.price']).toBeUndefined();
    expect(p.overrides['prices.spring.price']!.value).toBeCloseTo(2 * catalogue.prices['spring']!.price, 6); // prettier-ignore
    expect(p.overrides['defaults.supplies.wage.value']!.value).toBe(50);
  });

  it('counts days between two days', () => {
    expect(daysBetween('2026-02-27', '2026-03-02')).toBe(3);
    expect(daysBetween('2024-02-27', '2024-03-02')).toBe(4);
  });

  it('an item that the book does not know is refused at the door, with its place', () => {
    const p = changed((d) => void (d.book = { 'no.such': [{ price: 1, on: '2026-01-01' }] }));
    expect(checkPlan(p, catalogue, new Set()).map((f) => f.place)).toEqual(['/book/no.such']);
    const own = changed((d) => {
      d.ownItems = { skip: { name: 'Skip', per: 'day', quantity: 2 } };
      putQuote(d, 'own.skip', { price: 80, on: '2026-01-01' });
      d.overrides['defaults.supplies.tax.value'] = { value: 0 };
    });
    expect(checkPlan(own, catalogue, new Set())).toEqual([]);
  });
});

describe('prices as CSV', () => {
  const book = { tensioner: [{ price: 4, on: '2025-01-01' }, { price: 5.5, on: '2026-01-01', supplier: '=Bad', tax: 0.05, pack: 10 }] }; // prettier-ignore
  const cat = ownCatalogue(catalogue, { overrides: {}, book });

  it('goes out with every kept price and comes in again as it was', () => {
    const text = pricesCsv(cat, book);
    const { quotes, faults } = readPrices(text, cat, '2026-06-01');
    expect(faults).toEqual([]);
    const own = quotes.filter((q) => q.item === 'tensioner').map((q) => q.quote);
    expect(own).toEqual([book.tensioner[1], book.tensioner[0]]);
    expect(quotes).toHaveLength(Object.keys(cat.prices).length + 1);
    // No cell that a spreadsheet would take for a formula.
    for (const cells of Papa.parse<string[]>(text).data) for (const cell of cells) expect(cell).not.toMatch(/^[=+@]|^-\D/); // prettier-ignore
  });

  it.each([
    ['item;price;date\ntensioner;3,95;2026-02-01', 3.95],
    ['name,price\nIn-line tensioner,"1,234.50"', 1234.5],
    ['item,price\ntensioner,"1.234,50"', 1234.5],
    ['\uFEFFItem,Price\ntensioner,7', 7],
  ])('reads what spreadsheets write: %j', (text, price) => {
    const { quotes, faults } = readPrices(text, cat, '2026-06-01');
    expect(faults).toEqual([]);
    expect(quotes[0]).toMatchObject({ item: 'tensioner', quote: { price } });
  });

  it.each([
    ['item,price\ntensioner,"1,250"', 'line 2', 'price'],
    ['item,price\ntensioner,-4', 'line 2', 'price'],
    ['item,price\nunknown,4', 'line 2', 'unknown'],
    ['item,price,date\ntensioner,4,01/02/2026', 'line 2', 'YYYY-MM-DD'],
    ['item,price,date\ntensioner,4,2026-02-31x', 'line 2', 'YYYY-MM-DD'],
    ['item,price,tax %\ntensioner,4,140', 'line 2', 'tax'],
    ['item,price,pack\ntensioner,4,0', 'line 2', 'pack'],
    ['thing,cost\ntensioner,4', 'line 1', 'columns'],
    ['', 'line 1', 'columns'],
  ])('passes over what it cannot read, with line and reason: %j', (text, where, words) => {
    const { quotes, faults } = readPrices(text, cat, '2026-06-01');
    expect(quotes).toEqual([]);
    expect(`line ${faults[0]!.line}`).toBe(where);
    expect(faults[0]!.reason).toContain(words);
  });
});

describe('rows changed by hand', () => {
  it('stands with its note until it is as counted; what is left out costs nothing', () => {
    const p = changed((d) => changeRow(d, 'tensioner', { quantity: 12, note: 'two spare' }));
    expect(row(p, 'tensioner')).toMatchObject({ quantity: 12, counted: 5, changed: 'two spare' });
    changeRow(p, 'tensioner', { out: true });
    expect(row(p, 'tensioner')).toMatchObject({ out: true, cost: 0 });
    expect(report(p).totals.cost).toBeCloseTo(report(small()).totals.cost - 5 * catalogue.prices['tensioner']!.price, 6); // prettier-ignore
    changeRow(p, 'tensioner', { out: false, quantity: null, note: '' });
    expect(p.supplyRows).toBeUndefined();
  });

  it('an item of one’s own is counted and priced', () => {
    const p = changed((d) => {
      d.ownItems = { skip: { name: 'Skip', per: 'day', quantity: 2 } };
      putQuote(d, 'own.skip', { price: 80, on: '2026-01-01' });
    });
    expect(row(p, 'own.skip')).toMatchObject({ name: 'Skip', quantity: 2, unit: 'day', cost: 160 });
    expect(groupOf('own.skip')).toBe('Further');
  });

  it('a reel that is left out is not cut from; a row by hand stays when the coils are cut', () => {
    const long = (part: Partial<Plan> = {}) => plan([line('a', [[0, 0], [180, 0]])], part); // prettier-ignore
    const cut = (p: Plan) => {
      const [r, cat] = [report(p), ownCatalogue(catalogue, p)];
      return withCuts(r.supplies, cutWires(p, r, cat), cat);
    };
    const coils = (list: ReturnType<typeof cut>) => Object.fromEntries(list.filter((s) => s.unit === 'coil' && s.quantity > 0).map((s) => [s.id, s.quantity])); // prettier-ignore
    expect(coils(cut(long()))).toEqual({ 'reel.ht25.1000': 1 });
    const without = long();
    changeRow(without, 'reel.ht25.1000', { out: true });
    changeRow(without, 'reel.ht25.500', { out: true });
    const list = cut(without);
    expect(coils(list)).toEqual({ 'wire.ht25': 1 });
    expect(list.filter((s) => s.id === 'reel.ht25.1000')).toHaveLength(1);
    const byHand = long();
    changeRow(byHand, 'wire.ht25', { quantity: 3 });
    expect(coils(cut(byHand))['wire.ht25']).toBe(3);
  });
});

const move = (item: string, quantity: number, why: StockMove['why'] = 'counted', length_m: number | null = null): StockMove => ({ item, quantity, why, length_m }); // prettier-ignore
const ordered = (order: string, item: string, quantity: number): OrderLine => ({ order, item, quantity, supplier: '', delivery: '', unit: 'each', price: 1, tax: 0.2 }); // prettier-ignore
const came = (order: string, item: string, quantity: number, state: Delivered['state'] = 'received'): Delivered => ({ order, item, quantity, state }); // prettier-ignore

describe('shed and orders', () => {
  const supplies = report(small()).supplies;
  const books = (part: Partial<Ledger> = {}): Ledger => ({ stock: [], orders: [], deliveries: [], ...part }); // prettier-ignore
  const basket = (ledger: Ledger) => basketOf(supplies, ledger, catalogue).find((b) => b.supply.id === 'tensioner')!; // prettier-ignore

  it('what is in the shed is not bought, and what was built in is no longer wanted', () => {
    expect(basket(books())).toMatchObject({ buy: 5, missing: 5 });
    expect(basket(books({ stock: [move('tensioner', 2)] }))).toMatchObject({ buy: 3, shed: 2 });
    // Two counted, two built in: three are still wanted, none lies there.
    const built = books({ stock: [move('tensioner', 2), move('tensioner', -2, 'built')] });
    expect(basket(built)).toMatchObject({ buy: 3, shed: 0, built: 2 });
    // One used for a repair is bought again.
    const repaired = books({ stock: [move('tensioner', 2), move('tensioner', -1, 'repair')] });
    expect(basket(repaired)).toMatchObject({ buy: 4, shed: 1, built: 0 });
    expect(basket(books({ stock: [move('tensioner', 9)] })).buy).toBe(0);
  });

  it('received goods go into the shed; what is short is bought again; what came wrong is still to come', () => {
    const orders = [ordered('1', 'tensioner', 5)];
    expect(basket(books({ orders }))).toMatchObject({ onOrder: 5, buy: 0, missing: 5 });
    const part = books({ orders, deliveries: [came('1', 'tensioner', 2)] });
    expect(basket(part)).toMatchObject({ onOrder: 3, shed: 2, buy: 0, missing: 3 });
    const short = books({ orders, deliveries: [came('1', 'tensioner', 2), came('1', 'tensioner', 3, 'short')] }); // prettier-ignore
    expect(basket(short)).toMatchObject({ onOrder: 0, shed: 2, buy: 3 });
    const wrong = books({ orders, deliveries: [came('1', 'tensioner', 5, 'wrong')] });
    expect(basket(wrong)).toMatchObject({ onOrder: 5, shed: 0, buy: 0 });
    expect(cameOf(orders[0]!, wrong.deliveries)).toEqual({ received: 0, short: 0, wrong: 5, toCome: 5 }); // prettier-ignore
  });

  it('what was built in uncounted is not owed by what comes later; a part of a coil is bought whole', () => {
    const at = (day: number, m: StockMove): StockMove => ({ ...m, time: `2026-05-0${day}T10:00:00Z` }); // prettier-ignore
    const later = books({ stock: [at(3, move('tensioner', 4)), at(1, move('tensioner', -2, 'built'))] }); // prettier-ignore
    expect(basket(later)).toMatchObject({ built: 2, shed: 4, buy: 0 });
    const wire = basketOf(supplies, books({ stock: [move('wire.ht25', -0.3, 'built')] }), catalogue).find((b) => b.supply.id === 'wire.ht25')!; // prettier-ignore
    expect(wire.buy).toBe(1);
  });

  it('never are shed, order and purchase together less than what is wanted (by lot)', () => {
    let state = 5;
    const random = (n: number) => (state = (state * 1_103_515_245 + 12_345) % 2_147_483_648) % n;
    for (let k = 0; k < 300; k++) {
      const ledger = books({
        stock: Array.from({ length: random(4) }, () => move('tensioner', random(9) - 3, (['counted', 'built', 'repair', 'lost'] as const)[random(4)])), // prettier-ignore
        orders: Array.from({ length: random(3) }, (_, i) => ordered(String(i), 'tensioner', 1 + random(4))), // prettier-ignore
        deliveries: Array.from({ length: random(3) }, (_, i) => came(String(i), 'tensioner', 1 + random(4), (['received', 'short', 'wrong'] as const)[random(3)])), // prettier-ignore
      });
      const b = basket(ledger);
      expect(b.buy + b.shed + b.onOrder + b.built).toBeGreaterThanOrEqual(b.supply.quantity);
      expect(Math.min(b.buy, b.shed, b.onOrder, b.built, b.missing)).toBeGreaterThanOrEqual(0);
      expect(b.buy).toBeLessThanOrEqual(b.supply.quantity);
    }
  });

  it('coils that were begun are cut first, whole ones are counted', () => {
    const ledger = books({ stock: [move('wire.ht25', 2), move('wire.ht25', 1, 'counted', 420), move('wire.ht25', -1, 'built')] }); // prettier-ignore
    expect(begun(ledger)).toEqual([{ wire: 'ht25', length_m: 420 }]);
    expect(inShed('wire.ht25', ledger)).toBe(1);
  });

  it('says what the next work wants and what of it is missing', () => {
    const two = report(plan([line('a', [[0, 0], [200, 0]]), line('b', [[0, 50], [60, 50]])])).supplies; // prettier-ignore
    const ends = wantedFor(two, books({ stock: [move('end.pin', 3)] }), { line: 'b', delivery: 'ends' }, catalogue); // prettier-ignore
    expect(ends.find((w) => w.supply.id === 'end.pin')).toMatchObject({ need: 4, shed: 3, missing: 1 }); // prettier-ignore
    expect(ends.every((w) => deliveryOf(w.supply.id) === 'ends')).toBe(true);
    const wire = wantedFor(two, books(), { line: 'b', delivery: 'wire' }, catalogue).find((w) => w.supply.id === 'wire.ht25')!; // prettier-ignore
    // A part of a coil: 60 m of five strands with what belongs to them.
    expect(wire.need * 1500).toBeGreaterThan(5 * 60);
    expect(wire.need * 1500).toBeLessThan(5 * 60 * 1.5);
    // A reel of another length is wire too, and what is left of one.
    const has = books({ stock: [move('reel.ht25.500', 1), move('wire.ht25', 1, 'counted', 250)] });
    const there = wantedFor(two, has, { line: 'b', delivery: 'wire' }, catalogue).find((w) => w.supply.id === 'wire.ht25')!; // prettier-ignore
    expect(there.shed).toBeCloseTo(750 / 1500, 9);
    expect(there.missing).toBe(0);
  });

  it('every item of the price book has a group and a delivery', () => {
    for (const item of Object.keys(catalogue.prices)) {
      expect(GROUPS).toContain(groupOf(item));
      expect(groupOf(item), item).not.toBe('Further');
      expect(DELIVERIES).toContain(deliveryOf(item));
    }
    expect(['post.end-240', 'gate.hinge', 'concrete', 'tool.jenny'].map(deliveryOf)).toEqual(Array(4).fill('ends')); // prettier-ignore
    expect(['post.steel-180', 'wire.ht25', 'sign'].map(deliveryOf)).toEqual(['posts', 'wire', 'power']); // prettier-ignore
  });

  it('an order leaves as CSV that no spreadsheet reads as formulas, with its sums', () => {
    const lines = [{ ...ordered('=1+1', 'tensioner', 4), name: '@bad', toCome: 4 }];
    const rows = Papa.parse<string[]>(orderLinesCsv(lines, 'EUR')).data;
    expect(rows[1]!.slice(0, 4)).toEqual(["'=1+1", '', '', "'@bad"]);
    expect(rows.at(-2)![7]).toBe('4.00');
    expect(rows.at(-1)![7]).toBe('4.80');
  });
});

describe('designs side by side', () => {
  const designed = (p: Plan): Designed => ({ plan: p, report: report(p), cat: ownCatalogue(catalogue, p) }); // prettier-ignore
  const fed = (heights: number[]) => plan([line('a', [[0, 0], [300, 0]], { strands: strands(heights) })], { energisers: { unit: energiser('a', 0) } }); // prettier-ignore

  it('one strand more takes its wire, insulators, tensioner, clamps and hours, and nothing that a strand does not', () => {
    const base = fed([0.4, 0.8]);
    const more = oneMore(base.lines['a']!.strands)!;
    expect(more.strand.height_m).toBe(0.6);
    expect(more.strands.map((s) => s.height_m)).toEqual([0.4, 0.6, 0.8]);
    const d = apart(designed(base), designed({ ...base, lines: { a: { ...base.lines['a']!, strands: more.strands } } })); // prettier-ignore
    expect(d.wire_m[1] - d.wire_m[0]).toBeCloseTo(300, 6);
    expect(d.posts[1]).toBe(d.posts[0]);
    const of = Object.fromEntries(d.parts.map((p) => [p.id, p.quantity[1] - p.quantity[0]]));
    const posts = base.lines['a'] && report(base).lines['a']!.posts;
    expect(of['tensioner']).toBe(1);
    expect(of['insulator.end']).toBe(2);
    expect(of['insulator.steel']).toBe(posts!.filter((p) => p.role === 'line').length);
    expect(d.hours[1]).toBeGreaterThan(d.hours[0]);
    // Wire by the metre, not by the coil: about 0.1 a metre at the least, and far from a whole coil.
    expect(d.used[1] - d.used[0]).toBeGreaterThan(300 * 0.09);
    expect(d.used[1] - d.used[0]).toBeLessThan(139);
    expect(d.volts.find((v) => v.season === 'wet')!.worst.every((w) => w !== null)).toBe(true);
  });

  it('a design beside itself differs in nothing; turned round, every difference has the other sign', () => {
    const [a, b] = [designed(fed([0.2, 0.4, 0.8])), designed(fed([0.25, 0.5, 0.75, 1]))];
    const same = apart(a, a);
    expect([same.parts, same.onlyA, same.onlyB]).toEqual([[], [], []]);
    const [ab, ba] = [apart(a, b), apart(b, a)];
    expect(ba.cost).toEqual([...ab.cost].reverse());
    expect(new Set(ba.onlyA.map((f) => f.id))).toEqual(new Set(ab.onlyB.map((f) => f.id)));
    expect(ba.parts.map((p) => [p.id, -p.cost])).toEqual(ab.parts.map((p) => [p.id, p.cost]));
  });

  it('a strand more is refused where there is no gap or no room', () => {
    expect(oneMore(strands([0.5]))).toBeNull();
    expect(oneMore(strands(Array.from({ length: 20 }, (_, k) => 0.1 * (k + 1))))).toBeNull();
  });

  it('a fence is built at about the pace of the trade: 45 driven timber posts in 3.5 h by four (common practice)', () => {
    const p = plan([line('a', [[0, 0], [46 * 5 + 4.8, 0]], { post: 'timber-180', maxBay_m: 5, strands: strands([0.9]) })]); // prettier-ignore
    const posts = report(p).lines['a']!.posts.filter((x) => x.role === 'line').length;
    expect(posts).toBe(45);
    const half = plan([line('a', [[0, 0], [46 * 5 + 4.8, 0]], { post: 'timber-180', maxBay_m: 5, standing: true, strands: strands([0.9]) })]); // prettier-ignore
    const d = (q: Plan) => hoursOfAll({ plan: q, report: report(q), cat: catalogue });
    const ends = report(p).lines['a']!.ends.length;
    // What a standing fence does not want is the posts and the two ends.
    const setting = d(p) - d(half);
    expect(setting).toBeGreaterThan(14);
    expect(setting).toBeLessThan(14 + 3 * ends);
  });
});

describe('kinds over the years', () => {
  it('is built anew when it has had its day, and not in the last year of need', () => {
    const fence = { first: 10, yearly: 1, life_y: 10 };
    expect([0, 5, 10, 10.5, 20, 21].map((t) => paidAfter(fence, t))).toEqual([10, 15, 20, 30.5, 40, 51]); // prettier-ignore
  });

  it('finds the year at which the dearer becomes the cheaper, both ways', () => {
    const [cheap, dear] = [{ first: 4, yearly: 1, life_y: 100 }, { first: 10, yearly: 0.4, life_y: 100 }]; // prettier-ignore
    // 4 + t = 10 + 0.4 t: t = 10.
    expect(crossings(cheap, dear, 30)).toEqual([{ year: 10.1, b: true }]);
    expect(crossings(dear, cheap, 30)).toEqual([{ year: 10.1, b: false }]);
    expect(crossings(cheap, dear, 9)).toEqual([]);
    expect(crossings(cheap, cheap, 30)).toEqual([]);
  });
});
