/** What the rules find: worst first, then in the order of the parts. */
import { inUnits } from '../base/prose.js';
import type { Gate } from '../plan/schema.js';
import { whereWords } from '../posts/whereabouts.js';
import type { Finding } from '../report/schema.js';
import type { Profile } from '../terrain/profile.js';
import { sayer, type Mend, type Rule, type Scene } from './rule.js';

export const RANK = { stop: 0, mend: 1, confirm: 2 } as const;

/** What the rules look at; the profiles tell where a place is found with a tape. */
export type Seen = Omit<Scene, 'say' | 'where'> & {
  readonly profileOf: (line: string) => Profile;
  readonly gatesOf: (line: string) => readonly Gate[];
};

/** A finding with what may mend it, not judged yet. */
export interface Raised {
  readonly finding: Finding;
  /** Its rule looks at more than one line. */
  readonly whole: boolean;
  /** Null where nothing in the plan can mend it. */
  readonly mends: (() => readonly Mend[]) | null;
}

/** Runs rules over the scene. */
export function raise(rules: readonly Rule[], seen: Seen): Raised[] {
  const { plan, lines, profileOf, gatesOf } = seen;
  const scene: Scene = {
    ...seen,
    say: sayer(plan.units),
    where: (id, s) => whereWords(lines[id]!, gatesOf(id), profileOf(id), s, plan.units),
  };
  const all = rules.flatMap((rule) => {
    const source = { ...rule.source, text: inUnits(rule.source.text, plan.units) };
    return rule
      .check(scene)
      .map(({ key, mends = null, kind = rule.kind, badness, ...said }): Raised => {
        const id = `${rule.id}:${key}`;
        const found = {
          id,
          rule: rule.id,
          cause: rule.cause,
          step: rule.step,
          kind,
          badness: badness ?? null,
        };
        const accepted = plan.accepted?.[id];
        return {
          whole: rule.whole ?? false,
          mends,
          finding: {
            ...found,
            ...said,
            todo: inUnits(said.todo, plan.units),
            source,
            ...(accepted ? { accepted: { ...accepted, holds: !worse(accepted, found) } } : {}),
          },
        };
      });
  });
  return all.sort((a, b) => RANK[a.finding.kind] - RANK[b.finding.kind]);
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
