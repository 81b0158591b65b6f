/** What the rules of ends share. */
import { withEnd } from '../../../ends/hand.js';

export { assemblyOf } from '../../../ends/hand.js';
export { ROLE_WORDS as WORDS } from '../../../ends/words.js';
import { eachLine, onLine, type Found, type Mend, type LineScene } from '../../../findings/rule.js';
import { stations } from '../../../plan/geometry.js';
import type { Line, PatchStep } from '../../../plan/schema.js';
import type { EndReport } from '../../../report/schema.js';

/** Ends that somebody is to build: not those of a fence that stands, nor of old wire alone. */
export function* eachEnd(scene: LineScene): Generator<readonly [Line, EndReport]> {
  for (const [line, report] of eachLine(scene)) {
    if (line.standing || line.strands.every((s) => s.kept)) continue;
    for (const end of report.ends) yield [line, end];
  }
}

/** What an end is called: by the vertex or gate that stands there, which stays when the line grows. */
export function keyOf({ plan }: LineScene, line: Line, end: EndReport): string {
  const gate = Object.values(plan.gates).find(
    (g) => g.line === line.id && Math.abs(Math.abs(g.at_m - end.at_m) - g.width_m / 2) < SAME,
  );
  const by = gate ? `${gate.id}${end.at_m < gate.at_m ? 's' : 'e'}` : vertexAt(line, end.at_m);
  return `${line.id}-${by}-${end.side}`;
}
const SAME = 0.06;

function vertexAt({ vertices }: Line, at_m: number): string {
  const at = stations(vertices);
  return vertices.find((_, k) => Math.abs(at[k]! - at_m) < SAME)?.id ?? '';
}

/** The list of ends set by hand with one of them changed. */
export function endPatch(
  line: Line,
  at_m: number,
  change: Parameters<typeof withEnd>[2],
): PatchStep[] {
  const path = `/lines/${line.id}/ends`;
  const next = withEnd(line, at_m, change);
  if (!next) return line.ends ? [{ op: 'remove', path }] : [];
  return [{ op: line.ends ? 'replace' : 'add', path, value: next }];
}

/** Takes back what was set by hand, where anything was. */
export const asProposed = (line: Line, e: EndReport): Mend[] =>
  e.hand
    ? [{ words: 'Take the end that is proposed', patch: endPatch(line, e.at_m, { [e.side]: undefined, depth_m: undefined, setting: undefined, post: undefined }) }] // prettier-ignore
    : [];

/** A finding at an end. */
export const atEnd = (
  scene: LineScene,
  line: Line,
  e: EndReport,
  said: Pick<Found, 'title' | 'why' | 'todo' | 'badness' | 'mends' | 'kind'>,
): Found => ({ key: keyOf(scene, line, e), place: onLine(line, e.at_m), ...said });
