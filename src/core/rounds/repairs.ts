/** What repairs cost, by year and line, and what they leave of a strand. */
import { sum } from '../base/numbers.js';
import { recordOf, type Catalogue } from '../plan/catalogue.js';
import type { Line } from '../plan/schema.js';
import type { Repaired } from './logged.js';

export interface Repair {
  readonly id: string;
  readonly time: string;
  readonly who: string;
  readonly line: string | null;
  readonly at_m: number | null;
  readonly what: Repaired;
  readonly strand: number | null;
  readonly joint: string | null;
  /** JSON of what was used: item to quantity. */
  readonly parts: string;
  readonly hours: number;
  readonly cost: number;
}

/** What was used, by item; what is no such list is none. */
export function partsOf({ parts }: Pick<Repair, 'parts'>): Record<string, number> {
  try {
    const read: unknown = JSON.parse(parts);
    if (typeof read !== 'object' || read === null || Array.isArray(read)) return {};
    return Object.fromEntries(
      Object.entries(read).filter((e): e is [string, number] => Number.isFinite(e[1])),
    );
  } catch {
    return {};
  }
}

/** What a repair costs: parts at today's prices and hours at their rate. */
export const costOf = (parts: Readonly<Record<string, number>>, hours: number, rate: number, cat: Catalogue): number =>
  sum(Object.entries(parts).map(([item, n]) => n * (cat.prices[item]?.price ?? 0))) + hours * rate; // prettier-ignore

export interface YearCost {
  readonly year: string;
  /** Null: of no line. */
  readonly line: string | null;
  readonly count: number;
  readonly hours: number;
  readonly cost: number;
}

/** By year, the newest first, and within it by line, the dearest first. */
export function costByYear(repairs: readonly Repair[]): YearCost[] {
  const rows = new Map<string, YearCost>();
  for (const r of repairs) {
    const year = r.time.slice(0, 4);
    const key = `${year} ${r.line}`;
    const was = rows.get(key) ?? { year, line: r.line, count: 0, hours: 0, cost: 0 };
    rows.set(key, { ...was, count: was.count + 1, hours: was.hours + r.hours, cost: was.cost + r.cost });
  }
  return [...rows.values()].sort((a, b) => b.year.localeCompare(a.year) || b.cost - a.cost);
} // prettier-ignore

/** The joint of a repair, where it is weaker than what the line has: the strand holds no more than that now. */
export function weakerJoint(line: Pick<Line, 'join' | 'tie'>, joint: string | null, cat: Catalogue): { readonly joint: string; readonly efficiency: number; readonly was: number } | null {
  if (joint === null || !cat.joints[joint]) return null;
  const { efficiency } = recordOf(cat.joints, joint);
  const own = [line.join, line.tie].flatMap((j) => (j && cat.joints[j] ? [recordOf(cat.joints, j).efficiency] : []));
  const was = own.length ? Math.min(...own) : 1;
  return efficiency < was ? { joint, efficiency, was } : null;
} // prettier-ignore
