/**
 * The fewest strands that keep every rule, by exact search over heights in 10 mm steps. Among
 * make-ups of as few strands: the lowest as high as it may be, then the lowest top, then the most
 * even use of the allowed gaps.
 */
import type { Duty } from '../plan/schema.js';
import type { Order, Requirement } from '../report/schema.js';
import { strictest } from './judge.js';
import { reachOf } from './opening.js';

const STEP_MM = 10;
/** More strands than this no fence has. */
const MOST = 20;
/** Strands of a plan stand this far apart or more, m. */
const LEAST = 0.01;
/** How far above the least top a make-up may end, steps. */
const OVER = 60;

/** A strand that stays where it is: its height, its duty, and whether it stands on the ground. */
export interface Standing {
  readonly height_m: number;
  readonly panel: boolean;
  readonly duty: Duty;
}

export interface Found {
  readonly heights_m: readonly number[];
  readonly duties: readonly Duty[];
  /** Which of them stand already. */
  readonly standing: readonly boolean[];
}

/**
 * A requirement as the search sees it, as text: what a push may open and how long the bays are, which differ
 * from run to run, are no matter of it. Whoever remembers what the search found does so by this.
 */
export const searchKey = (need: Requirement): string =>
  JSON.stringify({
    ...need,
    needs: need.needs.map((n) => ({ ...n, opening_m: 0 })),
    rows: need.rows.filter((r) => r.about !== 'opening' && r.about !== 'bay'),
  });

interface Cell {
  readonly start: number;
  readonly even: number;
  readonly from: Cell | null;
  readonly k: number;
  readonly height_m: number;
  readonly duty: Duty;
  readonly live: number;
  readonly earth: boolean;
  readonly old: boolean;
}

/**
 * Searches one order of duties.
 * @param tighter every allowed gap is taken smaller by this, m: how far a push may then open it
 * @param standing strands that stay and are not counted
 * @returns null when no make-up keeps the rules in this order
 */
export function search(
  need: Requirement,
  order: Order,
  tighter = 0,
  standing: readonly Standing[] = [],
): Found | null {
  const mm = (m: number) => Math.round((m * 1000) / STEP_MM);
  const top = Math.ceil((need.topMin_m * 1000) / STEP_MM - 1e-6);
  const last = Math.max(top, mm(need.lowestMax_m)) + OVER;
  const first = Math.max(1, Math.ceil((need.lowestMin_m * 1000) / STEP_MM - 1e-6));
  const apart = Math.ceil((need.gapMin_m * 1000) / STEP_MM - 1e-6);
  const old = new Map(standing.map((s) => [mm(s.height_m), s]));
  const panel = [...old].find(([, s]) => s.panel)?.[0];
  // What stands keeps its height to the millimetre, between the steps of the search.
  const heightOf = (k: number) => old.get(k)?.height_m ?? (k * STEP_MM) / 1000;
  // What lies below the top of a panel hangs on it.
  const olds = [...old.keys()].filter((k) => k >= (panel ?? 0)).sort((a, b) => a - b);
  const hung = [...old].filter(([k, s]) => k < (panel ?? 0) && s.duty === 'live').length;
  const rules = rulesOf(need, order);
  const reach = reachOf(need);
  const wantLive = rules.live;

  // Allowed gaps, once for each pair of heights.
  const limits = new Map<number, number>();
  const limit = (a: number, b: number): number => {
    const key = a * 1000 + b;
    let known = limits.get(key);
    if (known === undefined) {
      const strict = strictest(need.needs, heightOf(a), heightOf(b));
      known = strict ? Math.max(0.02, strict.limit - tighter) : Infinity;
      limits.set(key, known);
    }
    return known;
  };
  /** The step beyond which no gap from `a` is allowed: that of whoever still cares there and allows least at its widest. */
  const furthestFrom = (a: number): number => {
    const low = heightOf(a);
    let widest = Infinity;
    for (const n of need.needs)
      if (low < n.topMin_m - 1e-9) widest = Math.min(widest, Math.max(n.gapMax_m, n.upperGapMax_m));
    return a + Math.ceil((Math.max(0.02, widest - tighter) * 1000) / STEP_MM) + 1;
  };
  const keyOf = (k: number, duty: Duty, live: number, earth: boolean) =>
    ((k * 3 + DUTY[duty]) * (wantLive + 1) + live) * 2 + (earth ? 1 : 0);
  const better = (start: number, even: number, than: Cell | undefined) =>
    !than || start > than.start || (start === than.start && even < than.even - 1e-12);
  const put = (into: Map<number, Cell>, c: Cell): boolean => {
    const key = keyOf(c.k, c.duty, c.live, c.earth);
    const isBetter = better(c.start, c.even, into.get(key));
    if (isBetter) into.set(key, c);
    return isBetter;
  };
  const begin = (k: number, duty: Duty, isOld: boolean, into: Map<number, Cell>) =>
    put(into, {
      start: k,
      even: duty === 'earth' ? 1e-6 : 0,
      from: null,
      k,
      height_m: heightOf(k),
      duty,
      live: Math.min(wantLive, hung + (duty === 'live' ? 1 : 0)),
      earth: duty === 'earth',
      old: isOld,
    });
  // Old strands are not counted: a make-up that begins with one begins in the layer of none.
  const layers: Map<number, Cell>[] = [new Map(), new Map()];
  const lowestMax = Math.floor((need.lowestMax_m * 1000) / STEP_MM + 1e-6);
  const lowestOld = olds[0] ?? Infinity;
  if (panel !== undefined || (olds.length > 0 && heightOf(lowestOld) <= need.lowestMax_m + 1e-6))
    begin(lowestOld, old.get(lowestOld)!.duty, true, layers[0]!);
  if (panel === undefined) {
    for (let k = first; k <= Math.min(lowestMax, lowestOld - 1); k++) {
      if (heightOf(lowestOld) - heightOf(k) < LEAST - 1e-9) continue;
      for (const duty of rules.lowest) begin(k, duty, false, layers[1]!);
    }
  }
  return climb();

  /** Layers hold make-ups of as many new strands as their index. */
  function climb(): Found | null {
    for (let used = 0; used <= MOST; used++) {
      const here = layers[used];
      if (!here) return null;
      const done: Cell[] = [];
      // Old strands cost nothing: they are reached within the layer, from the ground up.
      const queue = [...here.values()].sort((a, b) => a.k - b.k);
      for (let q = 0; q < queue.length; q++) {
        const c = queue[q]!;
        if (here.get(keyOf(c.k, c.duty, c.live, c.earth)) !== c) continue;
        if (ends(c, used)) done.push(c);
        climbFrom(c, (layers[used + 1] ??= new Map()), (next) => {
          if (!put(here, next)) return;
          const at = queue.findIndex((o, i) => i > q && o.k > next.k);
          queue.splice(at < 0 ? queue.length : at, 0, next);
        });
      }
      if (done.length) {
        const best = done.reduce((a, b) =>
          b.start > a.start ||
          (b.start === a.start && (b.k < a.k || (b.k === a.k && b.even < a.even - 1e-12)))
            ? b
            : a,
        );
        return unwind(best);
      }
    }
    return null;
  }

  function ends(c: Cell, used: number): boolean {
    const all = used + old.size;
    if (heightOf(c.k) < need.topMin_m - 1e-6 || c.k < (olds.at(-1) ?? 0)) return false;
    if (all < need.minStrands || c.live < wantLive) return false;
    if (rules.earth && !c.earth) return false;
    return c.old || rules.top === null || c.duty === rules.top;
  }

  /** Sets every strand that may follow: a new one into the layer above, one that stands to whoever takes it. */
  function climbFrom(c: Cell, above: Map<number, Cell>, stands: (next: Cell) => void): void {
    const nextOld = olds.find((k) => k > c.k) ?? Infinity;
    const furthest = Math.min(last, nextOld, furthestFrom(c.k));
    // Above the top that is asked for a strand holds nothing: none is put there to make up a number.
    const full = heightOf(c.k) >= need.topMin_m - 1e-6;
    for (let k = c.k + 1; k <= furthest; k++) {
      const isOld = k === nextOld;
      if (!isOld && (full || (!c.old && k - c.k < apart))) continue;
      const most = limit(c.k, k);
      const gap = heightOf(k) - heightOf(c.k);
      if (gap > most + 1e-9 || gap < LEAST - 1e-9) continue;
      const bridged = rules.earth && ((c.k + k) * STEP_MM) / 2000 < reach;
      const even = c.even + (gap / Math.min(most, 10)) ** 2;
      for (const duty of isOld ? [old.get(k)!.duty] : rules.duties) {
        if (bridged && (duty === c.duty || duty === 'cold')) continue;
        if (rules.earth && !bridged && duty === 'earth') continue;
        // A cold strand stands on top or nowhere.
        if (!isOld && c.duty === 'cold' && !c.old) continue;
        const live = Math.min(wantLive, c.live + (duty === 'live' ? 1 : 0));
        const earth = c.earth || duty === 'earth';
        // Most are no better than what is there: nothing is made of them.
        const key = keyOf(k, duty, live, earth);
        if (!isOld && !better(c.start, even, above.get(key))) continue;
        const next: Cell = { start: c.start, even, from: c, k, height_m: heightOf(k), duty, live, earth, old: isOld }; // prettier-ignore
        if (isOld) stands(next);
        else above.set(key, next);
      }
    }
  }
}

const DUTY = { live: 0, earth: 1, cold: 2 } as const;

/** What an order asks of the duties, from the ground up. */
function rulesOf(need: Requirement, order: Order) {
  const cold = order === 'coldTop' || need.topDuty === 'cold';
  const earth = order === 'turns';
  const lowestLive = need.needs.some((n) => n.lowestLive);
  const duties: Duty[] = ['live'];
  if (earth) duties.push('earth');
  if (cold) duties.push('cold');
  return {
    duties,
    earth,
    lowest: (earth && !lowestLive ? ['live', 'earth'] : ['live']) as Duty[],
    top: cold ? ('cold' as const) : need.topDuty,
    // With its lowest strand off, a fence still wants one that is live.
    live: order === 'switched' ? Math.max(2, need.minLive) : need.minLive,
  };
}

function unwind(last: Cell): Found {
  const cells: Cell[] = [];
  for (let c: Cell | null = last; c; c = c.from) cells.unshift(c);
  return {
    heights_m: cells.map((c) => c.height_m),
    duties: cells.map((c) => c.duty),
    standing: cells.map((c) => c.old),
  };
}
