/**
 * One open property in one tab. Data flows one way: commit -> plan -> worker -> report, and
 * commit -> outbox -> server.
 */
import { memoLast } from '../../core/base/memo.js';
import type { Grid, PatchStep, Plan } from '../../core/plan/schema.js';
import { groundOf, type Ground } from '../../core/terrain/ground.js';
import type { Proposed } from '../../formats/change.js';
import { applyPatch, edit } from '../../formats/patch.js';
import { advance, openWorker, requestReport } from './evaluation.js';
import { stacksOf } from './history.js';
import * as outbox from './outbox.js';
import { flush, listen, recover } from './saving.js';
import { committed, setCommitted, tab, useSession, type Session } from './state.js';
import type { Opened } from './types.js';

export { useSession } from './state.js';
export { resolveConflict } from './saving.js';
export { watchChoices } from './evaluation.js';

const { getState: get, setState: set } = useSession;

/** Opens a property: plan, ground, worker, and changes that an earlier tab could not save. */
export async function openSession(id: string): Promise<void> {
  const answer = await fetch(`/api/properties/${id}`);
  if (!answer.ok)
    throw new Error(
      answer.status === 404 ? 'There is no such property.' : 'The server did not answer.',
    );
  const opened = (await answer.json()) as Opened;
  const grid = await fetchGrid(opened.plan);
  const ground = groundFor(opened.plan, grid);
  set({
    id,
    plan: opened.plan,
    ground,
    grid,
    report: null,
    choices: null,
    took_ms: 0,
    save: 'saved',
    savedAt: opened.history.at(-1)?.at ?? null,
    revision: opened.revision,
    history: opened.history,
    pending: [],
    conflict: null,
    refused: null,
  });
  setCommitted(opened.plan);
  await openWorker();
  listen(id);
  recover(id);
  requestReport([]);
}

async function fetchGrid(plan: Plan): Promise<Grid | null> {
  if (plan.ground.kind === 'flat') return null;
  const answer = await fetch(`/api/grids/${plan.ground.id}`);
  if (!answer.ok) throw new Error('The ground of this property could not be loaded.');
  return (await answer.json()) as Grid;
}

const groundFor = (plan: Plan, grid: Grid | null): Ground =>
  groundOf(plan, plan.ground.kind === 'grid' && grid ? { [plan.ground.id]: grid } : {});

/** Makes a change: shown and evaluated at once, saved in the background. */
export function commit(words: string, recipe: (draft: Plan) => void): void {
  const made = edit(committed(), recipe);
  if (made.patch.length === 0) {
    set({ plan: committed() });
    requestReport([]);
    return;
  }
  send({ kind: 'do', words, patch: made.patch, inverse: made.inverse });
}

/** Makes a change that is given as a patch, such as the mend of a finding. */
export function commitPatch(words: string, patch: PatchStep[]): void {
  commit(words, (draft) => {
    const next = applyPatch(committed(), patch);
    // Only the touched tables are written, so that the patch stays small.
    for (const key of Object.keys(next) as (keyof Plan)[]) {
      if (next[key] !== committed()[key]) assignTable(draft, next, key);
    }
  });
}

function assignTable<K extends keyof Plan>(draft: Plan, next: Plan, key: K): void {
  const table = draft[key];
  const wanted = next[key];
  if (typeof table !== 'object' || table === null || Array.isArray(table)) {
    draft[key] = wanted;
    return;
  }
  const from = committed()[key] as Record<string, unknown>;
  const to = wanted as Record<string, unknown>;
  const into = table as Record<string, unknown>;
  for (const k of new Set([...Object.keys(from), ...Object.keys(to)])) {
    if (to[k] === from[k]) continue;
    if (k in to) into[k] = to[k];
    else delete into[k];
  }
}

/** Shows a change that is still in the hand, without making it; null lets it go. */
export function preview(recipe: ((draft: Plan) => void) | null): void {
  if (!recipe) {
    set({ plan: committed() });
    requestReport([]);
    return;
  }
  const made = edit(committed(), recipe);
  set({ plan: made.next });
  requestReport(made.patch);
}

function send(
  change: Pick<Proposed, 'kind' | 'words' | 'patch' | 'inverse'> & { of?: number },
): void {
  const proposed: Proposed = {
    ...change,
    changeId: crypto.randomUUID(),
    tab,
    base: get().revision,
  };
  outbox.keep(get().id, proposed);
  advance(change.patch);
  set((s) => ({ pending: [...s.pending, proposed], save: 'saving', refused: null }));
  requestReport([]);
  void flush();
}

// Asked at every frame of a drag, while the history stays the same.
const stacksFor = memoLast((history: Session['history'], pending: Session['pending']) =>
  stacksOf([...history, ...pending]),
);
const stacks = (s: Session) => stacksFor(s.history, s.pending);
export const canUndo = (s: Session): boolean => stacks(s).undo.length > 0;
export const canRedo = (s: Session): boolean => stacks(s).redo.length > 0;

/** Takes the newest change back. */
export function undo(): void {
  const last = stacks(get()).undo.at(-1);
  if (last)
    send({ kind: 'undo', words: `undid: ${last.words}`, patch: last.inverse, inverse: last.patch });
}

/** Makes the change again that was taken back last. */
export function redo(): void {
  const next = stacks(get()).redo.at(-1);
  if (next)
    send({ kind: 'redo', words: `redid: ${next.words}`, patch: next.patch, inverse: next.inverse });
}

/** Puts another ground under the property. */
export async function changeGround(ground: Plan['ground'], words: string): Promise<void> {
  const grid = await fetchGrid({ ...committed(), ground });
  commit(words, (draft) => {
    draft.ground = ground;
  });
  const now = groundFor(committed(), grid);
  set({ grid, ground: now });
  await openWorker();
  requestReport([]);
}

/** Puts the notice of a refused change away. */
export const dismissRefused = (): void => set({ refused: null });
/** Says why something cannot be done; nothing was changed. */
export const refuse = (words: string): void => set({ refused: words });
