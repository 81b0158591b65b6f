/** What the strained wire does to the posts, and the gap that it leaves over the ground. */
import { soilAt } from '../../land/things.js';
import { recordOf, type Catalogue } from '../../plan/catalogue.js';
import type { Plan } from '../../plan/schema.js';
import { clearanceUnder, fillsUnder, withUplift, type RunPull } from '../../posts/forces.js';
import { pullOut } from '../../posts/pullout.js';
import type { Post } from '../../report/schema.js';
import { mostUnder } from '../../strands/under.js';
import { bottomOf } from '../../wire/bottom.js';
import { hotPull } from '../../wire/strain.js';
import { wireOf } from '../../wire/wires.js';
import type { GroundPiece } from '../ground/index.js';
import { lineStage, type Shown } from '../part.js';
import type { PostsPiece } from '../posts/index.js';
import type { StockPiece } from '../stock/index.js';
import type { WirePiece } from '../wire/index.js';
import { keys } from './keys.js';
import { clearance } from './rules/clearance.js';
import { postLifts } from './rules/postLifts.js';

export type HoldPiece = Shown<typeof keys>;

export const hold = {
  id: 'hold' as const,
  keys,
  line: lineStage({
    needs: (
      { line: { strands, fill_m }, plan: { soil, things }, cat },
      of: { ground: GroundPiece; stock: StockPiece; posts: PostsPiece; wire: WirePiece },
    ) => ({
      strands,
      fill_m,
      soil,
      things,
      profile: of.ground.profile,
      layout: of.posts.layout,
      strain: of.wire.strain,
      asked: of.stock.asked,
      cat,
    }),
    work({ strands, fill_m, soil, things, profile, layout, strain, asked, cat }): HoldPiece {
      const weight = strands.reduce((sum, s) => sum + wireOf(s.wire, cat).weight_N_per_m, 0);
      const pulls = layout.runs.map((run, k): RunPull => {
        const cold = (id: string) => strain.find((r) => r.run === k && r.wire === id)!.cold_N;
        const tension_N = strands.reduce((sum, s) => sum + cold(s.wire), 0);
        return { from_m: run.from_m, to_m: run.to_m, tension_N, weight_N_per_m: weight };
      });
      const posts = withHold(withUplift(layout.posts, pulls), { soil, things }, cat);
      const lowest = bottomOf(strands, cat);
      if (!lowest) return { posts, clearance: null, fills: [] };
      const under = [
        lowest.height_m,
        profile,
        posts,
        layout.stretches,
        wireOf(lowest.wire, cat).weight_N_per_m,
        hotPull(strain, lowest.wire),
      ] as const;
      const limit = mostUnder(lowest.height_m, asked, cat);
      return {
        posts,
        clearance: clearanceUnder(...under),
        fills: fill_m ? fillsUnder(limit, ...under) : [],
      };
    },
  }),
  rules: [clearance, postLifts],
};

function withHold(
  posts: readonly Post[],
  land: Pick<Plan, 'soil' | 'things'>,
  cat: Catalogue,
): Post[] {
  const known = new Map<string, number>();
  return posts.map((post) => {
    const soil = soilAt(land, post);
    const key = `${post.kind} ${soil}`;
    let holds_N = known.get(key);
    if (holds_N === undefined) {
      holds_N = pullOut(recordOf(cat.posts, post.kind), recordOf(cat.soils, soil), cat);
      known.set(key, holds_N);
    }
    return { ...post, holds_N };
  });
}
