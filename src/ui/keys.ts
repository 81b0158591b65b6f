/**
 * Every key of the program, once: what a view binds is read from here, and so is the sheet of keys. No
 * key stands twice within a group or in a group and everywhere (a test holds it).
 */
import { useHotkeys } from 'react-hotkeys-hook';

interface Key {
  /** As the hotkeys package writes them; several that do the same by a comma. */
  readonly keys: string;
  /** How the sheet shows them. */
  readonly shown: string;
  readonly words: string;
}

const key = (keys: string, shown: string, words: string): Key => ({ keys, shown, words });

export const KEYS = {
  everywhere: {
    undo: key('mod+z', 'Ctrl+Z', 'undo'),
    redo: key('mod+shift+z,mod+y', 'Ctrl+Y', 'redo'),
    help: key('?,shift+?', '?', 'this sheet'),
    next: key('n', 'N', 'the next finding: map, section and step follow'),
    last: key('shift+n', 'Shift+N', 'the finding before'),
  },
  land: {
    select: key('v', 'V', 'choose and move: drag a corner, a leg, or the dot in its middle for a new corner'), // prettier-ignore
    draw: key('d', 'D', 'draw a line; Enter or a second press on the last point ends it'),
    lane: key('l', 'L', 'draw a laneway: both its fences at once'),
    square: key('r', 'R, or Shift', 'while drawing: only straight on and at right angles'),
    end: key('enter', 'Enter', 'while drawing: the line ends here'),
    cut: key('c', 'C', 'cut the chosen line at the corner, or where the section points'),
    water: key('w', 'W', 'put a water point down'),
    gate: key('g', 'G', 'put a gate on a line'),
    energiser: key('e', 'E', 'put an energiser beside a line'),
    nudge: key(
      'arrowup,arrowdown,arrowleft,arrowright,shift+arrowup,shift+arrowdown,shift+arrowleft,shift+arrowright',
      'Arrows',
      'on the map: move the chosen corner, gate or unit by 1 m, with Shift by 10 m',
    ),
    before: key('[', '[', 'the corner before'),
    after: key(']', ']', 'the corner after'),
    remove: key('delete', 'Del', 'take the chosen corner, gate, energiser or line away'),
    fit: key('f', 'F', 'fit the whole property into view'),
    letGo: key('escape', 'Esc', 'let go'),
  },
} as const satisfies Record<string, Record<string, Key>>;

/** Keys of things that have the focus: they hear them by themselves. */
export const FOCUSED: readonly Omit<Key, 'keys'>[] = [
  { shown: 'Shift', words: 'held while dragging: the whole line; while pressing lines: several at once' }, // prettier-ignore
  { shown: 'In the section', words: '← → from post to post; + − 0 closer, wider, the whole line; P pins or frees the post' }, // prettier-ignore
  { shown: 'On a strand', words: '↑ ↓ by 10 mm, with Shift by 50; Alt ↑ ↓ its order; L E C duty; I insulators; + one above; Del away' }, // prettier-ignore
];

/** What the sheet lists, in its order. */
export const sheet = (
  steps: readonly { readonly key: string; readonly name: string }[],
): readonly Omit<Key, 'keys'>[] => [
  ...steps.map((s) => ({ shown: s.key.toUpperCase(), words: `the step ${s.name}` })),
  ...Object.values(KEYS.land),
  ...FOCUSED,
  ...Object.values(KEYS.everywhere),
];

type Run = (event: KeyboardEvent) => void | boolean;

/** What is typed into is left alone; a tick box, a list and a button are not typed into. */
const typedInto = (event: KeyboardEvent): boolean => {
  const target = event.target as HTMLElement;
  if (target.isContentEditable || target.tagName === 'TEXTAREA') return true;
  if (target.tagName === 'INPUT')
    return !['checkbox', 'radio', 'button', 'range', 'file'].includes(
      (target as HTMLInputElement).type,
    );
  return false;
};

/**
 * Binds keys while a view stands. A run that answers false leaves the key to whoever is next.
 * @param list keys as in `Key.keys`, each with its run
 * @param capture before what lies inside hears them, such as the map
 */
export function useKeys(
  list: readonly (readonly [keys: string, run: Run])[],
  capture = false,
): void {
  const runs = new Map(
    list.flatMap(([keys, run]) => keys.split(',').map((k) => [k, run] as const)),
  );
  useHotkeys(
    [...runs.keys()],
    (event, { hotkey }) => {
      if (runs.get(hotkey)?.(event) !== false) event.preventDefault();
    },
    {
      enableOnFormTags: true,
      ignoreEventWhen: typedInto,
      useKey: true,
      eventListenerOptions: { capture },
    },
  );
}

/** The runs of a group by the names of its keys. */
export const bound = <G extends keyof typeof KEYS>(
  group: G,
  runs: Readonly<Partial<Record<keyof (typeof KEYS)[G], Run>>>,
): (readonly [keys: string, run: Run])[] =>
  Object.entries<Run | undefined>(runs).map(([name, run]) => [
    (KEYS[group] as Record<string, Key>)[name]!.keys,
    run!,
  ]);
