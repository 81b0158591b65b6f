/** Wire that creeps: when it is to be taken up. */

/** The day a year after another. @param day YYYY-MM-DD */
export function dueOn(day: string): string {
  const [year, rest] = [Number(day.slice(0, 4)), day.slice(4)];
  // The last of February is the day after a leap day's year.
  return `${String(year + 1).padStart(4, '0')}${rest === '-02-29' ? '-02-28' : rest}`;
}
