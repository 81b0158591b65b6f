/** A step of a bench card, drawn from its geometry. */
import { useMemo } from 'react';
import type { HandCard } from '../../core/hand/card.js';
import { drawStep } from '../../core/hand/render.js';

interface CardDrawingProps {
  readonly card: HandCard;
  /** Which step. */
  readonly k: number;
  /** Degrees that it is turned. */
  readonly turn?: number;
  /** What it shows, for those who hear it; none: it says nothing of itself. */
  readonly label?: string;
}

export function CardDrawing({ card, k, turn = 0, label }: CardDrawingProps) {
  const { paths, box } = useMemo(() => drawStep(card, k, turn), [card, k, turn]);
  return (
    <svg
      viewBox={box.join(' ')}
      className="hand block w-full"
      {...(label ? { role: 'img', 'aria-label': label } : { 'aria-hidden': true })}
    >
      {paths.map((p, i) => (
        <path key={i} d={p.d} className={p.kind} strokeWidth={p.width || undefined} />
      ))}
    </svg>
  );
}
