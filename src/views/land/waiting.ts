/** A walk or a file of lines that waits to be reviewed; what then becomes of it is loaded only then. */
import { create } from 'zustand';
import type { Plan } from '../../core/plan/schema.js';
import type { Waypoint } from '../../core/edit/bring.js';
import type { WalkedLine } from '../../formats/walked.js';

export interface Waiting {
  readonly from: string;
  readonly lines: readonly WalkedLine[];
  readonly places: readonly Waypoint[];
  /** Where the walk begins, for a property that has no place on the globe yet. */
  readonly origin?: Plan['origin'];
}

export const useWaiting = create<{ walk: Waiting | null }>(() => ({ walk: null }));

export const wait = (walk: Waiting | null): void => useWaiting.setState({ walk });
