/** The work that a plan asks for: tasks by line, place and unit, in their order, with what each takes and waits for. */
import { sum } from '../base/numbers.js';
import { kindOf } from './kinds.js';
import { lineTasks } from './lineTasks.js';
import type { Made } from './made.js';
import { amount, longest, waits, whole, type Draft, type Task, type Wait } from './task.js';
import { unitTasks } from './unitTasks.js';

/** Tasks of a plan, each after those that it waits for where that can be. */
export function tasksOf(made: Made): Task[] {
  const { plan } = made;
  const out: Draft[] = [];
  for (const line of Object.values(plan.lines)) out.push(...lineTasks(line, made));
  const strung = new Set(out.map((t) => t.id));
  for (const e of Object.values(plan.energisers)) out.push(...unitTasks(e, made, strung));
  const last = out.filter((t) => t.kind === 'hang' || t.kind === 'prove').map((t) => t.id);
  if (Object.keys(plan.energisers).length > 0)
    out.push({
      ...whole('stock', '', null),
      amounts: [amount(1, 'time', 'build.stockHours', made.cat)],
      after: waits(...last),
    });
  return bridged(out.map((t) => ({ ...t, work_h: sum(t.amounts.map((a) => a.hours)), people: kindOf(t.kind).people }))); // prettier-ignore
}

/** Without what takes no work, a charging unit aside; what waited for that waits for what it waited for. */
function bridged(tasks: readonly Task[]): Task[] {
  const all = new Map(tasks.map((t) => [t.id, t]));
  const kept = (t: Task) => t.work_h > 0 || t.kind === 'charge';
  const real = ({ id, wait_h, why }: Wait): Wait[] => {
    const t = all.get(id);
    if (!t) return [];
    if (kept(t)) return [{ id, wait_h, ...(why ? { why } : {}) }];
    return t.after.flatMap(real).map((w) => ({ ...w, wait_h: w.wait_h + wait_h }));
  };
  return tasks.filter(kept).map((t) => ({ ...t, after: longest(t.after.flatMap(real)) }));
}
