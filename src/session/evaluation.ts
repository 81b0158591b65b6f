/** The worker that evaluates the plan: it follows by patches and answers with what has changed. */
import * as Comlink from 'comlink';
import type { Hurry } from '../core/parts/part.js';
import { follow } from '../core/report/change.js';
import { catalogue } from '../core/plan/catalogue.js';
import type { PatchStep } from '../core/plan/schema.js';
import type { Finding } from '../core/report/schema.js';
import type { Together } from '../core/findings/together.js';
import type { EvaluateApi, Evaluated } from '../workers/evaluate.worker.js';
import { committed, useSession } from './state.js';
import { useView } from './view.js';

const { getState: get, setState: set } = useSession;

interface Running {
  readonly api: Comlink.Remote<EvaluateApi>;
  /** Never resolves; rejects when the worker could not be loaded or fell over. */
  readonly died: Promise<never>;
}

let running: Running | null = null;
let falls = 0;
/** A worker that falls over this often one after another is not started again by itself. */
const MOST_FALLS = 3;

function start(): Running {
  const worker = new Worker(new URL('../workers/evaluate.worker.ts', import.meta.url), {
    type: 'module',
  });
  const died = new Promise<never>((_, reject) => {
    worker.onerror = (event) => {
      worker.terminate();
      if (running?.died === died) running = null;
      reject(
        new Error(event.message || 'the part of the program that works out could not be loaded'),
      );
    };
  });
  died.catch(() => undefined);
  return { api: Comlink.wrap<EvaluateApi>(worker), died };
}

/** Gives the worker the whole committed plan and its ground; starts it where none runs. */
export async function openWorker(): Promise<void> {
  running ??= start();
  const { api, died } = running;
  await Promise.race([api.open(committed(), get().ground, catalogue), died]).catch(() => undefined);
}

/** Lets the worker follow a change that has been made. */
export async function followPatch(patch: PatchStep[]): Promise<void> {
  await Promise.race([running?.api.patch(patch), running?.died]).catch(() =>
    // It lost its place: the whole plan puts it right.
    openWorker(),
  );
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

/** The mends of several findings as one change, judged together; null when it could not be worked out. */
export async function mendTogether(ids: readonly string[]): Promise<Together | null> {
  if (!running) await openWorker();
  const { api, died } = running!;
  return Promise.race([api.together([...ids]), died]).catch((error: Error) => {
    set({ refused: `This could not be worked out: ${error.message}` });
    return null;
  });
}

const MENDS_AT_ONCE = 2;
/** The volts are never longer behind what is in the hand. */
const MOST_BEHIND_MS = 80;

let busy = false;
/** Asks for a report; while one is being worked out only the newest wish is kept. */
export function requestReport(patch: PatchStep[]): void {
  wanted = patch;
  if (!busy) void evaluateLoop();
}

async function evaluateLoop(): Promise<void> {
  busy = true;
  let behind: PatchStep[] | null = null;
  /** Mends are tried a few at a time once nothing else is asked, so that no wish waits long for them. */
  let trying = false;
  /** When the volts began to be behind. */
  let since: number | null = null;
  while (wanted ?? behind ?? (trying ? [] : null)) {
    // Whatever is asked is answered without new pulses at first; in the hand those of the season on the screen follow
    // soon. When nothing else is asked, all of them do.
    const now = performance.now();
    const asked = wanted !== null;
    const inHand = asked && wanted!.length > 0;
    const late: boolean = now - (since ?? now) >= MOST_BEHIND_MS;
    // Posts, strands, tension and prices are shown before the pulses have been worked out.
    const opening = get().report === null;
    const hurry: Hurry = opening
      ? asked && 'first'
      : asked && (inHand && late ? useView.getState().season : true);
    const mends = (wanted ?? behind) ? 0 : MENDS_AT_ONCE;
    const patch: PatchStep[] = wanted ?? behind ?? [];
    wanted = null;
    behind = hurry ? patch : null;
    since = hurry === true ? (since ?? now) : null;
    try {
      if (!running) await openWorker();
      const { api, died } = running!;
      const answer = await Promise.race([api.evaluate(patch, watched, hurry, mends), died]);
      falls = 0;
      if (answer) show(answer);
      trying = patch.length === 0 && (get().report?.unjudged ?? 0) > 0;
    } catch (error) {
      trying = false;
      const why = (error as Error).message;
      if (running) set({ refused: `This could not be worked out: ${why}` });
      else if (++falls < MOST_FALLS) wanted ??= patch;
      else
        set({
          refused: `Nothing is worked out at the moment (${why}). What you draw is saved all the same; the next change tries again.`,
        });
    }
  }
  busy = false;
}

function show(answer: Evaluated): void {
  const before = get().report;
  const report = follow(before, answer.change);
  const findings = sameFindings(before?.findings ?? [], report.findings);
  set({ report: { ...report, findings }, choices: answer.choices, took_ms: answer.took_ms });
}

/** Findings that say what they said before keep their identity, so that their rows need no redrawing. */
function sameFindings(before: readonly Finding[], now: Finding[]): Finding[] {
  const old = new Map(before.map((f) => [f.id, f]));
  const kept = now.map((f) => {
    const was = old.get(f.id);
    return was && JSON.stringify(was) === JSON.stringify(f) ? was : f;
  });
  return kept.length === before.length && kept.every((f, i) => f === before[i])
    ? (before as Finding[])
    : kept;
}
