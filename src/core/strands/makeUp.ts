import type { Catalogue } from '../plan/catalogue.js';
import type { Strand } from '../plan/schema.js';

/** A strand as it is usually hung. */
export const USUAL_STRAND: Omit<Strand, 'height_m'> = {
  duty: 'live',
  wire: 'ht25',
  insulated: true,
};

/**
 * Strands at new heights, each with duty and wire of the old plain strand at its rank; barbed ones
 * are left out, since a proposal never has them.
 */
export function makeUp(
  heights_m: readonly number[],
  old: readonly Strand[],
  cat: Catalogue,
): Strand[] {
  const plain = old.filter((s) => cat.wires[s.wire]?.form !== 'barbed');
  return heights_m.map((height_m, i) => ({
    ...USUAL_STRAND,
    ...(plain[i] ?? plain.at(-1)),
    height_m,
  }));
}
