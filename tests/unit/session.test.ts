/** The reducer of a tab's session against a model of the server, the net and the browser's storage. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Plan } from '../../src/core/plan/schema.js';
import type { Proposed, Saved } from '../../src/formats/change.js';
import { applyPatch, edit, patchesTouch } from '../../src/formats/patch.js';
import { stacksOf } from '../../src/formats/stacks.js';
import {
  openBook,
  saveState,
  stacksNow,
  type Book,
  type Effect,
  type Event,
} from '../../src/session/book.js';
import { take } from '../../src/session/reducer.js';
import { often } from '../often.js';
import { line, plan } from './scene.js';

let ids = 0;
const nextId = () => `change-${++ids}`;
const start = (): Plan => plan(['a', 'b', 'c'].map((id, k) => line(id, [[0, 50 * k], [100, 50 * k]]))); // prettier-ignore

/** The server as store.ts has it, without its database. */
function server() {
  let now = start();
  const history: Saved[] = [];
  return {
    get plan() {
      return now;
    },
    history,
    post(change: Proposed): Event {
      const { changeId } = change;
      const again = history.find((h) => h.changeId === changeId);
      const others = history.filter((h) => h.revision > change.base && h.tab !== change.tab);
      if (again)
        return { type: 'acked', changeId, revision: again.revision, at: '', others: others.filter((o) => o.revision < again.revision) }; // prettier-ignore
      const theirs = others.filter((o) => patchesTouch(o.patch, change.patch));
      const revision = history.length;
      if (theirs.length > 0) return { type: 'met', changeId, revision, theirs, others };
      try {
        now = applyPatch(now, change.patch);
      } catch {
        return { type: 'refused', changeId, status: 422, reason: 'does not fit' };
      }
      // The store would check the plan here: a name of 81 letters stands for any unsound one.
      if (Object.values(now.lines).some((l) => l.name.length > 80)) {
        now = history.reduce((p, h) => applyPatch(p, h.patch), start());
        return { type: 'refused', changeId, status: 422, reason: 'name too long' };
      }
      history.push({ ...change, revision: revision + 1, at: 'then' });
      return { type: 'acked', changeId, revision: revision + 1, at: 'then', others };
    },
    newsSince: (since: number) => ({
      changes: history.filter((h) => h.revision > since).slice(0, 3),
      more: history.filter((h) => h.revision > since).length > 3,
    }),
    open(mine: readonly string[]) {
      return {
        revision: history.length,
        plan: now,
        at: null,
        stacks: stacksOf(history),
        landed: mine.filter((id) => history.some((h) => h.changeId === id)),
      };
    },
  };
}

type Server = ReturnType<typeof server>;

/** A browser with its storage, and the tab that is open in it. */
function browser(of: Server, name: string) {
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
    carry(k: number, net: 'up' | 'down' | 'lost' | 403 | 413 | 429) {
      const [effect] = waiting.splice(k % waiting.length, 1);
      if (!effect) return;
      if (effect.do === 'post') {
        const { changeId } = effect.change;
        if (net === 'down') return happen({ type: 'unreachable', changeId });
        if (typeof net === 'number') return happen({ type: 'refused', changeId, status: net, reason: 'no' }); // prettier-ignore
        const answer = of.post(effect.change);
        // The server has it, and its answer never arrives.
        happen(net === 'lost' ? { type: 'unreachable', changeId } : answer);
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

const rename = (id: string, name: string) => (d: Plan) => {
  if (d.lines[id]) d.lines[id].name = name;
};
const nobody = (id: string) => (d: Plan) => void delete d.lines[id];

/** Lets everything run to its end with the net up; conflicts are ended one way or the other. */
function settle(tabs: readonly ReturnType<typeof browser>[]) {
  for (let k = 0; k < 400; k++) {
    for (const t of tabs) {
      if (t.book.conflict && !t.book.conflict.chosen)
        t.happen({ type: 'resolve', keepMine: k % 2 === 0, changeId: nextId() });
      if (t.book.held) t.happen({ type: 'retry' });
      if (t.waits > 0) t.carry(0, 'up');
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
function scene(count = 2) {
  const s = server();
  const tabs = Array.from({ length: count }, (_, k) => {
    const t = browser(s, `tab${k}`);
    serverOf.set(t, s);
    return t;
  });
  return { s, tabs, one: tabs[0]!, two: tabs[1]! };
}

/** What must hold at every moment. */
function hold(t: ReturnType<typeof browser>) {
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

describe('what is saved', () => {
  type Act = readonly [who: number, what: number, which: number];
  const acts = fc.array(
    fc.tuple(fc.integer({ min: 0, max: 1 }), fc.integer({ min: 0, max: 15 }), fc.nat(9)),
    { maxLength: 60 },
  );
  const play = (list: readonly Act[]) => {
    const { s, tabs } = scene();
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
      else if (what === 9 && t.waits) t.carry(which, 'down');
      else if (what === 10 && t.waits) t.carry(which, 'lost');
      else if (what === 11 && t.waits) t.carry(which, ([403, 413, 429] as const)[which % 3]!);
      else if (what === 12 && t.book.conflict)
        t.happen({ type: 'resolve', keepMine: which % 2 === 0, changeId: nextId() }); // prettier-ignore
      else if (what === 13) t.happen({ type: 'news', ...s.newsSince(t.book.revision) });
      else if (t.waits) t.carry(which, 'up');
      hold(t);
    }
    return { s, tabs };
  };

  it('holds for every order of edits, answers, refusals, reloads, other tabs, dead nets and full storage', () => {
    fc.assert(
      fc.property(acts, (list) => {
        const { s, tabs } = play(list);
        for (const t of tabs) t.fill(false);
        settle(tabs);
        for (const t of tabs) {
          hold(t);
          expect(saveState(t.book)).toBe('saved');
          expect(t.book.plan).toEqual(s.plan);
          expect(stacksNow(t.book).undo.map((c) => c.changeId)).toEqual(
            stacksOf(s.history).undo.map((c) => c.changeId),
          );
          // Nothing twice.
          expect(new Set(s.history.map((h) => h.changeId)).size).toBe(s.history.length);
        }
      }),
      { numRuns: Number(process.env['RUNS'] ?? often(400, 8000)), verbose: 1 },
    );
  });

  it('is posted, shown and said when the storage of the browser is full', () => {
    const { s, one } = scene(1);
    one.fill(true);
    one.edit(rename('a', 'kept nowhere'));
    expect(one.book.plan.lines['a']!.name).toBe('kept nowhere');
    expect([one.book.full, saveState(one.book)]).toEqual([true, 'saving']);
    one.carry(0, 'up');
    expect([s.plan.lines['a']!.name, saveState(one.book)]).toEqual(['kept nowhere', 'saved']);
  });

  it.each([403, 404, 413, 429])(
    'an answer of %d keeps the change and all behind it, and says so',
    (status) => {
      const { s, one } = scene(1);
      one.edit(rename('a', 'first'));
      one.edit(rename('b', 'second'));
      one.happen({ type: 'refused', changeId: one.book.sending!, status, reason: 'not now' });
      expect(one.book.held).toMatchObject({ status, reason: 'not now' });
      expect([one.book.pending.length, one.kept.length, saveState(one.book)]).toEqual([
        2,
        2,
        'waiting',
      ]);
      expect(one.book.plan.lines['b']!.name).toBe('second');
      settle([one]);
      expect(s.history).toHaveLength(2);
    },
  );

  it('given up after such an answer, the change leaves the screen and those behind it go on', () => {
    const { s, one } = scene(1);
    one.edit(rename('a', 'first'));
    one.edit(rename('b', 'second'));
    one.carry(0, 413);
    one.happen({ type: 'giveUp' });
    settle([one]);
    expect([s.plan.lines['a']!.name, s.plan.lines['b']!.name]).toEqual(['a', 'second']);
    expect(one.book.plan).toEqual(s.plan);
  });

  it('a 422 takes the change off the screen and lists it, and each that rested on it', () => {
    const { s, one } = scene(1);
    one.edit((d) => {
      d.lines['d'] = { ...structuredClone(start().lines['a']!), id: 'd', name: 'x'.repeat(90) };
    });
    one.edit((d) => void (d.lines['d']!.boundary = true));
    one.edit(rename('b', 'apart'));
    settle([one]);
    expect(one.book.refusals.map((r) => r.reason)).toEqual(['name too long', 'does not fit']);
    expect(one.book.plan).toEqual(s.plan);
    expect(Object.keys(s.plan.lines)).toEqual(['a', 'b', 'c']);
    expect(s.plan.lines['b']!.name).toBe('apart');
    one.happen({ type: 'dismiss' });
    expect(one.book.refusals).toEqual([]);
  });

  it('"keep mine" that no longer fits is listed with its reason, not dropped', () => {
    const { s, one, two } = scene();
    two.edit(nobody('a'));
    settle([two]);
    one.edit(rename('a', 'mine'));
    one.carry(0, 'up');
    expect(one.book.conflict?.mine.changeId).toBeDefined();
    one.happen({ type: 'resolve', keepMine: true, changeId: nextId() });
    settle([one]);
    expect(one.book.conflict).toBeNull();
    expect(one.book.refusals).toMatchObject([
      { reason: expect.stringContaining('no longer fits') },
    ]);
    expect(one.book.plan).toEqual(s.plan);
  });

  it('a pending change that meets another tab’s removal is kept, shown as waiting, and settled', () => {
    const { s, one, two } = scene();
    one.edit(rename('a', 'mine'));
    two.edit(nobody('a'));
    settle([two]);
    one.happen({ type: 'news', ...s.newsSince(0) });
    expect(one.book.plan.lines).not.toHaveProperty('a');
    expect([one.book.pending.length, saveState(one.book)]).toEqual([1, 'waiting']);
    settle([one]);
    expect(saveState(one.book)).toBe('saved');
  });

  it('a change saved while others’ are being fetched stays on the screen, and can be undone', () => {
    const { s, one, two } = scene();
    for (const name of ['1', '2', '3', '4', '5']) {
      two.edit(rename('b', name));
      settle([two]);
    }
    one.edit(rename('a', 'mine'));
    one.happen({ type: 'news', ...s.newsSince(0) });
    one.carry(0, 'up');
    expect(one.book.plan.lines['a']!.name).toBe('mine');
    settle([one]);
    expect(one.book.plan.lines['a']!.name).toBe('mine');
    one.happen({ type: 'undo', changeId: nextId() });
    settle([one]);
    expect([s.plan.lines['a']!.name, s.plan.lines['b']!.name]).toEqual(['a', '5']);
  });

  it('undos pressed while the body of a change is on its way are all made, in their order', () => {
    const { s, one } = scene(1);
    for (const name of ['1', '2', '3']) {
      one.edit(rename('a', name));
      while (one.waits) one.carry(0, 'up');
    }
    // A tab that knows of the changes, and has no body of any.
    const light = openBook(s.open([]), 'late');
    const stacks = { undo: light.stacks.undo.map(({ changeId, words }) => ({ changeId, words })), redo: [] }; // prettier-ignore
    let book: Book = { ...light, stacks };
    const asked: string[] = [];
    const happen = (event: Event) => {
      const [next, effects] = take(book, event);
      book = next;
      for (const e of effects) if (e.do === 'fetchBody') asked.push(e.of);
    };
    for (let k = 0; k < 3; k++) happen({ type: 'undo', changeId: nextId() });
    expect(book.plan.lines['a']!.name).toBe('3');
    while (asked.length > 0) {
      const of = asked.shift()!;
      const { patch, inverse } = s.history.find((h) => h.changeId === of)!;
      happen({ type: 'body', of, patch, inverse });
    }
    expect([book.plan.lines['a']!.name, book.wanted, stacksNow(book).undo]).toEqual(['a', [], []]);
    expect(book.pending).toHaveLength(3);
  });

  it('five hundred changes and five hundred undos, a reload between, and one redo', () => {
    const { s, one } = scene(1);
    for (let k = 0; k < 500; k++) {
      one.edit(rename('a', `name ${k}`));
      one.carry(0, 'up');
    }
    for (let k = 0; k < 500; k++) {
      if (k === 250) one.open();
      one.happen({ type: 'undo', changeId: nextId() });
      while (one.waits) one.carry(0, 'up');
    }
    expect([one.book.plan.lines['a']!.name, s.history.length]).toEqual(['a', 1000]);
    expect(stacksNow(one.book).undo).toEqual([]);
    one.open();
    one.happen({ type: 'redo', changeId: nextId() });
    while (one.waits) one.carry(0, 'up');
    expect(one.book.plan.lines['a']!.name).toBe('name 0');
  });
});
