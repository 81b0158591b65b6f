/** The line that is being drawn: every leg is part of the plan as soon as it has two ends. */
import { create } from 'zustand';
import { distance } from '../../core/plan/geometry.js';
import { addLine, extendLine } from '../../core/plan/edits.js';
import type { Point, Strand } from '../../core/plan/schema.js';
import { catalogue, withOverrides } from '../../core/plan/catalogue.js';
import { startingMakeUp } from '../../core/strands/proposal.js';
import { commit, useSession } from '../../ui/session/session.js';
import { look, useView } from '../../ui/session/view.js';

interface Sketch {
  /** Where the next leg starts: the first point, or the end of the line being drawn. */
  readonly from: Point | null;
  readonly line: string | null;
  /** Where the pointer is, snapped. */
  readonly to: Point | null;
}

export const useSketch = create<Sketch>(() => ({ from: null, line: null, to: null }));

export const pointTo = (to: Point | null): void => useSketch.setState({ to });

/** Lets the drawing go; what is drawn stays. */
export function endDrawing(): void {
  useSketch.setState({ from: null, line: null, to: null });
  if (useView.getState().tool === 'draw') look({ tool: 'select' });
}

/** Goes on drawing from the end of a line. */
export function goOn(line: string): void {
  const last = useSession.getState().plan.lines[line]!.vertices.at(-1)!;
  useSketch.setState({ line, from: { e: last.e, n: last.n }, to: null });
  look({ tool: 'draw', line });
}

/** What a new line starts with: the make-up proposed for the property's stock. */
export function startStrands(): Strand[] {
  const { plan } = useSession.getState();
  return startingMakeUp(plan.newLines, withOverrides(catalogue, plan.overrides));
}

/** One point of the drawing; on the last point again, the line ends. */
export function press(p: Point, reach: number): void {
  const { from, line } = useSketch.getState();
  if (!from) return useSketch.setState({ from: p, to: p });
  if (distance(from, p) <= Math.max(reach * 0.6, 0.05)) return endDrawing();
  if (line && useSession.getState().plan.lines[line]) {
    const name = useSession.getState().plan.lines[line]!.name;
    commit(`drew ${name} on`, (d) => extendLine(d, line, p));
    useSketch.setState({ from: p });
    return;
  }
  let id = '';
  commit('drew a line', (d) => {
    id = addLine(d, [from, p], startStrands());
  });
  useSketch.setState({ line: id, from: p });
  look({ line: id, vertex: null, thing: null });
}
