/**
 * One open property in one tab. Data flows one way: an event into the reducer, the next book out of
 * it, and its effects carried out here: kept in the browser, posted, followed by the worker.
 */
import { memoLast } from '../core/base/memo.js';
import type { Grid, PatchStep, Plan } from '../core/plan/schema.js';
import { groundOf, type Ground } from '../core/terrain/ground.js';
import type { News, Proposed } from '../formats/change.js';
import { applyPatch, edit } from '../formats/patch.js';
import { nothingAsked } from './asking.js';
import {
  beginAtRest,
  beginsWith,
  followPatch,
  loadWorker,
  openWorker,
  requestReport,
  workedBefore,
} from './evaluation.js';
import { keepProperty } from './field.js';
import { followMoves } from './live.js';
import { groundGrid, openedProperty } from './open.js';
import { openOutbox, type Outbox } from './outbox.js';
import { useReach } from './reach.js';
import { sendPhotosLeft } from './photos.js';
import { sendLeft } from './records.js';
import { openBook, saveState, stacksNow, type Effect, type Event } from './book.js';
import { take } from './reducer.js';
import { again, pause, changeNamed, newsSince, postChange } from './server.js';
import { committed, useSession, type Session } from './state.js';
import { mayNot, useVisitor } from './visitor.js';

export { drawn, useSession } from './state.js';
export { mendTogether, watchChoices } from './evaluation.js';

const { getState: get, setState: set } = useSession;

/** Names this tab to the server, so that its own changes never stand in its own way. */
const tab = crypto.randomUUID();
let outbox: Outbox;
let channel: BroadcastChannel | null = null;

/** So long the page has to itself before figures that stand there are worked out anew, ms. */
const AFTER_MS = 700;
/** So long it leaves the processor to what is asked on the step that was opened, ms. */
const MOST_AFTER_MS = 4000;

/** Opens a property: plan, ground, worker, and changes that an earlier tab could not save. */
export async function openSession(id: string): Promise<void> {
  const before = workedBefore(id);
  // While the plan is being fetched: one that was never looked at here has to be worked out.
  void before.then((kept) => kept ?? loadWorker());
  outbox = openOutbox(id);
  const left = await outbox.left<Proposed>('changes');
  const mine = left.map((w) => w.id).slice(-200);
  const opened = await openedProperty(id, mine);
  const grid = await groundGrid(opened.plan);
  const kept = left.length > 0 ? null : await before;
  const report = kept?.plan === JSON.stringify(opened.plan) ? kept.report : null;
  beginsWith(report && opened.plan);
  set({
    id,
    plan: opened.plan,
    held: null,
    book: openBook(opened, tab),
    ground: groundFor(opened.plan, grid),
    grid,
    report,
    choices: null,
    took_ms: 0,
    behind: false,
    refused: null,
    told: null,
  });
  // What is there is shown while the worker is still on its way; where its figures are there too, it begins after them.
  if (!report) void openWorker();
  listen(id);
  keepUp();
  for (const changeId of opened.landed) void outbox.forget('changes', changeId);
  const changes = left.filter((w) => !opened.landed.includes(w.id)).map((w) => w.body);
  happen({ type: 'recovered', changes });
  void sendLeft(outbox);
  void sendPhotosLeft();
  if (report) setTimeout(() => void nothingAsked(MOST_AFTER_MS).then(beginAtRest), AFTER_MS);
  else requestReport([]);
}

/** Takes an event in and carries out what it asks for. */
export function happen(event: Event): void {
  const before = get().book;
  const [book, effects] = take(before, event);
  if (book !== before)
    set(book.plan === before.plan ? { book } : { book, plan: book.plan, held: null });
  for (const effect of effects) void carryOut(effect);
  if (effects.some((e) => e.do === 'follow' || e.do === 'replace')) requestReport([]);
  if (book.plan.ground !== before.plan.ground) void standOn(book.plan.ground);
}

/** Takes another ground under the plan: laid here, in another tab, or brought back by an undo. */
async function standOn(under: Plan['ground']): Promise<void> {
  try {
    const grid = await groundGrid(committed());
    // It has moved on since: what came later brings its own.
    if (committed().ground !== under) return;
    set({ grid, ground: groundFor(committed(), grid) });
    await openWorker();
    requestReport([]);
  } catch (error) {
    refuse((error as Error).message);
  }
}

async function carryOut(effect: Effect): Promise<void> {
  switch (effect.do) {
    case 'keep':
      return happen({
        type: 'kept',
        ok: await outbox.keep('changes', effect.change.changeId, effect.change),
      });
    case 'keepAnew':
      return outbox.replace('changes', effect.change.changeId, effect.change);
    case 'forget':
      // Never out of the outbox before the plan that has it is kept: without the server it would be nowhere.
      await keepUp();
      return outbox.forget('changes', effect.changeId);
    case 'post':
      return happen(await postChange(effect.change));
    case 'retryLater':
      await pause();
      return happen({ type: 'retry' });
    case 'fetchNews':
      return fetchNews(effect.since);
    case 'fetchBody': {
      const found = await again(() => changeNamed(effect.of));
      const { patch, inverse } = found;
      return happen({ type: 'body', of: effect.of, patch, inverse });
    }
    case 'announce':
      channel?.postMessage(effect.revision);
      return;
    case 'follow':
      return followPatch(effect.patch);
    case 'replace':
      return openWorker();
  }
}

/** How long what is kept may lag behind while changes come one after another, ms. */
const LAG_MS = 1000;
let keeping: Promise<unknown> | null = null;

/** Keeps the plan as the server has it, to go on without: once for all that come meanwhile. */
function keepUp(): Promise<unknown> {
  keeping ??= new Promise((wake) => setTimeout(wake, LAG_MS)).then(async () => {
    // A large plan takes a moment to be copied: not while something is in the hand.
    if ('requestIdleCallback' in globalThis)
      await new Promise<void>((wake) => requestIdleCallback(() => wake(), { timeout: 2000 }));
    keeping = null;
    const { id, book } = get();
    const { name, role } = useVisitor.getState();
    const asOf = useReach.getState().asOf ?? new Date().toISOString();
    return keepProperty({ id, asOf, visitor: { name, role }, plan: book.base, revision: book.revision, at: book.savedAt, stacks: book.stacks }); // prettier-ignore
  });
  return keeping;
}

let fetching = false;
let wanted = false;
/** Fetches what others saved since; one question at a time, asked until it is answered, and again if it was wanted meanwhile. */
async function fetchNews(from: number): Promise<void> {
  wanted = true;
  if (fetching) return;
  fetching = true;
  for (let since = from; wanted; since = get().book.revision) {
    wanted = false;
    const asked = since;
    const found = await again(() => newsSince(asked));
    useReach.setState({ asOf: null });
    happen({ type: 'news', ...found });
    void keepUp();
  }
  fetching = false;
}

/** Takes in what the server tells by itself. */
function heard(news: News): void {
  happen({ type: 'news', ...news });
  void keepUp();
}

const catchUp = () => void fetchNews(get().book.revision);

/** Listens for what other tabs save; a property opened later is listened to instead. */
function listen(id: string): void {
  channel?.close();
  channel = new BroadcastChannel(`anabatic.${id}`);
  channel.onmessage = catchUp;
  followMoves(id, heard, catchUp);
  document.removeEventListener('visibilitychange', whenSeen);
  document.addEventListener('visibilitychange', whenSeen);
  removeEventListener('beforeunload', holdBack);
  addEventListener('beforeunload', holdBack);
}

const whenSeen = () => {
  if (document.visibilityState === 'visible') catchUp();
};

/** Only what lives in this tab alone is worth a question; all else waits in the browser. */
const holdBack = (event: BeforeUnloadEvent) => {
  const { full, pending } = get().book;
  if (full && pending.length > 0) event.preventDefault();
};

const groundFor = (plan: Plan, grid: Grid | null): Ground =>
  groundOf(plan, plan.ground.kind === 'grid' && grid ? { [plan.ground.id]: grid } : {});

/** Says so where whoever works here may not change anything. */
function notAllowed(): boolean {
  const why = mayNot();
  if (why) refuse(why);
  return why !== null;
}

/** Makes a change: shown and evaluated at once, saved in the background. */
export function commit(words: string, recipe: (draft: Plan) => void): void {
  const { patch, inverse } = edit(committed(), recipe);
  if (patch.length === 0) return preview(null);
  if (notAllowed()) return preview(null);
  set({ refused: null, told: null });
  happen({ type: 'edit', changeId: crypto.randomUUID(), words, patch, inverse });
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
    set({ plan: committed(), held: null });
    requestReport([]);
    return;
  }
  const { next, patch } = edit(committed(), recipe);
  // Asked before it is drawn: the worker is about it meanwhile.
  requestReport(patch, next);
  set({ held: next });
}

// Asked at every frame of a drag, while the history stays the same.
const stacksFor = memoLast(
  (stacks: Session['book']['stacks'], pending: Session['book']['pending']) =>
    stacksNow({ stacks, pending }),
);
const stacks = ({ book }: Session) => stacksFor(book.stacks, book.pending);
export const canUndo = (s: Session): boolean => stacks(s).undo.length > 0;
export const canRedo = (s: Session): boolean => stacks(s).redo.length > 0;

/** Takes the newest change back. */
export const undo = (): void => {
  if (notAllowed()) return;
  set({ told: null });
  happen({ type: 'undo', changeId: crypto.randomUUID() });
};
/** Makes the change again that was taken back last. */
export const redo = (): void => {
  if (!notAllowed()) happen({ type: 'redo', changeId: crypto.randomUUID() });
};

/** Ends a conflict: mine goes on top of theirs, or is given up. */
export const resolveConflict = (keepMine: boolean): void => happen({ type: 'resolve', keepMine });

/** Whether all that was drawn is at the server. */
export const saveOf = (s: Session) => saveState(s.book);

/** Puts another ground under the property. @throws Error in words when it cannot be had */
export async function changeGround(ground: Plan['ground'], words: string): Promise<void> {
  await groundGrid({ ...committed(), ground });
  commit(words, (draft) => {
    draft.ground = ground;
  });
}

/** Says what was done just now; it can be taken back beside the words. */
export const tell = (words: string | null): void => set({ told: words });

/** Puts the notice of what could not be done away. */
export const dismissRefused = (): void => set({ refused: null });
/** Says why something cannot be done; nothing was changed. */
export const refuse = (words: string): void => set({ refused: words });
