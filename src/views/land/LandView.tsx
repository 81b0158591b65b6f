import { useSession } from '../../session/session.js';
import { look, useView, type Tool } from '../../session/view.js';
import { nudge, removeChosen, splitHere, takeTool } from './actions.js';
import { bound, useKeys } from '../../ui/keys.js';
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

function useLandKeys(): void {
  const tool = (name: Tool) => () => takeTool(name);
  const pen = () => !['select', 'gate', 'energiser'].includes(useView.getState().tool);
  /** Chooses the vertex before or after the chosen one, going round. */
  const step = (by: 1 | -1) => () => {
    const { line, vertex } = useView.getState();
    const count = line ? useSession.getState().plan.lines[line]?.vertices.length : undefined;
    if (!count) return false;
    return look({ vertex: ((vertex ?? (by > 0 ? -1 : count)) + by + count) % count, thing: null });
  };
  const keys = bound('land', {
    select: tool('select'),
    draw: tool('draw'),
    lane: tool('lane'),
    gate: tool('gate'),
    energiser: tool('energiser'),
    water: tool('water'),
    remove: () => removeChosen(),
    letGo: () => {
      dropDrawing();
      look({ tool: 'select', vertex: null, also: [], thing: null, finding: null });
    },
    // A button in focus keeps its own Enter.
    end: ({ target }) => pen() && !(target instanceof HTMLButtonElement) && endDrawing(),
    cut: () => (useView.getState().line ? splitHere() : false),
    square: () => (pen() ? useSketch.setState((k) => ({ square: !k.square })) : false),
    before: step(-1),
    after: step(1),
    // Arrows belong to the section and to lists while those are in use.
    nudge: ({ target, key, shiftKey }) =>
      (target as HTMLElement).getAttribute('role') !== 'slider' &&
      (target as HTMLElement).tagName !== 'SELECT' &&
      nudge(key, shiftKey),
  });
  // Before the map takes arrows for panning.
  useKeys(
    keys.map(([k, run]) => [k, (event) => (useView.getState().help ? false : run(event))]),
    true,
  );
}
