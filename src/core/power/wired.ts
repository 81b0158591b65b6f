/** What the volts of an energiser rest on. */
import type { Catalogue } from '../plan/catalogue.js';
import type { Energiser, Gate, Line, Plan } from '../plan/schema.js';
import type { Mark, Topology } from '../plan/topology.js';
import type { Run } from '../report/schema.js';

/** What lies no further than this from a named place, m, is at that place. */
export const NEAR = 0.31;

/** The named places of a run, both ends among them. */
export const insideOf = (run: Run, marks: readonly Mark[]): Mark[] =>
  marks.filter((m) => m.s >= run.from_m - NEAR && m.s <= run.to_m + NEAR);

/** Of a line, what the circuit rests on: posts, names and tension change no volts. */
export type Electric = Pick<Line, 'id' | 'vertices' | 'strands' | 'growth' | 'joins'>;

/** A line with what the circuit needs to know of it. */
export interface WiredLine {
  readonly line: Electric;
  readonly gates: readonly Gate[];
  readonly runs: readonly Run[];
}

/** A line with the aim that its stock asks for. */
export interface AimedLine extends WiredLine {
  readonly aim_V: number;
}

/** Lines that hang together, with or without a unit on them. */
export type Fence = Omit<Network, 'energiser'> & { readonly energiser: Energiser | null };

/** An energiser with the lines that hang together with its own, and all that their volts rest on. */
export interface Network {
  readonly energiser: Energiser;
  readonly ids: readonly string[];
  readonly wired: Readonly<Record<string, AimedLine>>;
  readonly topology: Topology;
  readonly plan: Pick<Plan, 'sizing' | 'soil' | 'things' | 'climate' | 'connectors'>;
  readonly cat: Catalogue;
}
