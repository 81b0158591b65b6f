/** What a press, a drag and a move on the map mean, by tool. */
import type MapBrowserEvent from 'ol/MapBrowserEvent.js';
import PointerInteraction from 'ol/interaction/Pointer.js';
import { distance, nearest, pointAt } from '../../core/plan/geometry.js';
import {
  insertVertex,
  moveEnergiser,
  moveVertex,
  addEnergiser,
  addGate,
} from '../../core/edit/edits.js';
import { moveThing, moveThingPoint } from '../../core/edit/landEdits.js';
import { moveLeg, moveLines } from '../../core/edit/reshape.js';
import { legIndexOf } from '../../core/plan/legIndex.js';
import { paddockAt } from '../../core/land/paddocks.js';
import { offThing, SHAPE_OF, thingsOf } from '../../core/land/things.js';
import type { Line, Plan, Point, Thing } from '../../core/plan/schema.js';
import { snap } from '../../core/plan/snap.js';
import { commit, preview, refuse, useSession } from '../../session/session.js';
import { chooseLine, look, useView } from '../../session/view.js';
import { useLens } from './Lens.js';
import { press, pointTo, squared } from './sketch.js';

/** Pointer reach in pixels: a gloved finger needs more. */
const reachOf = (event: MapBrowserEvent): number => {
  const touch = (event.originalEvent as PointerEvent).pointerType === 'touch';
  return (touch ? 26 : 11) * event.map.getView().getResolution()!;
};
const placeOf = (event: MapBrowserEvent): Point => ({
  e: event.coordinate[0]!,
  n: event.coordinate[1]!,
});
const shiftOf = (event: MapBrowserEvent): boolean => (event.originalEvent as PointerEvent).shiftKey;

/** How far an energiser's lead-out may reach, m. */
export const LEAD_REACH = 120;

interface Held {
  readonly words: string;
  /** @param p where the pointer is, caught on what is near; @param by the step from where it began */
  recipe(draft: Plan, p: Point, by: Point): void;
  /** The vertex that must not catch on itself; null: nothing catches, the step itself counts. */
  readonly except: { line: string; vertex: number } | null | undefined;
}

/**
 * A change at a vertex that is found again by its id: others may have put vertices in, or taken the line
 * away, while it was in the hand. Then nothing is changed.
 */
const byVertex =
  (
    line: Line,
    index: number,
    change: (d: Plan, index: number, p: Point, by: Point) => void,
  ): Held['recipe'] =>
  (d, p, by) => {
    const { id } = line.vertices[index]!;
    const now = d.lines[line.id]?.vertices.findIndex((v) => v.id === id) ?? -1;
    if (now >= 0) change(d, now, p, by);
  };

/** The rims and ways that a pointer catches on where no line is. */
const landPaths = (plan: Plan): (readonly Point[])[] =>
  thingsOf(plan, 'property', 'oldFence', 'burn', 'building').map((t) =>
    SHAPE_OF[t.kind] === 'area' ? [...t.points, t.points[0]!] : t.points,
  );

const caught = (plan: Plan, p: Point, reach: number, except?: { line: string; vertex: number }) =>
  snap(plan.lines, p, reach, except, landPaths(plan));

/** The one pointer interaction of the map. */
export class Gestures extends PointerInteraction {
  private held: Held | null = null;
  private moved = false;
  private start: Point | null = null;
  private last: { p: Point; by: Point } | null = null;

  override handleDownEvent(event: MapBrowserEvent): boolean {
    if (useView.getState().tool !== 'select') return false;
    this.start = placeOf(event);
    this.held = grab(this.start, reachOf(event), shiftOf(event));
    this.moved = false;
    return this.held !== null;
  }

  override handleDragEvent(event: MapBrowserEvent): void {
    const { held, start } = this;
    if (!held || !start) return;
    this.moved = true;
    const at = placeOf(event);
    const by = { e: at.e - start.e, n: at.n - start.n };
    const { plan } = useSession.getState();
    const p =
      held.except === null ? at : caught(plan, at, reachOf(event), held.except ?? undefined).point;
    this.last = { p, by };
    if ((event.originalEvent as PointerEvent).pointerType === 'touch') {
      const [x, y] = event.pixel as [number, number];
      useLens.setState({ at: [x, y] });
    }
    preview((draft) => held.recipe(draft, p, by));
  }

  override handleUpEvent(): boolean {
    const { held, last } = this;
    this.held = null;
    useLens.setState({ at: null });
    if (held && last && this.moved)
      commit(held.words, (draft) => held.recipe(draft, last.p, last.by));
    this.last = null;
    return false;
  }

  override handleMoveEvent(event: MapBrowserEvent): void {
    const { plan } = useSession.getState();
    const { tool, line } = useView.getState();
    const p = placeOf(event);
    if (tool !== 'select') {
      pointTo(penPlace(plan, p, reachOf(event), shiftOf(event)));
      return;
    }
    const own = line ? plan.lines[line] : undefined;
    if (!own) return;
    const hit = nearest(own.vertices, p);
    if (hit.off < reachOf(event) * 2) look({ cursor: hit.s });
  }
}

/** Where the pen comes down: on what it catches, else square to the last leg where that is asked. */
function penPlace(plan: Plan, p: Point, reach: number, shift: boolean): Point {
  const hit = caught(plan, p, reach);
  return hit.to === 'free' ? squared(p, shift) : hit.point;
}

/** What lies under the pointer and can be dragged; chooses it. */
function grab(p: Point, reach: number, whole: boolean): Held | null {
  const { plan } = useSession.getState();
  const { line: chosen, also } = useView.getState();
  for (const e of Object.values(plan.energisers)) {
    if (distance(e, p) > reach * 1.2) continue;
    look({ thing: { kind: 'energiser', id: e.id }, vertex: null });
    return {
      words: `moved ${e.name}`,
      except: undefined,
      recipe: (d, q) => {
        if (d.energisers[e.id]) moveEnergiser(d, e.id, q, LEAD_REACH);
      },
    };
  }
  const own = chosen ? plan.lines[chosen] : undefined;
  if (own && !own.locked && !whole) {
    const vertex = own.vertices.findIndex((v) => distance(v, p) <= reach);
    if (vertex >= 0) {
      look({ vertex, thing: null });
      return {
        words: `moved a corner of ${own.name}`,
        recipe: byVertex(own, vertex, (d, i, q) => moveVertex(d, own.id, i, q)),
        except: { line: own.id, vertex },
      };
    }
  }
  const gate = grabGate(plan, p, reach);
  if (gate) return gate;
  if (own && !own.locked) {
    const legs = whole ? null : grabLeg(plan, own.id, p, reach);
    if (legs) return legs;
    const on = nearest(own.vertices, p).off <= reach;
    if (on && whole) {
      const ids = [own.id, ...also];
      return {
        words: ids.length === 1 ? `moved ${own.name}` : `moved ${ids.length} lines`,
        except: null,
        recipe: (d, _, by) => moveLines(d, ids, by),
      };
    }
  }
  return grabThing(plan, p, reach);
}

function grabGate(plan: Plan, p: Point, reach: number): Held | null {
  for (const gate of Object.values(plan.gates)) {
    const at = plan.lines[gate.line];
    if (!at || distance(pointAt(at.vertices, gate.at_m), p) > reach * 1.2) continue;
    look({ thing: { kind: 'gate', id: gate.id }, line: gate.line, also: [], vertex: null });
    return {
      words: `moved ${gate.name}`,
      except: undefined,
      recipe: (d, q) => {
        const now = d.gates[gate.id];
        const on = now && d.lines[now.line];
        if (on) now.at_m = nearest(on.vertices, q).s;
      },
    };
  }
  return null;
}

/** The dot in the middle of a leg makes a vertex; elsewhere the leg itself is moved. */
function grabLeg(plan: Plan, id: string, p: Point, reach: number): Held | null {
  const own = plan.lines[id]!;
  for (let i = 0; i + 1 < own.vertices.length; i++) {
    const [a, b] = [own.vertices[i]!, own.vertices[i + 1]!];
    if (distance({ e: (a.e + b.e) / 2, n: (a.n + b.n) / 2 }, p) > reach) continue;
    look({ vertex: i + 1, thing: null });
    return {
      words: `added a corner to ${own.name}`,
      recipe: byVertex(own, i, (d, leg, q) => insertVertex(d, id, leg, q)),
      except: { line: id, vertex: i + 1 },
    };
  }
  const hit = nearest(own.vertices, p);
  if (hit.off > reach) return null;
  return {
    words: `moved a leg of ${own.name}`,
    except: null,
    recipe: byVertex(own, hit.leg, (d, leg, _, by) => moveLeg(d, id, leg, by)),
  };
}

function grabThing(plan: Plan, p: Point, reach: number): Held | null {
  const { thing } = useView.getState();
  const known = thing?.kind === 'thing' ? plan.things?.[thing.id] : undefined;
  const corner = known?.points.findIndex((q) => distance(q, p) <= reach) ?? -1;
  if (known && corner >= 0)
    return {
      words: `moved ${known.name}`,
      except: undefined,
      recipe: (d, q) => moveThingPoint(d, known.id, corner, q),
    };
  const hit = thingAt(plan, p, reach, SHAPE_OF);
  if (!hit || (SHAPE_OF[hit.kind] !== 'point' && hit.id !== known?.id)) return null;
  look({ thing: { kind: 'thing', id: hit.id }, vertex: null });
  return {
    words: `moved ${hit.name}`,
    except: null,
    recipe: (d, _, by) => moveThing(d, hit.id, by),
  };
}

/** The thing at a place: points and ways within reach; of areas only their rims. */
function thingAt(plan: Plan, p: Point, reach: number, shapes: typeof SHAPE_OF): Thing | null {
  let best: { t: Thing; off: number } | null = null;
  for (const t of Object.values(plan.things ?? {})) {
    const rim: Thing =
      shapes[t.kind] === 'area'
        ? { ...t, kind: 'burn', width_m: 0, points: [...t.points, t.points[0]!] }
        : { ...t, width_m: 0 };
    const off = offThing(rim, p);
    if (off <= reach * 1.2 && (!best || off < best.off)) best = { t, off };
  }
  return best?.t ?? null;
}

/** A press without a drag. */
export function pressed(event: MapBrowserEvent): void {
  const { plan, report } = useSession.getState();
  const view = useView.getState();
  const p = placeOf(event);
  const reach = reachOf(event);
  if (view.tool === 'gate') {
    const on = snap(plan.lines, p, reach * 2);
    const id = on.line;
    if (!id) return refuse('A gate stands on a line: press nearer to one.');
    const s = nearest(plan.lines[id]!.vertices, on.point).s;
    let gate = '';
    commit(`put a gate on ${plan.lines[id]!.name}`, (d) => {
      gate = addGate(d, id, s, 3.6);
    });
    look({ tool: 'select', line: id, vertex: null, thing: { kind: 'gate', id: gate } });
    return;
  }
  if (view.tool === 'energiser') {
    let id = '';
    commit('put an energiser down', (d) => {
      id = addEnergiser(d, p, LEAD_REACH);
    });
    look({ tool: 'select', thing: { kind: 'energiser', id } });
    return;
  }
  if (view.tool !== 'select') return press(penPlace(plan, p, reach, shiftOf(event)), reach);
  const hit = legIndexOf(plan.lines)
    .near(p, reach)
    .reduce<{ line: string; off: number } | null>((a, b) => (a && a.off <= b.off ? a : b), null);
  if (shiftOf(event) && hit && view.line && hit.line !== view.line) {
    const { also } = view;
    look({
      also: also.includes(hit.line) ? also.filter((l) => l !== hit.line) : [...also, hit.line],
    });
    return;
  }
  if (grab(p, reach, false) && (!hit || hit.line === view.line || useView.getState().thing)) return;
  if (hit) return chooseLine(hit.line, null);
  const thing = thingAt(plan, p, reach, SHAPE_OF);
  if (thing) return look({ thing: { kind: 'thing', id: thing.id }, vertex: null });
  chooseLine(null);
  if (paddockAt(report?.paddocks ?? [], p))
    look({ thing: { kind: 'paddock', id: `${p.e.toFixed(2)},${p.n.toFixed(2)}` } });
}
