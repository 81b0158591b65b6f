/** Tabs of a property against a server, with the net and the storage of browsers between: what the tests of saving play. */
import fc from 'fast-check';
import { expect } from 'vitest';
import type { Plan } from '../../src/core/plan/schema.js';
import type { Proposed, Saved } from '../../src/formats/change.js';
import { inTheWay } from '../../src/formats/merge.js';
import { applyPatch, edit } from '../../src/formats/patch.js';
import { stacksOf } from '../../src/formats/stacks.js';
import { openBook, saveState, type Book, type Effect, type Event } from '../../src/session/book.js';
import { take } from '../../src/session/reducer.js';
import { line, plan } from './scene.js';

let ids = 0;
export const nextId = () => `change-${++ids}`;
export const start = (): Plan => plan(['a', 'b', 'c'].map((id, k) => line(id, [[0, 50 * k], [100, 50 * k]]))); // prettier-ignore

/** What a tab's session asks of a server. */
export interface Server {
  readonly plan: Plan;
  readonly history: readonly Saved[];
  post(change: Proposed): Event | Promise<Event>;
  newsSince(since: number): { changes: readonly Saved[]; more: boolean };
  open(mine: readonly string[]): Parameters<typeof openBook>[0] & { landed: readonly string[] };
}

/** What a server has: the plan, and the changes that it took. */
export interface Kept {
  plan: Plan;
  readonly history: Saved[];
}

/** A server by how it takes a change. */
export function serverBy(take: (change: Proposed, kept: Kept) => Event | Promise<Event>): Server {
  const kept: Kept = { plan: start(), history: [] };
  const { history } = kept;
  return {
    get plan() {
      return kept.plan;
    },
    history,
    post: (change) => take(change, kept),
    newsSince: (since: number) => ({
      changes: history.filter((h) => h.revision > since).slice(0, 3),
      more: history.filter((h) => h.revision > since).length > 3,
    }),
    open(mine: readonly string[]) {
      return {
        revision: history.length,
        plan: kept.plan,
        at: null,
        stacks: stacksOf(history),
        landed: mine.filter((id) => history.some((h) => h.changeId === id)),
      };
    },
  };
}

/** The server as store.ts has it, without its database. */
export const server = () =>
  serverBy((change, kept): Event => {
    const { changeId } = change;
    const { history } = kept;
    const again = history.find((h) => h.changeId === changeId);
    const others = history.filter((h) => h.revision > change.base && h.tab !== change.tab);
    if (again)
      return { type: 'acked', changeId, revision: again.revision, at: '', others: others.filter((o) => o.revision < again.revision) }; // prettier-ignore
    const theirs = inTheWay(change, others);
    const revision = history.length;
    if (theirs.length > 0) return { type: 'met', changeId, revision, theirs, others };
    let next: Plan;
    try {
      next = applyPatch(kept.plan, change.patch);
    } catch {
      return { type: 'refused', changeId, status: 422, reason: 'does not fit' };
    }
    // The store would check the plan here: a name of 81 letters stands for any unsound one.
    if (Object.values(next.lines).some((l) => l.name.length > 80))
      return { type: 'refused', changeId, status: 422, reason: 'name too long' };
    kept.plan = next;
    history.push({ ...change, revision: revision + 1, at: 'then' });
    return { type: 'acked', changeId, revision: revision + 1, at: 'then', others };
  });

/** A browser with its storage, and the tab that is open in it. */
export function browser(of: Server, name: string) {
  const kept: Proposed[] = [];
  let full = false;
  let tabs = 0;
  let book: Book;
  /** Effects that wait to be carried out, in any order that the net may choose. */
  let waiting: Effect[] = [];
  /** Every change that this browser's user ever made. */
  const made = new Map<string, Proposed>();
  /** What the user was told was not taken, or gave up. */
  const told = new Set<string>();
  let follower: Plan;

  const happen = (event: Event) => {
    const [next, effects] = take(book, event);
    for (const r of next.refusals) told.add(r.change.changeId);
    book = next;
    for (const effect of effects) {
      if (effect.do === 'follow') follower = applyPatch(follower, effect.patch);
      else if (effect.do === 'replace') follower = book.plan;
      else if (effect.do === 'keep') {
        made.set(effect.change.changeId, effect.change);
        if (!full) kept.push(effect.change);
        happen({ type: 'kept', ok: !full });
      } else if (effect.do === 'keepAnew') {
        const at = kept.findIndex((k) => k.changeId === effect.change.changeId);
        if (at >= 0) kept[at] = effect.change;
      } else if (effect.do === 'forget') {
        const at = kept.findIndex((k) => k.changeId === effect.changeId);
        if (at >= 0) kept.splice(at, 1);
      } else waiting.push(effect);
    }
  };
  const open = () => {
    const opened = of.open(kept.map((k) => k.changeId));
    book = openBook(opened, `${name}-${++tabs}`);
    follower = book.plan;
    waiting = [];
    for (const id of opened.landed)
      kept.splice(
        kept.findIndex((k) => k.changeId === id),
        1,
      );
    happen({ type: 'recovered', changes: [...kept] });
  };
  open();
  return {
    get book() {
      return book;
    },
    get follower() {
      return follower;
    },
    kept,
    made,
    told,
    happen,
    open,
    fill: (on: boolean) => (full = on),
    get waits() {
      return waiting.length;
    },
    edit(recipe: (draft: Plan) => void) {
      const { patch, inverse } = edit(book.plan, recipe);
      if (patch.length > 0)
        happen({ type: 'edit', changeId: nextId(), words: 'w', patch, inverse });
    },
    /** Carries the k-th waiting effect out; `net` says how it goes. */
    carry(k: number, net: 'up' | 'down' | 'lost' | 403 | 413 | 429): void | Promise<void> {
      const [effect] = waiting.splice(k % waiting.length, 1);
      if (!effect) return;
      if (effect.do === 'post') {
        const { changeId } = effect.change;
        if (net === 'down') return happen({ type: 'unreachable', changeId });
        if (typeof net === 'number') return happen({ type: 'refused', changeId, status: net, reason: 'no' }); // prettier-ignore
        const answered = (answer: Event) => {
          // What one made oneself stands in nobody's way, in whichever tab it was made.
          if (answer.type === 'met') expect(answer.theirs.filter((c) => made.has(c.changeId))).toEqual([]); // prettier-ignore
          // The server has it, and its answer never arrives.
          happen(net === 'lost' ? { type: 'unreachable', changeId } : answer);
        };
        const answer = of.post(effect.change);
        if (answer instanceof Promise) return answer.then(answered);
        answered(answer);
      } else if (effect.do === 'retryLater') happen({ type: 'retry' });
      else if (effect.do === 'fetchNews') {
        if (net === 'up') happen({ type: 'news', ...of.newsSince(effect.since) });
        else waiting.push(effect);
      } else if (effect.do === 'fetchBody') {
        const found = of.history.find((h) => h.changeId === effect.of)!;
        happen({ type: 'body', of: effect.of, patch: found.patch, inverse: found.inverse });
      }
    },
  };
}

export const rename = (id: string, name: string) => (d: Plan) => {
  if (d.lines[id]) d.lines[id].name = name;
};
export const nobody = (id: string) => (d: Plan) => void delete d.lines[id];

/** Lets everything run to its end with the net up; conflicts are ended one way or the other. */
export async function settle(tabs: readonly ReturnType<typeof browser>[]) {
  for (let k = 0; k < 400; k++) {
    for (const t of tabs) {
      if (t.book.conflict && !t.book.conflict.chosen)
        t.happen({ type: 'resolve', keepMine: k % 2 === 0 });
      if (t.book.held) t.happen({ type: 'retry' });
      if (t.waits > 0) await t.carry(0, 'up');
      else t.happen({ type: 'news', changes: [], more: false });
    }
  }
  for (const t of tabs) {
    for (;;) {
      const page = t.book.revision;
      t.happen({ type: 'news', ...serverOf.get(t)!.newsSince(page) });
      if (t.book.revision === page) break;
    }
  }
}
const serverOf = new Map<ReturnType<typeof browser>, Server>();
export function scene(count = 2, s: Server = server()) {
  const tabs = Array.from({ length: count }, (_, k) => {
    const t = browser(s, `tab${k}`);
    serverOf.set(t, s);
    return t;
  });
  return { s, tabs, one: tabs[0]!, two: tabs[1]! };
}

/** What must hold at every moment. */
export function hold(t: ReturnType<typeof browser>) {
  const { book } = t;
  // The worker follows the plan that is shown.
  expect(t.follower).toEqual(book.plan);
  // What is shown is the server's plan with all that is pending and fits on top.
  let shown = book.base;
  for (const p of book.pending) if (p.fits) shown = applyPatch(shown, p.change.patch);
  expect(book.plan).toEqual(shown);
  // "Saved" is true: all that was ever made is at the server, told, or replaced under a new name.
  if (saveState(book) === 'saved') {
    expect(t.kept.filter((k) => !serverOf.get(t)!.history.some((h) => h.changeId === k.changeId))).toEqual([]); // prettier-ignore
  }
}

/** Who does what, and to which. */
export type Act = readonly [who: number, what: number, which: number];
export const acts = fc.array(
  fc.tuple(fc.integer({ min: 0, max: 1 }), fc.integer({ min: 0, max: 15 }), fc.nat(9)),
  { maxLength: 60 },
);
/** Plays acts one after another; what must hold is looked at after each. */
export async function play(list: readonly Act[], of?: Server) {
  const { s, tabs } = scene(2, of);
  for (const [who, what, which] of list) {
    const t = tabs[who]!;
    const id = 'abc'[which % 3]!;
    if (what <= 2) t.edit(rename(id, `${id}${which}${what}`));
    else if (what === 3) t.edit(nobody(id));
    else if (what === 4) t.edit(rename(id, 'x'.repeat(90)));
    else if (what === 5) t.happen({ type: 'undo', changeId: nextId() });
    else if (what === 6) t.happen({ type: 'redo', changeId: nextId() });
    else if (what === 7 && !t.book.full) t.open();
    else if (what === 8) t.fill(which % 2 === 0);
    else if (what === 9 && t.waits) await t.carry(which, 'down');
    else if (what === 10 && t.waits) await t.carry(which, 'lost');
    else if (what === 11 && t.waits) await t.carry(which, ([403, 413, 429] as const)[which % 3]!);
    else if (what === 12 && t.book.conflict)
      t.happen({ type: 'resolve', keepMine: which % 2 === 0 }); // prettier-ignore
    else if (what === 13) t.happen({ type: 'news', ...s.newsSince(t.book.revision) });
    else if (t.waits) await t.carry(which, 'up');
    hold(t);
  }
  return { s, tabs };
}
