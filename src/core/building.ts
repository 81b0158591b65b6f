/** What the pipeline found of a plan, as the work on it asks for it. */
import type { Made } from './build/made.js';
import type { Worked } from './pipeline.js';
import type { Plan } from './plan/schema.js';

export const madeOf = (plan: Plan, worked: Worked): Made => ({
  plan,
  cat: worked.cat,
  lines: worked.lines,
  gates: worked.gates,
  meetings: worked.meetings,
  counted: worked.counted,
  groups: worked.whole.power.groups,
  stood: Object.fromEntries(
    Object.entries(worked.of).map(([id, { posts, ends }]) => [
      id,
      { own: posts.own, brought: ends.brought, droppers: posts.layout.droppers },
    ]),
  ),
});
