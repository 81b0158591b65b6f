/** Ends, corners, gate posts and sharp bends: what holds the pull of the strands there. */
import { endsAlong, type EndsAlong } from '../../ends/along.js';
import { addedPosts, fittings, holeTakes } from '../../ends/takes.js';
import { JOIN_TOLERANCE } from '../../plan/geometry.js';
import { rising } from '../door.js';
import type { GroundPiece } from '../ground/index.js';
import { lineStage, type Counted, type Door, type Items, type Shown } from '../part.js';
import { keys } from './keys.js';
import { placed } from './placed.js';
import { concreteTimber, postUntreated, settingUnsuited } from './rules/material.js';
import {
  braceWireWrong,
  endShallow,
  endTooDeep,
  gateOneDiagonal,
  railShort,
} from './rules/measures.js';
import { endEngineer, endLifts, endOverloaded, endSoft } from './rules/overloaded.js';
import { endNowhere } from './rules/nowhere.js';
import { shortRun } from './rules/shortRun.js';

export interface EndsPiece extends Shown<typeof keys> {
  readonly seconds: EndsAlong['seconds'];
  readonly kinds: EndsAlong['kinds'];
  /** Places whose post another line brings, plan distance, m. */
  readonly brought: readonly number[];
}

export const ends = {
  id: 'ends' as const,
  keys,
  ...placed,
  check(door: Door): void {
    for (const [key, line] of Object.entries(door.plan.lines))
      (line.ends ?? []).forEach(({ post }, k) => {
        if (post !== undefined)
          door.named(door.cat.posts, post, `/lines/${key}/ends/${k}/post`, 'post');
      });
    rising(door, 'ends');
  },
  line: lineStage({
    needs: ({ line, gates, joints, plan, cat }, { ground }: { ground: GroundPiece }) => ({
      vertices: line.vertices,
      post: line.post,
      maxBay_m: line.maxBay_m,
      pins: line.pins,
      strands: line.strands,
      school: line.school,
      ends: line.ends,
      gates,
      joints,
      profile: ground.profile,
      soil: plan.soil,
      things: plan.things,
      climate: plan.climate,
      frost_m: plan.frost_m,
      noDriver: plan.noDriver,
      cat,
    }),
    work({
      gates,
      joints,
      profile,
      cat,
      soil,
      things,
      climate,
      frost_m,
      noDriver,
      ...own
    }): EndsPiece {
      const { pins, ends: hand, ...rest } = own;
      const line = { ...rest, ...(pins ? { pins } : {}), ...(hand ? { ends: hand } : {}) };
      const land = { soil, climate, ...(things ? { things } : {}), ...(frost_m === undefined ? {} : { frost_m }), ...(noDriver ? { noDriver } : {}) }; // prettier-ignore
      const brought = joints.filter((j) => j.shared).map((j) => j.s);
      return { ...endsAlong({ line, gates, joints, profile, land, cat }), brought };
    },
  }),
  count({ line, cat, of }: Counted): Items {
    // Old wire that is kept hangs on ends that stand already.
    if (line.standing || line.strands.every((s) => s.kept)) return [];
    const { ends: all, brought } = (of as { ends: EndsPiece }).ends;
    const out: Items[number][] = [];
    const set = new Set<number>();
    for (const e of all) {
      const at = (taken: ReturnType<typeof fittings>) =>
        out.push(...taken.map(([item, n, use]): Items[number] => item.startsWith('wire.') ? [item, n, undefined, use] : [item, n, e.at_m, use])); // prettier-ignore
      at(fittings(e, cat));
      for (const post of addedPosts(e)) at(holeTakes(e.setting, post, e.depth_m, cat));
      // The post itself is set once, by the line that brings it.
      const brings = !brought.some((s) => Math.abs(s - e.at_m) <= JOIN_TOLERANCE);
      if (brings && !set.has(e.at_m)) at(holeTakes(e.setting, e.post, e.depth_m, cat));
      set.add(e.at_m);
    }
    return out;
  },
  rules: [
    endOverloaded,
    endSoft,
    endLifts,
    braceWireWrong,
    railShort,
    endShallow,
    endTooDeep,
    gateOneDiagonal,
    concreteTimber,
    settingUnsuited,
    postUntreated,
    shortRun,
    endEngineer,
    endNowhere,
  ],
  migrations: [
    {
      to: 2,
      // A rail of so many metres is one of so many heights of the fence.
      up(plan: Record<string, unknown>): void {
        const overrides = plan['overrides'] as
          Record<string, { value: number; note?: string }> | undefined;
        const was = overrides?.['defaults.end.offsetPost.value'];
        if (!overrides || !was) return;
        delete overrides['defaults.end.offsetPost.value'];
        const lines = Object.values(plan['lines'] as Record<string, { strands: { height_m: number }[] }>); // prettier-ignore
        const top = Math.max(0, ...lines.flatMap((l) => l.strands.map((s) => s.height_m)));
        if (top > 0)
          overrides['defaults.ends.railHeights.value'] = { ...was, value: was.value / top };
      },
    },
  ],
};
