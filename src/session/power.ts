/** Asks the Power worker: it has the plan that is shown, and only the newest question of each asker is answered. */
import * as Comlink from 'comlink';
import { useEffect, useState } from 'react';
import type { Plan } from '../core/plan/schema.js';
import type { Ground } from '../core/terrain/ground.js';
import type { PowerApi } from '../workers/power.worker.js';
import { useSession } from './state.js';

let api: Comlink.Remote<PowerApi> | null = null;
let given: { plan: Plan; ground: Ground; done: Promise<void> } | null = null;

/** The worker with the plan that is shown now. */
async function ready(): Promise<Comlink.Remote<PowerApi>> {
  api ??= Comlink.wrap<PowerApi>(
    new Worker(new URL('../workers/power.worker.ts', import.meta.url), { type: 'module' }),
  );
  const { plan, ground } = useSession.getState();
  if (given?.plan !== plan || given.ground !== ground) {
    const same = given?.ground === ground;
    given = { plan, ground, done: api.open(plan, same ? null : ground) as Promise<void> };
  }
  await given.done;
  return api;
}

export type Ask<R> = (api: Comlink.Remote<PowerApi>) => Promise<R | null>;

export interface Answer<R> {
  readonly value: R | null;
  /** The answer is of an earlier plan, or there is none yet. */
  readonly waiting: boolean;
}

/** What is being answered now: who asks the same of the same plan meanwhile gets the same answer. */
const running = new Map<string, { readonly plan: Plan; readonly answer: Promise<unknown> }>();
function shared<R>(key: string, plan: Plan, ask: Ask<R>): Promise<R | null> {
  const now = running.get(key);
  if (now?.plan === plan) return now.answer as Promise<R | null>;
  const answer = ready()
    .then(ask)
    .catch(() => null)
    .finally(() => {
      if (running.get(key)?.answer === answer) running.delete(key);
    });
  running.set(key, { plan, answer });
  return answer;
}

/** So long the plan must have rested before it is asked about, ms. */
const REST = 250;

/**
 * The answer to a question, asked anew whenever plan or question change.
 * @param key names the question; the same key is the same question
 */
export function usePower<R>(key: string | null, ask: Ask<R>): Answer<R> {
  const plan = useSession((s) => s.plan);
  const [state, setState] = useState<{ key: string; plan: Plan; value: R | null } | null>(null);
  useEffect(() => {
    if (key === null) return;
    let newest = true;
    const timer = setTimeout(() => {
      void shared(key, plan, ask).then((value) => newest && setState({ key, plan, value }));
    }, REST);
    return () => {
      newest = false;
      clearTimeout(timer);
    };
    // The question is named by its key.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key, plan]);
  const own = state?.key === key ? state : null;
  return { value: own?.value ?? null, waiting: own?.plan !== plan };
}

/** Asks once, now. */
export const askPower = <R>(ask: Ask<R>): Promise<R | null> => ready().then(ask);
