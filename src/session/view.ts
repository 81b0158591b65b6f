/** What one tab is looking at: never saved with the plan. */
import { create } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import type { ThingKind } from '../core/plan/schema.js';
import type { SeasonId } from '../core/plan/catalogue.js';
import { keepHere, keptHere } from './here.js';

export type Tool = 'select' | 'draw' | 'lane' | 'gate' | 'energiser' | ThingKind;
export type Warmth = 'cold' | 'today' | 'hot';
export type Scheme = 'light' | 'dark' | 'sun';

/** Something chosen that is no line. */
export interface Chosen {
  readonly kind: 'gate' | 'energiser' | 'thing' | 'paddock';
  readonly id: string;
}
export type StrandsTab = 'strands' | 'asks' | 'proposals' | 'trade' | 'kinds' | 'old' | 'designs';
export type PowerTab = 'volts' | 'unit' | 'place' | 'feel' | 'whatIf' | 'earth' | 'supply' | 'sure';
/** What is drawn beside a line's volts in the section: as it would be, or between which it may lie. */
export interface Beside {
  readonly words: string;
  readonly lines: Readonly<
    Record<string, { readonly s_m: readonly number[]; readonly low_V: readonly number[]; readonly high_V: readonly number[] }> // prettier-ignore
  >;
}
/** What lies on the sheet below the view of a phone. */
export type SheetTab = 'card' | 'section' | 'findings';
/** How far the sheet is pulled up. */
export type SheetSize = 'peek' | 'half' | 'full';
export type Track = 'clearance' | 'uplift' | 'grade' | 'volts' | 'pull' | 'chance';
/** How likely a fault lies on the stretches of each line. */
export type Chances = Readonly<
  Record<string, readonly { readonly from_m: number; readonly to_m: number; readonly p: number }[]>
>;

interface View {
  /** Id of the step of the work (views/steps.ts). */
  readonly step: string;
  readonly tool: Tool;
  readonly season: SeasonId;
  readonly warmth: Warmth;
  readonly scheme: Scheme;
  readonly line: string | null;
  readonly vertex: number | null;
  readonly thing: Chosen | null;
  /** Lines chosen together with `line`. */
  readonly also: readonly string[];
  readonly finding: string | null;
  /** Distance along the chosen line that map and section point at together, m. */
  readonly cursor: number | null;
  /** The part of the line that the section shows, m; null: all of it. */
  readonly window: readonly [number, number] | null;
  /** Tracks of the section that are folded away. */
  readonly folded: readonly Track[];
  /** Ground drawn this many times steeper than it is; 0: as much as fits. */
  readonly steeper: number;
  /** Distance between contours, m; 0: as the relief suggests. */
  readonly contours: number;
  readonly tint: 'shade' | 'slope';
  /** What of the chosen line's strands is being looked at. */
  readonly strandsTab: StrandsTab;
  readonly powerTab: PowerTab;
  readonly beside: Beside | null;
  /** Where a fault lies that is looked for; null: none is. */
  readonly chances: Chances | null;
  /** How the posts of a line are listed. */
  readonly postsAs: 'table' | 'tape';
  readonly help: boolean;
  /** Which stop of the tour is shown; null: none. */
  readonly tour: number | null;
  /** Findings beside the view, where there is room. */
  readonly findingsOpen: boolean;
  /** Findings drawn over the view, where there is none. */
  readonly drawer: boolean;
  readonly sheetTab: SheetTab;
  readonly sheetSize: SheetSize;
  /** The list of lines or the cards, beside the view. */
  readonly sideOpen: boolean;
  readonly sectionOpen: boolean;
}

export const useView = create<View>(() => ({
  step: 'land',
  tool: 'select',
  season: 'wet',
  warmth: 'today',
  scheme: 'light',
  line: null,
  vertex: null,
  thing: null,
  finding: null,
  also: [],
  window: null,
  folded: ['grade', 'pull'],
  steeper: 0,
  contours: 0,
  tint: 'shade',
  cursor: null,
  strandsTab: 'strands',
  powerTab: 'volts',
  beside: null,
  chances: null,
  postsAs: 'table',
  help: false,
  tour: null,
  findingsOpen: true,
  drawer: false,
  sheetTab: 'card',
  sheetSize: 'peek',
  sideOpen: true,
  sectionOpen: true,
}));

export const look = useView.setState;

/** Some of what is looked at: drawn anew only when one of these changes, not at every pointer move. */
export const useViewOf = <K extends keyof View>(...keys: readonly K[]): Pick<View, K> =>
  useView(
    useShallow((v) => Object.fromEntries(keys.map((k) => [k, v[k]])) as unknown as Pick<View, K>),
  );

const KEPT = [
  'season',
  'warmth',
  'scheme',
  'findingsOpen',
  'sideOpen',
  'postsAs',
  'sectionOpen',
  'folded',
  'steeper',
  'contours',
  'tint',
] as const;

/** Under this name it stands here (here.ts), once something of it was changed. */
export const LOOKED_KEY = 'anabatic.view';

/** Takes the way this browser last looked at things, and keeps it from now on. */
export function rememberView(): void {
  const kept = keptHere<Partial<View>>(LOOKED_KEY, {});
  look(Object.fromEntries(KEPT.filter((k) => k in kept).map((k) => [k, kept[k]])));
  const paint = (scheme: Scheme) => {
    document.documentElement.dataset['scheme'] = scheme;
  };
  paint(useView.getState().scheme);
  let before = KEPT.map((k): unknown => useView.getState()[k]);
  useView.subscribe((v) => {
    // Here and not in an effect: what draws on a canvas reads the colours in its own effects.
    paint(v.scheme);
    const now = KEPT.map((k) => v[k]);
    // Asked at every move of the pointer: written only when something that is kept has changed.
    if (now.every((x, i) => x === before[i])) return;
    before = now;
    keepHere(LOOKED_KEY, Object.fromEntries(KEPT.map((k, i) => [k, now[i]])));
  });
}

/** Chooses a line, or nothing. */
export const chooseLine = (line: string | null, vertex: number | null = null): void =>
  look({ line, vertex, also: [], thing: null, cursor: null, window: null });

/** Goes to a step, and into the address so that "back" works. */
export function goTo(step: string, property: string, push = true): void {
  look({ step, tool: 'select', beside: null });
  if (push) history.pushState({ step }, '', `/p/${property}/${step}`);
}
