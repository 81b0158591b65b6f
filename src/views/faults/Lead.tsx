/** The phone leads to a place: how far and which way from where one stands. */
import { Navigation } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { bearing, distance } from '../../core/plan/geometry.js';
import { say } from '../../core/base/units.js';
import type { Point } from '../../core/plan/schema.js';
import { Button } from '../../ui/parts/Button.js';
import { FieldFault } from '../../ui/parts/FieldFault.js';
import { useUnits } from '../../ui/parts/Num.js';
import { useFixes } from '../rounds/here.js';

const WINDS = ['north', 'north-east', 'east', 'south-east', 'south', 'south-west', 'west', 'north-west'] as const; // prettier-ignore
export const windOf = (deg: number): string =>
  WINDS[Math.round((((deg % 360) + 360) % 360) / 45) % 8]!;

export function Lead({ to }: { to: Point }) {
  const units = useUnits();
  const [on, setOn] = useState(false);
  const [at, setAt] = useState<{ here: Point; within_m: number } | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const watch = useFixes();
  const stop = useRef<(() => void) | null>(null);
  useEffect(() => () => stop.current?.(), []);
  const toggle = async () => {
    stop.current?.();
    stop.current = null;
    setAt(null);
    setFault(null);
    if (on) return setOn(false);
    setOn(true);
    stop.current = await watch(
      (here, within_m) => setAt({ here, within_m }),
      (words) => {
        setFault(words);
        setOn(false);
      },
    );
  };
  return (
    <p className="my-1 flex flex-wrap items-center gap-2">
      <Button aria-pressed={on} onClick={() => void toggle()}>
        <Navigation size={16} aria-hidden /> Lead me there
      </Button>
      {on && (
        <span role="status" className="text-[1.15rem] font-semibold">
          {at ? `${say(distance(at.here, to), 'length', units)} ${windOf(bearing(at.here, to))}` : 'Waiting for a position …'}
          {at && <span className="label"> within {say(at.within_m, 'length', units)}</span>}
        </span>
      )}
      {fault && <FieldFault>{fault}</FieldFault>}
    </p>
  );
} // prettier-ignore
