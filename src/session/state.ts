/** The state of the one property that a tab has open; the other files of this folder change it. */
import { create } from 'zustand';
import type { Choices } from '../core/choices.js';
import type { Hurry } from '../core/parts/part.js';
import type { Grid, Plan } from '../core/plan/schema.js';
import type { Report } from '../core/report/schema.js';
import type { Ground } from '../core/terrain/ground.js';
import type { Book } from './book.js';

export interface Session {
  readonly id: string;
  /** The plan as it is shown with its figures; while something is dragged, the one that they were worked out for. */
  readonly plan: Plan;
  /** With what is being dragged right now, ahead of the figures; null: nothing is in the hand. */
  readonly held: Plan | null;
  /** What is saved, and what is not. */
  readonly book: Book;
  readonly ground: Ground;
  readonly grid: Grid | null;
  readonly report: Report | null;
  /** What can be put on the line that Strands looks at. */
  readonly choices: Choices | null;
  readonly took_ms: number;
  /** What of the report is of before, for a moment. */
  readonly behind: Hurry;
  /** What cannot be done or worked out, in words; nothing was changed. */
  readonly refused: string | null;
  /** What was done just now and can be taken back at once, in words. */
  readonly told: string | null;
}

export const useSession = create<Session>(() => ({}) as Session);

/** The plan without what is in the hand right now. */
export const committed = (): Plan => useSession.getState().book.plan;

/** The plan as the pointer has it: for the one drawing in which something is dragged. */
export const drawn = ({ held, plan }: Session): Plan => held ?? plan;

/** Address of the open property, for the server. */
export const url = (rest = ''): string => `/api/properties/${useSession.getState().id}${rest}`;
