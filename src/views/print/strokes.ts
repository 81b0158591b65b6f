/** How ways and rims are drawn on paper, mm: told apart by dashes and fill, since paper may be grey. */
import type { ThingKind } from '../../core/plan/schema.js';

interface Way {
  readonly width: number;
  readonly dash: string;
  readonly ink: string;
  readonly fill?: string;
}

export const WAY_STROKES: Readonly<Record<ThingKind, Way>> = {
  property: { width: 0.25, dash: '3 1 0.5 1', ink: '#667' },
  water: { width: 0.4, dash: '', ink: '#0b6266' },
  mains: { width: 0.4, dash: '', ink: '#334' },
  building: { width: 0.35, dash: '', ink: '#1c2b33', fill: '#9aa0a4' },
  overhead: { width: 0.25, dash: '4 1 0.3 1 0.3 1', ink: '#7a4b00' },
  publicWay: { width: 0.5, dash: '0.8 1.2', ink: '#445' },
  burn: { width: 0.8, dash: '', ink: '#6fa8b4' },
  oldFence: { width: 0.3, dash: '1.5 0.5 0.3 0.5', ink: '#334' },
  obstacle: { width: 0.3, dash: '0.5 0.6', ink: '#334', fill: '#e3ded2' },
  tree: { width: 0.3, dash: '', ink: '#334' },
  soil: { width: 0.2, dash: '0.3 0.9', ink: '#889' },
};
