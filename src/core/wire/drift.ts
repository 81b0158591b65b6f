/** What checks of tension say over the years: which strands fell, by how much, and what that looks like. */

/** A check as it is kept: tension at the reference temperature, N, with its standard error. */
export interface Checked {
  readonly id: string;
  readonly time: string;
  readonly strand: number;
  readonly at_m: number | null;
  readonly at15_N: number;
  readonly error_N: number;
}

/** What happened to a strand, or to all of them. */
export const VERDICTS = ['first', 'holds', 'crept', 'slipped', 'moved', 'fell', 'rose'] as const;
export type Verdict = (typeof VERDICTS)[number];

export interface StrandDrift {
  readonly strand: number;
  readonly last: Checked;
  /** What it is compared with: the check nearest to a year before, else the first; null: there is but one. */
  readonly before: Checked | null;
  readonly change_N: number | null;
  /** Standard error of the change, N. */
  readonly error_N: number;
  readonly verdict: Verdict;
}

export interface DriftAsked {
  readonly checks: readonly Checked[];
  /** Wires that lose tension in their first year, by strand. */
  readonly creeps: (strand: number) => boolean;
  /** The day it was strung, YYYY-MM-DD; null: not known. */
  readonly strung_on: string | null;
  /** Places further apart than this are other bays with other friction, m. */
  readonly near_m: number;
}

const DAY = 86_400_000;
/** No single check is surer than this share of what it read: the place of the hand, the bay, the day's sun on the wire. */
const NEVER_SURER = 0.04;
/** A change of less than two standard errors is none. */
const TELLS = 2;

const errorOf = (c: Checked): number => Math.hypot(c.error_N, NEVER_SURER * c.at15_N);

/** Drift of every strand of a run that was checked, from the ground up, and what it says. */
export function driftOf({ checks, creeps, strung_on, near_m }: DriftAsked): StrandDrift[] {
  const strands = [...new Set(checks.map((c) => c.strand))].sort((a, b) => a - b);
  const plain = strands.map((strand) => {
    const own = checks
      .filter((c) => c.strand === strand)
      .sort((a, b) => a.time.localeCompare(b.time));
    const last = own.at(-1)!;
    const here = own.slice(0, -1).filter((c) => c.at_m === null || last.at_m === null || Math.abs(c.at_m - last.at_m) <= near_m); // prettier-ignore
    const year = Date.parse(last.time) - 365 * DAY;
    const before = here.reduce<Checked | null>(
      (a, c) =>
        !a || Math.abs(Date.parse(c.time) - year) < Math.abs(Date.parse(a.time) - year) ? c : a,
      null,
    );
    const change_N = before ? last.at15_N - before.at15_N : null;
    const error_N = before ? Math.hypot(errorOf(last), errorOf(before)) : errorOf(last);
    return { strand, last, before, change_N, error_N };
  });
  const tells = plain.filter((p) => p.change_N !== null);
  const fallen = tells.filter((p) => p.change_N! < -TELLS * p.error_N);
  // All of several strands at once is not the work of their knots.
  const together = tells.length > 1 && fallen.length === tells.length;
  return plain.map((p): StrandDrift => {
    const verdict = (): Verdict => {
      if (p.change_N === null) return 'first';
      if (Math.abs(p.change_N) <= TELLS * p.error_N) return 'holds';
      if (p.change_N > 0) return 'rose';
      const age =
        strung_on === null ? null : (Date.parse(p.before!.time) - Date.parse(strung_on)) / DAY;
      if (creeps(p.strand) && (age === null || age < 365)) return 'crept';
      if (together) return 'moved';
      return tells.length > 1 ? 'slipped' : 'fell';
    };
    return { ...p, verdict: verdict() };
  });
}
