/**
 * A switch opened is a reading too: what is cut off takes nothing any more, and whatever is wrong there shows no longer. The
 * fence with its switches open is a network of its own; each fault of the whole one is looked up in it.
 */
import type { Place } from '../power/pulseNet.js';
import type { Meter } from './fence.js';
import { metersAt } from './hunt.js';
import { placeOf, touchedAt, type Made, type Searched } from './searched.js';

interface Parted {
  readonly made: Made;
  /** The faults of the whole fence as those of the parted one; -1: cut off, where it changes nothing. */
  readonly as: Int32Array;
  /** The meter in it; null: at what is cut off, where nothing is read. */
  meter(meter: Meter): Meter | null;
}

/** @param under the fence with some switches open; null: nothing is fed then */
export function withSwitches(whole: Made, under: (open: readonly Place[]) => Made | null): Pick<Searched, 'sections' | 'pieces' | 'terminal' | 'fences' | 'quiet' | 'feeds'> {
  const known = new Map<string, Parted | null>();
  const partedBy = (open: readonly Place[]): Parted | null => {
    const key = JSON.stringify(open);
    let own = known.get(key);
    if (own === undefined) {
      const made = under(open);
      known.set(key, (own = made && { made, as: faultsIn(whole, made), meter: (m) => meterIn(whole, made, m) }));
    }
    return own;
  };
  return {
    ...whole,
    feeds(open, at) {
      if (open.length === 0) return true;
      const own = partedBy(open);
      return own !== null && (!at || touchedAt(own.made, at) !== null);
    },
    fences: whole.fences.map((fence, v) => ({
      ...fence,
      read(meter, some) {
        if (!meter.open?.length) return fence.read(meter, some);
        const parted = partedBy(meter.open);
        const out = new Float64Array(some?.length ?? fence.count);
        const there = parted?.meter(meter);
        if (!parted || !there) return out;
        const own = parted.made.fences[v]!;
        const asked = some ? Int32Array.from(some, (f) => parted.as[f]!) : parted.as;
        const read = own.read(there, Uint32Array.from(asked.filter((f) => f >= 0)));
        out.fill(own.healthy(there));
        let next = 0;
        for (let i = 0; i < out.length; i++) if (asked[i]! >= 0) out[i] = read[next++]!;
        const { beside_V } = meter;
        if (beside_V === undefined) return out;
        const shut = fence.read(closed(meter), some);
        return out.map((v, i) => changed(v, shut[i]!, beside_V));
      },
      healthy(meter) {
        if (!meter.open?.length) return fence.healthy(meter);
        const parted = partedBy(meter.open);
        const there = parted?.meter(meter);
        if (!there) return 0;
        const mu = parted!.made.fences[v]!.healthy(there);
        return meter.beside_V === undefined ? mu : changed(mu, fence.healthy(closed(meter)), meter.beside_V);
      },
    })),
    quiet(options) {
      const plain = whole.quiet(options);
      const own = new Map<Parted, ((meter: Meter) => number) | null>();
      return plain && ((meter) => {
        if (!meter.open?.length) return plain(meter);
        const parted = partedBy(meter.open);
        const there = parted?.meter(meter);
        if (!parted || !there) return 0;
        let read = own.get(parted);
        if (read === undefined) own.set(parted, (read = parted.made.quiet(options)));
        if (!read) return 0;
        const { beside_V } = meter;
        return beside_V === undefined ? read(there) : changed(read(there), plain(closed(meter)), beside_V);
      });
    },
  };
} // prettier-ignore

/** What is read, going by what was read before the switch was opened. */
const changed = (mu: number, shut: number, beside_V: number): number =>
  shut > LEAST_V ? (mu * beside_V) / shut : mu;
/** Of less a share says nothing, V. */
const LEAST_V = 50;

/** The same meter with all switches closed. */
function closed(asked: Meter): Meter {
  const meter = { ...asked };
  delete meter.open;
  delete meter.beside_V;
  return meter;
}

/** A meter of the whole fence as one of the parted; null: it is cut off. */
function meterIn(whole: Made, parted: Made, asked: Meter): Meter | null {
  const meter = closed(asked);
  if (meter.quantity === 'earth') return meter;
  if (meter.quantity === 'voltage') {
    if (meter.location === whole.terminal) return { ...meter, location: parted.terminal };
    const place = whole.at.get(meter.location);
    const on = place && touchedAt(parted, place);
    return on ? metersAt(on, parted.sections)[0]! : null;
  }
  const { length_m } = whole.sections.find((s) => s.id === meter.section)!;
  const x_m = meter.at === 'from' ? 0 : meter.at === 'to' ? length_m : meter.at;
  const place = placeOf(whole, { section: meter.section, x_m });
  const on = place && touchedAt(parted, place);
  return on ? metersAt(on, parted.sections)[1]! : null;
}

/** Where each fault of the whole fence stands among those of the parted. */
function faultsIn(whole: Made, parted: Made): Int32Array {
  const [first, own] = [whole.fences[0]!, parted.fences[0]!];
  const [M, N, R, S] = [first.cells.length, own.cells.length, first.leaks_ohm.length, first.series_ohm.length];
  const out = new Int32Array(first.count).fill(-1);
  first.cells.forEach(({ section, x_m }, k) => {
    const to = cellIn(whole, parted, section, x_m);
    if (to < 0) return;
    for (let r = 0; r < R; r++) out[k * R + r] = to * R + r;
    for (let j = 0; j < S; j++) out[M * R + k * S + j] = N * R + to * S + j;
  });
  return out;
} // prettier-ignore

/** The cell of the parted fence at a place of the whole; -1: it is cut off. */
function cellIn(whole: Made, parted: Made, section: string, x_m: number): number {
  const place = placeOf(whole, { section, x_m });
  const line = whole.pulse.lines[Number(section)]!;
  const there = parted.sections.find((s, k) => {
    const piece = parted.pieces[s.id];
    if (place) return piece?.line === place.line && place.at_m >= piece.from_m && place.at_m <= piece.to_m;
    const own = parted.pulse.lines[k]!;
    return !piece && own.from === line.from && own.to === line.to;
  });
  if (!there) return -1;
  const piece = parted.pieces[there.id];
  const x = place && piece ? (there.length_m * (place.at_m - piece.from_m)) / (piece.to_m - piece.from_m) : x_m;
  return parted.fences[0]!.cells.reduce((best, c, k, all) =>
    c.section === there.id && (best < 0 || Math.abs(c.x_m - x) < Math.abs(all[best]!.x_m - x)) ? k : best, -1);
} // prettier-ignore
