/** Equal division of a length into bays, as taped. */

export interface EqualBays {
  readonly bays: number;
  readonly bay_m: number;
  /** Posts inside the length; the two at its ends are not counted. */
  readonly inner_posts: number;
  /** Tape marks from the start, both ends included, m. */
  readonly stations_m: readonly number[];
}

/**
 * Divides a length into equal bays [practice]. With a maximum: n = ceil(D/s); with an aim:
 * n = round(D/s), at least one.
 * @throws RangeError unless both lengths are positive and finite, or for more than 100 000 bays
 */
export function equalBays(length_m: number, target_m: number, mode: 'maximum' | 'aim'): EqualBays {
  if (!(length_m > 0) || !Number.isFinite(length_m))
    throw new RangeError('length_m must be above 0');
  if (!(target_m > 0) || !Number.isFinite(target_m))
    throw new RangeError('target_m must be above 0');
  // The hair keeps 30 m by 10 m at three bays when the length was 30.000000001 after a projection.
  const exact = length_m / target_m;
  const bays = Math.max(1, mode === 'maximum' ? Math.ceil(exact - 1e-6) : Math.round(exact));
  if (bays > 100_000) throw new RangeError('that would be more than 100000 bays');
  const bay_m = length_m / bays;
  const stations_m = Array.from({ length: bays + 1 }, (_, i) =>
    i === bays ? length_m : i * bay_m,
  );
  return { bays, bay_m, inner_posts: bays - 1, stations_m };
}
