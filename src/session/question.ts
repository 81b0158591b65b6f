/** Questions on their way to their worker, which has the plan that is shown. */
import * as Comlink from 'comlink';
import type { Plan } from '../core/plan/schema.js';
import type { Ground } from '../core/terrain/ground.js';
import type { Answering, QuestionsApi } from '../workers/questions.js';
import { asking } from './asking.js';
import { useSession } from './state.js';
import { askKept, questioner, type Running } from './workers.js';

export type Ask<R> = (api: QuestionsApi) => Promise<R | null>;

/** What the worker that runs was given last. */
let given: { by: Running<Answering>; plan: Plan; ground: Ground; done: Promise<void> } | null =
  null;

/** A question on its way. */
export interface Question<R> {
  /** Null also where it was stopped. */
  readonly answer: Promise<R | null>;
  /** Nobody waits for it any more: the worker leaves it at its next step. */
  stop(): void;
}

let tickets = 0;
/** Asks by the plan that is shown now. @param told which share of it is done, now and then */
export function question<R>(
  ask: Ask<R>,
  told: (share: number) => void = () => undefined,
): Question<R> {
  const ticket = ++tickets;
  let stopped = false;
  const answer = askKept(questioner, async (running) => {
    const { plan, ground } = useSession.getState();
    if (given?.by !== running || given.plan !== plan || given.ground !== ground) {
      const same = given?.by === running && given.ground === ground;
      const done = running.api.open(plan, same ? null : ground) as Promise<unknown>;
      given = { by: running, plan, ground, done: done.then(() => undefined) };
    }
    await given.done;
    if (stopped) return null;
    const api = new Proxy({} as QuestionsApi, {
      get:
        (_, name) =>
        (...args: unknown[]) =>
          running.api.ask(ticket, name as never, args as never, Comlink.proxy(told)),
    });
    return ask(api);
  });
  const stop = () => {
    stopped = true;
    // One that has not been given the plan was asked nothing.
    void given?.by.api.stop(ticket);
  };
  return { answer: asking(answer), stop };
}

/** A question that nobody has waited for so long is stopped, ms. */
const LEFT_MS = 50;

/** What is being answered now: who asks the same of the same plan meanwhile gets the same answer. */
interface OnItsWay {
  readonly plan: Plan;
  readonly question: Question<unknown>;
  readonly askers: Set<(share: number) => void>;
}
const running = new Map<string, OnItsWay>();

/**
 * Asks what others may be asking.
 * @param told how far it is
 * @returns the answer, and how to wait for it no more: a question that nobody waits for is stopped
 */
export function shared<R>(key: string, plan: Plan, ask: Ask<R>, told: (share: number) => void) {
  const before = running.get(key);
  const own = before?.plan === plan ? before : begin(key, plan, ask);
  own.askers.add(told);
  const leave = () => {
    own.askers.delete(told);
    // Another view of the same may be on its way.
    setTimeout(() => {
      if (own.askers.size > 0) return;
      if (running.get(key) === own) running.delete(key);
      own.question.stop();
    }, LEFT_MS);
  };
  return { answer: own.question.answer as Promise<R | null>, leave };
}

function begin<R>(key: string, plan: Plan, ask: Ask<R>): OnItsWay {
  const askers: OnItsWay['askers'] = new Set();
  const own = { plan, askers, question: question(ask, (share) => askers.forEach((tell) => tell(share))) }; // prettier-ignore
  running.set(key, own);
  const over = () => void (running.get(key) === own && running.delete(key));
  own.question.answer.then(over, over);
  return own;
}

export type Ahead = Parameters<QuestionsApi['ahead']>[0];

/** Has the worker work out beforehand what the questions of the step that is opened rest on. */
export const prepareQuestions = (what: Ahead): void => void question((api) => api.ahead(what)).answer.catch(() => undefined); // prettier-ignore
