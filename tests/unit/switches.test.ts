/** A switch opened as a reading: against whole pulses of the parted fence, in what it says of the place, and in the log. */
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { uniform } from '../../src/core/base/random.js';
import { faultFence, type Meter } from '../../src/core/faults/fence.js';
import { ON_A_SEARCH, weigher } from '../../src/core/faults/kinds.js';
import { searchedOf, voltsAlong } from '../../src/core/faults/property.js';
import { placeOf, touchedAt } from '../../src/core/faults/searched.js';
import { atRate, TIED } from '../../src/core/faults/atRate.js';
import { pulseNet, type Place } from '../../src/core/power/pulseNet.js';
import { unitOf } from '../../src/core/power/unit.js';
import { voltsOf } from '../../src/core/power/volts.js';
import type { Logged } from '../../src/core/rounds/logged.js';
import { openAt, switchedOf, switchesOf, type Switched } from '../../src/core/rounds/switches.js';
import { asFaultReadings } from '../../src/core/rounds/verdict.js';
import { groundOf } from '../../src/core/terrain/ground.js';
import { parsePlan } from '../../src/formats/planFile.js';
import { line, networkOf, plan } from './scene.js';

const demo = parsePlan(readFileSync('demo/hollin-scar.plan.json', 'utf8'));
const net = networkOf(demo.plan, 'steading', groundOf(demo.plan, demo.grids));
const fence = searchedOf(net, 'today')!;
const [as] = fence.fences;
const T: Meter = { quantity: 'voltage', location: fence.terminal };
/** The one branch of the demo that hangs at one end alone. */
const open: Place[] = [{ line: 'brow', at_m: 0 }];
const places = as!.cells.map((c, k) => ({ k, at: placeOf(fence, c) })).flatMap(({ k, at }) => (at ? [{ k, at }] : [])); // prettier-ignore
const beyond = places.filter(({ at }) => !fence.feeds(open, at));

describe('the fence with a switch open', () => {
  it('is cut off beyond it alone, and reads what a whole pulse of the parted fence reads', () => {
    expect(new Set(beyond.map(({ at }) => at.line))).toEqual(new Set(['brow']));
    expect(as!.healthy({ ...T, open })).toBeCloseTo(voltsOf(net, 'today', { breaks: open })!.out_V, 6); // prettier-ignore
    expect(fence.feeds([])).toBe(true);
    expect(fence.feeds(open)).toBe(true);
  });

  it('shows no fault of what is cut off, and is within 4 % of whole pulses in how it changes the others', () => {
    const random = uniform(5);
    const R = as!.leaks_ohm.length;
    for (const { k } of beyond.slice(0, 2))
      expect(as!.read({ ...T, open }, Uint32Array.of(k * R + 5))[0]).toBe(as!.healthy({ ...T, open })); // prettier-ignore
    const logs: number[] = [];
    const ways: Place[][] = [open, [{ line: 'lane-e', at_m: 300 }], [...open, { line: 'mid-e', at_m: 200 }]]; // prettier-ignore
    for (let n = 0; n < 18; n++) {
      const parted = ways[n % 3]!;
      const { k, at } = places[Math.floor(random() * places.length)]!;
      const r = 4 + Math.floor(random() * 16);
      const loads = [{ ...at, r_ohm: as!.leaks_ohm[r]! }];
      const [was, is] = [voltsOf(net, 'today', { loads })!, voltsOf(net, 'today', { loads, breaks: parted })!]; // prettier-ignore
      const other = places[Math.floor(random() * places.length)]!;
      const f = Uint32Array.of(k * R + r);
      const share = (m: Meter) => as!.read({ ...m, open: parted }, f)[0]! / as!.read(m, f)[0]!;
      logs.push(Math.log(share(T) / (is.out_V / was.out_V)));
      if (!fence.feeds(parted, other.at)) continue;
      const cell = as!.cells[other.k]!;
      const [a, b] = [voltsAlong(was, other.at)!, voltsAlong(is, other.at)!];
      logs.push(Math.log(share({ quantity: 'voltage', location: `${cell.section}@${cell.x_m}` }) / (b / a))); // prettier-ignore
    }
    expect(Math.sqrt(logs.reduce((s, x) => s + x * x, 0) / logs.length)).toBeLessThan(0.04);
  });

  it('says where the fault lies: volts that come back say beyond it, volts that stay say before', () => {
    const weigh = weigher(fence);
    const strands = () => 3;
    const reading = (value: number, part: Partial<Logged> = {}): Logged => ({ id: `${value}`, time: '2026-05-02T09:00:00Z', kind: 'volts', value, line: null, at_m: null, spot: 'terminal', unit: 'steading', ...part }); // prettier-ignore
    const chance = (at: Place, withSwitch: boolean): number => {
      const loads = [{ ...at, r_ohm: 300 }];
      const [was, is] = [voltsOf(net, 'today', { loads })!, voltsOf(net, 'today', { loads, breaks: open })!]; // prettier-ignore
      const read = [reading(was.out_V), ...(withSwitch ? [reading(is.out_V, { open })] : [])];
      const { where } = weigh(asFaultReadings(fence, read, 1, strands).map((t) => t.as), ON_A_SEARCH); // prettier-ignore
      return beyond.reduce((s, { k }) => s + where.cells[k]!, 0);
    };
    const [there, elsewhere] = [beyond[1]!.at, { line: 'lane-e', at_m: 380 }];
    expect(chance(there, false)).toBeLessThan(0.05);
    expect(chance(there, true)).toBeGreaterThan(0.3);
    expect(chance(elsewhere, true)).toBeLessThan(0.5 * chance(elsewhere, false));
    // What is cut off is no reading; what was read before goes with what is read after at the same place alone.
    const cut = asFaultReadings(fence, [reading(0, { ...beyond[1]!.at, unit: null, open }), reading(3000, { open })], 1, strands); // prettier-ignore
    expect(cut.map((t) => t.as.meter)).toEqual([{ ...T, open }]);
    const paired = asFaultReadings(fence, [reading(2500), reading(3000, { open })], 1, strands);
    expect(paired[1]!.as.meter).toEqual({ ...T, open, beside_V: 2500 });
  });

  it('parts beside a place with a name, towards the middle of its run', () => {
    const at = (at_m: number) => pulseNet(net, 'today', { breaks: [{ line: 'brow', at_m }] })!;
    const whole = pulseNet(net, 'today')!;
    const length = net.wired['brow']!.runs.at(-1)!.to_m;
    // At the far end what is cut off is next to nothing; at its start, the whole of it.
    expect(whole.length_m - at(length).length_m).toBeLessThan(1);
    expect(whole.length_m - at(0).length_m).toBeGreaterThan(150);
    expect(touchedAt(fence, { line: 'brow', at_m: 5 })).not.toBeNull();
  });

  it('is not guessed at by a fence that knows no switches', () => {
    const { source } = unitOf(net.energiser, net.cat);
    const { circuit, unit } = atRate(pulseNet(net, 'today')!, source, 10, 5e4);
    const bare = faultFence(circuit, unit, { cell_m: 200, leaks_ohm: [300], strand: TIED });
    expect(() => bare.read({ ...T, open })).toThrow('no switches');
  });
});

describe('switches in log and plan', () => {
  const put = (what: Switched['what'], hour: number, line: string | null = 'a', at_m = 1): Switched => ({ what, time: `2026-05-02T${String(hour).padStart(2, '0')}:00:00Z`, line, at_m }); // prettier-ignore
  it('stand open from when they were opened until they were closed, each for itself', () => {
    const log = switchedOf([put('switch_closed', 12), put('storm', 1, null), put('switch_open', 9), put('switch_open', 10, 'b', 40), put('switch_open', 11, null)]); // prettier-ignore
    const at = (hour: number) => openAt(log, `2026-05-02T${String(hour).padStart(2, '0')}:30:00Z`);
    expect(at(8)).toEqual([]);
    expect(at(9)).toEqual([{ line: 'a', at_m: 1 }]);
    expect(at(11)).toEqual([{ line: 'a', at_m: 1 }, { line: 'b', at_m: 40 }]); // prettier-ignore
    expect(at(13)).toEqual([{ line: 'b', at_m: 40 }]);
    // Another offset is another hour.
    expect(openAt(log, '2026-05-02T10:30:00+02:00')).toEqual([]);
  });
  it('are those that the ties of the plan go through, a metre into the run that they part', () => {
    const end = (side: 'before' | 'after', strand: number) => ({ side, strand });
    const l = {
      ...line('a', [[0, 0], [100, 0], [200, 0]]), // prettier-ignore
      joins: [{ at_m: 100, ties: [{ a: end('before', 0), b: end('after', 0), kind: 'clamp' as const, switch: true as const }, { a: end('after', 0), b: end('after', 1), kind: 'hand' as const }] }], // prettier-ignore
    };
    expect(switchesOf(plan([l]))).toEqual([{ line: 'a', at_m: 99 }]);
    expect(switchesOf(demo.plan)).toEqual([]);
  });
});
