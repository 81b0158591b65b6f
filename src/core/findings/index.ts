/** The list of what the rules find: worst first, then in the order of the parts. */
import type { Gate } from '../plan/schema.js';
import { whereWords } from '../posts/whereabouts.js';
import type { Finding } from '../report/schema.js';
import type { Profile } from '../terrain/profile.js';
import { sayer, type Rule, type Scene } from './rule.js';

const RANK = { stop: 0, mend: 1, confirm: 2 } as const;

/** What the rules look at; the profiles tell where a place is found with a tape. */
export type Seen = Omit<Scene, 'say' | 'where'> & {
  readonly profileOf: (line: string) => Profile;
  readonly gatesOf: (line: string) => readonly Gate[];
};

/** Runs every rule over the scene. */
export function findingsOf(rules: readonly Rule[], seen: Seen): Finding[] {
  const { plan, lines, profileOf, gatesOf } = seen;
  const scene: Scene = {
    ...seen,
    say: sayer(plan.units),
    where: (id, s) => whereWords(lines[id]!, gatesOf(id), profileOf(id), s, plan.units),
  };
  const all = rules.flatMap((rule) =>
    rule.check(scene).map((f): Finding => ({
      id: `${rule.id}:${f.key}`,
      rule: rule.id,
      step: rule.step,
      kind: f.kind ?? rule.kind,
      title: f.title,
      why: f.why,
      todo: f.todo,
      place: f.place,
      source: { ...rule.source },
      ...(f.mend ? { mend: f.mend } : {}),
    })),
  );
  return all.sort((a, b) => RANK[a.kind] - RANK[b.kind]);
}
