/**
 * Answers of the question worker as views want them: only the newest question of each asker is answered, an older one is
 * stopped. What cannot be answered is said, and asked again by itself.
 */
import { useEffect, useState } from 'react';
import type { Plan } from '../core/plan/schema.js';
import { question, shared, type Ask } from './question.js';
import { useSession } from './state.js';

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

/** So long the plan must have rested before it is asked about, ms; one that was just opened has. */
const REST = 250;
let moved = -Infinity;
useSession.subscribe((now, before) => {
  if (now.plan !== before.plan && now.id === before.id && before.report) moved = performance.now();
});

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
