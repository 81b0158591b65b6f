/** What a round says of the fence as a whole: which kind of fault, if any, explains what was read. */
import type { Place } from '../power/pulseNet.js';
import type { FaultReading } from '../faults/posterior.js';
import type { FaultKind, Weighed } from '../faults/kinds.js';
import { likely, type Stretch } from '../faults/posterior.js';
import { metersAt } from '../faults/hunt.js';
import { placeOf, touchedAt, type Searched } from '../faults/searched.js';
import type { Logged } from './logged.js';

/** A stretch of a line that a fault may lie in. */
export interface LineStretch {
  readonly line: string;
  readonly from_m: number;
  readonly to_m: number;
  readonly p: number;
}

/**
 * Readings of one unit as the search takes them; null where it knows no such place.
 * @param share of the earth terminal's volts that a probe beside the rods shows
 * @param strands so many live strands share the current at a place
 */
export function asFaultReading(fence: Searched, r: Logged, share: number, strands: (at: Place) => number): FaultReading | null {
  if (r.kind === 'battery_volts') return null;
  const open = r.open ?? [];
  const where = r.line !== null && r.at_m !== null ? { line: r.line, at_m: r.at_m } : undefined;
  // What a switch has cut off reads nothing, whatever is wrong.
  if (!fence.feeds(open, where)) return null;
  const under = open.length > 0 ? { open } : {};
  if (r.kind === 'earth_volts') return { meter: { quantity: 'earth', ...under }, value: r.value / share };
  if (!where) return r.kind === 'volts' ? { meter: { quantity: 'voltage', location: fence.terminal, ...under }, value: r.value } : null;
  const on = touchedAt(fence, where);
  if (!on) return null;
  const [volts, amps] = metersAt(on, fence.sections);
  if (r.kind === 'volts') return { meter: { ...volts!, ...under }, value: r.value };
  // Sections run as their line does.
  return { meter: { ...amps!, ...under }, value: r.value * (r.towards === 'start' ? -1 : 1) * strands(where) };
} // prettier-ignore

/**
 * The readings of one day as the search takes them. What was read at the same place before a switch was opened and after it is
 * taken as a change: meter and model are off by the same both times.
 */
export function asFaultReadings(fence: Searched, readings: readonly Logged[], share: number, strands: (at: Place) => number): { r: Logged; as: FaultReading }[] {
  const own = (r: Logged) => `${r.kind} ${r.line} ${r.at_m} ${r.unit}`;
  const shut = new Map(readings.flatMap((r) => (r.open?.length || r.kind !== 'volts' ? [] : [[own(r), r.value] as const])));
  return readings.flatMap((r) => {
    const as = asFaultReading(fence, r, share, strands);
    if (!as) return [];
    const beside_V = r.open?.length && r.kind === 'volts' ? shut.get(own(r)) : undefined;
    return [{ r, as: beside_V !== undefined && beside_V >= BESIDE_V ? { ...as, meter: { ...as.meter, beside_V } } : as }];
  });
} // prettier-ignore
/** Of less a change says nothing, V. */
const BESIDE_V = 300;

/** The likely stretches as places of lines, neighbours together; what lies in cables is left out. */
export function stretchesOf(fence: Searched, weighed: Weighed, share: number): LineStretch[] {
  const own = likely(fence.fences[0]!.cells, weighed.where.cells, share).flatMap((s) => onLine(fence, s) ?? []);
  own.sort((a, b) => a.line.localeCompare(b.line) || a.from_m - b.from_m);
  return own.reduce<LineStretch[]>((out, s) => {
    const last = out.at(-1);
    if (last && last.line === s.line && s.from_m - last.to_m < 1) out[out.length - 1] = { ...last, to_m: s.to_m, p: last.p + s.p };
    else out.push(s);
    return out;
  }, []).sort((a, b) => b.p - a.p);
} // prettier-ignore

/** A stretch of a section as one of its line; null: it lies in a cable. */
export function onLine(fence: Searched, { section, from_m, to_m, p }: Stretch): LineStretch | null {
  const [from, to] = [from_m, to_m].map((x_m) => placeOf(fence, { section, x_m }));
  return from && to ? { line: from.line, from_m: from.at_m, to_m: to.at_m, p } : null;
}

export const KIND_WORDS: Readonly<Record<FaultKind, string>> = {
  none: 'nothing is wrong',
  growth: 'growth everywhere',
  earth: 'the earth',
  unit: 'the unit',
  leak: 'a leak',
  joint: 'a bad join',
  break: 'a break',
};

/** Why it is that, and what to do first. */
export const KIND_WHY: Readonly<Record<FaultKind, string>> = {
  none: 'All places read what they should on such a day, within what meters and weather make.',
  growth: 'All places have fallen, the far ones more: what grows into the wires leaks along the whole fence. Cut or spray under the lowest strand, then read again.',
  earth: 'All places have fallen and the earth terminal has risen: the current finds no way back. Wet the rods, look at their clamps, read the earth test.',
  unit: 'The unit’s own terminal has fallen by as much as the fence, and the earth has not risen: less comes out of it. Read it with the fence off; look at battery, fuse and lead.',
  leak: 'One stretch takes current that the rest does not explain: a branch, a fallen strand, a cracked insulator.',
  joint: 'Volts drop at one place by more the more current passes: a joint, clamp or jumper that has gone bad.',
  break: 'Beyond one place the fence is dead or fed from one side only: a broken strand, a jumper off, a switch open.',
}; // prettier-ignore

/** Battery, V of twelve: under load no lower than this is well, lower is empty [common practice]. */
export function batteryWords(value: number): { readonly bad: boolean; readonly words: string } {
  const of12 = value > 18 ? value / 2 : value;
  if (of12 >= 12.4) return { bad: false, words: 'charged' };
  return of12 >= 11.9 ? { bad: true, words: 'half empty: charge it' } : { bad: true, words: 'flat: a battery left so is spoilt' }; // prettier-ignore
}
