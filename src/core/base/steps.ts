/** Long work in steps: between two of them whoever does it may tell how far it is, attend to something else, or leave it. */

/** Gives the share of all that is done, 0 to 1, after each step, and its result at last. */
export type Steps<R> = Generator<number, R, void>;

/** What comes of it at last; of anything else, that itself. */
export type Result<R> = R extends Steps<infer T> ? T : R;

/** Whether it is work that goes in steps. */
export const isSteps = (of: unknown): of is Steps<unknown> =>
  typeof of === 'object' && of !== null && 'next' in of && typeof of.next === 'function';

/** All of it at once. */
export function atOnce<R>(work: Steps<R>): R {
  for (;;) {
    const { done, value } = work.next();
    if (done) return value;
  }
}

/** Work that is a part of greater work. @param from share of the greater that is done before it @param to and after it */
export function* within<R>(work: Steps<R>, from: number, to: number): Steps<R> {
  for (;;) {
    const { done, value } = work.next();
    if (done) return value;
    yield from + (to - from) * value;
  }
}
