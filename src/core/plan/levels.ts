/** Heights along a line levelled by hand, where there is no grid. */
import { stations } from './geometry.js';
import type { Level, Line } from './schema.js';

/**
 * Reads a levelling that was typed: one row for each mark, `distance rise`, each distance counted from
 * the mark before and each rise from its height. Rope and level give just that.
 * @param start_m height of the line's start
 * @returns the levels, or a sentence that says what is wrong
 */
export function readLevels(text: string, start_m: number, metresPerUnit: number): Level[] | string {
  const out: Level[] = [{ at_m: 0, z_m: start_m }];
  const rows = text.split(/[\n;]/).map((r) => r.trim()).filter(Boolean); // prettier-ignore
  if (rows.length === 0)
    return 'Type one row for each mark: distance from the last mark, then rise';
  for (const [i, row] of rows.entries()) {
    const [d, dz, ...more] = row.split(/[\s,]+/).map(Number);
    if (more.length > 0 || !Number.isFinite(d) || !Number.isFinite(dz))
      return `Row ${i + 1}: two numbers are wanted, such as 12.5 -0.4`;
    if (!(d! > 0)) return `Row ${i + 1}: the distance must be above 0`;
    if (Math.abs(dz!) > d! * 3) return `Row ${i + 1}: a rise of ${dz} over ${d} is a cliff`;
    const last = out.at(-1)!;
    out.push({ at_m: last.at_m + d! * metresPerUnit, z_m: last.z_m + dz! * metresPerUnit });
  }
  return out;
}

/** Levels at every vertex from a rise for each leg. */
export function levelsFromRises(line: Line, start_m: number, rises: readonly number[]): Level[] {
  let z_m = start_m;
  return stations(line.vertices).map((at_m, i) => {
    if (i > 0) z_m += rises[i - 1] ?? 0;
    return { at_m, z_m };
  });
}
