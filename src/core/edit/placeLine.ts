/** The posts of lines of a plan placed by their ground. */
import { endsAlong } from '../ends/along.js';
import type { Catalogue } from '../plan/catalogue.js';
import { jointsOf, meetingsOf, type Joint } from '../plan/meets.js';
import type { PatchStep, Plan } from '../plan/schema.js';
import {
  arrangement,
  placedPatch,
  runJobs,
  solveRun,
  type LineArrangement,
  type RunJob,
} from '../posts/arrange.js';
import type { Requirement } from '../report/schema.js';
import type { Ground } from '../terrain/ground.js';
import { profileOf } from '../terrain/profile.js';

/** The runs of a line of a plan as placement jobs, its ends as they are there. */
export function jobsOf(
  plan: Plan,
  id: string,
  ground: Ground,
  requirement: Requirement | null,
  cat: Catalogue,
  joints: readonly Joint[] = jointsOf(plan.lines, meetingsOf(plan.lines))[id] ?? [],
): RunJob[] {
  const line = plan.lines[id]!;
  const gates = Object.values(plan.gates).filter((g) => g.line === id);
  const profile = profileOf(line.vertices, ground, line.levels);
  const { seconds, kinds } = endsAlong({ line, gates, joints, profile, land: plan, cat });
  return runJobs(line, gates, ground, requirement, plan, cat, joints, { seconds, kinds });
}

/**
 * Places the posts of one line of a plan by its ground, all at once; with the change that takes it
 * over, or null where some run has no placement.
 */
export function placeLine(
  plan: Plan,
  id: string,
  ground: Ground,
  requirement: Requirement | null,
  cat: Catalogue,
): { readonly arrangement: LineArrangement; readonly patch: PatchStep[] | null } {
  const made = arrangement(jobsOf(plan, id, ground, requirement, cat).map(solveRun));
  return { arrangement: made, patch: placedPatch(plan, id, made) };
}
