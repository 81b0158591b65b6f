/** A property's fence as the search looks at it, and its places as those of the lines. */
import type { SeasonId } from '../plan/catalogue.js';
import type { Section } from '../power/circuitTypes.js';
import type { Piece, Place, PulseNet } from '../power/pulseNet.js';
import type { VoltsOptions } from '../power/volts.js';
import type { Network } from '../power/wired.js';
import type { Fit } from './atRate.js';
import type { FaultFence, Meter } from './fence.js';
import type { Noise } from './posterior.js';
import type { OnSection } from './walk.js';

export interface Searched {
  readonly net: Network;
  readonly season: SeasonId;
  readonly sections: readonly Section[];
  /** Whether anything of it is fed still with switches open; whether a place of a line is. */
  feeds(open: readonly Place[], at?: Place): boolean;
  /** Where each section lies on its line; null: a cable under a gate, or the lead-out. */
  readonly pieces: Readonly<Record<string, Piece | null>>;
  /** The unit's terminal, as a location. */
  readonly terminal: string;
  /** Of the unit's earth while nothing is wrong. */
  readonly earth_ohm: number;
  readonly fences: readonly FaultFence[];
  /** How far readings are off what the fences say: the meter, and what the model is off the pulse. */
  readonly noise: Noise;
  readonly fit: Fit;
  /** What a pulse of the whole fence reads at a meter, with something thought of beside the plan. */
  quiet(options: VoltsOptions): ((meter: Meter) => number) | null;
}

/** A fence with some switches open, and with those that it may be instead. */
export interface Made extends Pick<
  Searched,
  'sections' | 'pieces' | 'terminal' | 'fences' | 'quiet'
> {
  readonly pulse: PulseNet;
  /** Places of lines by their locations. */
  readonly at: ReadonlyMap<string, Place>;
}

/** The place of a section or cell that is nearest to a place of a line, where a wire can be touched. Null: it is not fed. */
export function touchedAt({ pieces, sections, fences }: Pick<Searched, 'pieces' | 'sections' | 'fences'>, { line, at_m }: Place): OnSection | null {
  const off = (p: Piece) => Math.max(p.from_m - at_m, at_m - p.to_m, 0);
  const own = sections.flatMap((s) => {
    const piece = pieces[s.id];
    return piece?.line === line ? [{ s, piece }] : [];
  });
  if (own.length === 0) return null;
  const { s, piece } = own.reduce((a, b) => (off(b.piece) < off(a.piece) ? b : a));
  if (off(piece) > NEAR_M) return null;
  const x = (s.length_m * (at_m - piece.from_m)) / (piece.to_m - piece.from_m);
  const places = [0, s.length_m, ...fences[0]!.cells.filter((c) => c.section === s.id).map((c) => c.x_m)];
  return { section: s.id, x_m: places.reduce((a, b) => (Math.abs(b - x) < Math.abs(a - x) ? b : a)) };
} // prettier-ignore

/** Beyond the end of what is fed a reading may still be this far, m. */
const NEAR_M = 10;

/** Where a place of a section lies on its line; null: in a cable. */
export function placeOf({ pieces, sections }: Pick<Searched, 'pieces' | 'sections'>, { section, x_m }: OnSection): Place | null {
  const piece = pieces[section];
  const s = sections.find((own) => own.id === section);
  return piece && s ? { line: piece.line, at_m: piece.from_m + ((piece.to_m - piece.from_m) * x_m) / s.length_m } : null;
} // prettier-ignore
