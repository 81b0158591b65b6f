/** What a part of the fence is: one object with everything that it adds to the heart. */
import { SEASONS, type Catalogue, type SeasonId } from '../plan/catalogue.js';
import type { Joint, Meeting } from '../plan/meets.js';
import type { Gate, Line, Plan } from '../plan/schema.js';
import type { LineReport, Report } from '../report/schema.js';
import type { Ground } from '../terrain/ground.js';
import type { Rule } from '../findings/rule.js';
import type { Items } from '../supplies/takeoff.js';
import type { PartKeys } from './keys.js';
import type { Placed } from './placed.js';

export type { Items } from '../supplies/takeoff.js';

/** What every stage may use. */
export interface Given {
  readonly plan: Plan;
  /** With the property's own figures. */
  readonly cat: Catalogue;
  readonly ground: Ground;
}

/** What the stage of one line may use. */
export interface LineGiven extends Given {
  readonly line: Line;
  readonly gates: readonly Gate[];
  /** Places that the line shares with others. */
  readonly joints: readonly Joint[];
}

/** Works one line out. `work` sees only what `needs` picked, so its memory by identity cannot be stale. */
export interface LineStage {
  /** @param of what earlier parts found of this line, by part id */
  needs(given: LineGiven, of: never): object;
  work(needs: never): object;
}

/** A stage whose `work` is typed by its `needs`. */
export const lineStage = <Of, Needs extends object, Piece extends object>(stage: {
  needs(given: LineGiven, of: Of): Needs;
  work(needs: Needs): Piece;
}): typeof stage => stage;

/**
 * What may answer as it did last, while the lines and units are the same; it is asked again, without hurry, when the
 * hand rests.
 * - `true`, something is in the hand: the volts, the findings, what to buy, and parts that nobody looks at;
 * - a season: the same, but the volts of that season follow;
 * - `'volts'`: the volts alone.
 * - `'first'`: nothing is known yet and somebody waits: volts by the closed form;
 * - `'networks'`: nobody asks for volts: what hangs together, and no unit's report.
 */
export type Hurry = boolean | 'first' | 'volts' | 'networks' | SeasonId;

/** The season whose volts alone follow. */
export const seasonOf = (hurry: Hurry): SeasonId | null =>
  SEASONS.find((season) => season === hurry) ?? null;

/** Whether something is in the hand: findings and what to buy wait. */
export const inHand = (hurry: Hurry): boolean => hurry === true || seasonOf(hurry) !== null;

/** What the stage of the whole property may use. */
export interface WholeGiven extends Given {
  /** By line id, what the parts found of that line. */
  readonly lines: Readonly<Record<string, never>>;
  /** What earlier parts found of the property, by part id. */
  readonly whole: never;
  /** Where the lines meet. */
  readonly meetings: readonly Meeting[];
  readonly hurry: Hurry;
}

/** What is counted: a line as its parts left it. */
export interface Counted {
  readonly line: Line;
  readonly gates: readonly Gate[];
  readonly cat: Catalogue;
  readonly of: never;
}

/** At the door: what a schema cannot say. */
export interface Door {
  readonly plan: Plan;
  /** With wires and items of the property's own. */
  readonly cat: Catalogue;
  readonly shipped: Catalogue;
  /** @param place JSON Pointer */
  say(place: string, reason: string): void;
  /** Says so when a table has no such key. */
  named(table: object, key: string, place: string, what: string): void;
}

export interface Part extends Placed {
  readonly id: string;
  readonly keys: PartKeys;
  check?(door: Door): void;
  readonly line?: LineStage;
  /** Makes the stage of the whole property, with a memory of its own. */
  property?(): (given: WholeGiven) => object;
  readonly rules?: readonly Rule[];
  count?(counted: Counted): Items;
  /** Counts what stands on no line, by the id of what it belongs to. */
  countProperty?(given: WholeGiven): Readonly<Record<string, Items>>;
  /** Brings the part's keys of a plan up to a version. */
  readonly migrations?: readonly Migration[];
}

export interface Migration {
  /** Version of the plan after it. */
  readonly to: number;
  /** Changes the document in place; it fits the schema of version `to - 1`. */
  up(plan: Record<string, unknown>): void;
}

/** The keys of a piece that the report shows of a line. */
export type Shown<K extends { readonly report: { readonly line: object } }> = Pick<
  LineReport,
  keyof K['report']['line'] & keyof LineReport
>;
/** The keys of a piece that the report shows of the property. */
export type ShownWhole<K extends { readonly report: { readonly property: object } }> = Pick<
  Report,
  keyof K['report']['property'] & keyof Report
>;
