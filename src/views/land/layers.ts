/** The layers of the map, filled from the plan and the report. */
import Feature from 'ol/Feature.js';
import { LineString, MultiLineString, Point as OlPoint, Polygon } from 'ol/geom.js';
import type { Style } from 'ol/style.js';
import ImageLayer from 'ol/layer/Image.js';
import VectorLayer from 'ol/layer/Vector.js';
import type Projection from 'ol/proj/Projection.js';
import Static from 'ol/source/ImageStatic.js';
import VectorSource from 'ol/source/Vector.js';
import { say, type Units } from '../../core/base/units.js';
import { bearing, distance, pointAt, stations } from '../../core/plan/geometry.js';
import { offsetPoints } from '../../core/edit/reshape.js';
import type { Grid, Line, Plan, Point } from '../../core/plan/schema.js';
import { isOpen } from '../../core/report/open.js';
import type { Report } from '../../core/report/schema.js';
import { contourInterval, contourLines, heightRange } from '../../core/terrain/relief.js';
import { heightAt, type Ground } from '../../core/terrain/ground.js';
import type { Chosen } from '../../session/view.js';
import { SHAPE_OF } from '../../core/land/things.js';
import { paddockAt } from '../../core/land/paddocks.js';
import { shadeImage, rim } from './relief.js';
import * as style from './styles.js';
import type { Tokens } from './tokens.js';

export const xy = (p: Point): [number, number] => [p.e, p.n];

export interface Shown {
  readonly plan: Plan;
  readonly report: Report | null;
  readonly line: string | null;
  readonly vertex: number | null;
  readonly also: readonly string[];
  readonly thing: Chosen | null;
  readonly finding: string | null;
  readonly cursor: number | null;
}

/** Lines by what they carry: stretches of one look, words beside them, and places that stand out. */
export interface Painted {
  readonly stretches: readonly {
    readonly line: string;
    readonly from_m: number;
    readonly to_m: number;
    readonly look: style.PaintedLook;
  }[];
  /** What lies on the land is shown too. */
  readonly land: boolean;
  /** Words on each line. */
  readonly words: Readonly<Record<string, string>>;
  readonly pins: readonly {
    readonly at: Point;
    readonly words: string;
    readonly strong: boolean;
  }[];
}

/** Names of all layers make room for one another; symbols are always drawn. */
const NAMES = 'names';
const vector = (zIndex: number, declutter: string | boolean = false) =>
  new VectorLayer({
    source: new VectorSource(),
    zIndex,
    declutter,
    updateWhileInteracting: true,
    updateWhileAnimating: true,
  });

/** Makes the layers of one map. */
export function makeLayers(projection: Projection) {
  const shade = new ImageLayer({ zIndex: 0 });
  const contours = vector(1, true);
  const land = vector(1.5, NAMES);
  const lines = vector(2, NAMES);
  const things = vector(3, NAMES);
  const marks = vector(4);
  const paint = vector(4.5, NAMES);
  const sketch = vector(5);
  const shownLines: ShownLines = new Map();
  let lastLand: readonly unknown[] = [];
  let lastThings: readonly unknown[] = [];
  let lastMarks: readonly unknown[] = [];

  return {
    all: [shade, contours, land, lines, things, marks, paint, sketch],

    /** Hill shade and contours of a grid; nothing on flat ground. */
    ground(
      grid: Grid | null,
      t: Tokens,
      units: Units,
      chosen_m: number,
      tint: 'shade' | 'slope',
    ): void {
      contours.getSource()!.clear();
      shade.setSource(null);
      if (!grid) return;
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
      contours.getSource()!.addFeatures(
        contourLines(grid, interval).map((c) => {
          const feature = new Feature(new MultiLineString(c.lines.map((l) => l.map(xy))));
          const heavy = Math.round(c.z_m / interval) % 5 === 0;
          feature.setStyle(style.contourStyle(t, c.z_m, heavy, say(c.z_m, 'length', units)));
          return feature;
        }),
      );
    },

    /**
     * Lines, vertices of the chosen one, gates, energisers, findings, cursor. A layer is drawn anew
     * only when something on it has changed: while a vertex is dragged every frame counts.
     */
    plan(s: Shown, t: Tokens): void {
      drawLines(lines.getSource()!, shownLines, s, t);
      const landNow = [s.plan.things, s.report?.paddocks, s.thing, s.plan.units, t.sheet];
      if (changed(lastLand, landNow)) {
        lastLand = landNow;
        land.getSource()!.clear(true);
        land.getSource()!.addFeatures([...paddockFeatures(s, t), ...landFeatures(s, t)]);
      }
      const thingsNow = [
        s.plan.gates,
        s.plan.energisers,
        s.plan.lines,
        s.line,
        s.vertex,
        s.thing,
        s.cursor,
        t.sheet,
      ];
      if (changed(lastThings, thingsNow)) {
        lastThings = thingsNow;
        things.getSource()!.clear(true);
        things.getSource()!.addFeatures(thingFeatures(s, t));
      }
      const found = (s.report?.findings ?? []).filter((f) => f.place.e !== undefined && isOpen(f));
      const marksNow = [
        found.map((f) => `${f.kind}${f.place.e},${f.place.n}`).join(),
        s.finding,
        t.sheet,
      ];
      if (changed(lastMarks, marksNow)) {
        lastMarks = marksNow;
        marks.getSource()!.clear(true);
        marks.getSource()!.addFeatures(
          found.map((f) => {
            const mark = new Feature(new OlPoint([f.place.e!, f.place.n!]));
            mark.setStyle(style.findingStyle(t, f.kind, f.id === s.finding));
            return mark;
          }),
        );
      }
    },

    /** Paints lines by what they carry over the plain ones; null: they stand as they are. */
    painted(p: Painted | null, plan: Plan, t: Tokens): void {
      const source = paint.getSource()!;
      source.clear(true);
      lines.setVisible(p === null);
      marks.setVisible(p === null);
      land.setVisible(p?.land ?? true);
      if (!p) return;
      const put = (geometry: OlPoint | LineString, look: Style | Style[]) => {
        const f = new Feature(geometry);
        f.setStyle(look);
        source.addFeature(f);
      };
      for (const { line, from_m, to_m, look } of p.stretches) {
        const own = plan.lines[line];
        if (own) put(new LineString(partOf(own, from_m, to_m)), style.paintedStyle(t, look));
      }
      for (const [id, words] of Object.entries(p.words)) {
        const own = plan.lines[id];
        if (own) put(new LineString(own.vertices.map(xy)), style.wordsStyle(t, words));
      }
      for (const { at, words, strong } of p.pins) put(new OlPoint(xy(at)), style.pinStyle(t, words, strong)); // prettier-ignore
    },

    /**
     * What is in the hand: the trail of a thing or a lane, the leg to the pointer with what it measures,
     * and lines that are shown before they are taken.
     */
    sketch(k: Pen, t: Tokens, units: Units, ground: Ground): void {
      const source = sketch.getSource()!;
      source.clear(true);
      const put = (geometry: OlPoint | LineString, look: Style | Style[]) => {
        const f = new Feature(geometry);
        f.setStyle(look);
        source.addFeature(f);
      };
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

/** Paddocks: the chosen one filled, all of them named with area and stock. */
function paddockFeatures(s: Shown, t: Tokens): Feature[] {
  const place = s.thing?.kind === 'paddock' ? s.thing.id.split(',').map(Number) : null;
  const paddocks = s.report?.paddocks ?? [];
  const chosen = place ? paddockAt(paddocks, { e: place[0]!, n: place[1]! }) : undefined;
  return paddocks.map((p) => {
    const f = new Feature(new Polygon([p.rim, ...p.holes]));
    const head = Object.values(p.stock).reduce((a, b) => a + b, 0);
    const words = [
      p.id === null ? '' : p.name,
      say(p.area_m2, 'area', s.plan.units),
      head > 0 ? `${head} head` : p.id === null || p.use === 'grazing' ? '' : p.use,
    ]
      .filter(Boolean)
      .join('\n');
    f.setStyle(style.paddockStyle(t, words, p.e, p.n, p === chosen));
    return f;
  });
}

/** Things on the land, each by its kind's own line and symbol. */
function landFeatures(s: Shown, t: Tokens): Feature[] {
  return Object.values(s.plan.things ?? {}).flatMap((thing) => {
    const chosen = s.thing?.kind === 'thing' && s.thing.id === thing.id;
    const points = thing.points.map(xy);
    const area = SHAPE_OF[thing.kind] === 'area' && points.length >= 3;
    const geometry =
      points.length === 1
        ? new OlPoint(points[0]!)
        : area
          ? new Polygon([[...points, points[0]!]])
          : new LineString(points);
    const f = new Feature<OlPoint | Polygon | LineString>(geometry);
    f.setStyle(
      points.length === 1
        ? style.spotStyle(t, thing.kind, thing.name, chosen)
        : style.wayStyle(t, thing.kind, thing.name, chosen),
    );
    const corners = chosen && points.length > 1 ? points : [];
    return [
      f,
      ...corners.map((c) => {
        const dot = new Feature(new OlPoint(c));
        dot.setStyle(style.middleStyle(t));
        return dot;
      }),
    ] as Feature[];
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
      name: line.name,
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

function thingFeatures(s: Shown, t: Tokens): Feature[] {
  const out: Feature[] = [];
  const put = (
    geometry: OlPoint | LineString,
    look: ReturnType<typeof style.gateStyle> | ReturnType<typeof style.energiserStyle>,
  ) => {
    const f = new Feature(geometry);
    f.setStyle(look);
    out.push(f);
  };
  const at = (p: Point) => new OlPoint(xy(p));
  const line = s.line ? s.plan.lines[s.line] : undefined;
  if (line) {
    line.vertices.forEach((v, i) => {
      put(at(v), style.vertexStyle(t, v.kind, i === s.vertex));
      const next = line.vertices[i + 1];
      if (next) put(at({ e: (v.e + next.e) / 2, n: (v.n + next.n) / 2 }), style.middleStyle(t));
    });
    if (s.cursor !== null) put(at(pointAt(line.vertices, s.cursor)), style.cursorStyle(t));
  }
  for (const gate of Object.values(s.plan.gates)) {
    const own = s.plan.lines[gate.line];
    if (own)
      put(
        at(pointAt(own.vertices, gate.at_m)),
        style.gateStyle(t, gate.name, s.thing?.id === gate.id, gate.cable),
      );
  }
  for (const e of Object.values(s.plan.energisers)) {
    const own = e.line ? s.plan.lines[e.line] : undefined;
    if (own) put(new LineString([xy(e), xy(pointAt(own.vertices, e.at_m))]), style.leadStyle(t));
    put(at(e), style.energiserStyle(t, e.name, s.thing?.id === e.id));
  }
  return out;
}
