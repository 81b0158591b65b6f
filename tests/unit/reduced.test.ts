import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { circuitOf } from '../../src/core/power/circuit.js';
import type { Section } from '../../src/core/power/network.js';
import { solveUnit } from '../../src/core/power/network.js';
import { createReducedSolver } from '../../src/core/power/reduced.js';
import { groundOf } from '../../src/core/terrain/ground.js';
import { parsePlan } from '../../src/formats/planFile.js';
import type { Network } from '../../src/core/power/wired.js';
import { energiser, line, networkOf, plan, strands } from './scene.js';

const demo = parsePlan(readFileSync('demo/hollin-scar.plan.json', 'utf8'));
const ground = groundOf(demo.plan, demo.grids);
const net = networkOf(demo.plan, 'steading', ground);
/** The line of a section; cables and the lead-out belong to none. */
const lineOf = (s: Section) => (s.id.includes('#') ? s.id.split('#')[0]! : null);
const restsOn = (of: Network) => (id: string) => [of.wired[id], of.topology.marks[id]];

describe('the network with its lines reduced to their terminals', () => {
  it.each(['dry', 'wet', 'weedy'] as const)('gives every node the volts of the whole matrix: %s', (season) => {
    const c = circuitOf(net, season);
    const whole = solveUnit(c);
    const got = createReducedSolver().solve(c, lineOf, restsOn(net));
    expect(Math.abs(got.r_in_ohm / whole.r_in_ohm - 1)).toBeLessThan(1e-8);
    let compared = 0;
    for (const n of whole.nodes) {
      if (!n.v_v) continue;
      expect(Math.abs(got.volts(n.location, n.strand)! / n.v_v - 1)).toBeLessThan(1e-7);
      compared++;
    }
    expect(compared).toBeGreaterThan(500);
  }); // prettier-ignore
  it('reduces a changed line alone, and says what the whole says', () => {
    const solver = createReducedSolver();
    solver.solve(circuitOf(net, 'wet'), lineOf, restsOn(net));
    const before = solver.count;
    expect(before).toBe(net.ids.length);
    const bield = net.wired['bield']!;
    const raised = { ...bield, line: { ...bield.line, strands: bield.line.strands.map((s) => ({ ...s, height_m: s.height_m + 0.05 })) } }; // prettier-ignore
    const other = { ...net, wired: { ...net.wired, bield: raised } };
    const c = circuitOf(other, 'wet');
    const got = solver.solve(c, lineOf, restsOn(other));
    expect(solver.count).toBe(before + 1);
    expect(Math.abs(got.r_in_ohm / solveUnit(c).r_in_ohm - 1)).toBeLessThan(1e-8);
  });
  it('earth strands and their rods are part of it', () => {
    const turns = [0.3, 0.5, 0.7, 0.9].map((h, i) => strands([h], { duty: i % 2 ? 'earth' : 'live' })[0]!); // prettier-ignore
    const own = networkOf(plan([line('a', [[0, 0], [900, 0]], { strands: turns }), line('b', [[300, 0], [300, 500]], { strands: turns })], { energisers: { unit: energiser('a', 0, { e: 0, n: 1 }) } })); // prettier-ignore
    const c = circuitOf(own, 'dry');
    expect(c.shunts.length).toBeGreaterThan(2);
    const got = createReducedSolver().solve(c, lineOf, restsOn(own));
    expect(Math.abs(got.r_in_ohm / solveUnit(c).r_in_ohm - 1)).toBeLessThan(1e-8);
    expect(got.volts('nowhere', 'a/0')).toBeUndefined();
  });
});
