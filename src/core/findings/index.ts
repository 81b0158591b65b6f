/** What the rules find: worst first, then in the order of the parts. */
import { memoOn } from '../base/memo.js';
import { inUnits } from '../base/prose.js';
import type { Gate, Plan } from '../plan/schema.js';
import { whereWords } from '../posts/whereabouts.js';
import type { Finding } from '../report/schema.js';
import type { Profile } from '../terrain/profile.js';
import { sayer, type Found, type Mend, type Rule, type Scene } from './rule.js';

export const RANK = { stop: 0, mend: 1, confirm: 2 } as const;

/** What the rules look at; the profiles tell where a place is found with a tape. */
export type Seen = Omit<Scene, 'say' | 'where'> & {
  readonly profileOf: (line: string) => Profile;
  readonly gatesOf: (line: string) => readonly Gate[];
  /** The plan with one line as if it stood alone; the same object while nothing in it changed. */
  readonly aloneOf: (line: string) => Plan;
};

/** A finding with what may mend it, not judged yet. */
export interface Raised {
  readonly finding: Finding;
  /** The line that its rule looked at; null where it looks at more. */
  readonly line: string | null;
  /** Null where nothing in the plan can mend it. */
  readonly mends: (() => readonly Mend[]) | null;
}

/** What the rules find of a scene, worst first. */
export interface Raiser {
  (seen: Seen): Raised[];
}

/** Makes a raiser with its own memory: a line is looked at again when something changed that its rules can see. */
export function createRaiser(rules: readonly Rule[]): Raiser {
  /** By line, what each rule of single lines found. */
  const memory = memoOn<ReadonlyMap<Rule, readonly Raised[]>>();
  const ofLine = rules.filter((rule) => !rule.whole);
  return (seen) => {
    const { plan, lines, cat, profileOf, gatesOf, aloneOf } = seen;
    const say = sayer(plan.units);
    const where = (id: string, s: number) =>
      whereWords(lines[id]!, gatesOf(id), profileOf(id), s, plan.units);
    const ids = Object.keys(lines);
    const found = ids.map((id) => {
      const alone = aloneOf(id);
      return memory.get(id, [alone, lines[id], profileOf(id), cat], () => {
        const scene = { plan: alone, cat, lines: { [id]: lines[id]! }, say, where };
        return new Map(
          ofLine.map((rule) => [
            rule,
            rule.check(scene).map((f) => raised(rule, id, f, plan.units)),
          ]),
        );
      });
    });
    memory.keep(new Set(ids));
    const scene: Scene = { ...seen, say, where };
    return rules
      .flatMap((rule) =>
        rule.whole
          ? rule.check(scene).map((f) => raised(rule, null, f, plan.units))
          : found.flatMap((of) => of.get(rule)!),
      )
      .map((r) => accepted(r, plan.accepted))
      .sort((a, b) => RANK[a.finding.kind] - RANK[b.finding.kind]);
  };
}

function raised(rule: Rule, line: string | null, found: Found, units: Plan['units']): Raised {
  const { key, mends = null, kind = rule.kind, badness = null, ...said } = found;
  const { id, cause, step, source } = rule;
  return {
    line,
    mends,
    finding: {
      id: `${id}:${key}`,
      rule: id,
      cause,
      step,
      kind,
      badness,
      ...said,
      todo: inUnits(said.todo, units),
      source: { ...source, text: inUnits(source.text, units) },
    },
  };
}

/** With what somebody said who let it be. */
function accepted(r: Raised, notes: Plan['accepted']): Raised {
  const note = notes?.[r.finding.id];
  if (!note) return r;
  const holds = !worse(note, r.finding);
  return { ...r, finding: { ...r.finding, accepted: { ...note, holds } } };
}

/** How grave a finding is, and how bad. */
type Weight = Pick<Finding, 'kind' | 'badness'>;

/** Whether a finding is graver than it was, or worse. */
export function worse(was: Weight, now: Weight): boolean {
  if (RANK[now.kind] < RANK[was.kind]) return true;
  if (now.badness === null || was.badness === null) return false;
  // A hair of it is the same: figures move a little when something else is worked out anew.
  return now.badness > was.badness + 0.01 * Math.abs(was.badness);
}
