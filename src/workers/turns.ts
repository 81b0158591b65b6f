/** Questions one after another, in turns: what comes meanwhile is heard between two of them. */
import { isSteps, type Steps } from '../core/base/steps.js';

/** So long a turn is, ms: a stop is heard after it. */
const TURN_MS = 30;

/** Lets what has come in be heard. A timer would be held back by the browser. */
const breathe = (): Promise<void> =>
  new Promise((go) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      go();
    };
    port2.postMessage(null);
  });

export interface Asking {
  stopped: boolean;
}

/** Waits for its turn, then does what is asked, at once or in steps. Null: it was stopped. */
export function createTurns() {
  let last: Promise<unknown> = Promise.resolve();
  return <R>(
    own: Asking,
    work: () => R | Steps<R>,
    told?: (share: number) => void,
  ): Promise<R | null> => {
    const turn = last.then(async () => {
      if (own.stopped) return null;
      const asked = work();
      if (!isSteps(asked)) return asked;
      let since = performance.now();
      for (;;) {
        const { done, value } = asked.next();
        if (done) return value;
        if (performance.now() - since < TURN_MS) continue;
        told?.(value);
        await breathe();
        if (own.stopped) return null;
        since = performance.now();
      }
    });
    last = turn.catch(() => undefined);
    return turn;
  };
}
