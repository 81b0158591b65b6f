/** Whether somebody waits for an answer: what nobody waits for leaves the processor to it. */
let open = 0;
let waiting: (() => void)[] = [];

/** Counts as asked until it is answered, or fails. */
export const asking = <T>(answer: Promise<T>): Promise<T> => {
  open++;
  return answer.finally(() => {
    if (--open > 0) return;
    for (const go of waiting) go();
    waiting = [];
  });
};

/** So long an answer has to be drawn, and to be followed by the next question, ms. */
const DRAWN_MS = 300;

/** Once nothing is asked, and what was answered is drawn. @param most questions are waited for no longer than this, ms */
export async function nothingAsked(most: number): Promise<void> {
  const end = performance.now() + most;
  do {
    if (open > 0)
      await new Promise<void>((go) => {
        waiting.push(go);
        setTimeout(go, end - performance.now());
      });
    await new Promise((go) => setTimeout(go, DRAWN_MS));
  } while (open > 0 && performance.now() < end);
}
