/** What the pipeline found of a plan, as the work on it asks for it; and that work, planned. */
import { range } from './base/numbers.js';
import type { Made } from './build/made.js';
import { planWork, type Planned } from './build/planned.js';
import type { Did } from './build/rates.js';
import { shaped, type Failed } from './build/shaped.js';
import { tasksOf } from './build/tasks.js';
import { crewOf } from './build/calendar.js';
import type { Worked } from './pipeline.js';
import type { BuildPlan, Plan } from './plan/schema.js';

export const madeOf = (plan: Plan, worked: Worked): Made => ({
  plan,
  cat: worked.cat,
  lines: worked.lines,
  gates: worked.gates,
  meetings: worked.meetings,
  counted: worked.counted(),
  groups: worked.whole.power.groups,
  stood: Object.fromEntries(
    Object.entries(worked.of).map(([id, { posts, ends }]) => [
      id,
      { own: posts.own, brought: ends.brought, droppers: posts.layout.droppers },
    ]),
  ),
});

/** What happened so far, and what is thought of. */
export interface BuildAsked {
  readonly did: readonly Did[];
  readonly failed: readonly Failed[];
  /** YYYY-MM-DD. */
  readonly today: string;
  /** A day more on which it rains; people more from the first day. */
  readonly what?: { readonly rain?: string; readonly more?: number };
}

/** The work on a plan, planned. */
export function plannedOf(made: Made, { did, failed, today, what = {} }: BuildAsked): Planned {
  const { plan, cat } = made;
  const build = thoughtOf(plan.build, what, made);
  return planWork({ tasks: shaped(tasksOf(made), plan, failed, cat), build, did, today, cat });
}

function thoughtOf(
  build: BuildPlan | undefined,
  { rain, more = 0 }: NonNullable<BuildAsked['what']>,
  { cat }: Made,
): BuildPlan | undefined {
  if (rain === undefined && more === 0) return build;
  const others = range(more).map(
    (k) => [`more${k}`, { id: `more${k}`, name: 'One more' }] as const,
  );
  return {
    ...build,
    crew: { ...crewOf(build, cat), ...Object.fromEntries(others) },
    ...(rain === undefined ? {} : { rain: [...(build?.rain ?? []), rain] }),
  };
}
