/** A change to a plan as it travels between tab and server, and as it is kept. */
import type { PatchStep, Plan } from '../core/plan/schema.js';

/** A change as a tab sends it. */
export interface Proposed {
  /** Made by the tab; sending it twice saves it once. */
  readonly changeId: string;
  readonly tab: string;
  /** Newest revision that the tab had seen when the change was made. */
  readonly base: number;
  /** `lift`: the store brought the document up to a newer version. */
  readonly kind: 'do' | 'undo' | 'redo' | 'lift';
  /** Of an undo or a redo: the change that it takes back or makes again. */
  readonly of?: string;
  readonly words: string;
  readonly patch: PatchStep[];
  readonly inverse: PatchStep[];
  /** Changes of earlier tabs of this browser that it was made on top of, not saved then: what they did is no surprise to it. */
  readonly after?: readonly string[];
}

/** A change as it was saved. */
export interface Saved extends Proposed {
  readonly revision: number;
  readonly at: string;
  /** Who made it, where people sign in. */
  readonly who?: string;
}

/** A change on the stack of undo or redo; its body is fetched when it is wanted. */
export interface Light {
  readonly changeId: string;
  readonly words: string;
  readonly body?: { readonly patch: PatchStep[]; readonly inverse: PatchStep[] };
}

/** A property as a tab opens it. */
export interface Opened {
  readonly revision: number;
  readonly plan: Plan;
  /** When the newest change was saved. */
  readonly at: string | null;
  readonly stacks: { readonly undo: readonly Light[]; readonly redo: readonly Light[] };
}

/** Changes after a revision, oldest first; `more`: there are further ones behind them. */
export interface News {
  readonly changes: readonly Saved[];
  readonly more: boolean;
}

/** Saved, perhaps merged with what others saved since; or not, because the changes touch. */
export type CommitResult =
  | {
      readonly status: 'saved';
      readonly revision: number;
      readonly at: string;
      readonly others: Saved[];
    }
  | {
      readonly status: 'conflict';
      readonly revision: number;
      /** Those of the others that touch it. */
      readonly theirs: Saved[];
      readonly others: Saved[];
    };
