/** Plan + ground + catalogue -> report: the parts worked through, counted, priced, judged, mends tried. */
import { sameItems } from './base/memo.js';
import { raise, type Raised } from './findings/index.js';
import { mendFor, oneLine, type Ask, type Tried } from './findings/mending.js';
import type { Rule } from './findings/rule.js';
import { PARTS } from './parts/index.js';
import type { Hurry, Part } from './parts/part.js';
import { alone, createPipeline, NONE, type Worked } from './pipeline.js';
import type { Catalogue } from './plan/catalogue.js';
import type { Plan } from './plan/schema.js';
import type { Finding, Report } from './report/schema.js';
import { supplyList } from './supplies/takeoff.js';
import type { Ground } from './terrain/ground.js';

export interface EvaluateOptions {
  /** Parts that take long may answer as they did last. */
  readonly hurry?: Hurry;
  /** How many mends may be tried that were not tried before; all of them where nothing is said. */
  readonly mends?: number;
}

/** A pipeline with its own memory; keep one for each plan that is being edited. */
export interface Evaluator {
  (plan: Plan, ground: Ground, base: Catalogue, options?: EvaluateOptions): Report;
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
  const mending = createMending(parts, rules);
  return (plan, ground, base, options = {}) => {
    const worked = pipeline(plan, ground, base, options);
    const { cat, of, lines, shown, counted } = worked;
    const supplies = supplyList(counted, cat, plan);
    const all = Object.values(lines);
    const raised = raise(rules, seenOf(plan, worked));
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
          // Old wire that is kept is not strung.
          const strung = line.strands.filter((s) => !s.kept).length;
          return strung * total(of[line.id]!.posts.runs, (r) => r.ground_m);
        }),
        posts: total(all, (l) => l.posts.length),
        cost: total(supplies, (s) => s.cost),
      },
      lines,
      ...shown,
      supplies,
      ...mending(raised, plan, ground, base, worked.joints, options.mends ?? Infinity),
    };
  };
}

const seenOf = (plan: Plan, { cat, gates, meetings, of, lines, shown }: Worked) => ({
  plan,
  cat,
  meetings,
  lines,
  ...shown,
  profileOf: (id: string) => of[id]!.ground.profile,
  gatesOf: (id: string) => gates[id] ?? NONE,
});

/** Tries mends on plans that are only thought of, and remembers what came of it. */
function createMending(parts: readonly Part[], rules: readonly Rule[]) {
  const ofLine = rules.filter((rule) => !rule.whole);
  const thought = { line: createPipeline(parts), whole: createPipeline(parts) };
  /** By finding: what came of its mends, and what that rests on. */
  const known = new Map<string, { line: string | null; on: readonly unknown[]; tried: Tried }>();
  return (
    raised: readonly Raised[],
    plan: Plan,
    ground: Ground,
    base: Catalogue,
    joints: Worked['joints'],
    most: number,
  ): Pick<Report, 'findings' | 'unjudged'> => {
    const ask: Ask = (other, line) => {
      if (line === null) return raise(rules, seenOf(other, thought.whole(other, ground, base)));
      const asked = alone(other, line);
      // Its posts stand where the others meet it, though they are not asked.
      return raise(ofLine, seenOf(asked, thought.line(asked, ground, base, { joints })));
    };
    const { gates, things, soil, climate, overrides, units, ownWires, breakTests, book, ownItems } = plan; // prettier-ignore
    const restsOn = (line: string | null) => {
      if (line === null) return [plan, ground, base];
      const own = [plan.lines[line], joints[line]];
      const figures = [overrides, units, ownWires, breakTests, book, ownItems];
      return [...own, gates, things, soil, climate, ...figures, ground, base];
    };
    let left = most;
    let unjudged = 0;
    const findings = raised.map((r): Finding => {
      const { finding, mends } = r;
      if (!mends) return finding;
      let entry = known.get(finding.id);
      if (!entry || !sameItems(entry.on, [finding.why, ...restsOn(entry.line)])) {
        if (left-- <= 0) {
          unjudged++;
          return { ...finding, trying: true };
        }
        const line = oneLine(r);
        const tried = mendFor(r, plan, raised, ask);
        entry = { line, on: [finding.why, ...restsOn(line)], tried };
        known.set(finding.id, entry);
      }
      const { mend, withheld } = entry.tried;
      if (!mend) return withheld === null ? finding : { ...finding, withheld };
      return { ...finding, mend: { ...mend, patch: [...mend.patch] } };
    });
    const ids = new Set(raised.map((r) => r.finding.id));
    for (const id of known.keys()) if (!ids.has(id)) known.delete(id);
    return { findings, unjudged };
  };
}

const total = <T>(list: readonly T[], of: (item: T) => number): number =>
  list.reduce((sum, item) => sum + of(item), 0);

/** One evaluation without any memory, for the command line and the server. */
export const evaluate: Evaluator = (plan, ground, base, options) =>
  createEvaluator()(plan, ground, base, options);
