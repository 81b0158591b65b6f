/** Fence kinds over the years: what is paid at first, every year, and when a fence has had its day. */

export interface Kept {
  /** To build it, per metre: parts and work. */
  readonly first: number;
  /** Every year, per metre. */
  readonly yearly: number;
  /** Years until it is built anew. */
  readonly life_y: number;
}

/** What has been paid after so many years, per metre; a fence that has had its day is built anew, while it is still needed. */
export const paidAfter = ({ first, yearly, life_y }: Kept, years: number): number =>
  first * (1 + Math.max(0, Math.ceil(years / life_y - 1e-9) - 1)) + yearly * years;

export interface Crossing {
  /** After so many years the one that was dearer is the cheaper. */
  readonly year: number;
  /** Whether it is `b` that is cheaper from then on. */
  readonly b: boolean;
}

/**
 * The years at which two kinds change places, to a tenth of a year.
 * @param most years looked at
 */
export function crossings(a: Kept, b: Kept, most: number): Crossing[] {
  const out: Crossing[] = [];
  const order = (t: number) => Math.sign(Math.round((paidAfter(a, t) - paidAfter(b, t)) * 1e6));
  let before = order(0);
  for (let step = 1; step <= most * 10; step++) {
    const now = order(step / 10);
    if (now !== 0 && before !== 0 && now !== before) out.push({ year: step / 10, b: now > 0 });
    if (now !== 0) before = now;
  }
  return out;
}
