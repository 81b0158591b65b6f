/** How one measures with each tool, as it was last said here; never part of the plan. */
import { create } from 'zustand';
import { recordOf, figure } from '../../core/plan/catalogue.js';
import type { Tools } from '../../core/wire/stringing.js';
import { jointsOfLine } from '../../core/wire/wires.js';
import { keepHere, keptHere } from '../../session/here.js';
import type { Strained } from './strained.js';

interface Said {
  readonly moved_m: number;
  /** Null: held fast at both posts. */
  readonly slides_m: number | null;
  readonly returns: number;
  /** Null: as the run is long. */
  readonly over_m: number | null;
  /** Null: the longest bay. */
  readonly bay_m: number | null;
}

const USUAL: Said = { moved_m: 0.1, slides_m: null, returns: 10, over_m: null, bay_m: null };
const KEY = 'strain-tools';

export const useSaid = create<Said>(() => ({ ...USUAL, ...keptHere<Partial<Said>>(KEY, {}) }));

export const sayTools = (said: Partial<Said>): void => {
  useSaid.setState(said);
  keepHere(KEY, useSaid.getState());
};

/** The tools for one run: what was said, within what the run allows. */
export function toolsFor({ row, strung, line, cat }: Strained, said: Said): Tools {
  const length = strung.shape.length_m;
  return {
    bay_m: Math.min(said.bay_m ?? row.bay_m, length),
    moved_m: said.moved_m,
    slides_m: said.slides_m === null ? null : Math.min(said.slides_m, length),
    returns: said.returns,
    over_m: Math.min(said.over_m ?? figure(cat, 'wire.pulse'), length),
    slip_m: recordOf(cat.joints, jointsOfLine(line).tie).slip_m,
  };
}
