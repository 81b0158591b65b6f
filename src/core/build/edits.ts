/** Changes of how the work is planned, on a draft of the plan; what is as usual does not stand in it. */
import type { BuildPlan, Plan } from '../plan/schema.js';

export type TaskEdit = NonNullable<BuildPlan['tasks']>[string];

/** Puts or takes away (undefined) parts of how the work is planned. */
export function changeBuild(plan: Plan, change: Partial<BuildPlan>): void {
  plan.build = without({ ...plan.build, ...change });
  if (Object.keys(plan.build).length === 0) delete plan.build;
}

/** Changes a task by hand, or puts it back (undefined). */
export function changeTask(plan: Plan, id: string, change: Partial<TaskEdit>): void {
  const { [id]: before, ...others } = plan.build?.tasks ?? {};
  const edit = without({ ...before, ...change });
  const tasks = Object.keys(edit).length > 0 ? { ...others, [id]: edit } : others;
  changeBuild(plan, { tasks: Object.keys(tasks).length > 0 ? tasks : undefined });
}

/** Takes somebody out of the crew, and from all that was given to them. */
export function dropMember(plan: Plan, id: string): void {
  const crew = { ...plan.build?.crew };
  delete crew[id];
  changeBuild(plan, { crew: Object.keys(crew).length > 0 ? crew : undefined });
  for (const [task, edit] of Object.entries(plan.build?.tasks ?? {})) {
    if (!edit.who?.includes(id)) continue;
    const who = edit.who.filter((w) => w !== id);
    changeTask(plan, task, { who: who.length > 0 ? who : undefined });
  }
}

/** Days of a list with one put in or taken out; none: undefined. */
export function toggled(days: readonly string[] | undefined, day: string): string[] | undefined {
  const next = days?.includes(day) ? days.filter((d) => d !== day) : [...(days ?? []), day].sort();
  return next.length > 0 ? next : undefined;
}

const without = <T extends object>(of: T): T =>
  Object.fromEntries(Object.entries(of).filter(([, v]) => v !== undefined)) as T;
