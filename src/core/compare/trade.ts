/** Posts against strands: how long a bay each strand count allows, and what each costs by the metre. */
import { addedPosts } from '../ends/takes.js';
import { braceCost } from '../supplies/braceCost.js';
import { figure, recordOf, usual, type Catalogue } from '../plan/catalogue.js';
import type { Line } from '../plan/schema.js';
import type { LineReport, Requirement } from '../report/schema.js';
import { insulatorAt, type Spot } from '../strands/insulators.js';
import { longestBayThatHolds, pulledIn } from '../strands/opening.js';
import { plainestOrder } from '../strands/proposal.js';
import { search, searchKey } from '../strands/search.js';
import { endWire } from '../supplies/tails.js';
import { priceInUse } from '../supplies/takeoff.js';

export interface Trade {
  /** For each strand count: the longest bay in which a push opens no gap further than is held, m. */
  readonly counts: readonly {
    readonly count: number;
    readonly bay_m: number;
    readonly gap_m: number;
    readonly tighter_m: number;
  }[];
  /** What practice allows on this ground, m. */
  readonly mostBay_m: number;
  readonly hot_N: number;
  /** Cost by the metre = ends + count x strand + (post + count x hold) / bay. */
  readonly cost: {
    readonly ends: number;
    readonly strand: number;
    readonly post: number;
    readonly hold: number;
  };
}

/** How many strands beyond the fewest are looked at. */
const MORE = 5;
const known = new WeakMap<Catalogue, Map<string, { count: number; tighter: number }[]>>();

/**
 * How much smaller than allowed every gap can be with each number of strands: the same search as the
 * proposals, with the gaps drawn in by 10 mm at a time.
 */
export function tightest(need: Requirement, cat: Catalogue) {
  let answers = known.get(cat);
  if (!answers) known.set(cat, (answers = new Map()));
  const key = searchKey(need);
  let answer = answers.get(key);
  if (answer) return answer;
  const by = new Map<number, number>();
  let least = 0;
  for (let t = 0; t < 0.6; t += 0.01) {
    const found = search(need, plainestOrder(need), t);
    if (!found) break;
    least ||= found.heights_m.length;
    if (found.heights_m.length > least + MORE) break;
    for (let n = found.heights_m.length; n <= least + MORE; n++) by.set(n, t);
  }
  answer = [...by].map(([count, tighter]) => ({ count, tighter }));
  answers.set(key, answer);
  return answer;
}

/** The trade between bay and count for one line as it is strained; null while it faces nothing. */
export function tradeOf(line: Line, report: LineReport, cat: Catalogue): Trade | null {
  const need = report.requirement;
  const wire = line.strands.find((s) => recordOf(cat.wires, s.wire).form === 'plain')?.wire;
  if (!need || !wire || report.runs.length === 0) return null;
  const pulled = pulledIn(report.strain, wire, cat);
  const opens = Math.min(...need.needs.map((n) => n.opening_m));
  const widest = Math.min(...need.needs.map((n) => n.gapMax_m));
  const kind = recordOf(cat.posts, line.post);
  const price = (item: string) => priceInUse(item, cat);
  const hangsOn = (spot: Spot, family: string | null) =>
    recordOf(cat.insulators, insulatorAt(line, spot, family, wire, cat)!).price;
  const staples = kind.conducts ? 0 : figure(cat, 'supplies.staplesPerPost') * price('staple');
  const left = figure(cat, 'supplies.repairCoil') * price(`wire.${wire}`);
  const perEnds = report.ends.reduce((sum, e) => sum + braceCost(e, cat), left);
  const braces = report.ends.flatMap(addedPosts).map((id) => recordOf(cat.posts, id));
  const perStrandBrace = braces.reduce(
    (sum, { family, conducts }) =>
      sum +
      price(hangsOn(family, family)) +
      (conducts ? 0 : figure(cat, 'supplies.staplesPerPost') * price('staple')),
    0,
  );
  const strand = line.strands.find((s) => s.wire === wire)!;
  const own = endWire(line, strand, report.ends[0]?.post ?? usual('endPost'), cat);
  const endsTake_m = 2 * (own.tie_m + own.piece_m);
  const perStrandEnd =
    report.runs.length *
    (endsTake_m * price(`wire.${wire}`) +
      2 * price(hangsOn('end', null)) +
      2 * price('clamp.jumper') +
      4 * price('staple') +
      (line.tensioner ? price('tensioner') : 0));
  return {
    counts: tightest(need, cat).map(({ count, tighter }) => ({
      count,
      bay_m: longestBayThatHolds(opens + tighter, [pulled, pulled], cat),
      gap_m: widest - tighter,
      tighter_m: tighter,
    })),
    mostBay_m: need.rows.find((r) => r.about === 'bay')!.value,
    hot_N: pulled.hot_N,
    cost: {
      ends: perEnds / report.ground_m,
      strand: price(`wire.${wire}`) + (perStrandEnd + perStrandBrace) / report.ground_m,
      post: price(kind.price),
      hold: price(hangsOn(kind.family, kind.family)) + staples,
    },
  };
}

/** Cost by the metre of so many strands on bays of this length. */
export const costAt = ({ cost }: Trade, count: number, bay_m: number): number =>
  cost.ends + count * cost.strand + (cost.post + count * cost.hold) / bay_m;

/** The bay that a cost by the metre buys with so many strands, m; null when none does. */
export function bayFor({ cost }: Trade, count: number, per_m: number): number | null {
  const left = per_m - cost.ends - count * cost.strand;
  return left > 1e-9 ? (cost.post + count * cost.hold) / left : null;
}
