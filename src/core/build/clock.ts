/** Working time: slots of equal length, one after another, and when by the clock each begins. */

export interface Clock {
  /** Length of a slot, h. */
  readonly slot_h: number;
  /** When each slot begins, h since the clock began; each after the one before has ended. */
  readonly at_h: Float64Array;
}

/** A clock that never rests. @param slots how many it has */
export const steadyClock = (slot_h: number, slots: number): Clock => ({
  slot_h,
  at_h: Float64Array.from({ length: slots }, (_, k) => k * slot_h),
});

/** A hair, h: times that differ by less are one. */
const HAIR = 1e-6;

/** The first slot that begins at a time or later; as many as there are, when none does. */
export function slotFrom(clock: Clock, time_h: number): number {
  let [low, high] = [0, clock.at_h.length];
  while (low < high) {
    const mid = (low + high) >> 1;
    if (clock.at_h[mid]! < time_h - HAIR) low = mid + 1;
    else high = mid;
  }
  return low;
}

/** When work that ends before a slot has ended, h: the end of the slot before it. */
export const endOf_h = (clock: Clock, slot: number): number =>
  slot === 0 ? (clock.at_h[0] ?? 0) : clock.at_h[slot - 1]! + clock.slot_h;

/** The same time seen from its other end: its first slots, the last first. @param slots how many of them */
export function turned(clock: Clock, slots: number): Clock {
  const end = endOf_h(clock, slots);
  const at_h = Float64Array.from(
    { length: slots },
    (_, k) => end - (clock.at_h[slots - 1 - k]! + clock.slot_h),
  );
  return { slot_h: clock.slot_h, at_h };
}
