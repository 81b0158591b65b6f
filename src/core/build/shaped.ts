/** The tasks of a plan with what was changed of them by hand: hours, people, pieces, work of one's own, what failed. */
import { figure, type Catalogue } from '../plan/catalogue.js';
import type { BuildPlan, Plan } from '../plan/schema.js';
import { kindOf } from './kinds.js';
import { shareOf } from './parts.js';
import { longest, whole, type Task, type Wait } from './task.js';

/** What failed its inspection and is to be put right. */
export interface Failed {
  /** Of the record. */
  readonly id: string;
  readonly words: string;
  readonly line: string | null;
  readonly at_m: number | null;
}

/**
 * All that is to be done. Pieces of a split task are named `TASK#1` and so on; what waited for it waits for all of them.
 * A task's own change stands under its name, a piece's under the piece's.
 */
export function shaped(
  tasks: readonly Task[],
  plan: Pick<Plan, 'build' | 'lines'>,
  failed: readonly Failed[],
  cat: Catalogue,
): Task[] {
  const { own = {}, tasks: edits = {} } = plan.build ?? {};
  const fix = figure(cat, 'build.fixHours');
  const added = [
    ...Object.values(own).map((o) => ownTask(o, plan.lines)),
    ...failed.map((f): Task => ({ ...blank('fix', f.id, `Put right: ${f.words}`, f.line && plan.lines[f.line] ? f.line : null, f.at_m ?? 0), work_h: fix })), // prettier-ignore
  ];
  const all = [...tasks, ...added];
  const gone = new Set(all.filter((t) => edits[t.id]?.out).map((t) => t.id));
  const pieces = new Map(
    all.map((t) => [t.id, gone.has(t.id) ? [] : splitUp(edited(t, edits[t.id]), edits)]),
  );
  const before = new Map(all.map((t) => [t.id, t.after]));
  /** What a wait comes to: pieces of what was split, and for what is left out whatever it waited for. */
  const real = (w: Wait, seen: ReadonlySet<string>): Wait[] => {
    if (gone.has(w.id) && !seen.has(w.id))
      return (before.get(w.id) ?? [])
        .flatMap((v) => real(v, new Set([...seen, w.id])))
        .map((v) => ({ ...v, wait_h: v.wait_h + w.wait_h }));
    return (pieces.get(w.id) ?? []).map((p) => ({ ...w, id: p.id }));
  };
  return [...pieces.values()].flat().map((t) => {
    const all = t.after.flatMap((a) => real(a, new Set()));
    return { ...t, after: longest(all.filter((w) => w.id !== t.id)) };
  });
}

const blank = (
  kind: 'own' | 'fix',
  key: string,
  name: string,
  line: string | null,
  at_m: number,
): Omit<Task, 'work_h'> => ({
  ...whole(kind, '', null, key),
  name,
  line,
  from_m: at_m,
  to_m: at_m,
  people: kindOf(kind).people,
});

function ownTask(o: NonNullable<BuildPlan['own']>[string], lines: Plan['lines']): Task {
  const line = o.line !== undefined && lines[o.line] ? o.line : null;
  return {
    ...blank('own', o.id, o.name, line, o.at_m ?? 0),
    work_h: o.hours,
    people: o.people,
    after: (o.after ?? []).map((id) => ({ id, wait_h: 0 })),
  };
}

function edited(t: Task, edit: NonNullable<BuildPlan['tasks']>[string] | undefined): Task {
  if (!edit) return t;
  return { ...t, work_h: edit.hours ?? t.work_h, people: edit.people ?? edit.who?.length ?? t.people }; // prettier-ignore
}

function splitUp(t: Task, edits: NonNullable<BuildPlan['tasks']>): Task[] {
  const n = edits[t.id]?.split ?? 1;
  if (n === 1) return [t];
  const length = t.to_m - t.from_m;
  return Array.from({ length: n }, (_, k): Task => {
    const share: [number, number] = [k / n, (k + 1) / n];
    const piece: Task = {
      ...t,
      id: `${t.id}#${k + 1}`,
      name: `${t.name}, ${k + 1} of ${n}`,
      from_m: t.from_m + length * share[0],
      to_m: t.from_m + length * share[1],
      amounts: t.amounts.map((a) => ({ ...a, n: a.n / n, hours: a.hours / n })),
      work_h: t.work_h / n,
      parts: shareOf(t.parts, share, [t.from_m, t.to_m]),
    };
    return edited(piece, edits[piece.id]);
  });
}
