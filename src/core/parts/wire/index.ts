/** The wire: its tension in every run, today and at the extremes. */
import { baysOf } from '../../posts/layout.js';
import { isPanel } from '../../wire/bottom.js';
import { strainOf } from '../../wire/strain.js';
import { jointsOfLine } from '../../wire/wires.js';
import { recordOf } from '../../plan/catalogue.js';
import { lineStage, type Counted, type Door, type Items, type Shown } from '../part.js';
import type { PostsPiece } from '../posts/index.js';
import { rising } from '../door.js';
import { keys } from './keys.js';
import { placed } from './placed.js';
import { coldLimit } from './rules/coldLimit.js';
import { pullLost, runWrapped, tensionerAtBend, tensionerNowhere } from './rules/friction.js';
import { hotSag } from './rules/hotSag.js';
import { notTakenUp, weakJoint } from './rules/joints.js';
import { noTensioner } from './rules/noTensioner.js';
import { springMissing, springSolidCold } from './rules/springs.js';
import { windowEmpty } from './rules/windowEmpty.js';

export type WirePiece = Shown<typeof keys>;

export const wire = {
  id: 'wire' as const,
  keys,
  ...placed,
  check(door: Door): void {
    const { plan, cat, say, named } = door;
    const { cold_C, today_C, hot_C } = plan.climate;
    if (!(cold_C <= today_C && today_C <= hot_C))
      say('/climate', 'today must lie between the coldest night and the hottest day');
    for (const [key, line] of Object.entries(plan.lines)) {
      named(cat.schools, line.school, `/lines/${key}/school`, 'school of tension');
      for (const use of ['tie', 'join'] as const) {
        const id = line[use];
        if (id === undefined) continue;
        named(cat.joints, id, `/lines/${key}/${use}`, 'joint');
        const where = use === 'tie' ? 'end' : 'join';
        if (Object.hasOwn(cat.joints, id) && !cat.joints[id]!.where.includes(where))
          say(`/lines/${key}/${use}`, `"${id}" is no such joint`);
      }
    }
    for (const id of Object.keys(plan.ownWires ?? {}))
      if (Object.hasOwn(door.shipped.wires, id))
        say(`/ownWires/${id}`, 'the catalogue has a wire of this name');
    (plan.breakTests ?? []).forEach((t, k) => {
      named(cat.wires, t.wire, `/breakTests/${k}/wire`, 'wire');
      if (t.joint !== null) named(cat.joints, t.joint, `/breakTests/${k}/joint`, 'joint');
    });
    rising(door, 'tensioners');
  },
  line: lineStage({
    needs: ({ line, plan: { climate }, cat }, { posts }: { posts: PostsPiece }) => ({
      school: line.school,
      strands: line.strands,
      dropper: line.dropper,
      tensioner: line.tensioner,
      tensionerAt: line.tensionerAt,
      tensioners: line.tensioners,
      springs: line.springs,
      tie: line.tie,
      join: line.join,
      takenUp_on: line.takenUp_on,
      climate,
      layout: posts.layout,
      cat,
    }),
    work: ({ climate, layout, cat, ...line }): WirePiece => ({
      strain: strainOf(line, baysOf(layout), climate, cat),
    }),
  }),
  count({ line, cat, of }: Counted): Items {
    const { runs } = (of as { posts: PostsPiece }).posts;
    const strained = line.strands.filter((s) => !s.kept && !isPanel(s, cat)).length;
    const each = runs.length * strained;
    const tie = recordOf(cat.joints, jointsOfLine(line).tie).price;
    return [
      ...(line.tensioner ? [['tensioner', each] as const] : []),
      ...(line.springs ? [['spring', each] as const] : []),
      ...(tie ? [[tie, 2 * each] as const] : []),
    ];
  },
  rules: [
    coldLimit,
    hotSag,
    windowEmpty,
    runWrapped,
    pullLost,
    noTensioner,
    tensionerAtBend,
    tensionerNowhere,
    weakJoint,
    springMissing,
    springSolidCold,
    notTakenUp,
  ],
};
