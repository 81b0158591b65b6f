/**
 * The one pipeline: plan + ground + catalogue -> report. Pure. Each stage remembers its last answer
 * by the identity of what it was given, so moving one vertex works out one line and the network.
 */
import { memoByKey, memoLast } from './base/memo.js';
import { figure, withOverrides, type Catalogue } from './plan/catalogue.js';
import { bearing, distance, planLength, stations } from './plan/geometry.js';
import type { Gate, Line, Plan } from './plan/schema.js';
import { topologyOf } from './plan/topology.js';
import { layOut, type Layout } from './posts/layout.js';
import { clearanceUnder, withUplift } from './posts/forces.js';
import { circuitMarks, feedOf } from './power/circuit.js';
import { powerOf, type AimedLine } from './power/power.js';
import type { LineReport, Report } from './report/schema.js';
import { propose } from './strands/proposal.js';
import { profilesOf, requirementOf } from './strands/requirement.js';
import { countLine, supplyList } from './supplies/takeoff.js';
import { gAt, profileOf, zAt, type Profile } from './terrain/profile.js';
import type { Ground } from './terrain/ground.js';
import { schoolTension, strainOf, wireOf, type BayedRun } from './wire/strain.js';
import { findingsOf } from './findings/index.js';

/** A pipeline with its own memory; keep one for each plan that is being edited. */
export interface Evaluator {
  (plan: Plan, ground: Ground, base: Catalogue): Report;
}

/** Makes a fresh pipeline. */
export function createEvaluator(): Evaluator {
  const overridden = memoLast(withOverrides);
  const gatesByLine = memoLast(groupGates);
  const oneLine = memoByKey(lineStage);
  const count = memoByKey((line: Line, gates: readonly Gate[], layout: Layout, cat: Catalogue) =>
    countLine({ line, gates, layout }, cat),
  );

  return (plan, ground, base) => {
    const cat = overridden(base, plan.overrides);
    const gates = gatesByLine(plan.gates);
    const ids = Object.keys(plan.lines);
    const staged: Record<string, LineStage> = {};
    for (const id of ids) {
      staged[id] = oneLine.call(id, plan.lines[id]!, gates[id] ?? NONE, ground, plan.climate, cat);
    }
    const known = new Set(ids);
    oneLine.keep(known);
    count.keep(known);

    const wired: Record<string, AimedLine> = {};
    for (const id of ids) wired[id] = staged[id]!.wired;
    const topology = topologyOf(
      plan.lines,
      marksOf(Object.values(wired), plan.energisers, figure(cat, 'network.piece')),
    );
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
        const result = powerOf(e, lines, wired, topology, plan, cat);
        energisers[e.id] = result.report;
        if (e === own[0]) dead.push(...result.dead);
      }
      if (own.length === 0) dead.push(...lines.flatMap((id) => wholeLine(wired[id]!)));
    }
    const counted = Object.fromEntries(
      ids.map((id) => [
        id,
        count.call(id, plan.lines[id]!, gates[id] ?? NONE, staged[id]!.layout, cat),
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
      supplies,
      findings: findingsOf({ plan, cat, lines, energisers, dead, shared }),
    };
  };
}

const NONE: readonly Gate[] = [];
const total = <T>(list: readonly T[], of: (item: T) => number): number =>
  list.reduce((sum, item) => sum + of(item), 0);

/** One evaluation without any memory, for the command line and the server. */
export const evaluate: Evaluator = (plan, ground, base) => createEvaluator()(plan, ground, base);

interface LineStage {
  readonly report: LineReport;
  readonly layout: Layout;
  readonly wired: AimedLine;
}

function lineStage(
  line: Line,
  gates: readonly Gate[],
  ground: Ground,
  climate: Plan['climate'],
  cat: Catalogue,
): LineStage {
  const profile = profileOf(line.vertices, ground);
  const ids = profilesOf(line, cat);
  const requirement = requirementOf(ids, cat);
  const laid = layOut(line, gates, profile, requirement?.small ?? false, cat);
  const strain = strainOf(line, baysOf(laid), climate, cat);
  const coldest = total(line.strands, (s) => strain.find((r) => r.wire === s.wire)?.cold_N ?? 0);
  const weight = total(line.strands, (s) => wireOf(s.wire, cat).weight_N_per_m);
  const layout = { ...laid, posts: withUplift(laid.posts, laid.runs, coldest, weight) };
  const lowest = line.strands[0];
  const hot = strain.reduce((least, r) => Math.min(least, r.hot_N), schoolTension(line, cat));
  const report: LineReport = {
    id: line.id,
    name: line.name,
    plan_m: planLength(line),
    ground_m: gAt(profile, Infinity),
    legs: legsOf(line, profile),
    unknownGround: profile.unknown.map(([a, b]) => [a, b] as [number, number]),
    runs: [...layout.runs],
    stretches: [...layout.stretches],
    posts: layout.posts,
    clearance: lowest
      ? clearanceUnder(
          lowest.height_m,
          profile,
          layout.posts,
          layout.stretches,
          wireOf(lowest.wire, cat).weight_N_per_m,
          hot,
        )
      : null,
    requirement,
    proposal: requirement && propose(requirement, cat),
    effectiveGap_m: effectiveGap(line, strain),
    strain,
  };
  const wired = {
    line,
    gates,
    runs: layout.runs,
    aim_V: requirement?.aim_V ?? figure(cat, 'network.aimDefault'),
  };
  return { report, layout, wired };
}

/** The bays within each run, as taped. */
function baysOf(layout: Layout): BayedRun[] {
  return layout.runs.map((run) => {
    const own = layout.stretches.filter(
      (s) => s.from_m >= run.from_m - 1e-6 && s.to_m <= run.to_m + 1e-6,
    );
    return { run, bays_m: own.flatMap((s) => new Array<number>(s.bays).fill(s.bay_m)) };
  });
}

function legsOf(line: Line, profile: Profile): LineReport['legs'] {
  const at = stations(line.vertices);
  return line.vertices.slice(1).map((b, i) => {
    const a = line.vertices[i]!;
    const plan_m = distance(a, b);
    const rise_m = zAt(profile, at[i + 1]!) - zAt(profile, at[i]!);
    return {
      plan_m,
      ground_m: gAt(profile, at[i + 1]!) - gAt(profile, at[i]!),
      bearing_deg: bearing(a, b),
      rise_m,
      grade: plan_m === 0 ? 0 : rise_m / plan_m,
    };
  });
}

/** Widest gap between strands with what a push opens on either side of it, hot day, m. */
function effectiveGap(line: Line, strain: LineReport['strain']): number | null {
  const heights = line.strands.map((s) => s.height_m).sort((a, b) => a - b);
  if (heights.length < 2 || strain.length === 0) return null;
  const spread = Math.max(...strain.map((s) => s.pushed_m));
  let widest = 0;
  for (let i = 0; i + 1 < heights.length; i++)
    widest = Math.max(widest, heights[i + 1]! - heights[i]!);
  // Both strands give way, one up and one down.
  return widest + 2 * spread;
}

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
