/** Posts placed by the ground: started, watched, stopped, taken over; one job at a time in a tab. */
import * as Comlink from 'comlink';
import { create } from 'zustand';
import { placedPatch, type LineArrangement } from '../core/posts/arrange.js';
import type { Line } from '../core/plan/schema.js';
import type { PlacementApi } from '../workers/place.js';
import { commitPatch, useSession } from './session.js';
import { committed } from './state.js';
import { startWorker, type Running } from './workers.js';

interface Placing {
  readonly state: 'idle' | 'running' | 'done';
  readonly done: number;
  readonly total: number;
  readonly results: Readonly<Record<string, LineArrangement>>;
  /** The lines as they were when the job began: a changed line's result is stale. */
  readonly lines: Readonly<Record<string, Line>>;
  readonly fault: string | null;
}

const IDLE: Placing = { state: 'idle', done: 0, total: 0, results: {}, lines: {}, fault: null };
export const usePlacing = create<Placing>(() => IDLE);

let running: Running<PlacementApi> | null = null;
/** The job that counts: what an earlier one finds is no longer wanted. */
let job = 0;

/** Stops the job that runs, at once; its results are lost. */
export function stopPlacing(): void {
  job++;
  running?.stop();
  running = null;
  usePlacing.setState(IDLE);
}

/** Places the posts of lines in a worker. */
export async function startPlacing(ids: readonly string[]): Promise<void> {
  stopPlacing();
  const { report, ground } = useSession.getState();
  const plan = committed();
  const known = ids.filter((id) => plan.lines[id] && report?.lines[id]);
  const mine = ++job;
  usePlacing.setState({
    ...IDLE,
    state: 'running',
    lines: Object.fromEntries(known.map((id) => [id, plan.lines[id]!])),
  });
  const requirements = Object.fromEntries(known.map((id) => [id, report!.lines[id]!.requirement]));
  try {
    const worker = await startWorker('place');
    if (mine !== job) return worker.stop();
    running = worker;
    const told = Comlink.proxy((done: number, total: number) => {
      if (mine === job) usePlacing.setState({ done, total });
    });
    const results = await worker.answered(
      worker.api.place(plan, known, requirements, ground, told),
    );
    if (mine === job) usePlacing.setState({ state: 'done', results });
    worker.stop();
  } catch (error) {
    if (mine === job) usePlacing.setState({ ...IDLE, fault: (error as Error).message });
  }
  if (mine === job) running = null;
}

/** Takes the results over into the plan: every line that has a placement and did not change since. */
export function takePlacing(): void {
  const { results, lines } = usePlacing.getState();
  const plan = committed();
  const patch = Object.entries(results).flatMap(([id, made]) =>
    plan.lines[id] === lines[id] ? (placedPatch(plan, id, made) ?? []) : [],
  );
  const names = Object.keys(results).map((id) => plan.lines[id]?.name ?? id);
  usePlacing.setState(IDLE);
  if (patch.length > 0)
    commitPatch(
      `placed the posts of ${names.length === 1 ? names[0]! : `${names.length} lines`} by the ground`,
      patch,
    );
}
