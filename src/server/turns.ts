/** Who waits for whom in a process that does one thing at a time. */

/** Lets what waits be answered first. */
export const breath = () => new Promise<void>((done) => setImmediate(done));

/** Runs what concerns one thing one after another, different things side by side. */
export function inTurn() {
  const last = new Map<string, Promise<unknown>>();
  return <T>(id: string, run: () => Promise<T>): Promise<T> => {
    const mine = (last.get(id) ?? Promise.resolve()).then(run, run);
    last.set(id, mine);
    const over = () => last.get(id) === mine && last.delete(id);
    mine.then(over, over);
    return mine;
  };
}
