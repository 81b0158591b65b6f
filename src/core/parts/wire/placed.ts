/** Tensioners that were placed by hand lie along their line; turned round, its start is its end. */
import type { Line, Plan } from '../../plan/schema.js';

const TURNED = { start: 'end', end: 'start', middle: 'middle', best: 'best' } as const;

export const placed = {
  places: { spots: ['tensioners'] },
  turned(_plan: Plan, line: Line): void {
    if (line.tensionerAt) line.tensionerAt = TURNED[line.tensionerAt];
  },
};
