/** Going from finding to finding: step, line, map and section follow. */
import { causesOf, inOrder } from '../../core/findings/causes.js';
import type { Finding } from '../../core/report/schema.js';
import { useSession } from '../../session/session.js';
import { startPlacing } from '../../session/placing.js';
import { chooseLine, goTo, look, useView } from '../../session/view.js';
import { STEPS } from '../steps.js';

/** The findings as the list shows them now. */
export function listedNow(): ReturnType<typeof causesOf> {
  const { step, line } = useView.getState();
  const findings = useSession.getState().report?.findings ?? [];
  return causesOf(findings, { steps: STEPS.map((s) => s.id), step, line });
}

/** Chooses a finding, and what it speaks of; null lets it go. */
export function pointAt(finding: Finding | null): void {
  if (!finding) return look({ finding: null });
  const { line, from_m } = finding.place;
  look({
    finding: finding.id,
    ...(line
      ? { line, also: [], vertex: null, thing: null, cursor: from_m ?? null, window: null }
      : {}),
  });
}

let order: readonly string[] = [];

/** The next finding, or the one before; going round. It is looked at on the step where it is mended. */
export function walkFindings(by: 1 | -1): void {
  const { finding, step } = useView.getState();
  const { report, id } = useSession.getState();
  const known = new Map(report?.findings.map((f) => [f.id, f]));
  // The order stays as it was when the walk began: what is looked at must not reshuffle it.
  if (finding === null || !order.includes(finding)) order = inOrder(listedNow()).map((f) => f.id);
  const left = order.filter((f) => known.has(f));
  if (left.length === 0) return;
  const at = finding === null ? -1 : left.indexOf(finding);
  const next = known.get(
    left[(at + by + left.length + (at < 0 && by < 0 ? 1 : 0)) % left.length]!,
  )!;
  if (next.step !== step && STEPS.some((s) => s.id === next.step)) goTo(next.step, id);
  pointAt(next);
  look({ findingsOpen: true, drawer: true, sheetTab: 'findings', sheetSize: 'half' });
}

/** A placement is worked out first; the Section shows it before it is taken. */
export function placeAnew(lines: readonly string[]): void {
  chooseLine(lines[0]!);
  goTo('section', useSession.getState().id);
  void startPlacing(lines);
}
