/**
 * The one pipeline: plan + ground + catalogue -> report. Pure. Each stage remembers its last answer
 * by the identity of what it was given, so moving one vertex works out one line and the network.
 */
import { memoByKey, memoLast, memoOn } from './base/memo.js';
import { paddocksOf } from './land/paddocks.js';
import { figure, type Catalogue } from './plan/catalogue.js';
import type { Gate, Line, Plan } from './plan/schema.js';
import type { Layout } from './posts/layout.js';
import { feedOf } from './power/circuit.js';
import { powerOf, type AimedLine, type PowerResult } from './power/power.js';
import type { Report } from './report/schema.js';
import { createStages, NONE } from './stages.js';
import { countLine, oldFencesCrossed, supplyList } from './supplies/takeoff.js';
import type { Ground } from './terrain/ground.js';
import { findingsOf } from './findings/index.js';

/** A pipeline with its own memory; keep one for each plan that is being edited. */
export interface Evaluator {
  (plan: Plan, ground: Ground, base: Catalogue): Report;
}

/**
 * Makes a fresh pipeline.
 * @param stages its first half, where another question is asked of the same half
 */
export function createEvaluator(stages = createStages()): Evaluator {
  const paddocks = memoLast(paddocksOf);
  const power = memoOn<PowerResult>();
  const count = memoByKey(
    (
      line: Line,
      gates: readonly Gate[],
      layout: Layout,
      signs: number,
      things: Plan['things'],
      cat: Catalogue,
    ) => countLine({ line, gates, layout, signs, crossings: oldFencesCrossed(line, things) }, cat),
  );

  return (plan, ground, base) => {
    const { cat, gates, staged, wired, topology, groups } = stages(plan, ground, base);
    const ids = Object.keys(plan.lines);
    count.keep(new Set(ids));
    const energisers: Report['energisers'] = {};
    const dead: Report['dead'] = [];
    for (const { lines, energisers: own } of groups) {
      for (const e of own) {
        // A network rests on its own lines and joints alone: others may change beside it.
        const on = lines.flatMap((id) => [wired[id], topology.marks[id]]);
        const result = power.get(e.id, [e, plan.sizing, plan.soil, plan.things, cat, ...on], () =>
          powerOf(e, lines, wired, topology, plan, cat),
        );
        energisers[e.id] = result.report;
        if (e === own[0]) dead.push(...result.dead);
      }
      if (own.length === 0) dead.push(...lines.flatMap((id) => wholeLine(wired[id]!)));
    }
    power.keep(new Set(Object.keys(plan.energisers)));
    const counted = Object.fromEntries(
      ids.map((id) => [
        id,
        count.call(
          id,
          plan.lines[id]!,
          gates[id] ?? NONE,
          staged[id]!.layout,
          staged[id]!.report.signs,
          plan.things,
          cat,
        ),
      ]),
    );
    const leads = Object.values(plan.energisers).map((energiser) => ({
      energiser,
      lead_m: feedOf(energiser, wired, topology)?.lead_m ?? 0,
    }));
    const supplies = supplyList(counted, leads, cat, plan.units);
    const lines = Object.fromEntries(ids.map((id) => [id, staged[id]!.report]));
    const shared = groups
      .filter((g) => g.energisers.length > 1)
      .map((g) => g.energisers.map((e) => e.id));
    const land = paddocks(
      plan.lines,
      plan.gates,
      plan.things,
      plan.paddocks,
      figure(cat, 'land.gapBridge'),
      figure(cat, 'land.gapLook'),
    );
    return {
      format: 'anabatic-report',
      version: 1,
      plan: plan.name,
      invented: plan.invented ?? false,
      currency: plan.currency,
      totals: {
        plan_m: total(Object.values(lines), (l) => l.plan_m),
        ground_m: total(Object.values(lines), (l) => l.ground_m),
        wire_m: total(
          Object.values(wired),
          (w) => w.line.strands.length * total(w.runs, (r) => r.ground_m),
        ),
        posts: total(Object.values(lines), (l) => l.posts.length),
        cost: total(supplies, (s) => s.cost),
      },
      lines,
      energisers,
      dead,
      shared,
      ...land,
      supplies,
      findings: findingsOf({ plan, cat, lines, energisers, dead, shared, ...land }),
    };
  };
}

const total = <T>(list: readonly T[], of: (item: T) => number): number =>
  list.reduce((sum, item) => sum + of(item), 0);

/** One evaluation without any memory, for the command line and the server. */
export const evaluate: Evaluator = (plan, ground, base) => createEvaluator()(plan, ground, base);

function wholeLine(w: AimedLine): Report['dead'] {
  if (!w.line.strands.some((s) => s.duty === 'live')) return [];
  return w.runs.map((r) => ({ line: w.line.id, from_m: r.from_m, to_m: r.to_m }));
}
