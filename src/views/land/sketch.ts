/** The line that is being drawn: every leg is part of the plan as soon as it has two ends. */
import { create } from 'zustand';
import { distance } from '../../core/plan/geometry.js';
import { addLine, extendLine } from '../../core/plan/edits.js';
import type { Plan, Point, Strand } from '../../core/plan/schema.js';
import { catalogue, withOverrides } from '../../core/plan/catalogue.js';
import { startingMakeUp } from '../../core/strands/proposal.js';
import { commit, useSession } from '../../ui/session/session.js';
import { look, useView } from '../../ui/session/view.js';

interface Sketch {
  /** The first point, while the line has no leg yet. */
  readonly from: Point | null;
  readonly line: string | null;
  /** Where the pointer is, snapped. */
  readonly to: Point | null;
}

export const useSketch = create<Sketch>(() => ({ from: null, line: null, to: null }));

/**
 * Where the next leg starts. Read from the plan once there is a line, so that undo takes the pen back
 * as well.
 */
export function penAt({ from, line }: Sketch, lines: Plan['lines']): Point | null {
  const last = line ? lines[line]?.vertices.at(-1) : undefined;
  return last ? { e: last.e, n: last.n } : from;
}

export const pointTo = (to: Point | null): void => useSketch.setState({ to });

/** Lets the drawing go; what is drawn stays. */
export function endDrawing(): void {
  useSketch.setState({ from: null, line: null, to: null });
  if (useView.getState().tool === 'draw') look({ tool: 'select' });
}

/** Goes on drawing from the end of a line. */
export function goOn(line: string): void {
  useSketch.setState({ line, from: null, to: null });
  look({ tool: 'draw', line });
}

/** What a new line starts with: the make-up proposed for the property's stock. */
export function startStrands(): Strand[] {
  const { plan } = useSession.getState();
  return startingMakeUp(plan.newLines, withOverrides(catalogue, plan.overrides));
}

/** One point of the drawing; on the last point again, the line ends. */
export function press(p: Point, reach: number): void {
  const sketch = useSketch.getState();
  const { plan } = useSession.getState();
  const from = penAt(sketch, plan.lines);
  if (!from) return useSketch.setState({ from: p, to: p, line: null });
  if (distance(from, p) <= Math.max(reach * 0.6, 0.05)) return endDrawing();
  const drawn = sketch.line ? plan.lines[sketch.line] : undefined;
  if (drawn) return commit(`drew ${drawn.name} on`, (d) => extendLine(d, drawn.id, p));
  let id = '';
  commit('drew a line', (d) => {
    id = addLine(d, [from, p], startStrands());
  });
  useSketch.setState({ line: id });
  look({ line: id, vertex: null, thing: null });
}
