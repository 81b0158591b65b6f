/** What a rule is, and the few helpers that rules share. */
import { say, type Units } from '../base/units.js';
import type { Catalogue, Mark } from '../plan/catalogue.js';
import { pointAt } from '../plan/geometry.js';
import type { Meeting } from '../plan/meets.js';
import type { Line, PatchStep, Plan } from '../plan/schema.js';
import type { Finding, LineReport, Proposal, Report, Requirement } from '../report/schema.js';
import type { Merged } from '../parts/keys.js';
import { withOffsets } from '../strands/retrofit.js';
import { hung } from '../strands/proposal.js';

/** What a rule of single lines may look at: one line as if it stood alone (`alone` in pipeline.ts), and nothing else. */
export interface LineScene extends Pick<Report, 'lines'> {
  readonly plan: Plan;
  readonly cat: Catalogue;
  readonly say: ReturnType<typeof sayer>;
  /** A place of a line as one finds it with a tape: "118.4 m (post 23)". @param s plan distance, m */
  where(line: string, s: number): string;
}

/** Everything: what a rule of the whole property may look at. */
export interface Scene extends LineScene, Pick<Report, keyof Merged<'report', 'property'>> {
  /** Where the lines meet. */
  readonly meetings: readonly Meeting[];
}

/** A change that would mend what was found. */
export interface Mend {
  readonly words: string;
  readonly patch: readonly PatchStep[];
  /** Line whose posts are to be placed anew: worked out when it is taken. */
  readonly place?: string;
}

/** What a rule says of one place; the list adds the rule's own id, kind and source. */
export interface Found {
  /**
   * Tells two findings of one rule apart, and stays the same while the plan is edited: made of ids, never of
   * a rank, a rounded figure or words.
   */
  readonly key: string;
  readonly title: string;
  readonly why: string;
  readonly todo: string;
  readonly place: Finding['place'];
  /**
   * What may mend it, best first; the first that keeps its promise is offered (`mending.ts`). Asked for once,
   * when there is time to try them.
   */
  readonly mends?: () => readonly Mend[];
  /** Where it is another cause than the rule's usual one. */
  readonly cause?: string;
  /** Where a finding is graver or milder than its rule. */
  readonly kind?: Finding['kind'];
  /** How bad it is, in whatever unit; greater is worse. What was accepted comes back when this grows. */
  readonly badness?: number;
}

interface Named {
  readonly id: string;
  /** What is the matter, in a few words that hold for all its places: findings are listed by it. */
  readonly cause: string;
  /** Step of the work on which it is mended. */
  readonly step: string;
  readonly kind: Finding['kind'];
  readonly source: { readonly mark: Mark; readonly text: string };
}

/** It is asked of each line by itself, and only of lines that changed: what it says rests on nothing else. */
export interface LineRule extends Named {
  readonly whole?: false;
  check(scene: LineScene): Found[];
}

/** It looks at more than one line and the land under it, or its mend does (a new gate's name among all). */
export interface WholeRule extends Named {
  readonly whole: true;
  check(scene: Scene): Found[];
}

export type Rule = LineRule | WholeRule;

/** Lines with their reports. */
export const eachLine = (s: LineScene): [Line, LineReport][] =>
  Object.values(s.plan.lines).map((line) => [line, s.lines[line.id]!]);

/** A stretch or a spot of a line, with the map position of its middle. */
export function onLine(line: Line, from_m?: number, to_m?: number): Finding['place'] {
  if (from_m === undefined) return { line: line.id };
  const middle = to_m === undefined ? from_m : (from_m + to_m) / 2;
  const { e, n } = pointAt(line.vertices, middle);
  return { line: line.id, from_m, to_m: to_m ?? from_m, e, n };
}

export const add = (path: string, value: unknown): PatchStep => ({ op: 'add', path, value });
export const remove = (path: string): PatchStep => ({ op: 'remove', path });
export const replace = (path: string, value: unknown): PatchStep => ({
  op: 'replace',
  path,
  value,
});

/** Placing the posts of a line by its ground. */
export const placeAnew = (line: Line): Mend => ({
  words: 'Place the posts by the ground',
  patch: [],
  place: line.id,
});

/** What puts a make-up that holds on a line; nothing where the rules allow none. */
export function makeUpMends(line: Line, report: LineReport, cat: Catalogue): Mend[] {
  if (!report.requirement) return [];
  const path = `/lines/${line.id}/strands`;
  // An old fence that is kept is held with offsets, and not taken down by the way.
  if (line.strands.some((s) => s.kept)) {
    const made = withOffsets(line.strands, report.requirement, cat);
    if ('refused' in made) return [];
    return [{ words: 'Hold the old fence with live offsets', patch: [replace(path, made)] }];
  }
  if (!report.proposal) return [];
  const strands = hungOn(line, report.proposal, report.requirement, cat);
  return [{ words: 'Take the proposed make-up', patch: [replace(path, strands)] }];
}

/** The strands of a proposal as they hang on this line's posts. */
export const hungOn = (line: Line, proposal: Proposal, need: Requirement, cat: Catalogue) =>
  hung(proposal, need, line.strands, line.post, cat);

/** Words one after another: "a, b and c". */
export const listed = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;

/** Figures in the words of a finding, in the property's units. */
export function sayer(units: Units) {
  return {
    mm: (m: number) => say(m, 'height', units),
    metres: (m: number) => say(m, 'length', units),
    along: (m: number) => say(m, 'along', units),
    joules: (j: number) => say(j, 'joule', units),
    kilovolts: (v: number) => say(v, 'volt', units),
    newtons: (n: number) => say(n, 'force', units),
    moment: (n: number) => say(n, 'moment', units),
    celsius: (c: number) => say(c, 'temperature', units),
    resistivity: (r: number) => say(r, 'resistivity', units),
  };
}
