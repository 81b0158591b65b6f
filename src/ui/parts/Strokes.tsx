import type { Colour, Drawn } from '../drawn.js';

/** The strokes of a small drawing, within an SVG. @param colour the value of each name */
export function Strokes({ drawn, colour }: { drawn: Drawn; colour: (name: Colour) => string }) {
  return drawn.strokes.map((p) => (
    <path
      key={p.d}
      d={p.d}
      fill={p.fill ? colour(p.fill) : 'none'}
      stroke={p.ink ? colour(p.ink) : 'none'}
      strokeWidth={p.width ?? 0}
      strokeLinecap="round"
      strokeLinejoin="round"
    />
  ));
}
