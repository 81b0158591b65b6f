/** Lines that close: their inside and their outside. */
import { distance, JOIN_TOLERANCE } from '../plan/geometry.js';
import type { Line, Point } from '../plan/schema.js';
import { areaOf } from './faces.js';

/** Whether a line ends where it began. */
export const closes = (points: readonly Point[]): boolean =>
  points.length > 3 && distance(points[0]!, points.at(-1)!) <= JOIN_TOLERANCE;

/** What a side of a line is called: of one that closes, its inside and its outside. */
export function sideWords({ vertices }: Pick<Line, 'vertices'>, side: 'left' | 'right'): string {
  if (!closes(vertices)) return `to the ${side}, walking it`;
  return (side === 'left') === turnsLeft(vertices) ? 'inside' : 'outside';
}

/** Whether a closed line runs anticlockwise, so that its inside lies to the left. */
export const turnsLeft = (ring: readonly Point[]): boolean => areaOf(ring) > 0;
