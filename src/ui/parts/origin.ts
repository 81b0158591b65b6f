/** Where numbers come from: what a screen says of a figure, and the mark that stands beside it. */
import type { Quantity } from '../../core/base/units.js';
import type { Catalogue } from '../../core/plan/catalogue.js';

/** One input of a formula: a catalogue figure by path, or a value with its own text. */
export interface OriginInput {
  readonly name: string;
  readonly text?: string;
  /** Catalogue path `table.record.field`; can be replaced for the property. */
  readonly path?: string;
  readonly quantity?: Quantity;
}

export interface Origin {
  readonly kind: 'formula' | 'default' | 'measured';
  readonly title: string;
  readonly formula?: string;
  readonly source?: string;
  readonly inputs?: readonly OriginInput[];
}

/** What the marks of the catalogue are called. */
export const MARK_NAMES: Record<string, string> = {
  published: 'published',
  practice: 'common practice',
  memory: 'from memory',
  derived: 'derived here',
  assumed: 'assumed',
  invented: 'invented',
};

export const GLYPH = { formula: 'ƒ', default: '◇', measured: '●' } as const;
export const GLYPH_WORDS = {
  formula: 'worked out',
  default: 'a default',
  measured: 'measured on the drawing',
} as const;

/** How the mark of an origin looks, and what it is called. */
export const markOf = (origin: Origin, shown: string) => ({
  className:
    'text-soft hover:text-ink ml-0.5 inline-grid size-[18px] cursor-pointer place-items-center rounded-full align-super text-[0.714rem] leading-none',
  'aria-label': `Where ${shown} comes from: ${GLYPH_WORDS[origin.kind]}`,
  title: GLYPH_WORDS[origin.kind],
});

/** Mark and reason of a catalogue figure. */
export function recordAt(
  cat: Catalogue,
  path: string,
): { mark: string; why?: string; unit?: string } {
  const first = path.indexOf('.');
  const last = path.lastIndexOf('.');
  const table = (
    cat as Record<string, Record<string, { mark: string; why?: string; unit?: string }>>
  )[path.slice(0, first)];
  return table?.[path.slice(first + 1, last)] ?? { mark: 'assumed' };
}
