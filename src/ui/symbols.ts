/** Our own symbols for what stands on the land: told apart by shape alone, on the screen and on grey paper. */
import type { ThingKind } from '../core/plan/schema.js';
import type { Drawn } from './drawn.js';

/** A plate across the line between two posts; barred where no cable runs under the gate. */
const gate = (barred: boolean): Drawn => ({
  w: 22,
  h: 14,
  strokes: [
    { d: 'M3 3.2h16v7.6H3z', fill: 'paper', ink: 'ink', width: 1.6 },
    { d: 'M3 1v12M19 1v12', ink: 'ink', width: 2 },
    { d: barred ? 'M5 10 17 4M5 4 17 10' : 'M5.5 7h11', ink: barred ? 'warn' : 'ink', width: 1.4 },
  ],
});

export const GATE = gate(false);
export const GATE_BARE = gate(true);

/** A disc of the live colour in a ring. */
export const ENERGISER: Drawn = {
  w: 24,
  h: 24,
  strokes: [
    { d: 'M12 2a10 10 0 1 1 0 20a10 10 0 1 1 0-20z', fill: 'paper', ink: 'ink', width: 1.8 },
    { d: 'M12 7.5a4.5 4.5 0 1 1 0 9a4.5 4.5 0 1 1 0-9z', fill: 'live' },
  ],
};

const spot = (strokes: Drawn['strokes']): Drawn => ({ w: 20, h: 20, strokes });

/** Spots on the land. Kinds that are ways or areas, put down as one point, get a plain one. */
export const SPOTS: Partial<Record<ThingKind, Drawn>> & { readonly other: Drawn } = {
  // A trough seen from the side, with water in it.
  water: spot([
    { d: 'M2 5h16l-2.6 10H4.6z', fill: 'paper', ink: 'ink', width: 1.6 },
    { d: 'M4.4 9.2q1.4-1.4 2.8 0t2.8 0t2.8 0t2.8 0', ink: 'earth', width: 1.6 },
  ]),
  // A socket: two pins in a box.
  mains: spot([
    { d: 'M3 3h14v14H3z', fill: 'paper', ink: 'ink', width: 1.6 },
    { d: 'M7.4 7.5v5M12.6 7.5v5', ink: 'ink', width: 2.2 },
  ]),
  // A crown on a stem.
  tree: spot([
    { d: 'M10 18v-6', ink: 'ink', width: 2 },
    {
      d: 'M10 1.8a5.4 5.4 0 0 1 5 7.4a3.6 3.6 0 0 1-5 3.6a3.6 3.6 0 0 1-5-3.6a5.4 5.4 0 0 1 5-7.4z',
      fill: 'paper',
      ink: 'ink',
      width: 1.6,
    },
  ]),
  // A roof over walls.
  building: spot([
    { d: 'M3 17V9l7-6 7 6v8z', fill: 'paper', ink: 'ink', width: 1.6 },
    { d: 'M8 17v-5h4v5', ink: 'ink', width: 1.4 },
  ]),
  obstacle: spot([{ d: 'M3 16 7 6l4 3 3-5 4 12z', fill: 'paper', ink: 'ink', width: 1.6 }]),
  other: spot([
    { d: 'M10 5a5 5 0 1 1 0 10a5 5 0 1 1 0-10z', fill: 'paper', ink: 'ink', width: 1.6 },
  ]),
};

export const spotOf = (kind: ThingKind): Drawn => SPOTS[kind] ?? SPOTS.other;
