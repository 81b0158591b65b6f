/** What decides between make-ups: what an animal feels, what a push opens, what it costs. */
import { describe, expect, it } from 'vitest';
import { createChoices } from '../../src/core/choices.js';
import { bayFor, costAt, tightest, tradeOf } from '../../src/core/compare/trade.js';
import { costPerMetre } from '../../src/core/compare/compare.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import type { Line, Plan } from '../../src/core/plan/schema.js';
import { hoofContact } from '../../src/core/power/feel.js';
import { PARTS } from '../../src/core/parts/index.js';
import { countOf, createPipeline } from '../../src/core/pipeline.js';
import { judge } from '../../src/core/strands/judge.js';
import { longestBayThatHolds, pushedBy } from '../../src/core/strands/opening.js';
import { bisect } from '../../src/core/base/numbers.js';
import { wireOf } from '../../src/core/wire/wires.js';
import { requirementOf } from '../../src/core/strands/requirement.js';
import { energiser, FLAT, line, plan, report, strands } from './scene.js';

describe('what an animal feels', () => {
  it('hooves: two discs of radius b on soil, rho/(4 b) each [published: resistance of a disc]', () => {
    expect(hoofContact(100, 0.04)).toBeCloseTo(100 / (4 * 0.04) / 2, 12);
  });
});

/** The choices of one line of 400 m on a soil, fed in its middle. */
function choose(soil: string, part: Partial<Line> = {}, more: Partial<Plan> = {}) {
  const own = plan(
    [
      line(
        'a',
        [
          [0, 0],
          [400, 0],
        ],
        part,
      ),
    ],
    { soil, energisers: { unit: energiser('a', 200, { model: 'm35' }) }, ...more },
  );
  const choices = createChoices()('a', own, FLAT, createPipeline()(own, FLAT, catalogue))!;
  const rowOf = (order: string) => choices.comparison!.rows.find((r) => r.order === order)!;
  return { own, choices, rowOf, comparison: choices.comparison! };
}

describe('the orders of duties', () => {
  it('all live where soil is moist, by turns where it is dry and stony', () => {
    expect(choose('clay').comparison.recommended).toBe('live');
    const dry = choose('stony');
    expect(dry.comparison.recommended).toBe('turns');
    const hoof = dry.rowOf('turns').shocks.find((s) => s.season === 'dry' && s.way === 'hoof')!;
    const between = dry
      .rowOf('turns')
      .shocks.find((s) => s.season === 'dry' && s.way === 'between')!;
    expect(between.volts_V).toBeGreaterThan(4 * hoof.volts_V);
  });

  it('names the soil at which the choice turns, and it does turn there', () => {
    const turn = choose('clay').comparison.turn_ohm_m!;
    const at = (rho: number) =>
      choose(
        'clay',
        {},
        { overrides: { 'soils.clay.dry_ohm_m': { value: rho, note: 'measured' } } },
      );
    // The rods' own resistance follows the soil as well, so a little room is left on both sides.
    expect(at(turn * 0.8).rowOf('live').worst!.share).toBeGreaterThan(1);
    expect(at(turn * 1.2).rowOf('live').worst!.share).toBeLessThan(1);
  });

  it('a choice that a few per cent decide is called too close', () => {
    const at = (rho: number) => choose('clay', {}, { overrides: { 'soils.clay.dry_ohm_m': { value: rho } } }); // prettier-ignore
    // The soil on which all live feels just what is wanted, rods and all.
    const just = bisect((rho) => at(rho).rowOf('live').worst!.share - 1, 200, 20_000, 1e-4);
    const near = at(just * 1.02);
    expect(near.rowOf('live').worst!.share).toBeLessThan(1);
    expect([near.comparison.recommended, near.comparison.close]).toEqual(['turns', 'live']);
    expect(at(just * 0.9).comparison).toMatchObject({ recommended: 'live', close: null });
    expect(at(just * 1.5).comparison).toMatchObject({ recommended: 'turns', close: null });
  });

  it('snow under the hooves is as bad as dry soil, or worse', () => {
    const bare = choose('clay', { stepOver: true });
    const snow = choose('clay', { stepOver: true, snow: true });
    expect(snow.comparison.soil_ohm_m.dry).toBe(5000);
    expect(snow.rowOf('coldTop').worst!.share).toBeLessThan(
      0.5 * bare.rowOf('coldTop').worst!.share,
    );
  });

  it('a cut-out on the lowest strand leaks less in the wet and costs its switches', () => {
    const { rowOf } = choose('clay');
    const [all, cut] = [rowOf('live'), rowOf('switched')];
    expect(cut.leakage_S_per_km).toBeLessThan(0.7 * all.leakage_S_per_km);
    expect(cut.upkeep_h_per_km).toBeLessThan(all.upkeep_h_per_km);
    // At both ends of its run a switch, and one clamp more, since the switch parts the chain of ties.
    const price = (id: string) => catalogue.prices[id]!.price;
    const switches = 2 * (price('switch.cutout') + price('clamp.jumper'));
    expect(400 * (cut.cost_per_m - all.cost_per_m)).toBeCloseTo(switches, 6);
  });

  it('says what it rests on when nothing feeds the line', () => {
    const { comparison } = choose('clay', {}, { energisers: {} });
    expect(comparison.because).toBe('unfed');
    expect(comparison.rows.every((r) => r.shocks.length === 0)).toBe(true);
  });

  it('works out anew only the row of what stands while a strand is dragged', () => {
    const choices = createChoices();
    const stages = createPipeline();
    const { own } = choose('clay');
    const first = choices('a', own, FLAT, stages(own, FLAT, catalogue))!.comparison!;
    const strand = { ...own.lines['a']!.strands[4]!, height_m: 0.95 };
    const a = { ...own.lines['a']!, strands: [...own.lines['a']!.strands.slice(0, 4), strand] };
    const next = { ...own, lines: { a } };
    const second = choices('a', next, FLAT, stages(next, FLAT, catalogue))!.comparison!;
    const same = second.rows.filter((r, i) => r === first.rows[i]).map((r) => r.order);
    expect(same).toEqual(['live', 'turns', 'switched', 'coldTop']);
  });
});

describe('posts against strands', () => {
  const pushed = (tension: number, bay: number) => {
    const l = line('a', [[0, 0], [bay * 4, 0]], { left: ['goats'], maxBay_m: bay, strands: strands([0.15, 0.3, 0.45, 0.6, 0.8, 1.05]) }); // prettier-ignore
    const overrides = { 'schools.moderate.tension_N': { value: tension, note: 'test' } };
    const r = report(plan([l], { overrides })).lines['a']!;
    return judge(l.strands, r.requirement!, catalogue, pushedBy(r.strain)).filter(
      (m) => m.about === 'opening' && m.state === 'broken',
    ).length;
  };

  // Common practice: six strands with posts at 9 m let goats squeeze through, at 3.7 m they hold.
  it('six strands hold goats on posts at 3.7 m and not at 9 m', () => {
    expect(pushed(1000, 3.7)).toBe(0);
    expect(pushed(1000, 9)).toBeGreaterThan(0);
  });

  it('more tension, smaller gaps and more strands each allow longer bays', () => {
    const need = requirementOf(
      { left: ['goats'], right: [], keepOut: [], boundary: false },
      catalogue,
    )!;
    const opens = Math.min(...need.needs.map((n) => n.opening_m));
    const bay = (tighter: number, hot_N: number) => {
      const wire = { hot_N, EA_N: wireOf('ht25', catalogue).EA_N, run_m: 200 };
      return longestBayThatHolds(opens + tighter, [wire, wire], catalogue);
    };
    expect(bay(0, 1500)).toBeGreaterThan(1.5 * bay(0, 800));
    expect(bay(0.05, 800)).toBeGreaterThan(bay(0, 800));
    const rows = tightest(need, catalogue);
    expect(rows.length).toBeGreaterThan(3);
    rows.slice(1).forEach((r, i) => {
      expect(r.count).toBe(rows[i]!.count + 1);
      expect(r.tighter).toBeGreaterThanOrEqual(rows[i]!.tighter);
    });
  });

  it('costs what the list of supplies costs, on a plain line of equal bays', () => {
    const l = line('a', [
      [0, 0],
      [240, 0],
    ]);
    const own = plan([l]);
    const { lines, of } = createPipeline()(own, FLAT, catalogue);
    const report = lines['a']!;
    const trade = tradeOf(l, report, catalogue)!;
    const real = costPerMetre(
      {
        line: l,
        report,
        count: (one) => countOf(PARTS, one, [], of['a']!, catalogue),
      },
      catalogue,
    );
    // The list has 39 line posts for 40 bays and two end posts: that difference is known.
    const bays = 40;
    const { post, hold } = trade.cost;
    const ends = 2 * catalogue.prices['post.end-240']!.price - (post + 5 * hold);
    expect(costAt(trade, 5, 240 / bays) + ends / 240).toBeCloseTo(real, 6);
    const bay = bayFor(trade, 5, costAt(trade, 5, 4.2))!;
    expect(bay).toBeCloseTo(4.2, 9);
  });
});

describe('other kinds of fence', () => {
  const { choices } = choose('clay', {
    left: ['sheep'],
    keepOut: ['deer-out'],
    vertices: line('a', [
      [0, 0],
      [100, 0],
    ]).vertices,
  });
  const row = (kind: string) => choices.kinds.find((k) => k.kind === kind)!;
  const price = (item: string) => catalogue.prices[item]!.price;

  it('cost what a person would add up on 100 m of woven wire', () => {
    // A roll of 100 m with 3 % spare, one strand above it; posts at 3 m with an insulator; two braces.
    const wire = 1.03 * (price('wire.woven') / 100 + price('wire.ht25') / 1500);
    const posts = (price('post.timber-180') + price('insulator.line')) / 3;
    const braces = (2 * (price('post.brace-240') + price('end.rail') + 2 * price('end.pin'))) / 100;
    expect(row('woven').cost_per_m).toBeCloseTo(wire + posts + braces, 9);
    expect(row('woven').posts_per_100m).toBeCloseTo(100 / 3, 9);
    expect(row('woven').cost_per_m_year).toBeCloseTo(row('woven').cost_per_m / 25, 12);
  });

  it('say who is not held', () => {
    expect(row('woven').fails).toEqual(['deer-out']);
    expect(row('rope').fails).toEqual(['sheep', 'deer-out']);
    expect(row('deerTall').fails).toEqual(['sheep']);
  });

  it('against deer stand upright, lean by plain geometry, or take two rows of posts', () => {
    expect(row('deerTall')).toMatchObject({ height_m: 2.4, width_m: 0 });
    expect(row('deerLean').height_m).toBeCloseTo(1.6 * Math.cos(Math.PI / 12), 12);
    expect(row('deerLean').width_m).toBeCloseTo(1.6 * Math.sin(Math.PI / 12), 12);
    expect(row('deerDouble').posts_per_100m).toBe(2 * row('deerTall').posts_per_100m);
  });
});
