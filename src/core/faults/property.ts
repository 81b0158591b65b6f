/**
 * A property's fence made ready for the search. What it reads while nothing is wrong is the pulse model's; a fault scales
 * that as the network at the pulse's own rate says. The fence stands as it may be: with more and less leakage and
 * resistance than was thought, each a pulse of its own.
 */
import { atOnce, type Steps } from '../base/steps.js';
import type { SeasonId } from '../plan/catalogue.js';
import { earthOf } from '../power/earthSide.js';
import { pulseNet, type Place, type PulseNet } from '../power/pulseNet.js';
import { unitOf } from '../power/unit.js';
import { voltsOf, type Volts, type VoltsOptions } from '../power/volts.js';
import type { Network } from '../power/wired.js';
import { readAt } from '../terrain/profile.js';
import { atRate, fitRate, sectionId, TIED, type Tried } from './atRate.js';
import {
  cellsOf,
  faultFence,
  geometric,
  middle,
  type Cell,
  type FaultFence,
  type Meter,
} from './fence.js';
import { MAY_BE } from './hunt.js';
import type { Made, Searched } from './searched.js';
import { withSwitches } from './switches.js';

export interface SearchOptions {
  readonly cell_m?: number;
  readonly leaks?: number;
  /** Factors on leakage, resistance and earth that readings have shown. */
  readonly known?: Pick<VoltsOptions, 'growth' | 'earth_ohm'>;
}

/**
 * Share by which a meter is off, and what no meter shows: volts and amps. The same meter twice at the same place is off by 2 %
 * each time [assumed], and the model by 2.3 % of what opening a switch changes (docs/model.md, Faults).
 */
const METER = { voltage_rel: 0.04, voltage_floor_v: 100, current_rel: 0.06, current_floor_a: 0.25, changed_rel: 0.3, wild: 0.05, earth_rel: 0.2, earth_floor_v: 50, repeat_rel: 0.036 }; // prettier-ignore
/** A clamp or an aerial that follows the current so slowly does not see the wave's front, s [assumed]. */
export const METER_S = 5e-5;
/** Resistances that a leak, and a joint gone bad, may have, ohm. */
const LEAKS = [50, 5000] as const;
const JOINTS = [100, 400, 1600];
/** A leak that is simulated to find the rate, ohm, in so many places, each looked at from so many others. */
const TRIED_OHM = 300;
const TRIED_AT = 4;
const SEEN_AT = 10;

/** Null while the unit feeds nothing. */
export const searchedOf = (...asked: Parameters<typeof searchedInSteps>): Searched | null =>
  atOnce(searchedInSteps(...asked));

/** The same in steps. */
export function* searchedInSteps(net: Network, season: SeasonId, { cell_m = 50, leaks = 31, known = {} }: SearchOptions = {}): Steps<Searched | null> {
  const first = pulseNet(net, season);
  if (!first) return null;
  const { source } = unitOf(net.energiser, net.cat);
  const earth_ohm = known.earth_ohm ?? earthOf(net, season);
  const growth = typeof known.growth === 'number' ? known.growth : 1;
  const fit = fitRate((r) => atRate(first, source, earth_ohm, r), triedOn(net, season, first, known));
  yield 0.3;
  const { rate, gain } = fit;
  const grid = { cell_m, leaks_ohm: geometric(...LEAKS, leaks), joints_ohm: JOINTS, strand: TIED };
  const under = (breaks: readonly Place[]): Made | null => {
    const plain = pulseNet(net, season, { breaks });
    if (!plain) return null;
    const { sections } = atRate(plain, source, earth_ohm, rate).circuit;
    const at = placesBy(plain, cellsOf({ sections }, grid));
    const fences = MAY_BE.map(([g, r]): FaultFence => {
      const such = { ...known, breaks, growth: growth * g, scale: { l: 1, r } };
      const pulse = pulseNet(net, season, such)!;
      const { circuit, unit } = atRate(pulse, source, earth_ohm, rate);
      const fence = faultFence(circuit, unit, grid);
      return asPulse(fence, readerOf(pulse, at, fence, voltsOf(net, season, { ...such, amps_s: METER_S })!), gain);
    });
    return {
      pulse: plain,
      at,
      sections,
      pieces: Object.fromEntries(plain.pieces.map((p, k) => [sectionId(k), p])),
      terminal: plain.at,
      fences,
      quiet: (options) => {
        const volts = voltsOf(net, season, { ...known, ...options, breaks, amps_s: METER_S });
        return volts && readerOf(plain, at, fences[0]!, volts);
      },
    };
  };
  const { sections, pieces, terminal, fences, quiet, feeds } = withSwitches(under([])!, under);
  return { net, season, sections, pieces, terminal, fences, quiet, feeds, earth_ohm, fit, noise: { ...METER, voltage_rel: Math.hypot(METER.voltage_rel, fit.off) } };
} // prettier-ignore

/** What some simulated leaks change elsewhere. */
function triedOn(net: Network, season: SeasonId, pulse: PulseNet, known: VoltsOptions): Tried[] {
  const healthy = voltsOf(net, season, { ...known, amps_s: METER_S })!;
  const long = pulse.pieces.flatMap((piece, k) => (piece && healthy.amps![k]!.length > 0 ? [{ piece, k, length: pulse.lines[k]!.length_m }] : []));
  const spread = <T>(list: readonly T[], n: number): T[] =>
    list.length <= n ? [...list] : Array.from({ length: n }, (_, i) => list[Math.floor(((i + 0.5) * list.length) / n)]!);
  const seen = spread(long, SEEN_AT);
  return spread(long, TRIED_AT).map(({ piece, k, length }): Tried => {
    const at = { line: piece.line, at_m: (piece.from_m + piece.to_m) / 2 };
    const loads = [{ ...at, r_ohm: TRIED_OHM }];
    const volts = voltsOf(net, season, { ...known, loads, amps_s: METER_S, peaksAlone: true })!;
    const leaking = pulseNet(net, season, { loads })!;
    const both = seen.flatMap((s) => {
      const place = { line: s.piece.line, at_m: s.piece.to_m };
      const [was, is] = [healthy, volts].map((v) => voltsAlong(v, place) ?? 0) as [number, number];
      if (!(was > 0 && is > 0)) return [];
      // The leak's own stretch is cut in two by it: its front part begins as the whole does.
      const own = leaking.pieces.findIndex((p) => p?.line === place.line && p.from_m === s.piece.from_m);
      const [first, now] = [healthy.amps![s.k]!, volts.amps![own] ?? new Float64Array()];
      const rose_A = now.length > 0 ? ampsAt(now, 0) - ampsAt(first, 0) : null;
      return [{ s, share: is / was, rose_A }];
    });
    return {
      section: sectionId(k),
      x_m: length / 2,
      r_ohm: TRIED_OHM,
      volts: both.map(({ s, share }) => ({ location: pulse.lines[s.k]!.to, share })),
      amps: both.flatMap(({ s, rose_A }) => (rose_A === null ? [] : [{ section: sectionId(s.k), rose_A }])),
    };
  });
} // prettier-ignore

/** Places of lines by the locations of a fence. */
function placesBy(pulse: PulseNet, cells: readonly Cell[]): Map<string, Place> {
  const at = new Map<string, Place>();
  pulse.pieces.forEach((piece, k) => {
    if (!piece) return;
    const { from, to } = pulse.lines[k]!;
    at.set(from, { line: piece.line, at_m: piece.from_m }).set(to, { line: piece.line, at_m: piece.to_m }); // prettier-ignore
  });
  const own = new Map(pulse.lines.map((l, k) => [sectionId(k), { l, piece: pulse.pieces[k]! }]));
  for (const { section, x_m } of cells) {
    const { l, piece } = own.get(section)!;
    if (piece) at.set(middle({ section, x_m }), { line: piece.line, at_m: piece.from_m + ((piece.to_m - piece.from_m) * x_m) / l.length_m }); // prettier-ignore
  }
  return at;
} // prettier-ignore

/** What a pulse reads at a meter of a fence. */
function readerOf(pulse: PulseNet, at: ReadonlyMap<string, Place>, fence: FaultFence, volts: Volts): (meter: Meter) => number {
  const own = new Map(pulse.lines.map((l, k) => [sectionId(k), l]));
  const plain = (location: string) => fence.healthy({ quantity: 'voltage', location });
  const voltsAt = (location: string): number => {
    const place = at.get(location);
    const own = place && voltsAlong(volts, place);
    // Of a cable nobody has simulated the places: as at the unit.
    return own ?? (volts.out_V * plain(location)) / plain(pulse.at);
  };
  const lead = pulse.lines.findIndex((l) => l.from === pulse.at || l.to === pulse.at);
  const atUnit = { quantity: 'current', section: sectionId(lead), at: 'from' } as const;
  return (meter) => {
    if (meter.quantity === 'voltage') return voltsAt(meter.location);
    if (meter.quantity === 'earth') return volts.out_A * volts.earth_ohm;
    const l = own.get(meter.section)!;
    const cells = volts.amps![Number(meter.section)]!;
    const x_m = meter.at === 'from' ? 0 : meter.at === 'to' ? l.length_m : meter.at;
    // What is too short to be simulated passes what its neighbours make it pass.
    if (cells.length === 0) return (fence.healthy(meter) * volts.out_A) / fence.healthy(atUnit);
    return ampsAt(cells, x_m / l.length_m);
  };
} // prettier-ignore

/** Current at a share of a line's length from its cells: straight between their middles, held at the ends. */
export function ampsAt(cells: Float64Array, share: number): number {
  const at = Math.min(cells.length - 1, Math.max(0, share * cells.length - 0.5));
  const [k, part] = [Math.floor(at), at % 1];
  return cells[k]! * (1 - part) + (cells[k + 1] ?? cells[k]!) * part;
}

/** Volts of a pulse at a place; null where the line is not fed. */
export function voltsAlong({ lines }: Volts, { line, at_m }: Place): number | null {
  const track = lines[line];
  return track ? readAt(track.s_m, track.v_V, at_m) : null;
}

/**
 * A fence whose readings are those of a pulse, changed as a fault changes its own: volts by the same share, currents, which
 * may be nothing while all is well, by as much for each volt.
 */
function asPulse(fence: FaultFence, reader: (meter: Meter) => number, gain: number): FaultFence {
  const known = new Map<string, readonly [add: number, times: number]>();
  const change = (meter: Meter): readonly [number, number] => {
    const key = JSON.stringify(meter);
    let own = known.get(key);
    if (!own) {
      const [pulse, plain] = [reader(meter), fence.healthy(meter)];
      if (meter.quantity === 'current') own = [pulse - gain * plain, gain];
      else own = [0, ratio(pulse, plain)];
      known.set(key, own);
    }
    return own;
  };
  return {
    ...fence,
    read(meter, some) {
      const [add, times] = change(meter);
      return fence.read(meter, some).map((v) => add + times * v);
    },
    healthy: reader,
  };
}

const ratio = (a: number, b: number): number => (b === 0 ? 0 : a / b);
