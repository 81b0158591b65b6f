/** What the paint on the lines means. */
import { useState } from 'react';
import type { PaintedLook } from './shown.js';

const STROKES: Record<PaintedLook, React.SVGProps<SVGLineElement>> = {
  ample: { stroke: 'var(--live)', strokeWidth: 5 },
  holds: { stroke: 'var(--live)', strokeWidth: 2.6 },
  short: { stroke: 'var(--warn)', strokeWidth: 3.4, strokeDasharray: '11 6' },
  far: { stroke: 'var(--warn)', strokeWidth: 4, strokeDasharray: '1 8', strokeLinecap: 'round' },
  twice: { stroke: 'var(--live)', strokeWidth: 4 },
  once: { stroke: 'var(--warn)', strokeWidth: 3.4, strokeDasharray: '14 4 3 4' },
  half: { stroke: 'var(--live)', strokeWidth: 9 },
  most: { stroke: 'var(--live)', strokeWidth: 5, strokeDasharray: '3 3' },
  rest: { stroke: 'var(--warn)', strokeWidth: 2.6, strokeDasharray: '2 6' },
  clear: { stroke: 'var(--ink)', strokeWidth: 1.2 },
  dead: { stroke: 'var(--ink)', strokeWidth: 1.6, strokeDasharray: '8 5' },
};

export function PaintLegend({
  title,
  rows,
}: {
  title: string;
  rows: readonly (readonly [PaintedLook, string])[];
}) {
  // On a phone it would cover the map.
  const [open, setOpen] = useState(() => innerWidth > 700);
  return (
    <div className="bg-panel/95 border-rule absolute top-2 right-2 border px-2 py-1 text-[0.857rem]">
      <button
        className="label w-full cursor-pointer text-left"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        {title}
      </button>
      {open && (
        <ul>
          {rows.map(([look, words]) => (
            <li key={look} className="flex items-center gap-2 whitespace-nowrap">
              <svg width={38} height={10} aria-hidden>
                <line x1={1} x2={37} y1={5} y2={5} {...STROKES[look]} />
              </svg>
              {words}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
