import { useEffect } from 'react';
import { useSession } from '../../session/session.js';
import { look, useView, type Tool } from '../../session/view.js';
import { ARROWS, nudge, removeChosen, splitHere, takeTool } from './actions.js';
import { LandCards, LandTools } from './LandPanel.js';
import { MapCanvas } from './MapCanvas.js';
import { dropDrawing, endDrawing, useSketch } from './sketch.js';

/** Where lines, gates and energisers go. */
export function LandView() {
  useLandKeys();
  return (
    <div className="grid h-full grid-cols-[292px_1fr] grid-rows-[auto_1fr] max-[700px]:flex max-[700px]:h-auto max-[700px]:flex-col">
      <LandTools />
      <div className="row-span-2 min-w-0 max-[700px]:h-[60vh] max-[700px]:flex-none">
        <MapCanvas />
      </div>
      <LandCards />
    </div>
  );
}

const TOOL_KEYS: Record<string, Tool> = {
  v: 'select',
  d: 'draw',
  l: 'lane',
  g: 'gate',
  e: 'energiser',
  w: 'water',
};

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
        dropDrawing();
        look({ tool: 'select', vertex: null, also: [], thing: null, finding: null });
        return;
      }
      // A button in focus keeps its own Enter.
      const pen = !['select', 'gate', 'energiser'].includes(useView.getState().tool);
      if (event.key === 'Enter' && pen && target.tagName !== 'BUTTON') return endDrawing();
      if (event.key.toLowerCase() === 'c' && line) return splitHere();
      if (event.key.toLowerCase() === 'r' && pen)
        return useSketch.setState((k) => ({ square: !k.square }));
      const count = line ? useSession.getState().plan.lines[line]?.vertices.length : undefined;
      if ((event.key === '[' || event.key === ']') && count) {
        const next =
          ((vertex ?? (event.key === ']' ? -1 : count)) + (event.key === ']' ? 1 : -1) + count) %
          count;
        look({ vertex: next, thing: null });
        return;
      }
      // Arrows belong to the section and to lists while those are in use.
      const busy = target.getAttribute('role') === 'slider';
      if (event.key in ARROWS && !busy && nudge(event.key, event.shiftKey)) event.preventDefault();
    };
    // Before the map takes arrows for panning.
    addEventListener('keydown', press, true);
    return () => removeEventListener('keydown', press, true);
  }, []);
}
