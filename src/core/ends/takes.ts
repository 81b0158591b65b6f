/** What an end takes beside its posts, and its hours. */
import { USES } from '../report/uses.js';
import { figure, recordOf, usual, type Catalogue } from '../plan/catalogue.js';
import type { EndReport } from '../report/schema.js';
import { fillOf } from './setting.js';

/** Quantities by item of the price book; of wire and staples with their use. */
export type Taken = readonly (readonly [item: string, quantity: number, use?: string])[];

type End = Pick<EndReport, 'kind' | 'wire' | 'foot' | 'rail_m' | 'railHeight_m' | 'shared' | 'side' | 'second'>; // prettier-ignore

/** Rails, pins, brace wire, staples: what is fixed to the posts of one end. A shared brace is taken once, before. */
export function fittings(e: End, cat: Catalogue): Taken {
  if (e.shared && !e.second && e.side === 'after') return [];
  const wire = `wire.${usual('wire')}`;
  const way = Math.hypot(e.rail_m, e.railHeight_m);
  const diagonals = e.wire === 'both' ? 2 : 1;
  // Two full wraps, and as much again as one leg for the ends and the twist.
  const legs = figure(cat, 'ends.legs') + 1;
  const H = (bays: number): Taken => [
    ['end.rail', bays],
    ['end.pin', 2 * bays],
    [wire, bays * diagonals * legs * way, USES.braceWires],
    // Two half-driven staples at each end of each wire.
    ['staple', bays * diagonals * 4, USES.halfDriven],
  ];
  switch (e.kind) {
    case 'h':
      return H(1);
    case 'double-h':
      return H(2);
    case 'n':
      return [
        ['end.strut', 1],
        ['end.pin', 2],
        [wire, legs * e.rail_m, USES.braceWires],
        ['staple', 4, USES.halfDriven],
      ];
    case 'stay':
      return [['end.strut', 1], ['end.pin', 2], ...(e.foot === 'block' ? [['end.block', 1] as const] : [])]; // prettier-ignore
    case 'tie-back':
      return [
        ['end.log', 1],
        [
          wire,
          legs * Math.hypot(e.rail_m + LOG_OUT, e.railHeight_m + figure(cat, 'ends.logTop')),
          USES.braceWires,
        ],
        ['staple', 2, USES.halfDriven],
      ];
    case 'concreted':
      return [['end.tubeStay', 1]];
    case 'post':
      return [];
  }
}
/** The guy goes on under the ground to its log, m. */
const LOG_OUT = 0.5;

/** Mix and gravel for one post set as said. */
export function holeTakes(
  setting: EndReport['setting'],
  post: string,
  depth_m: number,
  cat: Catalogue,
): Taken {
  const { bags, gravel_t } = fillOf(setting, recordOf(cat.posts, post), depth_m, cat);
  return [
    ['concrete', bags],
    ['gravel', gravel_t],
  ];
}

/** Posts that an end adds to the one that it shares with whatever else ends there. */
export const addedPosts = ({ kind, second }: Pick<EndReport, 'kind' | 'second'>): string[] =>
  second ? (kind === 'double-h' ? [second, second] : [second]) : [];

/** Hours that an end takes: of its kind, and of setting each of its posts. */
export const hoursOf = (e: EndReport, cat: Catalogue): number =>
  recordOf(cat.ends, e.kind).hours +
  (1 + addedPosts(e).length) * recordOf(cat.settings, e.setting).hours;
