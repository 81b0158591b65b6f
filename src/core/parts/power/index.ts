/** Energisers on their networks: which lines hang together, volts by season, earth, what is dead. */
import { USES } from '../../report/uses.js';
import { intern, memoFew } from '../../base/memo.js';
import { figure, usual, type Catalogue, type SeasonId } from '../../plan/catalogue.js';
import type { Energiser } from '../../plan/schema.js';
import { planLength, pointAt } from '../../plan/geometry.js';
import { topologyOf, type Mark, type Topology } from '../../plan/topology.js';
import { feedOf, placesNamed } from '../../power/circuit.js';
import { ABOUT, powerOf, seasonPower, type PowerResult } from '../../power/power.js';
import { plateOfUnit } from '../../power/unit.js';
import { voltsOf, type Volts } from '../../power/volts.js';
import type { AimedLine } from '../../power/wired.js';
import { leastFelt, type FeltLine } from '../../compare/feltOn.js';
import type { EnergiserReport, Report } from '../../report/schema.js';
import { usualSupply, type Supply } from '../../sizing/supply.js';
import { ownKeys } from '../door.js';
import {
  lineStage,
  seasonOf,
  type Door,
  type Items,
  type ShownWhole,
  type WholeGiven,
} from '../part.js';
import type { PostsPiece } from '../posts/index.js';
import type { StockPiece } from '../stock/index.js';
import { keys } from './keys.js';
import { placed } from './placed.js';
import { belowAim } from './rules/belowAim.js';
import { dead as deadRule } from './rules/dead.js';
import { earthTest } from './rules/earthTest.js';
import { feeding } from './rules/feeding.js';
import { earthNear, mainsFar, networksClose } from './rules/nearOthers.js';
import { noDiverter } from './rules/noDiverter.js';
import { overLimit } from './rules/overLimit.js';
import { feltLittle } from './rules/feltLittle.js';
import { plateFits } from './rules/plateFits.js';
import { rodsClose } from './rules/rodsClose.js';
import { supplyShort } from './rules/supplyShort.js';

/** Lines and marks that say the same are the same, in every pipeline: a plan that is thought of, a mend that is
 * tried, asks for new volts only where it changes what they rest on. */
const oneWired = intern<AimedLine>((w) => JSON.stringify(w), 4000);
const oneMarks = intern<readonly Mark[]>((m) => JSON.stringify(m), 4000);
const oneFelt = intern<FeltLine>((f) => JSON.stringify(f), 4000);
/** Answers of each energiser that are kept: the plan's own, and of mends that are being tried. */
const KEPT = 6;
/** Volts of one unit in one season each: in the hand one of them follows, and at rest none is worked out twice. */
const volts = memoFew<Volts | null>(KEPT);
const solved = memoFew<{ report: EnergiserReport; dead: PowerResult['dead'] }>(KEPT);

export interface PowerPiece {
  readonly wired: AimedLine;
  readonly felt: FeltLine;
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
      id: line.id,
      vertices: line.vertices,
      strands: line.strands,
      growth: line.growth,
      joins: line.joins,
      gates,
      runs: of.posts.layout.runs,
      asked: of.stock.asked,
      snow: line.snow ?? false,
      usual_V: figure(cat, 'network.aimDefault'),
    }),
    work: ({
      id,
      vertices,
      strands,
      growth,
      joins,
      gates,
      runs,
      asked,
      snow,
      usual_V,
    }): PowerPiece => ({
      wired: oneWired({
        line: { id, vertices, strands, growth, ...(joins ? { joins } : {}) },
        gates,
        runs,
        aim_V: asked?.aim_V ?? usual_V,
      }),
      felt: oneFelt({ asked, snow, posts: everySoOften(vertices) }),
    }),
  }),
  property() {
    let last: { readonly ids: string; readonly piece: PowerWhole } | null = null;
    return ({ plan, cat, lines, meetings, hurry }: WholeGiven): PowerWhole => {
      // The volts may stay behind the hand for a moment, while the same lines and units are there.
      const ids = [...Object.keys(plan.lines), '', ...Object.keys(plan.energisers)].join();
      const before = last?.ids === ids ? last.piece : null;
      if ((hurry === true || hurry === 'volts') && before) return before;
      const wired = Object.fromEntries(
        Object.entries(lines).map(([id, of]) => [id, (of as { power: PowerPiece }).power.wired]),
      );
      const felt = Object.fromEntries(
        Object.entries(lines).map(([id, of]) => [id, (of as { power: PowerPiece }).power.felt]),
      );
      const marks = placesNamed(wired, plan.energisers, figure(cat, 'network.piece'));
      const found = topologyOf(plan.lines, marks, meetings);
      const topology = {
        ...found,
        marks: Object.fromEntries(Object.entries(found.marks).map(([id, m]) => [id, oneMarks(m)])),
      };
      const groups = topology.groups.map((group) => ({
        lines: group,
        energisers: Object.values(plan.energisers).filter(
          (e) => e.line !== null && group.includes(e.line),
        ),
      }));
      const shared = groups
        .filter((g) => g.energisers.length > 1)
        .map((g) => g.energisers.map((e) => e.id));
      if (hurry === 'networks')
        return { wired, topology, groups, energisers: {}, dead: [], shared };
      const energisers: Report['energisers'] = {};
      const dead: Report['dead'] = [];
      for (const { lines: ids, energisers: own } of groups) {
        // A network rests on its own lines and joints alone: others may change beside it.
        const on = ids.flatMap((id) => [wired[id], topology.marks[id], felt[id]]);
        for (const e of own) {
          const net = { energiser: e, ids, wired, topology, plan, cat };
          const rests = [e, plan.sizing, plan.soil, plan.things, plan.climate, cat, ...on];
          const voltsIn = (season: SeasonId) =>
            volts.get(`${e.id} ${season}`, rests, () => voltsOf(net, season));
          const season = seasonOf(hurry);
          const was = season && before?.energisers[e.id];
          if (before && season && was) {
            // In the hand the season that is looked at follows alone.
            const now = seasonPower(net, voltsIn(season));
            energisers[e.id] = { ...was, seasons: { ...was.seasons, [season]: now } };
            if (e === own[0]) dead.push(...before.dead.filter((d) => ids.includes(d.line)));
            continue;
          }
          if (hurry === 'first') {
            // A first figure, marked as such.
            const about = powerOf(net, ABOUT);
            energisers[e.id] = { ...about.report, felt: null };
            if (e === own[0]) dead.push(...about.dead);
            continue;
          }
          const result = solved.get(e.id, rests, () => {
            const { report, dead, known } = powerOf(net, voltsIn);
            const least = leastFelt(net, felt, known);
            return {
              report: { ...report, felt: least && { ...least, lines: [...least.lines] } },
              dead,
            };
          });
          energisers[e.id] = result.report;
          if (e === own[0]) dead.push(...result.dead);
        }
        if (own.length === 0) dead.push(...ids.flatMap((id) => wholeLine(wired[id]!)));
      }
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
            // A unit with a plate of its own is there already.
            [`energiser.${e.model}`, e.plate ? 0 : 1],
            ['earth.rod', e.rods + (e.diverter?.rods ?? 0)],
            ['earth.clamp', e.rods + (e.diverter?.rods ?? 0)],
            ['diverter', e.diverter ? 1 : 0],
            ['cable', lead_m],
            // From rod to rod the fence's own wire: one metal, and seen above the grass.
            [`wire.${usual('wire')}`, rodLead, undefined, USES.rodLeads],
            ...suppliedBy(e, cat),
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
    plateFits,
    belowAim,
    feltLittle,
    noDiverter,
    supplyShort,
    deadRule,
    earthTest,
    rodsClose,
  ],
};

/**
 * Batteries and panels of a unit, by those of the price book: all of a battery unit, of a solar unit what is said beyond
 * what it comes with.
 */
function suppliedBy(e: Energiser, cat: Catalogue): Items {
  const { supply } = plateOfUnit(e, cat);
  if (supply === 'mains') return [];
  const [usual, own] = [usualSupply(cat), e.supply ?? usualSupply(cat)];
  const stored = (s: Supply) => s.battery_Ah * s.battery_V;
  const more = (of: (s: Supply) => number) => of(own) - (supply === 'solar' ? of(usual) : 0);
  const many = (part: number, whole: number) => Math.max(0, Math.ceil(part / whole - 1e-9));
  return [
    ['battery', many(more(stored), stored(usual))],
    [
      'panel',
      many(
        more((s) => s.panel_W),
        usual.panel_W,
      ),
    ],
  ];
}

/** Places along a line that its soil is asked at, m. */
const SOIL_EVERY = 25;

function everySoOften(vertices: AimedLine['line']['vertices']): { e: number; n: number }[] {
  const total = planLength({ vertices });
  const many = Math.ceil(total / SOIL_EVERY);
  return Array.from({ length: many + 1 }, (_, k) => {
    const { e, n } = pointAt(vertices, (total * k) / many);
    return { e, n };
  });
}

function wholeLine(w: AimedLine): Report['dead'] {
  if (!w.line.strands.some((s) => s.duty === 'live')) return [];
  return w.runs.map((r) => ({ line: w.line.id, from_m: r.from_m, to_m: r.to_m }));
}
