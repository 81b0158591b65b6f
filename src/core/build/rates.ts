/** How fast this crew is, from the days that it has done, beside what the trade says. */
import { sum } from '../base/numbers.js';
import { figure, type Catalogue } from '../plan/catalogue.js';
import type { TaskKind } from './kinds.js';

/** What was done of a task on a day. */
export interface Did {
  readonly id: string;
  readonly task: string;
  readonly kind: string;
  /** YYYY-MM-DD. */
  readonly day: string;
  /** Hours of one person that it took. */
  readonly hours: number;
  /** Of the task, this part: 0 to 1. */
  readonly share: number;
  /** Hours of one person that the trade's figures give for that part. */
  readonly planned_h: number;
  /** Odd ones count only when somebody said so; null: nobody was asked. */
  readonly counts: boolean | null;
}

export interface Rate {
  /** The hours of the trade times this. */
  readonly times: number;
  /** Standard deviation of one day's from another; 0 where there is only one. */
  readonly spread: number;
  /** Days that count. */
  readonly days: number;
  /** Of days that differ so much that they are asked about. */
  readonly odd: readonly string[];
}

/** What was never done is as the trade says. */
export const AS_SAID: Rate = { times: 1, spread: 0, days: 0, odd: [] };

const middle = (values: readonly number[]): number => {
  const s = values.toSorted((a, b) => a - b);
  const k = s.length >> 1;
  return s.length % 2 ? s[k]! : (s[k - 1]! + s[k]!) / 2;
};

/**
 * Rates by kind of work. A day's ratio of hours taken to hours said; their mean by hours, with the trade's own figure as
 * one more day of some hours (a mean with a prior [published: credibility, Buhlmann]), so that one short task turns
 * nothing on its head. A day that is far off the middle of the others is left out until somebody says that it counts.
 */
export function ratesOf(did: readonly Did[], cat: Catalogue): Partial<Record<TaskKind, Rate>> {
  const most = figure(cat, 'build.oddRatio');
  const prior = figure(cat, 'build.priorHours');
  const out: Partial<Record<TaskKind, Rate>> = {};
  const kinds = new Set(did.filter((d) => d.planned_h > 0 && d.hours > 0).map((d) => d.kind));
  for (const kind of kinds) {
    const all = did.filter((d) => d.kind === kind && d.planned_h > 0 && d.hours > 0);
    const ratio = (d: Did) => d.hours / d.planned_h;
    const usual = all.length >= 3 ? middle(all.map(ratio)) : 1;
    const far = (d: Did) => Math.abs(Math.log(ratio(d) / usual)) > Math.log(most);
    const counted = all.filter((d) => d.counts ?? !far(d));
    const [took, said] = [sum(counted.map((d) => d.hours)), sum(counted.map((d) => d.planned_h))];
    const mean = said > 0 ? took / said : 1;
    const spread = counted.length > 1 ? Math.sqrt(sum(counted.map((d) => (ratio(d) - mean) ** 2)) / (counted.length - 1)) : 0; // prettier-ignore
    out[kind as TaskKind] = {
      times: (prior + took) / (prior + said),
      spread,
      days: counted.length,
      odd: all.filter((d) => d.counts === null && far(d)).map((d) => d.id),
    };
  }
  return out;
}
