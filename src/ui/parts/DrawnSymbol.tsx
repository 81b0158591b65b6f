import type { Colour, Drawn } from '../drawn.js';
import { Strokes } from './Strokes.js';

const VARS: Record<Colour, string> = {
  own: 'var(--ink)',
  ink: 'var(--ink)',
  paper: 'var(--panel)',
  live: 'var(--live)',
  earth: 'var(--earth)',
  warn: 'var(--warn)',
};

/** A symbol of ours in a list or a key; words stand beside it. */
export function DrawnSymbol({ drawn, scale = 1 }: { drawn: Drawn; scale?: number }) {
  return (
    <svg
      width={drawn.w * scale}
      height={drawn.h * scale}
      viewBox={`0 0 ${drawn.w} ${drawn.h}`}
      aria-hidden
    >
      <Strokes drawn={drawn} colour={(name) => VARS[name]} />
    </svg>
  );
}
