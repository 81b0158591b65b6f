/**
 * Mends of one kind taken at once. Each was judged alone; what they bring together is judged again by all
 * rules before it is shown, and what does not go with the others is left out and said.
 */
import { patched } from '../plan/patched.js';
import type { Plan, PatchStep } from '../plan/schema.js';
import type { Finding } from '../report/schema.js';
import { RANK, worse } from './index.js';

export interface Together {
  readonly patch: readonly PatchStep[];
  /** Ids of the findings whose mends are in it. */
  readonly taken: readonly string[];
  /** What was left out, and the words why. */
  readonly left: readonly { readonly id: string; readonly why: string }[];
  /** Titles of all that goes with it, those that were to be mended among them. */
  readonly gone: readonly string[];
  /** Titles of what is new with it and milder than what goes. */
  readonly came: readonly string[];
}

/**
 * The mends of several findings as one change.
 * @param wanted findings with a mend of their own; what places posts is no such mend
 * @param before what was found of the plan as it is
 * @param findingsOf what the rules say of another plan
 */
export function takeTogether(
  wanted: readonly Finding[],
  plan: Plan,
  before: readonly Finding[],
  findingsOf: (plan: Plan) => readonly Finding[],
): Together {
  const mends = wanted.filter((f) => f.mend && f.mend.place === undefined);
  const all = judge(mends);
  if (all.why === null) return result(mends, [], all.after);
  // Something among them does not go with the rest: they are put in one after another.
  const taken: Finding[] = [];
  const left: { id: string; why: string }[] = [];
  let after = before;
  for (const f of mends) {
    const next = judge([...taken, f]);
    if (next.why === null) {
      taken.push(f);
      after = next.after;
    } else left.push({ id: f.id, why: next.why });
  }
  return result(taken, left, after);

  function judge(list: readonly Finding[]): { why: string | null; after: readonly Finding[] } {
    const after = findingsOf(patched(plan, patchOf(list)));
    const was = new Map(before.map((f) => [f.id, f]));
    const ids = new Set(list.map((f) => f.id));
    const gravest = Math.min(...list.map((f) => RANK[f.kind]));
    const still = after.find((f) => ids.has(f.id) && RANK[f.kind] <= RANK[was.get(f.id)!.kind]);
    if (still) return { why: 'It would not be enough beside the others.', after };
    const harm = after.find((f) => {
      if (f.kind === 'confirm' || RANK[f.kind] > gravest) return false;
      const old = was.get(f.id);
      return !old || worse(old, f);
    });
    return { why: harm ? `Then it would be found that “${harm.title}”.` : null, after };
  }

  function result(
    list: readonly Finding[],
    out: Together['left'],
    after: readonly Finding[],
  ): Together {
    const now = new Set(after.map((f) => f.id));
    const had = new Set(before.map((f) => f.id));
    return {
      patch: patchOf(list),
      taken: list.map((f) => f.id),
      left: out,
      gone: before.filter((f) => !now.has(f.id)).map((f) => f.title),
      came: after.filter((f) => !had.has(f.id)).map((f) => f.title),
    };
  }
}

/** The steps of several mends, each place once. */
function patchOf(list: readonly Finding[]): PatchStep[] {
  const steps = new Map<string, PatchStep>();
  for (const f of list) for (const step of f.mend!.patch) steps.set(step.path, step);
  return [...steps.values()];
}
