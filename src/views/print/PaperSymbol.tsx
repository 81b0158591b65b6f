import type { Colour, Drawn } from '../../ui/drawn.js';
import { Strokes } from '../../ui/parts/Strokes.js';

/** Inks of the printed map: dark enough to be told apart when it is copied grey. */
const INKS: Record<Colour, string> = {
  own: '#1c2b33',
  ink: '#1c2b33',
  paper: '#ffffff',
  live: '#b3261e',
  earth: '#0b6266',
  warn: '#7a4b00',
};

/** A symbol about a place of the sheet. @param scale millimetres for each unit of its drawing */
export function PaperSymbol(p: { drawn: Drawn; x: number; y: number; scale: number }) {
  const { drawn, x, y, scale } = p;
  return (
    <g
      transform={`translate(${x - (drawn.w * scale) / 2},${y - (drawn.h * scale) / 2}) scale(${scale})`}
    >
      <Strokes drawn={drawn} colour={(name) => INKS[name]} />
    </g>
  );
}
