/** Places and their wiring: the drawing by its geometry, ties set by hand, and what becomes of them. */
import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  asProposed,
  copyTies,
  placesAlike,
  restring,
  tie,
  untie,
} from '../../src/core/edit/joining.js';
import { catalogue } from '../../src/core/plan/shipped.js';
import type { Plan } from '../../src/core/plan/schema.js';
import { cablesOf, circuitOf, tyingOf } from '../../src/core/power/circuit.js';
import { groundOf } from '../../src/core/terrain/ground.js';
import { agedOf } from '../../src/core/wiring/ageing.js';
import {
  drawingOf,
  segments,
  SWITCH,
  type Box,
  type Drawing,
  type XY,
} from '../../src/core/wiring/drawing.js';
import { fencesOf } from '../../src/core/wiring/networks.js';
import {
  fedStrands,
  placesOf,
  takenAt,
  type Arriving,
  type Place,
} from '../../src/core/wiring/place.js';
import { edit } from '../../src/formats/patch.js';
import { parsePlan } from '../../src/formats/planFile.js';
import { energiser, line, networkOf, plan, report, strands } from './scene.js';
import { acrossCorner, cornered, ladder } from './wrong.js';

const demo = parsePlan(readFileSync('demo/hollin-scar.plan.json', 'utf8'));
const ground = groundOf(demo.plan, demo.grids);
const demoNets = Object.keys(demo.plan.energisers).map((id) => networkOf(demo.plan, id, ground));

/** What is wrong with a drawing; empty: nothing lies on anything else. */
function faults(d: Drawing, place: Place): string[] {
  const out: string[] = [];
  const pieces = [
    ...d.strands.flatMap((s) => [
      { who: `strand ${s.end}`, p: s.from, q: s.to },
      ...(s.tail ? [{ who: `strand ${s.end}`, p: s.tail[0], q: s.tail[1] }] : []),
    ]),
    ...d.wires.flatMap((w) => segments(w.points).map(([p, q]) => ({ who: `${w.is} ${w.of}`, p, q }))),
  ]; // prettier-ignore
  const fixed = new Map(d.wires.map((w) => [`${w.is} ${w.of}`, w]));
  const same = (a: XY, b: XY) => Math.hypot(a[0] - b[0], a[1] - b[1]) < 0.01;
  const between = (v: number, a: number, b: number) => v > Math.min(a, b) + 0.01 && v < Math.max(a, b) - 0.01; // prettier-ignore
  pieces.forEach((a, i) => {
    for (const b of pieces.slice(i + 1)) {
      if (a.who === b.who) continue;
      const k: 0 | 1 = a.p[0] === a.q[0] ? 0 : 1;
      const other: 0 | 1 = b.p[0] === b.q[0] ? 0 : 1;
      if (k === other) {
        const run: 0 | 1 = k === 0 ? 1 : 0;
        const lap = Math.min(Math.max(a.p[run], a.q[run]), Math.max(b.p[run], b.q[run])) - Math.max(Math.min(a.p[run], a.q[run]), Math.min(b.p[run], b.q[run])); // prettier-ignore
        if (Math.abs(a.p[k] - b.p[k]) < 3 && lap > 0.01) out.push(`${a.who} lies on ${b.who}`);
        continue;
      }
      const [up, flat] = k === 0 ? [a, b] : [b, a];
      const at: XY = [up.p[0], flat.p[1]];
      if (!between(at[0], flat.p[0], flat.q[0]) || !between(at[1], up.p[1], up.q[1])) continue;
      if (!fixed.get(up.who)!.hops.some((h) => same(h, at)))
        out.push(`${up.who} crosses ${flat.who} without saying so`);
    }
  });
  // What is fixed to a strand touches that strand, and no other wire but those that are fixed to it too.
  for (const w of d.wires)
    for (const dot of w.dots) {
      const on = d.strands.filter(
        (s) => s.from[1] === dot[1] && between(dot[0], s.from[0], s.to[0]),
      );
      if (on.length !== 1) out.push(`${w.is} ${w.of} is fixed to ${on.length} strands`);
      for (const o of pieces)
        if (o.p[0] === o.q[0] && o.p[0] === dot[0] && between(dot[1], o.p[1], o.q[1])) out.push(`${o.who} seems to be fixed where ${w.is} ${w.of} is`); // prettier-ignore
    }
  // A switch stands in its own wire and on nothing else.
  for (const w of d.wires) {
    const cut = w.is === 'tie' && place.ties[w.of]!.switch === true;
    if (cut !== (w.cut !== null)) out.push(`${w.is} ${w.of} has a switch where none is, or none`);
    if (!w.cut) continue;
    const [along, across] = w.cut.upright ? [SWITCH.across, SWITCH.along] : [SWITCH.along, SWITCH.across]; // prettier-ignore
    const [x, y] = w.cut.at;
    for (const { who, p, q } of pieces)
      if (who !== `${w.is} ${w.of}` && Math.max(p[0], q[0]) > x - along && Math.min(p[0], q[0]) < x + along && Math.max(p[1], q[1]) > y - across && Math.min(p[1], q[1]) < y + across) out.push(`${who} runs through the switch of tie ${w.of}`); // prettier-ignore
    if (!segments(w.points).some(([p, q]) => (p[0] === x && between(y, p[1], q[1])) || (p[1] === y && between(x, p[0], q[0])))) out.push(`the switch of tie ${w.of} stands beside it`); // prettier-ignore
  }
  place.ties.forEach(({ a, b }, k) => {
    const dots = d.wires.find((w) => w.is === 'tie' && w.of === k)!.dots.map((x) => x[1]);
    const ys = [a, b].map((e) => d.strands[e]!.from[1]);
    if (dots[0] !== ys[0] || dots[1] !== ys[1]) out.push(`tie ${k} leads elsewhere`);
  });
  const labels: [string, Box][] = [
    ...d.strands.map((s): [string, Box] => [`label ${s.end}`, s.label]),
    ...d.heads.map((h, k): [string, Box] => [`head ${k}`, h]),
    ...d.leads.map((b, k): [string, Box] => [`lead label ${k}`, b]),
  ];
  labels.forEach(([name, a], i) => {
    for (const [other, b] of labels.slice(i + 1))
      if (a.x < b.x + b.w && b.x < a.x + a.w && a.y < b.y + b.h && b.y < a.y + a.h) out.push(`${name} lies on ${other}`); // prettier-ignore
    for (const { who, p, q } of pieces)
      if (Math.max(p[0], q[0]) > a.x && Math.min(p[0], q[0]) < a.x + a.w && Math.max(p[1], q[1]) > a.y && Math.min(p[1], q[1]) < a.y + a.h) out.push(`${who} runs through ${name}`); // prettier-ignore
    if (a.x < 0 || a.y < 0 || a.x + a.w > d.width || a.y + a.h > d.height) out.push(`${name} is off the sheet`); // prettier-ignore
  });
  // What is bought is what is drawn: a connector at each place where a jumper is fixed.
  const fixedAt = new Set(d.wires.filter((w) => w.is === 'tie').flatMap((w) => w.dots.map((x) => x.join()))); // prettier-ignore
  const counted = Object.values(takenAt(place).connectors).reduce((a, b) => a + b, 0);
  if (fixedAt.size !== counted) out.push(`${fixedAt.size} connectors drawn, ${counted} counted`);
  // Higher strands are drawn higher.
  for (const s of d.strands)
    for (const t of d.strands)
      if (place.arriving[s.end]!.height_m > place.arriving[t.end]!.height_m + 0.0051 && s.from[1] >= t.from[1]) out.push(`strand ${s.end} is not above ${t.end}`); // prettier-ignore
  return out;
}

/** Lines of up to eight strands that end at a place, begin there or go through; any of them tied to any other. */
const randomPlaces = fc
  .array(
    fc.record({
      before: fc.boolean(),
      after: fc.boolean(),
      heights_cm: fc.uniqueArray(fc.integer({ min: 3, max: 180 }), { minLength: 1, maxLength: 8 }),
    }),
    { minLength: 1, maxLength: 4 },
  )
  .chain((lines) => {
    const arriving = lines.flatMap(({ before, after, heights_cm }, l) => {
      const sides = before || after ? [...(before ? ['before'] : []), ...(after ? ['after'] : [])] : ['through']; // prettier-ignore
      return sides.flatMap((side, r) =>
        [...heights_cm]
          .sort((a, b) => a - b)
          .map((cm, strand): Arriving => ({ name: `l${l}/${strand}~${r + 1}`, line: `l${l}`, side: side as Arriving['side'], strand, duty: 'live', height_m: cm / 100, wire: 'ht25' })), // prettier-ignore
      );
    });
    const end = fc.integer({ min: 0, max: arriving.length - 1 });
    return fc.record({
      arriving: fc.constant(arriving),
      ties: fc.array(fc.record({ a: end, b: end, kind: fc.constantFrom('hand', 'clamp', 'tap'), switch: fc.option(fc.constant(true as const), { nil: undefined }) }, { requiredKeys: ['a', 'b', 'kind'] }), { maxLength: 2 * arriving.length }), // prettier-ignore
      leads: fc.array(fc.record({ on: end, to: fc.constantFrom('gate', 'unit', 'rod', 'diverter'), duty: fc.constantFrom('live', 'earth'), length_m: fc.constant(5) }), { maxLength: 4 }), // prettier-ignore
    });
  })
  .map((p) => ({ ...p, ties: p.ties.filter((t) => t.a !== t.b), location: 'x', line: 'l0', at_m: 0, kind: 'branch', join: null })) as fc.Arbitrary<Place>; // prettier-ignore

describe('the wiring of a place', () => {
  it('is drawn with nothing on anything else, at every place of the demo', () => {
    const all = demoNets.flatMap((net) => placesOf(net));
    expect(all.length).toBeGreaterThan(20);
    for (const p of all) expect(faults(drawingOf(p), p), `${p.line} ${p.at_m}`).toEqual([]);
  });

  it('and at random ones', () => {
    fc.assert(
      fc.property(randomPlaces, (p) => {
        expect(faults(drawingOf(p), p)).toEqual([]);
      }),
      { numRuns: 200 },
    );
  });
});

const at = (p: Plan, at_m: number, id?: string) =>
  placesOf(networkOf(p, id)).find((x) => Math.abs(x.at_m - at_m) < 0.5)!;
const change = (p: Plan, recipe: (d: Plan) => void) => edit(p, recipe).next;

describe('places', () => {
  it('say what the circuit has: every jumper is a tie or holds a cable', () => {
    for (const net of demoNets) {
      const { jumpers } = circuitOf(net, 'today');
      const all = placesOf(net);
      const count = (f: (p: Place) => number) => all.reduce((n, p) => n + f(p), 0);
      expect(jumpers.length).toBe(count((p) => p.ties.length + p.leads.filter((l) => l.to !== 'rod').length)); // prettier-ignore
    }
  });

  it('are those of the report when they are worked out beside it', () => {
    const lines = report(demo.plan, ground);
    const beside = fencesOf(demo.plan, lines, catalogue).find((f) => f.energiser?.id === 'steading')!; // prettier-ignore
    expect(placesOf(beside)).toEqual(placesOf(demoNets[0]!));
  });

  it('are tied strand by strand across a corner and from strand to strand at an end; k strands take k connectors', () => {
    const p = cornered({});
    expect(at(p, 150)).toMatchObject({ kind: 'corner', join: null });
    expect(at(p, 150).ties).toHaveLength(4 + 5);
    // The ladder of the first run holds each of its five, and each jumper across has two ends.
    expect(takenAt(at(p, 150)).connectors).toEqual({ hand: 0, clamp: 5 + 2 * 5, tap: 0 });
    expect(at(p, 300)).toMatchObject({ kind: 'stop' });
    expect(at(p, 300).ties).toHaveLength(4);
    expect(takenAt(at({ ...p, connectors: 'tap' }, 300)).connectors).toEqual({ hand: 0, clamp: 0, tap: 5 }); // prettier-ignore
  });

  it('a strand with a cut-out hangs on the others through a switch, counted where it is drawn', () => {
    const p = cornered({});
    p.lines['a']!.strands[0]!.switched = true;
    const end = placesOf(networkOf(p)).find((x) => x.kind === 'stop')!;
    expect(end.ties.map((t) => t.switch ?? false)).toEqual([true, false, false, false]);
    // The switch parts the chain: two clamps for it, four for the rest.
    expect(takenAt(end)).toMatchObject({ switches: 1, connectors: { clamp: 6 } });
    // Also where it comes last in the chain.
    expect(takenAt({ ...end, ties: [{ a: 2, b: 1, kind: 'clamp' }, { a: 1, b: 0, kind: 'clamp', switch: true }] })).toMatchObject({ switches: 1, connectors: { clamp: 4 } }); // prettier-ignore
    const corner = placesOf(networkOf(p)).find((x) => x.kind === 'corner')!;
    expect(corner.ties.filter((t) => t.switch)).toHaveLength(1);
    const bought = Object.fromEntries(report(p).supplies.map((s) => [s.id, s]));
    // At both ends of the line, at the corner, and where the unit feeds.
    expect(bought['switch.cutout']!.quantity).toBe(4);
    // In the season in which it is off it is tied to nothing.
    const weedy = tyingOf(networkOf(p), 'weedy').ties;
    expect([...weedy.values()].flatMap((t) => t.ties).some((t) => /^a\/0(~|$)/.test(t.a) || /^a\/0(~|$)/.test(t.b))).toBe(false); // prettier-ignore
  });

  it('a gate has a cable for each duty, unless the plan says that one is left out', () => {
    const l = line('a', [[0, 0], [300, 0]], { strands: [...strands([0.3]), ...strands([0.6], { duty: 'earth' }), ...strands([0.9])] }); // prettier-ignore
    const gated = (part: object) => plan([l], { energisers: { unit: energiser('a', 0) }, gates: { g: { id: 'g', name: 'G', line: 'a', at_m: 150, width_m: 4, cable: true, ...part } } }); // prettier-ignore
    const duties = (part: object) => cablesOf(networkOf(gated(part)), 'today').map((c) => c.duty);
    expect(duties({})).toEqual(['live', 'earth']);
    expect(duties({ earthCable: false })).toEqual(['live']);
    expect(duties({ cable: false, earthCable: true })).toEqual(['earth']);
    const cable = (part: object) => report(gated(part)).supplies.find((s) => s.id === 'cable')!.quantity; // prettier-ignore
    // The opening of 4 m and 3 more for each, beside the lead-out of a metre.
    expect(cable({})).toBe(15);
    expect(cable({ earthCable: false })).toBe(8);
  });

  it('with an earth strand: live and earth apart, the rods on the earth strand alone', () => {
    const p = cornered({}, 'earth');
    const all = placesOf(networkOf(p));
    expect(all.flatMap((x) => x.leads.filter((l) => l.to === 'rod')).length).toBeGreaterThan(0);
    for (const x of all) {
      for (const { a, b } of x.ties) expect(x.arriving[a]!.duty).toBe(x.arriving[b]!.duty);
      for (const l of x.leads) expect(x.arriving[l.on]!.duty).toBe(l.duty);
    }
  });

  it('a line that meets another is tied to it once, where the strands hang nearest', () => {
    const p = plan(
      [
        line('a', [[0, 0], [200, 0]], { strands: strands([0.2, 0.5, 0.9]) }),
        line('b', [[100, 0], [100, 90]], { strands: strands([0.3, 0.55]) }),
      ],
      { energisers: { unit: energiser('a', 0) } },
    ); // prettier-ignore
    const meet = at(p, 100);
    expect(meet.kind).toBe('branch');
    expect(meet.ties).toHaveLength(2 + 1 + 1);
    const between = meet.ties.filter((t) => meet.arriving[t.a]!.line !== meet.arriving[t.b]!.line);
    expect(between.map((t) => [meet.arriving[t.a]!.height_m, meet.arriving[t.b]!.height_m])).toEqual([[0.5, 0.55]]); // prettier-ignore
  });

  it('the demo has a strand that is dead at a corner, and one that is fed from one end', () => {
    const fed = fedStrands(demoNets[0]!)!;
    expect([fed.get('yard/0~1'), fed.get('yard/1~1'), fed.get('yard/2~1')]).toEqual(['twice', 'once', 'dead']); // prettier-ignore
    const rules = report(demo.plan, ground).findings.filter((f) => f.place.line === 'yard').map((f) => f.rule); // prettier-ignore
    expect(rules).toEqual(expect.arrayContaining(['strand-dead', 'strand-one-sided']));
  });
});

describe('ties by hand', () => {
  it('untied, tied again and put back: the plan is as it was', () => {
    const p = change(cornered({}), (d) => void delete d.lines['a']!.joins);
    const place = at(p, 150);
    const across = place.ties.findIndex((t) => place.arriving[t.a]!.strand === 2 && place.arriving[t.b]!.side === 'after'); // prettier-ignore
    const open = change(p, (d) => untie(d, place, across));
    expect(fedStrands(networkOf(open))!.get('a/2~1')).toBe('once');
    const there = at(open, 150);
    expect(there.join).toEqual({ line: 'a', at_m: there.join!.at_m });
    expect(there.ties).toHaveLength(8);
    const { a, b, kind } = place.ties[across]!;
    const again = change(open, (d) => tie(d, there, { a, b, kind }));
    expect(fedStrands(networkOf(again))).toEqual(fedStrands(networkOf(p)));
    expect(change(again, (d) => tie(d, at(again, 150), { a: b, b: a, kind }))).toEqual(again);
    expect(change(again, (d) => asProposed(d, at(again, 150)))).toEqual(p);
  });

  it('are given to places alike, and to no others', () => {
    const two = plan([line('a', [[0, 0], [150, 0], [150, 150], [0, 150]])], { energisers: { unit: energiser('a', 20) } }); // prettier-ignore
    const place = at(two, 150);
    const open = change(two, (d) => untie(d, place, 8));
    const all = placesOf(networkOf(open));
    const alike = placesAlike(at(open, 150), all);
    expect(alike.map((p) => Math.round(p.at_m))).toEqual([300]);
    const copied = change(open, (d) => copyTies(d, at(open, 150), alike));
    expect(at(copied, 300).ties).toEqual(at(copied, 150).ties);
    expect(at(copied, 450).join).toBeNull();
    // And as proposed is given as well.
    const back = change(copied, (d) => asProposed(d, at(copied, 150)));
    expect(change(back, (d) => copyTies(d, at(back, 150), [at(back, 300)]))).toEqual(two);
  });

  it('follow their strands when one is taken, moved past another, or comes between', () => {
    const p = cornered({ 150: acrossCorner([2]), 300: ladder('before', [2]) });
    const ties = (q: Plan) => q.lines['a']!.joins![0]!.ties.map(({ a, b }) => [q.lines['a']!.strands[a.strand]!.height_m, q.lines['a']!.strands[b.strand]!.height_m]); // prettier-ignore
    const own = p.lines['a']!.strands;
    const taken = change(p, (d) => restring(d, 'a', own.filter((_, k) => k !== 0))); // prettier-ignore
    expect(ties(taken)).toEqual(ties(p).filter((t) => !t.includes(own[0]!.height_m)));
    const more = change(p, (d) => restring(d, 'a', [own[0]!, { ...own[0]!, height_m: 0.2 }, ...own.slice(1)])); // prettier-ignore
    expect(ties(more)).toEqual(ties(p));
    // The lowest goes to the top: its ties go with it.
    const moved = change(p, (d) =>
      restring(d, 'a', [...own.slice(1), { ...own[0]!, height_m: 1.2 }]),
    );
    expect(ties(moved)).toEqual(ties(p).map((t) => t.map((h) => (h === own[0]!.height_m ? 1.2 : h)))); // prettier-ignore
  });
});

describe('ties that age', () => {
  it('cost the far end: hand ties the most, taps hardly anything, more in the wet than in the dry', () => {
    for (const season of ['dry', 'wet'] as const) {
      const [hand, clamp, tap] = agedOf(demoNets[0]!, season).map((a) => a.left);
      expect(hand).toBeLessThan(clamp!);
      expect(clamp).toBeLessThan(tap!);
      expect(tap).toBeGreaterThan(0.99);
      expect(hand).toBeGreaterThan(0.5);
    }
    const [dry, wet] = (['dry', 'wet'] as const).map((s) => agedOf(demoNets[0]!, s)[0]!.left);
    expect(wet).toBeLessThan(dry!);
  });

  it('by hand: one aged jumper before a leak takes the share of a divider', () => {
    // One live strand each: the corner's only jumper carries all that leaks beyond it.
    const p = plan([line('a', [[0, 0], [100, 0], [100, 2000]], { strands: strands([0.9]) })], { energisers: { unit: energiser('a', 0) } }); // prettier-ignore
    const net = networkOf(p);
    const g = circuitOf(net, 'wet').strand_types['a/0']!.g_s_per_km * 2;
    const r = catalogue.connectors['hand']!.aged_ohm - catalogue.defaults['network.jumper']!.value;
    const { left } = agedOf(net, 'wet')[0]!;
    expect(left).toBeCloseTo(1 / (1 + r * g), 2);
  });
});
