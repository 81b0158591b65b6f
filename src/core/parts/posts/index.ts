/** Posts along a line: where they stand, the runs and bays between them. */
import { recordOf } from '../../plan/catalogue.js';
import { JOIN_TOLERANCE } from '../../plan/geometry.js';
import type { Post } from '../../report/schema.js';
import { ANY_STOCK } from '../../posts/bays.js';
import { outFor } from '../../posts/kinds.js';
import { layOut, type Layout } from '../../posts/layout.js';
import { rising } from '../door.js';
import type { EndsPiece } from '../ends/index.js';
import type { GroundPiece } from '../ground/index.js';
import { lineStage, type Counted, type Door, type Items, type Shown } from '../part.js';
import type { StockPiece } from '../stock/index.js';
import { keys } from './keys.js';
import { placed } from './placed.js';
import { baysTooLong } from './rules/baysTooLong.js';
import { bendUnbraced } from './rules/bendUnbraced.js';
import { gradeBreaks } from './rules/gradeBreak.js';
import { postBarred } from './rules/postBarred.js';
import { postShort } from './rules/postShort.js';
import { postUnsuited } from './rules/postUnsuited.js';

export interface PostsPiece extends Shown<typeof keys> {
  readonly layout: Layout;
  /** Its posts but for those that another line brings. */
  readonly own: readonly Post[];
}

export const posts = {
  id: 'posts' as const,
  keys,
  ...placed,
  check(door: Door): void {
    for (const [key, line] of Object.entries(door.plan.lines)) {
      door.named(door.cat.posts, line.post, `/lines/${key}/post`, 'post');
      if (line.dropper)
        door.named(door.cat.droppers, line.dropper.kind, `/lines/${key}/dropper/kind`, 'dropper');
      for (const list of ['pins', 'placed'] as const) {
        (line[list] ?? []).forEach((p, i) => {
          if (p.kind !== null)
            door.named(door.cat.posts, p.kind, `/lines/${key}/${list}/${i}/kind`, 'post');
        });
      }
    }
    rising(door, 'pins');
    rising(door, 'placed');
  },
  line: lineStage({
    needs: (
      { line, gates, joints, cat },
      { ground, stock, ends }: { ground: GroundPiece; stock: StockPiece; ends: EndsPiece },
    ) => ({
      vertices: line.vertices,
      post: line.post,
      maxBay_m: line.maxBay_m,
      pins: line.pins,
      placed: line.placed,
      dropper: line.dropper,
      out_m: outFor(line.strands, cat),
      seconds: ends.seconds,
      kinds: ends.kinds,
      gates,
      joints,
      profile: ground.profile,
      small: stock.asked?.small ?? ANY_STOCK.small,
      holdBay_m: stock.asked?.holdBay_m ?? ANY_STOCK.holdBay_m,
      cat,
    }),
    work({ gates, joints, profile, small, holdBay_m, cat, ...line }): PostsPiece {
      const layout = layOut(line, gates, profile, { small, holdBay_m }, cat, joints);
      // A post that another line brings is bought there.
      const own = layout.posts.filter(
        (p) => !joints.some((j) => j.shared && Math.abs(j.s - p.s_m) <= JOIN_TOLERANCE),
      );
      const { runs, stretches, droppers } = layout;
      return { layout, own, runs: [...runs], stretches: [...stretches], droppers: [...droppers] };
    },
  }),
  count({ line, cat, of }: Counted): Items {
    const { layout, own } = (of as { posts: PostsPiece }).posts;
    if (line.standing) return [];
    const out = own.map((p) => [recordOf(cat.posts, p.kind).price, 1] as const);
    const dropper = line.dropper && recordOf(cat.droppers, line.dropper.kind).price;
    return [...out, ...(dropper ? [[dropper, layout.droppers.length] as const] : [])];
  },
  rules: [postShort, postUnsuited, baysTooLong, postBarred, bendUnbraced, gradeBreaks],
};
