/** Wire that the ends of strands take: the tie, and at an insulator the piece between it and the post. */
import { widthOf } from '../ends/materials.js';
import { recordOf, type Catalogue } from '../plan/catalogue.js';
import type { Line, Strand } from '../plan/schema.js';
import { insulatorAt } from '../strands/insulators.js';
import { jointsOfLine } from '../wire/wires.js';
import { deadTail } from '../wiring/tail.js';

/** What one end of one strand takes beyond its run, m. */
export interface EndWire {
  /** Of the strand itself. */
  readonly tie_m: number;
  /** A piece by itself, off an offcut; 0 where the strand goes round the post. */
  readonly piece_m: number;
}

/**
 * Wire for one end of a strand. Round the post: its way round and one tie. At an end insulator the strand has its tie
 * there, and a piece goes round the post, out to the insulator and back, with a tie of its own: about 2 m in all.
 * @param post kind of the post at which it ends
 */
export function endWire(line: Line, strand: Strand, post: string, cat: Catalogue): EndWire {
  const { tail_m } = recordOf(cat.joints, jointsOfLine(line).tie);
  const round = Math.PI * widthOf(recordOf(cat.posts, post));
  const insulator = strand.insulated ? insulatorAt(line, 'end', null, strand.wire, cat) : null;
  if (insulator === null || insulator === ROUND_THE_POST) return { tie_m: tail_m + round, piece_m: 0 }; // prettier-ignore
  return { tie_m: tail_m, piece_m: tail_m + 2 * deadTail(line, cat) + round };
}

/** The tube over the wire round the post: no piece between. */
const ROUND_THE_POST = 'tube';
