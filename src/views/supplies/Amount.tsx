/** So much of an item, in what it is sold by. */
import { Num } from '../../ui/parts/Num.js';

export function Amount({ of: unit, n }: { of: string; n: number }) {
  if (unit === 'm') return <Num value={n} q="length" />;
  const whole = Math.abs(n - Math.round(n)) < 1e-6;
  return (
    <span className="whitespace-nowrap">
      <span className="figure">{whole ? Math.round(n) : n.toFixed(1)}</span>
      {unit === 'each' ? '' : ` ${unit}`}
    </span>
  );
}
