/** In which order the strands of a run are tensioned. */
import type { Line } from '../plan/schema.js';
import type { Strain } from '../report/schema.js';

/** How figures are said. */
export interface Said {
  newtons(n: number): string;
}

/** Share of its setting to which every strand is taken in the first pass. */
const FIRST_PASS = 0.6;

/**
 * The steps, in words: two passes from the top strand down [practice: from the top strand or evenly, in two passes].
 * Each strand that comes after slackens those before it a little, as posts and braces give: that is what the second
 * pass is for.
 * @param rows of the wires of one run
 */
export function tighteningSteps(
  line: Pick<Line, 'strands' | 'tensioner' | 'springs'>,
  rows: readonly Pick<Strain, 'wire' | 'today_N'>[],
  said: Said,
): string[] {
  const strained = line.strands.flatMap((s, i) => (s.kept ? [] : [i + 1]));
  const order = [...strained].reverse();
  const set = [...new Map(rows.map((r) => [r.wire, r.today_N]))];
  const each = (share: number) =>
    set.map(([, n]) => said.newtons(share * n)).join(set.length > 1 ? ' and ' : '');
  const several = order.length > 1;
  return [
    'Walk the line first: every strand in its insulator, free to slide, none twisted or crossed.',
    several
      ? `First pass, strand ${order.join(', ')}, from the top down: to ${each(FIRST_PASS)}.`
      : `Take it to ${each(FIRST_PASS)}, and walk the line again.`,
    'Look at the ends and braces; free each strand at humps and bends with a tap.',
    several
      ? `Second pass, in the same order: to the full setting, today ${each(1)}.`
      : `Then to the full setting, today ${each(1)}.`,
    ...(line.springs && several
      ? ['Set the spring of the top strand by its length; match the others to it by hand and eye.']
      : []),
    several
      ? 'Check the top strand once more: what it lost, take up.'
      : 'Check it once more at the far end.',
    line.tensioner
      ? 'Handle off and kept; leave the tensioners in. Again after a day and a week, as the braces bed.'
      : 'Tie off at the puller, then let it out slowly. Again after a day and a week, as the braces bed.',
  ];
}
