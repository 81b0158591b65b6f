import { useSyncExternalStore } from 'react';

const never = () => () => {};

/**
 * Whether what the server drew answers to the hand yet: a press before that would be lost without a word, so what can be
 * pressed is shut until then.
 */
export const useAwake = (): boolean =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
