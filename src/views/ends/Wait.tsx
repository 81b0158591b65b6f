import { Num } from '../../ui/parts/Num.js';

/** How long until something may be loaded: none, hours, or whole days. */
export function Wait({ hours }: { hours: number }) {
  if (hours === 0) return <>none</>;
  return hours < 24 ? (
    <Num value={hours} q="hours" />
  ) : (
    <span className="figure">{waitWords(hours)}</span>
  );
}

export const waitWords = (hours: number): string =>
  hours < 24 ? `${Math.round(hours)} h` : `${Math.round(hours / 24)} days`;
