import { describe, expect, it } from 'vitest';
import { summary } from '../../src/cli/summary.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import { ownCatalogue } from '../../src/core/plan/ownCatalogue.js';
import { changeCurrency } from '../../src/core/supplies/currency.js';
import { ownShare } from '../../src/core/supplies/takeoff.js';
import type { Plan } from '../../src/core/plan/schema.js';
import { flatRun } from './runs.js';
import { strainOf } from '../../src/core/wire/strain.js';
import { energiser, line, plan, report, strands } from './scene.js';

const got = (p: Plan) => Object.fromEntries(report(p).supplies.map((s) => [s.id, s]));
const one = (
  part: Partial<Plan> = {},
  points: [number, number][] = [
    [0, 0],
    [60, 0],
  ],
) => plan([line('a', points)], part);
const gate = { id: 'g', name: 'G', line: 'a', at_m: 30, width_m: 4, cable: true };

describe('supplies', () => {
  it('a gate adds its leaf, cable with what goes down and up, conduit, two clamps, and two braced posts', () => {
    const plain = got(one());
    const gated = got(one({ gates: { g: gate } }));
    expect(gated['gate']!.quantity).toBe(1);
    expect(gated['cable']!.quantity).toBe(7);
    expect(gated['conduit']!.quantity).toBe(5);
    expect(gated['post.end-240']!.quantity).toBe(plain['post.end-240']!.quantity + 2);
    expect(gated['post.brace-240']!.quantity).toBe(plain['post.brace-240']!.quantity + 2);
    // Two runs more than one: ten clamps for the ties, two for the cable.
    expect(gated['clamp.jumper']!.quantity).toBe(plain['clamp.jumper']!.quantity + 12);
  });

  it('an earth strand wants a cable of its own under the gate', () => {
    const mixed = plan(
      [
        line(
          'a',
          [
            [0, 0],
            [60, 0],
          ],
          { strands: [...strands([0.3, 0.6]), ...strands([0.9], { duty: 'earth' })] },
        ),
      ],
      { gates: { g: gate } },
    );
    expect(got(mixed)['cable']!.quantity).toBe(14);
  });

  it('a corner is one post and two braces', () => {
    const s = got(
      one({}, [
        [0, 0],
        [60, 0],
        [60, 60],
      ]),
    );
    expect(s['post.end-240']!.quantity).toBe(3);
    expect(s['post.brace-240']!.quantity).toBe(4);
  });

  it('signs stand along boundaries alone', () => {
    expect(got(one())['sign']).toBeUndefined();
    const boundary = plan([
      line(
        'a',
        [
          [0, 0],
          [250, 0],
        ],
        { boundary: true },
      ),
    ]);
    expect(got(boundary)['sign']!.quantity).toBe(4);
  });

  it('an energiser brings its rods, a clamp for each, lead and lead-out', () => {
    const s = got(
      one({ energisers: { unit: energiser('a', 0, { rods: 4, rodSpacing_m: 3, e: 0, n: 20 }) } }),
    );
    expect([s['earth.rod']!.quantity, s['earth.clamp']!.quantity]).toEqual([4, 4]);
    // 20 m of cable to the fence; the rods are joined by the fence's own wire.
    expect(s['cable']!.quantity).toBe(20);
    // One and a half times the 9 m from rod to rod.
    expect(s['wire.ht25']!.lines['unit']).toBeCloseTo(13.5, 9);
    const safe = got(one({ energisers: { unit: energiser('a', 0, { rods: 4, e: 0, n: 20, diverter: { rods: 5 } }) } })); // prettier-ignore
    expect([safe['earth.rod']!.quantity, safe['diverter']!.quantity]).toEqual([9, 1]);
    expect(s['energiser.m2']!.quantity).toBe(1);
  });

  it('wire is bought by whole coils of its kind, and each coil after the first is joined on', () => {
    const long = plan([
      line(
        'a',
        [
          [0, 0],
          [1000, 0],
        ],
        { strands: [...strands([0.3, 0.6]), ...strands([0.9], { wire: 'mt25' })] },
      ),
    ]);
    const s = got(long);
    // (2 x 1003 + 24 m of braces + 15) x 1.03 = 2107 m of 1500 m coils; 1018 x 1.03 = 1049 m of 1000 m coils.
    expect(s['wire.ht25']!.quantity).toBe(2);
    expect(s['wire.mt25']!.quantity).toBe(2);
    // Tied by hand it takes no part; with wedges one for each.
    expect(s['joiner.wedge']).toBeUndefined();
    for (const l of Object.values(long.lines)) l.join = 'wedge';
    expect(got(long)['joiner.wedge']).toMatchObject({ quantity: 2, uses: { 'coils joined': 2 } });
  });

  it('uninsulated cold strands want staples on timber and no insulators', () => {
    const cold = plan([
      line(
        'a',
        [
          [0, 0],
          [60, 0],
        ],
        { post: 'timber-180', strands: strands([0.9], { duty: 'cold', insulated: false }) },
      ),
    ]);
    const s = got(cold);
    expect(s['insulator.line']).toBeUndefined();
    expect(s['insulator.end']).toBeUndefined();
    expect(s['staple']!.note).toMatch(/^\d+ pieces$/);
  });

  it('the price book of the property decides, down to nothing at all', () => {
    const p = one({
      overrides: {
        'prices.earth.rod.price': { value: 0 },
        'prices.post.steel-180.price': { value: 100 },
      },
    });
    expect(got(p)['post.steel-180']!.cost).toBe(900);
  });

  it('notes follow the units of the property', () => {
    expect(got(one())['wire.ht25']!.note).toContain('m with tails');
    expect(got(one({ units: 'imperial' }))['wire.ht25']!.note).toContain('ft with tails');
  });

  it('shares each item out over the lines that take it', () => {
    const p = plan([
      line('a', [
        [0, 0],
        [60, 0],
      ]),
      line('b', [
        [0, 90],
        [30, 90],
      ]),
    ]);
    const posts = got(p)['post.steel-180']!;
    expect(posts.lines).toEqual({ a: 9, b: 4 });
    expect(posts.quantity).toBe(13);
  });
});

describe('strain', () => {
  const climate = { cold_C: -10, today_C: 15, hot_C: 35 };
  const l = line(
    'a',
    [
      [0, 0],
      [1, 0],
    ],
    { strands: [...strands([0.3]), ...strands([0.9], { wire: 'mt25' })] },
  );
  const run = flatRun(new Array<number>(20).fill(5));
  const rows = strainOf(l, [run], climate, catalogue);

  it('gives a row for each wire of each run; colder is tighter, and the school holds at 15 degrees C', () => {
    expect(rows.map((r) => r.wire)).toEqual(['ht25', 'mt25']);
    for (const r of rows) {
      expect(r.today_N).toBeCloseTo(1000, 6);
      expect(r.cold_N).toBeGreaterThan(r.today_N);
      expect(r.hot_N).toBeLessThan(r.today_N);
      expect(r.sagHot_m).toBeGreaterThan(r.sagToday_m);
    }
    // The softer wire breaks sooner: its limit is lower.
    expect(rows[1]!.limit_N).toBeLessThan(rows[0]!.limit_N);
  });

  it('a push at mid-bay moves a strand by about F L / (4 T); common practice', () => {
    const simple = (150 * 5) / (4 * rows[0]!.hot_N);
    expect(rows[0]!.pushed_m).toBeLessThan(simple);
    expect(rows[0]!.pushed_m).toBeGreaterThan(0.7 * simple);
  });
});

describe('summary', () => {
  it('says totals, volts by season and findings in the property’s units', () => {
    const p = one({ energisers: { unit: energiser('a', 0) }, units: 'imperial' });
    const text = summary(report(p), 'imperial', catalogue);
    expect(text).toContain('mi over ground');
    expect(text).toMatch(/wet\s+worst \d/);
    expect(text).toContain('confirm');
  });
});

describe('money', () => {
  it('of one line is what it takes at the price as it is used; the lines make up the whole but for rounding up', () => {
    const p = plan([line('a', [[0, 0], [300, 0]]), line('b', [[0, 90], [200, 90]])]); // prettier-ignore
    const r = report(p);
    const of = (id: string) => r.supplies.flatMap((s) => ownShare(s, id, catalogue) ?? []);
    const sum = (rows: readonly { cost: number }[]) => rows.reduce((n, s) => n + s.cost, 0);
    const wire = of('a').find((s) => s.id === 'wire.ht25')!;
    expect(wire.unit).toBe('m');
    expect(wire.cost).toBeCloseTo((wire.quantity * 139 * 1.03) / 1500, 2);
    const posts = (id: string) => of(id).find((s) => s.id === 'post.steel-180')!.quantity;
    expect(posts('a') + posts('b')).toBe(
      r.supplies.find((s) => s.id === 'post.steel-180')!.quantity,
    );
    // Whole coils and boxes cost more than what is used of them, joiners belong to no line.
    expect(sum(of('a')) + sum(of('b'))).toBeLessThan(r.totals.cost);
    expect(sum(of('a')) + sum(of('b'))).toBeGreaterThan(0.6 * r.totals.cost);
    expect(ownShare(r.supplies[0]!, 'nobody', catalogue)).toBeNull();
  });

  it('in another currency is worked out, or only called so', () => {
    const p = plan([line('a', [[0, 0], [300, 0]])], { overrides: { 'prices.gate.price': { value: 200 } } }); // prettier-ignore
    const cat = ownCatalogue(catalogue, p);
    const made = (factor: number) => {
      const q = structuredClone(p) as Plan;
      changeCurrency(q, 'NZD', factor, cat);
      return q;
    };
    expect(made(1)).toEqual({ ...p, currency: 'NZD' });
    const q = made(1.8);
    expect(q.overrides['prices.gate.price']).toEqual({ value: 360 });
    expect(report(q).totals.cost / report(p).totals.cost).toBeCloseTo(1.8, 1);
    expect(() => made(0)).toThrow(RangeError);
  });
});
