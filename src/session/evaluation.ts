/** The worker that evaluates the plan: it follows by patches and answers with what has changed. */
import { causeKey } from '../core/findings/causes.js';
import type { PartId } from '../core/parts/index.js';
import type { Hurry } from '../core/parts/part.js';
import { follow } from '../core/report/change.js';
import { seasonsOf } from '../core/plan/catalogue.js';
import { catalogue } from '../core/plan/shipped.js';
import type { PatchStep, Plan } from '../core/plan/schema.js';
import type { Finding, Report } from '../core/report/schema.js';
import type { Together } from '../core/findings/together.js';
import type { EvaluateApi, Evaluated } from '../workers/evaluate.js';
import { keepReport, keptReport, type Kept } from './reports.js';
import { committed, useSession } from './state.js';
import { useView } from './view.js';
import { askKept, evaluator, WorkerDied, type Running } from './workers.js';

const { getState: get, setState: set } = useSession;

/** The worker that was given the plan; another one knows nothing yet. */
let opened: Running<EvaluateApi> | null = null;
/** What it has told of this property so far. */
let heard: Report | null = null;
/** Rises whenever the worker is given a plan whole: what it had been asked before says what is new beside something else. */
let era = 0;
/** The committed plan whose report is shown with nothing behind; null: none is. */
let whole: Plan | null = null;
let falls = 0;
/** A worker that falls over this often one after another is not started again at once. */
const MOST_FALLS = 2;
/** After so long it is tried again by itself, ms. */
const AGAIN = 5000;

/** Loads the worker's program while the plan is being fetched; what goes wrong is said when it is asked. */
export const loadWorker = (): void => void evaluator().catch(() => undefined);

/** Gives the worker the whole committed plan and its ground; starts it where none runs. */
export async function openWorker(): Promise<void> {
  opened = null;
  era++;
  await follower().catch(() => undefined);
}

/** This program, whose every part stands in its name once it is built; null: it may be another one under the same name. */
const PROGRAM = import.meta.env.PROD ? import.meta.url : null;
/** Reports of more posts take too long to be copied in the page. */
const MOST_POSTS = 10_000;

/** What this program worked out for a property at an earlier time; null: nothing is kept. */
export const workedBefore = async (id: string): Promise<Kept | null> =>
  PROGRAM === null ? null : keptReport(id, PROGRAM);

/** So long a report has rested before it is kept, ms. */
const KEEP_MS = 1500;
let toKeep: ReturnType<typeof setTimeout> | undefined;
/** Keeps the report that is shown once it has rested. */
function keepShown(): void {
  if (PROGRAM === null) return;
  const program = PROGRAM;
  clearTimeout(toKeep);
  toKeep = setTimeout(() => {
    const { id, report } = get();
    const posts = Object.values(report?.lines ?? {}).reduce((sum, l) => sum + l.posts.length, 0);
    if (!report || whole !== committed() || posts > MOST_POSTS) return;
    keepReport({ id, program, plan: JSON.stringify(whole), report });
  }, KEEP_MS);
}

/**
 * Another property is opened.
 * @param plan where a report that was kept is shown with it: the worker has time, and what it says in a hurry is less; else null
 */
export function beginsWith(plan: Plan | null): void {
  era++;
  heard = null;
  whole = plan;
}
/** Lets the worker begin where nothing has been asked of it yet. */
export const beginAtRest = (): void => {
  if (heard === null && !busy) ask(REST);
};

/** The worker with the committed plan. */
async function follower(): Promise<Running<EvaluateApi>> {
  const running = await evaluator();
  if (opened !== running) {
    opened = running;
    await running.answered(running.api.open(committed(), get().ground, catalogue));
  }
  return running;
}

/** Lets the worker follow a change that has been made. */
export async function followPatch(patch: PatchStep[]): Promise<void> {
  if (!opened) return;
  // It lost its place: the whole plan puts it right.
  await opened.answered(opened.api.patch(patch)).catch(openWorker);
}

/** What is asked for: the committed plan, or what is in the hand. */
interface Wish {
  readonly patch: PatchStep[];
  /** The plan with the patch; null: nothing is in the hand. */
  readonly plan: Plan | null;
}
const REST: Wish = { patch: [], plan: null };
let wanted: Wish | null = null;
let watched: string | null = null;
/** Asks for the choices of a line from now on, with each report; null: of none. */
export function watchChoices(line: string | null): void {
  if (line === watched) return;
  watched = line;
  if (line === null) set({ choices: null });
  else ask(wanted ?? REST);
}

/** The mends of several findings as one change, judged together; null when it could not be worked out. */
export async function mendTogether(ids: readonly string[]): Promise<Together | null> {
  return askKept(follower, ({ api }) => api.together([...ids])).catch((error: Error) => {
    set({ refused: `This could not be worked out: ${error.message}` });
    return null;
  });
}

/** Findings whose mends are tried in one go: a wish that comes meanwhile waits no longer than for these. */
const MENDS_AT_ONCE = 2;
/** Ids of findings whose mends are looked at and not tried: the opened one, then those that share its cause. */
function untried(): string[] {
  const { finding } = useView.getState();
  const all = get().report?.findings ?? [];
  const opened = all.find((f) => f.id === finding);
  if (!opened) return [];
  const alike = all.filter((f) => causeKey(f) === causeKey(opened));
  return [opened, ...alike.filter((f) => f !== opened)].flatMap((f) => (f.trying ? f.id : []));
}
// Mends take ten times as long as all else: none is tried before somebody looks.
useView.subscribe((view, before) => {
  if (view.finding !== before.finding && !busy && untried().length > 0) void evaluateLoop();
});

/** After so long in the hand, what stayed behind follows, a turn each: the volts of the season shown, then all but the volts. */
const MOST_BEHIND_MS = 80;
const TURNS = 2;
/** What is held still for so long rests. */
const REST_MS = 250;
/** What of a line is on no screen of a step while its geometry is in the hand. */
const UNSEEN: Readonly<Record<string, readonly PartId[]>> = {
  land: ['wire', 'hold', 'strands', 'power'],
  section: ['power'],
};

let busy = false;
/** What was said of a worker that would not start. */
let told: string | null = null;
/**
 * Asks for a report; while one is being worked out only the newest wish is kept.
 * @param patch what is in the hand, on top of the committed plan
 * @param plan the plan with it
 */
export const requestReport = (patch: PatchStep[], plan: Plan | null = null): void =>
  ask({ patch, plan });

function ask(wish: Wish): void {
  wanted = wish;
  wake();
  if (!busy) void evaluateLoop();
}

let wake = (): void => undefined;
/** Waits so long, or until something is wanted. */
const pause = (ms: number): Promise<void> =>
  new Promise((done) => {
    const timer = setTimeout(done, ms);
    wake = () => {
      clearTimeout(timer);
      done();
    };
  });

/** What was answered in a hurry: for which patch, since when something of it is behind, and how many turns it had. */
interface Behind extends Wish {
  readonly since: number;
  readonly turns: number;
  /** The hand was answered after the last of these turns: on a slow processor it would else wait from one to the next. */
  readonly handHad: boolean;
}

/** How soon something is answered: what is in the hand comes first by itself, and no turn of what follows it is long. */
function hurryOf({ patch }: Wish, asked: boolean, behind: Behind | null): Hurry {
  // Posts, strands, tension and prices are shown before the pulses have been worked out.
  if (heard === null) return asked && 'first';
  if (patch.length === 0) return asked && 'volts';
  if (asked) return true;
  if (!wanted && behind!.turns >= TURNS) return false;
  return behind!.turns % TURNS === 0 ? useView.getState().season : 'volts';
}

async function evaluateLoop(): Promise<void> {
  busy = true;
  let behind: Behind | null = null;
  /** Mends are tried a few at a time once nothing else is asked, so that no wish waits long for them. */
  let mends = wanted ? [] : untried().slice(0, MENDS_AT_ONCE);
  while (wanted ?? behind ?? (mends.length > 0 ? [] : null)) {
    if (!wanted && behind && behind.patch.length > 0)
      await pause(behind.turns < TURNS ? behind.since + MOST_BEHIND_MS - performance.now() : REST_MS); // prettier-ignore
    // What is in the hand was shown first; now what stayed behind it follows, though the hand has moved on.
    const due =
      wanted?.plan && behind?.handHad && performance.now() - behind.since >= MOST_BEHIND_MS;
    const asked = wanted !== null && !due;
    const wish: Wish = (due ? behind : (wanted ?? behind)) ?? REST;
    const { patch } = wish;
    const hurry = hurryOf(wish, asked, behind);
    if (wanted ?? behind) mends = [];
    if (!due) wanted = null;
    const rests = !hurry && behind !== null;
    behind = hurry ? nextBehind(behind, wish, hurry) : null;
    try {
      // Without waiting where one runs: what is asked goes out before anything is drawn.
      const { api, answered } = opened ?? (await follower());
      // The volts of all seasons one by one: whatever is wanted meanwhile waits for one of them at most.
      if (rests)
        for (const season of seasonsOf(get().plan, catalogue))
          if (!wanted && heard) await answered(api.ahead(patch, season));
      if (rests && wanted) continue;
      const left = hurry === true ? (UNSEEN[useView.getState().step] ?? []) : [];
      const of = committed();
      const since = era;
      const answer = await answered(api.evaluate(patch, { watched, hurry, left, mends }));
      falls = 0;
      // From its end: the hand has the time between two of them to itself.
      if (behind && hurry !== true) behind = { ...behind, since: performance.now() };
      if (since !== era) {
        wanted ??= wish;
        continue;
      }
      if (told !== null && get().refused === told) set({ refused: null });
      told = null;
      if (answer) show(answer, hurry, wish, of);
      mends = patch.length === 0 ? untried().slice(0, MENDS_AT_ONCE) : [];
    } catch (error) {
      mends = [];
      const why = (error as Error).message;
      if (error instanceof WorkerDied) opened = null;
      if (!(error instanceof WorkerDied)) set({ refused: `This could not be worked out: ${why}` });
      else if (++falls < MOST_FALLS) wanted ??= wish;
      else {
        behind = null;
        const refused = `Nothing is worked out at the moment (${why}). What you draw is saved all the same; it is tried again by itself.`;
        set({ refused });
        setTimeout(() => ask(wanted ?? REST), AGAIN);
        told = refused;
      }
    }
  }
  busy = false;
}

/** What is behind after an answer: a turn more, or a first one. */
function nextBehind(before: Behind | null, { patch, plan }: Wish, hurry: Hurry): Behind {
  const now = performance.now();
  if (hurry !== true)
    return { patch, plan, since: now, turns: (before?.turns ?? 0) + 1, handHad: false };
  // Held still it has its turns; moved on, they go on where they were.
  return { patch, plan, since: before?.since ?? now, turns: (before?.turns ?? 0) % TURNS, handHad: true }; // prettier-ignore
}

/** @param of the committed plan when this was asked */
function show(answer: Evaluated, hurry: Hurry, { patch, plan }: Wish, of: Plan): void {
  heard = follow(heard, answer.change);
  const rests = patch.length === 0;
  // What stands there is of the same plan, and nothing of it is behind.
  if (rests && hurry !== false && whole === of) return set({ choices: answer.choices });
  whole = rests && hurry === false ? of : null;
  const findings = sameFindings(get().report?.findings ?? [], heard.findings);
  set({
    // Both at once, so that all is drawn anew once; what was let go meanwhile is as it was committed.
    ...(plan && get().held ? { plan } : {}),
    report: { ...heard, findings },
    choices: answer.choices,
    took_ms: answer.took_ms,
    behind: hurry,
  });
  if (whole) keepShown();
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
