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

/** Once nothing is asked; at once where nothing is. @param most waited for no longer than this, ms */
export const nothingAsked = (most: number): Promise<void> =>
  new Promise((go) => {
    if (open === 0) return go();
    waiting.push(go);
    setTimeout(go, most);
  });
