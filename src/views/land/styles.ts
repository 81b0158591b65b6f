/** How things on the map are drawn: our own symbols, line style as well as colour. */
import { Circle, Fill, RegularShape, Stroke, Style, Text } from 'ol/style.js';
import type { Finding } from '../../core/report/schema.js';
import { Point as OlPoint } from 'ol/geom.js';
import type { ThingKind, Vertex } from '../../core/plan/schema.js';
import type { Tokens } from './tokens.js';

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
  readonly name: string;
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
      color: l.chosen ? t.earth : t.sheet,
      width: width + (l.chosen ? 6 : 2.5),
    }),
  });
  return [
    halo,
    new Style({
      stroke,
      text: label(t, l.name, {
        placement: 'line',
        textBaseline: 'bottom',
        offsetY: -4,
        overflow: false,
      }),
    }),
  ];
}

/** How a stretch stands against its aim: with reserve, just so, short, far short, or dead. */
export type PaintedLook = 'ample' | 'holds' | 'short' | 'far' | 'dead';

/** Weight and pattern as well as colour: the thicker and the fuller, the better. */
export const paintedStyle = remembered((t: Tokens, look: PaintedLook): Style[] => {
  const stroke = {
    ample: new Stroke({ color: t.live, width: 5 }),
    holds: new Stroke({ color: t.live, width: 2.6 }),
    short: new Stroke({ color: t.warn, width: 3.4, lineDash: [11, 6], lineCap: 'butt' }),
    far: new Stroke({ color: t.warn, width: 4, lineDash: [1, 8] }),
    dead: new Stroke({ color: t.ink, width: 1.6, lineDash: [8, 5] }),
  }[look];
  return [new Style({ stroke: new Stroke({ color: t.sheet, width: 7 }) }), new Style({ stroke })];
});

export const wordsStyle = (t: Tokens, words: string): Style =>
  new Style({
    text: label(t, words, {
      placement: 'line',
      textBaseline: 'bottom',
      offsetY: -6,
      overflow: false,
    }),
  });

/** A place that stands out: the worst, or one that the unit might feed at. */
export const pinStyle = (t: Tokens, words: string, strong: boolean): Style =>
  new Style({
    zIndex: strong ? 3 : 2,
    image: new Circle({
      declutterMode: 'none',
      radius: strong ? 8 : 5.5,
      fill: new Fill({ color: t.panel }),
      stroke: new Stroke({ color: strong ? t.ink : t.earth, width: strong ? 3 : 2 }),
    }),
    text: label(t, words, {
      offsetY: strong ? -17 : -13,
      font: `${strong ? 650 : 500} 12.5px ${FONT}`,
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
  const fill = chosen ? t.earth : kind === 'end' ? t.ink : t.panel;
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

/** A gate: a plate across the line; filled when no cable runs under it. */
export const gateStyle = remembered(
  (t: Tokens, name: string, chosen: boolean, cable: boolean): Style =>
    new Style({
      image: new RegularShape({
        declutterMode: 'none',
        points: 4,
        angle: Math.PI / 4,
        scale: [1.5, 0.75],
        radius: chosen ? 11 : 9,
        fill: new Fill({ color: cable ? t.panel : t.warn }),
        stroke: new Stroke({ color: t.ink, width: 1.8 }),
      }),
      text: label(t, name, { offsetY: 16 }),
      zIndex: 11,
    }),
);

/** An energiser: a filled disc in a ring, with a stroke of the live colour. */
export const energiserStyle = remembered((t: Tokens, name: string, chosen: boolean): Style[] => [
  new Style({
    image: new Circle({
      declutterMode: 'none',
      radius: chosen ? 12 : 10,
      fill: new Fill({ color: t.panel }),
      stroke: new Stroke({ color: t.ink, width: 1.8 }),
    }),
    zIndex: 12,
  }),
  new Style({
    image: new Circle({
      declutterMode: 'none',
      radius: 4.5,
      fill: new Fill({ color: t.live }),
    }),
    text: label(t, name, { offsetY: 20 }),
    zIndex: 13,
  }),
]);

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

export function contourStyle(t: Tokens, z: number, heavy: boolean, text: string): Style {
  return new Style({
    stroke: new Stroke({ color: t.soft, width: heavy ? 0.9 : 0.45 }),
    ...(heavy && {
      text: new Text({
        text,
        placement: 'line',
        font: `10.5px ${FONT}`,
        fill: new Fill({ color: t.soft }),
        stroke: new Stroke({ color: t.sheet, width: 3 }),
      }),
    }),
    zIndex: z,
  });
}

/** Marks stand beside what they speak of, so that both can be seen. */
const OFFSET = [13, 11];

/** Finding marks on the map: a bar, a wedge, a ring; larger when chosen. */
export const findingStyle = remembered(
  (t: Tokens, kind: Finding['kind'], chosen: boolean): Style => {
    const k = chosen ? 1.7 : 1;
    const stroke = new Stroke({ color: t.sheet, width: 1.5 });
    if (kind === 'stop') {
      return new Style({
        image: new RegularShape({
          declutterMode: 'none',
          points: 4,
          radius: 8 * k,
          angle: Math.PI / 4,
          scale: [1, 0.55],
          displacement: OFFSET,
          fill: new Fill({ color: t.live }),
          stroke,
        }),
        zIndex: 15,
      });
    }
    if (kind === 'mend') {
      return new Style({
        image: new RegularShape({
          declutterMode: 'none',
          points: 3,
          radius: 7 * k,
          displacement: OFFSET,
          fill: new Fill({ color: t.warn }),
          stroke,
        }),
        zIndex: 14,
      });
    }
    return new Style({
      image: new Circle({
        declutterMode: 'none',
        radius: 5 * k,
        displacement: OFFSET,
        stroke: new Stroke({ color: t.earth, width: 2, lineDash: [3, 2] }),
      }),
      zIndex: 14,
    });
  },
);

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

/** A paddock: its words well inside it, filled when chosen. */
export function paddockStyle(
  t: Tokens,
  words: string,
  e: number,
  n: number,
  chosen: boolean,
): Style[] {
  const text = new Style({
    geometry: new OlPoint([e, n]),
    text: new Text({
      text: words,
      font: `500 12px ${FONT}`,
      fill: new Fill({ color: t.soft }),
      stroke: new Stroke({ color: t.sheet, width: 3 }),
      overflow: true,
    }),
  });
  if (!chosen) return [text];
  return [new Style({ fill: new Fill({ color: `${t.chosen}` }) }), text];
}

/** How the way or rim of each kind of thing is drawn: told apart by dashes and weight before colour. */
const WAYS: Readonly<
  Record<
    ThingKind,
    { width: number; dash: number[]; ink: 'ink' | 'soft' | 'earth' | 'warn'; fill?: boolean }
  >
> = {
  property: { width: 4, dash: [14, 5, 2, 5], ink: 'soft' },
  water: { width: 2, dash: [], ink: 'earth' },
  mains: { width: 2, dash: [], ink: 'warn' },
  building: { width: 2, dash: [], ink: 'ink', fill: true },
  overhead: { width: 1.4, dash: [18, 4, 1, 4, 1, 4], ink: 'warn' },
  publicWay: { width: 3, dash: [3, 6], ink: 'soft' },
  burn: { width: 2.6, dash: [], ink: 'earth' },
  oldFence: { width: 1.6, dash: [6, 2, 1, 2], ink: 'ink' },
  obstacle: { width: 1.4, dash: [2, 3], ink: 'warn', fill: true },
  tree: { width: 1.4, dash: [], ink: 'ink' },
  soil: { width: 1, dash: [1, 4], ink: 'soft', fill: true },
};

export const wayStyle = remembered(
  (t: Tokens, kind: ThingKind, name: string, chosen: boolean): Style[] => {
    const w = WAYS[kind];
    return [
      new Style({
        stroke: new Stroke({
          color: chosen ? t.earth : t.sheet,
          width: w.width + (chosen ? 6 : 2),
        }),
      }),
      new Style({
        stroke: new Stroke({ color: t[w.ink], width: w.width, lineDash: w.dash }),
        ...(w.fill ? { fill: new Fill({ color: `${t[w.ink]}1f` }) } : {}),
        ...(kind === 'property'
          ? {}
          : { text: label(t, name, { font: `italic 500 11.5px ${FONT}`, overflow: true }) }),
      }),
    ];
  },
);

/** Letters in a ring tell the kinds of spots apart without colour. */
const LETTER: Partial<Record<ThingKind, string>> = { water: 'W', mains: 'M', tree: 'T' };

export const spotStyle = remembered(
  (t: Tokens, kind: ThingKind, name: string, chosen: boolean): Style[] => [
    new Style({
      image: new Circle({
        declutterMode: 'none',
        radius: chosen ? 11 : 9,
        fill: new Fill({ color: t.panel }),
        stroke: new Stroke({ color: chosen ? t.earth : t[WAYS[kind].ink], width: chosen ? 3 : 2 }),
      }),
      text: new Text({
        text: LETTER[kind] ?? '·',
        declutterMode: 'none',
        font: `700 11px ${FONT}`,
        fill: new Fill({ color: t.ink }),
      }),
      zIndex: 6,
    }),
    new Style({ text: label(t, name, { offsetY: 18 }), zIndex: 6 }),
  ],
);
