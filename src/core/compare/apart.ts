/** Two designs side by side: what differs in parts, hours, cost, volts and holding. */
import { sum } from '../base/numbers.js';
import type { Catalogue } from '../plan/catalogue.js';
import type { Plan, Strand } from '../plan/schema.js';
import type { Finding, Report } from '../report/schema.js';
import { lineHours } from '../supplies/hours.js';
import { priceInUse } from '../supplies/takeoff.js';

/** One design: a plan with its report and its own figures. */
export interface Designed {
  readonly plan: Plan;
  readonly report: Report;
  readonly cat: Catalogue;
}

export type Pair = readonly [a: number, b: number];

export interface PartApart {
  readonly id: string;
  readonly name: string;
  readonly unit: string;
  readonly quantity: Pair;
  /** Of b over a, without tax. */
  readonly cost: number;
}

export interface VoltsApart {
  readonly season: string;
  /** Volts at the place that falls furthest short of its aim, and the line it is on; null: nothing is fed. */
  readonly worst: readonly [Worst | null, Worst | null];
}
interface Worst {
  readonly line: string;
  readonly v_V: number;
  readonly aim_V: number;
}

export interface Apart {
  readonly cost: Pair;
  /** Of what is used, no coil, box or pack rounded up. */
  readonly used: Pair;
  readonly tax: Pair;
  readonly hours: Pair;
  readonly ground_m: Pair;
  readonly wire_m: Pair;
  readonly posts: Pair;
  /** What is bought in other quantities, the greatest difference in money first. */
  readonly parts: readonly PartApart[];
  readonly volts: readonly VoltsApart[];
  /** What only one of them is found wanting in: Stop and Mend. */
  readonly onlyA: readonly Finding[];
  readonly onlyB: readonly Finding[];
}

/** Hours of all lines of a design. */
export const hoursOfAll = ({ plan, report, cat }: Designed): number =>
  Object.values(plan.lines).reduce((sum, line) => {
    const of = report.lines[line.id];
    const gates = Object.values(plan.gates).filter((g) => g.line === line.id);
    return of ? sum + lineHours(line, of, gates, cat) : sum;
  }, 0);

/** What sets b apart from a. */
export function apart(a: Designed, b: Designed): Apart {
  const pair = (of: (d: Designed) => number): Pair => [of(a), of(b)];
  const ids = new Set([a, b].flatMap((d) => d.report.supplies.map((s) => s.id)));
  const parts = [...ids].flatMap((id): PartApart[] => {
    const [p, q] = [a, b].map((d) => d.report.supplies.find((s) => s.id === id));
    const quantity: Pair = [p && !p.out ? p.quantity : 0, q && !q.out ? q.quantity : 0];
    const cost = (q?.cost ?? 0) - (p?.cost ?? 0);
    if (quantity[0] === quantity[1] && Math.abs(cost) < 0.005) return [];
    const { name, unit } = (q ?? p)!;
    return [{ id, name, unit, quantity, cost }];
  });
  const grave = ({ report }: Designed) => report.findings.filter((f) => f.kind !== 'confirm' && !f.accepted); // prettier-ignore
  const [foundA, foundB] = [grave(a), grave(b)];
  const without = (list: readonly Finding[], other: readonly Finding[]) => list.filter((f) => !other.some((o) => o.id === f.id)); // prettier-ignore
  return {
    cost: pair((d) => d.report.totals.cost),
    used: pair(usedOf),
    tax: pair((d) => taxOf(d.report)),
    hours: pair(hoursOfAll),
    ground_m: pair((d) => d.report.totals.ground_m),
    wire_m: pair((d) => d.report.totals.wire_m),
    posts: pair((d) => d.report.totals.posts),
    parts: parts.sort((p, q) => Math.abs(q.cost) - Math.abs(p.cost)),
    volts: seasonsIn(a, b).map((season) => ({ season, worst: [worstIn(a, season), worstIn(b, season)] })), // prettier-ignore
    onlyA: without(foundA, foundB),
    onlyB: without(foundB, foundA),
  };
}

/** Cost of what is used, nothing rounded up to what is sold. */
const usedOf = ({ report, cat }: Designed): number =>
  report.supplies.reduce((total, s) => {
    if (s.out) return total;
    return total + sum(Object.values(s.lines)) * priceInUse(s.id, cat);
  }, 0);

/** Tax on all that is bought. */
export const taxOf = ({ supplies }: Pick<Report, 'supplies'>): number =>
  supplies.reduce((sum, s) => sum + s.cost * s.tax, 0);

const seasonsIn = (...designs: readonly Designed[]): string[] => [
  ...new Set(designs.flatMap((d) => Object.values(d.report.energisers).flatMap((e) => Object.keys(e.seasons)))), // prettier-ignore
];

function worstIn({ report }: Designed, season: string): Worst | null {
  const all = Object.values(report.energisers).flatMap((e) => e.seasons[season]?.worst ?? []);
  if (all.length === 0) return null;
  const { line, v_V, aim_V } = all.reduce((w, x) => (x.v_V / x.aim_V < w.v_V / w.aim_V ? x : w));
  return { line, v_V, aim_V };
}

/** One strand more on a line: in the middle of its widest gap, like the strand below it. */
export function oneMore(strands: readonly Strand[]): { strand: Strand; strands: Strand[] } | null {
  const order = [...strands].sort((a, b) => a.height_m - b.height_m);
  if (order.length < 2 || order.length >= MOST) return null;
  let at = 1;
  for (let k = 2; k < order.length; k++)
    if (order[k]!.height_m - order[k - 1]!.height_m > order[at]!.height_m - order[at - 1]!.height_m + 1e-9) at = k; // prettier-ignore
  const below = order[at - 1]!;
  const height_m = Math.round(500 * (below.height_m + order[at]!.height_m)) / 1000;
  const strand: Strand = { ...below, height_m };
  delete strand.kept;
  return { strand, strands: [...order.slice(0, at), strand, ...order.slice(at)] };
}
/** Strands of a line, at most. */
const MOST = 20;
