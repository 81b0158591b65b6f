/** What is said of places, strands and ties. */
import { say, type Units } from '../../core/base/units.js';
import type { RunEnd } from '../../core/edit/joining.js';
import type { Plan } from '../../core/plan/schema.js';
import { strandOf } from '../../core/power/joined.js';
import type { Arriving, Fed, Lead, Place } from '../../core/wiring/place.js';

export const KINDS: Record<Place['kind'], string> = {
  unit: 'unit feeds here',
  gate: 'at a gate',
  branch: 'lines meet',
  corner: 'corner',
  start: 'start',
  stop: 'end',
  rod: 'earth rod',
};

export const SIDES: Record<Arriving['side'], string> = {
  before: 'from before',
  after: 'goes on',
  through: 'goes through',
};

export const FED: Record<Fed, string> = {
  twice: 'fed from both ends',
  once: 'fed from one end',
  dead: 'dead',
};

export const LEADS: Record<Lead['to'], string> = {
  gate: 'cable under gate',
  unit: 'from the unit',
  rod: 'earth rod',
  diverter: 'lightning diverter',
};

/** Strands of several lines meet there: each is then called after its line. */
export const ofMany = ({ arriving }: Pick<Place, 'arriving'>): boolean =>
  new Set(arriving.map((a) => a.line)).size > 1;

/** A strand at a place in a few words: where it comes from, its height, what it is. */
export function endWords(
  { line, side, height_m, duty }: Arriving,
  lines: Plan['lines'],
  units: Units,
  many: boolean,
): string {
  const own = many ? `${lines[line]?.name ?? line}, ` : '';
  return `${own}${SIDES[side]}, ${say(height_m, 'height', units)} ${duty}`;
}

/** The runs whose live strands end at a place, each a run end that a switch can part. */
export function runsAt(
  { arriving }: Place,
  lines: Plan['lines'],
  many: boolean,
): { words: string; of: RunEnd }[] {
  const out = new Map<string, { words: string; of: RunEnd }>();
  for (const { line, side, name, duty } of arriving) {
    if (duty !== 'live' || side === 'through') continue;
    const of = { line, side, run: strandOf(name)!.run };
    const own = many ? `${lines[line]?.name ?? line}, ` : '';
    out.set(`${line} ${side} ${of.run}`, { words: `${own}what ${side === 'before' ? 'comes from before' : 'goes on'}`, of }); // prettier-ignore
  }
  const through = arriving.some((a) => a.duty === 'live' && a.side === 'through');
  return out.size + Number(through) > 1 ? [...out.values()] : [];
}

/** The worst that is the matter with the live strands of a place. */
export function worstFed(place: Place, fed: ReadonlyMap<string, Fed> | null): Fed | null {
  const all = place.arriving.flatMap((a) => fed?.get(a.name) ?? []);
  return (['dead', 'once', 'twice'] as const).find((f) => all.includes(f)) ?? null;
}

/** A piece of jumper wire in words: where once, then the heights. */
export function chainWords(
  { arriving }: Place,
  ends: readonly number[],
  lines: Plan['lines'],
  units: Units,
  many: boolean,
): string {
  const own = ends.map((e) => arriving[e]!);
  const height = (a: Arriving) => say(a.height_m, 'height', units);
  const from = (a: Arriving) =>
    `${many ? `${lines[a.line]?.name ?? a.line}, ` : ''}${SIDES[a.side]}`;
  if (own.every((a) => from(a) === from(own[0]!)))
    return `${from(own[0]!)}, ${own[0]!.duty}: ${own.map(height).join(' – ')}`;
  return own.map((a) => `${from(a)}, ${a.duty}: ${height(a)}`).join(' – ');
}
