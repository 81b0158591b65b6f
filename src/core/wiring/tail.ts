/** The dead tail: wire between post and end insulator, that nothing feeds and that can be climbed. */
import { figure, type Catalogue } from '../plan/catalogue.js';
import type { Line } from '../plan/schema.js';

type Asks = Pick<Line, 'left' | 'right' | 'keepOut' | 'deadTail_m'>;

/** Whether predators are kept out at a line: they climb what is dead. */
export const keepsPredatorsOut = ({ left, right, keepOut }: Asks, cat: Catalogue): boolean =>
  [...left, ...right, ...keepOut].some((id) => {
    const of = cat.profiles[id];
    return of?.role === 'predator' && of.size === 'small';
  });

/** Length of a tail where nothing is said: usual, or as short as the tie allows for small stock and predators, m. */
export function usualTail(line: Asks, cat: Catalogue): number {
  const small = [...line.left, ...line.right, ...line.keepOut].some(
    (id) => cat.profiles[id]?.size === 'small',
  );
  return figure(cat, small ? 'end.deadTailShort' : 'end.deadTail');
}

/** Length of the dead tail at the ends of a line, m. */
export const deadTail = (line: Asks, cat: Catalogue): number =>
  line.deadTail_m ?? usualTail(line, cat);
