/** What a new fence reads against what its plan expected, and what that says. */
import { figure, type Catalogue } from '../plan/catalogue.js';
import type { Report } from '../report/schema.js';

/** Where a fence is read to prove it: the place of each line that the plan has lowest. */
export interface ProvePoint {
  readonly energiser: string;
  readonly line: string;
  readonly at_m: number;
  readonly expected_V: number;
}

/** @param season what the ground is like when it is read */
export function provePoints(report: Pick<Report, 'energisers'>, season: string): ProvePoint[] {
  return Object.entries(report.energisers).flatMap(([energiser, e]) =>
    Object.entries(e.seasons[season]?.lines ?? {}).flatMap(([line, { s_m, v_V }]): ProvePoint[] => {
      if (v_V.length === 0) return [];
      let low = 0;
      v_V.forEach((v, k) => v < v_V[low]! && (low = k));
      return [{ energiser, line, at_m: s_m[low]!, expected_V: v_V[low]! }];
    }),
  );
}

export type Verdict = 'as' | 'more' | 'low' | 'far' | 'dead';
export const VERDICT_WORDS: Readonly<Record<Verdict, string>> = {
  as: 'as the plan expects',
  more: 'more than the plan expects: nothing is wrong, the ground takes less than was thought',
  low: 'less than the plan expects',
  far: 'far less than the plan expects: look for a leak or a bad tie on the way',
  dead: 'dead: a tie is missing, a switch is open, or the strand lies on earth',
};

/** A fence that reads less than this is dead, V [practice]. */
const DEAD_V = 300;

/** What a reading of live strands says. A share off the expected is within what meters and weather make. */
export function verdictOf(read_V: number, expected_V: number, cat: Catalogue): Verdict {
  const share = figure(cat, 'build.proveShare');
  if (read_V < DEAD_V && expected_V > 2 * DEAD_V) return 'dead';
  if (read_V > expected_V * (1 + share)) return 'more';
  if (read_V >= expected_V * (1 - share)) return 'as';
  return read_V >= expected_V * (1 - 2.5 * share) ? 'low' : 'far';
}

/** What all the readings of one unit say together; null: there are too few. */
export function togetherOf(
  points: readonly {
    readonly read_V: number;
    readonly expected_V: number;
    readonly line: string;
  }[],
  cat: Catalogue,
): { readonly words: string; readonly lines: readonly string[] } | null {
  if (points.length < 2) return null;
  const verdicts = points.map((p) => verdictOf(p.read_V, p.expected_V, cat));
  const bad = points.filter((_, k) => ['low', 'far', 'dead'].includes(verdicts[k]!));
  if (bad.length === 0)
    return { words: 'The fence does what its plan says at every place that was read.', lines: [] };
  const shares = points.map((p) => p.read_V / p.expected_V);
  const alike = Math.max(...shares) - Math.min(...shares) < figure(cat, 'build.proveShare');
  if (bad.length === points.length && alike)
    return {
      words: 'All places are low alike: the unit, its earth, or growth along the whole fence. Read the unit at its own terminals with the fence off, then the earth.', // prettier-ignore
      lines: [],
    };
  return {
    words: 'Only some places are low: the fault is on them, or between them and what feeds them.',
    lines: [...new Set(bad.map((p) => p.line))],
  };
}

/** What an earth test says, read beside the last rod with the fence loaded. */
export function earthVerdict(read_V: number, foretold_V: number, cat: Catalogue): string {
  const limit = figure(cat, 'earth.testLimit');
  if (read_V > limit) return 'over the limit: more rods, or damper ground';
  if (read_V > foretold_V * 1.2)
    return 'under the limit, but more than was foretold for the driest month: test it again then';
  return 'under the limit';
}
