/** The layers of the map, filled from the plan and the report. */
import Feature from 'ol/Feature.js';
import { LineString, MultiLineString, Point as OlPoint } from 'ol/geom.js';
import ImageLayer from 'ol/layer/Image.js';
import VectorLayer from 'ol/layer/Vector.js';
import type Projection from 'ol/proj/Projection.js';
import Static from 'ol/source/ImageStatic.js';
import VectorSource from 'ol/source/Vector.js';
import { say, type Units } from '../../core/base/units.js';
import { bearing, distance, pointAt } from '../../core/plan/geometry.js';
import type { Grid, Line, Plan, Point } from '../../core/plan/schema.js';
import type { Report } from '../../core/report/schema.js';
import {
  contourInterval,
  contourLines,
  heightRange,
  hillShade,
} from '../../core/terrain/relief.js';
import { extent, heightAt, type Ground } from '../../core/terrain/ground.js';
import * as style from './styles.js';
import type { Tokens } from './tokens.js';

export const xy = (p: Point): [number, number] => [p.e, p.n];

export interface Shown {
  readonly plan: Plan;
  readonly report: Report | null;
  readonly line: string | null;
  readonly vertex: number | null;
  readonly thing: { kind: 'gate' | 'energiser'; id: string } | null;
  readonly finding: string | null;
  readonly cursor: number | null;
}

const vector = (zIndex: number, declutter = false) =>
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
  const lines = vector(2, true);
  const things = vector(3);
  const marks = vector(4);
  const sketch = vector(5);
  const shownLines: ShownLines = new Map();
  let lastThings: readonly unknown[] = [];
  let lastMarks: readonly unknown[] = [];

  return {
    all: [shade, contours, lines, things, marks, sketch],

    /** Hill shade and contours of a grid; nothing on flat ground. */
    ground(grid: Grid | null, t: Tokens, units: Units): void {
      contours.getSource()!.clear();
      shade.setSource(null);
      if (!grid) return;
      shade.setOpacity(t.shade);
      shade.setSource(
        new Static({
          url: shadeImage(grid),
          projection,
          imageExtent: rim(grid),
          interpolate: true,
        }),
      );
      const interval = contourInterval(...heightRange(grid));
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
      const found = (s.report?.findings ?? []).filter((f) => f.place.e !== undefined);
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

    /** The leg in the hand: from the last point to the pointer, with what it measures. */
    sketch(from: Point | null, to: Point | null, t: Tokens, units: Units, ground: Ground): void {
      sketch.getSource()!.clear(true);
      if (!to) return;
      const dot = new Feature(new OlPoint(xy(to)));
      dot.setStyle(style.cursorStyle(t));
      sketch.getSource()!.addFeature(dot);
      if (!from || distance(from, to) < 0.05) return;
      const f = new Feature(new LineString([xy(from), xy(to)]));
      const rise = heightAt(ground, to) - heightAt(ground, from);
      const grade = Number.isNaN(rise)
        ? ''
        : `  ${say(rise / distance(from, to), 'percent', units)}`;
      f.setStyle(
        style.sketchStyle(
          t,
          `${say(distance(from, to), 'tape', units)} @ ${bearing(from, to).toFixed(1)}°${grade}`,
        ),
      );
      sketch.getSource()!.addFeature(f);
    },
  };
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
      chosen: line.id === s.line,
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

/** Outer rim of the image: half a cell beyond the outermost values. */
function rim(grid: Grid): [number, number, number, number] {
  const [west, south, east, north] = extent(grid);
  const half = grid.cell_m / 2;
  return [west - half, south - half, east + half, north + half];
}

function shadeImage(grid: Grid): string {
  const lit = hillShade(grid);
  const canvas = document.createElement('canvas');
  canvas.width = grid.cols;
  canvas.height = grid.rows;
  const context = canvas.getContext('2d')!;
  const image = context.createImageData(grid.cols, grid.rows);
  for (let j = 0; j < grid.rows; j++) {
    for (let i = 0; i < grid.cols; i++) {
      const at = ((grid.rows - 1 - j) * grid.cols + i) * 4;
      // Shade only where it is darker than level ground, so that the sheet stays light.
      const dark = Math.max(0, 180 - lit[j * grid.cols + i]!);
      image.data.set([28, 43, 51, Math.min(110, dark * 0.85)], at);
    }
  }
  context.putImageData(image, 0, 0);
  return canvas.toDataURL();
}
