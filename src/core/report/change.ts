/**
 * What has changed between two reports, so that a drag sends what one part found anew and no more.
 * Told by identity: what a stage remembered is the same object.
 */
import type { LineReport, Report } from './schema.js';

export interface ReportChange {
  /** Top keys of the report that are new; all of them the first time. */
  readonly top: Partial<Omit<Report, 'lines'>>;
  /** By line that there is: the keys that are new, none where it is as it was. */
  readonly lines: Readonly<Record<string, Partial<LineReport>>>;
}

const KEPT: Partial<LineReport> = {};

/** The keys of `now` whose values are other ones than in `before`. */
function news<T extends object>(before: T | undefined, now: T): Partial<T> {
  if (before === now) return KEPT as Partial<T>;
  const keys = (Object.keys(now) as (keyof T)[]).filter((key) => before?.[key] !== now[key]);
  return Object.fromEntries(keys.map((key) => [key, now[key]])) as Partial<T>;
}

/** What must be said to one who has `before`, or nothing yet. */
export function changeOf(before: Report | null, now: Report): ReportChange {
  const { lines, ...top } = now;
  const { lines: old, ...was } = before ?? { lines: undefined };
  return {
    top: news(was as typeof top, top),
    lines: Object.fromEntries(
      Object.entries(lines).map(([id, line]) => [id, news(old?.[id], line)]),
    ),
  };
}

/** The report that a change leads to; lines that did not change keep their identity. */
export function follow(before: Report | null, { top, lines }: ReportChange): Report {
  const all = Object.entries(lines).map(([id, line]) => {
    const was = before?.lines[id];
    return [id, was && Object.keys(line).length === 0 ? was : { ...was, ...line }];
  });
  return { ...before, ...top, lines: Object.fromEntries(all) } as Report;
}
