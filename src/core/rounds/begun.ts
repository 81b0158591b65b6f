/** Where a search begins among readings that bear the times of several clocks. */

/** What a search leaves out. */
export interface Begun {
  /** When it began, ISO 8601, by the clock of whoever began it; empty: with the newest round. */
  readonly at: string;
  /** Readings that were there then and bear a later time: the clock that they were taken by is ahead, or this one went back. */
  readonly left: readonly string[];
}

interface Timed {
  readonly id: string;
  /** ISO 8601, UTC. */
  readonly time: string;
}

/** Begins now, behind all that was read. @param now ISO 8601, UTC */
export const beginAfter = (read: readonly Timed[], now: string): Begun => ({
  at: now,
  left: read.filter((r) => r.time >= now).map((r) => r.id),
});

/** What was read since. */
export const readSince = <T extends Timed>(read: readonly T[], { at, left }: Begun): T[] =>
  read.filter((r) => r.time >= at && !left.includes(r.id));
