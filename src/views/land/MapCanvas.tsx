/** The map: OpenLayers on local metres, fed from the session, with our own symbols. */
import { bound, useKeys } from '../../ui/keys.js';
import OlMap from 'ol/Map.js';
import OlView from 'ol/View.js';
import { defaults as defaultInteractions } from 'ol/interaction/defaults.js';
import Projection from 'ol/proj/Projection.js';
import { Minus, Plus, Scan } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { say } from '../../core/base/units.js';
import type { Plan, Point } from '../../core/plan/schema.js';
import { extent, heightAt } from '../../core/terrain/ground.js';
import { useSession } from '../../session/session.js';
import { look, useView } from '../../session/view.js';
import { nearestLine } from '../../core/plan/snap.js';
import { Gestures, pressed } from './gestures.js';
import { makeLayers } from './layers.js';
import { Lens } from './Lens.js';
import { MapKey } from './MapKey.js';
import { pointAt } from '../../core/plan/geometry.js';
import type { Painted, Shown } from './shown.js';
import { MapSettings } from './MapSettings.js';
import { penTrail, useSketch } from './sketch.js';
import { tokens } from './tokens.js';
import { Button } from '../../ui/parts/Button.js';

const projection = new Projection({
  code: 'local-metres',
  units: 'm',
  extent: [-1e6, -1e6, 1e6, 1e6],
});

type Box = [west: number, south: number, east: number, north: number];
const around = (a: Box, b: Box): Box => [
  Math.min(a[0], b[0]),
  Math.min(a[1], b[1]),
  Math.max(a[2], b[2]),
  Math.max(a[3], b[3]),
];
/** The box of some points. */
const boxOf = (points: readonly Point[]): Box =>
  points.reduce<Box>(
    (b, p) => around(b, [p.e, p.n, p.e, p.n]),
    [Infinity, Infinity, -Infinity, -Infinity],
  );
const apart = (a: Box, b: Box): boolean => a[0] > b[2] || b[0] > a[2] || a[1] > b[3] || b[1] > a[3];

/** All lines; with ground that they lie off, both; the ground where there is no line; else a plain square. */
function planExtent(plan: Plan): Box {
  const { grid } = useSession.getState();
  const ground = grid ? (extent(grid) as Box) : null;
  const vertices = Object.values(plan.lines).flatMap((l) => l.vertices);
  const lines = vertices.length > 0 ? boxOf(vertices) : null;
  if (lines && ground) return apart(lines, ground) ? around(lines, ground) : lines;
  return lines ?? ground ?? [-200, -200, 200, 200];
}

/** Where what is chosen lies: the finding, the place on the line, or the corners of the line; null: nowhere. */
function placeOf(v: Omit<Shown, 'also'>): readonly Point[] | null {
  const place = v.report?.findings.find((f) => f.id === v.finding)?.place;
  if (place?.e !== undefined && place.n !== undefined) return [{ e: place.e, n: place.n }];
  if (v.thing?.kind === 'energiser') {
    const e = v.plan.energisers[v.thing.id];
    return e ? [e] : null;
  }
  if (v.thing?.kind === 'thing') return v.plan.things?.[v.thing.id]?.points ?? null;
  if (v.thing?.kind === 'gate') {
    const gate = v.plan.gates[v.thing.id];
    const own = gate && v.plan.lines[gate.line];
    return own ? [pointAt(own.vertices, gate.at_m)] : null;
  }
  const own = v.line ? v.plan.lines[v.line] : undefined;
  if (!own) return null;
  if (v.vertex !== null && own.vertices[v.vertex]) return [own.vertices[v.vertex]!];
  return v.cursor === null ? own.vertices : [pointAt(own.vertices, v.cursor)];
}

interface MapCanvasProps {
  /** Only looked at: nothing is drawn or moved on it, and it follows what comes onto it. */
  readonly still?: boolean;
  /** Lines painted by what they carry instead of by what they are; pressing one chooses its place. */
  readonly painted?: Painted;
  /** Where the painted map was pressed. */
  readonly onPress?: (p: Point) => void;
}

export function MapCanvas({ still = false, painted, onPress }: MapCanvasProps) {
  const target = useRef<HTMLDivElement>(null);
  const [map, setMap] = useState<OlMap | null>(null);
  const [layers, setLayers] = useState<ReturnType<typeof makeLayers> | null>(null);
  const [spot, setSpot] = useState<[number, number] | null>(null);
  const [resolution, setResolution] = useState(1);
  const plan = useSession((s) => s.plan);
  const report = useSession((s) => s.report);
  const grid = useSession((s) => s.grid);
  const ground = useSession((s) => s.ground);
  const { line, also, vertex, thing, finding, cursor, tool, scheme, contours, tint } = useView();
  const sketch = useSketch();
  const looking = painted !== undefined;
  const pressRef = useRef(onPress);
  useEffect(() => void (pressRef.current = onPress));

  useEffect(() => {
    const made = makeLayers(projection);
    const element = target.current!;
    const view = new OlView({
      projection,
      center: [0, 0],
      resolution: 1,
      minResolution: 0.01,
      maxResolution: 100,
      constrainResolution: false,
      showFullExtent: true,
    });
    const one = new OlMap({
      target: target.current!,
      layers: made.all,
      view,
      controls: [],
      interactions: defaultInteractions({
        doubleClickZoom: false,
        altShiftDragRotate: false,
        pinchRotate: false,
        shiftDragZoom: false,
      }),
    });
    if (looking) {
      one.on('click', (event) => {
        const p = { e: event.coordinate[0]!, n: event.coordinate[1]! };
        pressRef.current?.(p);
        const { lines } = useSession.getState().plan;
        const on = nearestLine(lines, p, 12 * view.getResolution()!);
        if (on) look({ line: on.line.id, cursor: on.hit.s, vertex: null, thing: null });
      });
    } else if (!still) {
      one.addInteraction(new Gestures());
      one.on('click', pressed);
    }
    one.on('pointermove', (event) => setSpot([event.coordinate[0]!, event.coordinate[1]!]));
    view.on('change:resolution', () => setResolution(view.getResolution()!));
    one.addOverlay(made.cursor);
    const see = () => {
      const size = one.getSize();
      if (!size || size[0] === 0) return;
      const [west, , , north] = view.calculateExtent(size);
      // Where the map lies, for whoever asks the page: west, north, metres a pixel.
      element.dataset['view'] = [west, north, view.getResolution()].join();
      made.see({
        west: west!,
        north: north!,
        width: size[0]!,
        height: size[1]!,
        resolution: view.getResolution()!,
      });
    };
    one.on('moveend', see);
    one.updateSize();
    // What is drawn stays under the pointer when the section opens below and the map grows shorter.
    let size = one.getSize();
    let settling: ReturnType<typeof setTimeout> | undefined;
    // A map that is only looked at stays whole in view until somebody moves it.
    let moved = !looking;
    const hold = () => void (moved = true);
    for (const kind of ['pointerdown', 'wheel', 'keydown'])
      target.current!.addEventListener(kind, hold, { passive: true });
    one.on('change:size', () => {
      if (!moved) {
        view.fit(planExtent(useSession.getState().plan), { padding: [46, 30, 46, 30] });
        return;
      }
      const now = one.getSize();
      const center = view.getCenter();
      const k = view.getResolution();
      if (size && now && center && k) {
        view.setCenter([
          center[0]! + ((now[0]! - size[0]!) / 2) * k,
          center[1]! - ((now[1]! - size[1]!) / 2) * k,
        ]);
      }
      size = now;
      clearTimeout(settling);
      settling = setTimeout(() => {
        see();
        follow.current(true);
      }, 150);
    });
    view.fit(planExtent(useSession.getState().plan), { padding: [46, 30, 46, 30] });
    see();
    setResolution(view.getResolution()!);
    setMap(one);
    setLayers(made);
    return () => one.setTarget(undefined);
  }, [still, looking]);

  useEffect(
    () => layers?.ground(grid, tokens(), plan.units, contours, tint),
    [layers, grid, plan.units, scheme, contours, tint],
  );
  useEffect(
    () => layers?.plan({ plan, report, line, also, vertex, thing, finding, cursor }, tokens()),
    [layers, plan, report, line, also, vertex, thing, finding, cursor, scheme],
  );
  useEffect(
    () => layers?.painted(painted ?? null, plan, tokens()),
    [layers, painted, plan, scheme],
  );
  useEffect(
    () =>
      layers?.sketch(
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
  // What is only looked at stays whole in view.
  const seen = still ? planExtent(plan).map(Math.round).join() : '';
  useEffect(() => {
    if (still) map?.getView().fit(seen.split(',').map(Number), { padding: [46, 30, 46, 30] });
  }, [still, map, seen]);
  // What is chosen is brought into view, when it is chosen and when the room changes.
  const follow = useRef<(whole: boolean) => void>(() => undefined);
  useEffect(() => {
    follow.current = (whole) => {
      if (!map || still) return;
      const target = placeOf({ plan, report, line, vertex, thing, finding, cursor });
      if (!target) return;
      const view = map.getView();
      const [w, s, e, n] = view.calculateExtent();
      const [tw, ts, te, tn] = boxOf(target);
      const [ce, cn] = [(tw + te) / 2, (ts + tn) / 2];
      const fits = te - tw < (e! - w!) * 0.94 && tn - ts < (n! - s!) * 0.94;
      const inside = tw > w! && te < e! && ts > s! && tn < n!;
      const middle = ce > w! && ce < e! && cn > s! && cn < n!;
      // Where a pane has opened over it all of it is shown again, if it has room; else its middle is enough.
      if (whole && fits ? !inside : !middle) view.animate({ center: [ce, cn], duration: 250 });
    };
  });
  useEffect(() => {
    follow.current(false);
    // Not at every new report, nor while something is dragged.
  }, [map, finding, line, thing]);

  const zoom = (factor: number) =>
    map?.getView().animate({ resolution: map.getView().getResolution()! / factor, duration: 150 });
  const fit = () =>
    map
      ?.getView()
      .fit(planExtent(useSession.getState().plan), { padding: [46, 30, 46, 30], duration: 200 });
  useKeys(bound('land', { fit: () => fit() }));
  const height = spot ? heightAt(ground, { e: spot[0], n: spot[1] }) : NaN;
  return (
    <div className="bg-sheet relative h-full min-h-[300px] w-full">
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
      {map && !still && <Lens map={map} />}
      <div className="no-print absolute top-2 left-2 flex flex-col gap-1">
        <Button className="!px-1.5" aria-label="Nearer" onClick={() => zoom(1.6)}>
          <Plus size={16} aria-hidden />
        </Button>
        <Button className="!px-1.5" aria-label="Further" onClick={() => zoom(1 / 1.6)}>
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
