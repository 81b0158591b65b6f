/**
 * A property's fence made ready for the search, against whole pulses with the fault in them: nothing of the search goes into
 * those. Bounds are what was measured (docs/testing.md), with some room.
 */
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { often } from '../often.js';
import { normal, uniform } from '../../src/core/base/random.js';
import { atRate, sourceAt, TIED } from '../../src/core/faults/atRate.js';
import { foundBy, metersAt, nextFrom, placesOf } from '../../src/core/faults/hunt.js';
import { likely, chancesOf, spread, type FaultReading } from '../../src/core/faults/posterior.js';
import { ampsAt, METER_S, searchedOf, voltsAlong } from '../../src/core/faults/property.js';
import { placeOf, touchedAt } from '../../src/core/faults/searched.js';
import { followLowest, hide, LEVELS } from '../../src/core/faults/practice.js';
import { metresFrom, type OnSection } from '../../src/core/faults/walk.js';
import type { Meter } from '../../src/core/faults/fence.js';
import { pulseNet } from '../../src/core/power/pulseNet.js';
import { voltsOf, type VoltsOptions } from '../../src/core/power/volts.js';
import { groundOf } from '../../src/core/terrain/ground.js';
import { parsePlan } from '../../src/formats/planFile.js';
import { networkOf } from './scene.js';

const demo = parsePlan(readFileSync('demo/hollin-scar.plan.json', 'utf8'));
const net = networkOf(demo.plan, 'steading', groundOf(demo.plan, demo.grids));
const fence = searchedOf(net, 'today')!;
const [as] = fence.fences;
const { cells, leaks_ohm, series_ohm } = as!;
const onLines = cells.flatMap((c, k) => (fence.pieces[c.section] ? [k] : []));

/** What a pulse with something in it reads at a place, volts and amps; null: it is too short to have a current of its own. */
function pulseWith(options: VoltsOptions) {
  const volts = voltsOf(net, 'today', { ...options, amps_s: METER_S })!;
  const truth = pulseNet(net, 'today', options)!;
  return (m: Meter, spot: OnSection): number | null => {
    const { line, at_m } = placeOf(fence, spot)!;
    if (m.quantity !== 'current') return voltsAlong(volts, { line, at_m }) ?? 0;
    const own = fence.pieces[spot.section]!;
    const s = Math.min(own.to_m - 0.01, Math.max(own.from_m + 0.01, at_m));
    const k = truth.pieces.findIndex((p) => p?.line === line && p.from_m <= s && s <= p.to_m);
    const amps = k < 0 ? undefined : volts.amps![k]!;
    if (!amps?.length) return null;
    const { from_m, to_m } = truth.pieces[k]!;
    return ampsAt(amps, (s - from_m) / (to_m - from_m));
  };
}

describe('the network at the pulse’s own rate', () => {
  it('is within 5 % of whole pulses with a leak, and changes currents as they do', () => {
    expect(fence.fit.off).toBeLessThan(0.05);
    expect(fence.fit.rate).toBeGreaterThan(2e4);
    expect(fence.fit.rate).toBeLessThan(2e5);
    const random = uniform(9);
    const logs: number[] = [];
    const changes: [model: number, pulse: number][] = [];
    for (let n = 0; n < 12; n++) {
      const k = onLines[Math.floor(random() * onLines.length)]!;
      const r = Math.floor(random() * leaks_ohm.length * 0.7);
      const read = pulseWith({ loads: [{ ...placeOf(fence, cells[k]!)!, r_ohm: leaks_ohm[r]! }] });
      const f = Uint32Array.of(k * leaks_ohm.length + r);
      for (const j of onLines) {
        if (j === k || j % 3 !== n % 3) continue;
        const [v, a] = metersAt(cells[j]!, fence.sections) as [Meter, Meter];
        logs.push(Math.log(read(v, cells[j]!)! / as!.read(v, f)[0]!));
        const amps = read(a, cells[j]!);
        if (amps !== null)
          changes.push([as!.read(a, f)[0]! - as!.healthy(a), amps - as!.healthy(a)]);
      }
    }
    const rms = (x: number[]) => Math.sqrt(x.reduce((s, v) => s + v * v, 0) / x.length);
    expect(rms(logs)).toBeLessThan(0.05);
    // Currents: what changes by much does so in the direction and by the size that is foretold.
    const large = changes.filter(([m]) => Math.abs(m) > 0.5);
    expect(large.length).toBeGreaterThan(20);
    const far = large.map(([m, p]) => Math.abs(p - m) / Math.abs(m)).sort((a, b) => a - b);
    expect(far[far.length >> 1]).toBeLessThan(0.25);
    expect(large.filter(([m, p]) => m * p > 0).length / large.length).toBeGreaterThan(0.93);
  });
  it('takes inductance and capacitance as resistance and leakage at its rate', () => {
    const line = {
      from: 'a',
      to: 'b',
      length_m: 100,
      r_ohm_per_m: 0.05,
      l_h_per_m: 1.5e-6,
      c_f_per_m: 1e-11,
      g_s_per_m: 1e-7,
    };
    const pulse = {
      at: 'a',
      lines: [line],
      pieces: [null],
      links: [],
      loads: [],
      unfed: [],
      length_m: 100,
    };
    const source = { c_eq_f: 1e-5, n_v0_v: 9000, r_s_ohm: 20, l_s_h: 1e-3, r_d_ohm: 500 };
    const { circuit, unit } = atRate(pulse, source, 12, 5e4);
    expect(circuit.strand_types['0']).toEqual({
      role: 'hot',
      r_ohm_per_km: 1000 * (0.05 + 0.075),
      g_s_per_km: 1000 * (1e-7 + 5e-7),
    });
    expect([circuit.r_earth_ohm, circuit.energiser.hot_strands]).toEqual([12, [TIED]]);
    // 1/(sC) = 2, sL = 50 beside 500.
    const own = 2 + 20 + 1 / (1 / 50 + 1 / 500);
    expect(sourceAt(source, 5e4)).toBeCloseTo(own, 9);
    expect([unit(Infinity), unit(own)]).toEqual([9000, 4500]);
  });
});

describe('a place of a line', () => {
  it('is the nearest place of its section, and comes back as a place of its line', () => {
    for (const at of [
      { line: 'ridge', at_m: 400 },
      { line: 'burn', at_m: 0 },
      { line: 'hay', at_m: 242 },
    ]) {
      const back = placeOf(fence, touchedAt(fence, at)!)!;
      expect(back.line).toBe(at.line);
      expect(Math.abs(back.at_m - at.at_m)).toBeLessThan(25);
    }
    expect(touchedAt(fence, { line: 'pony', at_m: 10 })).toBeNull();
    expect(touchedAt(fence, { line: 'burn', at_m: 5000 })).toBeNull();
  });
  it('reads as the pulse does while nothing is wrong', () => {
    const read = pulseWith({});
    for (const j of onLines.filter((k) => k % 9 === 0)) {
      const [v, a] = metersAt(cells[j]!, fence.sections) as [Meter, Meter];
      expect(as!.healthy(v)).toBeCloseTo(read(v, cells[j]!)!, 6);
      const amps = read(a, cells[j]!);
      if (amps !== null) expect(as!.healthy(a)).toBeCloseTo(amps, 6);
    }
  });
});

it('a wild reading costs no more than it can, a tame one as ever', () => {
  const m = { quantity: 'voltage', location: 'x' } as const;
  const noise = {
    voltage_rel: 0.05,
    voltage_floor_v: 100,
    current_rel: 0.05,
    current_floor_a: 0.2,
  };
  const chance = (value: number, wild?: number) =>
    chancesOf(m, value, { ...noise, ...(wild ? { wild } : {}) })(4000) -
    chancesOf(m, 4000, { ...noise, ...(wild ? { wild } : {}) })(4000);
  expect(chance(4200, 0.05)).toBeCloseTo(chance(4200), 1);
  expect(chance(1000)).toBeLessThan(-80);
  expect(chance(1000, 0.05)).toBeGreaterThan(-12);
});

it('finds leaks of whole pulses on the demo within 100 m: most of them, and knows when it does not', () => {
  const METER = {
    voltage_rel: 0.03,
    voltage_floor_v: 60,
    current_rel: 0.05,
    current_floor_a: 0.15,
  };
  const places = placesOf(as!, fence.sections).filter((p) => fence.pieces[p.section]);
  const asked = {
    noise: fence.noise,
    prior: { p_leak: 0.7, p_joint: 0.1, p_broken: 0.2 },
    places,
    near_m: 100,
    pace: { metres_per_minute: 67, reading_min: 5 },
  };
  const [random, bell] = [uniform(31), normal(8)];
  const hunts = often(5, 8);
  let [hits, held] = [0, 0];
  for (let h = 0; h < hunts; h++) {
    const c = cells[onLines[Math.floor(random() * onLines.length)]!]!;
    const place = { section: c.section, x_m: c.x_m + (random() - 0.5) * c.length_m };
    const read = pulseWith({
      growth: random() < 0.5 ? 1.3 : 0.77,
      loads: [{ ...placeOf(fence, place)!, r_ohm: 60 * 12 ** random() }],
    });
    const readings: FaultReading[] = [];
    let here = places[0]!;
    for (let touch = 1; ; touch++) {
      for (const meter of metersAt(here, fence.sections)) {
        const mu = read(meter, here);
        if (mu !== null) readings.push({ meter, value: mu + spread(meter, mu, METER) * bell() });
      }
      const found = foundBy(fence.fences, fence.sections, readings, asked);
      const sure = found.near >= 0.9;
      if (
        touch === 3 &&
        likely(cells, found.posterior.cells, 0.8).some(
          (s) => s.section === place.section && s.from_m <= place.x_m && place.x_m <= s.to_m,
        )
      )
        held++;
      if (sure || touch === 14) {
        if (sure && metresFrom(fence.sections, cells[found.best]!)(place) <= 100) hits++;
        break;
      }
      here = nextFrom(fence.fences, fence.sections, found.posterior, here, asked)[0]!.stop.at;
    }
  }
  expect(series_ohm.at(-1)).toBe(Infinity);
  expect(hits).toBeGreaterThanOrEqual(0.75 * hunts);
  expect(held).toBeGreaterThanOrEqual(0.6 * hunts);
}, 60_000);

describe('a practice hunt', () => {
  it('hides the same for the same seed, within what its level says', () => {
    for (const level of LEVELS) {
      const all = Array.from({ length: often(7, 12) }, (_, seed) =>
        hide(fence, level, 1000 * seed + 7)!,
      );
      expect(all[3]!.hidden).toEqual(hide(fence, level, 3007)!.hidden);
      expect(new Set(all.map((h) => h.hidden.at.line)).size).toBeGreaterThan(3);
      for (const { hidden } of all) {
        expect(touchedAt(fence, hidden.at)).not.toBeNull();
        if (level === 1) expect(hidden.r_ohm).toBeGreaterThan(59);
        if (hidden.r_ohm !== null) expect(hidden.r_ohm).toBeLessThan({ 1: 201, 2: 501, 3: 1201 }[level]); // prettier-ignore
      }
    }
  });
  it('shows a fault by more current towards it and fewer volts than without, off by its meter alone', () => {
    const hunt = hide(fence, 1, 7)!;
    const { at } = hunt.hidden;
    const fine = voltsOf(net, 'today')!;
    expect(hunt.probe(at).volts).toBeLessThan(0.9 * voltsAlong(fine, at)!);
    expect(hunt.probe(null).volts).toBeLessThan(fine.out_V);
    const shown = Array.from({ length: 40 }, () => hunt.probe(null).amps!);
    const mean = shown.reduce((s, a) => s + a, 0) / shown.length;
    expect(mean).toBeGreaterThan(fine.out_A);
    const off = Math.sqrt(shown.reduce((s, a) => s + (a / mean - 1) ** 2, 0) / shown.length);
    expect(off).toBeGreaterThan(0.015);
    expect(off).toBeLessThan(0.05);
    expect(hunt.earth(1)).toBeGreaterThan(0);
  });
  it('one who follows the lowest volts walks to the nearest place that is not read, and stops where it is seen', () => {
    const hunt = { hidden: { level: 1 as const, at: { line: 'a', at_m: 300 }, r_ohm: 90 }, probe: (p: { at_m: number } | null) => ({ volts: 5000 - (p?.at_m ?? 0), amps: null }), earth: () => 0 }; // prettier-ignore
    const places = [0, 100, 200, 300, 400].map((at_m) => ({ line: 'a', at_m }));
    const minutes = (from: { at_m: number } | null, to: { at_m: number }) => Math.abs((from?.at_m ?? 0) - to.at_m) / 50 + 5; // prettier-ignore
    const seen = (p: { at_m: number }) => p.at_m === 300;
    expect(followLowest(hunt, places, minutes, seen)).toBe(4 * 5 + 6);
    expect(followLowest(hunt, places, minutes, seen, 3)).toBeNull();
    expect(followLowest(hunt, places, minutes, () => false)).toBeNull();
  });
});
