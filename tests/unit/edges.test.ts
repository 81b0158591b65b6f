/**
 * Where each finding begins: silent on one side of the figure that the trade gives, spoken on the other.
 * The figures are written out here, from the handbook, so that a change of one is seen.
 */
import { describe, expect, it } from 'vitest';
import type { Plan, Strand } from '../../src/core/plan/schema.js';
import { energiser, line, plan, report, strands } from './scene.js';
import { fed } from './wrong.js';
import { paddock, thing, things } from './wrong-land.js';

const speaks = (p: Plan, rule: string) => report(p).findings.some((f) => f.rule === rule);
/** A line of 300 m with an energiser, and one thing on its land. */
const beside = (...list: Parameters<typeof things>) =>
  plan([line('a', [[0, 0], [300, 0]])], { energisers: { unit: energiser('a', 150, { e: 150 }) }, ...things(...list) }); // prettier-ignore
const hot = (...heights: number[]) => strands(heights);
const cold = (height: number, wire: string): Strand[] =>
  strands([height], { wire, duty: 'cold', insulated: false });

interface Edge {
  readonly rule: string;
  readonly what: string;
  /** The plan for a figure. */
  readonly of: (x: number) => Plan;
  /** Nearest figures on either side: silent, spoken. */
  readonly silent: number;
  readonly spoken: number;
}

const edges: Edge[] = [
  { rule: 'near-barbed', what: 'live wire 0.15 m off barbed', of: (x) => fed({ left: [], strands: [...hot(0.4), ...cold(0.4 + x, 'barbed')] }), silent: 0.15, spoken: 0.145 },
  { rule: 'near-barbed', what: 'brackets count', of: (x) => fed({ left: [], strands: [...strands([0.4], { offset_m: x }), ...cold(0.4 + 0.05, 'barbed')] }), silent: 0.15, spoken: 0.13 },
  { rule: 'bays-too-long', what: '6 m for sheep on even ground', of: (x) => fed({ maxBay_m: x, strands: hot(0.15, 0.3, 0.45, 0.65, 0.9) }), silent: 6, spoken: 6.3 },
  { rule: 'bays-too-long', what: '10 m for cattle on even ground', of: (x) => fed({ left: ['cattle-calves'], maxBay_m: x, strands: hot(0.4, 0.8, 1) }), silent: 10, spoken: 10.5 },
  { rule: 'rods-close', what: 'rods as far apart as they are long', of: (x) => fed({}, { energisers: { unit: energiser('a', 0, { rodLength_m: 2, rodSpacing_m: x }) } }), silent: 2, spoken: 1.95 },
  { rule: 'rods-close', what: 'one rod stands alone', of: (x) => fed({}, { energisers: { unit: energiser('a', 0, { rods: x, rodSpacing_m: 0.5 }) } }), silent: 1, spoken: 2 },
  { rule: 'networks-close', what: '2.5 m between two networks', of: (x) => plan([line('a', [[0, 0], [300, 0]]), line('b', [[0, x], [300, x]])], { energisers: { unit: energiser('a', 0), two: energiser('b', 0, { id: 'two', n: 60 }) } }), silent: 2.55, spoken: 2.45 },
  { rule: 'earth-near', what: '10 m from another earth', of: (x) => beside(thing('building', [[150, x], [160, x], [160, x + 5]], { earthed: true })), silent: 10.1, spoken: 9.9 },
  { rule: 'mains-far', what: '100 m from the mains', of: (x) => beside(thing('mains', [[150, x]])), silent: 99, spoken: 101 },
  { rule: 'overhead', what: '3 m of air to 1 kV', of: (x) => beside(thing('overhead', [[400, x], [500, x]], { volts_kV: 0.4 }), thing('overhead', [[-50, x], [350, x]], { id: 'o', volts_kV: 0.4 })), silent: 3.05, spoken: 2.95 },
  { rule: 'overhead', what: '4 m of air to 33 kV', of: (x) => beside(thing('overhead', [[-50, x], [350, x]], { volts_kV: 33 })), silent: 4.05, spoken: 3.95 },
  { rule: 'overhead', what: '8 m of air above that', of: (x) => beside(thing('overhead', [[-50, x], [350, x]], { volts_kV: 132 })), silent: 8.05, spoken: 7.95 },
  { rule: 'overhead', what: 'unknown voltage is the highest', of: (x) => beside(thing('overhead', [[-50, x], [350, x]])), silent: 8.05, spoken: 7.95 },
  { rule: 'overhead', what: 'a crossing high above, at 60 degrees', of: (x) => beside(thing('overhead', [[150 - 50 / Math.tan((x * Math.PI) / 180), -50], [150 + 50 / Math.tan((x * Math.PI) / 180), 50]], { volts_kV: 11, height_m: 12 })), silent: 61, spoken: 59 },
  { rule: 'outside', what: 'half a metre for the drawing of the rim', of: (x) => beside(thing('property', [[-10, -50], [300 - x, -50], [300 - x, 50], [-10, 50]])), silent: 0.4, spoken: 0.6 },
  { rule: 'trees', what: 'under the crown', of: (x) => beside(thing('tree', [[100, x]], { width_m: 10 })), silent: 5.1, spoken: 4.9 },
  { rule: 'no-tensioner', what: 'springs for runs under 200 m', of: (x) => plan([line('a', [[0, 0], [x, 0]], { tensioner: false })]), silent: 201, spoken: 199 },
  { rule: 'over-limit', what: '5 J', of: (x) => fed({}, { energisers: { unit: energiser('a', 0, { model: x > 5 ? 'old8' : 'm5' }) } }), silent: 5, spoken: 8 },
  { rule: 'unsaid', what: 'what a line keeps in', of: (x) => fed({ left: x ? ['sheep'] : [] }, { overrides: { 'soils.clay.dry_ohm_m': { value: 100 }, 'seasons.wet.leakage_S_per_km': { value: 3e-4 } } }), silent: 1, spoken: 0 },
  { rule: 'unsaid', what: 'whether the soil was measured', of: (x) => fed({}, { overrides: { ...(x ? { 'soils.clay.dry_ohm_m': { value: 100 } } : {}), 'seasons.wet.leakage_S_per_km': { value: 3e-4 } } }), silent: 1, spoken: 0 },
  { rule: 'paddock-water', what: 'water within 600 m', of: (x) => paddock({ lines: { a: line('a', [[0, 0], [x, 0], [x, 100], [0, 100], [0, 0]]) }, ...things(thing('water', [[0.5, 50]])) }), silent: 590, spoken: 640 },
  { rule: 'gap-too-wide', what: '0.2 m low down for sheep', of: (x) => fed({ strands: hot(0.15, 0.3, 0.45, 0.45 + x, 0.9) }), silent: 0.2, spoken: 0.21 },
  { rule: 'live-uninsulated', what: 'live strands alone', of: (x) => fed({ strands: strands([0.15, 0.3, 0.45, 0.65, 0.9]).map((s, i) => (i === 4 ? { ...s, duty: x ? 'live' as const : 'cold' as const, insulated: false } : s)), post: 'timber-180' }), silent: 0, spoken: 1 },
  { rule: 'bare-on-steel', what: 'bare wire on timber is usual', of: (x) => fed({ post: x ? 'steel-180' : 'timber-180', strands: [...hot(0.15, 0.3, 0.45, 0.65), ...strands([0.9], { duty: 'cold', insulated: false })] }), silent: 0, spoken: 1 },
  { rule: 'gate-no-cable', what: 'a gate in a cold line', of: (x) => fed({ strands: x ? hot(0.45, 0.9) : strands([0.45, 0.9], { duty: 'cold' }) }, { gates: { g: { id: 'g', name: 'G', line: 'a', at_m: 50, width_m: 4, cable: false } } }), silent: 0, spoken: 1 },
  { rule: 'old-fence', what: 'a crossing of live strands', of: (x) => ({ ...beside(thing('oldFence', [[100, -20], [100, x]], { barbed: true })) }), silent: -1, spoken: 1 },
  { rule: 'public-way', what: 'a way that only ends near', of: (x) => beside(thing('publicWay', [[100, -50], [100, x]])), silent: -12, spoken: 5 },
  { rule: 'burn-crossing', what: 'a burn that stops short', of: (x) => beside(thing('burn', [[120, -50], [120, x]], { width_m: 3 })), silent: -5, spoken: 10 },
  { rule: 'gap', what: 'an end that stops 5 m short', of: (x) => plan([line('a', [[0, 0], [300, 0]]), line('b', [[150, 100], [150, x]])]), silent: 5.1, spoken: 4.9 },
  { rule: 'step-over', what: 'a live top where people step over', of: (x) => fed({ left: ['sheep'], stepOver: true, strands: [...hot(0.3, 0.6), ...strands([0.9], { duty: x ? 'live' : 'cold' })] }), silent: 0, spoken: 1 },
  { rule: 'dead-tail-long', what: '100 mm where predators are kept out', of: (x) => fed({ keepOut: ['fox'], deadTail_m: x }), silent: 0.1, spoken: 0.105 },
  { rule: 'dead-tail-long', what: 'nothing where none are', of: (x) => fed({ keepOut: x ? ['fox'] : [], deadTail_m: 0.24 }), silent: 0, spoken: 1 },
  { rule: 'gate-cable-shallow', what: '300 mm of cover', of: (x) => fed({}, { gates: { g: { id: 'g', name: 'G', line: 'a', at_m: 50, width_m: 4, cable: true, depth_m: x } } }), silent: 0.3, spoken: 0.29 },
  { rule: 'mixed-metal', what: 'aluminium beside zinc is near enough, copper is not', of: (x) => fed({ joins: [{ at_m: 0, ties: [{ a: { side: 'after', strand: 0 }, b: { side: 'after', strand: 1 }, kind: 'clamp' }], metal: x ? 'copper' : 'aluminium' }] }), silent: 0, spoken: 1 },
  { rule: 'old-fence', what: 'sleeves at another place', of: (x) => { const p = beside(thing('oldFence', [[100, -20], [100, 20]], { barbed: true })); p.lines['a']!.crossings = [{ at_m: 100 + x, kind: 'sleeve' }]; return p; }, silent: 1.4, spoken: 1.6 },
  { rule: 'tap-in-tension', what: 'what holds tension', of: (x) => fed({ crossings: [{ at_m: 50, kind: 'closure', joiner: x ? 'clamp' : 'sleeve' }] }), silent: 0, spoken: 1 }
]; // prettier-ignore

describe('where findings begin', () => {
  it.each(edges)('$rule: $what', ({ rule, of, silent, spoken }) => {
    expect(speaks(of(silent), rule), `at ${silent}`).toBe(false);
    expect(speaks(of(spoken), rule), `at ${spoken}`).toBe(true);
  });
});
