/** Where the walker is: the browser's own positioning, or a simulated receiver that walks a stored track. */
import walk from '../../../data/walk.json' with { type: 'json' };
import { normal } from '../../core/base/random.js';
import type { Point } from '../../core/plan/schema.js';

/** One fix. A simulated one comes in local metres, a real one in degrees. */
export type Fix = {
  readonly accuracy_m: number;
  readonly at: { readonly lon: number; readonly lat: number } | { readonly local: Point };
};

export interface Receiver {
  readonly name: string;
  /** Starts; gives a function that stops it. */
  watch(onFix: (fix: Fix) => void, onFault: (words: string) => void): () => void;
}

/** The positioning of this device. */
export const deviceReceiver: Receiver = {
  name: 'this device',
  watch(onFix, onFault) {
    if (!('geolocation' in navigator)) {
      onFault('This browser has no positioning.');
      return () => undefined;
    }
    const id = navigator.geolocation.watchPosition(
      ({ coords }) =>
        onFix({
          accuracy_m: coords.accuracy,
          at: { lon: coords.longitude, lat: coords.latitude },
        }),
      (error) =>
        onFault(
          error.code === 1
            ? 'The browser was not allowed to know the place. Allow it in its settings.'
            : 'No position: go where the sky is open.',
        ),
      { enableHighAccuracy: true, maximumAge: 0, timeout: 30_000 },
    );
    return () => navigator.geolocation.clearWatch(id);
  },
};

const bell = normal(Date.now());
const noise = (sigma: number): number => sigma * bell();

/** The stored track, from a place on. */
export const storedTrack = (start: Point): Point[] =>
  walk.corners_m.map(([e, n]) => ({ e: start.e + e!, n: start.n + n! }));

/**
 * A receiver that walks a path, with noise.
 * @param hurry how many times faster than a walk
 */
export function simulatedReceiver(path: readonly Point[], hurry = 12): Receiver {
  return {
    name: 'simulated walk',
    watch(onFix) {
      let gone = 0;
      const every = 200;
      const timer = setInterval(() => {
        gone += (walk.speed_m_per_s * hurry * every) / 1000;
        const at = along(path, gone);
        if (!at) return clearInterval(timer);
        onFix({
          accuracy_m: 2 * walk.noise_m,
          at: { local: { e: at.e + noise(walk.noise_m), n: at.n + noise(walk.noise_m) } },
        });
      }, every);
      return () => clearInterval(timer);
    },
  };
}

/** The place at a distance along a path; null beyond its end. */
function along(path: readonly Point[], s: number): Point | null {
  let left = s;
  for (let i = 0; i + 1 < path.length; i++) {
    const [a, b] = [path[i]!, path[i + 1]!];
    const length = Math.hypot(b.e - a.e, b.n - a.n);
    if (left <= length)
      return { e: a.e + (left / length) * (b.e - a.e), n: a.n + (left / length) * (b.n - a.n) };
    left -= length;
  }
  return null;
}
