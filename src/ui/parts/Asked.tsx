/** What is not answered yet, in the place of the answer. */
import type { Answer } from '../../session/power.js';

interface AskedProps {
  readonly of: Pick<Answer<unknown>, 'value' | 'waiting' | 'fault'> & {
    readonly share?: number | null;
  };
  /** What is being done, as in `Trying places`. */
  readonly doing: string;
  readonly className?: string;
}

/** That it is being worked out and how far it is, or why it could not be; nothing where the answer stands. */
export function Asked({
  of: { value, waiting, fault, share = null },
  doing,
  className = '',
}: AskedProps) {
  if (fault !== null)
    return (
      <p role="alert" className={`border-stop my-1 border px-2 py-1 ${className}`}>
        {doing}: this could not be worked out now ({fault}). It is tried again by itself; what you
        draw is saved all the same.
      </p>
    );
  if (value !== null || !waiting) return null;
  return (
    <p role="status" className={className}>
      {doing} … {share !== null && <span className="figure">{Math.round(100 * share)} %</span>}
    </p>
  );
}
