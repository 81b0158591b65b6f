/** Energisers on their networks: which lines hang together, volts by season, earth, what is dead. */
import { memoOn, steady } from '../../base/memo.js';
import { figure } from '../../plan/catalogue.js';
import type { Energiser } from '../../plan/schema.js';
import { topologyOf, type Mark, type Topology } from '../../plan/topology.js';
import { circuitMarks, feedOf } from '../../power/circuit.js';
import { powerOf, type AimedLine, type PowerResult } from '../../power/power.js';
import type { Report } from '../../report/schema.js';
import { ownKeys } from '../door.js';
import { lineStage, type Door, type Items, type ShownWhole, type WholeGiven } from '../part.js';
import type { PostsPiece } from '../posts/index.js';
import type { StockPiece } from '../stock/index.js';
import { keys } from './keys.js';
import { placed } from './placed.js';
import { belowAim } from './rules/belowAim.js';
import { dead as deadRule } from './rules/dead.js';
import { earthTest } from './rules/earthTest.js';
import { feeding } from './rules/feeding.js';
import { earthNear, mainsFar, networksClose } from './rules/nearOthers.js';
import { overLimit } from './rules/overLimit.js';
import { rodsClose } from './rules/rodsClose.js';

export interface PowerPiece {
  readonly wired: AimedLine;
}

/** The network beside its report: what questions about other strands ask it. */
export interface PowerWhole extends ShownWhole<typeof keys> {
  readonly wired: Readonly<Record<string, AimedLine>>;
  readonly topology: Topology;
  /** Lines that hang together, with the energisers that feed them. */
  readonly groups: readonly {
    readonly lines: readonly string[];
    readonly energisers: readonly Energiser[];
  }[];
}

export const power = {
  id: 'power' as const,
  keys,
  ...placed,
  check(door: Door): void {
    const { plan, cat, say, named } = door;
    ownKeys(door, 'energisers', plan.energisers);
    for (const [key, e] of Object.entries(plan.energisers)) {
      if (e.line !== null) named(plan.lines, e.line, `/energisers/${key}/line`, 'line');
      named(cat.energisers, e.model, `/energisers/${key}/model`, 'energiser');
      if (e.rodSpacing_m <= e.rodDiameter_m)
        say(`/energisers/${key}/rodSpacing_m`, 'rods stand in one place');
    }
  },
  line: lineStage({
    needs: ({ line, gates, cat }, of: { stock: StockPiece; posts: PostsPiece }) => ({
      line,
      gates,
      runs: of.posts.layout.runs,
      aim_V: of.stock.asked?.aim_V ?? figure(cat, 'network.aimDefault'),
    }),
    work: (wired): PowerPiece => ({ wired }),
  }),
  property() {
    const steadyMarks = steady(sameMarks);
    const solved = memoOn<PowerResult>();
    let last: { readonly ids: string; readonly piece: PowerWhole } | null = null;
    return ({ plan, cat, lines, meetings, hurry }: WholeGiven): PowerWhole => {
      // The volts may stay behind the hand for a moment, while the same lines and units are there.
      const ids = [...Object.keys(plan.lines), '', ...Object.keys(plan.energisers)].join();
      if (hurry && last?.ids === ids) return last.piece;
      const wired = Object.fromEntries(
        Object.entries(lines).map(([id, of]) => [id, (of as { power: PowerPiece }).power.wired]),
      );
      const marks = marksOf(wired, plan.energisers, figure(cat, 'network.piece'));
      const found = topologyOf(plan.lines, marks, meetings);
      const topology = { ...found, marks: steadyMarks(found.marks) };
      const groups = topology.groups.map((group) => ({
        lines: group,
        energisers: Object.values(plan.energisers).filter(
          (e) => e.line !== null && group.includes(e.line),
        ),
      }));
      const energisers: Report['energisers'] = {};
      const dead: Report['dead'] = [];
      for (const { lines: ids, energisers: own } of groups) {
        // A network rests on its own lines and joints alone: others may change beside it.
        const on = ids.flatMap((id) => [wired[id], topology.marks[id]]);
        for (const e of own) {
          const result = solved.get(
            e.id,
            [e, plan.sizing, plan.soil, plan.things, cat, ...on],
            () => powerOf(e, ids, wired, topology, plan, cat),
          );
          energisers[e.id] = result.report;
          if (e === own[0]) dead.push(...result.dead);
        }
        if (own.length === 0) dead.push(...ids.flatMap((id) => wholeLine(wired[id]!)));
      }
      solved.keep(new Set(Object.keys(plan.energisers)));
      const shared = groups
        .filter((g) => g.energisers.length > 1)
        .map((g) => g.energisers.map((e) => e.id));
      last = { ids, piece: { wired, topology, groups, energisers, dead, shared } };
      return last.piece;
    };
  },
  countProperty({ plan, cat, whole }: WholeGiven): Record<string, Items> {
    const { wired, topology } = (whole as { power: PowerWhole }).power;
    return Object.fromEntries(
      Object.values(plan.energisers).map((e): [string, Items] => {
        const lead_m = feedOf(e, wired, topology)?.lead_m ?? 0;
        const rodLead = e.rodSpacing_m * Math.max(0, e.rods - 1) * figure(cat, 'supplies.rodLead');
        return [
          e.id,
          [
            [`energiser.${e.model}`, 1],
            ['earth.rod', e.rods],
            ['earth.clamp', e.rods],
            ['cable', lead_m + rodLead],
            ['clamp.jumper', 1],
          ],
        ];
      }),
    );
  },
  rules: [
    networksClose,
    earthNear,
    mainsFar,
    feeding,
    overLimit,
    belowAim,
    deadRule,
    earthTest,
    rodsClose,
  ],
};

const sameMarks = (a: readonly Mark[], b: readonly Mark[]): boolean =>
  a.length === b.length && a.every((m, i) => m.s === b[i]!.s && m.location === b[i]!.location);

function marksOf(
  wired: Readonly<Record<string, AimedLine>>,
  energisers: Readonly<Record<string, Energiser>>,
  piece: number,
) {
  const out: Record<string, number[]> = {};
  for (const w of Object.values(wired)) out[w.line.id] = circuitMarks(w, piece);
  for (const e of Object.values(energisers)) if (e.line && out[e.line]) out[e.line]!.push(e.at_m);
  return out;
}

function wholeLine(w: AimedLine): Report['dead'] {
  if (!w.line.strands.some((s) => s.duty === 'live')) return [];
  return w.runs.map((r) => ({ line: w.line.id, from_m: r.from_m, to_m: r.to_m }));
}
