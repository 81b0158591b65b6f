import { lazy, useState } from 'react';
import { Loaded } from '../../ui/parts/Loaded.js';
import { refuse, useSession } from '../../session/session.js';
import { look, useView, type Tool } from '../../session/view.js';
import { nudge, removeChosen, splitHere, takeTool } from './actions.js';
import { bound, useKeys } from '../../ui/keys.js';
import { LandTools } from './LandTools.js';
import { MapCanvas } from './MapCanvas.js';
import { dropDrawing, endDrawing, useSketch } from './sketch.js';
import { useWaiting } from './waiting.js';

const EmptyMap = lazy(() => import('./EmptyMap.js').then((m) => ({ default: m.EmptyMap })));

/** Where lines, gates and energisers go. */
export function LandView() {
  useLandKeys();
  const [said, setSaid] = useState('');
  const drawing = useSketch((k) => k.from !== null);
  const empty = useSession((s) => Object.keys(s.plan.lines).length === 0);
  const choosing = useView((v) => v.tool === 'select');
  const waits = useWaiting((w) => w.walk !== null);
  const bare = empty && choosing && !drawing && !waits;
  const take = (files: readonly File[]) => {
    void import('./bringFile.js')
      .then((m) => m.bringDropped(files))
      .then(setSaid, (e: Error) => refuse(e.message));
  };
  return (
    <div className="flex h-full flex-col">
      <LandTools />
      <div
        className="relative min-h-0 min-w-0 flex-1"
        onDragOver={(e) => e.preventDefault()}
        onDrop={(e) => {
          e.preventDefault();
          take([...e.dataTransfer.files]);
        }}
      >
        <MapCanvas />
        {bare && (
          <Loaded what="A word on what to do">
            <EmptyMap take={take} />
          </Loaded>
        )}
        {said && (
          <p
            role="status"
            className="bg-panel border-rule absolute bottom-2 left-2 border px-2 py-1"
          >
            {said}
          </p>
        )}
      </div>
    </div>
  );
}

/** Whether an element is the map, or a corner in the list of them. */
const inHand = (target: EventTarget | null): boolean =>
  (target as HTMLElement | null)?.closest?.('[data-map], [data-vertices] button') != null;

/** Letters mean tools everywhere but in what has come up over the view. */
const over = (target: EventTarget | null): boolean =>
  (target as HTMLElement | null)?.closest?.(
    '[role="dialog"], [data-radix-popper-content-wrapper]',
  ) != null;

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
    remove: ({ target }) => (inHand(target) ? removeChosen() : false),
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
    // Arrows move what is chosen only while the map has the focus.
    nudge: ({ target, key, shiftKey }) =>
      (target as HTMLElement).closest('[data-map]') !== null && nudge(key, shiftKey),
  });
  // Before the map takes arrows for panning.
  useKeys(
    keys.map(([k, run]) => [
      k,
      (event) => (useView.getState().help || over(event.target) ? false : run(event)),
    ]),
    true,
  );
}
