/** Plan + ground + catalogue -> report: the parts worked through, counted, priced and judged. */
import { findingsOf } from './findings/index.js';
import { PARTS } from './parts/index.js';
import type { Part } from './parts/part.js';
import { createPipeline, NONE } from './pipeline.js';
import type { Catalogue } from './plan/catalogue.js';
import type { Plan } from './plan/schema.js';
import type { Report } from './report/schema.js';
import { supplyList } from './supplies/takeoff.js';
import type { Ground } from './terrain/ground.js';

/** A pipeline with its own memory; keep one for each plan that is being edited. */
export interface Evaluator {
  /** @param hurry parts that take long may answer as they did last */
  (plan: Plan, ground: Ground, base: Catalogue, hurry?: boolean): Report;
}

/**
 * Makes an evaluator.
 * @param pipeline what it stands on, where another question is asked of the same
 */
export function createEvaluator(
  parts: readonly Part[] = PARTS,
  pipeline = createPipeline(parts),
): Evaluator {
  const rules = parts.flatMap((part) => part.rules ?? []);
  return (plan, ground, base, hurry) => {
    const { cat, gates, of, lines, shown, counted } = pipeline(plan, ground, base, hurry);
    const supplies = supplyList(counted, cat, plan.units);
    const all = Object.values(lines);
    return {
      format: 'anabatic-report',
      version: 1,
      plan: plan.name,
      invented: plan.invented ?? false,
      currency: plan.currency,
      totals: {
        plan_m: total(all, (l) => l.plan_m),
        ground_m: total(all, (l) => l.ground_m),
        wire_m: total(Object.values(plan.lines), (line) => {
          return line.strands.length * total(of[line.id]!.posts.runs, (r) => r.ground_m);
        }),
        posts: total(all, (l) => l.posts.length),
        cost: total(supplies, (s) => s.cost),
      },
      lines,
      ...shown,
      supplies,
      findings: findingsOf(rules, {
        plan,
        cat,
        lines,
        ...shown,
        profileOf: (id) => of[id]!.ground.profile,
        gatesOf: (id) => gates[id] ?? NONE,
      }),
    };
  };
}

const total = <T>(list: readonly T[], of: (item: T) => number): number =>
  list.reduce((sum, item) => sum + of(item), 0);

/** One evaluation without any memory, for the command line and the server. */
export const evaluate: Evaluator = (plan, ground, base) => createEvaluator()(plan, ground, base);
