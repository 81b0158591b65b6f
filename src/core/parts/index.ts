/**
 * The parts of the fence, each after those that it leans on. Whoever works through a plan walks this
 * list: evaluate, the check at the door, what is cut, joined and turned, the rules, the supplies.
 */
import { build } from './build/index.js';
import { ends } from './ends/index.js';
import { gates } from './gates/index.js';
import { ground } from './ground/index.js';
import { hold } from './hold/index.js';
import { joins } from './joins/index.js';
import { land } from './land/index.js';
import type { Part } from './part.js';
import { posts } from './posts/index.js';
import { power } from './power/index.js';
import { stock } from './stock/index.js';
import { strands } from './strands/index.js';
import { supplies } from './supplies/index.js';
import { wire } from './wire/index.js';

const LIST = [
  ground,
  stock,
  gates,
  ends,
  posts,
  wire,
  hold,
  strands,
  land,
  power,
  joins,
  supplies,
  build,
] as const;

export const PARTS: readonly Part[] = LIST;
/** Those that the electric network rests on; nobody who asks it alone waits for the others. */
export const WIRED: readonly Part[] = [ground, stock, gates, ends, posts, power];

type Listed = (typeof LIST)[number];
export type PartId = Listed['id'];
/** What the parts found of one line, by part. */
export type LinePieces = {
  readonly [P in Listed as P['id']]: P extends { line: { work(needs: never): infer Piece } }
    ? Piece
    : undefined;
};
