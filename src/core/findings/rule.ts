/** What a rule is, and the few helpers that rules share. */
import { say, type Units } from '../base/units.js';
import type { Catalogue, Mark } from '../plan/catalogue.js';
import { pointAt } from '../plan/geometry.js';
import type { Line, PatchStep, Plan } from '../plan/schema.js';
import type { Finding, LineReport, Report } from '../report/schema.js';
import type { Merged } from '../parts/keys.js';
import { withOffsets } from '../strands/retrofit.js';
import { hung } from '../strands/proposal.js';

/** Everything that a rule may look at. */
export interface Scene extends Pick<Report, 'lines' | keyof Merged<'report', 'property'>> {
  readonly plan: Plan;
  readonly cat: Catalogue;
  readonly say: ReturnType<typeof sayer>;
  /** A place of a line as one finds it with a tape: "118.4 m (post 23)". @param s plan distance, m */
  where(line: string, s: number): string;
}

/** What a rule says of one place; the list adds the rule's own id, kind and source. */
export interface Found {
  /** Tells two findings of one rule apart, and stays the same while the plan is edited. */
  readonly key: string;
  readonly title: string;
  readonly why: string;
  readonly todo: string;
  readonly place: Finding['place'];
  readonly mend?: {
    readonly words: string;
    readonly patch: PatchStep[];
    /** Line whose posts are to be placed anew: worked out when it is taken. */
    readonly place?: string;
  };
  /** Where a finding is graver or milder than its rule. */
  readonly kind?: Finding['kind'];
}

export interface Rule {
  readonly id: string;
  /** Step of the work on which it is mended. */
  readonly step: string;
  readonly kind: Finding['kind'];
  readonly source: { readonly mark: Mark; readonly text: string };
  check(scene: Scene): Found[];
}

/** Lines with their reports. */
export const eachLine = (s: Scene): [Line, LineReport][] =>
  Object.values(s.plan.lines).map((line) => [line, s.lines[line.id]!]);

/** A stretch or a spot of a line, with the map position of its middle. */
export function onLine(line: Line, from_m?: number, to_m?: number): Finding['place'] {
  if (from_m === undefined) return { line: line.id };
  const middle = to_m === undefined ? from_m : (from_m + to_m) / 2;
  const { e, n } = pointAt(line.vertices, middle);
  return { line: line.id, from_m, to_m: to_m ?? from_m, e, n };
}

export const replace = (path: string, value: unknown): PatchStep => ({
  op: 'replace',
  path,
  value,
});

/** The mend that puts the proposed make-up on a line; none where the rules allow no make-up. */
export const takeProposal = (
  line: Line,
  report: LineReport,
  cat: Catalogue,
): Pick<Found, 'mend'> | Record<string, never> => {
  if (!report.requirement) return {};
  // An old fence that is kept is held with offsets, and not taken down by the way.
  if (line.strands.some((s) => s.kept)) {
    const made = withOffsets(line.strands, report.requirement, cat);
    if ('refused' in made) return {};
    return {
      mend: {
        words: 'Hold the old fence with live offsets',
        patch: [replace(`/lines/${line.id}/strands`, made)],
      },
    };
  }
  if (!report.proposal) return {};
  const strands = hung(report.proposal, report.requirement, line.strands, line.post, cat);
  return {
    mend: {
      words: 'Take the proposed make-up',
      patch: [replace(`/lines/${line.id}/strands`, strands)],
    },
  };
};

/** Figures in the words of a finding, in the property's units. */
export function sayer(units: Units) {
  return {
    mm: (m: number) => say(m, 'height', units),
    metres: (m: number) => say(m, 'length', units),
    kilovolts: (v: number) => say(v, 'volt', units),
    newtons: (n: number) => say(n, 'force', units),
    celsius: (c: number) => say(c, 'temperature', units),
    resistivity: (r: number) => say(r, 'resistivity', units),
  };
}
