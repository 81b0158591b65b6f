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

type Load = () => Promise<ComponentType>;
const later = (load: Load) => lazy(() => load().then((made) => ({ default: made })));

/** A view, and what stands beside it, that are loaded when they are first looked at, or before. */
const view = (
  load: Load,
  side?: Load,
): Required<Pick<Step, 'view' | 'load'>> & Pick<Step, 'side'> => ({
  view: later(load),
  load: () => Promise.all([load(), side?.()]),
  ...(side ? { side: later(side) } : {}),
});

const lines: Load = () => import('./shell/LineList.js').then((m) => m.LineList);

export const STEPS: readonly Step[] = [
  {
    id: 'land',
    name: 'Land',
    key: '1',
    section: true,
    cards: { name: 'Property', size: '20.5rem', ofLine: true },
    ...view(
      () => import('./land/LandView.js').then((m) => m.LandView),
      () => import('./land/LandPanel.js').then((m) => m.LandSide),
    ),
  },
  {
    id: 'strands',
    name: 'Strands',
    key: '2',
    section: false,
    oneLine: true,
    ...view(
      () => import('./strands/StrandsView.js').then((m) => m.StrandsView),
      () => import('./strands/StrandsSide.js').then((m) => m.StrandsSide),
    ),
  },
  {
    id: 'section',
    name: 'Section',
    key: '3',
    section: true,
    oneLine: true,
    ...view(() => import('./section/SectionView.js').then((m) => m.SectionView), lines),
  },
  {
    id: 'power',
    name: 'Power',
    key: '4',
    section: true,
    cards: { name: 'Power', size: '50%' },
    ...view(
      () => import('./power/PowerView.js').then((m) => m.PowerView),
      () => import('./power/PowerView.js').then((m) => m.PowerSide),
    ),
  },
  {
    id: 'joins',
    name: 'Joins',
    key: '5',
    section: true,
    oneLine: true,
    ...view(() => import('./joins/JoinsView.js').then((m) => m.JoinsView), lines),
  },
  {
    id: 'ends',
    name: 'Ends',
    key: '6',
    section: true,
    oneLine: true,
    ...view(() => import('./ends/EndsView.js').then((m) => m.EndsView), lines),
  },
  {
    id: 'strain',
    name: 'Strain',
    key: '7',
    section: true,
    oneLine: true,
    ...view(() => import('./strain/StrainView.js').then((m) => m.StrainView), lines),
  },
  {
    id: 'supplies',
    name: 'Supplies',
    key: '8',
    section: false,
    ...view(() => import('./supplies/SuppliesView.js').then((m) => m.SuppliesView)),
  },
  {
    id: 'build',
    name: 'Build',
    key: '9',
    section: false,
    ...view(() => import('./build/BuildView.js').then((m) => m.BuildView)),
  },
  {
    id: 'rounds',
    name: 'Rounds',
    key: 'o',
    section: false,
    ...view(() => import('./rounds/RoundsView.js').then((m) => m.RoundsView)),
  },
  {
    id: 'faults',
    name: 'Faults',
    key: 'a',
    section: true,
    cards: { name: 'Search', size: '26rem' },
    ...view(
      () => import('./faults/FaultsView.js').then((m) => m.FaultsView),
      () => import('./faults/FaultsSide.js').then((m) => m.FaultsSide),
    ),
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
