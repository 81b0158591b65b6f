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
} from '../../core/plan/edits.js';
import type { Plan, Point } from '../../core/plan/schema.js';
import { snap } from '../../core/plan/snap.js';
import { commit, preview, useSession } from '../../ui/session/session.js';
import { chooseLine, look, useView } from '../../ui/session/view.js';
import { press, pointTo } from './sketch.js';

/** Pointer reach in pixels: a gloved finger needs more. */
const reachOf = (event: MapBrowserEvent): number => {
  const touch = (event.originalEvent as PointerEvent).pointerType === 'touch';
  return (touch ? 26 : 11) * event.map.getView().getResolution()!;
};
const placeOf = (event: MapBrowserEvent): Point => ({
  e: event.coordinate[0]!,
  n: event.coordinate[1]!,
});

/** How far an energiser's lead-out may reach, m. */
export const LEAD_REACH = 120;

interface Held {
  readonly words: string;
  recipe(draft: Plan, p: Point): void;
  /** The vertex that must not catch on itself. */
  readonly except?: { line: string; vertex: number };
}

/** The one pointer interaction of the map. */
export class Gestures extends PointerInteraction {
  private held: Held | null = null;
  private moved = false;
  private last: Point | null = null;

  override handleDownEvent(event: MapBrowserEvent): boolean {
    if (useView.getState().tool !== 'select') return false;
    this.held = grab(placeOf(event), reachOf(event));
    this.moved = false;
    return this.held !== null;
  }

  override handleDragEvent(event: MapBrowserEvent): void {
    const held = this.held;
    if (!held) return;
    this.moved = true;
    const p = snap(
      useSession.getState().plan.lines,
      placeOf(event),
      reachOf(event),
      held.except,
    ).point;
    this.last = p;
    preview((draft) => held.recipe(draft, p));
  }

  override handleUpEvent(): boolean {
    const { held, last } = this;
    this.held = null;
    if (held && last && this.moved) commit(held.words, (draft) => held.recipe(draft, last));
    this.last = null;
    return false;
  }

  override handleMoveEvent(event: MapBrowserEvent): void {
    const { plan } = useSession.getState();
    const { tool, line } = useView.getState();
    const p = placeOf(event);
    if (tool !== 'select') {
      pointTo(snap(plan.lines, p, reachOf(event)).point);
      return;
    }
    const own = line ? plan.lines[line] : undefined;
    if (!own) return;
    const hit = nearest(own.vertices, p);
    if (hit.off < reachOf(event) * 2) look({ cursor: hit.s });
  }
}

/** What lies under the pointer and can be dragged; chooses it. */
function grab(p: Point, reach: number): Held | null {
  const { plan } = useSession.getState();
  const { line: chosen } = useView.getState();
  for (const e of Object.values(plan.energisers)) {
    if (distance(e, p) > reach * 1.2) continue;
    look({ thing: { kind: 'energiser', id: e.id }, vertex: null });
    return { words: `moved ${e.name}`, recipe: (d, q) => moveEnergiser(d, e.id, q, LEAD_REACH) };
  }
  const own = chosen ? plan.lines[chosen] : undefined;
  if (own) {
    const vertex = own.vertices.findIndex((v) => distance(v, p) <= reach);
    if (vertex >= 0) {
      look({ vertex, thing: null });
      return {
        words: `moved a vertex of ${own.name}`,
        recipe: (d, q) => moveVertex(d, own.id, vertex, q),
        except: { line: own.id, vertex },
      };
    }
  }
  for (const gate of Object.values(plan.gates)) {
    const at = plan.lines[gate.line];
    if (!at || distance(pointAt(at.vertices, gate.at_m), p) > reach * 1.2) continue;
    look({ thing: { kind: 'gate', id: gate.id }, line: gate.line, vertex: null });
    return {
      words: `moved ${gate.name}`,
      recipe: (d, q) => {
        d.gates[gate.id]!.at_m = nearest(d.lines[gate.line]!.vertices, q).s;
      },
    };
  }
  if (own) {
    for (let i = 0; i + 1 < own.vertices.length; i++) {
      const [a, b] = [own.vertices[i]!, own.vertices[i + 1]!];
      if (distance({ e: (a.e + b.e) / 2, n: (a.n + b.n) / 2 }, p) > reach) continue;
      look({ vertex: i + 1, thing: null });
      return {
        words: `added a vertex to ${own.name}`,
        recipe: (d, q) => insertVertex(d, own.id, i, q),
        except: { line: own.id, vertex: i + 1 },
      };
    }
  }
  return null;
}

/** A press without a drag. */
export function pressed(event: MapBrowserEvent): void {
  const { plan } = useSession.getState();
  const view = useView.getState();
  const p = placeOf(event);
  const reach = reachOf(event);
  const hit = snap(plan.lines, p, reach);
  if (view.tool === 'draw') return press(hit.point, reach);
  if (view.tool === 'gate') {
    const on = snap(plan.lines, p, reach * 2);
    const id = on.line;
    if (!id) return;
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
  if (view.thing && hit.to === 'free') return look({ thing: null });
  if (grab(p, reach)) return;
  if (hit.line) chooseLine(hit.line, null);
  else chooseLine(null);
}
