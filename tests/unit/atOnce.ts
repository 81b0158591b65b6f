/** Questions of the worker, each answered at once. */
import { atOnce, isSteps, type Result } from '../../src/core/base/steps.js';

type Asked = (...args: never[]) => unknown;
type AtOnce<Q extends Record<string, Asked>> = {
  readonly [K in keyof Q]: (...args: Parameters<Q[K]>) => Result<ReturnType<Q[K]>>;
};

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
