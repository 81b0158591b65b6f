/** The window of settings that hold: tight enough on the hottest day, not too tight on the coldest night. */
import { passing } from '../base/numbers.js';
import { figure, type Catalogue } from '../plan/catalogue.js';
import type { Line, Plan } from '../plan/schema.js';
import type { LineReport } from '../report/schema.js';
import { coldNight, hotDay, type StrainedLine } from './strain.js';
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
  /** Most pull on the coldest night for a good life, N. */
  readonly limit_N: number;
}

/** With the setting beyond which the coldest night is dangerous, N. */
export interface WholeWindow extends Window {
  readonly stop_N: number;
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

/** How near to the true one a setting of a window is found, as a share of it. */
const NEAR = 1e-4;

/** Settings of one wire of one run, tried one after another from the one that it has. */
function trials({ line, bayed, wire, climate, push_m }: WindowAsked, cat: Catalogue) {
  const s = strungIn(line, bayed, wire, cat);
  const strength = wireOf(wire, cat).break_N * weakestJoint(line, cat).efficiency;
  /** Setting at which a rising figure passes nought; an end of the range where it never does. */
  const reach = (over: (set_N: number) => number, near = s.set_N): number =>
    passing(over, { low: LEAST, high: strength, near }, NEAR);
  /** Setting at which the coldest night pulls so much of what would break it. */
  const coldest = (share: number) =>
    reach((set_N) => coldNight(setTo(s, set_N, cat), climate) - share * strength);
  const limit = figure(cat, 'wire.coldLimit');
  const most = () => coldest(limit);
  const sagMost = figure(cat, 'wire.sagLimit');
  /** By how much the hottest day is within what sag and push are allowed, m: below nought it is not. */
  const room = (set_N: number) => {
    const { sagHot_m, pushed_m } = hotDay(line, setTo(s, set_N, cat), climate, bayed.run.ground_m, cat); // prettier-ignore
    return { sag: sagMost - sagHot_m, push: push_m === null ? Infinity : push_m - pushed_m };
  };
  return { strength, limit, reach, coldest, most, room };
}
type Trials = ReturnType<typeof trials>;

/** The window of one wire of one run. */
export function windowOf(asked: WindowAsked, cat: Catalogue): WholeWindow {
  const tried = trials(asked, cat);
  const stop_N = tried.coldest(figure(cat, 'wire.coldMost'));
  return { ...fromLow(tried, tried.most()), stop_N };
}

/** The window where no setting holds: what the coldest night allows at most is too slack on the hottest day. */
export function emptyOf(asked: WindowAsked, cat: Catalogue): Window | null {
  const tried = trials(asked, cat);
  const high_N = tried.most();
  const { sag, push } = tried.room(high_N);
  return sag < 0 || push < 0 ? fromLow(tried, high_N) : null;
}

function fromLow({ strength, limit, reach, room }: Trials, high_N: number): Window {
  const low_N = reach((set_N) => {
    const { sag, push } = room(set_N);
    return Math.min(sag, push);
  }, high_N);
  const { sag, push } = room(low_N);
  const none = low_N >= strength;
  // Where both are out for good, the sag is said: it is the plainer to see.
  const lowBy = (none ? sag >= 0 : push < sag) ? 'push' : 'sag';
  return { low_N, high_N, none, lowBy, limit_N: limit * strength };
}
