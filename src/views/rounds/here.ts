/** Where somebody stands with the phone: followed, or asked once. */
import { useState } from 'react';
import type { Point } from '../../core/plan/schema.js';
import { deviceReceiver } from '../../ui/devices/positioning.js';
import { useSession } from '../../session/session.js';

/**
 * Follows the phone, or a simulated receiver, on the plan.
 * @returns starts it, and gives a function that stops it; whatever is wrong is said once, and it stops by itself
 */
export function useFixes() {
  const origin = useSession((s) => s.plan.origin);
  return async (
    onFix: (here: Point, within_m: number) => void,
    onFault: (words: string) => void,
    receiver = deviceReceiver,
  ): Promise<() => void> => {
    const off = receiver === deviceReceiver ? null : receiver.watch(({ at, accuracy_m }) => 'local' in at && onFix(at.local, accuracy_m), onFault);
    if (off) return off;
    const globe = await import('../../formats/projection.js').catch(() => null);
    const none = () => undefined;
    if (!globe) onFault('The server does not answer: no position now.');
    else if (globe.nowhere(origin)) onFault('This property has no place on the globe: choose the place in the list.');
    if (!globe || globe.nowhere(origin)) return none;
    const { fromLonLat } = globe.converter(origin);
    return deviceReceiver.watch(
      ({ at, accuracy_m }) => onFix('local' in at ? at.local : fromLonLat([at.lon, at.lat]), accuracy_m),
      onFault,
    );
  };
} // prettier-ignore

export function useHere() {
  const watch = useFixes();
  const [asking, setAsking] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  /** The place on the plan; null: nobody knows, and the fault says why. */
  const ask = async (): Promise<Point | null> => {
    setAsking(true);
    setFault(null);
    let stop: (() => void) | null = null;
    const found = await new Promise<Point | null>((resolve) => {
      void watch(
        (here) => resolve(here),
        (words) => {
          setFault(words);
          resolve(null);
        },
      ).then((end) => (stop = end));
    });
    // A fix may come before the way to stop it does.
    setTimeout(() => stop?.());
    setAsking(false);
    return found;
  };
  return { ask, asking, fault };
}
