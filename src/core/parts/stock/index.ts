/** Who must be held, and what they ask of the strands. */
import type { Requirement } from '../../report/schema.js';
import { requirementOf } from '../../strands/requirement.js';
import { lineStage, type Door } from '../part.js';
import { keys } from './keys.js';
import { placed } from './placed.js';
import { later } from './rules/later.js';
import { unsaid } from './rules/unsaid.js';

export interface StockPiece {
  /** What the stock ask, before the ground has its say on the bays; null: the line faces nothing. */
  readonly asked: Requirement | null;
}

const SIDES = ['left', 'right', 'keepOut'] as const;

export const stock = {
  id: 'stock' as const,
  keys,
  ...placed,
  check({ plan, cat, named }: Door): void {
    for (const list of SIDES) {
      for (const [key, line] of Object.entries(plan.lines)) {
        line[list].forEach((id, i) =>
          named(cat.profiles, id, `/lines/${key}/${list}/${i}`, 'profile'),
        );
      }
      plan.newLines[list].forEach((id, i) =>
        named(cat.profiles, id, `/newLines/${list}/${i}`, 'profile'),
      );
    }
    for (const [key, line] of Object.entries(plan.lines))
      line.later?.forEach((id, i) =>
        named(cat.profiles, id, `/lines/${key}/later/${i}`, 'profile'),
      );
    if (plan.newLines.model !== undefined)
      named(cat.energisers, plan.newLines.model, '/newLines/model', 'energiser');
  },
  line: lineStage({
    needs: ({ line, cat }) => ({
      left: line.left,
      right: line.right,
      keepOut: line.keepOut,
      boundary: line.boundary,
      stepOver: line.stepOver,
      snow: line.snow,
      dim: line.dim,
      demands: line.demands,
      cat,
    }),
    work: ({ cat, ...facing }): StockPiece => ({ asked: requirementOf(facing, cat) }),
  }),
  rules: [unsaid, later],
};
