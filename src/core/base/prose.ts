/**
 * Words with quantities in them, in the units that the user chose. Data and rules are written in metric; each
 * quantity in a sentence is read, and said again in steps that one would use in the other units.
 */
import type { Units } from './units.js';

interface Turned {
  readonly unit: string;
  readonly factor: number;
  readonly offset?: number;
  /** Steps by size of the figure in the other unit: below the first number the second is the step. */
  readonly steps: readonly (readonly [below: number, step: number])[];
}

const INCHES = [
  [0.4, 0.001],
  [2, 0.05],
  [Infinity, 0.5],
] as const;
const FEET = [
  [3, 0.1],
  [12, 0.5],
  [200, 1],
  [Infinity, 10],
] as const;

/** By the word that follows the figure. */
const UNITS: Readonly<Record<string, Turned>> = {
  mm: { unit: 'in', factor: 1 / 25.4, steps: INCHES },
  cm: { unit: 'in', factor: 1 / 2.54, steps: INCHES },
  m: { unit: 'ft', factor: 1 / 0.3048, steps: FEET },
  km: { unit: 'mi', factor: 1 / 1.609344, steps: [[10, 0.1], [Infinity, 1]] }, // prettier-ignore
  ha: { unit: 'ac', factor: 2.4710538, steps: [[20, 0.5], [Infinity, 5]] }, // prettier-ignore
  kg: { unit: 'lb', factor: 2.2046226, steps: [[20, 0.5], [Infinity, 5]] }, // prettier-ignore
  N: { unit: 'lbf', factor: 1 / 4.4482216, steps: [[100, 1], [Infinity, 10]] }, // prettier-ignore
  kN: { unit: 'lbf', factor: 1000 / 4.4482216, steps: [[Infinity, 10]] },
  kPa: { unit: 'psi', factor: 0.14503774, steps: [[20, 0.1], [Infinity, 1]] }, // prettier-ignore
  MPa: { unit: 'ksi', factor: 0.14503774, steps: [[Infinity, 1]] },
  GPa: { unit: 'ksi', factor: 145.03774, steps: [[Infinity, 100]] },
  'kN/m³': { unit: 'lbf/ft³', factor: 6.3658804, steps: [[Infinity, 1]] },
  'ohm m': { unit: 'ohm ft', factor: 1 / 0.3048, steps: [[100, 5], [1000, 10], [Infinity, 100]] }, // prettier-ignore
  'kN/m3': { unit: 'lbf/ft3', factor: 6.3658804, steps: [[Infinity, 1]] },
  'ohm/km': { unit: 'ohm/mi', factor: 1.609344, steps: [[Infinity, 1]] },
  'uH/m': { unit: 'uH/ft', factor: 0.3048, steps: [[Infinity, 0.01]] },
  '°C': { unit: '°F', factor: 1.8, offset: 32, steps: [[Infinity, 1]] },
  litres: { unit: 'gallons', factor: 0.26417205, steps: [[20, 0.5], [Infinity, 1]] }, // prettier-ignore
};

const FIGURE = '[−-]?\\d[\\d\\u202f]*(?:\\.\\d+)?';
const FIGURES = new RegExp(FIGURE, 'g');
const NAMES = Object.keys(UNITS)
  .sort((a, b) => b.length - a.length)
  .join('|');
/** One figure or several that share a unit: "550 and 900 mm", "350 to 1100 mm", "200 x 100 mm". */
const QUANTITY = new RegExp(
  `(?<![\\w.])(${FIGURE}(?:(?:, | and | or | to | by | x | × | ± |–)${FIGURE})*)([ \\u00a0-])(${NAMES})(?![\\w²³/]|[ \\u00a0]m\\b)`,
  'g',
);

function turned(figure: string, { factor, offset = 0, steps }: Turned): string {
  const value = Number(figure.replace('−', '-').replaceAll('\u202f', '')) * factor + offset;
  const step = steps.find(([below]) => Math.abs(value) < below)![1];
  const decimals = step >= 1 ? 0 : (String(step).split('.')[1]?.length ?? 0);
  return String(Number((Math.round(value / step) * step).toFixed(decimals)));
}

/**
 * A sentence in the units that the user chose.
 * @param text as it is written, in metric
 */
export function inUnits(text: string, units: Units): string {
  if (units === 'metric') return text;
  return text.replace(QUANTITY, (_, figures: string, gap: string, name: string) => {
    const unit = UNITS[name]!;
    const said = figures.replace(FIGURES, (f) => turned(f, unit));
    return `${said}${gap}${unit.unit}`;
  });
}

/** The same for all texts of a record and what lies in it; names of keys are left alone. */
export function allInUnits<T>(value: T, units: Units): T {
  if (units === 'metric') return value;
  if (typeof value === 'string') return inUnits(value, units) as T;
  if (Array.isArray(value)) return value.map((v: unknown) => allInUnits(v, units)) as T;
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, allInUnits(v, units)])) as T;
}
