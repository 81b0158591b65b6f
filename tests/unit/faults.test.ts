/**
 * The search for a fault: what meters read with a fault against a solve of the whole network with that fault in it, what a
 * place tells against readings drawn by lot, stretches against their chance, and short hunts.
 */
import { describe, expect, it } from 'vitest';
import {
  entropy,
  likely,
  posteriorOf,
  spread,
  type FaultReading,
} from '../../src/core/faults/posterior.js';
import { cellsOf, faultFence, geometric, type Meter } from '../../src/core/faults/fence.js';
import { foundBy, metersAt, nextFrom } from '../../src/core/faults/hunt.js';
import { worthOf } from '../../src/core/faults/next.js';
import { metresFrom } from '../../src/core/faults/walk.js';
import { normal, uniform } from '../../src/core/base/random.js';
import { solveFence, type FenceResistiveInputs } from '../../src/core/power/network.js';
import farm from '../reference/cases/fault_location.json' with { type: 'json' };

const load_line = {
  v_open_v: 9200,
  v_500_ohm_v: 6800,
  v_200_ohm_v: 4900,
  v_100_ohm_v: 3300,
  v_50_ohm_v: 2000,
};
/** A ring with a spur, two live strands that are tied at two places, an earth strand, a shunt that was there before. */
const ring: FenceResistiveInputs = {
  strand_types: { hot: { role: 'hot', r_ohm_per_km: 91, g_s_per_km: 3e-4 }, earth: { role: 'earth', r_ohm_per_km: 91, g_s_per_km: 2e-3 } },
  energiser: { location: 'A', hot_strands: ['s1', 's2'], earth_strands: ['e'], lead_ohm: 0.05, load_line },
  r_earth_ohm: 8,
  sections: [
    { id: 'AB', from: 'A', to: 'B', length_m: 430, strands: { s1: 'hot', s2: 'hot', e: 'earth' } },
    { id: 'BC', from: 'B', to: 'C', length_m: 275, strands: { s1: 'hot', s2: 'hot', e: 'earth' } },
    { id: 'CA', from: 'C', to: 'A', length_m: 510, strands: { s1: 'hot', s2: 'hot', e: 'earth' } },
    { id: 'BD', from: 'B', to: 'D', length_m: 620, strands: { s1: 'hot' } },
  ],
  jumpers: [{ location: 'B', strand_a: 's1', strand_b: 's2', r_ohm: 0.1 }],
  shunts: [{ section: 'BC', x_m: 100, strand: 's2', to: 'soil', r_ohm: 3000 }],
  breaks: [],
  probes: [],
}; // prettier-ignore
const METERS: readonly Meter[] = [
  { quantity: 'earth' },
  ...['A', 'B', 'C', 'D'].map((location) => ({ quantity: 'voltage' as const, location })),
  ...['AB', 'BC', 'CA', 'BD'].flatMap((section) => (['from', 'to'] as const).map((at) => ({ quantity: 'current' as const, section, at }))),
]; // prettier-ignore

/** What a meter reads on a solved network. */
function readOn(solved: ReturnType<typeof solveFence>, m: Meter): number {
  if (m.quantity === 'voltage')
    return solved.nodes.find((n) => n.location === m.location && n.strand === 's1')!.v_v!;
  if (m.quantity === 'earth') return Math.abs(solved.v_earth_terminal_v);
  const s = solved.strand_currents.find((c) => c.section === m.section && c.strand === 's1')!;
  return m.at === 'from' ? s.i_from_a : s.i_to_a;
}

describe('a fence with a fault', () => {
  const grid = { cell_m: 50, leaks_ohm: geometric(50, 5000, 5), strand: 's1' };
  const fence = faultFence(ring, load_line, grid);

  it('reads as the whole network does when the fault is put into it', () => {
    const random = uniform(7);
    for (let k = 0; k < 60; k++) {
      const f = Math.floor(random() * fence.count);
      const R = fence.leaks_ohm.length;
      const leak = f < fence.cells.length * R;
      const { section, x_m } = fence.cells[leak ? Math.floor(f / R) : f - fence.cells.length * R]!;
      const solved = solveFence({
        ...ring,
        shunts: leak ? [...ring.shunts, { section, x_m, strand: 's1', to: 'soil', r_ohm: fence.leaks_ohm[f % R]! }] : ring.shunts, // prettier-ignore
        breaks: leak ? [] : [{ section, x_m, strand: 's1' }],
      });
      for (const m of METERS) {
        const want = readOn(solved, m);
        expect(fence.read(m)[f], `${leak ? 'leak' : 'break'} at ${section}@${x_m}: ${JSON.stringify(m)}`).toBeCloseTo(want, 5); // prettier-ignore
        expect(fence.read(m, Uint32Array.of(f))[0]).toBe(fence.read(m)[f]);
      }
    }
  });

  it('reads as the whole network does with a bad joint in it: two sections with the joint between them', () => {
    const joints_ohm = [40, 900];
    const bad = faultFence(ring, load_line, { ...grid, joints_ohm });
    const [M, R] = [bad.cells.length, bad.leaks_ohm.length];
    expect(bad.series_ohm).toEqual([...joints_ohm, Infinity]);
    // On the spur, which is one strand alone.
    const own = ring.sections.find((s) => s.id === 'BD')!;
    for (const k of bad.cells.flatMap((c, i) => (c.section === 'BD' ? [i] : [])))
      for (const [j, r_ohm] of joints_ohm.entries()) {
        const { x_m } = bad.cells[k]!;
        const solved = solveFence({
          ...ring,
          strand_types: { ...ring.strand_types, joint: { role: 'hot', r_ohm_per_km: r_ohm * 1e6, g_s_per_km: 0 } }, // prettier-ignore
          sections: [
            ...ring.sections.filter((s) => s !== own),
            { ...own, id: 'near', to: 'before', length_m: x_m },
            { ...own, id: 'far', from: 'behind', length_m: own.length_m - x_m },
            { id: 'joint', from: 'before', to: 'behind', length_m: 0.001, strands: { s1: 'joint' } }, // prettier-ignore
          ],
        });
        const f = M * R + k * bad.series_ohm.length + j;
        for (const m of METERS) {
          const there: Meter = m.quantity === 'current' && m.section === 'BD' ? { ...m, section: m.at === 'from' ? 'near' : 'far' } : m; // prettier-ignore
          expect(bad.read(m)[f], `${r_ohm} ohm at ${x_m}: ${JSON.stringify(m)}`).toBeCloseTo(readOn(solved, there), 4); // prettier-ignore
        }
      }
  });

  it('reads as the healthy network does where nothing is wrong', () => {
    const solved = solveFence(ring);
    for (const m of METERS) expect(fence.healthy(m)).toBeCloseTo(readOn(solved, m), 5);
  });

  it('has cells that cover each section once, the last one shorter', () => {
    const cells = cellsOf(ring, { cell_m: 50, strand: 's1' });
    for (const s of ring.sections) {
      const own = cells.filter((c) => c.section === s.id);
      expect(own.reduce((n, c) => n + c.length_m, 0)).toBeCloseTo(s.length_m, 9);
      expect(own.at(-1)!.length_m).toBeLessThanOrEqual(50);
    }
    expect(cellsOf(ring, { cell_m: 50, strand: 'e' }).some((c) => c.section === 'BD')).toBe(false);
  });

  it('reads nothing beyond a break of its only strand, also where no wire leaks', () => {
    const dry = { ...ring, strand_types: { hot: { ...ring.strand_types['hot']!, g_s_per_km: 0 }, earth: ring.strand_types['earth']! } }; // prettier-ignore
    const one = faultFence(dry, load_line, grid);
    const k = one.cells.findIndex((c) => c.section === 'BD');
    const at = one.cells.length * one.leaks_ohm.length + k;
    expect(Math.abs(one.read({ quantity: 'voltage', location: 'D' })[at]!)).toBeLessThan(1);
    expect(one.read({ quantity: 'voltage', location: 'B' })[at]!).toBeGreaterThan(8000);
  });

  it('names what is not there', () => {
    expect(() => fence.read({ quantity: 'voltage', location: 'Z' })).toThrow('at "Z"');
    expect(() => fence.read({ quantity: 'current', section: 'Z', at: 'from' })).toThrow('"Z"');
    expect(() => faultFence(ring, load_line, { ...grid, strand: 'gone' })).toThrow('"gone"');
    expect(() => faultFence(ring, load_line, { ...grid, cell_m: 0 })).toThrow('cell_m');
  });
});

const noise = { voltage_rel: 0.03, voltage_floor_v: 60, current_rel: 0.05, current_floor_a: 0.15 };
const prior = { p_leak: 0.8, p_broken: 0.2 };

describe('what is known after readings', () => {
  const cells = [
    { section: 'a', x_m: 25, length_m: 50 },
    { section: 'a', x_m: 75, length_m: 50 },
    { section: 'b', x_m: 10, length_m: 20 },
  ];

  it('is a stretch of exactly the chance that is asked for, the likeliest metres first', () => {
    for (const share of [0.2, 0.5, 0.8, 0.99]) {
      const out = likely(cells, [0.2, 0.5, 0.3], share);
      expect(out.reduce((n, s) => n + s.p, 0)).toBeCloseTo(share, 9);
      for (const s of out) expect(s.to_m).toBeGreaterThan(s.from_m);
    }
    // A metre of b is likelier than any other: 0.3 in 20 m.
    expect(likely(cells, [0.2, 0.5, 0.3], 0.3)).toEqual([{ section: 'b', from_m: 0, to_m: 20, p: 0.3 }]); // prettier-ignore
    expect(likely(cells, [0.5, 0.5, 0], 1)).toEqual([{ section: 'a', from_m: 0, to_m: 100, p: 1 }]);
  });

  it('is nothing before anything was read: each metre alike', () => {
    const fence = faultFence(ring, load_line, { cell_m: 50, leaks_ohm: geometric(50, 5000, 41), strand: 's1' }); // prettier-ignore
    const { cells: p, broken } = posteriorOf([fence], [], noise, prior);
    fence.cells.forEach((c, k) => expect(p[k]).toBeCloseTo(c.length_m / 1835, 9));
    expect(broken).toBeCloseTo(0.2, 9);
    for (const as of posteriorOf([fence, fence], [], noise, prior).fences) expect(as).toBeCloseTo(0.5, 9); // prettier-ignore
    expect(posteriorOf([fence], [], noise, { p_leak: 0, p_broken: 1 }).leak_ohm).toBeNull();
  });

  it('tells how the fence is, too, where readings say so', () => {
    const wet = { ...ring, strand_types: { ...ring.strand_types, hot: { ...ring.strand_types['hot']!, g_s_per_km: 3e-3 } } }; // prettier-ignore
    const grid = { cell_m: 50, leaks_ohm: geometric(500, 5000, 11), strand: 's1' };
    const [as, wetter] = [ring, wet].map((c) => faultFence(c, load_line, grid));
    const f = 11 * 4 + 5;
    const readings = METERS.map((meter): FaultReading => ({ meter, value: wetter!.read(meter)[f]! })); // prettier-ignore
    expect(posteriorOf([as!, wetter!], readings, noise, prior).fences[1]).toBeGreaterThan(0.99);
  });
});

describe('where to go next', () => {
  it('tells as much as readings drawn by lot lessen the uncertainty, within a tenth of it', () => {
    const fence = faultFence(ring, load_line, { cell_m: 150, leaks_ohm: geometric(100, 2000, 9), strand: 's1' }); // prettier-ignore
    const now = posteriorOf([fence], [], noise, prior);
    const stops = METERS.filter((m) => m.quantity === 'current').map((m) => ({ meters: [m], minutes: 1 })); // prettier-ignore
    const before = entropy(now.cells);
    const [random, bell] = [uniform(3), normal(4)];
    for (const { stop, gain } of worthOf([fence], now, stops, noise).slice(0, 3)) {
      const [meter] = stop.meters;
      const mu = fence.read(meter!);
      let left = 0;
      const draws = 1500;
      for (let d = 0; d < draws; d++) {
        let u = random();
        let f = 0;
        while (f < fence.count - 1 && (u -= now.p[0]![f]!) > 0) f++;
        const value = mu[f]! + spread(meter!, mu[f]!, noise) * bell();
        left += entropy(posteriorOf([fence], [{ meter: meter!, value }], noise, prior).cells);
      }
      const real = before - left / draws;
      expect(gain, JSON.stringify(meter)).toBeGreaterThan(0.85 * real);
      expect(gain).toBeLessThan(1.1 * real + 0.02);
    }
  });

  it('is not where one stands: a second reading there tells next to nothing of another place', () => {
    const fence = faultFence(ring, load_line, { cell_m: 50, leaks_ohm: geometric(50, 5000, 41), strand: 's1' }); // prettier-ignore
    const at = { section: 'AB', x_m: 0 };
    const readings = metersAt(at, ring.sections).map((meter) => ({ meter, value: fence.read(meter)[41 * 30 + 12]! })); // prettier-ignore
    const { posterior } = foundBy([fence], ring.sections, readings, { noise, prior, near_m: 100 });
    const [first] = nextFrom([fence], ring.sections, posterior, at, { noise, pace: { metres_per_minute: 67, reading_min: 3 } }); // prettier-ignore
    expect(first!.stop.at).not.toEqual(at);
    // The other wire at the same post is another place: nothing is walked, and it says which way.
    expect(first!.stop.at).toEqual({ section: 'CA', x_m: 510 });
  });

  it('goes along the wires, the shorter way round a ring', () => {
    const far = metresFrom(ring.sections, { section: 'AB', x_m: 30 });
    expect(far({ section: 'AB', x_m: 430 })).toBe(400);
    expect(far({ section: 'CA', x_m: 510 })).toBe(30);
    expect(far({ section: 'BC', x_m: 275 })).toBe(Math.min(400 + 275, 30 + 510));
    expect(metresFrom([...ring.sections, { id: 'far', from: 'x', to: 'y', length_m: 5, strands: {} }], { section: 'AB', x_m: 0 })({ section: 'far', x_m: 1 })).toBe(Infinity); // prettier-ignore
    expect(() => metresFrom(ring.sections, { section: 'gone', x_m: 0 })).toThrow('"gone"');
  });
});

describe('a hunt', () => {
  it('ends within 100 m of the fault, on a farm of 6 km', () => {
    const { network } = farm.cases[0]!.inputs as unknown as { network: FenceResistiveInputs };
    const { sections } = network;
    const fence = faultFence(network, load_line, { cell_m: 50, leaks_ohm: geometric(50, 5000, 41), strand: 's1' }); // prettier-ignore
    const [random, bell] = [uniform(12), normal(13)];
    let hits = 0;
    const touches: number[] = [];
    for (let h = 0; h < 10; h++) {
      const leak_ohm = 60 * 30 ** random();
      const truth = faultFence({ ...network, probes: fence.cells.map((c) => ({ ...c, strand: 's1' })) }, load_line, { cell_m: 10, leaks_ohm: [leak_ohm], strand: 's1' }); // prettier-ignore
      const k = Math.floor(random() * truth.cells.length);
      const f = Uint32Array.of(random() < 0.2 ? truth.cells.length + k : k);
      const readings: FaultReading[] = [];
      let here = { section: 'F1', x_m: 0 };
      let found;
      do {
        for (const meter of metersAt(here, sections)) {
          const mu = truth.read(meter, f)[0]!;
          readings.push({ meter, value: mu + spread(meter, mu, noise) * bell() });
        }
        found = foundBy([fence], sections, readings, { noise, prior, near_m: 100 });
        here = nextFrom([fence], sections, found.posterior, here, { noise, pace: { metres_per_minute: 67, reading_min: 5 } })[0]!.stop.at; // prettier-ignore
      } while (found.near < 0.9 && readings.length < 40);
      touches.push(readings.length / 2);
      if (metresFrom(sections, fence.cells[found.best]!)(truth.cells[k]!) <= 100) hits++;
    }
    expect(hits).toBeGreaterThanOrEqual(9);
    expect(touches.sort((a, b) => a - b)[5]).toBeLessThanOrEqual(8);
  });
});
