/** What lies beside the fences: where no post may stand, signs, sleeves over old wire, paddocks. */
import { memoLast } from '../../base/memo.js';
import { paddocksOf } from '../../land/paddocks.js';
import { signsAlong } from '../../land/signs.js';
import { barredOn, stretchesNear, thingsOf } from '../../land/things.js';
import { figure } from '../../plan/catalogue.js';
import { ownKeys } from '../door.js';
import {
  lineStage,
  type Counted,
  type Door,
  type Items,
  type Shown,
  type ShownWhole,
  type WholeGiven,
} from '../part.js';
import type { PostsPiece } from '../posts/index.js';
import { keys } from './keys.js';
import { burnCrossing } from './rules/burnCrossing.js';
import { crosses, looseEnd, paddockOpen } from './rules/meeting.js';
import { oldFence } from './rules/oldFence.js';
import { outside } from './rules/outside.js';
import { overhead } from './rules/overhead.js';
import { gap, paddockGate, paddockSides, paddockWater } from './rules/paddocks.js';
import { outsideStock } from './rules/outsideStock.js';
import { ring } from './rules/ring.js';
import { publicWay } from './rules/publicWay.js';
import { trees } from './rules/trees.js';

export type LandPiece = Shown<typeof keys>;

/** More lines than these are no farm that is followed whole while something is in the hand. */
const MANY = 60;

export const land = {
  id: 'land' as const,
  keys,
  check(door: Door): void {
    const { plan, cat, say, named } = door;
    ownKeys(door, 'things', plan.things);
    for (const [key, thing] of Object.entries(plan.things ?? {})) {
      if (thing.kind === 'soil' && thing.soil === undefined)
        say(`/things/${key}/soil`, 'a patch of soil names its soil');
      if (thing.soil !== undefined) named(cat.soils, thing.soil, `/things/${key}/soil`, 'soil');
    }
    ownKeys(door, 'paddocks', plan.paddocks);
    for (const [key, paddock] of Object.entries(plan.paddocks ?? {})) {
      for (const id of Object.keys(paddock.stock))
        named(cat.profiles, id, `/paddocks/${key}/stock/${id}`, 'profile');
    }
  },
  line: lineStage({
    needs: ({ line, plan: { things }, cat }, { posts }: { posts: PostsPiece }) => ({
      vertices: line.vertices,
      noPosts: line.noPosts,
      boundary: line.boundary,
      live: line.strands.some((s) => s.duty === 'live'),
      runs: posts.runs,
      things,
      cat,
    }),
    work({ vertices, noPosts, boundary, live, runs, things, cat }): LandPiece {
      /** Warning signs: along a boundary, else where the line follows a public way. */
      const signs = () => {
        if (!live) return 0;
        if (boundary)
          return signsAlong(
            runs.reduce((n, r) => n + r.ground_m, 0),
            cat,
          );
        const reach = figure(cat, 'land.publicReach');
        return thingsOf({ things }, 'publicWay')
          .flatMap((way) => stretchesNear({ vertices }, way, reach))
          .reduce((n, [a, b]) => n + signsAlong(b - a, cat), 0);
      };
      return {
        barred: barredOn({ vertices, noPosts }, Object.values(things ?? {}), cat),
        signs: signs(),
      };
    },
  }),
  property() {
    const paddocks = memoLast(paddocksOf);
    let last: { readonly ids: string; readonly piece: ShownWhole<typeof keys> } | null = null;
    return ({ plan, cat, hurry }: WholeGiven): ShownWhole<typeof keys> => {
      const ids = Object.keys(plan.lines);
      // On a station the faces, as the volts, may stay behind the hand for a moment.
      const key = ids.join();
      if (hurry && ids.length > MANY && last?.ids === key) return last.piece;
      const piece = paddocks(
        plan.lines,
        plan.gates,
        plan.things,
        plan.paddocks,
        figure(cat, 'land.gapBridge'),
        figure(cat, 'land.gapLook'),
      );
      last = { ids: key, piece };
      return piece;
    };
  },
  count({ of }: Counted): Items {
    return [['sign', (of as { land: LandPiece }).land.signs]];
  },
  rules: [
    overhead,
    outside,
    gap,
    crosses,
    looseEnd,
    paddockOpen,
    paddockWater,
    paddockGate,
    paddockSides,
    outsideStock,
    ring,
    oldFence,
    burnCrossing,
    publicWay,
    trees,
  ],
};
