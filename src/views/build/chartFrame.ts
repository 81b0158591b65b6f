/** Where a time lies on the chart: worked days side by side, nights and days off left out. */
import { weekday, dayNumber, dayText, minutes } from '../../core/base/days.js';
import type { Working } from '../../core/build/calendar.js';
import type { PlannedTask } from '../../core/build/shifts.js';

export interface Frame {
  /** Days that are shown, in order. */
  readonly days: readonly string[];
  /** Of one day, px. */
  readonly dayWidth: number;
  /** Where a day and time lies, px from the left; held to what is shown. */
  x(day: string, clock: string): number;
  /** The worked day so many after another, before or after what is shown as well. */
  shifted(day: string, by: number): string;
}

/** @param width px for all the days */
export function frameOf(days: readonly string[], width: number, w: Pick<Working, 'from' | 'to' | 'days'>): Frame {
  const dayWidth = days.length > 0 ? width / days.length : width;
  const [from, to] = [minutes(w.from), minutes(w.to)];
  const at = new Map(days.map((d, k) => [d, k]));
  return {
    days,
    dayWidth,
    x(day, clock) {
      const k = at.get(day) ?? (day < (days[0] ?? '') ? 0 : days.length);
      const part = at.has(day) ? Math.min(1, Math.max(0, (minutes(clock) - from) / (to - from))) : 0;
      return (k + part) * dayWidth;
    },
    shifted(day, by) {
      let n = dayNumber(day);
      for (let left = Math.abs(by); left > 0;) {
        n += Math.sign(by);
        if (w.days.includes(weekday(n))) left--;
      }
      return dayText(n);
    },
  };
} // prettier-ignore

/** First and last moment of some tasks; null: none of them is planned. */
export function spanOf(tasks: readonly PlannedTask[]): { start: string; end: string } | null {
  const own = tasks.filter((t) => t.start !== null);
  if (own.length === 0) return null;
  return {
    start: own.map((t) => t.start!).sort()[0]!,
    end: own
      .map((t) => t.end!)
      .sort()
      .at(-1)!,
  };
}
