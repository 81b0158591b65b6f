/** The first plan off the main thread: what the answers of the start make, and what it would take. */
import { newPlan, sized, type Answers } from '../core/edit/firstPlan.js';
import { createEvaluator } from '../core/evaluate.js';
import { catalogue } from '../core/plan/shipped.js';
import { furthestOff } from '../core/plan/walkFit.js';
import type { Grid, Plan } from '../core/plan/schema.js';
import type { Report } from '../core/report/schema.js';
import { groundOf, type Ground } from '../core/terrain/ground.js';

const evaluate = createEvaluator();
let grid: Grid | null = null;

export interface Begun {
  readonly plan: Plan;
  readonly report: Report;
  /** How far the furthest walked point lies off the lines, m. */
  readonly furthest_m: number;
}

const ground = (plan: Plan): Ground =>
  groundOf(plan, plan.ground.kind === 'grid' && grid ? { [plan.ground.id]: grid } : {});
const report = (plan: Plan): Report => evaluate(plan, ground(plan), catalogue, { mends: 0 });

export const api = {
  /** The ground that is meant from now on. */
  lay(next: Grid | null): void {
    grid = next;
  },
  /** The plan that these answers make, and its report. */
  begin(answers: Answers): Begun {
    const plan = newPlan(answers);
    const lines = Object.values(plan.lines).map((l) => l.vertices);
    const off = (p: Answers['lines'][number]['points']) =>
      Math.min(...lines.map((l) => furthestOff(p, l)));
    return {
      plan,
      report: report(plan),
      furthest_m: Math.max(0, ...answers.lines.map((l) => off(l.points))),
    };
  },
  /** The same with the unit and the rods that it asks for. */
  finish: (answers: Answers): Plan => sized(newPlan(answers), report),
};

export type StartApi = typeof api;
