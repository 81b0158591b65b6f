/** Days and times of the wall clock, without zones: `YYYY-MM-DD` and `YYYY-MM-DDTHH:MM`. */

const MS = 86_400_000;

/** Number of a day since 1970. @throws RangeError for a day that the calendar does not have */
export function dayNumber(day: string): number {
  const ms = Date.parse(`${day}T00:00:00Z`);
  if (!Number.isFinite(ms) || dayText(ms / MS) !== day)
    throw new RangeError(`"${day}" is no day of the calendar`);
  return ms / MS;
}

/** A day by its number. */
export const dayText = (n: number): string => new Date(n * MS).toISOString().slice(0, 10);

/** 1: Monday, 7: Sunday. */
export const weekday = (n: number): number => ((((n + 3) % 7) + 7) % 7) + 1;

/** Minutes since midnight of `HH:MM`. */
export const minutes = (clock: string): number => Number(clock.slice(0, 2)) * 60 + Number(clock.slice(3)); // prettier-ignore

/** `HH:MM` of minutes since midnight. */
export const clockText = (min: number): string =>
  `${String(Math.floor(min / 60)).padStart(2, '0')}:${String(Math.round(min % 60)).padStart(2, '0')}`;

/** A day and a time, h since the midnight before a first day. */
export const hoursSince = (first: number, at: string): number =>
  (dayNumber(at.slice(0, 10)) - first) * 24 + minutes(at.slice(11)) / 60;

/** The day and time so many hours after the midnight before a first day. */
export function timeAt(first: number, h: number): string {
  const min = Math.round(h * 60);
  const day = Math.floor(min / 1440);
  return `${dayText(first + day)}T${clockText(min - day * 1440)}`;
}

/** Days from one day to another, both YYYY-MM-DD. */
export const daysBetween = (from: string, to: string): number =>
  Math.round((Date.parse(to) - Date.parse(from)) / MS);
