/** The work as an iCalendar file (RFC 5545), by the standard package: an event for each stretch of a day at a task. */
import { createEvents, type DateArray, type EventAttributes } from 'ics';
import { FormatError } from './error.js';

export interface CalendarEntry {
  /** The same for the same thing, so that a calendar takes it over instead of doubling it. */
  readonly id: string;
  readonly title: string;
  readonly words: string;
  /** YYYY-MM-DDTHH:MM of the wall clock; a day alone is the whole day. */
  readonly start: string;
  readonly end: string;
}

const dateOf = (at: string): DateArray => {
  const [y, m, d] = at.slice(0, 10).split('-').map(Number) as [number, number, number];
  return at.length > 10 ? [y, m, d, Number(at.slice(11, 13)), Number(at.slice(14, 16))] : [y, m, d];
};

/**
 * The file. Times are those of the wall clock wherever it is read, since the work is where the fence is.
 * @throws FormatError when an entry is no event
 */
export function calendarFile(name: string, entries: readonly CalendarEntry[]): string {
  const { error, value } = createEvents(
    entries.map((e): EventAttributes => ({
      uid: `${e.id.replace(/[^A-Za-z0-9.-]/g, '-')}@anabatic`,
      title: e.title,
      description: e.words,
      start: dateOf(e.start),
      end: dateOf(e.end),
      startInputType: 'local',
      startOutputType: 'local',
      endInputType: 'local',
      endOutputType: 'local',
      busyStatus: 'BUSY',
    })),
    { productId: 'anabatic', calName: name, method: 'PUBLISH' },
  );
  if (error || !value) throw new FormatError('', error?.message ?? 'no entries');
  return value;
}
