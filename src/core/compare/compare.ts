/** The orders of duties side by side for one line, the one to take, and the figure that decides. */
import { bisect } from '../base/numbers.js';
import { figure, type Catalogue } from '../plan/catalogue.js';
import type { Line, Plan, Strand } from '../plan/schema.js';
import { growthOf, leakageOfAll } from '../power/leakage.js';
import type { Network } from '../power/wired.js';
import type { LineReport, Order, Strain } from '../report/schema.js';
import { effectiveGap, pushedBy, reachOf } from '../strands/opening.js';
import { hung, ORDERS, propose, type Offer } from '../strands/proposal.js';
import { priceInUse, type Items } from '../supplies/takeoff.js';
import {
  COMPARED,
  type ComparedSeason,
  prospectOf,
  soilUnder,
  type Prospect,
  type Shock,
} from './shock.js';

export interface Row {
  readonly order: Order | 'stands';
  /** Null where the order is not for this line; then `refused` says why. */
  readonly strands: readonly Strand[] | null;
  readonly refused: string | null;
  readonly cost_per_m: number;
  /** Leakage of all live strands together in the wettest season, S/km. */
  readonly leakage_S_per_km: number;
  readonly effectiveGap_m: number | null;
  readonly upkeep_h_per_km: number;
  readonly shocks: readonly Shock[];
  /** The least share of what the aim gives, over stock and seasons, by the better way of each. */
  readonly worst: (Shock & { readonly share: number }) | null;
}

export interface Comparison {
  readonly line: string;
  readonly rows: readonly Row[];
  readonly recommended: Order | null;
  /** Keeps the aim and costs least, or nothing keeps it and this comes nearest. */
  readonly because: 'cheapest' | 'nearest' | 'unfed';
  /** An order that would be taken if it felt a little more: the figures are no surer than that. */
  readonly close: Order | null;
  /** Dry soil at which all live and by turns change places, ohm m; null: they do not. */
  readonly turn_ohm_m: number | null;
  readonly soil_ohm_m: Readonly<Record<(typeof COMPARED)[number], number>>;
}

/** What the comparison of a line rests on. */
export interface Compared {
  readonly line: Line;
  readonly report: LineReport;
  /** What the line takes, with other strands than it has. */
  readonly count: (line: Line) => Items;
  /** The network that feeds the line; null: none does. */
  readonly fed: Network | null;
  readonly plan: Pick<Plan, 'soil' | 'things'>;
  /** Gives a row again while nothing that it rests on has changed; `make` may be given what was seen before. */
  readonly remember: (
    order: Row['order'],
    strands: readonly Strand[],
    make: (seen?: readonly Prospect[]) => Remembered,
  ) => Remembered;
  /** Tension of the line with other strands. */
  readonly strainWith: (strands: readonly Strand[]) => readonly Strain[];
}

/** A row with what was seen of the network, kept while nothing that it rests on changes. */
export interface Remembered {
  readonly row: Row;
  readonly seen: readonly Prospect[];
}

/** Compares what stands and every order; null while the line faces nothing. */
export function compareOrders(c: Compared, cat: Catalogue): Comparison | null {
  const need = c.report.requirement;
  if (!need) return null;
  const under = (season: (typeof COMPARED)[number]) =>
    soilUnder(c.report.posts, c.plan, season, c.line.snow ?? false, cat);
  const soil_ohm_m = { dry: under('dry'), wet: under('wet') };
  const prospects = new Map<Row['order'], readonly Prospect[]>();

  const rowOf = (order: Row['order'], strands: readonly Strand[]): Row => {
    const { row, seen } = c.remember(order, strands, (before) => made(order, strands, before));
    prospects.set(order, seen);
    return row;
  };
  const made = (
    order: Row['order'],
    strands: readonly Strand[],
    before?: readonly Prospect[],
  ): Remembered => {
    const line = { ...c.line, strands: [...strands] };
    const seen = before ?? (c.fed ? prospectsOf(line, c.fed) : []);
    const shocks = seen.flatMap((p) =>
      need.needs.flatMap((n) => p.feel(n, soil_ohm_m[p.season as ComparedSeason])),
    );
    const row: Row = {
      order,
      strands,
      refused: null,
      cost_per_m: costPerMetre({ ...c, line }, cat),
      leakage_S_per_km: leakageOfAll(strands, 'wet', growthOf(c.line, cat), cat),
      effectiveGap_m: effectiveGap(strands, pushedBy(c.strainWith(strands)), cat, reachOf(need)),
      upkeep_h_per_km: upkeepOf(strands, cat),
      shocks,
      worst: worstOf(shocks),
    };
    return { row, seen };
  };
  const ofOffer = (offer: Offer): Row =>
    'refused' in offer
      ? { ...EMPTY, order: offer.order, refused: offer.refused }
      : rowOf(offer.order, hung(offer, need, c.line.strands, c.line.post, cat));
  const orders = ORDERS.map((order) => ofOffer(propose(need, order, cat)));
  const rows = [rowOf('stands', c.line.strands), ...orders];

  const able = orders.filter((r) => r.strands);
  const keep = able.filter((r) => r.worst && r.worst.share >= 1);
  const nearest = (a: Row, b: Row) => (b.worst!.share > a.worst!.share / NOTABLY ? b : a);
  // The simpler order stands first, and a few clamps less do not outweigh it.
  const cheapest = (a: Row, b: Row) => (b.cost_per_m < NOTABLY * a.cost_per_m ? b : a);
  const fed = able.filter((r) => r.worst);
  const because = keep.length ? 'cheapest' : fed.length ? 'nearest' : 'unfed';
  const best = keep.length
    ? keep.reduce(cheapest)
    : fed.length
      ? fed.reduce(nearest)
      : able.length
        ? able.reduce(cheapest)
        : null;

  const almost = able.filter((r) => r.worst && r.worst.share >= 1 - CLOSE);
  const other = almost.length ? almost.reduce(cheapest).order : null;

  const dry = prospects.get('live')?.find((p) => p.season === 'dry');
  /** Least share of all live on dry soil of any resistivity. */
  const dryShare = (rho: number): number | null =>
    dry ? (worstOf(need.needs.flatMap((n) => dry.feel(n, rho)))?.share ?? null) : null;
  return {
    line: c.line.id,
    rows,
    recommended: (best?.order as Order | undefined) ?? null,
    because,
    close: other === null || other === best?.order ? null : (other as Order),
    turn_ohm_m: turningPoint(dryShare),
    soil_ohm_m,
  };
}

/** A cost or a share that differs by less than this is the same. */
const NOTABLY = 0.98;

/** Shares of what is wanted are known no better than this: leakage and soil come from tables. */
const CLOSE = 0.05;

const EMPTY: Omit<Row, 'order'> = {
  strands: null,
  refused: null,
  cost_per_m: 0,
  leakage_S_per_km: 0,
  effectiveGap_m: null,
  upkeep_h_per_km: 0,
  shocks: [],
  worst: null,
};

function prospectsOf(line: Line, fed: Network): Prospect[] {
  const wired = { ...fed.wired, [line.id]: { ...fed.wired[line.id]!, line } };
  return COMPARED.flatMap((season) => prospectOf(line.id, { ...fed, wired }, season) ?? []);
}

/** By profile and season the better of the two ways counts; of those the least share decides. */
function worstOf(shocks: readonly Shock[]): Row['worst'] {
  const best = new Map<string, Shock & { share: number }>();
  for (const s of shocks) {
    const key = `${s.profile} ${s.season}`;
    const share = s.volts_V / s.want_V;
    if (!(best.get(key) && best.get(key)!.share >= share)) best.set(key, { ...s, share });
  }
  let worst: Row['worst'] = null;
  for (const s of best.values()) if (!worst || s.share < worst.share) worst = s;
  return worst;
}

/** Soil on which all live just gives what the aim gives; null where it always or never does. */
function turningPoint(share: (rho: number) => number | null): number | null {
  const at = (x: number) => (share(Math.exp(x)) ?? NaN) - 1;
  const [low, high] = [Math.log(5), Math.log(1e5)];
  if (!(at(low) > 0) || !(at(high) < 0)) return null;
  return Math.exp(bisect(at, low, high, 1e-6));
}

/**
 * Cost of a line by the metre over ground, as its materials are used, coils not rounded up. Its strands are tied at both
 * ends of each run, a connector each; what other lines ask for where they meet is not its own, and the wire of the jumpers,
 * a few metres, is left out.
 */
export function costPerMetre(
  c: Pick<Compared, 'line' | 'report' | 'count'>,
  cat: Catalogue,
): number {
  const tied = (['live', 'earth'] as const)
    .map((duty) => c.line.strands.filter((s) => s.duty === duty).length)
    .reduce((sum, n) => sum + (n > 1 ? n : 0), 0);
  const price = (item: string) => priceInUse(item, cat);
  const cut = c.line.strands.filter((s) => s.switched).length;
  // A strand with a cut-out hangs on the others through a switch at either end, on a wire of its own.
  const perEnd = (tied + cut) * price('clamp.jumper') + cut * price('switch.cutout');
  const ties = 2 * c.report.runs.length * perEnd;
  const cost = c.count(c.line).reduce((sum, [item, n]) => sum + n * price(item), ties);
  return cost / Math.max(c.report.ground_m, 1e-6);
}

/** Hours a year for each kilometre: rounds, strands, and growth cut under the lowest live strand. */
export function upkeepOf(strands: readonly Strand[], cat: Catalogue): number {
  const lowest = strands.find((s) => s.duty === 'live');
  const share = lowest?.switched ? figure(cat, 'upkeep.switchedShare') : 1;
  const mow = lowest
    ? figure(cat, 'upkeep.mow') * Math.exp(-lowest.height_m / figure(cat, 'network.leakHeight'))
    : 0;
  const more = Math.max(0, strands.length - 1);
  return figure(cat, 'upkeep.base') + more * figure(cat, 'upkeep.strand') + share * mow;
}
