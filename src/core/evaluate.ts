/**
 * The one pipeline: plan + ground + catalogue -> report. Pure. Each stage remembers its last answer
 * by the identity of what it was given, so moving one vertex works out one line and the network.
 */
import { memoByKey, memoLast, memoOn, sameItems, steady } from './base/memo.js';
import { paddocksOf } from './land/paddocks.js';
import { lineStage, type LineStage } from './lineStage.js';
import { figure, withOverrides, type Catalogue } from './plan/catalogue.js';
import type { Gate, Line, Plan } from './plan/schema.js';
import { topologyOf, type Mark } from './plan/topology.js';
import type { Layout } from './posts/layout.js';
import { circuitMarks, feedOf } from './power/circuit.js';
import { powerOf, type AimedLine, type PowerResult } from './power/power.js';
import type { Report } from './report/schema.js';
import { countLine, supplyList } from './supplies/takeoff.js';
import type { Ground } from './terrain/ground.js';
import { findingsOf } from './findings/index.js';

/** A pipeline with its own memory; keep one for each plan that is being edited. */
export interface Evaluator {
  (plan: Plan, ground: Ground, base: Catalogue): Report;
}

/** Makes a fresh pipeline. */
export function createEvaluator(): Evaluator {
  const overridden = memoLast(withOverrides);
  const steadyGates = steady<readonly Gate[]>(sameItems);
  const gatesByLine = memoLast((gates: Plan['gates']) => steadyGates(groupGates(gates)));
  const paddocks = memoLast(paddocksOf);
  const power = memoOn<PowerResult>();
  const steadyMarks = steady(sameMarks);
  const oneLine = memoByKey(lineStage);
  const count = memoByKey(
    (line: Line, gates: readonly Gate[], layout: Layout, signs: number, cat: Catalogue) =>
      countLine({ line, gates, layout, signs }, cat),
  );

  return (plan, ground, base) => {
    const cat = overridden(base, plan.overrides);
    const gates = gatesByLine(plan.gates);
    const ids = Object.keys(plan.lines);
    const staged: Record<string, LineStage> = {};
    for (const id of ids) {
      staged[id] = oneLine.call(
        id,
        plan.lines[id]!,
        gates[id] ?? NONE,
        ground,
        plan.soil,
        plan.things,
        plan.climate,
        cat,
      );
    }
    const known = new Set(ids);
    oneLine.keep(known);
    count.keep(known);

    const wired: Record<string, AimedLine> = {};
    for (const id of ids) wired[id] = staged[id]!.wired;
    const found = topologyOf(
      plan.lines,
      marksOf(Object.values(wired), plan.energisers, figure(cat, 'network.piece')),
    );
    const topology = { ...found, marks: steadyMarks(found.marks) };
    const groups = topology.groups.map((group) => ({
      lines: group,
      energisers: Object.values(plan.energisers).filter(
        (e) => e.line !== null && group.includes(e.line),
      ),
    }));
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

const NONE: readonly Gate[] = [];
const total = <T>(list: readonly T[], of: (item: T) => number): number =>
  list.reduce((sum, item) => sum + of(item), 0);

/** One evaluation without any memory, for the command line and the server. */
export const evaluate: Evaluator = (plan, ground, base) => createEvaluator()(plan, ground, base);

const sameMarks = (a: readonly Mark[], b: readonly Mark[]): boolean =>
  a.length === b.length && a.every((m, i) => m.s === b[i]!.s && m.location === b[i]!.location);

function groupGates(gates: Plan['gates']): Record<string, readonly Gate[]> {
  const out: Record<string, Gate[]> = {};
  for (const gate of Object.values(gates)) (out[gate.line] ??= []).push(gate);
  return out;
}

function marksOf(wired: readonly AimedLine[], energisers: Plan['energisers'], piece: number) {
  const out: Record<string, number[]> = {};
  for (const w of wired) out[w.line.id] = circuitMarks(w, piece);
  for (const e of Object.values(energisers)) if (e.line && out[e.line]) out[e.line]!.push(e.at_m);
  return out;
}

function wholeLine(w: AimedLine): Report['dead'] {
  if (!w.line.strands.some((s) => s.duty === 'live')) return [];
  return w.runs.map((r) => ({ line: w.line.id, from_m: r.from_m, to_m: r.to_m }));
}
