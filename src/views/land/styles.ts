/** How things on the map are drawn: our own symbols, line style as well as colour. */
import { Circle, Fill, Icon, RegularShape, Stroke, Style, Text } from 'ol/style.js';
import type { ThingKind, Vertex } from '../../core/plan/schema.js';
import { drawnUrl, type Colour } from '../../ui/drawn.js';
import { KIND_SHAPES } from '../../ui/parts/findingShapes.js';
import { SIZES, type Face, type Measure, type Symbol } from './lettering.js';
import type { PaintedLook } from './shown.js';
import type { Tokens } from './tokens.js';
import { WAYS } from './ways.js';

const FONT = '"Archivo Variable", sans-serif';

const label = (t: Tokens, text: string, more: object = {}) =>
  new Text({
    text,
    font: `500 12px ${FONT}`,
    fill: new Fill({ color: t.ink }),
    stroke: new Stroke({ color: t.sheet, width: 3.5 }),
    ...more,
  });

/** Remembers each look by its arguments: making a symbol means drawing it on a canvas of its own. */
function remembered<A extends [Tokens, ...unknown[]], R>(
  make: (...args: A) => R,
): (...args: A) => R {
  const made = new Map<string, R>();
  return (...args) => {
    const key = JSON.stringify([args[0].sheet, ...args.slice(1)]);
    let look = made.get(key);
    if (look === undefined) made.set(key, (look = make(...args)));
    return look;
  };
}

export interface LineLook {
  readonly chosen: boolean;
  readonly dead: boolean;
  readonly boundary: boolean;
}

/** Fed lines solid in the live colour, dead ones dashed ink, boundaries heavier. */
export function lineStyle(t: Tokens, l: LineLook): Style[] {
  const width = l.boundary ? 3.2 : 2;
  const stroke = l.dead
    ? new Stroke({ color: t.ink, width, lineDash: [8, 5] })
    : new Stroke({ color: t.live, width });
  const halo = new Style({
    stroke: new Stroke({
      color: l.chosen ? t.pick : t.sheet,
      width: width + (l.chosen ? 7 : 2.5),
    }),
  });
  return [halo, new Style({ stroke })];
}

/** Weight and pattern as well as colour: the thicker and the fuller, the better. */
export const paintedStyle = remembered((t: Tokens, look: PaintedLook): Style[] => {
  const stroke = {
    ample: new Stroke({ color: t.live, width: 5 }),
    holds: new Stroke({ color: t.live, width: 2.6 }),
    short: new Stroke({ color: t.warn, width: 3.4, lineDash: [11, 6], lineCap: 'butt' }),
    far: new Stroke({ color: t.warn, width: 4, lineDash: [1, 8] }),
    dead: new Stroke({ color: t.ink, width: 1.6, lineDash: [8, 5] }),
    twice: new Stroke({ color: t.live, width: 4 }),
    half: new Stroke({ color: t.live, width: 9, lineCap: 'butt' }),
    most: new Stroke({ color: t.live, width: 5, lineDash: [3, 3], lineCap: 'butt' }),
    rest: new Stroke({ color: t.warn, width: 2.6, lineDash: [2, 6] }),
    clear: new Stroke({ color: t.ink, width: 1.2 }),
    once: new Stroke({ color: t.warn, width: 3.4, lineDash: [14, 4, 3, 4], lineCap: 'butt' }),
  }[look];
  return [new Style({ stroke: new Stroke({ color: t.sheet, width: 7 }) }), new Style({ stroke })];
});

/** A place that stands out: the worst, or one that the unit might feed at. */
const pinStyle = (t: Tokens, strong: boolean): Style =>
  new Style({
    zIndex: strong ? 26 : 24,
    image: new Circle({
      radius: strong ? 8 : 5.5,
      fill: new Fill({ color: t.panel }),
      stroke: new Stroke({ color: strong ? t.ink : t.earth, width: strong ? 3 : 2 }),
    }),
  });

const square = (t: Tokens, radius: number, fill: string) =>
  new RegularShape({
    declutterMode: 'none',
    points: 4,
    radius,
    angle: Math.PI / 4,
    fill: new Fill({ color: fill }),
    stroke: new Stroke({ color: t.ink, width: 1.5 }),
  });

/** An end is a filled square, a corner an open square, a bend a ring. */
export const vertexStyle = remembered((t: Tokens, kind: Vertex['kind'], chosen: boolean): Style => {
  const fill = chosen ? t.pick : kind === 'end' ? t.ink : t.panel;
  const image =
    kind === 'bend'
      ? new Circle({
          declutterMode: 'none',
          radius: chosen ? 7 : 5,
          fill: new Fill({ color: fill }),
          stroke: new Stroke({ color: t.ink, width: 1.5 }),
        })
      : square(t, chosen ? 10 : 7, fill);
  return new Style({ image, zIndex: 10 });
});

export const middleStyle = remembered(
  (t: Tokens): Style =>
    new Style({
      image: new Circle({
        declutterMode: 'none',
        radius: 3.2,
        fill: new Fill({ color: t.panel }),
        stroke: new Stroke({ color: t.soft, width: 1.2 }),
      }),
      zIndex: 9,
    }),
);

export const leadStyle = remembered(
  (t: Tokens): Style =>
    new Style({ stroke: new Stroke({ color: t.live, width: 1.4, lineDash: [2, 3] }), zIndex: 8 }),
);

export const cursorStyle = remembered(
  (t: Tokens): Style =>
    new Style({
      image: new Circle({
        declutterMode: 'none',
        radius: 6,
        stroke: new Stroke({ color: t.earth, width: 3 }),
      }),
      zIndex: 20,
    }),
);

export const contourStyle = (t: Tokens, z: number, heavy: boolean): Style =>
  new Style({
    stroke: new Stroke({ color: t.soft, width: heavy ? 0.9 : 0.45 }),
    zIndex: z,
  });

const FACES: Readonly<Record<Face, { readonly weight: string; readonly ink: 'ink' | 'soft' }>> = {
  name: { weight: '500', ink: 'ink' },
  strong: { weight: '680', ink: 'ink' },
  soft: { weight: '500', ink: 'soft' },
  thing: { weight: 'italic 500', ink: 'ink' },
  figure: { weight: '400', ink: 'soft' },
};
const fontOf = (face: Face): string => `${FACES[face].weight} ${SIZES[face]}px ${FONT}`;

export const textStyle = remembered(
  (t: Tokens, text: string, face: Face, rotation: number): Style =>
    new Style({
      zIndex: 30,
      text: label(t, text, {
        font: fontOf(face),
        rotation,
        fill: new Fill({ color: t[FACES[face].ink] }),
        textAlign: 'center',
        textBaseline: 'middle',
      }),
    }),
);

let pen: CanvasRenderingContext2D | null = null;
const widths = new Map<string, number>();

/** Width of a text on the map, px. */
export const measure: Measure = (text, face) => {
  const key = `${face} ${text}`;
  let width = widths.get(key);
  if (width === undefined) {
    pen ??= document.createElement('canvas').getContext('2d');
    if (!pen) return text.length * SIZES[face] * 0.55;
    pen.font = fontOf(face);
    widths.set(key, (width = pen.measureText(text).width));
  }
  return width;
};

/** A symbol by what it is; drawn from the same paths as in lists and on paper. */
export const symbolStyle = remembered((t: Tokens, what: Symbol['what']): Style | Style[] => {
  if ('vertex' in what) return vertexStyle(t, what.vertex, what.chosen);
  if ('middle' in what) return middleStyle(t);
  if ('pin' in what) return pinStyle(t, what.pin === 'strong');
  const drawn = 'drawn' in what ? what.drawn : KIND_SHAPES[what.finding];
  const scale = 'drawn' in what ? what.scale : what.chosen ? 1.35 : 0.9;
  const own = 'drawn' in what ? t.ink : t[what.finding];
  const colour = (name: Colour) => (name === 'own' ? own : name === 'paper' ? t.panel : t[name]);
  const count = 'finding' in what && what.count > 1 ? String(what.count) : null;
  const image = new Icon({
    src: drawnUrl(drawn, colour, 2),
    scale: scale / 2,
    ...(count ? { displacement: [-4 * count.length, 0] } : {}),
  });
  const style = new Style({
    image,
    zIndex: 'finding' in what ? 25 : 22,
    ...(count
      ? {
          text: label(t, count, {
            font: `650 11px ${FONT}`,
            offsetX: 9,
            fill: new Fill({ color: own }),
          }),
        }
      : {}),
  });
  if (!what.chosen || !('drawn' in what)) return style;
  const ring = new Circle({ radius: 17, stroke: new Stroke({ color: t.pick, width: 5 }) });
  return [new Style({ image: ring, zIndex: 21 }), style];
});

/** The leg in the hand, with its length and bearing. */
export const sketchStyle = (t: Tokens, words: string): Style[] => [
  new Style({ stroke: new Stroke({ color: t.sheet, width: 5 }) }),
  new Style({
    stroke: new Stroke({ color: t.earth, width: 2, lineDash: [6, 4] }),
    text: label(t, words, { placement: 'point', offsetY: -14, font: `600 13px ${FONT}` }),
  }),
];

/** Lines that are shown before they are taken. */
export const shownStyle = remembered((t: Tokens): Style[] => [
  new Style({ stroke: new Stroke({ color: t.sheet, width: 5 }) }),
  new Style({ stroke: new Stroke({ color: t.earth, width: 2.4, lineDash: [10, 4, 2, 4] }) }),
]);

/** A walk as it was walked: fine, so that what is made of it shows above it. */
export const walkedStyle = remembered(
  (t: Tokens): Style =>
    new Style({ stroke: new Stroke({ color: t.ink, width: 1.2, lineDash: [2, 2.5] }) }),
);

/** A marked place of which only the name is known. */
export const markedStyle = remembered(
  (t: Tokens, name: string): Style =>
    new Style({
      image: new Circle({
        declutterMode: 'none',
        radius: 5,
        fill: new Fill({ color: t.panel }),
        stroke: new Stroke({ color: t.ink, width: 1.5, lineDash: [2, 2] }),
      }),
      text: label(t, name, { offsetY: -13 }),
    }),
);

/** The paddock that is chosen. */
export const paddockStyle = remembered(
  (t: Tokens): Style => new Style({ fill: new Fill({ color: `${t.pick}55` }) }),
);

export const wayStyle = remembered((t: Tokens, kind: ThingKind, chosen: boolean): Style[] => {
  const w = WAYS[kind];
  return [
    new Style({
      stroke: new Stroke({
        color: chosen ? t.pick : t.sheet,
        width: w.width + (chosen ? 6 : 2),
      }),
    }),
    new Style({
      stroke: new Stroke({ color: t[w.ink], width: w.width, lineDash: w.dash }),
      ...(w.fill ? { fill: new Fill({ color: `${t[w.ink]}1f` }) } : {}),
    }),
  ];
});
