/** A plan as it was worked out, as far as the work on it goes. */
import type { Catalogue } from '../plan/catalogue.js';
import type { Meeting } from '../plan/meets.js';
import type { Energiser, Gate, Plan } from '../plan/schema.js';
import type { LineReport, Post } from '../report/schema.js';
import type { Items } from '../supplies/takeoff.js';

export interface Made {
  readonly plan: Plan;
  readonly cat: Catalogue;
  readonly lines: Readonly<Record<string, LineReport>>;
  /** By line: posts that it brings itself, where another line brings one, where droppers hang. */
  readonly stood: Readonly<Record<string, Stood>>;
  readonly gates: Readonly<Record<string, readonly Gate[]>>;
  readonly meetings: readonly Meeting[];
  /** Lines that hang together, with what feeds them. */
  readonly groups: readonly {
    readonly lines: readonly string[];
    readonly energisers: readonly Energiser[];
  }[];
  /** What is counted, by line or by what else it belongs to. */
  readonly counted: Readonly<Record<string, Items>>;
}

export interface Stood {
  readonly own: readonly Post[];
  readonly brought: readonly number[];
  readonly droppers: readonly number[];
}
