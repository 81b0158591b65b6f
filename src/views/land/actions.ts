/** What the keys and buttons of Land do to the chosen thing. */
import { moveEnergiser, moveVertex, removeLine, removeVertex } from '../../core/plan/edits.js';
import { commit, useSession } from '../../ui/session/session.js';
import { chooseLine, look, useView, type Tool } from '../../ui/session/view.js';
import { LEAD_REACH } from './gestures.js';
import { endDrawing } from './sketch.js';

/** Chooses a tool; leaving the pen ends the drawing. */
export function takeTool(tool: Tool): void {
  endDrawing();
  look({ tool });
}

/** Takes away what is chosen: a vertex, a gate, an energiser, else the line. */
export function removeChosen(): void {
  const { plan } = useSession.getState();
  const { line: chosen, vertex, thing } = useView.getState();
  // What was chosen may have gone by an undo, or in another tab.
  const line = chosen && plan.lines[chosen] ? chosen : null;
  const table = thing?.kind === 'gate' ? plan.gates : plan.energisers;
  if (thing && !table[thing.id]) return look({ thing: null });
  if (thing?.kind === 'gate') {
    commit(`took ${plan.gates[thing.id]!.name} away`, (d) => {
      delete d.gates[thing.id];
    });
    look({ thing: null });
  } else if (thing) {
    commit(`took ${plan.energisers[thing.id]!.name} away`, (d) => {
      delete d.energisers[thing.id];
    });
    look({ thing: null });
  } else if (line && vertex !== null) {
    const gone = plan.lines[line]!.vertices.length <= 2;
    commit(`took a vertex out of ${plan.lines[line]!.name}`, (d) => removeVertex(d, line, vertex));
    chooseLine(gone ? null : line);
  } else if (line) {
    commit(`took ${plan.lines[line]!.name} away`, (d) => removeLine(d, line));
    chooseLine(null);
  }
}

/** Steps of the arrow keys, east and north. */
export const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** Moves what is chosen by 1 m, or 10 m; false when nothing is. */
export function nudge(key: string, far: boolean): boolean {
  const { plan } = useSession.getState();
  const { line, vertex, thing } = useView.getState();
  const [de, dn] = ARROWS[key]!.map((d) => d * (far ? 10 : 1)) as [number, number];
  if (thing?.kind === 'energiser') {
    const e = plan.energisers[thing.id]!;
    commit(`moved ${e.name}`, (d) =>
      moveEnergiser(d, e.id, { e: e.e + de, n: e.n + dn }, LEAD_REACH),
    );
    return true;
  }
  const v = line && vertex !== null ? plan.lines[line]?.vertices[vertex] : undefined;
  if (!v || !line || vertex === null) return false;
  commit(`moved a vertex of ${plan.lines[line]!.name}`, (d) =>
    moveVertex(d, line, vertex, { e: v.e + de, n: v.n + dn }),
  );
  return true;
}
