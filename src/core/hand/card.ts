/** What a bench card is: a way of the hand, step by step, as geometry. */
import type { Curve, Vec } from './curve.js';

/** A round thing: a post, a rod, a sleeve, a reel. */
export interface Rod {
  readonly from: Vec;
  readonly to: Vec;
  readonly radius: number;
  readonly of: Stuff;
  /** Wire goes through it: it covers what is within. */
  readonly hollow?: true;
}
/** A thing with flat sides: its eight corners, the lower four first, each going round. */
export interface Block {
  readonly corners: readonly Vec[];
  readonly of: Stuff;
}
export type Stuff = 'timber' | 'steel' | 'porcelain' | 'plastic' | 'soil' | 'mark';
export type Solid = Rod | Block;

/** A wire of a card: its middle line, and how thick it is, mm. */
export interface Wire {
  readonly curve: Curve;
  readonly thick: number;
  /** A tube over part of it: from where to where along it, and how thick. */
  readonly sheath?: { readonly from: number; readonly to: number; readonly thick: number };
}

export interface View {
  /** From where it is looked at: round, from the front, and up, degrees. */
  readonly round: number;
  readonly up: number;
}

export interface Step {
  readonly words: string;
  /** How far along each wire has gone, mm; whole where it is not named. */
  readonly upTo?: Readonly<Record<string, number>>;
  /** The wire that is worked with: it stands out. */
  readonly moves?: string;
  /** Where a hand pulls or turns. */
  readonly arrows?: readonly (readonly Vec[])[];
  /** Solids that are there, by name; all where none is named. */
  readonly solids?: readonly string[];
  readonly view?: View;
  /** What of it is looked at: a middle and how far to each side, mm. */
  readonly look?: { readonly at: Vec; readonly reach: number };
}

/** A count that the words of a card say and its curve must have. */
export interface Turns {
  readonly wire: string;
  /** Round the line between these. */
  readonly about: readonly [Vec, Vec];
  readonly between: readonly [s0: number, s1: number];
  /** As the words say it. */
  readonly said: number;
}

export interface HandCard {
  readonly id: string;
  readonly name: string;
  readonly use: string;
  readonly wires: Readonly<Record<string, Wire>>;
  readonly solids: Readonly<Record<string, Solid>>;
  readonly view: View;
  readonly look: { readonly at: Vec; readonly reach: number };
  readonly steps: readonly Step[];
  readonly turns: readonly Turns[];
  /** Wires that lie against one another or on a solid by design, closer than their thickness: pairs of names. */
  readonly touch?: readonly (readonly [string, string])[];
  readonly inspect: readonly string[];
  readonly wrong: readonly string[];
  readonly care: readonly string[];
}
