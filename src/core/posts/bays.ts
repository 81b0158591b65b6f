/** Bays: equal division of a length, as taped, and how long they may be. */
import { piecesOf } from '../base/numbers.js';
import { figure, type Catalogue } from '../plan/catalogue.js';

/** What of a requirement says how long the bays may be. */
export interface HeldBay {
  /** Small stock or predators face the line. */
  readonly small: boolean;
  /** The bay that practice says just holds the most pressing of them, m; Infinity where none is named. */
  readonly holdBay_m: number;
}
/** Nobody is named: as for large stock. */
export const ANY_STOCK: HeldBay = { small: false, holdBay_m: Infinity };

export interface Spaced extends HeldBay {
  readonly undulating: boolean;
  /** Droppers stand between the posts. */
  readonly dropped: boolean;
}

/** The catalogue's figure for the longest bay. */
export function usualBayKey({ small, undulating, dropped }: Omit<Spaced, 'holdBay_m'>): string {
  // Droppers keep the strands apart; over broken ground it is posts that keep them off it.
  const ground = undulating ? 'uneven' : dropped ? 'droppers' : 'even';
  return `posts.${ground}${small ? 'Small' : 'Large'}`;
}

/** The longest bay that practice allows on this ground with this stock, m. */
export function usualBay(of: Spaced, cat: Catalogue): number {
  const usual = figure(cat, usualBayKey(of));
  return of.dropped && !of.undulating ? usual : Math.min(usual, of.holdBay_m);
}

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
  // A hair over: 30 m by 10 m stay three bays when the length was 30.000000001 after a projection.
  const bays =
    mode === 'maximum'
      ? piecesOf(length_m, target_m)
      : Math.max(1, Math.round(length_m / target_m));
  if (bays > 100_000) throw new RangeError('that would be more than 100000 bays');
  const bay_m = length_m / bays;
  const stations_m = Array.from({ length: bays + 1 }, (_, i) =>
    i === bays ? length_m : i * bay_m,
  );
  return { bays, bay_m, inner_posts: bays - 1, stations_m };
}
