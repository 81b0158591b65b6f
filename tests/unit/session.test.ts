/** The reducer of a tab's session against a model of the server, the net and the browser's storage. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { PARTS } from '../../src/core/parts/index.js';
import type { Saved } from '../../src/formats/change.js';
import { FormatError } from '../../src/formats/error.js';
import { applyPatch } from '../../src/formats/patch.js';
import { stacksOf } from '../../src/formats/stacks.js';
import { openDatabase } from '../../src/server/database.js';
import { createCommit } from '../../src/server/plans/commit.js';
import { createHeads } from '../../src/server/plans/heads.js';
import { planStore } from '../../src/server/plans/store.js';
import { openBook, saveState, stacksNow, type Book, type Event } from '../../src/session/book.js';
import { take } from '../../src/session/reducer.js';
import { often } from '../often.js';
import { acts, hold, nextId, nobody, play, rename, scene, server, serverBy, settle, start, type Act, type Server } from './tabs.js'; // prettier-ignore

describe('what is saved', () => {
  /** Whatever was played, in the end all is at the server, once, and every tab shows it. */
  async function endsWell(list: readonly Act[], of: Server) {
    const { s, tabs } = await play(list, of);
    for (const t of tabs) t.fill(false);
    await settle(tabs);
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
  }

  it('holds for every order of edits, answers, refusals, reloads, other tabs, dead nets and full storage', async () => {
    await fc.assert(
      fc.asyncProperty(acts, (list) => endsWell(list, server())),
      { numRuns: Number(process.env['RUNS'] ?? often(400, 8000)), verbose: 1 },
    );
  });

  it('holds against the store as it is, and what the store has is what it said', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'anabatic-'));
    const db = await openDatabase(join(folder, 'test.sqlite'));
    try {
      await fc.assert(
        fc.asyncProperty(acts, async (list) => {
          const store = planStore(db);
          const id = await store.create({ plan: start(), grids: {} });
          let told: Saved | null = null;
          const commit = createCommit(db, createHeads(db, PARTS), PARTS, (_, change) => void (told = change)); // prettier-ignore
          const real = serverBy(async (change, kept) => {
            const { changeId } = change;
            told = null;
            try {
              const answer = (await commit(id, change))!;
              if (told) {
                kept.history.push(told);
                kept.plan = applyPatch(kept.plan, change.patch);
              }
              return answer.status === 'saved'
                ? { type: 'acked', changeId, ...answer }
                : { type: 'met', changeId, ...answer };
            } catch (error) {
              if (!(error instanceof FormatError)) throw error;
              return { type: 'refused', changeId, status: 422, reason: error.message };
            }
          });
          await endsWell(list, real);
          expect((await createHeads(db, PARTS).of(id))!.plan).toEqual(real.plan);
        }),
        { numRuns: often(40, 1000), verbose: 1 },
      );
    } finally {
      await db.destroy();
      rmSync(folder, { recursive: true });
    }
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
    async (status) => {
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
      await settle([one]);
      expect(s.history).toHaveLength(2);
    },
  );

  it('given up after such an answer, the change leaves the screen and those behind it go on', async () => {
    const { s, one } = scene(1);
    one.edit(rename('a', 'first'));
    one.edit(rename('b', 'second'));
    one.carry(0, 413);
    one.happen({ type: 'giveUp' });
    await settle([one]);
    expect([s.plan.lines['a']!.name, s.plan.lines['b']!.name]).toEqual(['a', 'second']);
    expect(one.book.plan).toEqual(s.plan);
  });

  it('a 422 takes the change off the screen and lists it, and each that rested on it', async () => {
    const { s, one } = scene(1);
    one.edit((d) => {
      d.lines['d'] = { ...structuredClone(start().lines['a']!), id: 'd', name: 'x'.repeat(90) };
    });
    one.edit((d) => void (d.lines['d']!.boundary = true));
    one.edit(rename('b', 'apart'));
    await settle([one]);
    expect(one.book.refusals.map((r) => r.reason)).toEqual(['name too long', 'does not fit']);
    expect(one.book.plan).toEqual(s.plan);
    expect(Object.keys(s.plan.lines)).toEqual(['a', 'b', 'c']);
    expect(s.plan.lines['b']!.name).toBe('apart');
    one.happen({ type: 'dismiss' });
    expect(one.book.refusals).toEqual([]);
  });

  it('"keep mine" that no longer fits is listed with its reason, not dropped', async () => {
    const { s, one, two } = scene();
    two.edit(nobody('a'));
    await settle([two]);
    one.edit(rename('a', 'mine'));
    one.carry(0, 'up');
    expect(one.book.conflict?.mine.changeId).toBeDefined();
    one.happen({ type: 'resolve', keepMine: true });
    await settle([one]);
    expect(one.book.conflict).toBeNull();
    expect(one.book.refusals).toMatchObject([
      { reason: expect.stringContaining('no longer fits') },
    ]);
    expect(one.book.plan).toEqual(s.plan);
  });

  it('"keep mine" stays in its place: what was made on top of it, also in a later tab, meets only what others did', async () => {
    const { s, one, two } = scene();
    two.edit(rename('a', 'theirs'));
    await settle([two]);
    one.edit(rename('a', 'mine'));
    one.edit(rename('b', 'apart'));
    one.open();
    // In the tab after it, on top of what the first one left.
    one.edit(rename('a', 'mine, then'));
    one.carry(0, 'up');
    expect(one.book.conflict?.theirs.map((c) => c.patch[0]!.value)).toEqual(['theirs']);
    one.happen({ type: 'resolve', keepMine: true });
    expect(one.kept.map((k) => k.patch[0]!.value)).toEqual(['mine', 'apart', 'mine, then']);
    for (let k = 0; k < 40 && one.waits > 0; k++) await one.carry(0, 'up');
    expect(one.book.conflict).toBeNull();
    expect(s.plan.lines['a']!.name).toBe('mine, then');
    expect(s.plan.lines['b']!.name).toBe('apart');
  });

  it('a pending change that meets another tab’s removal is kept, shown as waiting, and settled', async () => {
    const { s, one, two } = scene();
    one.edit(rename('a', 'mine'));
    two.edit(nobody('a'));
    await settle([two]);
    one.happen({ type: 'news', ...s.newsSince(0) });
    expect(one.book.plan.lines).not.toHaveProperty('a');
    expect([one.book.pending.length, saveState(one.book)]).toEqual([1, 'waiting']);
    await settle([one]);
    expect(saveState(one.book)).toBe('saved');
  });

  it('a change saved while others’ are being fetched stays on the screen, and can be undone', async () => {
    const { s, one, two } = scene();
    for (const name of ['1', '2', '3', '4', '5']) {
      two.edit(rename('b', name));
      await settle([two]);
    }
    one.edit(rename('a', 'mine'));
    one.happen({ type: 'news', ...s.newsSince(0) });
    one.carry(0, 'up');
    expect(one.book.plan.lines['a']!.name).toBe('mine');
    await settle([one]);
    expect(one.book.plan.lines['a']!.name).toBe('mine');
    one.happen({ type: 'undo', changeId: nextId() });
    await settle([one]);
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
