/** Undo and redo read from the history: they hold after a reload, and for every tab alike. */
import type { Proposed, Saved } from '../../formats/change.js';

export interface Stacks {
  /** What can be undone, newest last, and redone, next last. */
  readonly undo: readonly Proposed[];
  readonly redo: readonly Proposed[];
}

/** Walks the changes in order: a new one ends what could be redone. */
export function stacksOf(changes: readonly (Saved | Proposed)[]): Stacks {
  const undo: Proposed[] = [];
  let redo: Proposed[] = [];
  for (const change of changes) {
    if (change.kind === 'do') {
      undo.push(change);
      redo = [];
    } else if (change.kind === 'undo') {
      const taken = undo.pop();
      if (taken) redo.push(taken);
    } else {
      const back = redo.pop();
      if (back) undo.push(back);
    }
  }
  return { undo, redo };
}
