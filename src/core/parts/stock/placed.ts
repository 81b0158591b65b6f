/** The stock on both sides of a line change places when it is turned. */
import type { Line, Plan } from '../../plan/schema.js';

export const placed = {
  turned(_plan: Plan, line: Line): void {
    [line.left, line.right] = [line.right, line.left];
  },
};
