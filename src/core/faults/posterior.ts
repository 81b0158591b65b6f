/** How likely each fault is after what was read (Bayes), and what that says of the place. */
import { sum } from '../base/numbers.js';
import type { Cell, FaultFence, Meter } from './fence.js';

/** How far a meter is off: a share of what it reads and a floor. */
export interface Noise {
  readonly voltage_rel: number;
  readonly voltage_floor_v: number;
  readonly current_rel: number;
  readonly current_floor_a: number;
  /** Of the earth terminal; as of volts where nothing is said. */
  readonly earth_rel?: number;
  readonly earth_floor_v?: number;
  /** How far the model is off where a fault changes a current, as a share of the change; nought where nothing is said. */
  readonly changed_rel?: number;
  /** By how much a meter is off a change that opening a switch makes, as a share; as of volts where nothing is said. */
  readonly repeat_rel?: number;
  /** So many of 1 readings are misread or stand beside the fault, and are off by far more. */
  readonly wild?: number;
}

export interface FaultReading {
  readonly meter: Meter;
  /** V or A. */
  readonly value: number;
}

/** Chances of leaks of any resistance, of bad joints and of breaks before anything was read, together 1. */
export interface Prior {
  readonly p_leak: number;
  readonly p_joint?: number;
  readonly p_broken: number;
}

export interface Posterior {
  /** By how the fence may be, and by fault in the fence's order; together 1. */
  readonly p: readonly Float64Array[];
  /** By cell. */
  readonly cells: Float64Array;
  /** By how the fence may be. */
  readonly fences: readonly number[];
  readonly broken: number;
  readonly joint: number;
  /** Logarithm of how likely such readings are with a fault of this kind of prior, whichever and wherever. */
  readonly evidence: number;
  /** Geometric mean of the leak's resistance, were it one, ohm; null: a leak was ruled out beforehand. */
  readonly leak_ohm: number | null;
  /** What each reading should have been with the likeliest fault, in their order. */
  readonly expected: readonly number[];
}

/** How far a meter is off: the share and the floor of what it reads. */
export const partsOf = ({ quantity, beside_V }: Meter, n: Noise): { rel: number; floor: number } =>
  quantity === 'current'
    ? { rel: n.current_rel, floor: n.current_floor_a }
    : quantity === 'earth'
      ? { rel: n.earth_rel ?? n.voltage_rel, floor: n.earth_floor_v ?? n.voltage_floor_v }
      : {
          rel: beside_V === undefined ? n.voltage_rel : (n.repeat_rel ?? n.voltage_rel),
          floor: n.voltage_floor_v,
        };

/** Standard deviation of what a meter reads where it should read mu. */
export function spread(meter: Meter, mu: number, noise: Noise): number {
  const { rel, floor } = partsOf(meter, noise);
  return Math.sqrt(rel * mu * (rel * mu) + floor * floor);
}

/** A wild reading is off by so many times the spread of the others. */
const WILD = 6;

/**
 * Logarithm of the chance of a reading where mu should be read, but for a constant: it is asked under thousands of faults.
 * @param change what of mu a fault has changed
 */
export function chancesOf(meter: Meter, value: number, noise: Noise): (mu: number, change?: number) => number {
  const { rel, floor } = partsOf(meter, noise);
  const changed = meter.quantity === 'current' ? (noise.changed_rel ?? 0) : 0;
  const { wild = 0 } = noise;
  return (mu, change = 0) => {
    const [share, off] = [rel * mu, changed * change];
    const variance = share * share + floor * floor + off * off;
    const far = ((value - mu) * (value - mu)) / (2 * variance);
    if (wild === 0) return -far - Math.log(variance) / 2;
    const near = (1 - wild) * Math.exp(-far) + (wild / WILD) * Math.exp(-far / (WILD * WILD)) + 1e-300;
    return Math.log(near) - Math.log(variance) / 2;
  };
} // prettier-ignore

/** Logarithms of the chances before anything was read: each metre alike, each resistance alike. */
export function logPrior({ cells, leaks_ohm, series_ohm, count }: FaultFence, { p_leak, p_joint = 0, p_broken }: Prior): Float64Array {
  const total = sum(cells.map((c) => c.length_m));
  const [M, R, S] = [cells.length, leaks_ohm.length, series_ohm.length];
  const out = new Float64Array(count);
  cells.forEach(({ length_m }, k) => {
    out.fill(Math.log((p_leak * length_m) / total / R), k * R, (k + 1) * R);
    const way = M * R + k * S;
    if (S > 1) out.fill(Math.log((p_joint * length_m) / total / (S - 1)), way, way + S - 1);
    out[way + S - 1] = Math.log((p_broken * length_m) / total);
  });
  return out;
} // prettier-ignore

/**
 * Chances of all faults after some readings; each reading's error is independent of the others'.
 * @param fences the fence as it may be: one, or several with the same cells and leaks, each as likely as the others before
 *   anything was read (nobody knows the leakage of the day); a reading tells them apart as it tells faults apart
 * @throws RangeError where there is nothing to read
 */
export function posteriorOf(fences: readonly FaultFence[], readings: readonly FaultReading[], noise: Noise, prior: Prior): Posterior {
  const [first] = fences;
  if (!first) throw new RangeError('there is no fence');
  const { cells: cellsOf, leaks_ohm, series_ohm, count } = first;
  const before = logPrior(first, prior);
  const logs = fences.map((fence) => {
    const log = before.slice();
    for (const reading of readings) {
      const own = logOf(fence, reading, noise);
      for (let f = 0; f < count; f++) log[f]! += own[f]!;
    }
    return log;
  });
  const most = Math.max(...logs.map(largest));
  const p = logs.map((log) => log.map((l) => Math.exp(l - most)));
  const total = sum(p.map(together));
  for (const own of p) for (let f = 0; f < count; f++) own[f]! /= total;
  const [M, R, S] = [cellsOf.length, leaks_ohm.length, series_ohm.length];
  const cells = new Float64Array(M);
  let broken = 0;
  for (const own of p)
    for (let k = 0; k < M; k++) {
      const way = M * R + k * S;
      cells[k]! += together(own.subarray(k * R, (k + 1) * R)) + together(own.subarray(way, way + S));
      broken += own[way + S - 1]!;
    }
  return {
    p,
    cells,
    fences: p.map(together),
    broken,
    joint: sum(p.map((own) => together(own.subarray(M * R)))) - broken,
    evidence: most + Math.log(total / fences.length),
    leak_ohm: meanLeak(logs, first),
    expected: expectedBy(fences, p, readings),
  };
} // prettier-ignore

function largest(x: Float64Array): number {
  let most = -Infinity;
  for (let f = 0; f < x.length; f++) if (x[f]! > most) most = x[f]!;
  return most;
}

/** Logarithms of the chance of a reading under every fault, kept: each update asks for those of all earlier readings. */
const known = new WeakMap<FaultFence, Map<string, Float64Array>>();
function logOf(fence: FaultFence, reading: FaultReading, noise: Noise): Float64Array {
  let own = known.get(fence);
  if (!own) known.set(fence, (own = new Map()));
  const key = JSON.stringify([reading, noise]);
  let log = own.get(key);
  if (log) return log;
  const { meter, value } = reading;
  const mu = fence.read(meter);
  log = new Float64Array(mu.length);
  const healthy = fence.healthy(meter);
  const chance = chancesOf(meter, value, noise);
  for (let f = 0; f < mu.length; f++) log[f] = chance(mu[f]!, mu[f]! - healthy);
  own.set(key, log);
  return log;
}

/** What each reading should have been with the likeliest fault. */
function expectedBy(fences: readonly FaultFence[], p: readonly Float64Array[], readings: readonly FaultReading[]): number[] {
  const tops = p.map(largest);
  const v = tops.indexOf(Math.max(...tops));
  const f = Uint32Array.of(p[v]!.indexOf(tops[v]!));
  return readings.map(({ meter }) => fences[v]!.read(meter, f)[0]!);
} // prettier-ignore

function together(p: Float64Array): number {
  let all = 0;
  for (let f = 0; f < p.length; f++) all += p[f]!;
  return all;
}

/** Also where a leak is next to impossible: which it would be then. */
function meanLeak(logs: readonly Float64Array[], { cells, leaks_ohm }: FaultFence): number | null {
  const R = leaks_ohm.length;
  const own = logs.map((log) => log.subarray(0, cells.length * R));
  const most = Math.max(...own.map(largest));
  if (most === -Infinity) return null;
  const size = leaks_ohm.map(Math.log);
  let [weight, of] = [0, 0];
  for (const log of own)
    for (let f = 0; f < log.length; f++) {
      const w = Math.exp(log[f]! - most);
      weight += w;
      of += w * size[f % R]!;
    }
  return Math.exp(of / weight);
}

/** Chances by section, in the order of the cells. */
export function bySection(cells: readonly Cell[], p: ArrayLike<number>): Record<string, number> {
  const out: Record<string, number> = {};
  cells.forEach(({ section }, k) => (out[section] = (out[section] ?? 0) + p[k]!));
  return out;
}

/** Uncertainty of chances that are together 1, nat. What rounding leaves of a certain one is no uncertainty. */
export function entropy(p: Iterable<number>): number {
  const all = [...p].sort((a, b) => a - b);
  all.pop();
  const top = 1 - sum(all);
  let out = top > 0 ? -top * Math.log(top) : 0;
  for (const x of all) if (x > 0) out -= x * Math.log(x);
  return out;
}

/** A stretch of a section that a fault may lie in. */
export interface Stretch {
  readonly section: string;
  readonly from_m: number;
  readonly to_m: number;
  readonly p: number;
}

/**
 * The shortest stretches that hold the fault with a given chance: the likeliest cells first, of the last one only as much
 * as is wanted, so that what is called 80 % is 80 % and not more.
 * @param share between 0 and 1
 */
export function likely(cells: readonly Cell[], p: ArrayLike<number>, share: number): Stretch[] {
  const order = cells.map((_, k) => k).sort((a, b) => p[b]! / cells[b]!.length_m - p[a]! / cells[a]!.length_m || a - b);
  const parts: Stretch[] = [];
  let held = 0;
  for (const k of order) {
    if (held >= share - 1e-12) break;
    const { section, x_m, length_m } = cells[k]!;
    const part = Math.min(1, (share - held) / p[k]!);
    parts.push({ section, from_m: x_m - (part * length_m) / 2, to_m: x_m + (part * length_m) / 2, p: part * p[k]! });
    held += part * p[k]!;
  }
  const place = new Map(cells.map((c, k) => [c.section, k]));
  parts.sort((a, b) => place.get(a.section)! - place.get(b.section)! || a.from_m - b.from_m);
  // Neighbours are one stretch.
  return parts.reduce<Stretch[]>((out, s) => {
    const last = out.at(-1);
    if (last && last.section === s.section && s.from_m - last.to_m < 1e-6) out[out.length - 1] = { ...last, to_m: s.to_m, p: last.p + s.p };
    else out.push(s);
    return out;
  }, []);
} // prettier-ignore
