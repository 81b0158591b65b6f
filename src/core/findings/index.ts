/** The list of what the rules find: worst first, then in the order of the parts. */
import type { Finding } from '../report/schema.js';
import { sayer, type Rule, type Scene } from './rule.js';

const RANK = { stop: 0, mend: 1, confirm: 2 } as const;

/** Runs every rule over the scene. */
export function findingsOf(rules: readonly Rule[], seen: Omit<Scene, 'say'>): Finding[] {
  const scene: Scene = { ...seen, say: sayer(seen.plan.units) };
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
