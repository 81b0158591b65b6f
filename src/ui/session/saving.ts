/** Saving in the background, merging with other tabs, and what happens when changes meet. */
import type { Proposed, Saved } from '../../formats/change.js';
import { applyPatch } from '../../formats/patch.js';
import { advance, openWorker, requestReport } from './evaluation.js';
import * as outbox from './outbox.js';
import { setCommitted, url, useSession } from './state.js';
import type { Opened } from './types.js';

const { getState: get, setState: set } = useSession;
let channel: BroadcastChannel | null = null;

/** Listens for what other tabs save. */
export function listen(id: string): void {
  channel = new BroadcastChannel(`anabatic.${id}`);
  channel.onmessage = () => void catchUp();
  document.addEventListener('visibilitychange', () => {
    if (document.visibilityState === 'visible') void catchUp();
  });
}

/** Puts back what was drawn but never acknowledged. */
export function recover(id: string): void {
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

let flushing = false;
/** Sends what is pending, one after another; tries again until the server answers. */
export async function flush(): Promise<void> {
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
export async function catchUp(): Promise<void> {
  if (get().pending.length > 0) return;
  const answer = await fetch(url(`/changes?since=${get().revision}`)).catch(() => null);
  if (!answer?.ok) return;
  const news = ((await answer.json()) as Saved[]).filter((c) => c.revision > get().revision);
  if (news.length === 0 || get().pending.length > 0) return;
  // The server lists only the newest few hundred: after a longer absence the plan is taken whole.
  if (news[0]!.revision !== get().revision + 1) return reload();
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
  let plan = opened.plan;
  const kept: Proposed[] = [];
  for (const change of get().pending) {
    try {
      plan = applyPatch(plan, change.patch);
      kept.push(change);
    } catch {
      outbox.forget(get().id, change.changeId);
    }
  }
  setCommitted(plan);
  set({ revision: opened.revision, history: opened.history, pending: kept });
  await openWorker();
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
