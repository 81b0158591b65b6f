/** All rules, and the list of what they find: worst first, then in the order of the work. */
import type { Finding } from '../report/schema.js';
import { sayer, type Rule, type Scene } from './rule.js';
import { barbedForHorses } from './rules/barbedForHorses.js';
import { bareOnSteel } from './rules/bareOnSteel.js';
import { barbedLive } from './rules/barbedLive.js';
import { baysTooLong } from './rules/baysTooLong.js';
import { belowAim } from './rules/belowAim.js';
import { bendUnbraced } from './rules/bendUnbraced.js';
import { clearance } from './rules/clearance.js';
import { coldLimit } from './rules/coldLimit.js';
import { dead } from './rules/dead.js';
import { doesNotHold } from './rules/doesNotHold.js';
import { earthTest } from './rules/earthTest.js';
import { feeding } from './rules/feeding.js';
import { gapTooWide } from './rules/gapTooWide.js';
import { gateNoCable } from './rules/gateNoCable.js';
import { gapOpens } from './rules/gapOpens.js';
import { hotSag } from './rules/hotSag.js';
import { liveUninsulated } from './rules/liveUninsulated.js';
import { nearBarbed } from './rules/nearBarbed.js';
import { leftDesign } from './rules/leftDesign.js';
import { noTensioner } from './rules/noTensioner.js';
import { offGround } from './rules/offGround.js';
import { burnCrossing } from './rules/burnCrossing.js';
import { gateSwing } from './rules/gateSwing.js';
import { earthNear, mainsFar, networksClose } from './rules/nearOthers.js';
import { oldFence } from './rules/oldFence.js';
import { outside } from './rules/outside.js';
import { overhead } from './rules/overhead.js';
import { gap, paddockGate, paddockSides, paddockWater } from './rules/paddocks.js';
import { postBarred } from './rules/postBarred.js';
import { publicWay } from './rules/publicWay.js';
import { trees } from './rules/trees.js';
import { overLimit } from './rules/overLimit.js';
import { postLifts } from './rules/postLifts.js';
import { rodsClose } from './rules/rodsClose.js';
import { stepOver, topUnseen } from './rules/topOf.js';
import { panelLive } from './rules/panelLive.js';
import { unsaid } from './rules/unsaid.js';

export const rules: readonly Rule[] = [
  barbedLive,
  panelLive,
  barbedForHorses,
  nearBarbed,
  liveUninsulated,
  doesNotHold,
  gapTooWide,
  gapOpens,
  topUnseen,
  stepOver,
  bareOnSteel,
  leftDesign,
  overhead,
  outside,
  networksClose,
  earthNear,
  mainsFar,
  gap,
  paddockWater,
  paddockGate,
  paddockSides,
  oldFence,
  burnCrossing,
  publicWay,
  trees,
  gateSwing,
  offGround,
  baysTooLong,
  clearance,
  postLifts,
  postBarred,
  bendUnbraced,
  coldLimit,
  hotSag,
  noTensioner,
  feeding,
  overLimit,
  belowAim,
  dead,
  gateNoCable,
  earthTest,
  rodsClose,
  unsaid,
];

const RANK = { stop: 0, mend: 1, confirm: 2 } as const;

/** Runs every rule over the scene. */
export function findingsOf(seen: Omit<Scene, 'say'>): Finding[] {
  const scene: Scene = { ...seen, say: sayer(seen.plan.units) };
  const all = rules.flatMap((rule) =>
    rule.check(scene).map((f): Finding => ({
      id: `${rule.id}:${f.key}`,
      rule: rule.id,
      kind: f.kind ?? rule.kind,
      title: f.title,
      why: f.why,
      todo: f.todo,
      place: f.place,
      source: { ...rule.source },
      ...(f.mend ? { mend: f.mend } : {}),
    })),
  );
  return all.sort((a, b) => RANK[a.kind] - RANK[b.kind]);
}
