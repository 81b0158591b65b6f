/** What is put down on a round, and what else happens to a fence in a year. */
import type { Place } from '../power/pulseNet.js';
import type { SeasonId } from '../plan/catalogue.js';

/** What can be read: V on a live strand, V on the earth, V of a battery, A that pass along the line. */
export const READ = ['volts', 'earth_volts', 'battery_volts', 'amps'] as const;
export const WEATHERS = ['dry', 'damp', 'wet', 'frost'] as const;
export const GROWTHS = ['cut', 'some', 'long'] as const;
export type Weather = (typeof WEATHERS)[number];
export type Growth = (typeof GROWTHS)[number];

/** What may happen to a fence, and what is done for it. */
export const EVENTS = [
  'storm', 'cut', 'braces', 'rods', 'insulators', 'trained', 'stock_in', 'stock_out', 'switch_open', 'switch_closed', 'unit_off', 'unit_on', 'seen',
] as const; // prettier-ignore
export type EventKind = (typeof EVENTS)[number];

/** What was repaired. */
export const REPAIRED = ['strand', 'joint', 'insulator', 'post', 'end', 'growth', 'branch', 'earth', 'unit', 'gate', 'other'] as const; // prettier-ignore
export type Repaired = (typeof REPAIRED)[number];

/** A reading of the log. */
export interface Logged {
  readonly id: string;
  readonly time: string;
  readonly kind: (typeof READ)[number];
  /** V or A, never below 0. */
  readonly value: number;
  readonly line: string | null;
  readonly at_m: number | null;
  readonly spot: string | null;
  /** Id of the unit whose terminal, earth or battery it was. */
  readonly unit?: string | null;
  /** Of amps: towards the end of the line, or its start. */
  readonly towards?: 'end' | 'start' | null;
  readonly weather?: Weather | null;
  readonly growth?: Growth | null;
  /** Switches that stood open meanwhile; left out: none. */
  readonly open?: readonly Place[];
}

/** Where a reading came from that nobody keyed, as its note says it. */
export const deviceNote = (device: 'meter' | 'monitor' | 'scale', simulated: boolean): string =>
  `${simulated ? 'simulated ' : ''}${device}`;

/** Whether a stand-in made it: no such one is ever taken for what the fence did. */
export const isSimulated = ({ note }: { readonly note: string }): boolean =>
  note.startsWith('simulated ');

/** The season of the plan that a day is like. What nobody put down is as today. */
export function seasonOf({ weather, growth }: Pick<Logged, 'weather' | 'growth'>): SeasonId {
  if (weather === 'frost') return 'frozen';
  if (growth === 'long' && weather !== 'dry') return 'weedy';
  if (weather === 'dry') return 'dry';
  return weather === 'wet' ? 'wet' : 'today';
}
