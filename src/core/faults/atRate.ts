/**
 * The pulse's network as a resistive one. A pulse that rises as exp(rate t) meets each inductance as rate L ohm and each
 * capacitance as rate C siemens, all real: at one rate the whole network, its unit and its earth are resistances, and
 * a fault is one more. By which share a fault lowers the peaks is then near what the pulse itself does (docs/model.md,
 * Faults); with the wire's resistance and leakage alone it is not: what charges the wires takes more than what leaks.
 */
import type { Circuit, Section, StrandType } from '../power/circuitTypes.js';
import type { LoadLine } from '../power/loadLine.js';
import { solveUnit } from '../power/network.js';
import type { PulseNet } from '../power/pulseNet.js';
import type { PulseSource } from '../pulse/source.js';

/** The one strand that stands for all that are tied. */
export const TIED = 'tied';

export interface AtRate {
  readonly circuit: Circuit;
  readonly unit: LoadLine;
}

/** Impedance of a unit at a rate, ohm. */
export const sourceAt = ({ c_eq_f, r_s_ohm, l_s_h, r_d_ohm }: PulseSource, rate: number): number =>
  1 / (rate * c_eq_f) + r_s_ohm + 1 / (1 / (rate * l_s_h) + (r_d_ohm ? 1 / r_d_ohm : 0));

/** The section of a stretch of the pulse's network, by its place in `lines`. */
export const sectionId = (k: number): string => String(k);

/** @param rate 1/s */
export function atRate(pulse: PulseNet, source: PulseSource, earth_ohm: number, rate: number): AtRate {
  const strand_types: Record<string, StrandType> = {};
  const sections = pulse.lines.map((l, k): Section => {
    const id = sectionId(k);
    strand_types[id] = {
      role: 'hot',
      r_ohm_per_km: 1000 * (l.r_ohm_per_m + rate * l.l_h_per_m),
      g_s_per_km: 1000 * (l.g_s_per_m + rate * l.c_f_per_m),
    };
    return { id, from: l.from, to: l.to, length_m: l.length_m, strands: { [TIED]: id } };
  });
  const own = sourceAt(source, rate);
  return {
    circuit: {
      strand_types,
      sections,
      jumpers: [],
      energiser: { location: pulse.at, hot_strands: [TIED], earth_strands: [], lead_ohm: LEAD_OHM },
      r_earth_ohm: earth_ohm,
      shunts: [],
      breaks: [],
      probes: [],
    },
    unit: (r) => source.n_v0_v * (r === Infinity ? 1 : r / (r + own)),
  };
} // prettier-ignore

/** Of the clamp between unit and lead-out, which is a stretch of its own, ohm. */
const LEAD_OHM = 0.05;

/** A leak as it was simulated, and what it changed at some places. */
export interface Tried {
  readonly section: string;
  readonly x_m: number;
  readonly r_ohm: number;
  /** By which share the peak fell at a location. */
  readonly volts: readonly { readonly location: string; readonly share: number }[];
  /** By how much the current rose that passes a section's `from` towards its `to`, A. */
  readonly amps: readonly { readonly section: string; readonly rose_A: number }[];
}

/** How the resistive network follows simulated leaks. */
export interface Fit {
  /** 1/s. */
  readonly rate: number;
  /** A meter shows so much of a change of current: it is slower than the pulse. */
  readonly gain: number;
  /** How far volts are off still, a standard deviation of the logarithm; and currents, as a share of their change. */
  readonly off: number;
  readonly amps_off: number;
}

/** Rates that are tried, 1/s: from the slowest unit on the longest fence to the quickest on the shortest. */
const RATES = Array.from({ length: 13 }, (_, k) => 1e4 * 10 ** (k / 8));

/** The rate at which the resistive network follows some simulated leaks best. */
export function fitRate(at: (rate: number) => AtRate, tried: readonly Tried[]): Fit {
  const all = RATES.map((rate) => fitAt(rate, at(rate), tried));
  return all.reduce((a, b) => (b.off < a.off ? b : a));
}

function fitAt(rate: number, { circuit, unit }: AtRate, tried: readonly Tried[]): Fit {
  const healthy = solvedAt({ circuit, unit });
  const logs: number[] = [];
  const rises: (readonly [model: number, pulse: number])[] = [];
  for (const { section, x_m, r_ohm, volts, amps } of tried) {
    const shunt = { section, x_m, strand: TIED, to: 'soil', r_ohm };
    const leaking = solvedAt({ circuit: { ...circuit, shunts: [shunt] }, unit });
    for (const { location, share } of volts)
      logs.push(Math.log(leaking.volts(location) / healthy.volts(location) / share));
    for (const a of amps) rises.push([leaking.amps(a.section) - healthy.amps(a.section), a.rose_A]);
  }
  const square = (x: readonly number[]) => x.reduce((s, v) => s + v * v, 0);
  const model = square(rises.map(([m]) => m));
  const gain = model > 0 ? rises.reduce((s, [m, p]) => s + m * p, 0) / model : 1;
  const left = square(rises.map(([m, p]) => p - gain * m));
  return {
    rate,
    gain,
    off: logs.length ? Math.sqrt(square(logs) / logs.length) : 0,
    amps_off: model > 0 ? Math.sqrt(left / (gain * gain * model)) : 0,
  };
}

function solvedAt({ circuit, unit }: AtRate) {
  const solved = solveUnit(circuit);
  const amps = unit(solved.r_in_ohm) / solved.r_in_ohm;
  const volts = new Map(solved.nodes.map((n) => [n.location, (n.v_v ?? 0) * amps]));
  const passed = new Map(solved.currents.map((c) => [c.section, c.i_from * amps]));
  return {
    volts: (location: string) => volts.get(location) ?? 0,
    amps: (section: string) => passed.get(section) ?? 0,
  };
}
