/** What a tab has open, and what it may have to ask about. */
import type { Plan } from '../../core/plan/schema.js';
import type { Proposed, Saved } from '../../formats/change.js';

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
