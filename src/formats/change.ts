/** A change to a plan as it travels between tab and server, and as it is kept. */
import type { PatchStep } from '../core/plan/schema.js';

/** A change as a tab sends it. */
export interface Proposed {
  /** Made by the tab; sending it twice saves it once. */
  readonly changeId: string;
  readonly tab: string;
  /** Newest revision that the tab had seen when the change was made. */
  readonly base: number;
  readonly kind: 'do' | 'undo' | 'redo';
  readonly words: string;
  readonly patch: PatchStep[];
  readonly inverse: PatchStep[];
}

/** A change as it was saved. */
export interface Saved extends Proposed {
  readonly revision: number;
  readonly at: string;
}

/** Saved, perhaps merged with what others saved since; or not, because the changes touch. */
export type CommitResult =
  | {
      readonly status: 'saved';
      readonly revision: number;
      readonly at: string;
      readonly others: Saved[];
    }
  | { readonly status: 'conflict'; readonly revision: number; readonly theirs: Saved[] };
