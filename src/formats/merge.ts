/** Which changes of others stand in the way of one that was made before it knew of them. */
import type { Proposed, Saved } from './change.js';
import { patchesTouch } from './patch.js';

/**
 * Those that touch what it touches; none that it was made on top of.
 * @param others what was saved since the plan that it was made on
 */
export function inTheWay(change: Proposed, others: readonly Saved[]): Saved[] {
  const known = new Set(change.after);
  return others.filter(
    (c) => !known.has(c.changeId) && (c.kind === 'lift' || patchesTouch(c.patch, change.patch)),
  );
}
