/** Where somebody stands with the phone, asked once. */
import { useState } from 'react';
import type { Point } from '../../core/plan/schema.js';
import { deviceReceiver } from '../../ui/devices/positioning.js';
import { useSession } from '../../session/session.js';

export function useHere() {
  const origin = useSession((s) => s.plan.origin);
  const [asking, setAsking] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  /** The place on the plan; null: nobody knows, and the fault says why. */
  const ask = async (): Promise<Point | null> => {
    setAsking(true);
    setFault(null);
    const globe = await import('../../formats/projection.js').catch(() => null);
    const found = await new Promise<Point | string>((resolve) => {
      if (!globe) return resolve('The server does not answer: no position now.');
      if (globe.nowhere(origin)) return resolve('This property has no place on the globe: choose the place in the list.'); // prettier-ignore
      const stop = deviceReceiver.watch(
        (fix) => {
          setTimeout(() => stop());
          if ('local' in fix.at) resolve(fix.at.local);
          else resolve(globe.converter(origin).fromLonLat([fix.at.lon, fix.at.lat]));
        },
        (words) => resolve(words),
      );
    });
    setAsking(false);
    if (typeof found !== 'string') return found;
    setFault(found);
    return null;
  };
  return { ask, asking, fault };
}
