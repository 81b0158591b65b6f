/**
 * A mend is offered only after the plan with it was judged by all rules: it silences what it promises and
 * adds nothing as grave. Where it needs something else that a rule offers, that becomes a part of it.
 */
import type { Plan, PatchStep } from '../plan/schema.js';
import { patched } from '../plan/patched.js';
import { RANK, worse, type Raised } from './index.js';
import type { Mend } from './rule.js';

/** How many further mends one may need to go with it. */
const MOST_WITH = 2;

/** What the rules say of another plan; `line`: of that line alone, where nothing else can change. */
export type Ask = (plan: Plan, line: string | null) => readonly Raised[];

/** A mend that is offered, or why none is: what the best of them would bring. */
export interface Tried {
  readonly mend: Mend | null;
  readonly withheld: string | null;
}

/**
 * The first of a finding's mends that keeps its promise, with what it needs.
 * @param raised all that was found of the plan as it is
 */
export function mendFor(
  { finding, line: own, mends }: Raised,
  plan: Plan,
  raised: readonly Raised[],
  ask: Ask,
): Tried {
  const before = new Map(raised.map((r) => [r.finding.id, r.finding]));
  let withheld: string | null = null;
  for (const mend of mends?.() ?? []) {
    // What places posts is worked out and shown before it is taken.
    if (mend.place !== undefined) return { mend, withheld: null };
    const made = complete(mend, MOST_WITH);
    if (made) return { mend: made, withheld: null };
  }
  return { mend: null, withheld };

  function complete(mend: Mend, more: number): Mend | null {
    // What a rule of the whole property found, it alone can take back.
    const line = own === null ? null : lineOf(mend.patch);
    const next = patched(plan, mend.patch);
    const refused = (why: string): null => {
      withheld ??= `“${mend.words}” is not offered: ${why}`;
      return null;
    };
    const after = ask(next, line);
    const still = after.find((r) => r.finding.id === finding.id);
    if (still && RANK[still.finding.kind] <= RANK[finding.kind])
      return refused('it would not be enough.');
    let harm = after.find(graver);
    // What can be fed or joined otherwise is asked of the whole property as well.
    if (!harm && line !== null && electric(mend.patch)) harm = ask(next, null).find(graver);
    if (!harm) return mend;
    for (const also of more > 0 ? (harm.mends?.() ?? []) : []) {
      if (also.place !== undefined) continue;
      const words = `${mend.words}, and ${also.words.charAt(0).toLowerCase()}${also.words.slice(1)}`;
      const made = complete({ words, patch: [...mend.patch, ...also.patch] }, more - 1);
      if (made) return made;
    }
    return refused(`then it would be found that “${harm.finding.title}”.`);
  }

  /** New, graver or worse than before, and as grave as what was to be mended; to confirm is no harm. */
  function graver({ finding: now }: Raised): boolean {
    if (now.id === finding.id || now.kind === 'confirm' || RANK[now.kind] > RANK[finding.kind])
      return false;
    const was = before.get(now.id);
    return !was || worse(was, now);
  }
}

/** The one line that a patch changes, where it leaves its shape alone; else null. */
function lineOf(patch: readonly PatchStep[]): string | null {
  const ids = new Set(
    patch.map(({ path }) => /^\/lines\/([^/]+)\/(?!vertices\/\d+\/[en]$)/.exec(path)?.[1] ?? null),
  );
  const [id] = ids;
  return ids.size === 1 && id ? id : null;
}

/** Whether a patch can change which strands carry the pulse. */
const electric = (patch: readonly PatchStep[]): boolean =>
  patch.some(({ path }) => /^\/lines\/[^/]+\/strands/.test(path));
