/** Ways and rims on the map. */
import type { ThingKind } from '../../core/plan/schema.js';

/** How the way or rim of each kind of thing is drawn: told apart by dashes and weight before colour. */
export const WAYS: Readonly<
  Record<
    ThingKind,
    { width: number; dash: number[]; ink: 'ink' | 'soft' | 'earth' | 'warn'; fill?: boolean }
  >
> = {
  property: { width: 1.2, dash: [10, 4, 2, 4], ink: 'soft' },
  water: { width: 2, dash: [], ink: 'earth' },
  mains: { width: 2, dash: [], ink: 'warn' },
  building: { width: 2, dash: [], ink: 'ink', fill: true },
  overhead: { width: 1.4, dash: [18, 4, 1, 4, 1, 4], ink: 'warn' },
  publicWay: { width: 3, dash: [3, 6], ink: 'soft' },
  burn: { width: 2.6, dash: [], ink: 'earth' },
  oldFence: { width: 1.6, dash: [6, 2, 1, 2], ink: 'ink' },
  obstacle: { width: 1.4, dash: [2, 3], ink: 'warn', fill: true },
  tree: { width: 1.4, dash: [], ink: 'ink' },
  soil: { width: 1, dash: [1, 4], ink: 'soft', fill: true },
};
