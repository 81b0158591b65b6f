/** The layers of the map, filled from the plan and the report. */
import Feature from 'ol/Feature.js';
import type Geometry from 'ol/geom/Geometry.js';
import { LineString, MultiLineString, Point as OlPoint, Polygon } from 'ol/geom.js';
import type { Style } from 'ol/style.js';
import Overlay from 'ol/Overlay.js';
import ImageLayer from 'ol/layer/Image.js';
import VectorLayer from 'ol/layer/Vector.js';
import type Projection from 'ol/proj/Projection.js';
import Static from 'ol/source/ImageStatic.js';
import VectorSource from 'ol/source/Vector.js';
import { say, type Units } from '../../core/base/units.js';
import { memoLast } from '../../core/base/memo.js';
import { bearing, distance, pointAt, stations } from '../../core/plan/geometry.js';
import { offsetPoints } from '../../core/edit/reshape.js';
import type { Grid, Line, Plan, Point } from '../../core/plan/schema.js';
import { contourInterval, contourLines, heightRange } from '../../core/terrain/relief.js';
import { heightAt, type Ground } from '../../core/terrain/ground.js';
import { SHAPE_OF } from '../../core/land/things.js';
import { paddockAt } from '../../core/land/paddocks.js';
import { shadeImage, rim } from './relief.js';
import type { Spot } from '../../core/drawing/place.js';
import { letteringOf, type Figured, type Lettering, type Symbol, type Window, type Words } from './lettering.js'; // prettier-ignore
import type { Painted, Shown } from './shown.js';
import { measure } from './styles.js';
import * as style from './styles.js';
import type { Tokens } from './tokens.js';

export const xy = (p: Point): [number, number] => [p.e, p.n];

const vector = (zIndex: number) =>
  new VectorLayer({
    source: new VectorSource(),
    zIndex,
    updateWhileInteracting: true,
    updateWhileAnimating: true,
  });

/** Kept for the next map of the same ground: steps come and go. */
const contoursOf = memoLast(contourLines);

/** So long words stay behind what is in the hand, ms: to place them takes longer than all else that is drawn. */
const WORDS_MS = 250;

/** Makes the layers of one map. */
export function makeLayers(projection: Projection) {
  const shade = new ImageLayer({ zIndex: 0 });
  const contours = vector(1);
  const land = vector(1.5);
  const lines = vector(2);
  const leads = vector(3);
  const paint = vector(3.5);
  const marks = vector(4);
  const sketch = vector(5);
  const shownLines: ShownLines = new Map();
  let lastGround: readonly unknown[] = [];
  let lastLand: readonly unknown[] = [];
  let lastLeads: readonly unknown[] = [];
  let lastLetters: readonly unknown[] = [];
  let last: { shown: Shown; t: Tokens } | null = null;
  let window: Window | null = null;
  let painting: Painted | null = null;
  let figures: readonly Figured[] = [];

  let words: Lettering['words'] | undefined;
  let waits: ReturnType<typeof setTimeout> | undefined;

  /** Puts symbols and words where they have room; with `stay` words stay where they are. */
  const letter = (stay = false) => {
    const source = marks.getSource()!;
    source.clear(true);
    if (!stay) {
      clearTimeout(waits);
      waits = undefined;
    }
    if (!last || !window) return;
    const { shown, t } = last;
    const asked = { shown, painted: painting, window, measure, figures };
    const lettering = letteringOf(asked, stay ? words : undefined);
    words = lettering.words;
    source.addFeatures(marksOf(lettering.symbols, words, window, t));
  };
  /**
   * The place that section and map point at together. It follows every move of the pointer: an element over the
   * map, so that nothing else is drawn anew for it.
   */
  const ring = document.createElement('div');
  ring.className = 'map-cursor';
  const cursor = new Overlay({ element: ring, positioning: 'center-center', stopEvent: false });
  const point = ({ plan, line: id, cursor: s }: Shown) => {
    const line = id ? plan.lines[id] : undefined;
    cursor.setPosition(line && s !== null ? xy(pointAt(line.vertices, s)) : undefined);
  };

  return {
    all: [shade, contours, land, lines, leads, paint, marks, sketch],
    /** Over the map. */
    cursor,

    /** Hill shade and contours of a grid; nothing on flat ground. */
    ground(
      grid: Grid | null,
      t: Tokens,
      units: Units,
      chosen_m: number,
      tint: 'shade' | 'slope',
    ): void {
      const groundNow = [grid, units, chosen_m, tint, t.sheet];
      if (!changed(lastGround, groundNow)) return;
      lastGround = groundNow;
      contours.getSource()!.clear();
      shade.setSource(null);
      figures = [];
      if (!grid) return letter();
      shade.setOpacity(t.shade);
      shade.setSource(
        new Static({
          url: shadeImage(grid, tint),
          projection,
          imageExtent: rim(grid),
          interpolate: true,
        }),
      );
      const [low, high] = heightRange(grid);
      // A typed interval is kept to what can be told apart.
      const interval =
        chosen_m > 0 ? Math.max(chosen_m, (high - low) / 200) : contourInterval(low, high);
      const drawn = contoursOf(grid, interval).map((c) => ({
        ...c,
        heavy: Math.round(c.z_m / interval) % 5 === 0,
      }));
      contours.getSource()!.addFeatures(
        drawn.map((c) => {
          const paths = new MultiLineString(c.lines.map((l) => l.map(xy)));
          return styled(paths, style.contourStyle(t, c.z_m, c.heavy));
        }),
      );
      figures = drawn
        .filter((c) => c.heavy)
        .map((c) => ({ text: say(c.z_m, 'length', units), paths: c.lines }));
      letter();
    },

    /**
     * Lines, vertices of the chosen one, gates, energisers, findings, cursor. A layer is drawn anew
     * only when something on it has changed: while a vertex is dragged every frame counts.
     * @param held something is in the hand: words follow a few times a second
     */
    plan(s: Shown, t: Tokens, held = false): void {
      drawLines(lines.getSource()!, shownLines, s, t);
      const landNow = [s.plan.things, s.report?.paddocks, s.thing, s.plan.units, t.sheet];
      if (changed(lastLand, landNow)) {
        lastLand = landNow;
        land.getSource()!.clear(true);
        land.getSource()!.addFeatures([...paddockFeatures(s, t), ...landFeatures(s, t)]);
      }
      const leadsNow = [s.plan.energisers, s.plan.lines, t.sheet];
      if (changed(lastLeads, leadsNow)) {
        lastLeads = leadsNow;
        leads.getSource()!.clear(true);
        leads.getSource()!.addFeatures(leadFeatures(s, t));
      }
      last = { shown: s, t };
      point(s);
      const { plan } = s;
      const lettersNow = [
        plan.lines,
        plan.gates,
        plan.energisers,
        plan.things,
        plan.units,
        s.report?.paddocks,
        s.report?.findings,
        s.line,
        s.vertex,
        s.thing,
        s.finding,
        t.sheet,
      ];
      if (!changed(lastLetters, lettersNow)) return;
      lastLetters = lettersNow;
      letter(held);
      if (held) waits ??= setTimeout(() => letter(), WORDS_MS);
    },

    /** Another part of the ground came into view, or another zoom. */
    see(now: Window): void {
      // A map that comes to rest where it was asks for nothing new.
      if (window && Object.entries(now).every(([k, v]) => window![k as keyof Window] === v)) return;
      window = now;
      letter();
    },

    /** Paints lines by what they carry over the plain ones; null: they stand as they are. */
    painted(p: Painted | null, plan: Plan, t: Tokens): void {
      const source = paint.getSource()!;
      source.clear(true);
      lines.setVisible(p === null);
      const same = painting === p;
      painting = p;
      land.setVisible(p?.land ?? true);
      if (!same) letter();
      if (!p) return;
      const put = (geometry: Geometry, look: Style | Style[]) =>
        source.addFeature(styled(geometry, look));
      for (const { line, from_m, to_m, look } of p.stretches) {
        const own = plan.lines[line];
        if (own) put(new LineString(partOf(own, from_m, to_m)), style.paintedStyle(t, look));
      }
    },

    /**
     * What is in the hand: the trail of a thing or a lane, the leg to the pointer with what it measures,
     * and lines that are shown before they are taken.
     */
    sketch(k: Pen, t: Tokens, units: Units, ground: Ground): void {
      const source = sketch.getSource()!;
      source.clear(true);
      const put = (geometry: Geometry, look: Style | Style[]) =>
        source.addFeature(styled(geometry, look));
      for (const path of k.walked) put(new LineString(path.map(xy)), style.walkedStyle(t));
      for (const path of k.shown) put(new LineString(path.map(xy)), style.shownStyle(t));
      for (const { name, at } of k.spots) put(new OlPoint(xy(at)), style.markedStyle(t, name));
      if (!k.to) return;
      put(new OlPoint(xy(k.to)), style.cursorStyle(t));
      const from = k.trail.at(-1);
      const lane = k.laneWidth_m > 0 ? [...k.trail, k.to] : [];
      if (lane.length > 1 && distance(lane.at(-1)!, lane.at(-2)!) > 0.05) {
        for (const off of [k.laneWidth_m / 2, -k.laneWidth_m / 2])
          put(new LineString(offsetPoints(lane, off).map(xy)), style.shownStyle(t));
      }
      if (!from || distance(from, k.to) < 0.05) return;
      const rise = heightAt(ground, k.to) - heightAt(ground, from);
      const grade = Number.isNaN(rise)
        ? ''
        : `  ${say(rise / distance(from, k.to), 'percent', units)}`;
      const before = k.trail.slice(1).reduce((sum, p, i) => sum + distance(k.trail[i]!, p), 0);
      const whole =
        before > 0 ? `\nin all ${say(before + distance(from, k.to), 'tape', units)}` : '';
      put(
        new LineString([xy(from), xy(k.to)]),
        style.sketchStyle(
          t,
          `${say(distance(from, k.to), 'tape', units)} @ ${bearing(from, k.to).toFixed(1)}°${grade}${whole}`,
        ),
      );
    },
  };
}

/** A feature with its look. */
function styled(geometry: Geometry, look: Style | Style[]): Feature {
  const f = new Feature<Geometry>(geometry);
  f.setStyle(look);
  return f;
}

/** The part of a line between two plan distances. */
function partOf(
  { vertices }: Pick<Line, 'vertices'>,
  from_m: number,
  to_m: number,
): [number, number][] {
  const at = stations(vertices);
  const inside = vertices.filter((_, i) => at[i]! > from_m + 1e-6 && at[i]! < to_m - 1e-6);
  return [pointAt(vertices, from_m), ...inside, pointAt(vertices, to_m)].map(xy);
}

/** What is in the hand on the map. */
export interface Pen {
  readonly trail: readonly Point[];
  readonly to: Point | null;
  /** Width of the laneway that is being drawn; 0: none. */
  readonly laneWidth_m: number;
  readonly shown: readonly (readonly Point[])[];
  /** Walks as they were walked. */
  readonly walked: readonly (readonly Point[])[];
  readonly spots: readonly { readonly name: string; readonly at: Point }[];
}

/** The chosen paddock filled. */
function paddockFeatures(s: Shown, t: Tokens): Feature[] {
  const place = s.thing?.kind === 'paddock' ? s.thing.id.split(',').map(Number) : null;
  const chosen = place
    ? paddockAt(s.report?.paddocks ?? [], { e: place[0]!, n: place[1]! })
    : undefined;
  if (!chosen) return [];
  return [styled(new Polygon([chosen.rim, ...chosen.holes]), style.paddockStyle(t))];
}

/** Ways and areas on the land, each by its kind's own line. */
function landFeatures(s: Shown, t: Tokens): Feature[] {
  return Object.values(s.plan.things ?? {}).flatMap((thing) => {
    if (thing.points.length < 2) return [];
    const chosen = s.thing?.kind === 'thing' && s.thing.id === thing.id;
    const points = thing.points.map(xy);
    const area = SHAPE_OF[thing.kind] === 'area' && points.length >= 3;
    const shape = area ? new Polygon([[...points, points[0]!]]) : new LineString(points);
    return [
      styled(shape, style.wayStyle(t, thing.kind, chosen)),
      ...(chosen ? points : []).map((c) => styled(new OlPoint(c), style.middleStyle(t))),
    ];
  });
}

const changed = (before: readonly unknown[], now: readonly unknown[]): boolean =>
  before.length !== now.length || now.some((x, i) => x !== before[i]);

type ShownLines = Map<string, { line: Line | null; look: string; feature: Feature<LineString> }>;

/** Brings the line features up to date: new shape or look only where the plan or verdict differs. */
function drawLines(source: VectorSource, shown: ShownLines, s: Shown, t: Tokens): void {
  const dead = new Set(s.report?.dead.map((d) => d.line));
  for (const line of Object.values(s.plan.lines)) {
    const look = {
      chosen: line.id === s.line || s.also.includes(line.id),
      dead: s.report === null || dead.has(line.id),
      boundary: line.boundary,
    };
    const key = JSON.stringify([look, t.sheet]);
    let old = shown.get(line.id);
    if (!old) {
      const feature = new Feature(new LineString([]));
      source.addFeature(feature);
      shown.set(line.id, (old = { line: null, look: '', feature }));
    }
    if (old.line?.vertices !== line.vertices)
      old.feature.getGeometry()!.setCoordinates(line.vertices.map(xy));
    if (old.look !== key) old.feature.setStyle(style.lineStyle(t, look));
    Object.assign(old, { line, look: key });
  }
  for (const [id, { feature }] of shown) {
    if (s.plan.lines[id]) continue;
    source.removeFeature(feature);
    shown.delete(id);
  }
}

/** The lead from each energiser to its line. */
function leadFeatures(s: Shown, t: Tokens): Feature[] {
  return Object.values(s.plan.energisers).flatMap((e) => {
    const own = e.line ? s.plan.lines[e.line] : undefined;
    if (!own) return [];
    const lead = new LineString([xy(e), xy(pointAt(own.vertices, e.at_m))]);
    return [styled(lead, style.leadStyle(t))];
  });
}

/** Symbols and words as features at their places. */
function marksOf(
  symbols: readonly Symbol[],
  words: readonly Words[],
  window: Window,
  t: Tokens,
): Feature[] {
  const at = (s: Spot) =>
    new OlPoint([window.west + s.x * window.resolution, window.north - s.y * window.resolution]);
  return [
    ...symbols.map((s) => styled(at(s), style.symbolStyle(t, s.what))),
    ...words.map((w) => styled(at(w), style.textStyle(t, w.text, w.face, w.turn ?? 0))),
  ];
}
