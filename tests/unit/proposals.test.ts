/** What Joins proposes: ties more, what a break costs, switches that halve a search; each beside all that is possible. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { setSwitch, switchIn, tieFurther } from '../../src/core/edit/joining.js';
import { figure } from '../../src/core/plan/catalogue.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import type { Plan } from '../../src/core/plan/schema.js';
import { circuitOf } from '../../src/core/power/circuit.js';
import { fedOf } from '../../src/core/power/fed.js';
import { solveFence } from '../../src/core/power/network.js';
import { breakCost } from '../../src/core/wiring/breaking.js';
import { cutOutsOf } from '../../src/core/wiring/cutouts.js';
import { furtherTies, withTies, type FurtherTie } from '../../src/core/wiring/further.js';
import { halve, type Stretch } from '../../src/core/wiring/halving.js';
import { placesOf } from '../../src/core/wiring/place.js';
import { strongerTies } from '../../src/core/wiring/stronger.js';
import { edit } from '../../src/formats/patch.js';
import { energiser, FLAT, line, networkOf, plan, report, strands } from './scene.js';
import { often } from '../often.js';
import { acrossCorner, cornered, ladder } from './wrong.js';

/** Three runs in a row, whose joins tie some strands only. */
const threeRuns = (out: readonly (readonly number[])[]): Plan =>
  plan(
    [
      line('a', [[0, 0], [200, 0], [200, 300], [600, 300]], {
        joins: [
          { at_m: 0, ties: ladder('after', out[0]) },
          { at_m: 200, ties: acrossCorner(out[1]) },
          { at_m: 500, ties: acrossCorner(out[2]) },
          { at_m: 900, ties: ladder('before', out[3]) },
        ],
      }),
    ],
    { energisers: { unit: energiser('a', 0) } },
  ); // prettier-ignore
const some = fc.uniqueArray(fc.integer({ min: 1, max: 4 }), { maxLength: 2 });

describe('ties more', () => {
  const worstWith = (p: Plan, ties: readonly FurtherTie[]) => {
    const found = fedOf(withTies(circuitOf(networkOf(p), 'today'), ties, 0.05))!;
    return Math.max(0, ...found.break_cost.map((b) => b.lost_m));
  };

  it('are none where every strand is tied at both ends of its run', () => {
    const found = strongerTies(networkOf(cornered({})), 0.01)!;
    expect(found).toMatchObject({ worst_m: 0, left_m: 0, ties: [] });
    expect(found.limit_m).toBeCloseTo(0.01 * 5 * 300, 6);
    expect(furtherTies(networkOf(cornered({})))).toEqual([]);
  });

  it('are as few as trying all finds', () => {
    let asked = 0;
    fc.assert(
      fc.property(some, some, some, some, (...out) => {
        const p = threeRuns(out);
        const net = networkOf(p);
        const found = strongerTies(net, 0.02)!;
        expect(worstWith(p, found.ties)).toBeCloseTo(found.left_m, 6);
        const all = furtherTies(net);
        const few = (n: number, from: number, taken: FurtherTie[]): boolean =>
          worstWith(p, taken) <= Math.max(found.limit_m, found.left_m) + 1e-6 ||
          (n > 0 && all.some((t, k) => k >= from && few(n - 1, k + 1, [...taken, t])));
        if (found.ties.length > 0 && found.ties.length <= 3 && all.length <= 12) {
          asked++;
          expect(few(found.ties.length - 1, 0, [])).toBe(false);
        }
      }),
      { numRuns: 40 },
    );
    expect(asked).toBeGreaterThan(8);
  });

  it('are tied in the plan as they were proposed', () => {
    const p = threeRuns([[2], [], [], [3]]);
    const found = strongerTies(networkOf(p), 0.001)!;
    expect(found.ties.length).toBe(2);
    const { next } = edit(p, (d) => {
      const places = placesOf(networkOf(p));
      for (const t of found.ties)
        tieFurther(d, places.find((x) => x.location === t.location)!, [t]); // prettier-ignore
    });
    expect(strongerTies(networkOf(next), 0.001)).toMatchObject({ worst_m: 0, ties: [] });
    expect(report(next).findings.filter((f) => f.step === 'joins')).toEqual([]);
  });
});

describe('what a break costs', () => {
  it('is nothing to speak of where the strand is fed from both ends', () => {
    const cost = breakCost(networkOf(cornered({})), 'wet', { line: 'a', strand: 2, at_m: 80 })!;
    expect(cost.dark_m).toBe(0);
    expect(cost.worst.after_V / cost.worst.before_V).toBeGreaterThan(0.99);
    expect(cost.mend).toBeNull();
  });

  it('is all beyond it where the strand hangs on one end, and the tie at the other end mends it', () => {
    const p = cornered({ 300: ladder('before', [4]) });
    const at = { line: 'a', strand: 4, at_m: 200 };
    const cost = breakCost(networkOf(p), 'wet', at)!;
    expect(cost.dark_m).toBeCloseTo(100, 0);
    expect(cost.worst.after_V).toBe(0);
    const { tie, dark_m, worst } = cost.mend!;
    expect(tie.location).toBe('a:300.00');
    expect([tie.a, tie.b]).toContain('a/4~1');
    expect(dark_m).toBe(0);
    expect(worst.after_V / worst.before_V).toBeGreaterThan(0.95);
  });

  it('is mended by the tie with which least is lost, of all that could be made', () => {
    let mended = 0;
    fc.assert(
      fc.property(
        some,
        some,
        some,
        some,
        fc.nat(4),
        fc.integer({ min: 1, max: 89 }),
        (a, b, c, d, strand, at) => {
          const p = threeRuns([a, b, c, d]);
          const net = networkOf(p);
          const where = { line: 'a', strand, at_m: 10 * at };
          const cost = breakCost(net, 'wet', where);
          if (!cost) return;
          const lost = (x: { worst: { before_V: number; after_V: number } }) => x.worst.before_V - x.worst.after_V; // prettier-ignore
          const places = placesOf(net);
          const base = lost(cost);
          const others = furtherTies(net).map((t) => {
            const { next } = edit(p, (draft) => void tieFurther(draft, places.find((x) => x.location === t.location)!, [t])); // prettier-ignore
            return lost(breakCost(networkOf(next), 'wet', where)!);
          });
          if (!cost.mend) return;
          mended++;
          expect(lost(cost.mend)).toBeLessThan(base);
          // A tie may lift the volts before the break too; what is lost then is told against the plan as it is.
          expect(lost(cost.mend)).toBeLessThan(Math.min(...others) + 0.05 * cost.worst.before_V);
        },
      ),
      { numRuns: often(8, 60), seed: 3 },
    );
    expect(mended).toBeGreaterThan(often(1, 4));
  });

  it('has the volts of the whole solver at the place', () => {
    const p = plan([line('a', [[0, 0], [400, 0]], { strands: strands([0.5]) })], { energisers: { unit: energiser('a', 0) } }); // prettier-ignore
    const net = networkOf(p);
    const cost = breakCost(net, 'wet', { line: 'a', strand: 0, at_m: 150 })!;
    const plate = catalogue.energisers['m2']!;
    const load_line = { v_open_v: plate.open_V, v_500_ohm_v: plate.at500_V, v_200_ohm_v: plate.at200_V, v_100_ohm_v: plate.at100_V, v_50_ohm_v: plate.at50_V }; // prettier-ignore
    const circuit = circuitOf(net, 'wet');
    const whole = solveFence({ ...circuit, energiser: { ...circuit.energiser, load_line } });
    const far = whole.nodes.find((n) => n.location === 'a:400.00')!;
    // What loses most is what goes dark with the most volts: all nodes beyond are within a volt of the far end.
    expect(cost.worst.before_V).toBeCloseTo(far.v_v!, -1);
    expect(cost.dark_m).toBeCloseTo(250, 6);
    expect(cost.mend).toBeNull();
  });

  it('is not asked of what is not live', () => {
    expect(breakCost(networkOf(cornered({}, 'earth')), 'wet', { line: 'a', strand: 4, at_m: 80 })).toBeNull(); // prettier-ignore
  });
});

describe('openings that halve a search', () => {
  const both: Stretch['ends'] = [true, true];

  it('part a row of equal stretches in its middle, then the halves in theirs', () => {
    const row = Array.from({ length: 8 }, (_, k): Stretch => ({ u: `p${k}`, v: `p${k + 1}`, min: 10, ends: both })); // prettier-ignore
    const { openings, part_min, whole_min } = halve(row, 'p0', 20);
    expect([whole_min, part_min]).toEqual([80, 20]);
    expect(openings.map((o) => [o.off_min, o.on_min])).toEqual([[40, 40], [20, 20], [20, 20]]); // prettier-ignore
    expect(openings[0]!.switches).toEqual([{ stretch: 4, end: 0 }]);
    expect(openings.map((o) => o.after)).toEqual([null, { opening: 0, side: 'off' }, { opening: 0, side: 'on' }]); // prettier-ignore
    // A fault anywhere alike in 80: 40 on average without a switch, 20 with one.
    expect(openings[0]!.saves_min).toBe(20);
  });

  it('take two switches in a ring', () => {
    const ring = Array.from({ length: 6 }, (_, k): Stretch => ({ u: `p${k}`, v: `p${(k + 1) % 6}`, min: 10, ends: both })); // prettier-ignore
    const [first] = halve(ring, 'p0', 30).openings;
    expect(first!.switches).toHaveLength(2);
    expect([first!.off_min, first!.on_min]).toEqual([30, 30]);
  });

  it('use what is in already, and stand only where they can', () => {
    const row = (ends: (k: number) => Stretch['ends']) => Array.from({ length: 6 }, (_, k): Stretch => ({ u: `p${k}`, v: `p${k + 1}`, min: 10, ends: ends(k) })); // prettier-ignore
    const has = halve(row((k) => (k === 2 ? ['in', true] : both)), 'p0', 40); // prettier-ignore
    expect(has.openings[0]!.switches).toEqual([{ stretch: 2, end: 0 }]);
    const far = halve(row((k) => (k === 2 ? [false, true] : [false, false])), 'p0', 40); // prettier-ignore
    expect(far.openings[0]).toMatchObject({ switches: [{ stretch: 2, end: 1 }], off_min: 30, on_min: 30 }); // prettier-ignore
    expect(
      halve(
        row(() => [false, false]),
        'p0',
        20,
      ),
    ).toMatchObject({ openings: [], part_min: 60 });
  });

  it('save nearly as much for each switch as the best of all cuts', () => {
    let [worst, asked] = [1, 0];
    const graph = fc
      .array(fc.tuple(fc.nat(6), fc.nat(6), fc.integer({ min: 1, max: 30 })), {
        minLength: 4,
        maxLength: 9,
      }) // prettier-ignore
      .map((es) => es.map(([a, b, min]): Stretch => ({ u: `p${a}`, v: `p${b}`, min, ends: both })));
    fc.assert(
      fc.property(graph, (own) => {
        const { openings, whole_min } = halve(own, 'p0', 0);
        const names = [...new Set(own.flatMap((s) => [s.u, s.v]))].filter((n) => n !== 'p0');
        let best = 0;
        for (let bits = 0; bits < 1 << names.length; bits++) {
          const on = new Set(['p0', ...names.filter((_, i) => bits & (1 << i))]);
          const reached = new Set(['p0']);
          for (let more = true; more;) {
            more = false;
            for (const { u, v } of own)
              if (on.has(u) && on.has(v) && reached.has(u) !== reached.has(v)) {
                reached.add(u).add(v);
                more = true;
              }
          }
          const hung = connected(own);
          const cut = own.filter((s) => reached.has(s.u) !== reached.has(s.v));
          const off = own.filter((s) => hung.has(s.u) && !(reached.has(s.u) && reached.has(s.v)));
          const share = off.reduce((t, s) => t + s.min, 0) / whole_min;
          if (cut.length === 0 || share < 0.1 || share > 0.9) continue;
          best = Math.max(
            best,
            ((whole_min / 2) * (1 - share ** 2 - (1 - share) ** 2)) / cut.length,
          );
        }
        const first = openings.map((o) => o.saves_min / o.switches.length);
        if (best === 0) return;
        asked++;
        worst = Math.min(worst, Math.max(...first, 0) / best);
      }),
      { numRuns: 300, seed: 7 },
    );
    expect(asked).toBeGreaterThan(150);
    expect(worst).toBeGreaterThan(0.95);
  });

  it('stand before any run that ends at a place, and leave the others there tied', () => {
    const lines = [line('a', [[0, 0], [300, 0], [600, 0]]), line('b', [[300, 0], [300, 300]])]; // prettier-ignore
    lines[0]!.vertices[1]!.kind = 'corner';
    const p = plan(lines, { energisers: { unit: energiser('a', 0) } });
    const place = placesOf(networkOf(p)).find((x) => x.kind === 'branch')!;
    const ends = [...new Map(place.arriving.map((a) => [`${a.line} ${a.side}`, a])).values()];
    expect(ends).toHaveLength(3);
    for (const { line: id, side, name } of ends) {
      const run = Number(/~(\d+)$/.exec(name)?.[1] ?? 0);
      const { next } = edit(p, (d) => void switchIn(d, place, { line: id, run, side }));
      expect(fedOf(circuitOf(networkOf(next), 'today')), `${id} ${side}`).toMatchObject({ dead: [], one_sided: [] }); // prettier-ignore
      // Opened, just what hangs on it is dead: of the run that the unit is on, both others.
      const { next: open } = edit(next, (d) => {
        for (const l of Object.values(d.lines)) for (const j of l.joins ?? []) j.ties = j.ties.filter((t) => !t.switch); // prettier-ignore
      });
      const fed = fedOf(circuitOf(networkOf(open), 'today'))!;
      expect((fed.live_m - fed.fed_m) / 5).toBeCloseTo(id === 'a' && side === 'before' ? 600 : 300, 6); // prettier-ignore
    }
  });

  it('never ask for a switch where there is nothing to part', () => {
    // A gate in the middle, with its cable: each run ends there alone.
    const gates = { g: { id: 'g', name: 'G', line: 'a', at_m: 500, width_m: 4, cable: true } };
    const p = plan([line('a', [[0, 0], [1000, 0]])], { energisers: { unit: energiser('a', 0) }, gates }); // prettier-ignore
    const net = networkOf(p);
    expect(placesOf(net).filter((x) => x.kind === 'gate')).toHaveLength(2);
    expect(cutOutsOf(net, 1)).toMatchObject({ openings: [] });
    expect(cutOutsOf(net, 1)!.whole_min).toBeGreaterThan(14.9);
  });

  it('darken in the plan just what they say, and leave the fence sound when they are closed', () => {
    const p = plan(
      [
        line('a', [[0, 0], [500, 0], [1000, 0], [1500, 0]].map(([x, y]) => [x!, y!])),
        line('b', [[500, 0], [500, 800]]),
        line('c', [[1000, 0], [1000, 600]]),
      ],
      { energisers: { unit: energiser('a', 0) } },
    ); // prettier-ignore
    for (const v of p.lines['a']!.vertices.slice(1, -1)) v.kind = 'corner';
    const net = networkOf(p);
    const found = cutOutsOf(net, 10)!;
    const walk = figure(catalogue, 'search.walk');
    expect(found.whole_min).toBeCloseTo(2900 / walk, 6);
    expect(found.part_min).toBeLessThanOrEqual(0.55 * found.whole_min);
    const [first] = found.openings;
    const places = placesOf(net);
    const { next } = edit(p, (d) => {
      for (const s of first!.switches)
        expect(
          switchIn(
            d,
            places.find((x) => x.location === s.location)!,
            s,
          ),
        ).not.toBeNull();
    });
    const closed = networkOf(next);
    expect(fedOf(circuitOf(closed, 'today'))).toMatchObject({ dead: [], one_sided: [] });
    expect(report(next, FLAT).findings.filter((f) => f.step === 'joins')).toEqual([]);
    const bought = (q: Plan) => report(q).supplies.find((s) => s.id === 'switch.cutout')?.quantity ?? 0; // prettier-ignore
    expect(bought(next)).toBe(first!.switches.length);
    // Opened: the ties with a switch in them tie nothing.
    const { next: opened } = edit(next, (d) => {
      for (const l of Object.values(d.lines))
        for (const j of l.joins ?? []) j.ties = j.ties.filter((t) => !t.switch);
    });
    const fed = fedOf(circuitOf(networkOf(opened), 'today'))!;
    expect((fed.live_m - fed.fed_m) / 5).toBeCloseTo(first!.off_min * walk, 3);
    // Taken out again, the plan is what it was, place by place.
    const { next: out } = edit(next, (d) => {
      for (const x of placesOf(closed))
        x.ties.forEach((t, k) => t.switch && setSwitch(d, x, k, false));
    });
    expect(bought(out)).toBe(0);
    // Switches that are in part the fence for the next proposal.
    expect(cutOutsOf(closed, 10)!.openings[0]!.switches.every((s) => s.in)).toBe(true);
  });
});

const connected = (own: readonly Stretch[]): Set<string> => {
  const out = new Set(['p0']);
  for (let more = true; more;) {
    more = false;
    for (const { u, v } of own)
      if (out.has(u) !== out.has(v)) {
        out.add(u).add(v);
        more = true;
      }
  }
  return out;
};
