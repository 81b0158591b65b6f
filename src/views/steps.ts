/**
 * The steps of the work, in its order: one entry each. Rail, workbench, addresses, keys and findings
 * read this list; a view is loaded when it is first looked at.
 */
import { lazy, type ComponentType } from 'react';

export interface Step {
  /** In addresses, and what a rule names as the step on which it is mended. */
  readonly id: string;
  readonly name: string;
  /** One key that leads to it; the digits are given in order, later steps take letters. */
  readonly key: string;
  /** Whether the section of the chosen line stands below it. */
  readonly section: boolean;
  readonly view: ComponentType;
  /** What one chooses from beside it. */
  readonly side?: ComponentType;
  /** Its side is no list of lines: what it is called in the hand, and how much room it wants. */
  readonly cards?: {
    readonly name: string;
    readonly size: string;
    /** Called after the line that is chosen, where one is. */
    readonly ofLine?: boolean;
  };
  /** It speaks of one line: one is always chosen. */
  readonly oneLine?: boolean;
  /** Fetches the view before it is looked at. */
  readonly load?: () => Promise<unknown>;
}

/** A view that is loaded when it is first looked at, or before. */
const view = (load: () => Promise<ComponentType>): Required<Pick<Step, 'view' | 'load'>> => ({
  view: lazy(() => load().then((made) => ({ default: made }))),
  load,
});

const LINES = lazy(() => import('./shell/LineList.js').then((m) => ({ default: m.LineList })));

export const STEPS: readonly Step[] = [
  {
    id: 'land',
    name: 'Land',
    key: '1',
    section: true,
    side: lazy(() => import('./land/LandPanel.js').then((m) => ({ default: m.LandSide }))),
    cards: { name: 'Property', size: '20.5rem', ofLine: true },
    ...view(() => import('./land/LandView.js').then((m) => m.LandView)),
  },
  {
    id: 'strands',
    name: 'Strands',
    key: '2',
    section: false,
    side: lazy(() => import('./strands/StrandsSide.js').then((m) => ({ default: m.StrandsSide }))),
    oneLine: true,
    ...view(() => import('./strands/StrandsView.js').then((m) => m.StrandsView)),
  },
  {
    id: 'section',
    name: 'Section',
    key: '3',
    section: true,
    side: LINES,
    oneLine: true,
    ...view(() => import('./section/SectionView.js').then((m) => m.SectionView)),
  },
  {
    id: 'power',
    name: 'Power',
    key: '4',
    section: true,
    side: lazy(() => import('./power/PowerView.js').then((m) => ({ default: m.PowerSide }))),
    cards: { name: 'Power', size: '50%' },
    ...view(() => import('./power/PowerView.js').then((m) => m.PowerView)),
  },
  {
    id: 'strain',
    name: 'Strain',
    key: '5',
    section: true,
    side: LINES,
    oneLine: true,
    ...view(() => import('./strain/StrainView.js').then((m) => m.StrainView)),
  },
  {
    id: 'supplies',
    name: 'Supplies',
    key: '6',
    section: false,
    ...view(() => import('./supplies/SuppliesView.js').then((m) => m.SuppliesView)),
  },
];

/** The step that a word of an address means, and what to say where it means none. */
export function stepNamed(
  word: string | undefined,
  steps: readonly Step[] = STEPS,
): { step: Step; said: string | null } {
  const first = steps[0]!;
  if (word === undefined || word === '') return { step: first, said: null };
  const known = steps.find((s) => s.id === word);
  return known
    ? { step: known, said: null }
    : { step: first, said: `There is no step called "${word}". This is ${first.name}.` };
}
