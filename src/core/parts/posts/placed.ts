/** Pins, placed posts and stretches without posts lie along their line. */
import type { Line, Plan } from '../../plan/schema.js';

export const placed = {
  places: { spots: ['pins', 'placed'], stretches: ['noPosts'] },
  turned(_plan: Plan, line: Line): void {
    // "Equal from here to the next" would now mean the other side of the pin.
    for (const pin of line.pins ?? []) delete pin.equal;
  },
  joining(line: Line, other: Line): void {
    // Placed posts of one part only would leave the other part bare.
    if (line.placed && other.placed) return;
    delete line.placed;
    delete other.placed;
  },
};
