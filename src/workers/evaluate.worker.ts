/** Evaluation off the main thread: keeps the plan and follows it by patches. */
import * as Comlink from 'comlink';
import { createEvaluator } from '../core/evaluate.js';
import { catalogue } from '../core/plan/catalogue.js';
import type { PatchStep, Plan } from '../core/plan/schema.js';
import type { LineReport, Report } from '../core/report/schema.js';
import type { Ground } from '../core/terrain/ground.js';
import { applyPatch } from '../formats/patch.js';

const evaluate = createEvaluator();
let plan: Plan | null = null;
let ground: Ground | null = null;
let sent: Report['lines'] = {};

/** A report whose unchanged lines are left out: the other side has them. */
export interface ReportChange {
  readonly report: Omit<Report, 'lines'>;
  readonly lines: Readonly<Record<string, LineReport | 'same'>>;
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
  /** The report of the plan, with a change on top that has not been made yet. */
  evaluate(preview: PatchStep[]): ReportChange | null {
    if (!plan || !ground) return null;
    const start = performance.now();
    const { lines, ...report } = evaluate(
      preview.length ? applyPatch(plan, preview) : plan,
      ground,
      catalogue,
    );
    const changed = Object.fromEntries(
      Object.entries(lines).map(([id, line]) => [id, sent[id] === line ? ('same' as const) : line]),
    );
    sent = lines;
    return { report, lines: changed, took_ms: performance.now() - start };
  },
};

export type EvaluateApi = typeof api;
Comlink.expose(api);
