/** Which shape the room on the screen has: what stands side by side follows it. */
import { useSyncExternalStore } from 'react';

/** `phone`: a hand's width; `flat`: such a phone lying on its side; `narrow`: findings in a drawer; `vast`: more side by side. */
export type Shape = 'phone' | 'flat' | 'narrow' | 'wide' | 'vast';

/** By content, in the text size of the browser (rem of 16 px): the widest that fits first. */
const QUERIES: readonly (readonly [Shape, string])[] = [
  ['phone', '(max-width: 43.75rem) and (min-height: 30.01rem)'],
  ['flat', '(max-height: 30rem) and (max-width: 62rem), (max-width: 43.75rem)'],
  ['narrow', '(max-width: 68.75rem)'],
  ['wide', '(max-width: 106rem)'],
];

const now = (): Shape => QUERIES.find(([, query]) => matchMedia(query).matches)?.[0] ?? 'vast';

function subscribe(changed: () => void): () => void {
  const lists = QUERIES.map(([, query]) => matchMedia(query));
  for (const list of lists) list.addEventListener('change', changed);
  return () => lists.forEach((list) => list.removeEventListener('change', changed));
}

export const useShape = (): Shape => useSyncExternalStore(subscribe, now, () => 'wide');

/** Held in one hand: a sheet instead of panes. */
export const inHand = (shape: Shape): boolean => shape === 'phone' || shape === 'flat';
