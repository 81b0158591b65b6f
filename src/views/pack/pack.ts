/** The pack: which parts it has, what is in each, and how it falls onto paper. Plain data, no drawing. */
import type { Leaf } from '../print/leaf.js';

/**
 * How leaves of a part lie on A4: `wide` and `tall` fill a page from rim to rim, `pair` puts two A5 side by side to be
 * cut apart, `text` runs over as many pages as it takes.
 */
export type Form = 'wide' | 'tall' | 'pair' | 'text';

/** Parts in their order, each with the letter that marks its leaves. */
export const PARTS = [
  { id: 'map', letter: 'A', name: 'Map', form: 'wide' },
  { id: 'setout', letter: 'B', name: 'Sections and posts', form: 'text' },
  { id: 'wiring', letter: 'C', name: 'Wiring', form: 'pair' },
  { id: 'ends', letter: 'D', name: 'Ends', form: 'pair' },
  { id: 'strain', letter: 'E', name: 'Stringing', form: 'pair' },
  { id: 'coils', letter: 'F', name: 'Coils', form: 'pair' },
  { id: 'days', letter: 'G', name: 'Days of work', form: 'text' },
  { id: 'sticks', letter: 'H', name: 'Marked sticks', form: 'tall' },
  { id: 'cards', letter: 'K', name: 'Bench cards', form: 'pair' },
] as const satisfies readonly { id: string; letter: string; name: string; form: Form }[];

export type PartId = (typeof PARTS)[number]['id'];

/** What is in a part: its leaves, or why there are none; null while it is still worked out. */
export type Filling = readonly Leaf[] | string | null;

/** The parts whose leaves are of single lines: one table of the contents, a column each. */
export const BY_LINE = ['setout', 'wiring', 'ends', 'strain'] as const satisfies PartId[];

/** Sheets of A4 that leaves take; for `text` as many as are certain. */
export const papersFor = (form: Form, leaves: number): number =>
  form === 'pair' ? Math.ceil(leaves / 2) : leaves;

/** A row of the contents: neighbours of the same line or thing, from a number to a number. */
export interface ContentsRow {
  readonly of: string;
  readonly from: number;
  readonly to: number;
}

export function contentsOf(leaves: readonly Leaf[]): ContentsRow[] {
  const rows: ContentsRow[] = [];
  leaves.forEach(({ of }, k) => {
    const last = rows.at(-1);
    if (last?.of === of) rows[rows.length - 1] = { ...last, to: k + 1 };
    else rows.push({ of, from: k + 1, to: k + 1 });
  });
  return rows;
}
