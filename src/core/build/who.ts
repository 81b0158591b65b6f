/** Who does what in each slot: everybody in one place, and at one task for as long as can be. */

export interface Seat {
  readonly start: number;
  readonly slots: number;
  /** How many at once, those that are given included. */
  readonly people: number;
  /** Members of the crew that are at it throughout. */
  readonly given: readonly number[];
}

/** From one slot to another, who; members by their place in the crew, rising. */
export interface Stint {
  readonly from: number;
  readonly to: number;
  readonly who: readonly number[];
}

/**
 * Seats people at tasks whose numbers fit. Slot by slot, since who is free changes; whoever was at a task stays.
 * @param there by member and slot, 1 where it is there
 * @returns by seat its stints, in time
 */
export function seat(seats: readonly Seat[], there: readonly Int16Array[]): Stint[][] {
  const out: { from: number; to: number; who: number[] }[][] = seats.map(() => []);
  const end = Math.max(0, ...seats.map((s) => s.start + s.slots));
  const starts = seats.map((_, k) => k).sort((a, b) => seats[a]!.start - seats[b]!.start || a - b);
  let next = 0;
  let running: number[] = [];
  for (let slot = 0; slot < end; slot++) {
    running = running.filter((k) => seats[k]!.start + seats[k]!.slots > slot);
    while (next < starts.length && seats[starts[next]!]!.start <= slot) {
      const k = starts[next++]!;
      if (seats[k]!.slots > 0) running.push(k);
    }
    const taken = new Set(running.flatMap((k) => seats[k]!.given));
    const who = new Map(running.map((k) => [k, [...seats[k]!.given]]));
    const sit = (k: number, m: number): void => {
      if (taken.has(m) || !there[m]![slot] || who.get(k)!.length >= seats[k]!.people) return;
      who.get(k)!.push(m);
      taken.add(m);
    };
    for (const k of running) for (const m of out[k]!.at(-1)?.who ?? []) sit(k, m);
    // Whoever is given to something later is taken last.
    const order = there.map((_, m) => m).sort((a, b) => later(a, slot) - later(b, slot) || a - b);
    for (const k of running) for (const m of order) sit(k, m);
    for (const k of running) {
      const own = who.get(k)!.sort((a, b) => a - b);
      const last = out[k]!.at(-1);
      if (last && last.to === slot && last.who.join() === own.join()) last.to = slot + 1;
      else out[k]!.push({ from: slot, to: slot + 1, who: own });
    }
  }
  return out;

  function later(m: number, slot: number): number {
    return seats.some((s) => s.start > slot && s.start < slot + 32 && s.given.includes(m)) ? 1 : 0;
  }
}
