/** The window of settings that hold: tight enough on the hottest day, not too tight on the coldest night. */
import { bisect } from '../base/numbers.js';
import { figure, type Catalogue } from '../plan/catalogue.js';
import type { Line, Plan } from '../plan/schema.js';
import type { LineReport } from '../report/schema.js';
import { coldNight, hotDay, type HotDay, type StrainedLine } from './strain.js';
import { setTo, strungIn, type BayedRun } from './strung.js';
import { weakestJoint, wireOf } from './wires.js';

export interface Window {
  /** Least and most at the tensioner at the reference temperature, N; none holds where low > high. */
  readonly low_N: number;
  readonly high_N: number;
  /** Not even what would break the wire is enough. */
  readonly none: boolean;
  /** What the least is for: the sag, or the push between strands. */
  readonly lowBy: 'sag' | 'push';
  /** Beyond this the coldest night is dangerous, N. */
  readonly stop_N: number;
  /** Most pull on the coldest night for a good life, N. */
  readonly limit_N: number;
}

export interface WindowAsked {
  readonly line: StrainedLine;
  readonly bayed: BayedRun;
  readonly wire: string;
  readonly climate: Plan['climate'];
  /** How far a push may move one strand, m; null: nothing presses on them. */
  readonly push_m: number | null;
}

/**
 * How far a push may move one strand of a line before a gap opens further than is held, m: of two neighbours each half;
 * null where nothing presses on them.
 */
export function pushMost(
  line: Pick<Line, 'strands'>,
  { marks }: Pick<LineReport, 'marks'>,
  cat: Catalogue,
): number | null {
  // Practice knows what holds to about a tenth.
  const known = 1 + figure(cat, 'strands.openingSlack');
  const open = marks.flatMap(({ about, strands: [i, k], limit }) =>
    about === 'opening' && k !== undefined
      ? [(known * limit - (line.strands[k]!.height_m - line.strands[i!]!.height_m)) / 2]
      : [],
  );
  return open.length ? Math.max(0, Math.min(...open)) : null;
}

/** The least setting that is tried, N. */
const LEAST = 30;

/** Settings of one wire of one run, tried one after another. */
function trials({ line, bayed, wire, climate, push_m }: WindowAsked, cat: Catalogue) {
  const s = strungIn(line, bayed, wire, cat);
  const strength = wireOf(wire, cat).break_N * weakestJoint(line, cat).efficiency;
  const limit_N = figure(cat, 'wire.coldLimit') * strength;
  const cold = (set_N: number) => coldNight(setTo(s, set_N, cat), climate);
  const hot = (set_N: number) =>
    hotDay(line, setTo(s, set_N, cat), climate, bayed.run.ground_m, cat);
  /** Setting at which a rising figure reaches what is allowed; an end of the range where it never does. */
  const reach = (over: (set_N: number) => number): number => {
    if (over(LEAST) >= 0) return LEAST;
    if (over(strength) <= 0) return strength;
    return bisect(over, LEAST, strength, 1e-4);
  };
  const most = () => reach((set) => cold(set) - limit_N);
  const sagMost = figure(cat, 'wire.sagLimit');
  const slack = ({ sagHot_m, pushed_m }: HotDay) =>
    sagHot_m > sagMost || (push_m !== null && pushed_m > push_m);
  return { strength, limit_N, cold, hot, reach, most, sagMost, slack };
}

/** The window of one wire of one run. */
export function windowOf(asked: WindowAsked, cat: Catalogue): Window {
  const { strength, limit_N, cold, hot, reach, most, sagMost } = trials(asked, cat);
  const { push_m } = asked;
  const sag_N = reach((set) => sagMost - hot(set).sagHot_m);
  const push_N = push_m === null ? LEAST : reach((set) => push_m - hot(set).pushed_m);
  return {
    low_N: Math.max(sag_N, push_N),
    high_N: most(),
    none: Math.max(sag_N, push_N) >= strength,
    lowBy: push_N > sag_N ? 'push' : 'sag',
    stop_N: reach((set) => cold(set) - figure(cat, 'wire.coldMost') * strength),
    limit_N,
  };
}

/** Whether no setting holds: the most that the coldest night allows is too slack on the hottest day. */
export function isEmpty(asked: WindowAsked, cat: Catalogue): boolean {
  const { hot, most, slack } = trials(asked, cat);
  return slack(hot(most()));
}
