/** Placement off the main thread, run by run; who wants it to stop ends the worker. */
import { jobsOf } from '../core/edit/placeLine.js';
import { catalogue } from '../core/plan/shipped.js';
import { ownCatalogue } from '../core/plan/ownCatalogue.js';
import { jointsOf, meetingsOf } from '../core/plan/meets.js';
import type { Plan } from '../core/plan/schema.js';
import {
  arrangement,
  solveRun,
  type LineArrangement,
  type RunResult,
} from '../core/posts/arrange.js';
import type { Requirement } from '../core/report/schema.js';
import type { Ground } from '../core/terrain/ground.js';

export const api = {
  /**
   * Places the posts of lines.
   * @param requirements what the stock asks of each line, from the report
   * @param onRun called after each run with how many of all are done
   */
  place(
    plan: Plan,
    lines: readonly string[],
    requirements: Readonly<Record<string, Requirement | null>>,
    ground: Ground,
    onRun: (done: number, total: number) => void,
  ): Record<string, LineArrangement> {
    const cat = ownCatalogue(catalogue, plan);
    const joints = jointsOf(plan.lines, meetingsOf(plan.lines));
    const jobs = lines.map((id) => ({
      id,
      runs: jobsOf(plan, id, ground, requirements[id]!, cat, joints[id]),
    }));
    const total = jobs.reduce((n, j) => n + j.runs.length, 0);
    let done = 0;
    return Object.fromEntries(
      jobs.map(({ id, runs }) => {
        const results = runs.map((run): RunResult => {
          const result = solveRun(run);
          onRun(++done, total);
          return result;
        });
        return [id, arrangement(results)];
      }),
    );
  },
};

export type PlacementApi = typeof api;
