/** Pieces that cards are put together from. */
import { spline, type Curve, type Vec } from '../curve.js';
import type { Block, Stuff, Wire } from '../card.js';

/** Thickness of the usual wire, mm. */
export const T = 2.5;

export const wire = (through: readonly Vec[], thick = T, step = 1): Wire => ({
  curve: spline(through, step),
  thick,
});

/** How far along a curve lies the point that is nearest to a place. */
export function along({ points, s }: Curve, place: Vec, from = 0): number {
  let best = from;
  let least = Infinity;
  points.forEach((p, k) => {
    if (s[k]! < from) return;
    const d = Math.hypot(p[0] - place[0], p[1] - place[1], p[2] - place[2]);
    if (d < least - 1e-9) {
      least = d;
      best = s[k]!;
    }
  });
  return best;
}

/** A box by its middle and sizes. */
export const box = ([x, y, z]: Vec, [dx, dy, dz]: Vec, of: Stuff): Block => {
  const [a, b, c] = [dx / 2, dy / 2, dz / 2];
  const level = (h: number): Vec[] => [[x - a, y - b, h], [x + a, y - b, h], [x + a, y + b, h], [x - a, y + b, h]]; // prettier-ignore
  return { corners: [...level(z - c), ...level(z + c)], of };
};

export const CARE = {
  eyes: 'Eye protection and gloves.',
  spring: 'Never let go of a wire end: it springs.',
  offcut: 'The offcut goes into the bucket, and is counted.',
  dead: 'Switch off, lock the switch and prove it dead first.',
  line: 'Nobody in line with a tight wire, or in its bight.',
} as const;
