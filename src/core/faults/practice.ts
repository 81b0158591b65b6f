/** A practice hunt: a fault is hidden in a fence, a meter is carried along it, and minutes are counted. */
import { normal, uniform } from '../base/random.js';
import { pulseNet, type Place } from '../power/pulseNet.js';
import { voltsOf, type Volts, type VoltsOptions } from '../power/volts.js';
import { ampsAt, METER_S, voltsAlong } from './property.js';
import { placeOf, type Searched } from './searched.js';

/** 1: a heavy leak, a good meter. 2: leaks and breaks, a usual meter. 3: light leaks too, and leakage that is not as planned. */
export const LEVELS = [1, 2, 3] as const;
export type Level = (typeof LEVELS)[number];

interface Levelled {
  readonly leaks_ohm: readonly [from: number, to: number];
  readonly breaks: number;
  /** Share by which volts and amps are off. */
  readonly meter: readonly [volts: number, amps: number];
  readonly growth: number;
}
const LEVEL: Readonly<Record<Level, Levelled>> = {
  1: { leaks_ohm: [60, 200], breaks: 0, meter: [0.015, 0.03], growth: 1 },
  2: { leaks_ohm: [80, 500], breaks: 0.15, meter: [0.03, 0.05], growth: 1 },
  3: { leaks_ohm: [150, 1200], breaks: 0.15, meter: [0.03, 0.05], growth: 1.3 },
};

export interface Hidden {
  readonly level: Level;
  readonly at: Place;
  /** Null: every strand is parted there. */
  readonly r_ohm: number | null;
}

/** What a meter shows at a place. */
export interface Probe {
  readonly volts: number;
  /** Of all strands together, towards the end of the line; null: the stretch is too short to say. */
  readonly amps: number | null;
}

export interface Hunt {
  readonly hidden: Hidden;
  /** @param at null: at the unit's terminal */
  probe(at: Place | null): Probe;
  /** Volts that a probe beside the rods shows. */
  earth(share: number): number;
}

/** Hides a fault by lot: the same seed hides the same. Null: there is no line to hide it in. */
export function hide(fence: Searched, level: Level, seed: number): Hunt | null {
  const [random, bell] = [uniform(seed), normal(seed + 1)];
  const { leaks_ohm, breaks, meter, growth } = LEVEL[level];
  const own = fence.fences[0]!.cells.filter((c) => fence.pieces[c.section]);
  const cell = own[Math.floor(random() * own.length)];
  const at = cell && placeOf(fence, { section: cell.section, x_m: cell.x_m + (random() - 0.5) * cell.length_m }); // prettier-ignore
  if (!at) return null;
  const broken = random() < breaks;
  const r_ohm = broken ? null : leaks_ohm[0] * (leaks_ohm[1] / leaks_ohm[0]) ** random();
  const options: VoltsOptions = {
    growth: random() < 0.5 ? growth : 1 / growth,
    amps_s: METER_S,
    ...(r_ohm === null ? { breaks: [at] } : { loads: [{ ...at, r_ohm }] }),
  };
  const volts = voltsOf(fence.net, fence.season, options)!;
  const { pieces } = pulseNet(fence.net, fence.season, options)!;
  const off = (v: number, rel: number) => v * (1 + rel * bell());
  return {
    hidden: { level, at, r_ohm },
    probe: (place) => ({
      volts: Math.round(off(place ? (voltsAlong(volts, place) ?? 0) : volts.out_V, meter[0]) / 100) * 100, // prettier-ignore
      amps: place ? ampsThere(place, pieces, volts, (a) => off(a, meter[1])) : off(volts.out_A, meter[1]), // prettier-ignore
    }),
    earth: (share) => Math.round(off(share * volts.out_A * volts.earth_ohm, 0.05) / 10) * 10,
  };
}

/** Amps at a place, just before it where lines meet. */
function ampsThere({ line, at_m }: Place, pieces: NonNullable<ReturnType<typeof pulseNet>>['pieces'], volts: Volts, off: (a: number) => number): number | null {
  const k = pieces.findIndex((p) => p !== null && p.line === line && p.from_m <= at_m && at_m <= p.to_m);
  const piece = pieces[k];
  const amps = volts.amps?.[k];
  if (!piece || !amps?.length) return null;
  return off(ampsAt(amps, (at_m - piece.from_m) / (piece.to_m - piece.from_m)));
} // prettier-ignore

/** So near one sees and hears it, m along the wires; one who looks in vain loses so many minutes. */
export const SEEN_M = 60;
export const IN_VAIN_MIN = 10;

/**
 * Minutes of one who follows the lowest volts: always to the nearest place that is not read yet from where they were
 * lowest, until the fault is seen. Null: it was not within so many places.
 */
export function followLowest(hunt: Hunt, places: readonly Place[], minutes: (from: Place | null, to: Place) => number, seen: (at: Place) => boolean, most = 40): number | null {
  let [spent, here]: [number, Place | null] = [0, null];
  let low: { at: Place | null; v: number } = { at: null, v: hunt.probe(null).volts };
  const left = new Set(places);
  for (let k = 0; k < most && left.size > 0; k++) {
    let next: Place | null = null;
    let least = Infinity;
    for (const p of left) {
      const m = minutes(low.at, p);
      if (m < least) [least, next] = [m, p];
    }
    if (!next) return null;
    left.delete(next);
    spent += minutes(here, next);
    here = next;
    if (seen(next)) return spent;
    const v = hunt.probe(next).volts;
    if (v <= low.v) low = { at: next, v };
  }
  return null;
} // prettier-ignore
