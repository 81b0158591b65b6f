/** The map itself, outside of React: it stays as it was left while steps come and go. */
import OlMap from 'ol/Map.js';
import OlView from 'ol/View.js';
import { defaults as defaultInteractions } from 'ol/interaction/defaults.js';
import Projection from 'ol/proj/Projection.js';
import { pointAt } from '../../core/plan/geometry.js';
import type { Plan, Point } from '../../core/plan/schema.js';
import { nearestLine } from '../../core/plan/snap.js';
import { extent } from '../../core/terrain/ground.js';
import { useSession } from '../../session/session.js';
import { look } from '../../session/view.js';
import { Gestures, pressed } from './gestures.js';
import { makeLayers } from './layers.js';
import type { Shown } from './shown.js';

/** What a map is for: drawing on it, looking at the volts, or only seeing what came onto it. */
export type Use = 'work' | 'volts' | 'still';

export interface Board {
  readonly map: OlMap;
  readonly layers: ReturnType<typeof makeLayers>;
  /** Shows it in an element and tells what happens on it, until the returned function is called. */
  open(element: HTMLElement, told: Told): () => void;
  /** The whole plan into view. */
  fit(duration?: number): void;
  /** Nearer with a factor above 1, further below. */
  zoom(factor: number): void;
  /** Brings what is chosen into view; with `whole` all of it where it has room, else its middle is enough. */
  follow(shown: Omit<Shown, 'also'>, whole: boolean): void;
}

interface Told {
  /** East and north under the pointer, m. */
  spot(e: number, n: number): void;
  /** Metres a pixel. */
  resolution(r: number): void;
  /** It came to rest in a room of another size. */
  settled(): void;
  /** It was pressed, where it is only looked at. */
  pressed(p: Point): void;
}

/** What is brought into view stays so far off the edge, px. */
const EDGE_PX = 28;
const PADDING = [46, 30, 46, 30];
/** A room is taken as it is when it has not changed for so long, ms. */
const SETTLED = 150;

const projection = new Projection({
  code: 'local-metres',
  units: 'm',
  extent: [-1e6, -1e6, 1e6, 1e6],
});

const kept = new Map<Use, Board>();

/** The map for a use; the same one each time, but for one that is only seen. */
export function boardFor(use: Use): Board {
  if (use === 'still') return makeBoard(use);
  let board = kept.get(use);
  if (!board) kept.set(use, (board = makeBoard(use)));
  return board;
}

function makeBoard(use: Use): Board {
  const layers = makeLayers(projection);
  const view = new OlView({
    projection,
    center: [0, 0],
    resolution: 1,
    minResolution: 0.01,
    maxResolution: 100,
    constrainResolution: false,
    showFullExtent: true,
  });
  const map = new OlMap({
    layers: layers.all,
    view,
    controls: [],
    interactions: defaultInteractions({
      doubleClickZoom: false,
      altShiftDragRotate: false,
      pinchRotate: false,
      shiftDragZoom: false,
    }),
  });
  map.addOverlay(layers.cursor);
  let told: Told | null = null;
  if (use === 'volts') {
    map.on('click', ({ coordinate: [e, n] }) => {
      const p = { e: e!, n: n! };
      told?.pressed(p);
      const { lines } = useSession.getState().plan;
      const on = nearestLine(lines, p, 12 * view.getResolution()!);
      if (on) look({ line: on.line.id, cursor: on.hit.s, vertex: null, thing: null });
    });
  } else if (use === 'work') {
    map.addInteraction(new Gestures());
    map.on('click', pressed);
  }
  map.on('pointermove', ({ coordinate: [e, n] }) => told?.spot(e!, n!));
  view.on('change:resolution', () => told?.resolution(view.getResolution()!));

  const fit = (duration = 0) =>
    view.fit(planExtent(useSession.getState().plan), { padding: PADDING, duration });

  const see = () => {
    const size = map.getSize();
    const element = map.getTargetElement();
    if (!element || !size || size[0] === 0) return;
    const [west, , , north] = view.calculateExtent(size);
    const resolution = view.getResolution()!;
    // Where the map lies, for whoever asks the page: west, north, metres a pixel.
    element.dataset['view'] = [west, north, resolution].join();
    // On paper it is as large as it is drawn.
    element.style.setProperty('--drawn-w', `${size[0]}px`);
    element.style.setProperty('--drawn-h', `${size[1]}px`);
    layers.see({ west: west!, north: north!, width: size[0]!, height: size[1]!, resolution });
  };
  map.on('moveend', see);

  let size: number[] | undefined;
  let settling: ReturnType<typeof setTimeout> | undefined;
  // A map that is only looked at stays whole in view until somebody moves it.
  let moved = use === 'work';
  const hold = () => void (moved = true);
  map.on('change:size', () => {
    const now = map.getSize();
    // It is put away, or has no room.
    if (!now || now[0] === 0 || now[1] === 0) return;
    const before = size;
    size = now;
    if (!before || !moved) return fit();
    // What is drawn stays under the pointer when the section opens below and the map grows shorter.
    const [x, y] = view.getCenter()!;
    const k = view.getResolution()!;
    view.setCenter([x! + ((now[0]! - before[0]!) / 2) * k, y! - ((now[1]! - before[1]!) / 2) * k]);
    clearTimeout(settling);
    settling = setTimeout(() => {
      see();
      told?.settled();
    }, SETTLED);
  });

  return {
    map,
    layers,
    fit,
    zoom: (factor) => view.animate({ resolution: view.getResolution()! / factor, duration: 150 }),
    open(element, whom) {
      told = whom;
      const kinds = ['pointerdown', 'wheel', 'keydown'];
      for (const kind of kinds) element.addEventListener(kind, hold, { passive: true });
      map.setTarget(element);
      see();
      told.resolution(view.getResolution()!);
      return () => {
        for (const kind of kinds) element.removeEventListener(kind, hold);
        clearTimeout(settling);
        told = null;
        map.setTarget(undefined);
      };
    },
    follow(shown, whole) {
      const target = placeOf(shown);
      if (!target || use === 'still') return;
      const [w, s, e, n] = view.calculateExtent(map.getSize());
      const edge = view.getResolution()! * EDGE_PX;
      const [tw, ts, te, tn] = boxOf(target);
      const [ce, cn] = [(tw + te) / 2, (ts + tn) / 2];
      const fits = te - tw < e! - w! - 2 * edge && tn - ts < n! - s! - 2 * edge;
      const box = whole && fits ? [tw, ts, te, tn] : [ce, cn, ce, cn];
      // No further than it must: what is round about is being looked at too.
      const [x, y] = view.getCenter()!;
      const center = [
        x! + shift(box[0]!, box[2]!, w! + edge, e! - edge),
        y! + shift(box[1]!, box[3]!, s! + edge, n! - edge),
      ];
      if (center[0] !== x || center[1] !== y) view.animate({ center, duration: 250 });
    },
  };
}

/** How far a window must move so that what lies from `a` to `b` comes within its `low` and `high`. */
const shift = (a: number, b: number, low: number, high: number): number =>
  a < low ? a - low : b > high ? b - high : 0;

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
