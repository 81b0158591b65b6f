/**
 * Quantities in the units that the user chose. Inside the program everything is SI; this is the one
 * place where a number gets its unit, its precision and, for typed values, its way back.
 */
export type Units = 'metric' | 'imperial';

interface Shape {
  readonly unit: string;
  /** Shown value = SI value x factor + offset. */
  readonly factor: number;
  readonly offset?: number;
  readonly decimals: number | ((shown: number) => number);
  /** Shown in whole steps of this, such as half inches. */
  readonly step?: number;
  /** Shown as feet and inches. */
  readonly feet?: boolean;
}

export const FOOT = 0.3048;
const INCH = 0.0254;
const LBF = 4.4482216152605;
const MILE_KM = 1.609344;
const fine = (x: number) => (x !== 0 && Math.abs(x) < 10 ? 1 : 0);
const same = (unit: string, decimals: Shape['decimals']): Record<Units, Shape> => {
  const shape = { unit, factor: 1, decimals };
  return { metric: shape, imperial: shape };
};
const pair = (metric: Shape, imperial: Shape): Record<Units, Shape> => ({ metric, imperial });

const SHAPES = {
  length: pair(
    { unit: 'm', factor: 1, decimals: fine },
    { unit: 'ft', factor: 1 / FOOT, decimals: 0 },
  ),
  tape: pair(
    { unit: 'm', factor: 1, decimals: 2 },
    { unit: 'ft', factor: 1 / FOOT, decimals: 2, feet: true },
  ),
  along: pair({ unit: 'm', factor: 1, decimals: 1 }, { unit: 'ft', factor: 1 / FOOT, decimals: 0 }),
  far: pair(
    { unit: 'km', factor: 1e-3, decimals: 2 },
    { unit: 'mi', factor: 1e-3 / MILE_KM, decimals: 2 },
  ),
  height: pair(
    { unit: 'mm', factor: 1000, decimals: 0 },
    { unit: 'in', factor: 1 / INCH, decimals: 1, step: 0.5 },
  ),
  sag: pair(
    { unit: 'mm', factor: 1000, decimals: 1 },
    { unit: 'in', factor: 1 / INCH, decimals: 2 },
  ),
  moment: pair(
    { unit: 'Nm', factor: 1, decimals: 0 },
    { unit: 'lbf ft', factor: 1 / LBF / FOOT, decimals: 0 },
  ),
  litre: pair(
    { unit: 'L', factor: 1, decimals: 0 },
    { unit: 'gal', factor: 1 / 3.785411784, decimals: 1 },
  ),
  mass: pair(
    { unit: 'kg', factor: 1, decimals: 0 },
    { unit: 'lb', factor: 1 / 0.45359237, decimals: 0 },
  ),
  tonne: pair(
    { unit: 't', factor: 1, decimals: 2 },
    { unit: 'short t', factor: 1 / 0.90718474, decimals: 2 },
  ),
  force: pair({ unit: 'N', factor: 1, decimals: 0 }, { unit: 'lbf', factor: 1 / LBF, decimals: 0 }),
  temperature: pair(
    { unit: '°C', factor: 1, decimals: 0 },
    { unit: '°F', factor: 1.8, offset: 32, decimals: 0 },
  ),
  resistivity: pair(
    { unit: 'ohm m', factor: 1, decimals: 0 },
    { unit: 'ohm ft', factor: 1 / FOOT, decimals: 0 },
  ),
  perLength: pair(
    { unit: 'ohm/km', factor: 1, decimals: 0 },
    { unit: 'ohm/mi', factor: MILE_KM, decimals: 0 },
  ),
  leakage: pair(
    { unit: 'mS/km', factor: 1000, decimals: 3 },
    { unit: 'mS/mi', factor: 1000 * MILE_KM, decimals: 3 },
  ),
  upkeep: pair(
    { unit: 'h/km', factor: 1, decimals: 1 },
    { unit: 'h/mi', factor: MILE_KM, decimals: 1 },
  ),
  area: pair(
    { unit: 'ha', factor: 1e-4, decimals: 1 },
    { unit: 'ac', factor: 1 / 4046.8564224, decimals: 1 },
  ),
  volt: {
    metric: { unit: 'kV', factor: 1e-3, decimals: 1 },
    imperial: { unit: 'kV', factor: 1e-3, decimals: 1 },
  },
  fineVolt: {
    metric: { unit: 'kV', factor: 1e-3, decimals: 2 },
    imperial: { unit: 'kV', factor: 1e-3, decimals: 2 },
  },
  smallVolt: same('V', 0),
  kilovolt: same('kV', 1),
  perArea: pair(
    { unit: 'per ha', factor: 1e4, decimals: 1 },
    { unit: 'per ac', factor: 4046.8564224, decimals: 1 },
  ),
  ampere: same('A', 1),
  instant: {
    metric: { unit: 'µs', factor: 1e6, decimals: 0 },
    imperial: { unit: 'µs', factor: 1e6, decimals: 0 },
  },
  section: {
    metric: { unit: 'mm²', factor: 1e6, decimals: 1 },
    imperial: { unit: 'mm²', factor: 1e6, decimals: 1 },
  },
  watt: same('W', (x) => (Math.abs(x) < 10 ? 2 : 0)),
  seconds: same('s', (x) => (Math.abs(x) < 10 ? 2 : 1)),
  turns: same('turns', 1),
  stiffness: pair(
    { unit: 'N/mm', factor: 1e-3, decimals: 1 },
    { unit: 'lbf/in', factor: INCH / LBF, decimals: 0 },
  ),
  hertz: same('Hz', 1),
  diameter: pair(
    { unit: 'mm', factor: 1000, decimals: 2 },
    { unit: 'in', factor: 1 / INCH, decimals: 3 },
  ),
  strength: pair(
    { unit: 'MPa', factor: 1e-6, decimals: 0 },
    { unit: 'ksi', factor: 1e-6 / 6.894757293168361, decimals: 0 },
  ),
  hours: same('h', 1),
  minutes: same('min', 0),
  wattHour: same('Wh', 0),
  battery: same('Ah', 0),
  money: same('', 0),
  ohm: same('ohm', (x) => (Math.abs(x) < 10 ? 2 : Math.abs(x) < 100 ? 1 : 0)),
  joule: same('J', (x) => (Math.abs(x) < 10 ? 1 : 0)),
  fineJoule: same('J', (x) => (Math.abs(x) < 0.1 ? 3 : 2)),
  degree: same('°', 0),
  percent: {
    metric: { unit: '%', factor: 100, decimals: 0 },
    imperial: { unit: '%', factor: 100, decimals: 0 },
  },
  years: same('years', 0),
  count: same('', 0),
  bags: same('bags', 1),
} satisfies Record<string, Record<Units, Shape>>;

export type Quantity = keyof typeof SHAPES;

const shapeOf = (q: Quantity, units: Units): Shape => SHAPES[q][units];
const decimalsOf = (s: Shape, shown: number) =>
  typeof s.decimals === 'number' ? s.decimals : s.decimals(shown);

/** The unit's name, such as "mm" or "in". */
export const unitOf = (q: Quantity, units: Units): string => shapeOf(q, units).unit;

/** Whether it is shown in feet and inches, with its units in the figure. */
export const inFeet = (q: Quantity, units: Units): boolean => shapeOf(q, units).feet ?? false;

/** The figure alone, as shown, with thin grouping of thousands. */
export function figureText(si: number, q: Quantity, units: Units): string {
  if (!Number.isFinite(si)) return '–';
  const s = shapeOf(q, units);
  const shown = si * s.factor + (s.offset ?? 0);
  if (s.feet) return feetText(shown);
  const stepped = s.step === undefined ? shown : Math.round(shown / s.step) * s.step;
  const text = stepped.toFixed(decimalsOf(s, stepped)).replace(/^-(0(\.0+)?)$/, '$1');
  const [whole, part] = text.split('.');
  return part === undefined ? grouped(whole!) : `${grouped(whole!)}.${part}`;
}

/** Feet and inches to the half inch, as a tape has them: 12′ 7½″. */
function feetText(feet: number): string {
  const halves = Math.round(Math.abs(feet) * 24);
  const sign = feet < 0 && halves > 0 ? '-' : '';
  const whole = Math.floor(halves / 24);
  const inches = Math.floor((halves % 24) / 2);
  return `${sign}${grouped(String(whole))}′\u202f${inches}${halves % 2 ? '½' : ''}″`;
}

const grouped = (digits: string): string => digits.replace(/\B(?=(\d{3})+(?!\d))/g, '\u202f');

/** Figure and unit, as in "350 mm". */
export function say(si: number, q: Quantity, units: Units): string {
  const s = shapeOf(q, units);
  // Feet and inches bring their units along.
  const unit = s.feet ? '' : s.unit;
  const gap = unit === '' || unit === '°' ? '' : '\u00a0';
  return figureText(si, q, units) + gap + unit;
}

/** Value for an input field: plain digits in the user's unit. */
export function toField(si: number, q: Quantity, units: Units): string {
  const s = shapeOf(q, units);
  const shown = si * s.factor + (s.offset ?? 0);
  return String(Number(shown.toFixed(decimalsOf(s, shown) + 1)));
}

/** 12′ 7½″, 12' 7", 12 ft 7.5 in. */
const FEET_TYPED = /^(\d+)\s*(?:'|′|ft)\s*(\d+(?:\.\d+)?)\s*(½)?\s*(?:"|″|in)?$/;

/** SI value of what a user typed in their unit; NaN when it is no number. A comma counts as a point. */
export function fromField(text: string, q: Quantity, units: Units): number {
  const feet = shapeOf(q, units).unit === 'ft' ? FEET_TYPED.exec(text.trim()) : null;
  if (feet) return (Number(feet[1]) + (Number(feet[2]) + (feet[3] ? 0.5 : 0)) / 12) * FOOT;
  const clean = text.trim().replace(',', '.');
  if (!/^[+-]?(\d+\.?\d*|\.\d+)$/.test(clean)) return NaN;
  const s = shapeOf(q, units);
  return (Number(clean) - (s.offset ?? 0)) / s.factor;
}
