/** The tap timer: the wire is struck, each return of the pulse is tapped, with the thumb or the space bar. */
import { useEffect, useRef, useState } from 'react';
import { FEWEST_TAPS, returnOf, type Taps } from '../../core/wire/checks.js';
import { say } from '../../core/base/units.js';
import { Button } from '../../ui/parts/Button.js';
import { useUnits } from '../../ui/parts/Num.js';

type Heard = { readonly taps: Taps } | { readonly fault: string } | null;

const heardOf = (times: readonly number[]): Heard => {
  if (times.length < FEWEST_TAPS) return null;
  try {
    return { taps: returnOf(times) };
  } catch (fault) {
    if (fault instanceof RangeError) return { fault: fault.message };
    throw fault;
  }
};

/** @param onTaps what was tapped so far; null while it means nothing */
export function TapTimer({ onTaps }: { onTaps: (taps: Taps | null) => void }) {
  const units = useUnits();
  const [times, setTimes] = useState<readonly number[]>([]);
  const heard = heardOf(times);
  const pad = useRef<HTMLButtonElement>(null);
  const told = useRef(onTaps);
  useEffect(() => {
    told.current = onTaps;
  });
  useEffect(() => {
    told.current(heard && 'taps' in heard ? heard.taps : null);
    // What was heard is read from the times.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [times]);
  const tap = (at_ms: number) => setTimes((t) => [...t, at_ms / 1000]);
  return (
    <div className="my-2">
      <button
        ref={pad}
        type="button"
        className="border-ink bg-panel active:bg-hover grid h-40 w-full max-w-[28rem] touch-none place-items-center border-2 text-lg font-semibold select-none"
        aria-label="Tap at each return"
        onPointerDown={(e) => {
          e.preventDefault();
          pad.current?.focus();
          // The time of the touch, not of when it was handled.
          tap(e.timeStamp);
        }}
        onKeyDown={(e) => {
          if (e.key !== ' ' && e.key !== 'Enter') return;
          e.preventDefault();
          if (!e.repeat) tap(e.timeStamp);
        }}
      >
        <span>
          {times.length === 0 ? 'Strike the wire, then tap each return' : `${times.length} taps`}
          <br />
          <span className="label font-normal">thumb, or space bar while this has the focus</span>
        </span>
      </button>
      <p className="mt-1 flex flex-wrap items-center gap-3" aria-live="polite">
        {times.length > 0 && <Button onClick={() => setTimes([])}>Begin again</Button>}
        {heard && 'taps' in heard && (
          <span data-taps>
            one return {say(heard.taps.return_s, 'seconds', units)}, taps off by{' '}
            {say(heard.taps.spread, 'percent', units)}
          </span>
        )}
        {heard && 'fault' in heard && <span role="alert">{heard.fault}.</span>}
        {!heard && times.length > 0 && (
          <span className="label">{FEWEST_TAPS - times.length} more at least; ten are better</span>
        )}
      </p>
    </div>
  );
}
