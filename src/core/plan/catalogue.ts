/**
 * The catalogue: every default of the trade, as data with its mark, unit and reason.
 * `data/*.json` holds the records; a property replaces single figures by path. The reasons of single figures stand in
 * `reasons.ts`: nothing is worked out from them.
 */
import type { Static } from '@sinclair/typebox';
import type { CatalogueSchema, SOIL_STATES } from './catalogueSchema.js';
import type { Plan } from './schema.js';
import usuals from '../../../data/usual.json' with { type: 'json' };

export type Catalogue = Static<typeof CatalogueSchema>;
export type Mark = 'published' | 'practice' | 'memory' | 'derived' | 'assumed' | 'invented';
export type Profile = Catalogue['profiles'][string];
export type Animal = Catalogue['animals'][string];
export type FenceKind = Catalogue['kinds'][string];
export type Wire = Catalogue['wires'][string];
export type EnergiserModel = Catalogue['energisers'][string];
export type InsulatorKind = Catalogue['insulators'][string];
export type PostKind = Catalogue['posts'][string];
export type Setting = Catalogue['settings'][string];
export type JointKind = Catalogue['joints'][string];
export type Soil = Catalogue['soils'][string];
export type SoilState = (typeof SOIL_STATES)[number];
export const SEASONS = ['dry', 'today', 'wet', 'weedy', 'frozen'] as const;
export type SeasonId = (typeof SEASONS)[number];

/** The seasons of a place: the frozen one only where the ground freezes. */
export const seasonsOf = ({ climate }: Pick<Plan, 'climate'>, cat: Catalogue): SeasonId[] =>
  SEASONS.filter((s) => s !== 'frozen' || climate.cold_C <= -figure(cat, 'climate.frost'));

/** What a line is built of when nobody has said: the id of a record, by what it is used for. */
export const usual = (use: keyof typeof usuals): string => usuals[use].id;

/** Figures that earlier versions had: a property's own value for one is kept and no longer used. */
const RETIRED: ReadonlySet<string> = new Set([
  'defaults.network.surgeTime.value',
  'defaults.network.surgeInternal.value',
  'defaults.shock.pulse.value',
  'defaults.end.offsetPost.value',
  'defaults.end.braceWire.value',
]);

/** Figures that stand elsewhere now: a property's own value for one is used there. */
export const MOVED: Readonly<Record<string, string>> = {
  'defaults.wire.jointEfficiency.value': 'joints.knot.efficiency',
  'defaults.end.tail.value': 'joints.knot.tail_m',
  'prices.joiner.price': 'prices.joiner.wedge.price',
};

const NONE_OF: ReadonlySet<string> = new Set(
  ['tax', 'wage', 'spareWire', 'repairCoil', 'joinMinutes', 'joinClear', 'joinInBay'].map((id) => `defaults.supplies.${id}.value`), // prettier-ignore
);

/** Whether a figure may be 0: prices, and what one can do without. */
export const mayBeNone = (path: string): boolean => path.startsWith('prices.') || NONE_OF.has(path);

/** Whether a figure has, or had, this path. */
export const knowsFigure = (base: Catalogue, path: string): boolean =>
  RETIRED.has(path) || figureAt(base, MOVED[path] ?? path) !== undefined;

/** Splits an override path `table.record.field`; the record may itself hold dots. */
export function splitPath(path: string): [string, string, string] {
  const first = path.indexOf('.');
  const last = path.lastIndexOf('.');
  return [path.slice(0, first), path.slice(first + 1, last), path.slice(last + 1)];
}

/** The numeric figure of the catalogue at `table.record.field`, or undefined. */
export function figureAt(base: Catalogue, path: string): number | undefined {
  const [table, record, field] = splitPath(path);
  const rows = (base as Record<string, Record<string, Record<string, unknown>>>)[table];
  const value = rows?.[record]?.[field];
  return typeof value === 'number' ? value : undefined;
}

/** The value of a single default; throws if the catalogue has no such key. */
export function figure(of: Catalogue, key: string): number {
  const record = of.defaults[key];
  if (!record) throw new RangeError(`no default named ${key}`);
  return record.value;
}

/**
 * The record of an id. Every door refuses a plan that names one that there is not (`checkPlan`), so
 * nothing falls back on another record in silence.
 */
export function recordOf<T>(table: Readonly<Record<string, T>>, id: string): T {
  const record = table[id];
  if (record === undefined) throw new RangeError(`the catalogue has no "${id}"`);
  return record;
}
