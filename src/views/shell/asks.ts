/**
 * Steps whose sights are answers of the question worker, which is wanted as soon as the page is: what they all rest on, which
 * it works out while the page is being drawn, and of what kinds of records they ask, which are fetched meanwhile.
 */
import type { Ahead } from '../../session/question.js';

interface Asks {
  readonly kinds: readonly string[];
  readonly ahead: Ahead;
}

const ASKING: Readonly<Record<string, Asks>> = {
  power: { kinds: [], ahead: 'networks' },
  supplies: { kinds: ['stock', 'orders', 'deliveries'], ahead: 'worked' },
  build: { kinds: ['work', 'inspections'], ahead: 'worked' },
  rounds: { kinds: ['readings', 'events'], ahead: 'networks' },
  faults: { kinds: ['readings', 'events'], ahead: 'networks' },
};

/** Null: the step asks nothing at once. @param step its name in the address */
export const asks = (step: string | undefined): Asks | null => ASKING[step ?? ''] ?? null;
