/**
 * Asks the question worker: it has the plan that is shown, and only the newest question of each asker is answered. What
 * cannot be answered is said, and asked again by itself.
 */
import type * as Comlink from 'comlink';
import { useEffect, useState } from 'react';
import type { Plan } from '../core/plan/schema.js';
import type { Ground } from '../core/terrain/ground.js';
import type { QuestionsApi } from '../workers/questions.js';
import { asking } from './asking.js';
import { useSession } from './state.js';
import { askKept, keptWorker, type Running } from './workers.js';

export type Ask<R> = (api: Comlink.Remote<QuestionsApi>) => Promise<R | null>;

const worker = keptWorker('questions');
/** What the worker that runs was given last. */
let given: { by: Running<QuestionsApi>; plan: Plan; ground: Ground; done: Promise<void> } | null =
  null;

/** An answer by the plan that is shown now. */
const answer = <R>(ask: Ask<R>): Promise<R | null> =>
  asking(
    askKept(worker, async (running) => {
      const { plan, ground } = useSession.getState();
      if (given?.by !== running || given.plan !== plan || given.ground !== ground) {
        const same = given?.by === running && given.ground === ground;
        const done = running.api.open(plan, same ? null : ground) as Promise<void>;
        given = { by: running, plan, ground, done };
      }
      await given.done;
      return ask(running.api);
    }),
  );

export interface Answer<R> {
  /** The last answer; while it is of an earlier plan or question it is waited for another. */
  readonly value: R | null;
  /** False too where nothing is asked. */
  readonly waiting: boolean;
  /** Why the answer that is waited for could not be had, in words; it is tried again by itself. */
  readonly fault: string | null;
}

/** What is being answered now: who asks the same of the same plan meanwhile gets the same answer. */
const running = new Map<string, { readonly plan: Plan; readonly answer: Promise<unknown> }>();
function shared<R>(key: string, plan: Plan, ask: Ask<R>): Promise<R | null> {
  const now = running.get(key);
  if (now?.plan === plan) return now.answer as Promise<R | null>;
  const own = answer(ask).finally(() => {
    if (running.get(key)?.answer === own) running.delete(key);
  });
  running.set(key, { plan, answer: own });
  return own;
}

/** So long the plan must have rested before it is asked about, ms; one that was just opened has. */
const REST = 250;
let moved = -Infinity;
useSession.subscribe((now, before) => {
  if (now.plan !== before.plan && now.id === before.id && before.report) moved = performance.now();
});

/** Loads the worker's program while the plan is being fetched. */
export const loadQuestions = (): void => void worker().catch(() => undefined);
/** Gives the worker the plan beforehand, where the step that is opened asks at once. */
export const prepareQuestions = (): void => void answer(() => Promise.resolve(null)).catch(() => undefined); // prettier-ignore
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
  useEffect(() => {
    if (key === null) return;
    let newest = true;
    let again = AGAIN.first;
    let timer = setTimeout(asked, Math.max(0, moved + REST - performance.now()));
    function asked() {
      shared(key!, plan, ask).then(
        (value) => {
          if (!newest) return;
          setState({ key: key!, subject, plan, value });
          setFault(null);
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
    };
    // The question is named by its key.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key, plan]);
  const waiting = key !== null && (state?.key !== key || state?.plan !== plan);
  return {
    value: key !== null && state?.subject === subject ? state.value : null,
    waiting,
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
  answer(ask).catch((error: Error) => {
    useSession.setState({
      refused: `This could not be worked out (${error.message}). What you draw is saved all the same.`,
    });
    return null;
  });
