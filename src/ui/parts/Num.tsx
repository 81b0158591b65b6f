/** A number as every screen shows it: figure, unit, and where it comes from. */
import { useState } from 'react';
import { figureText, inFeet, say, unitOf, type Quantity } from '../../core/base/units.js';
import { refuse } from '../../session/session.js';
import { GLYPH, markOf, type Origin, type OriginInput } from './origin.js';
import { useUnits } from './useUnits.js';

export { useUnits };
export type { Origin, OriginInput };

interface NumProps {
  readonly value: number | null | undefined;
  readonly q: Quantity;
  readonly from?: Origin;
  readonly className?: string;
  readonly bare?: boolean;
}

/** Figure and unit; with `from`, a small mark beside it opens where the number comes from. */
export function Num({ value, q, from, className = '', bare = false }: NumProps) {
  const units = useUnits();
  if (value === null || value === undefined) return <span className={className}>–</span>;
  // Feet and inches bring their units along.
  const unit = inFeet(q, units) ? '' : unitOf(q, units);
  return (
    <span className={`whitespace-nowrap ${className}`}>
      <span className="figure">{figureText(value, q, units)}</span>
      {!bare && unit !== '' && (
        <span className="text-[0.92em]">{unit === '°' ? unit : `\u00a0${unit}`}</span>
      )}
      {from && <WhereFrom origin={from} shown={say(value, q, units)} />}
    </span>
  );
}

/** What is measured on the drawing itself. */
export const MEASURED: Origin = {
  kind: 'measured',
  title: 'Measured on the drawing',
  source:
    'Local metres; bearings from grid north; over ground: sum of sqrt(ds² + dz²), at every change of slope',
};

type Card = typeof import('./OriginCard.js').OriginCard;
/** What opens beside a mark: fetched when the first of all is pressed. */
let card: Card | null = null;

/** The mark that opens the origin of a number. */
export function WhereFrom({ origin, shown }: { origin: Origin; shown: string }) {
  const [Card, setCard] = useState<Card | null>(null);
  if (Card) return <Card origin={origin} shown={shown} />;
  const open = async () => {
    card ??= await import('./OriginCard.js').then(
      (m) => m.OriginCard,
      () => null,
    );
    if (card) setCard(() => card);
    else
      refuse('Where this comes from could not be loaded. Press it again when the server answers.');
  };
  return (
    <button
      type="button"
      {...markOf(origin, shown)}
      aria-haspopup="dialog"
      aria-expanded={false}
      onClick={() => void open()}
    >
      {GLYPH[origin.kind]}
    </button>
  );
}
