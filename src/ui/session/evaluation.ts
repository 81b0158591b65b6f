/** The worker that evaluates the plan: it follows by patches and answers with what has changed. */
import * as Comlink from 'comlink';
import { follow } from '../../core/report/change.js';
import type { PatchStep } from '../../core/plan/schema.js';
import type { Finding } from '../../core/report/schema.js';
import { applyPatch } from '../../formats/patch.js';
import type { EvaluateApi } from '../../workers/evaluate.worker.js';
import { committed, setCommitted, useSession } from './state.js';

const { getState: get, setState: set } = useSession;
let worker: Comlink.Remote<EvaluateApi> | null = null;

/** Gives the worker the whole committed plan and its ground; starts it at the first call. */
export async function openWorker(): Promise<void> {
  worker ??= Comlink.wrap<EvaluateApi>(
    new Worker(new URL('../../workers/evaluate.worker.ts', import.meta.url), { type: 'module' }),
  );
  await worker.open(committed(), get().ground);
}

/** Takes a patch into the committed plan, the shown plan and the worker's. */
export function advance(patch: PatchStep[]): void {
  setCommitted(applyPatch(committed(), patch));
  void worker?.patch(patch);
}

let wanted: PatchStep[] | null = null;
let watched: string | null = null;
/** Asks for the choices of a line from now on, with each report; null: of none. */
export function watchChoices(line: string | null): void {
  if (line === watched) return;
  watched = line;
  if (line === null) set({ choices: null });
  else requestReport(wanted ?? []);
}

let running = false;
/** Asks for a report; while one is being worked out only the newest wish is kept. */
export function requestReport(patch: PatchStep[]): void {
  wanted = patch;
  if (!running) void evaluateLoop();
}

async function evaluateLoop(): Promise<void> {
  running = true;
  while (wanted && worker) {
    const patch = wanted;
    wanted = null;
    try {
      const answer = await worker.evaluate(patch, watched);
      if (!answer) continue;
      const before = get().report;
      const report = follow(before, answer.change);
      const findings = sameFindings(before?.findings ?? [], report.findings);
      set({ report: { ...report, findings }, choices: answer.choices, took_ms: answer.took_ms });
    } catch (error) {
      set({ refused: `This could not be worked out: ${(error as Error).message}` });
    }
  }
  running = false;
}

/** Findings that say what they said before keep their identity, so that their rows need no redrawing. */
function sameFindings(before: readonly Finding[], now: Finding[]): Finding[] {
  const old = new Map(before.map((f) => [f.id, f]));
  return now.map((f) => {
    const was = old.get(f.id);
    return was && JSON.stringify(was) === JSON.stringify(f) ? was : f;
  });
}
