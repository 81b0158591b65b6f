/** Makes this browser ready to go on without the server: the program, the records, the room for them. */
import { followAll } from './kept.js';
import { askForRoom } from './reach.js';

/**
 * Keeps the program in this browser. A newer one that was fetched meanwhile takes over now, while nothing has been begun.
 * @returns whether this browser keeps it
 */
export async function keepProgram(): Promise<boolean> {
  const { serviceWorker } = navigator;
  // Plain HTTP elsewhere than on this machine: browsers have none there.
  if (!serviceWorker) return false;
  const kept = await serviceWorker.register('/sw.js').catch(() => null);
  kept?.waiting?.postMessage('take over');
  return kept !== null;
}

/** What of the program is seldom wanted is fetched after all else; what does not come now comes the next time. */
async function theRest(): Promise<void> {
  (await navigator.serviceWorker.ready).active?.postMessage('the rest');
}

/** All that the property open here wants to be there without the server. */
export async function readyForAway(): Promise<void> {
  const kept = await keepProgram();
  await askForRoom();
  await followAll();
  if (kept) await theRest();
}
