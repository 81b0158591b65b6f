/** Posts along a line: where they stand, the runs and bays between them. */
import { figure, recordOf, usual } from '../../plan/catalogue.js';
import { layOut, type Layout } from '../../posts/layout.js';
import { rising } from '../door.js';
import type { GroundPiece } from '../ground/index.js';
import { lineStage, type Counted, type Door, type Items, type Shown } from '../part.js';
import type { StockPiece } from '../stock/index.js';
import { keys } from './keys.js';
import { placed } from './placed.js';
import { baysTooLong } from './rules/baysTooLong.js';
import { bendUnbraced } from './rules/bendUnbraced.js';
import { postBarred } from './rules/postBarred.js';

export interface PostsPiece extends Shown<typeof keys> {
  readonly layout: Layout;
}

export const posts = {
  id: 'posts' as const,
  keys,
  ...placed,
  check(door: Door): void {
    for (const [key, line] of Object.entries(door.plan.lines)) {
      door.named(door.cat.posts, line.post, `/lines/${key}/post`, 'post');
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
      { line, gates, cat },
      { ground, stock }: { ground: GroundPiece; stock: StockPiece },
    ) => ({
      vertices: line.vertices,
      post: line.post,
      maxBay_m: line.maxBay_m,
      pins: line.pins,
      placed: line.placed,
      gates,
      profile: ground.profile,
      small: stock.asked?.small ?? false,
      cat,
    }),
    work({ gates, profile, small, cat, ...line }): PostsPiece {
      const layout = layOut(line, gates, profile, small, cat);
      return { layout, runs: [...layout.runs], stretches: [...layout.stretches] };
    },
  }),
  count({ line, cat, of }: Counted): Items {
    const { layout } = (of as { posts: PostsPiece }).posts;
    if (line.standing) return [];
    const out = layout.posts.map((p) => [recordOf(cat.posts, p.kind).price, 1] as const);
    // A brace at both ends of the run, pulling against its wire.
    const braced = line.strands.some((s) => !s.kept) ? 2 * layout.runs.length : 0;
    return [
      ...out,
      [recordOf(cat.posts, usual('bracePost')).price, braced],
      ['end.rail', braced],
      ['end.pin', 2 * braced],
      [`wire.${usual('wire')}`, braced * figure(cat, 'end.braceWire')],
    ];
  },
  rules: [baysTooLong, postBarred, bendUnbraced],
};
