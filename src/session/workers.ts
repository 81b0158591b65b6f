/** Workers as their callers see them: started when one is wanted, and again after one died. A death is always told. */
import * as Comlink from 'comlink';
import type { Role, Roles, Started } from '../workers/roles.js';

/** A worker that could not be loaded, or fell over what it was asked. */
export class WorkerDied extends Error {}

export interface Running<Api> {
  readonly api: Comlink.Remote<Api>;
  /** The answer, or `WorkerDied`: nobody waits for a worker that is no more. */
  answered<T>(answer: Promise<T>): Promise<T>;
  /** Ends it at once, with all that it was about. */
  stop(): void;
}

/**
 * Starts a worker.
 * @param onDeath called once when it dies after it had started
 * @throws WorkerDied when its program does not load
 */
export function startWorker<R extends Role>(
  role: R,
  onDeath: () => void = () => undefined,
): Promise<Running<Roles[R]>> {
  const worker = new Worker(new URL('../workers/worker.ts', import.meta.url), {
    type: 'module',
    name: role,
  });
  return new Promise((started, failed) => {
    let die: (error: WorkerDied) => void = failed;
    const fall = (why: string) => {
      worker.terminate();
      die(new WorkerDied(why || 'a part of the program could not be loaded'));
    };
    worker.onerror = (event) => fall(event.message);
    worker.onmessageerror = () => fall('an answer could not be read');
    const first = ({ data }: MessageEvent<Started>) => {
      worker.removeEventListener('message', first);
      if (!data.ready) return fall(data.why);
      const died = new Promise<never>((_, reject) => {
        die = (error) => {
          onDeath();
          reject(error);
        };
      });
      // Told to whoever asks; by itself it is no fault of the page.
      died.catch(() => undefined);
      started({
        api: Comlink.wrap<Roles[R]>(worker),
        answered: (answer) => Promise.race([answer, died]),
        stop: () => worker.terminate(),
      });
    };
    worker.addEventListener('message', first);
  });
}

/** One worker of a role for the whole tab: started when it is wanted, anew after it died. */
export function keptWorker<R extends Role>(role: R): () => Promise<Running<Roles[R]>> {
  let kept: Promise<Running<Roles[R]>> | null = null;
  const forget = () => (kept = null);
  return () =>
    (kept ??= startWorker(role, forget).catch((error: unknown) => {
      forget();
      throw error;
    }));
}

/**
 * Asks a kept worker; one that dies over it is started once more before it is said.
 * @throws WorkerDied the second time, and whatever the answer throws
 */
export async function askKept<Api, T>(
  worker: () => Promise<Running<Api>>,
  ask: (running: Running<Api>) => Promise<T>,
): Promise<T> {
  const once = async () => {
    const running = await worker();
    return running.answered(ask(running));
  };
  try {
    return await once();
  } catch (error) {
    if (!(error instanceof WorkerDied)) throw error;
    return once();
  }
}

/** The worker that follows the plan, and the one that is asked beside it. */
export const evaluator = keptWorker('evaluate');
export const questioner = keptWorker('questions');
/** Loads the program of the questions while the plan is being fetched; what goes wrong is said when it is asked. */
export const loadQuestions = (): void => void questioner().catch(() => undefined);
