/** What a tab knows of what is saved: the book that the reducer keeps, what happens to it, what it asks for. */
import type { PatchStep, Plan } from '../core/plan/schema.js';
import type { News, Opened, Proposed, Saved } from '../formats/change.js';
import { pushed, type Stacks } from '../formats/stacks.js';

/** A change on its way. */
export interface Pending {
  readonly change: Proposed;
  /** False while it does not fit the plan as others have left it: the server's answer settles it. */
  readonly fits: boolean;
  /** Set once the server has said that it has it, until its place in the history has arrived. */
  readonly saved?: number;
}

/** Two changes that met: what this tab wanted, and what others did since. */
export interface Conflict {
  readonly mine: Proposed;
  readonly theirs: readonly Saved[];
  readonly revision: number;
  /** What the user chose, while the others' changes are still on their way here. */
  readonly chosen?: 'mine' | 'theirs';
}

/** A change that was not taken, kept so that it can be read and downloaded. */
export interface Refusal {
  readonly change: Proposed;
  readonly reason: string;
}

/** Sending has stopped at the first pending change, with the server's word for it. */
export interface Held {
  readonly changeId: string;
  readonly status: number;
  readonly reason: string;
}

interface Wanted {
  readonly kind: 'undo' | 'redo';
  readonly changeId: string;
}

export interface Book {
  readonly tab: string;
  readonly base: Plan;
  readonly plan: Plan;
  readonly revision: number;
  readonly savedAt: string | null;
  /** Of what the server has; pending changes come on top. */
  readonly stacks: Stacks;
  readonly pending: readonly Pending[];
  readonly sending: string | null;
  readonly conflict: Conflict | null;
  readonly held: Held | null;
  readonly refusals: readonly Refusal[];
  /** The server did not answer the last time. */
  readonly away: boolean;
  /** This browser could not keep a change: what is pending lives in this tab alone. */
  readonly full: boolean;
  /** Undos and redos that wait for the body of a change, each with the id that it will have. */
  readonly wanted: readonly Wanted[];
}

export type Event =
  | { type: 'edit'; changeId: string; words: string; patch: PatchStep[]; inverse: PatchStep[] }
  | { type: 'undo' | 'redo'; changeId: string }
  | { type: 'body'; of: string; patch: PatchStep[]; inverse: PatchStep[] }
  | { type: 'recovered'; changes: readonly Proposed[] }
  | { type: 'kept'; ok: boolean }
  | { type: 'acked'; changeId: string; revision: number; at: string; others: readonly Saved[] }
  | {
      type: 'met';
      changeId: string;
      revision: number;
      theirs: readonly Saved[];
      others: readonly Saved[];
    }
  | { type: 'refused'; changeId: string; status: number; reason: string }
  | { type: 'unreachable'; changeId: string }
  | { type: 'retry' }
  | ({ type: 'news' } & News)
  | { type: 'resolve'; keepMine: boolean }
  | { type: 'giveUp' }
  | { type: 'dismiss' };

export type Effect =
  | { do: 'keep'; change: Proposed }
  /** In the place of what was kept under its name. */
  | { do: 'keepAnew'; change: Proposed }
  | { do: 'forget'; changeId: string }
  | { do: 'post'; change: Proposed }
  | { do: 'retryLater' }
  | { do: 'fetchNews'; since: number }
  | { do: 'fetchBody'; of: string }
  | { do: 'announce'; revision: number }
  /** The plan moved on by these steps. */
  | { do: 'follow'; patch: PatchStep[] }
  /** The plan is another one: nothing that was followed before holds. */
  | { do: 'replace' };

export type Step = readonly [Book, readonly Effect[]];

/** The book of a property that has just been opened. */
export const openBook = (opened: Opened, tab: string): Book => ({
  tab,
  base: opened.plan,
  plan: opened.plan,
  revision: opened.revision,
  savedAt: opened.at,
  stacks: opened.stacks,
  pending: [],
  sending: null,
  conflict: null,
  held: null,
  refusals: [],
  away: false,
  full: false,
  wanted: [],
});

/** "Saved" is true: everything that was drawn is at the server. */
export const saveState = (b: Book): 'saved' | 'saving' | 'waiting' =>
  b.pending.length === 0
    ? 'saved'
    : b.away || b.held || b.conflict || b.pending.some((p) => !p.fits)
      ? 'waiting'
      : 'saving';

/** What can be undone and redone, pending changes among it. */
export const stacksNow = (b: Pick<Book, 'stacks' | 'pending'>): Stacks =>
  b.pending.reduce((stacks, p) => pushed(stacks, p.change), b.stacks);
