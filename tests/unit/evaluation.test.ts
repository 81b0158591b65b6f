/** What is in the hand: asked before it is drawn, shown with the figures that belong to it, and never held up for long by what stayed behind. */
import { afterAll, beforeAll, beforeEach, expect, it, vi } from 'vitest';
import type { Hurry } from '../../src/core/parts/part.js';
import type { Plan } from '../../src/core/plan/schema.js';
import { openBook } from '../../src/session/book.js';
import { beginsWith, openWorker, requestReport } from '../../src/session/evaluation.js';
import { preview, useSession } from '../../src/session/session.js';
import { drawn } from '../../src/session/state.js';
import { api, type Asked } from '../../src/workers/evaluate.js';
import { FLAT, line, plan } from './scene.js';
import { workerHere } from './workerHere.js';

// Its own session: files share what was loaded before, and with it the worker that was started then.
vi.hoisted(() => vi.resetModules());

/** What was asked of the worker, in its order: how soon, where the corner stood, and when, ms. */
let turns: { hurry: Hurry; e: number; at: number }[] = [];
/** What was drawn when something was sent to the worker. */
let drawnThen: (Plan | null)[] = [];
/** So much longer the worker takes for each turn, ms. */
let slow = 0;

/** The worker of figures itself. */
const evaluate = async (patch: Parameters<typeof api.evaluate>[0], asked: Asked) => {
  const e = (patch[0] as { value?: number } | undefined)?.value ?? 0;
  turns.push({ hurry: asked.hurry, e, at: performance.now() });
  // As a worker has it: what was asked first is worked out first, whatever comes before it is told.
  const answer = api.evaluate(patch, asked);
  if (slow > 0) await new Promise((done) => setTimeout(done, slow));
  return answer;
};
const Here = workerHere({ ...api, evaluate }, () => drawnThen.push(useSession.getState().held));

const p = plan([line('a', [[0, 0], [100, 0], [200, 50]])]); // prettier-ignore
const at = (shown: Plan) => shown.lines['a']!.vertices[2]!.e;
const drag = (e: number) => preview((d) => void (d.lines['a']!.vertices[2]!.e = e));
/** All of it was worked out for what was asked last. */
const rested = () =>
  vi.waitFor(() => {
    expect(turns.at(-1)?.hurry).toBe(false);
    expect(useSession.getState().behind).toBe(false);
  }, 20_000);
const wait = (ms: number) => new Promise((done) => setTimeout(done, ms));

beforeAll(() => void vi.stubGlobal('Worker', Here));
afterAll(() => void vi.unstubAllGlobals());
beforeEach(async () => {
  const book = openBook({ plan: p, revision: 0, at: null, stacks: { undo: [], redo: [] } } as never, 'tab'); // prettier-ignore
  useSession.setState({ id: 'p', plan: p, held: null, book, ground: FLAT, grid: null, report: null, behind: false }); // prettier-ignore
  slow = 0;
  turns = [];
  requestReport([]);
  await rested();
  turns = [];
  drawnThen = [];
});

it('is asked before it is drawn, and comes with the figures that belong to it', async () => {
  const seen: [number, number][] = [];
  const stop = useSession.subscribe((s, before) => {
    if (s.report !== before.report) seen.push([at(s.plan), s.report!.lines['a']!.ground_m]);
  });
  drag(260);
  expect(drawnThen).toEqual([null]);
  expect(at(drawn(useSession.getState()))).toBe(260);
  expect(at(useSession.getState().plan)).toBe(200);
  await rested();
  stop();
  // Length of the ground under it, by Pythagoras.
  expect(seen[0]).toEqual([260, expect.closeTo(100 + Math.hypot(160, 50), 2)]);
  expect(seen.every(([e]) => e === 260)).toBe(true);
  expect(turns[0]!.hurry).toBe(true);
  expect(turns.at(-1)!.hurry).toBe(false);
});

it('comes first, and what stayed behind has its turn between two of it while the hand goes on', async () => {
  slow = 15;
  const drags: number[] = [];
  for (let k = 0; k < 60; k++) {
    drags.push(performance.now());
    drag(201 + k);
    await wait(5);
  }
  const order = turns.map((t) => t.hurry === true);
  expect(order[0]).toBe(true);
  const behind = order.filter((hand) => !hand).length;
  expect(behind).toBeGreaterThan(1);
  // The hand has the time between two of those to itself (80 ms, `MOST_BEHIND_MS`; a timer may be a moment early).
  const times = turns.filter((t) => t.hurry !== true).map((t) => t.at);
  times.forEach((t, i) => i === 0 || expect(t - times[i - 1]!).toBeGreaterThan(78));
  // Never two of those in a row while the hand goes on: whatever it does next waits for one of them at most.
  const between = (from: number, to: number) => drags.filter((t) => t > from && t < to).length;
  turns.forEach(({ hurry, at }, i) => {
    const before = turns[i - 1];
    if (before && hurry !== true && before.hurry !== true) expect(between(before.at, at)).toBe(0);
  });
  await rested();
  expect(turns.at(-1)).toMatchObject({ hurry: false, e: 260 });
});

it('is answered between two turns of what stayed behind, however long the page takes to draw one', async () => {
  slow = 15;
  // Each answer keeps the page for longer than what stayed behind has to wait.
  const stop = useSession.subscribe((s, before) => {
    if (s.report === before.report) return;
    for (const end = performance.now() + 100; performance.now() < end;);
  });
  for (let k = 0; k < 40; k++) {
    drag(201 + k);
    await wait(5);
  }
  stop();
  const hand = turns.map((t) => t.hurry === true);
  expect(hand.filter((h) => !h).length).toBeGreaterThan(2);
  expect(hand.some((h, i) => i > 0 && !h && !hand[i - 1])).toBe(false);
  await rested();
});

it('that was let go is not shown again by an answer that comes late', async () => {
  slow = 60;
  drag(300);
  await vi.waitFor(() => expect(turns.some((t) => t.hurry !== true)).toBe(true));
  turns = [];
  preview(null);
  await rested();
  expect(at(useSession.getState().plan)).toBe(200);
  expect(at(drawn(useSession.getState()))).toBe(200);
  expect(useSession.getState().report!.lines['a']!.ground_m).toBeCloseTo(
    100 + Math.hypot(100, 50),
    2,
  );
});

it('an answer that was on its way when the plan was given anew is not taken for the whole', async () => {
  slow = 60;
  useSession.setState({ report: null });
  requestReport([]);
  await wait(20);
  const told: unknown[] = [];
  const stop = useSession.subscribe((s, before) => s.report !== before.report && told.push(s.report!.lines['a']?.posts)); // prettier-ignore
  beginsWith(null);
  await openWorker();
  requestReport([]);
  await rested();
  stop();
  expect(told.length).toBeGreaterThan(0);
  expect(told.every((posts) => Array.isArray(posts))).toBe(true);
});
