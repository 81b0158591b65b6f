/** Joins lie along their line; turned round, what came to a place leaves it. */
import type { Line, Plan } from '../../plan/schema.js';

const TURNED = { before: 'after', after: 'before', through: 'through' } as const;

export const placed = {
  places: { spots: ['joins', 'crossings'] },
  turned(plan: Plan, line: Line): void {
    for (const own of Object.values(plan.lines))
      for (const { ties } of own.joins ?? [])
        for (const end of ties.flatMap((t) => [t.a, t.b]))
          if ((end.line ?? own.id) === line.id) end.side = TURNED[end.side];
  },
};
