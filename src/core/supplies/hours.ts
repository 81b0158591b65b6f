/** Hours of work that a fence takes, by what stands in it: a first estimate, to compare designs by. */
import { hoursOf } from '../ends/takes.js';
import { figure, recordOf, type Catalogue } from '../plan/catalogue.js';
import type { Gate, Line } from '../plan/schema.js';
import type { LineReport } from '../report/schema.js';

/** Hours to set one post of a kind along a line. */
export const postHours = (kind: string, cat: Catalogue): number =>
  figure(
    cat,
    recordOf(cat.posts, kind).family === 'steel' ? 'supplies.lightPostHours' : 'supplies.timberPostHours', // prettier-ignore
  );

/** Hours to run out so much of one strand. @param wire_m over the ground */
export const strandHours = (wire_m: number, cat: Catalogue): number =>
  (wire_m / 1000) * figure(cat, 'supplies.wireHours');

/** Hours to tie both ends of so many strands of runs, and to tension each. */
export const tyingHours = (strung: number, cat: Catalogue): number =>
  (strung * (2 * figure(cat, 'wire.tieMinutes') + figure(cat, 'wire.tensionMinutes'))) / 60;

/** Hours to build one line with its gates. @param gates on it */
export function lineHours(
  line: Line,
  report: LineReport,
  gates: readonly Gate[],
  cat: Catalogue,
): number {
  const strands = line.strands.filter((s) => !s.kept).length;
  const between = report.posts.filter((p) => p.role !== 'end' && p.role !== 'corner' && p.role !== 'gate'); // prettier-ignore
  const set = line.standing ? [] : between.filter((p) => p.role !== 'brace');
  const ends = line.standing ? [] : report.ends;
  const wire_m = strands * report.runs.reduce((sum, r) => sum + r.ground_m, 0);
  return (
    set.reduce((sum, p) => sum + postHours(p.kind, cat), 0) +
    ends.reduce((sum, e) => sum + hoursOf(e, cat), 0) +
    strandHours(wire_m, cat) +
    (strands * between.length * figure(cat, 'supplies.insulatorMinutes')) / 60 +
    tyingHours(strands * report.runs.length, cat) +
    gates.reduce((sum, g) => sum + (g.leaves ?? 1) * figure(cat, 'supplies.gateHours'), 0)
  );
}
