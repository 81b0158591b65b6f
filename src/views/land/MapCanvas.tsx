/** The map: OpenLayers on local metres, fed from the session, with our own symbols. */
import { bound, useKeys } from '../../ui/keys.js';
import { Minus, Plus, Scan } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { say } from '../../core/base/units.js';
import type { Plan, Point } from '../../core/plan/schema.js';
import { heightAt } from '../../core/terrain/ground.js';
import { drawn, useSession } from '../../session/session.js';
import { useView } from '../../session/view.js';
import { boardFor } from './board.js';
import { Lens } from './Lens.js';
import { MapKey } from './MapKey.js';
import type { Painted } from './shown.js';
import { MapSettings } from './MapSettings.js';
import { penTrail, useSketch } from './sketch.js';
import { tokens } from './tokens.js';
import { Button } from '../../ui/parts/Button.js';

interface MapCanvasProps {
  /** Only looked at: nothing is drawn or moved on it, and it follows what comes onto it. */
  readonly still?: boolean;
  /** Lines painted by what they carry instead of by what they are; pressing one chooses its place. */
  readonly painted?: Painted;
  /** Where the painted map was pressed. */
  readonly onPress?: (p: Point) => void;
}

export function MapCanvas({ still = false, painted, onPress }: MapCanvasProps) {
  const looking = painted !== undefined;
  const [board] = useState(() => boardFor(looking ? 'volts' : still ? 'still' : 'work'));
  const { layers } = board;
  const target = useRef<HTMLDivElement>(null);
  const [open, setOpen] = useState(false);
  const [spot, setSpot] = useState<[number, number] | null>(null);
  const [resolution, setResolution] = useState(1);
  const plan = useSession(drawn);
  const report = useSession((s) => s.report);
  const held = useSession((s) => s.held != null);
  const grid = useSession((s) => s.grid);
  const ground = useSession((s) => s.ground);
  const { line, also, vertex, thing, finding, cursor, tool, scheme, contours, tint } = useView();
  const sketch = useSketch();
  const shown = { plan, report, line, vertex, thing, finding, cursor };

  const now = useRef({ shown, onPress });
  useEffect(() => void (now.current = { shown, onPress }));
  useEffect(() => {
    const close = board.open(target.current!, {
      spot: (e, n) => setSpot([e, n]),
      resolution: setResolution,
      settled: () => board.follow(now.current.shown, true),
      pressed: (p) => now.current.onPress?.(p),
    });
    setOpen(true);
    return close;
  }, [board]);

  useEffect(
    () => layers.ground(grid, tokens(), plan.units, contours, tint),
    [layers, grid, plan.units, scheme, contours, tint],
  );
  useEffect(
    () => layers.plan({ plan, report, line, also, vertex, thing, finding, cursor }, tokens(), held),
    [layers, plan, report, line, also, vertex, thing, finding, cursor, scheme, held],
  );
  useEffect(() => layers.painted(painted ?? null, plan, tokens()), [layers, painted, plan, scheme]);
  useEffect(
    () =>
      layers.sketch(
        {
          trail: penTrail(sketch, plan),
          to: tool === 'select' ? null : sketch.to,
          laneWidth_m: tool === 'lane' ? sketch.laneWidth_m : 0,
          shown: sketch.shown,
          walked: sketch.walked,
          spots: sketch.spots,
        },
        tokens(),
        plan.units,
        ground,
      ),
    [layers, sketch, tool, plan, ground, scheme],
  );
  // What comes onto a map that is only seen comes into view.
  useEffect(() => {
    if (still) board.fit();
  }, [still, board, plan.lines, grid]);
  // What is chosen is brought into view; not at every new report, nor while something is dragged.
  useEffect(() => {
    if (open) board.follow(now.current.shown, false);
  }, [open, board, finding, line, thing]);

  const fit = () => board.fit(200);
  useKeys(bound('land', { fit }));
  const height = spot ? heightAt(ground, { e: spot[0], n: spot[1] }) : NaN;
  return (
    <div className="map-pane bg-sheet relative h-full min-h-[300px] w-full">
      <div
        ref={target}
        className={`absolute inset-0 ${tool === 'select' || still || looking ? '' : 'cursor-crosshair'}`}
        tabIndex={0}
        role="application"
        aria-label={
          looking
            ? 'Map of the volts. The table of seasons and the section below say the same; choose a line there by keyboard.'
            : still
              ? 'Map of what was given so far'
              : 'Map of the property. Tools by letter: V choose, D draw, L lane, G gate, E energiser. Typed legs and the table of vertices do the same by keyboard.'
        }
        data-map
      />
      {open && !still && <Lens map={board.map} />}
      <div className="no-print absolute top-2 left-2 flex flex-col gap-1">
        <Button className="!px-1.5" aria-label="Nearer" onClick={() => board.zoom(1.6)}>
          <Plus size={16} aria-hidden />
        </Button>
        <Button className="!px-1.5" aria-label="Further" onClick={() => board.zoom(1 / 1.6)}>
          <Minus size={16} aria-hidden />
        </Button>
        <Button
          className="!px-1.5"
          aria-label="Fit the property into view"
          title="Fit (F)"
          onClick={fit}
        >
          <Scan size={16} aria-hidden />
        </Button>
      </div>
      {!looking && !still && (
        <div className="no-print absolute top-2 right-2 flex items-start gap-1">
          <MapKey />
          <MapSettings />
        </div>
      )}
      <div className="bg-panel/90 border-rule pointer-events-none absolute right-0 bottom-0 flex items-end gap-4 border-t border-l px-2 py-1">
        <span className="figure text-[0.857rem]" data-spot>
          {spot
            ? `E ${say(spot[0], 'length', plan.units)}  N ${say(spot[1], 'length', plan.units)}`
            : 'grid north is up'}
          {Number.isNaN(height)
            ? spot
              ? '  no height here'
              : ''
            : `  height ${say(height, 'tape', plan.units)}`}
        </span>
        <ScaleBar resolution={resolution} units={plan.units} />
      </div>
    </div>
  );
}

function ScaleBar({ resolution, units }: { resolution: number; units: Plan['units'] }) {
  const unit = units === 'metric' ? 1 : 0.3048;
  const rough = (90 * resolution) / unit;
  const power = 10 ** Math.floor(Math.log10(rough));
  const nice = [5, 2, 1].find((k) => k * power <= rough)! * power;
  return (
    <span className="label inline-flex flex-col items-center" aria-label="Scale bar">
      {say(nice * unit, 'length', units)}
      <span
        className="border-ink block h-1.5 border-x border-b"
        style={{ width: (nice * unit) / resolution }}
      />
    </span>
  );
}
