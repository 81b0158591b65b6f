/**
 * Asks the question worker: it has the plan that is shown, and only the newest question of each asker is answered, an older
 * one is stopped. What cannot be answered is said, and asked again by itself.
 */
import * as Comlink from 'comlink';
import { useEffect, useState } from 'react';
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
interface Question<R> {
  /** Null also where it was stopped. */
  readonly answer: Promise<R | null>;
  /** Nobody waits for it any more: the worker leaves it at its next step. */
  stop(): void;
}

let tickets = 0;
/** Asks by the plan that is shown now. @param told which share of it is done, now and then */
function question<R>(ask: Ask<R>, told: (share: number) => void = () => undefined): Question<R> {
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
    void questioner()
      .then(({ api }) => api.stop(ticket))
      .catch(() => undefined);
  };
  return { answer: asking(answer), stop };
}

export interface Answer<R> {
  /** The last answer; while it is of an earlier plan or question it is waited for another. */
  readonly value: R | null;
  /** False too where nothing is asked. */
  readonly waiting: boolean;
  /** Which share of what is waited for is done, 0 to 1; null: nothing was heard of it. */
  readonly share: number | null;
  /** Why the answer that is waited for could not be had, in words; it is tried again by itself. */
  readonly fault: string | null;
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

/** @param told how far it is @returns the answer, and how to wait for it no more */
function shared<R>(key: string, plan: Plan, ask: Ask<R>, told: (share: number) => void) {
  let now = running.get(key);
  if (now?.plan !== plan) {
    const askers = new Set<(share: number) => void>();
    const own = question(ask, (share) => askers.forEach((tell) => tell(share)));
    now = { plan, question: own, askers };
    running.set(key, now);
    const over = () => void (running.get(key) === now && running.delete(key));
    own.answer.then(over, over);
  }
  const { question: asked, askers } = now;
  askers.add(told);
  const own = now;
  const leave = () => {
    askers.delete(told);
    // Another view of the same may be on its way.
    setTimeout(() => {
      if (askers.size > 0) return;
      if (running.get(key) === own) running.delete(key);
      asked.stop();
    }, LEFT_MS);
  };
  return { answer: asked.answer as Promise<R | null>, leave };
}

/** So long the plan must have rested before it is asked about, ms; one that was just opened has. */
const REST = 250;
let moved = -Infinity;
useSession.subscribe((now, before) => {
  if (now.plan !== before.plan && now.id === before.id && before.report) moved = performance.now();
});

/** Gives the worker the plan beforehand, where the step that is opened asks at once. */
export const prepareQuestions = (): void => void question(() => Promise.resolve(null)).answer.catch(() => undefined); // prettier-ignore
/** What could not be answered is asked again after so long, each time twice as long, at most so long, ms. */
const AGAIN = { first: 2000, most: 30_000 };

/**
 * The answer to a question, asked anew whenever plan or question change.
 * @param key names the question; the same key is the same question; null: nothing is asked
 * @param subject what it is about: the last answer about it stays until the next one is there
 */
export function usePower<R>(key: string | null, ask: Ask<R>, subject = key): Answer<R> {
  const plan = useSession((s) => s.plan);
  const [state, setState] = useState<Answered<R> | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [share, setShare] = useState<number | null>(null);
  useEffect(() => {
    if (key === null) return;
    let newest = true;
    let again = AGAIN.first;
    let leave = () => undefined as void;
    let timer = setTimeout(asked, Math.max(0, moved + REST - performance.now()));
    function asked() {
      const own = shared(key!, plan, ask, setShare);
      leave = own.leave;
      own.answer.then(
        (value) => {
          if (!newest) return;
          setState({ key: key!, subject, plan, value });
          setFault(null);
          setShare(null);
        },
        (error: Error) => {
          if (!newest) return;
          setFault(error.message);
          timer = setTimeout(asked, again);
          again = Math.min(2 * again, AGAIN.most);
        },
      );
    }
    return () => {
      newest = false;
      clearTimeout(timer);
      leave();
      setShare(null);
    };
    // The question is named by its key.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key, plan]);
  const waiting = key !== null && (state?.key !== key || state?.plan !== plan);
  return {
    value: key !== null && state?.subject === subject ? state.value : null,
    waiting,
    share: waiting ? share : null,
    fault: waiting ? fault : null,
  };
}

interface Answered<R> {
  readonly key: string;
  readonly subject: string | null;
  readonly plan: Plan;
  readonly value: R | null;
}

/** Asks once, now; what cannot be answered is said, and null. */
export const askPower = <R>(ask: Ask<R>): Promise<R | null> =>
  question(ask).answer.catch((error: Error) => {
    useSession.setState({
      refused: `This could not be worked out (${error.message}). What you draw is saved all the same.`,
    });
    return null;
  });
