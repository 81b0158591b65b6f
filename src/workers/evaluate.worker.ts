/** Evaluation off the main thread: keeps the plan and follows it by patches. */
import * as Comlink from 'comlink';
import { createChoices, type Choices } from '../core/choices.js';
import { createEvaluator } from '../core/evaluate.js';
import { catalogue } from '../core/plan/catalogue.js';
import { createStages } from '../core/stages.js';
import type { PatchStep, Plan } from '../core/plan/schema.js';
import type { LineReport, Report } from '../core/report/schema.js';
import type { Ground } from '../core/terrain/ground.js';
import { applyPatch } from '../formats/patch.js';

const stages = createStages();
const evaluate = createEvaluator(stages);
const choices = createChoices();
let plan: Plan | null = null;
let ground: Ground | null = null;
let sent: Report['lines'] = {};

/** A report whose unchanged lines are left out: the other side has them. */
export interface ReportChange {
  readonly report: Omit<Report, 'lines'>;
  readonly lines: Readonly<Record<string, LineReport | 'same'>>;
  /** What can be put on the line that is looked at. */
  readonly choices: Choices | null;
  readonly took_ms: number;
}

const api = {
  /** Starts over with a whole plan and its ground. */
  open(newPlan: Plan, newGround: Ground): void {
    plan = newPlan;
    ground = newGround;
    sent = {};
  },
  /** Follows a change that has been made. */
  patch(steps: PatchStep[]): void {
    if (plan) plan = applyPatch(plan, steps);
  },
  /**
   * The report of the plan, with a change on top that has not been made yet.
   * @param watched the line whose choices are looked at, or null
   */
  evaluate(preview: PatchStep[], watched: string | null): ReportChange | null {
    if (!plan || !ground) return null;
    const start = performance.now();
    const shown = preview.length ? applyPatch(plan, preview) : plan;
    const { lines, ...report } = evaluate(shown, ground, catalogue);
    const changed = Object.fromEntries(
      Object.entries(lines).map(([id, line]) => [id, sent[id] === line ? ('same' as const) : line]),
    );
    sent = lines;
    const seen = watched ? choices(watched, shown, ground, stages(shown, ground, catalogue)) : null;
    return { report, lines: changed, choices: seen, took_ms: performance.now() - start };
  },
};

export type EvaluateApi = typeof api;
Comlink.expose(api);
