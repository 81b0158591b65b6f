/** Ends lie along their line; turned round, what held the run before holds the run after. */
import type { Line, Plan } from '../../plan/schema.js';

export const placed = {
  places: { spots: ['ends'] },
  turned(_plan: Plan, line: Line): void {
    for (const end of line.ends ?? []) {
      const { before, after } = end;
      delete end.before;
      delete end.after;
      if (after) end.before = after;
      if (before) end.after = before;
    }
  },
};
