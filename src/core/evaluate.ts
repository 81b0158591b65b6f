/** Plan + ground + catalogue -> report: the parts worked through, counted, priced, judged, mends tried. */
import { sameItems } from './base/memo.js';
import { createRaiser, type Raised, type Seen } from './findings/index.js';
import { mendFor, type Ask, type Tried } from './findings/mending.js';
import type { Rule } from './findings/rule.js';
import { PARTS } from './parts/index.js';
import { inHand, type Hurry, type Part } from './parts/part.js';
import {
  alone,
  createAlone,
  createPipeline,
  NONE,
  type PipelineOptions,
  type Worked,
} from './pipeline.js';
import type { Catalogue } from './plan/catalogue.js';
import type { Plan } from './plan/schema.js';
import type { Finding, Report } from './report/schema.js';
import { supplyList } from './supplies/takeoff.js';
import type { Ground } from './terrain/ground.js';

export interface EvaluateOptions {
  /** What takes long may answer as it did last. */
  readonly hurry?: Hurry;
  /** Parts whose figures nobody looks at while something is in the hand. */
  readonly left?: PipelineOptions['left'];
  /**
   * How many findings' mends may be tried that were not tried before, or of which findings they are, by id; all of them
   * where nothing is said.
   */
  readonly mends?: number | readonly string[];
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
  const raise = createRaiser(rules);
  const aloneIn = createAlone();
  const mending = createMending(parts, rules);
  let last: ({ readonly ids: string } & Pick<Report, 'supplies' | 'findings' | 'unjudged'>) | null =
    null;
  return (plan, ground, base, options = {}) => {
    const worked = pipeline(plan, ground, base, options);
    const { cat, of, lines, shown, counted } = worked;
    const all = Object.values(lines);
    // What is bought and what the rules find may stay behind the hand, while the same things are there.
    const ids = [plan.lines, plan.gates, plan.energisers].map((of) => Object.keys(of).join()).join(';'); // prettier-ignore
    if (!inHand(options.hurry ?? false) || last?.ids !== ids) {
      const seen = seenOf(plan, worked, (id) => aloneIn(plan, id));
      last = {
        ids,
        supplies: supplyList(counted(), cat, plan),
        ...mending(raise(seen), seen, ground, base, worked.joints, options.mends ?? Infinity),
      };
    }
    const { supplies, findings, unjudged } = last;
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
      findings,
      unjudged,
    };
  };
}

const seenOf = (
  plan: Plan,
  { cat, gates, meetings, of, lines, shown }: Worked,
  aloneOf: Seen['aloneOf'],
): Seen => ({
  plan,
  cat,
  meetings,
  lines,
  ...shown,
  profileOf: (id) => of[id]!.ground.profile,
  gatesOf: (id) => gates[id] ?? NONE,
  aloneOf,
});

/** Tries mends on plans that are only thought of, and remembers what came of it. */
function createMending(parts: readonly Part[], rules: readonly Rule[]) {
  const thought = { line: createPipeline(parts), whole: createPipeline(parts) };
  const raise = { line: createRaiser(rules.filter((r) => !r.whole)), whole: createRaiser(rules) };
  const aloneIn = createAlone();
  /** By finding: what came of its mends, and the lines that it was asked of; null: of the whole property. */
  const known = new Map<string, Known>();
  return (
    raised: readonly Raised[],
    seen: Seen,
    ground: Ground,
    base: Catalogue,
    joints: Worked['joints'],
    mends: NonNullable<EvaluateOptions['mends']>,
  ): Pick<Report, 'findings' | 'unjudged'> => {
    const { plan, aloneOf } = seen;
    const restsOn = (lines: Known['lines']): readonly unknown[] =>
      lines ? [...lines.flatMap((id) => [aloneOf(id), joints[id]]), ground, base] : [plan, ground, base]; // prettier-ignore
    const tryNow = (r: Raised): Known => {
      const lines = new Set(r.line === null ? [] : [r.line]);
      let whole = r.line === null;
      const ask: Ask = (other, line) => {
        if (line === null) {
          whole = true;
          const of = (id: string) => aloneIn(other, id);
          return raise.whole(seenOf(other, thought.whole(other, ground, base), of));
        }
        lines.add(line);
        const asked = alone(other, line);
        // Its posts stand where the others meet it, though they are not asked.
        const worked = thought.line(asked, ground, base, { joints });
        return raise.line(seenOf(asked, worked, () => asked));
      };
      const tried = mendFor(r, plan, raised, ask);
      const of = whole ? null : [...lines];
      return { why: r.finding.why, lines: of, on: restsOn(of), tried };
    };
    const only = typeof mends === 'number' ? null : new Set(mends);
    let left = typeof mends === 'number' ? mends : Infinity;
    let unjudged = 0;
    const findings = raised.map((r): Finding => {
      const { finding, mends } = r;
      if (!mends) return finding;
      let entry = known.get(finding.id);
      if (entry?.why !== finding.why || !sameItems(entry.on, restsOn(entry.lines))) {
        if (only ? !only.has(finding.id) : left-- <= 0) {
          unjudged++;
          return { ...finding, trying: true };
        }
        entry = tryNow(r);
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

/** What came of a finding's mends, and what that rests on. */
interface Known {
  readonly why: string;
  readonly lines: readonly string[] | null;
  readonly on: readonly unknown[];
  readonly tried: Tried;
}

const total = <T>(list: readonly T[], of: (item: T) => number): number =>
  list.reduce((sum, item) => sum + of(item), 0);

/** One evaluation without any memory, for the command line and the server. */
export const evaluate: Evaluator = (plan, ground, base, options) =>
  createEvaluator()(plan, ground, base, options);
