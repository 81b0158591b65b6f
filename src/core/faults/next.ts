/** Where to measure next: what tells most of the place, for each minute that it takes. */
import { sum } from '../base/numbers.js';
import { partsOf, type Noise, type Posterior } from './posterior.js';
import type { FaultFence, Meter } from './fence.js';

export interface Stop {
  /** What is read there, at one touch. */
  readonly meters: readonly Meter[];
  /** To get there and read. */
  readonly minutes: number;
}

export interface Told<S extends Stop> {
  readonly stop: S;
  /** By how much it is expected to lessen the uncertainty of the cell, nat. */
  readonly gain: number;
}

/** Faults that weigh less than the likeliest by this are left out of the question. */
const SLIGHT = 1e-5;
/** At most so many are asked about: every so many-th of them is enough. */
const MOST = 1600;
/** A reading is told from another in steps of so many of its spreads; what falls beyond its neighbours is left out. */
const WIDE = 2;
/** Steps of a reading that are kept apart: from far below nought to far above. */
const STEPS = 256;

/** Shares of a reading that fall into the step below its own, its own and the one above, by where in its step it lies. */
const PARTS = 32;
const SHARES = Float64Array.from({ length: 3 * PARTS }, (_, i) => {
  const d = (((i / 3) | 0) + 0.5) / PARTS - 0.5;
  const [low, high] = [below((-0.5 - d) * WIDE), 1 - below((0.5 - d) * WIDE)];
  return [low, 1 - low - high, high][i % 3]!;
});

/** Standard normal distribution [published: Abramowitz and Stegun, 26.2.17; within 8e-8]. */
function below(x: number): number {
  if (x > 0) return 1 - below(-x);
  const t = 1 / (1 - 0.2316419 * x);
  const poly = t * (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429)))); // prettier-ignore
  return (Math.exp((-x * x) / 2) / Math.sqrt(2 * Math.PI)) * poly;
}

/** Stops with what each is expected to tell, best for each minute first. */
export function worthOf<S extends Stop>(fences: readonly FaultFence[], now: Pick<Posterior, 'p'>, stops: readonly S[], noise: Noise): Told<S>[] {
  const asked = thinned(fences, now.p);
  const { size, weight, cell } = asked;
  const all = new Float64Array(STEPS * STEPS);
  const one = new Float64Array(STEPS * STEPS);
  const seen = new Int32Array(STEPS * STEPS);
  const touched = new Int32Array(STEPS * STEPS);
  const [first, second] = [stepsFor(size), stepsFor(size)];
  const told = stops.map((stop): Told<S> => {
    const [m1, m2] = stop.meters;
    steps(m1!, first, fences, asked, noise);
    if (m2) steps(m2, second, fences, asked, noise);
    // H(reading) less H(reading | cell): faults stand cell by cell.
    let nSeen = 0;
    let gain = 0;
    for (let i = 0; i < size;) {
      let nTouched = 0;
      let total = 0;
      const k = cell[i]!;
      for (; i < size && cell[i] === k; i++) {
        const w = weight[i]!;
        total += w;
        const [s1, p1] = [first.step[i]!, 3 * first.part[i]!];
        const [s2, p2] = m2 ? [second.step[i]!, 3 * second.part[i]!] : [1, -1];
        for (let u = 0; u < 3; u++) {
          const wu = w * SHARES[p1 + u]!;
          const row = (s1 + u - 1) * STEPS + s2 - 1;
          for (let v = m2 ? 0 : 1; v < (m2 ? 3 : 2); v++) {
            const b = row + v;
            if (one[b] === 0) touched[nTouched++] = b;
            one[b]! += m2 ? wu * SHARES[p2 + v]! : wu;
          }
        }
      }
      for (let t = 0; t < nTouched; t++) {
        const b = touched[t]!;
        const x = one[b]!;
        one[b] = 0;
        if (x === 0) continue;
        gain += x * Math.log(x / total);
        if (all[b] === 0) seen[nSeen++] = b;
        all[b]! += x;
      }
    }
    for (let t = 0; t < nSeen; t++) {
      const b = seen[t]!;
      gain -= all[b]! * Math.log(all[b]!);
      all[b] = 0;
    }
    return { stop, gain: Math.max(0, gain) };
  });
  return told.sort((a, b) => b.gain / b.stop.minutes - a.gain / a.stop.minutes);
} // prettier-ignore

interface Steps {
  readonly step: Uint16Array;
  /** Where in its step a reading lies. */
  readonly part: Uint8Array;
}
const stepsFor = (size: number): Steps => ({
  step: new Uint16Array(size),
  part: new Uint8Array(size),
});

/** Readings in steps of about their spread, evenly also where the floor gives way to the share. */
function steps(meter: Meter, out: Steps, fences: readonly FaultFence[], { asked, place }: Asked, noise: Noise): void {
  const { rel, floor } = partsOf(meter, noise);
  fences.forEach((fence, v) => {
    const mu = fence.read(meter, asked[v]!);
    for (let i = 0; i < mu.length; i++) {
      const t = Math.abs(rel * mu[i]!) / floor;
      // asinh, as cheap as it can be had.
      const even = rel > 0 ? (Math.sign(mu[i]!) * Math.log(t + Math.sqrt(t * t + 1))) / rel : mu[i]! / floor;
      const at = Math.max(1, Math.min(STEPS - 2, STEPS / 2 + even / WIDE));
      const e = place[v]![i]!;
      out.step[e] = at | 0;
      out.part[e] = ((at - (at | 0)) * PARTS) | 0;
    }
  });
} // prettier-ignore

/** The faults that are asked about. */
interface Asked {
  readonly size: number;
  /** Cell by cell: its number, and the weights, together 1. */
  readonly cell: Int32Array;
  readonly weight: Float64Array;
  /** By fence as it may be: the faults, and the place of each in the lists above. */
  readonly asked: readonly Uint32Array[];
  readonly place: readonly Uint32Array[];
}

function thinned(fences: readonly FaultFence[], p: Posterior['p']): Asked {
  const { cells, leaks_ohm, series_ohm, count } = fences[0]!;
  const [M, R, S] = [cells.length, leaks_ohm.length, series_ohm.length];
  let top = 0;
  for (const own of p) for (let f = 0; f < count; f++) top = Math.max(top, own[f]!);
  const least = SLIGHT * top;
  let kept = 0;
  for (const own of p) for (let f = 0; f < count; f++) if (own[f]! > least) kept++;
  const every = Math.max(1, Math.ceil(kept / MOST));
  const asked: number[][] = p.map(() => []);
  const place: number[][] = p.map(() => []);
  const [weight, cell]: number[][] = [[], []];
  for (let k = 0; k < M; k++)
    for (let v = 0; v < p.length; v++)
      for (let r = 0; r < R + S; r++) {
        const f = r < R ? k * R + r : M * R + k * S + r - R;
        // Of leaks every so many-th resistance; of what stands in the way, where that is not all, one of the fences by turns.
        const step = r < R ? every : every > 1 ? p.length : 1;
        if (!(p[v]![f]! > least) || (r < R ? (r + k + v) % step !== 0 : step > 1 && k % step !== v)) continue;
        asked[v]!.push(f);
        place[v]!.push(cell!.length);
        weight!.push(p[v]![f]! * step);
        cell!.push(k);
      }
  const total = sum(weight!);
  const list = (lists: readonly number[][]) => lists.map((own) => Uint32Array.from(own));
  return { size: cell!.length, cell: Int32Array.from(cell!), weight: Float64Array.from(weight!, (w) => w / total), asked: list(asked), place: list(place) };
} // prettier-ignore
