/** The state of the one property that a tab has open; the other files of this folder change it. */
import { create } from 'zustand';
import type { Choices } from '../../core/choices.js';
import type { Grid, Plan } from '../../core/plan/schema.js';
import type { Report } from '../../core/report/schema.js';
import type { Ground } from '../../core/terrain/ground.js';
import type { Proposed, Saved } from '../../formats/change.js';
import type { Conflict } from './types.js';

export type SaveState = 'saved' | 'saving' | 'waiting';

export interface Session {
  readonly id: string;
  /** The plan as it is drawn: with what is being dragged right now. */
  readonly plan: Plan;
  readonly ground: Ground;
  readonly grid: Grid | null;
  readonly report: Report | null;
  /** What can be put on the line that Strands looks at. */
  readonly choices: Choices | null;
  readonly took_ms: number;
  readonly save: SaveState;
  readonly savedAt: string | null;
  readonly revision: number;
  readonly history: readonly Saved[];
  readonly pending: readonly Proposed[];
  readonly conflict: Conflict | null;
  /** What was refused, in words; nothing was changed. */
  readonly refused: string | null;
}

export const useSession = create<Session>(() => ({}) as Session);

/** Names this tab to the server, so that its own changes never stand in its own way. */
export const tab = crypto.randomUUID();

/** The plan without what is in the hand right now. */
let kept: Plan;
export const committed = (): Plan => kept;

/** Takes a whole plan for the committed one. */
export function setCommitted(plan: Plan): void {
  kept = plan;
  useSession.setState({ plan });
}

/** Address of the open property, for the server. */
export const url = (rest = ''): string => `/api/properties/${useSession.getState().id}${rest}`;
