/** Legs and places that are typed instead of drawn. */
import { bearing, fromBearing } from './geometry.js';
import type { Point } from './schema.js';

/**
 * Reads a typed leg or place, metres (or feet by `metresPerUnit`) and degrees:
 * `85 @ 112` a leg by distance and bearing; `85`, `85 r`, `85 l` straight on or at a right angle; `@ 12, -4` a step east and north; `310, 95` a place.
 * @param before the point before `from`, for legs that turn from the last one
 * @returns the point, or a sentence that says what is wrong
 */
export function readTyped(
  text: string,
  from: Point | null,
  metresPerUnit: number,
  before: Point | null = null,
): Point | string {
  const number = '([+-]?(?:\\d+(?:\\.\\d*)?|\\.\\d+))';
  const clean = text.trim();
  const leg = new RegExp(`^${number}\\s*@\\s*${number}\\s*(?:°|deg)?$`).exec(clean);
  if (leg) {
    if (!from) return 'Start with a place, such as 0, 0';
    const length = Number(leg[1]) * metresPerUnit;
    const bearing = Number(leg[2]);
    if (!(length > 0.01)) return 'The distance must be above 0';
    if (length > 100_000) return 'The distance is longer than any fence';
    if (!(bearing >= 0 && bearing <= 360)) return 'The bearing runs from 0 to 360 degrees';
    return fromBearing(from, length, bearing);
  }
  const turned = new RegExp(`^${number}\\s*([rl]?)$`, 'i').exec(clean);
  if (turned) {
    if (!from || !before)
      return 'Draw a leg first, then a length goes straight on, 85 r turns right';
    const length = Number(turned[1]) * metresPerUnit;
    if (!(length > 0.01 && length <= 100_000)) return 'The distance must be above 0';
    const turn = { r: 90, l: -90 }[turned[2]!.toLowerCase()] ?? 0;
    return fromBearing(from, length, bearing(before, from) + turn);
  }
  const step = new RegExp(`^@\\s*${number}\\s*[,;\\s]\\s*${number}$`).exec(clean);
  if (step) {
    if (!from) return 'Start with a place, such as 0, 0';
    return {
      e: from.e + Number(step[1]) * metresPerUnit,
      n: from.n + Number(step[2]) * metresPerUnit,
    };
  }
  const place = new RegExp(`^${number}\\s*[,;\\s]\\s*${number}$`).exec(clean);
  if (place) return { e: Number(place[1]) * metresPerUnit, n: Number(place[2]) * metresPerUnit };
  return 'Type a leg as 85 @ 112 or 85 r, a step as @ 12, -4, or a place as 310, 95';
}
