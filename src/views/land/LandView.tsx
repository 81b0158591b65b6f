import { useEffect } from 'react';
import { removeLine, removeVertex, moveVertex, moveEnergiser } from '../../core/plan/edits.js';
import { commit, useSession } from '../../ui/session/session.js';
import { chooseLine, look, useView, type Tool } from '../../ui/session/view.js';
import { LEAD_REACH } from './gestures.js';
import { LandPanel } from './LandPanel.js';
import { MapCanvas } from './MapCanvas.js';
import { endDrawing } from './sketch.js';

/** Where lines, gates and energisers go. */
export function LandView() {
  useLandKeys();
  return (
    <div className="flex h-full max-[700px]:h-auto max-[700px]:flex-col">
      <LandPanel />
      <div className="min-w-0 flex-1 max-[700px]:h-[60vh] max-[700px]:flex-none">
        <MapCanvas />
      </div>
    </div>
  );
}

const TOOL_KEYS: Record<string, Tool> = { v: 'select', d: 'draw', g: 'gate', e: 'energiser' };

/** Chooses a tool; leaving the pen ends the drawing. */
export function takeTool(tool: Tool): void {
  endDrawing();
  look({ tool });
}

/** Takes away what is chosen: a vertex, a gate, an energiser, else the line. */
export function removeChosen(): void {
  const { plan } = useSession.getState();
  const { line, vertex, thing } = useView.getState();
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

const STEPS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

function nudge(key: string, far: boolean): boolean {
  const { plan } = useSession.getState();
  const { line, vertex, thing } = useView.getState();
  const [de, dn] = STEPS[key]!.map((d) => d * (far ? 10 : 1)) as [number, number];
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

function useLandKeys(): void {
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (
        /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName) ||
        event.ctrlKey ||
        event.metaKey ||
        event.altKey
      )
        return;
      const { line, vertex, help } = useView.getState();
      if (help) return;
      const tool = TOOL_KEYS[event.key.toLowerCase()];
      if (tool) return takeTool(tool);
      if (event.key === 'Delete' || event.key === 'Backspace') return removeChosen();
      if (event.key === 'Escape') {
        endDrawing();
        look({ tool: 'select', vertex: null, thing: null, finding: null });
        return;
      }
      if (event.key === 'Enter' && useView.getState().tool === 'draw') return endDrawing();
      if ((event.key === '[' || event.key === ']') && line) {
        const count = useSession.getState().plan.lines[line]!.vertices.length;
        const next =
          ((vertex ?? (event.key === ']' ? -1 : count)) + (event.key === ']' ? 1 : -1) + count) %
          count;
        look({ vertex: next, thing: null });
        return;
      }
      // Arrows belong to the section and to lists while those are in use.
      const busy = target.getAttribute('role') === 'slider';
      if (event.key in STEPS && !busy && nudge(event.key, event.shiftKey)) event.preventDefault();
    };
    // Before the map takes arrows for panning.
    addEventListener('keydown', press, true);
    return () => removeEventListener('keydown', press, true);
  }, []);
}
