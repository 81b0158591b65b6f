/** What is being drawn: every leg is part of the plan as soon as it has two ends. */
import { create } from 'zustand';
import { distance } from '../../core/plan/geometry.js';
import { addLine, extendLine } from '../../core/edit/edits.js';
import { addThing, extendThing } from '../../core/edit/landEdits.js';
import { addLaneway, squareTo } from '../../core/edit/reshape.js';
import { SHAPE_OF } from '../../core/land/things.js';
import type { Plan, Point, ThingKind } from '../../core/plan/schema.js';
import { commit, useSession } from '../../session/session.js';
import { chooseLine, look, useView } from '../../session/view.js';

interface Sketch {
  /** The first point, while the line has no leg yet. */
  readonly from: Point | null;
  readonly line: string | null;
  readonly thing: string | null;
  /** Where the pointer is, snapped. */
  readonly to: Point | null;
  /** Legs only straight on or at right angles to the last one. */
  readonly square: boolean;
  /** Middle of a laneway, until it is put down as two lines. */
  readonly middle: readonly Point[];
  readonly laneWidth_m: number;
  /** Lines that are shown before they are taken: a division, a walk. */
  readonly shown: readonly (readonly Point[])[];
  /** Walks as they were walked. */
  readonly walked: readonly (readonly Point[])[];
  /** Marked places that nothing is known of yet. */
  readonly spots: readonly { readonly name: string; readonly at: Point }[];
}

export const useSketch = create<Sketch>(() => ({
  from: null,
  line: null,
  thing: null,
  to: null,
  square: false,
  middle: [],
  laneWidth_m: 6,
  shown: [],
  walked: [],
  spots: [],
}));

/**
 * The points that lie behind the pen. Read from the plan once there is a line, so that undo takes the
 * pen back as well.
 */
export function penTrail(s: Sketch, plan: Pick<Plan, 'lines' | 'things'>): readonly Point[] {
  if (s.middle.length > 0) return s.middle;
  if (s.thing) return plan.things?.[s.thing]?.points ?? [];
  const drawn = s.line ? plan.lines[s.line]?.vertices : undefined;
  return drawn ?? (s.from ? [s.from] : []);
}

/** Where the next leg starts. */
export function penAt(s: Sketch, plan: Pick<Plan, 'lines' | 'things'>): Point | null {
  const last = penTrail(s, plan).at(-1);
  return last ? { e: last.e, n: last.n } : null;
}

/** A pointed place, turned to a right angle where that is asked for. */
export function squared(p: Point, shift: boolean): Point {
  const s = useSketch.getState();
  if (!s.square && !shift) return p;
  const { plan } = useSession.getState();
  const trail = penTrail(s, plan);
  const last = trail.at(-1);
  if (!last) return p;
  const before = trail.at(-2) ?? beside(plan.lines, last);
  return before ? squareTo(last, before, p) : p;
}

/** For a first leg: a point so that the nearest line's leg gives the direction. */
function beside(lines: Plan['lines'], p: Point): Point | null {
  let best: { off: number; a: Point; b: Point } | null = null;
  for (const line of Object.values(lines)) {
    for (let i = 0; i + 1 < line.vertices.length; i++) {
      const [a, b] = [line.vertices[i]!, line.vertices[i + 1]!];
      const off = Math.min(distance(a, p), distance(b, p), distance(mid(a, b), p));
      if (!best || off < best.off) best = { off, a, b };
    }
  }
  return best && { e: p.e - (best.b.e - best.a.e), n: p.n - (best.b.n - best.a.n) };
}

const mid = (a: Point, b: Point): Point => ({ e: (a.e + b.e) / 2, n: (a.n + b.n) / 2 });

export const pointTo = (to: Point | null): void => useSketch.setState({ to });

/** Lets the drawing go; what is drawn stays, a laneway is put down. */
export function endDrawing(): void {
  const { middle, laneWidth_m } = useSketch.getState();
  useSketch.setState({ from: null, line: null, thing: null, to: null, middle: [] });
  if (middle.length >= 2) {
    let first = '';
    commit('drew a laneway', (d) => {
      [first] = addLaneway(d, middle, laneWidth_m);
    });
    chooseLine(first);
  }
  if (useView.getState().tool !== 'select') look({ tool: 'select' });
}

/** Lets the drawing go without putting a laneway down. */
export function dropDrawing(): void {
  useSketch.setState({ middle: [] });
  endDrawing();
}

/** Goes on drawing from the end of a line. */
export function goOn(line: string): void {
  useSketch.setState({ line, from: null, to: null, thing: null });
  look({ tool: 'draw', line });
}

/** One point of the drawing, by the tool in the hand; on the last point again, it ends. */
export function press(p: Point, reach: number): void {
  const { tool } = useView.getState();
  const sketch = useSketch.getState();
  const from = penAt(sketch, useSession.getState().plan);
  if (from && distance(from, p) <= Math.max(reach * 0.6, 0.05)) return endDrawing();
  if (tool === 'draw') return pressLine(p, from);
  if (tool === 'lane') return useSketch.setState({ middle: [...sketch.middle, p], to: p });
  if (tool in SHAPE_OF) pressThing(tool as ThingKind, p);
}

function pressLine(p: Point, from: Point | null): void {
  const sketch = useSketch.getState();
  const { plan } = useSession.getState();
  if (!from) return useSketch.setState({ from: p, to: p, line: null });
  const drawn = sketch.line ? plan.lines[sketch.line] : undefined;
  if (drawn) return commit(`drew ${drawn.name} on`, (d) => extendLine(d, drawn.id, p));
  let id = '';
  commit('drew a line', (d) => {
    id = addLine(d, [from, p]);
  });
  useSketch.setState({ line: id });
  look({ line: id, also: [], vertex: null, thing: null, window: null, cursor: null });
}

function pressThing(kind: ThingKind, p: Point): void {
  const { thing } = useSketch.getState();
  const known = thing ? useSession.getState().plan.things?.[thing] : undefined;
  if (known) return commit(`drew ${known.name} on`, (d) => extendThing(d, known.id, p));
  let id = '';
  commit(`put down: ${kind}`, (d) => {
    id = addThing(d, kind, p);
  });
  look({ thing: { kind: 'thing', id }, vertex: null });
  if (SHAPE_OF[kind] === 'point') return endDrawing();
  useSketch.setState({ thing: id, to: p });
}
