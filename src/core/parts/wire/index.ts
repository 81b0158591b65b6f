/** The wire: its tension in every run, today and at the extremes. */
import { baysOf } from '../../posts/layout.js';
import { isPanel } from '../../wire/bottom.js';
import { strainOf } from '../../wire/strain.js';
import { lineStage, type Counted, type Door, type Items, type Shown } from '../part.js';
import type { PostsPiece } from '../posts/index.js';
import { keys } from './keys.js';
import { coldLimit } from './rules/coldLimit.js';
import { hotSag } from './rules/hotSag.js';
import { noTensioner } from './rules/noTensioner.js';

export type WirePiece = Shown<typeof keys>;

export const wire = {
  id: 'wire' as const,
  keys,
  check({ plan, cat, say, named }: Door): void {
    const { cold_C, today_C, hot_C } = plan.climate;
    if (!(cold_C <= today_C && today_C <= hot_C))
      say('/climate', 'today must lie between the coldest night and the hottest day');
    for (const [key, line] of Object.entries(plan.lines))
      named(cat.schools, line.school, `/lines/${key}/school`, 'school of tension');
  },
  line: lineStage({
    needs: (
      { line: { school, strands, dropper }, plan: { climate }, cat },
      { posts }: { posts: PostsPiece },
    ) => ({ school, strands, dropper, climate, layout: posts.layout, cat }),
    work: ({ school, strands, dropper, climate, layout, cat }): WirePiece => ({
      strain: strainOf(
        { school, strands, ...(dropper ? { dropper } : {}) },
        baysOf(layout),
        climate,
        cat,
      ),
    }),
  }),
  count({ line, cat, of }: Counted): Items {
    if (!line.tensioner) return [];
    const { runs } = (of as { posts: PostsPiece }).posts;
    const strained = line.strands.filter((s) => !s.kept && !isPanel(s, cat)).length;
    return [['tensioner', runs.length * strained]];
  },
  rules: [coldLimit, hotSag, noTensioner],
};
