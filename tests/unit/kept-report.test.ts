/** Figures of an earlier time: shown at once where they are this program's and this plan's, and only then. */
import 'fake-indexeddb/auto';
import { afterAll, beforeAll, beforeEach, expect, it, vi } from 'vitest';
import type { Hurry } from '../../src/core/parts/part.js';
import type { Report } from '../../src/core/report/schema.js';
import type { Asked } from '../../src/workers/evaluate.js';
import { pageHere, Silent } from './pageHere.js';
import { line, plan } from './scene.js';
import { workerHere } from './workerHere.js';

const start = plan([line('a', [[0, 0], [100, 0]])]); // prettier-ignore
/** How soon the worker was asked, in its order. */
let turns: Hurry[] = [];
/** The worker answers when this is done. */
let held: Promise<void> = Promise.resolve();

/** A tab in which the program is as it was built. */
async function tab() {
  vi.resetModules();
  const { api } = await import('../../src/workers/evaluate.js');
  const evaluate = async (patch: Parameters<typeof api.evaluate>[0], asked: Asked) => {
    const answer = api.evaluate(patch, asked);
    turns.push(asked.hurry);
    await held;
    return answer;
  };
  vi.stubGlobal('Worker', workerHere({ ...api, evaluate }));
  const reports = await import('../../src/session/reports.js');
  const { asking } = await import('../../src/session/asking.js');
  const { commit, openSession, useSession } = await import('../../src/session/session.js');
  await openSession('p');
  const rested = () => vi.waitFor(() => expect(turns.at(-1)).toBe(false), 20_000);
  return { asking, commit, openSession, reports, rested, useSession };
}
const PROGRAM = new URL('../../src/session/evaluation.ts', import.meta.url).href;
const kept = async () => (await import('../../src/session/reports.js')).keptReport('p', PROGRAM);

beforeAll(() => {
  vi.stubEnv('PROD', true);
  vi.stubGlobal('BroadcastChannel', Silent);
  pageHere(start);
});
afterAll(() => {
  vi.unstubAllGlobals();
  vi.unstubAllEnvs();
  vi.resetModules();
});
beforeEach(() => {
  turns = [];
  held = Promise.resolve();
});

it('stands before the worker has begun, and what it says in a hurry is not shown over it', async () => {
  const first = await tab();
  expect(first.useSession.getState().report).toBeNull();
  await first.rested();
  await vi.waitFor(async () => expect(await kept()).not.toBeNull(), 5000);

  turns = [];
  const again = await tab();
  const shown: (Report | null)[] = [again.useSession.getState().report];
  expect(shown[0]).toEqual(first.useSession.getState().report);
  expect(turns).toEqual([]);
  again.useSession.subscribe((s, before) => s.report !== before.report && shown.push(s.report));
  await again.rested();
  await vi.waitFor(() => expect(shown).toHaveLength(2));
  expect(turns[0]).toBe('first');
  // The worker's own, in the end: the same figures.
  expect(shown[1]).toEqual(shown[0]);
});

it('leaves the processor to what is asked at first', async () => {
  const { asking, rested } = await tab();
  let answer = () => {};
  void asking(new Promise<void>((done) => (answer = done)));
  await new Promise((turn) => setTimeout(turn, 1500));
  expect(turns).toEqual([]);
  answer();
  await rested();
});

it('gives way to a change at once, and is kept anew with it', async () => {
  held = new Promise((go) => setTimeout(go, 300));
  const { commit, rested, useSession } = await tab();
  commit('longer', (d) => void (d.lines['a']!.vertices[1]!.e = 200));
  await vi.waitFor(() => expect(useSession.getState().report!.lines['a']!.plan_m).toBe(200), 5000);
  await rested();
  await vi.waitFor(async () => expect(JSON.parse((await kept())!.plan)).toMatchObject({ lines: { a: { vertices: [{ e: 0 }, { e: 200 }] } } }), 5000); // prettier-ignore
});

it('of another plan or another program is not shown', async () => {
  // Kept with 200 m by the test before.
  const { useSession } = await tab();
  expect(useSession.getState().report).toBeNull();
  const own = (await kept())!;
  const { keepReport, keptReport } = await import('../../src/session/reports.js');
  keepReport({ ...own, program: 'older.js', plan: JSON.stringify(start) });
  await vi.waitFor(async () => expect(await keptReport('p', 'older.js')).not.toBeNull());
  expect((await tab()).useSession.getState().report).toBeNull();
});

it('is forgotten on leaving, and nothing is kept in that page any more', async () => {
  const { reports } = await tab();
  reports.keepReport({ id: 'p', program: PROGRAM, plan: '{}', report: {} as Report });
  await reports.forgetReports();
  expect(await kept()).toBeNull();
  reports.keepReport({ id: 'p', program: PROGRAM, plan: '{}', report: {} as Report });
  await new Promise((turn) => setTimeout(turn, 100));
  expect(await kept()).toBeNull();
});
