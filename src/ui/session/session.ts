/**
 * One open property in one tab: the plan as the user sees it, saved change by change, evaluated in a
 * worker. Data flows one way: commit -> plan -> worker -> report, and commit -> outbox -> server.
 */
import * as Comlink from 'comlink';
import { create } from 'zustand';
import { groundOf, type Ground } from '../../core/terrain/ground.js';
import type { Grid, PatchStep, Plan } from '../../core/plan/schema.js';
import type { Report } from '../../core/report/schema.js';
import { applyPatch, edit } from '../../formats/patch.js';
import type { EvaluateApi } from '../../workers/evaluate.worker.js';
import { stacksOf } from './history.js';
import * as outbox from './outbox.js';
import type { Conflict, Opened, Proposed, Saved } from './types.js';

export type SaveState = 'saved' | 'saving' | 'waiting';

export interface Session {
  readonly id: string;
  /** The plan as it is drawn: with what is being dragged right now. */
  readonly plan: Plan;
  readonly ground: Ground;
  readonly grid: Grid | null;
  readonly report: Report | null;
  readonly took_ms: number;
  readonly save: SaveState;
  readonly savedAt: string | null;
  readonly revision: number;
  readonly history: readonly Saved[];
  readonly pending: readonly Proposed[];
  readonly conflict: Conflict | null;
  /** What was refused, in words; nothing was changed. */
  readonly refused: string | null;
}

export const useSession = create<Session>(() => ({}) as Session);
const { getState: get, setState: set } = useSession;

const tab = crypto.randomUUID();
let committed: Plan;
let worker: Comlink.Remote<EvaluateApi> | null = null;
let channel: BroadcastChannel | null = null;

const url = (rest = ''): string => `/api/properties/${get().id}${rest}`;

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
  committed = opened.plan;
  set({
    id,
    plan: opened.plan,
    ground,
    grid,
    report: null,
    took_ms: 0,
    save: 'saved',
    savedAt: opened.history.at(-1)?.at ?? null,
    revision: opened.revision,
    history: opened.history,
    pending: [],
    conflict: null,
    refused: null,
  });
  worker = Comlink.wrap<EvaluateApi>(
    new Worker(new URL('../../workers/evaluate.worker.ts', import.meta.url), { type: 'module' }),
  );
  await worker.open(opened.plan, ground);
  channel = new BroadcastChannel(`anabatic.${id}`);
  channel.onmessage = () => void catchUp();
  document.addEventListener('visibilitychange', () => {
    if (document.visibilityState === 'visible') void catchUp();
  });
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

/** Puts back what was drawn but never acknowledged. */
function recover(id: string): void {
  for (const change of outbox.left(id)) {
    if (get().history.some((h) => h.changeId === change.changeId)) {
      outbox.forget(id, change.changeId);
      continue;
    }
    try {
      advance(change.patch);
    } catch {
      // It no longer fits what the server has: the server will say so, and both are shown.
    }
    set((s) => ({ pending: [...s.pending, change], save: 'saving' }));
  }
  void flush();
}

/** Takes a patch into the committed plan, the shown plan and the worker. */
function advance(patch: PatchStep[]): void {
  committed = applyPatch(committed, patch);
  set({ plan: committed });
  void worker?.patch(patch);
}

/** Makes a change: shown and evaluated at once, saved in the background. */
export function commit(words: string, recipe: (draft: Plan) => void): void {
  const made = edit(committed, recipe);
  if (made.patch.length === 0) {
    set({ plan: committed });
    requestReport([]);
    return;
  }
  send({ kind: 'do', words, patch: made.patch, inverse: made.inverse });
}

/** Makes a change that is given as a patch, such as the mend of a finding. */
export function commitPatch(words: string, patch: PatchStep[]): void {
  commit(words, (draft) => {
    const next = applyPatch(committed, patch);
    // Only the touched tables are written, so that the patch stays small.
    for (const key of Object.keys(next) as (keyof Plan)[]) {
      if (next[key] !== committed[key]) assignTable(draft, next, key);
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
  const from = committed[key] as Record<string, unknown>;
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
    set({ plan: committed });
    requestReport([]);
    return;
  }
  const made = edit(committed, recipe);
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

const stacks = () => stacksOf([...get().history, ...get().pending]);
export const canUndo = (s: Session): boolean =>
  stacksOf([...s.history, ...s.pending]).undo.length > 0;
export const canRedo = (s: Session): boolean =>
  stacksOf([...s.history, ...s.pending]).redo.length > 0;

/** Takes the newest change back. */
export function undo(): void {
  const last = stacks().undo.at(-1);
  if (last)
    send({ kind: 'undo', words: `undid: ${last.words}`, patch: last.inverse, inverse: last.patch });
}

/** Makes the change again that was taken back last. */
export function redo(): void {
  const next = stacks().redo.at(-1);
  if (next)
    send({ kind: 'redo', words: `redid: ${next.words}`, patch: next.patch, inverse: next.inverse });
}

let flushing = false;
/** Sends what is pending, one after another; tries again until the server answers. */
async function flush(): Promise<void> {
  if (flushing) return;
  flushing = true;
  try {
    for (;;) {
      const next = get().pending[0];
      if (!next || get().conflict) break;
      const answer = await post(next);
      if (!answer) {
        set({ save: 'waiting' });
        await new Promise((wake) => setTimeout(wake, 1500));
        continue;
      }
      await settle(next, answer);
    }
  } finally {
    flushing = false;
  }
  if (get().pending.length === 0) set({ save: 'saved' });
}

async function post(change: Proposed): Promise<Response | null> {
  try {
    const answer = await fetch(url('/changes'), {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(change),
      signal: AbortSignal.timeout(10_000),
    });
    return answer.status >= 500 ? null : answer;
  } catch {
    return null;
  }
}

async function settle(change: Proposed, answer: Response): Promise<void> {
  const drop = () => {
    outbox.forget(get().id, change.changeId);
    set((s) => ({ pending: s.pending.filter((p) => p.changeId !== change.changeId) }));
  };
  if (answer.status === 409) {
    const { theirs, revision } = (await answer.json()) as { theirs: Saved[]; revision: number };
    set({ conflict: { mine: change, theirs, revision }, save: 'waiting' });
    return;
  }
  if (!answer.ok) {
    const { error } = (await answer.json().catch(() => ({ error: 'the server refused it' }))) as {
      error: string;
    };
    drop();
    await reload();
    set({ refused: `Not taken (${change.words}): ${error}` });
    return;
  }
  const saved = (await answer.json()) as { revision: number; at: string; others: Saved[] };
  drop();
  const known = new Set(get().history.map((h) => h.revision));
  const news = saved.others.filter((o) => !known.has(o.revision) && o.revision < saved.revision);
  for (const other of news) advance(other.patch);
  set((s) => ({
    history: [...s.history, ...news, { ...change, revision: saved.revision, at: saved.at }].sort(
      (a, b) => a.revision - b.revision,
    ),
    revision: Math.max(s.revision, saved.revision),
    savedAt: saved.at,
  }));
  channel?.postMessage(saved.revision);
  if (news.length) requestReport([]);
}

/** Fetches what other tabs saved since. */
async function catchUp(): Promise<void> {
  if (get().pending.length > 0) return;
  const answer = await fetch(url(`/changes?since=${get().revision}`)).catch(() => null);
  if (!answer?.ok) return;
  const news = ((await answer.json()) as Saved[]).filter((c) => c.revision > get().revision);
  if (news.length === 0 || get().pending.length > 0) return;
  try {
    for (const change of news) advance(change.patch);
  } catch {
    await reload();
    return;
  }
  set((s) => ({
    history: [...s.history, ...news],
    revision: news.at(-1)!.revision,
    savedAt: news.at(-1)!.at,
  }));
  requestReport([]);
}

/** Takes the server's plan again and puts what is still pending on top of it. */
async function reload(): Promise<void> {
  const answer = await fetch(url()).catch(() => null);
  if (!answer?.ok) return;
  const opened = (await answer.json()) as Opened;
  committed = opened.plan;
  const kept: Proposed[] = [];
  for (const change of get().pending) {
    try {
      committed = applyPatch(committed, change.patch);
      kept.push(change);
    } catch {
      outbox.forget(get().id, change.changeId);
    }
  }
  set({ plan: committed, revision: opened.revision, history: opened.history, pending: kept });
  await worker?.open(committed, get().ground);
  requestReport([]);
}

/** Ends a conflict: mine goes on top of theirs, or is given up. */
export async function resolveConflict(keepMine: boolean): Promise<void> {
  const { conflict, id } = get();
  if (!conflict) return;
  outbox.forget(id, conflict.mine.changeId);
  const rest = get().pending.filter((p) => p.changeId !== conflict.mine.changeId);
  // Taken again on the newest revision, under a new name: the old one was refused.
  const again: Proposed = {
    ...conflict.mine,
    changeId: crypto.randomUUID(),
    base: conflict.revision,
  };
  if (keepMine) outbox.keep(id, again);
  set({ pending: keepMine ? [again, ...rest] : rest, conflict: null, save: 'saving' });
  await reload();
  void flush();
}

/** Puts another ground under the property. */
export async function changeGround(ground: Plan['ground'], words: string): Promise<void> {
  const grid = await fetchGrid({ ...committed, ground });
  commit(words, (draft) => {
    draft.ground = ground;
  });
  const now = groundFor(committed, grid);
  set({ grid, ground: now });
  await worker?.open(committed, now);
  requestReport([]);
}

let running = false;
let wanted: PatchStep[] | null = null;
/** Asks for a report; while one is being worked out only the newest wish is kept. */
function requestReport(patch: PatchStep[]): void {
  wanted = patch;
  if (!running) void evaluateLoop();
}

async function evaluateLoop(): Promise<void> {
  running = true;
  while (wanted && worker) {
    const patch = wanted;
    wanted = null;
    try {
      const change = await worker.evaluate(patch);
      if (!change) continue;
      const before = get().report?.lines ?? {};
      const lines = Object.fromEntries(
        Object.entries(change.lines).map(([id, line]) => [
          id,
          line === 'same' ? before[id]! : line,
        ]),
      );
      set({ report: { ...change.report, lines }, took_ms: change.took_ms });
    } catch (error) {
      set({ refused: `This could not be worked out: ${(error as Error).message}` });
    }
  }
  running = false;
}

export const dismissRefused = (): void => set({ refused: null });
