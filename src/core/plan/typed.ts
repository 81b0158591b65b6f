/** Legs and places that are typed instead of drawn. */
import { fromBearing } from './geometry.js';
import type { Point } from './schema.js';

/**
 * Reads a typed leg or place, metres (or feet by `metresPerUnit`) and degrees:
 * `85 @ 112` a leg by distance and bearing; `@ 12, -4` a step east and north; `310, 95` a place.
 * @returns the point, or a sentence that says what is wrong
 */
export function readTyped(text: string, from: Point | null, metresPerUnit: number): Point | string {
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
  return 'Type a leg as 85 @ 112, a step as @ 12, -4, or a place as 310, 95';
}
