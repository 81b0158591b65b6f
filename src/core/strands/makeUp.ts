import { recordOf, usual, type Catalogue } from '../plan/catalogue.js';
import type { Strand } from '../plan/schema.js';
import type { Proposal } from '../report/schema.js';
import { isSeen } from './judge.js';

/** A strand as it is usually hung. */
export const USUAL_STRAND: Omit<Strand, 'height_m'> = {
  duty: 'live',
  wire: usual('wire'),
  insulated: true,
};

/** Usual strands at these heights. */
export const makeUp = (heights_m: readonly number[]): Strand[] =>
  heights_m.map((height_m) => ({ ...USUAL_STRAND, height_m }));

/**
 * The strands of a proposal: plain wire as the line has it already, rope on top where it must be
 * seen, insulators on live strands, and on every strand where the posts conduct.
 */
export function strandsOf(
  p: Pick<Proposal, 'order' | 'heights_m' | 'duties'>,
  seenTop: boolean,
  old: readonly Strand[],
  conducts: boolean,
  cat: Catalogue,
): Strand[] {
  const plain =
    old.find((s) => recordOf(cat.wires, s.wire).form === 'plain')?.wire ?? usual('wire');
  const seen = old.find((s) => isSeen(s, cat))?.wire ?? usual('seenWire');
  return p.heights_m.map((height_m, i) => {
    const duty = p.duties[i]!;
    const top = i === p.heights_m.length - 1;
    return {
      height_m,
      duty,
      wire: top && seenTop ? seen : plain,
      insulated: duty === 'live' || conducts,
      ...(p.order === 'switched' && i === 0 ? { switched: true } : {}),
    };
  });
}
