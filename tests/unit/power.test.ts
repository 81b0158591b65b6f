import { describe, expect, it } from 'vitest';
import { figure, type SeasonId } from '../../src/core/plan/catalogue.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import type { Energiser, Gate, Line, Plan } from '../../src/core/plan/schema.js';
import { circuitOf, feedOf } from '../../src/core/power/circuit.js';
import { solveUnit } from '../../src/core/power/network.js';
import { createEvaluator } from '../../src/core/evaluate.js';
import { energiser, FLAT, line, networkOf, plan, report, strands } from './scene.js';

/** The circuit of a set of lines with one energiser, its earth as given and no rods of earth strands. */
function circuit(lines: Line[], unit: Energiser, gates: Gate[] = [], r_earth_ohm = 10) {
  const own = plan(lines, {
    energisers: { unit },
    gates: Object.fromEntries(gates.map((g) => [g.id, g])),
  });
  const net = networkOf(own);
  const make = (season: SeasonId = 'today') => ({
    ...circuitOf(net, season),
    r_earth_ohm,
    shunts: [],
  });
  return { circuit: make(), make, feed: feedOf(unit, net.wired, net.topology) };
}

const jumper = figure(catalogue, 'network.jumper');
const lead = figure(catalogue, 'energiser.leadResistance');

describe('circuit', () => {
  it('ties every live strand at both ends of a run, and nowhere between', () => {
    const { circuit: c } = circuit(
      [
        line('a', [
          [0, 0],
          [600, 0],
        ]),
      ],
      energiser('a', 0),
    );
    const places = c.jumpers.map((j) => j.location);
    // Four jumpers for five strands at each end, one more for the lead-out.
    expect(places.filter((p) => p === places[0]).length).toBe(5);
    expect(new Set(places).size).toBe(2);
    expect(c.sections.filter((s) => s.id.startsWith('a#'))).toHaveLength(3);
  });

  it('five tied strands carry like five in parallel: far volts by hand, leak at the far end alone', () => {
    const unit = energiser('a', 0, { e: 0, n: 1 });
    const { circuit: c } = circuit(
      [
        line('a', [
          [0, 0],
          [1000, 0],
        ]),
      ],
      unit,
    );
    // All leakage taken away, one 1000 ohm leak to soil at the far end: plain series resistances.
    const bare = {
      ...c,
      strand_types: Object.fromEntries(
        Object.entries(c.strand_types).map(([k, t]) => [k, { ...t, g_s_per_km: 0 }]),
      ),
      shunts: [{ location: c.sections[3]!.to, strand: 'a/0', to: 'soil', r_ohm: 1000 }],
    };
    const r = solveUnit(bare).r_in_ohm;
    const cable = figure(catalogue, 'network.gateCable') / 1000;
    const least = 1000 + 10 + lead + cable + 150 / 5;
    expect(r).toBeGreaterThan(least);
    // Jumper chains add a little at both ends, no more than a strand's own chain.
    expect(r - least).toBeLessThan(6 * jumper);
  });

  it('a gate without cable parts the line; with it, the pulse crosses for the price of the cable', () => {
    const gate = (cable: boolean): Gate => ({
      id: 'g',
      name: 'G',
      line: 'a',
      at_m: 300,
      width_m: 4,
      cable,
    });
    const far = (cable: boolean) => {
      const { circuit: c } = circuit(
        [
          line('a', [
            [0, 0],
            [600, 0],
          ]),
        ],
        energiser('a', 0),
        [gate(cable)],
      );
      const end = c.sections.filter((s) => s.id.startsWith('a#')).at(-1)!.to;
      return solveUnit(c).nodes.find((n) => n.location === end && n.strand === 'a/0~1')!.v_v!;
    };
    expect(far(false)).toBe(0);
    expect(far(true)).toBeGreaterThan(0);
  });

  it('an earth strand bonded at the unit brings the current home where rods are poor', () => {
    const alternate = [0.3, 0.5, 0.7, 0.9].map(
      (h, i) => strands([h], { duty: i % 2 ? 'earth' : 'live' })[0]!,
    );
    const { circuit: c } = circuit(
      [
        line(
          'a',
          [
            [0, 0],
            [800, 0],
          ],
          { strands: alternate },
        ),
      ],
      energiser('a', 0),
      [],
      300,
    );
    expect(c.energiser.earth_strands).toHaveLength(1);
    const end = c.sections.filter((s) => s.id.startsWith('a#')).at(-1)!.to;
    const touch = (to: string) =>
      solveUnit({ ...c, shunts: [{ location: end, strand: 'a/0', to, r_ohm: 500 }] }).r_in_ohm;
    // An animal between two strands loads the unit more than one through hoof and far rods.
    expect(touch('a/1')).toBeLessThan(touch('soil'));
  });

  it('where lines meet, all their live strands are tied', () => {
    const lines = [
      line('a', [
        [0, 0],
        [300, 0],
      ]),
      line(
        'b',
        [
          [150, 0],
          [150, 200],
        ],
        { strands: strands([0.4, 0.9]) },
      ),
    ];
    const { circuit: c } = circuit(lines, energiser('a', 0));
    const unit = solveUnit(c);
    expect(unit.nodes.every((n) => n.strand.includes('!') || n.v_v! > 0)).toBe(true);
    const joint = c.sections.find((s) => s.id.startsWith('b#'))!.from;
    expect(c.jumpers.filter((j) => j.location === joint)).toHaveLength(6);
  });

  it('a ring is fed from both sides: cut once, everything still lives', () => {
    const ring = line('a', [
      [0, 0],
      [200, 0],
      [200, 200],
      [0, 200],
      [0, 0],
    ]);
    const { circuit: c } = circuit([ring], energiser('a', 0));
    const cut = c.sections.find((s) => s.id.startsWith('a#'))!;
    const broken = {
      ...c,
      breaks: Object.keys(cut.strands).map((strand) => ({
        section: cut.id,
        x_m: cut.length_m / 2,
        strand,
      })),
    };
    expect(solveUnit(broken).nodes.every((n) => n.v_v! > 0)).toBe(true);
  });

  it('the lead-out is as long as it is drawn, a metre at least', () => {
    expect(
      circuit(
        [
          line('a', [
            [0, 0],
            [100, 0],
          ]),
        ],
        energiser('a', 40, { e: 40, n: 30 }),
      ).feed,
    ).toMatchObject({ line: 'a', s: 40, lead_m: 30 });
    expect(
      circuit(
        [
          line('a', [
            [0, 0],
            [100, 0],
          ]),
        ],
        energiser('a', 0),
      ).feed!.lead_m,
    ).toBe(1);
  });
});

const fence = (km: number, part: Partial<Plan> = {}, at = 0) =>
  plan(
    [
      line('a', [
        [0, 0],
        [km * 1000, 0],
      ]),
    ],
    { energisers: { unit: energiser('a', at, { e: at, n: 1 }) }, ...part },
  );
const unitOf = (p: Plan) => report(p).energisers['unit']!;

describe('power of a fence', () => {
  it('a long fence fed from its middle stands better than fed from an end', () => {
    const worst = (at: number) => unitOf(fence(8, {}, at)).seasons['wet']!.worst!.v_V;
    expect(worst(4000)).toBeGreaterThan(1.05 * worst(0));
  });

  it('one strand fed at one end has its volts from end to end, the least of them named', () => {
    const p = plan(
      [
        line(
          'a',
          [
            [0, 0],
            [1200, 0],
          ],
          { strands: strands([0.9]) },
        ),
      ],
      { energisers: { unit: energiser('a', 0) } },
    );
    const wet = unitOf(p).seasons['wet']!;
    const track = wet.lines['a']!;
    expect([track.s_m[0], track.s_m.at(-1)]).toEqual([0, 1200]);
    expect(wet.worst!.v_V).toBe(Math.min(...track.v_V));
  });

  it('a property’s own leakage is obeyed', () => {
    const own = fence(1.2, { overrides: { 'seasons.wet.leakage_S_per_km': { value: 2e-3 } } });
    expect(unitOf(own).seasons['wet']!.worst!.v_V).toBeLessThan(
      unitOf(fence(1.2)).seasons['wet']!.worst!.v_V,
    );
  });

  it('counts fence and wire: length over ground, times the live strands', () => {
    const e = unitOf(fence(1.2));
    expect(e.fence_m).toBeCloseTo(1200, 6);
    expect(e.wire_m).toBeCloseTo(6000, 6);
    // Common practice: about a joule for each 1.6 km.
    expect(e.joulesByLength).toBeCloseTo(0.75, 6);
  });

  it('a line of cold strands alone is neither fed nor dead', () => {
    const p = plan(
      [
        line(
          'a',
          [
            [0, 0],
            [100, 0],
          ],
          { strands: strands([0.9], { duty: 'cold' }) },
        ),
      ],
      { energisers: { unit: energiser('a', 0) } },
    );
    const r = report(p);
    expect(r.dead).toEqual([]);
    expect(r.energisers['unit']!.seasons['wet']!.worst).toBeNull();
    expect(r.energisers['unit']!.smallest).toBeNull();
  });

  it('two separate fences with a unit each are judged apart', () => {
    const p = plan(
      [
        line('a', [
          [0, 0],
          [100, 0],
        ]),
        line('b', [
          [0, 500],
          [2000, 500],
        ]),
      ],
      {
        energisers: {
          unit: energiser('a', 0),
          two: energiser('b', 0, { id: 'two', e: 0, n: 500 }),
        },
      },
    );
    const r = report(p);
    expect(r.energisers['unit']!.lines).toEqual(['a']);
    expect(r.energisers['two']!.lines).toEqual(['b']);
    expect(r.shared).toEqual([]);
    expect(r.energisers['unit']!.seasons['wet']!.worst!.v_V).toBeGreaterThan(
      r.energisers['two']!.seasons['wet']!.worst!.v_V,
    );
  });
});

describe('while something is in the hand', () => {
  it('asked in a hurry before anything is known, it gives a first figure that says so', () => {
    const about = createEvaluator()(fence(2), FLAT, catalogue, { hurry: 'first', mends: 0 });
    const unit = about.energisers['unit']!;
    expect(unit).toMatchObject({ about: true, least: null, smallest: null, felt: null });
    const real = unitOf(fence(2));
    expect(real.about).toBeUndefined();
    for (const season of ['dry', 'wet'] as const) {
      const ratio = unit.seasons[season]!.worst!.v_V / real.seasons[season]!.worst!.v_V;
      expect(Math.abs(ratio - 1)).toBeLessThan(0.35);
    }
    // Nothing is judged by it.
    expect(
      about.findings.filter((f) => f.rule === 'below-aim' || f.rule === 'felt-little'),
    ).toEqual([]);
    expect(about.dead).toEqual(report(fence(2)).dead);
  });
  it('the volts stay, or those of one season follow; at rest all do', () => {
    const work = createEvaluator();
    const p = fence(2);
    const before = work(p, FLAT, catalogue).energisers['unit']!;
    const longer = fence(2.6);
    const stay = work(longer, FLAT, catalogue, { hurry: true, mends: 0 }).energisers['unit']!;
    expect(stay).toBe(before);
    const follow = work(longer, FLAT, catalogue, { hurry: 'wet', mends: 0 }).energisers['unit']!;
    const rest = work(longer, FLAT, catalogue, { mends: 0 }).energisers['unit']!;
    expect(follow.seasons['wet']).toEqual(rest.seasons['wet']);
    expect(follow.seasons['dry']).toBe(before.seasons['dry']);
    expect(rest.seasons['dry']).not.toEqual(before.seasons['dry']);
    expect(rest).toEqual(report(longer).energisers['unit']);
  });
});
