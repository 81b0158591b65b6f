/** A walk or a file of lines that waits to be reviewed; what then becomes of it is loaded only then. */
import { create } from 'zustand';
import type { WalkedLine, WalkedPlace } from '../../formats/walked.js';

export interface Waiting {
  readonly from: string;
  readonly lines: readonly WalkedLine[];
  readonly places: readonly WalkedPlace[];
}

export const useWaiting = create<{ walk: Waiting | null }>(() => ({ walk: null }));

export const wait = (walk: Waiting | null): void => useWaiting.setState({ walk });
