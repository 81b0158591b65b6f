/** Undo and redo read from the history: they hold after a reload, and for every tab alike. */
import type { Light, Proposed } from './change.js';

export interface Stacks {
  /** What can be undone, newest last, and redone, next last. */
  readonly undo: readonly Light[];
  readonly redo: readonly Light[];
}

export const EMPTY: Stacks = { undo: [], redo: [] };

type Step = Pick<Proposed, 'changeId' | 'kind' | 'words'> & Partial<Proposed>;

/** Takes the change that is named out of a list; where none is named, the last. */
function take(from: readonly Light[], id: string | undefined): [readonly Light[], Light | null] {
  const at = id === undefined ? from.length - 1 : from.findLastIndex((c) => c.changeId === id);
  const taken = from[at];
  return taken ? [from.filter((_, i) => i !== at), taken] : [from, null];
}

/**
 * The stacks after one more change: a new one ends what could be redone. An undo names what it took
 * back (`of`), since another tab may have changed something in between; older ones took the last.
 */
export function pushed({ undo, redo }: Stacks, change: Step): Stacks {
  if (change.kind === 'do') return { undo: [...undo, lightOf(change)], redo: [] };
  // The document was brought up to a newer version: nothing before it can be taken back.
  if (change.kind === 'lift') return EMPTY;
  if (change.kind === 'undo') {
    const [rest, taken] = take(undo, change.of);
    return taken ? { undo: rest, redo: [...redo, taken] } : { undo, redo };
  }
  const [rest, back] = take(redo, change.of);
  return back ? { undo: [...undo, back], redo: rest } : { undo, redo };
}

/** The stacks of a whole history, in order. */
export const stacksOf = (changes: readonly Step[]): Stacks => changes.reduce(pushed, EMPTY);

const lightOf = ({ changeId, words, patch, inverse }: Step): Light => ({
  changeId,
  words,
  ...(patch && inverse ? { body: { patch, inverse } } : {}),
});
