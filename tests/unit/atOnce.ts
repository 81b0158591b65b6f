/** Questions of the worker, each answered at once. */
import { atOnce, type Steps } from '../../src/core/base/steps.js';

type Result<R> = R extends Steps<infer T> ? T : R;
type Asked = (...args: never[]) => unknown;
type AtOnce<Q extends Record<string, Asked>> = {
  readonly [K in keyof Q]: (...args: Parameters<Q[K]>) => Result<ReturnType<Q[K]>>;
};

const isSteps = (of: unknown): of is Steps<unknown> => String(of) === '[object Generator]';

export const allAtOnce = <Q extends Record<string, Asked>>(questions: Q): AtOnce<Q> =>
  Object.fromEntries(
    Object.entries(questions).map(([name, ask]) => [
      name,
      (...args: never[]) => {
        const of = ask(...args);
        return isSteps(of) ? atOnce(of) : of;
      },
    ]),
  ) as unknown as AtOnce<Q>;
