/** The work as an iCalendar file (RFC 5545), by the standard package: an event for each stretch of a day at a task. */
import ical, { ICalCalendarMethod, ICalEventBusyStatus } from 'ical-generator';
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

/** Of a time that floats the package writes the clock of UTC, whichever zone this machine is in. */
const clockOf = (at: string): Date => new Date(at.length > 10 ? `${at}Z` : at);

/**
 * The file. Times are those of the wall clock wherever it is read, since the work is where the fence is.
 * @throws FormatError when an entry is no event
 */
export function calendarFile(name: string, entries: readonly CalendarEntry[]): string {
  try {
    const calendar = ical({ name, prodId: { company: 'anabatic', product: 'anabatic' } });
    calendar.method(ICalCalendarMethod.PUBLISH);
    for (const e of entries)
      calendar.createEvent({
        id: `${e.id.replace(/[^A-Za-z0-9.-]/g, '-')}@anabatic`,
        summary: e.title,
        description: e.words,
        start: clockOf(e.start),
        end: clockOf(e.end),
        allDay: e.start.length <= 10,
        floating: true,
        busystatus: ICalEventBusyStatus.BUSY,
      });
    return calendar.toString();
  } catch (error) {
    throw new FormatError('', (error as Error).message);
  }
}
