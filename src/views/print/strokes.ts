/** How ways and rims are drawn on paper, mm: told apart by dashes, since paper may be grey. */
import type { ThingKind } from '../../core/plan/schema.js';

export const WAY_STROKES: Readonly<Record<ThingKind, { width: number; dash: string }>> = {
  property: { width: 0.7, dash: '3 1 0.5 1' },
  water: { width: 0.4, dash: '' },
  mains: { width: 0.4, dash: '' },
  building: { width: 0.5, dash: '' },
  overhead: { width: 0.25, dash: '4 1 0.3 1 0.3 1' },
  publicWay: { width: 0.5, dash: '0.8 1.2' },
  burn: { width: 0.6, dash: '' },
  oldFence: { width: 0.3, dash: '1.5 0.5 0.3 0.5' },
  obstacle: { width: 0.3, dash: '0.5 0.6' },
  tree: { width: 0.3, dash: '' },
  soil: { width: 0.2, dash: '0.3 0.9' },
};
