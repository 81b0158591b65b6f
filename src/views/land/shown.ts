/** What the map is given to show. */
import type { Plan, Point } from '../../core/plan/schema.js';
import type { Report } from '../../core/report/schema.js';
import type { Chosen } from '../../session/view.js';

export interface Shown {
  readonly plan: Plan;
  readonly report: Report | null;
  readonly line: string | null;
  readonly vertex: number | null;
  readonly also: readonly string[];
  readonly thing: Chosen | null;
  readonly finding: string | null;
  readonly cursor: number | null;
}

/**
 * How a stretch stands against its aim: with reserve, just so, short, far short, or dead; from how many ends it is fed; or
 * how likely a fault lies in it.
 */
export type PaintedLook = 'ample' | 'holds' | 'short' | 'far' | 'dead' | 'twice' | 'once' | Likely;
/** Among the likeliest stretches that hold it with a chance of one half, of four fifths, of nearly all; or in none of them. */
export type Likely = 'half' | 'most' | 'rest' | 'clear';

/** Lines by what they carry: stretches of one look, words beside them, and places that stand out. */
export interface Painted {
  readonly stretches: readonly {
    readonly line: string;
    readonly from_m: number;
    readonly to_m: number;
    readonly look: PaintedLook;
  }[];
  /** What lies on the land is shown too. */
  readonly land: boolean;
  /** Words on each line. */
  readonly words: Readonly<Record<string, string>>;
  readonly pins: readonly {
    readonly at: Point;
    readonly words: string;
    readonly strong: boolean;
  }[];
}
