/** Which work takes which of what is counted along a line. */
import { USES } from '../report/uses.js';
import type { Gate } from '../plan/schema.js';
import type { Items } from '../supplies/takeoff.js';

/** Work of a whole line that takes parts. */
export type LineWork = 'insulators' | 'run' | 'tie' | 'jumpers' | 'rods' | 'signs';
/** What one line takes, by work; of its gates by the gate. Posts and what holds the ends are their own (places.ts). */
export interface Taken {
  readonly line: Readonly<Record<LineWork, Items>>;
  readonly trench: Readonly<Record<string, Items>>;
  readonly hang: Readonly<Record<string, Items>>;
}

/** Uses of wire, and whose they are. */
const WIRE: Readonly<Record<string, LineWork>> = {
  [USES.alongRuns]: 'run',
  [USES.ties]: 'run',
  [USES.pieces]: 'run',
  [USES.jumpers]: 'jumpers',
  [USES.repairs]: 'tie',
};

type Row = Items[number];

/** The work of a row; a place of an end or a gate decides where the item alone does not. */
function workOf([item, , at_m, use]: Row): LineWork | 'trench' | 'hang' | 'ends' {
  const of = item.split('.')[0]!;
  switch (of) {
    case 'post':
    case 'end':
    case 'concrete':
    case 'gravel':
      return 'ends';
    case 'wire':
    case 'reel':
      return use === USES.braceWires ? 'ends' : (WIRE[use ?? ''] ?? 'run');
    case 'staple':
      if (use === USES.driven) return 'insulators';
      return at_m === undefined ? 'tie' : 'ends';
    case 'insulator':
      return at_m === undefined ? 'insulators' : 'tie';
    case 'clip':
    case 'dropper':
      return 'insulators';
    case 'cable':
    case 'conduit':
      return 'trench';
    case 'gate':
      return 'hang';
    case 'clamp':
    case 'crimp':
    case 'switch':
    case 'sleeve':
      return 'jumpers';
    case 'earth':
      return 'rods';
    case 'sign':
      return 'signs';
    // Tensioners, springs, joiners, flood gates.
    default:
      return 'tie';
  }
}

/** What is counted of a line, by the work that takes it. */
export function takenBy(counted: Items, gates: readonly Gate[]): Taken {
  const line: Record<LineWork, Row[]> = { insulators: [], run: [], tie: [], jumpers: [], rods: [], signs: [] }; // prettier-ignore
  const gateWork: Record<'trench' | 'hang', Record<string, Row[]>> = { trench: {}, hang: {} };
  for (const row of counted) {
    if (row[1] === 0) continue;
    const work = workOf(row);
    if (work === 'ends') continue;
    if (work === 'trench' || work === 'hang') {
      const gate = gates.find((g) => g.at_m === row[2]);
      if (gate) (gateWork[work][gate.id] ??= []).push(row);
      else line.jumpers.push(row);
    } else line[work].push(row);
  }
  return { line, ...gateWork };
}

/** What share of some parts is used from one part of the work to another, 0 to 1: the shares of a whole add up to it. */
export function shareOf(
  items: Items,
  [from, to]: readonly [number, number],
  along?: readonly [from_m: number, to_m: number],
): Items {
  if (from <= 0 && to >= 1) return items;
  return items.flatMap((row): Items => {
    const [item, n, at_m, use] = row;
    if (at_m !== undefined && along && along[1] > along[0]) {
      const s = (at_m - along[0]) / (along[1] - along[0]);
      // What lies at the very end belongs to the last.
      return s >= from && (s < to || to >= 1) ? [row] : s < from && from <= 0 ? [row] : [];
    }
    // Pieces are taken along before they are needed, never after.
    const upTo = (x: number) => (Number.isInteger(n) ? Math.ceil(n * x - 1e-9) : n * x);
    const own = upTo(Math.min(1, to)) - upTo(Math.max(0, from));
    return own > 0 ? [[item, own, at_m, use] as const] : [];
  });
}
