/** What a line has where it crosses something: sleeves on an old wire, a flood gate, a span that is taken down. */
import { recordOf, type Catalogue } from '../plan/catalogue.js';
import type { Line, PatchStep } from '../plan/schema.js';

export type Crossing = NonNullable<Line['crossings']>[number];
export type Joiner = NonNullable<Crossing['joiner']>;

/** Opening of a flood gate or of a span that is taken down, where nothing is said, m. */
export const USUAL_WIDTH = 4;

/** Joiners that carry the tension of a strand. */
export const CARRIES: Readonly<Record<Joiner, boolean>> = { wedge: true, sleeve: true, clamp: false, tap: false }; // prettier-ignore

const JOINER_PRICE: Readonly<Record<Joiner, string>> = {
  wedge: 'joiner.wedge',
  sleeve: 'joiner.sleeve',
  clamp: 'clamp.jumper',
  tap: 'crimp.tap',
};

/** Between spacers of a span that is taken down, so that stock see it, m. */
const SPACER_EVERY = 3;

/** Items of the price book that a crossing takes. */
export function itemsOfCrossing(
  { strands }: Pick<Line, 'strands'>,
  { kind, width_m = USUAL_WIDTH, joiner = 'wedge' }: Crossing,
  cat: Catalogue,
): [item: string, quantity: number][] {
  const live = strands.filter((s) => s.duty === 'live').length;
  if (kind === 'sleeve') return [['sleeve.crossing', live]];
  if (kind === 'flood')
    return [
      ['floodgate', 1],
      // Its droppers hang on a lead of their own, from the strand above, through the switch.
      ['switch.cutout', live > 0 ? 1 : 0],
      ['clamp.jumper', live > 0 ? 2 : 0],
    ];
  const wires = strands.filter((s) => recordOf(cat.wires, s.wire).form !== 'panel');
  return [
    [JOINER_PRICE[joiner], 2 * wires.length],
    ['dropper.spacer', Math.max(1, Math.round(width_m / SPACER_EVERY) - 1)],
  ];
}

/** Along the line, as the plan keeps them. */
export const inOrder = (all: readonly Crossing[]): Crossing[] =>
  [...all].sort((a, b) => a.at_m - b.at_m);

/** A patch that gives a line more crossings. */
export const withCrossings = (line: Line, more: readonly Crossing[]): PatchStep => ({
  op: line.crossings ? 'replace' : 'add',
  path: `/lines/${line.id}/crossings`,
  value: inOrder([...(line.crossings ?? []), ...more]),
});
