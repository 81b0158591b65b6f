/** Bars that were taken by hand to another day. */
import { changeTask } from '../../core/build/edits.js';
import type { Working } from '../../core/build/calendar.js';
import type { PlannedTask } from '../../core/build/shifts.js';
import { commit, tell } from '../../session/session.js';
import { dayName } from './built.js';
import type { Frame } from './chartFrame.js';

/**
 * Later: what nothing of the same holds back does not begin before that day. Earlier: it goes before all that could
 * go before it; waits and people may still keep it where it is.
 */
export function moveTasks(
  tasks: readonly PlannedTask[],
  words: string,
  by: number,
  frame: Pick<Frame, 'shifted'>,
  w: Pick<Working, 'from'>,
): void {
  const open = tasks.filter((t) => t.start !== null);
  const ids = new Set(open.map((t) => t.id));
  const roots = open.filter((t) => !t.after.some((a) => ids.has(a.id)));
  if (roots.length === 0) return;
  const target = (t: PlannedTask) => `${frame.shifted(t.start!.slice(0, 10), by)}T${w.from}`;
  const first = roots.map(target).sort()[0]!;
  commit(`${words} moved`, (d) => {
    for (const t of roots)
      changeTask(d, t.id, by > 0 ? { from: target(t), first: undefined } : { from: undefined, first: true }); // prettier-ignore
  });
  tell(
    by > 0
      ? `${words}: not before ${dayName(first.slice(0, 10))}.`
      : `${words}: before all that could go before it. What it waits for, it still waits for.`,
  );
}
