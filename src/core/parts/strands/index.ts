/** The strands of a line: what is asked of them, how the rules stand, what is proposed instead. */
import { USES } from '../../report/uses.js';
import { figure, recordOf, usual, type Catalogue } from '../../plan/catalogue.js';
import { JOIN_TOLERANCE } from '../../plan/geometry.js';
import type { Line, Strand } from '../../plan/schema.js';
import { usualBay, usualBayKey } from '../../posts/bays.js';
import type { Layout } from '../../posts/layout.js';
import type { Requirement, Run } from '../../report/schema.js';
import { judge } from '../../strands/judge.js';
import { effectiveGap, pushedBy, reachOf } from '../../strands/opening.js';
import { proposeOne } from '../../strands/proposal.js';
import { withRun } from '../../strands/requirement.js';
import { bendsOf, insulatorAt, type Spot } from '../../strands/insulators.js';
import { endWire } from '../../supplies/tails.js';
import { isBarbed } from '../../wire/bottom.js';
import { ownKeys, soundStrands } from '../door.js';
import { lineStage, type Counted, type Door, type Items, type Shown } from '../part.js';
import type { PostsPiece } from '../posts/index.js';
import type { StockPiece } from '../stock/index.js';
import type { WirePiece } from '../wire/index.js';
import { keys } from './keys.js';
import { barbedForHorses } from './rules/barbedForHorses.js';
import { barbedLive } from './rules/barbedLive.js';
import { bareOnSteel } from './rules/bareOnSteel.js';
import { doesNotHold } from './rules/doesNotHold.js';
import { gapOpens } from './rules/gapOpens.js';
import { gapTooWide } from './rules/gapTooWide.js';
import { leftDesign } from './rules/leftDesign.js';
import { liveUninsulated } from './rules/liveUninsulated.js';
import { nearBarbed } from './rules/nearBarbed.js';
import { panelLive } from './rules/panelLive.js';
import { wireInsulates, wireLongRun } from './rules/wireUnsuited.js';
import { stepOver, topUnseen } from './rules/topOf.js';

export type StrandsPiece = Shown<typeof keys>;

export const strands = {
  id: 'strands' as const,
  keys,
  check(door: Door): void {
    const { plan, named } = door;
    ownKeys(door, 'designs', plan.designs);
    for (const [key, design] of Object.entries(plan.designs ?? {}))
      soundStrands(door, design.strands, `/designs/${key}`);
    for (const [key, line] of Object.entries(plan.lines)) {
      soundStrands(door, line.strands, `/lines/${key}`);
      if (line.design !== undefined)
        named(plan.designs ?? {}, line.design, `/lines/${key}/design`, 'design');
    }
  },
  line: lineStage({
    needs: ({ line, cat }, of: { stock: StockPiece; posts: PostsPiece; wire: WirePiece }) => ({
      strands: line.strands,
      dropped: line.dropper !== undefined,
      asked: of.stock.asked,
      layout: of.posts.layout,
      strain: of.wire.strain,
      cat,
    }),
    work({ strands, dropped, asked, layout, strain, cat }): StrandsPiece {
      const run_m = Math.max(...layout.runs.map((r) => r.ground_m), 1);
      const requirement = asked && withBay(withRun(asked, run_m, cat), layout, dropped, cat);
      const pushed = pushedBy(strain);
      return {
        requirement,
        proposal: requirement && proposeOne(requirement, cat),
        marks: requirement ? judge(strands, requirement, cat, pushed) : [],
        effectiveGap_m: effectiveGap(strands, pushed, cat, reachOf(asked)),
      };
    },
  }),
  count({ line, cat, of }: Counted): Items {
    const { layout } = (of as { posts: PostsPiece }).posts;
    // What stands already of an old fence is not bought.
    const bought = line.strands.filter((s) => !s.kept);
    const insulated = bought.filter((s) => s.insulated);
    const offset = insulated.filter((s) => s.offset_m).length;
    const { strain } = (of as { wire: WirePiece }).wire;
    const bends = bendsOf(line, layout.runs, strain);
    /** Insulators of the strands at a spot, those on brackets aside. */
    const hung = (spot: Spot, family: string | null, bearing_N = 0): Items =>
      insulated
        .filter((s) => spot === 'end' || !s.offset_m)
        .flatMap((s): Items => {
          const id = insulatorAt(line, spot, family, s.wire, cat, bearing_N);
          return id === null ? [] : [[recordOf(cat.insulators, id).price, 1]];
        });
    // Posts that take the same are counted first: a line has hundreds, of a few kinds.
    const alike = new Map<string, { kind: string; spot: Spot; bearing_N: number; posts: number }>();
    for (const { role, kind, s_m } of layout.posts) {
      // Past brace posts too; at ends, corners and gates it is strained off.
      if (role === 'end' || role === 'corner' || role === 'gate') continue;
      const bend = role === 'bend';
      const key = bend ? `${kind} ${s_m}` : kind;
      const own = alike.get(key);
      if (own) own.posts++;
      else {
        const bearing_N = bend ? (bends.find((b) => Math.abs(b.at_m - s_m) < 0.01)?.bearing_N ?? 0) : 0; // prettier-ignore
        const spot = bend ? 'bend' : recordOf(cat.posts, kind).family;
        alike.set(key, { kind, spot, bearing_N, posts: 1 });
      }
    }
    const perPost = [...alike.values()].flatMap((of): Items => {
      const kind = recordOf(cat.posts, of.kind);
      if (kind.takes === 'clip') return [['clip.insulating', of.posts * bought.length]];
      const staples = kind.conducts ? 0 : bought.length * figure(cat, 'supplies.staplesPerPost');
      return [
        ...hung(of.spot, kind.family, of.bearing_N).map(
          ([item, n]) => [item, of.posts * n] as const,
        ),
        ['insulator.offset', of.posts * offset],
        ['staple', of.posts * staples, undefined, USES.driven],
      ];
    });
    const earth = line.strands.some((s) => s.duty === 'earth');
    const endKinds = (at_m: number) =>
      layout.posts.find((p) => Math.abs(p.s_m - at_m) <= JOIN_TOLERANCE)?.kind ?? usual('endPost');
    // A coil of each plain wire stays on an end post.
    const left = [...new Set(bought.filter((s) => recordOf(cat.wires, s.wire).form === 'plain').map((s) => s.wire))].map((wire): Items[number] => [`wire.${wire}`, figure(cat, 'supplies.repairCoil'), undefined, USES.repairs]); // prettier-ignore
    const perRun = layout.runs.flatMap((run): Items => {
      // Earth strands are bonded to rods of their own along the run.
      const rods = earth ? Math.floor(run.ground_m / figure(cat, 'earth.strandRod')) + 1 : 0;
      return [
        ...bought.flatMap((s) => wireOfStrand(s, run, endKinds, line, cat)),
        ...[run.from_m, run.to_m].flatMap((at_m) =>
          hung('end', null).map(([item, n]) => [item, n, at_m] as const),
        ),
        ['staple', 4 * bought.length, undefined, USES.halfDriven],
        ['earth.rod', rods],
        ['earth.clamp', rods],
        ['sleeve.crossing', 2 * barbedWithin(line.strands, cat)],
      ];
    });
    return [...perPost, ...perRun, ...left];
  },
  rules: [
    barbedLive,
    panelLive,
    wireInsulates,
    wireLongRun,
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
  ],
};

/** The longest bay that this ground allows, beside what the stock ask of the strands. */
function withBay(
  asked: Requirement,
  { stretches }: Layout,
  dropped: boolean,
  cat: Catalogue,
): Requirement {
  const undulating = stretches.some((s) => s.undulating);
  const of = { ...asked, undulating, dropped };
  const value = usualBay(of, cat);
  const byStock = value < figure(cat, usualBayKey(of));
  const path = byStock
    ? `profiles.${asked.decidedBy.bay}.holdBay_m`
    : `defaults.${usualBayKey(of)}.value`;
  const bay = {
    about: 'bay' as const,
    profile: byStock ? asked.decidedBy.bay : null,
    path,
    value,
    note: null,
    usual: value,
  };
  return { ...asked, rows: [...asked.rows, bay] };
}

/** Barbed strands between the lowest and the highest live one: each tie between live passes them. */
function barbedWithin(strands: readonly Strand[], cat: Catalogue): number {
  const live = strands.flatMap((s, i) => (s.duty === 'live' ? [i] : []));
  if (live.length < 2) return 0;
  return strands.slice(live[0], live.at(-1)).filter((s) => isBarbed(s, cat)).length;
}

/** Wire of one strand of a run: along it, its two ties, and the pieces beyond its insulators. */
function wireOfStrand(
  strand: Strand,
  run: Run,
  postAt: (at_m: number) => string,
  line: Line,
  cat: Catalogue,
): Items {
  const ends = [run.from_m, run.to_m].map((at_m) => endWire(line, strand, postAt(at_m), cat));
  const item = `wire.${strand.wire}`;
  return [
    [item, run.ground_m, undefined, USES.alongRuns],
    [item, ends[0]!.tie_m + ends[1]!.tie_m, undefined, USES.ties],
    [item, ends[0]!.piece_m + ends[1]!.piece_m, undefined, USES.pieces],
  ];
}
