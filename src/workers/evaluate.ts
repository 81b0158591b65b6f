/** Evaluation off the main thread: keeps the plan and follows it by patches. */
import { createChoices, type Choices } from '../core/choices.js';
import { createEvaluator, type EvaluateOptions } from '../core/evaluate.js';
import { PARTS } from '../core/parts/index.js';
import type { Hurry } from '../core/parts/part.js';
import { createPipeline } from '../core/pipeline.js';
import { takeTogether, type Together } from '../core/findings/together.js';
import type { Catalogue, SeasonId } from '../core/plan/catalogue.js';
import type { PatchStep, Plan } from '../core/plan/schema.js';
import { changeOf, type ReportChange } from '../core/report/change.js';
import type { Report } from '../core/report/schema.js';
import type { Ground } from '../core/terrain/ground.js';
import { applyPatch } from '../formats/patch.js';

const pipeline = createPipeline();
const evaluate = createEvaluator(PARTS, pipeline);
const choices = createChoices();
let plan: Plan | null = null;
let ground: Ground | null = null;
/** The shipped one: given by the page, which has it, so that it is fetched once. */
let catalogue: Catalogue;
/** The last report that the other side was given. */
let sent: Report | null = null;

export interface Evaluated {
  readonly change: ReportChange;
  /** What can be put on the line that is looked at. */
  readonly choices: Choices | null;
  readonly took_ms: number;
}

export interface Asked extends Pick<EvaluateOptions, 'left'> {
  /** The line whose choices are looked at. */
  readonly watched: string | null;
  readonly hurry: Hurry;
  /** Ids of findings whose mends are to be tried. */
  readonly mends: readonly string[];
}

export const api = {
  /** Starts over with a whole plan and its ground. @param shipped the catalogue; the first that is given stays */
  open(newPlan: Plan, newGround: Ground, shipped: Catalogue): void {
    catalogue ??= shipped;
    plan = newPlan;
    ground = newGround;
    sent = null;
  },
  /** Follows a change that has been made. */
  patch(steps: PatchStep[]): void {
    if (plan) plan = applyPatch(plan, steps);
  },
  /** The report of the plan, with a change on top that has not been made yet. */
  evaluate(preview: PatchStep[], asked: Asked): Evaluated | null {
    const { watched, hurry, ...options } = asked;
    if (!plan || !ground) return null;
    const start = performance.now();
    const shown = preview.length ? applyPatch(plan, preview) : plan;
    const report = evaluate(shown, ground, catalogue, { hurry, ...options });
    const seen = watched
      ? choices(watched, shown, ground, pipeline(shown, ground, catalogue, { hurry }), hurry)
      : null;
    const change = changeOf(sent, report);
    // Only now: had anything thrown before, the other side would lack what counts as sent.
    sent = report;
    return { change, choices: seen, took_ms: performance.now() - start };
  },
  /** Works the volts of one season out ahead of a report that is to have all of them. */
  ahead(preview: PatchStep[], hurry: SeasonId): void {
    if (plan && ground)
      pipeline(preview.length ? applyPatch(plan, preview) : plan, ground, catalogue, { hurry });
  },
  /**
   * The mends of several findings as one change, judged together.
   * @param ids of findings of the plan as it is
   */
  together(ids: readonly string[]): Together | null {
    if (!plan || !ground) return null;
    const land = ground;
    const before = evaluate(plan, land, catalogue).findings;
    const thought = createEvaluator(PARTS);
    return takeTogether(
      before.filter((f) => ids.includes(f.id)),
      plan,
      before,
      (other) => thought(other, land, catalogue, { mends: 0 }).findings,
    );
  },
};

export type EvaluateApi = typeof api;
