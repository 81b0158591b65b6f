/** Whether the server can be reached, how old what is shown is, and whether this browser has room. */
import { create } from 'zustand';

interface Reach {
  /** Since when the server has not answered, ISO; null: it answers. */
  readonly away: string | null;
  /** Of when the plan and log shown are, where they came from this browser; null: from the server. */
  readonly asOf: string | null;
  /** Room that is left in this browser, bytes, once it gets tight; null: there is enough, or it is not told. */
  readonly tight: number | null;
}

export const useReach = create<Reach>(() => ({ away: null, asOf: null, tight: null }));

/** Notes that the server has answered, or has not. */
export function reached(yes: boolean): void {
  const { away, asOf } = useReach.getState();
  if (yes && away === null && asOf === null) return;
  if (yes) useReach.setState({ away: null });
  else if (away === null) useReach.setState({ away: new Date().toISOString() });
}

/** Less room than this is said, bytes: some forty photos. */
const TIGHT = 30e6;

/** Asks the browser not to throw away what is kept, and looks how much room there is. */
export async function askForRoom(): Promise<void> {
  const { storage } = navigator;
  if (!storage?.estimate) return;
  await storage.persist?.().catch(() => false);
  await lookAtRoom();
}

export async function lookAtRoom(): Promise<void> {
  const found = await navigator.storage?.estimate?.().catch(() => null);
  if (!found?.quota) return;
  const left = Math.max(0, found.quota - (found.usage ?? 0));
  useReach.setState({ tight: left < TIGHT ? left : null });
}
