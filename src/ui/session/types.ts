/** Shapes that travel between a tab and the server. */
import type { PatchStep, Plan } from '../../core/plan/schema.js';

export interface Proposed {
  readonly changeId: string;
  readonly tab: string;
  readonly base: number;
  readonly kind: 'do' | 'undo' | 'redo';
  readonly of?: number;
  readonly words: string;
  readonly patch: PatchStep[];
  readonly inverse: PatchStep[];
}

export interface Saved extends Proposed {
  readonly revision: number;
  readonly at: string;
}

export interface Opened {
  readonly revision: number;
  readonly plan: Plan;
  readonly history: Saved[];
}

/** Two changes that met: what this tab wanted, and what others did since. */
export interface Conflict {
  readonly mine: Proposed;
  readonly theirs: readonly Saved[];
  readonly revision: number;
}
