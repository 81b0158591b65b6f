/** What rules, orders and marks are called on the screen. */
import type { Quantity } from '../../core/base/units.js';
import type { Catalogue } from '../../core/plan/catalogue.js';
import type { About, RuleMark } from '../../core/report/schema.js';

export const ABOUT: Readonly<Record<About, { name: string; q: Quantity; sign: string }>> = {
  lowest: { name: 'Lowest strand', q: 'height', sign: 'at most' },
  clear: { name: 'Lowest strand, off the grass', q: 'height', sign: 'at least' },
  gap: { name: 'Gap, low down', q: 'height', sign: 'at most' },
  upperGap: { name: 'Gap, higher up', q: 'height', sign: 'at most' },
  top: { name: 'Top', q: 'height', sign: 'at least' },
  count: { name: 'Strands', q: 'count', sign: 'at least' },
  live: { name: 'Live strands', q: 'count', sign: 'at least' },
  lowestLive: { name: 'Lowest always live', q: 'count', sign: '' },
  topLive: { name: 'Top live', q: 'count', sign: '' },
  stepOver: { name: 'Top cold, to step over', q: 'count', sign: '' },
  seen: { name: 'Top seen from afar', q: 'count', sign: '' },
  noBarbed: { name: 'No barbed wire', q: 'count', sign: '' },
  offBarbed: { name: 'Live off barbed wire', q: 'height', sign: 'at least' },
  opening: { name: 'What a push opens', q: 'height', sign: 'at most' },
  aim: { name: 'Volts at the worst point', q: 'volt', sign: 'aim' },
  bay: { name: 'Bays on this ground', q: 'length', sign: 'at most' },
};

/** Requirements that are kept or not, without a figure. */
export const PLAIN: readonly About[] = ['lowestLive', 'topLive', 'stepOver', 'seen', 'noBarbed'];

export const who = (profile: string | null, cat: Catalogue): string =>
  profile ? cat.profiles[profile]!.name.toLowerCase() : '';

export const STATE: Readonly<Record<RuleMark['state'], { glyph: string; word: string }>> = {
  broken: { glyph: '✕', word: 'broken' },
  limit: { glyph: '=', word: 'at its limit' },
  kept: { glyph: '✓', word: 'kept' },
};

export const DUTY_LOOK = {
  live: { colour: 'var(--live)', dash: undefined },
  earth: { colour: 'var(--earth)', dash: '14 5' },
  cold: { colour: 'var(--soft)', dash: undefined },
} as const;
