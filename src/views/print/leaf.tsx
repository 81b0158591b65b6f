/** Leaves: single sheets of paper, printed by themselves or all together in the pack. */
import { Fragment, type ReactNode } from 'react';

export interface Leaf {
  readonly key: string;
  /** What it is of, by which the pack's contents are grouped: a line's id, else words. */
  readonly of: string;
  /** @param mark its place among the others, as it stands in the corner */
  readonly draw: (mark: string) => ReactNode;
}

/** Leaves one after the other, each marked with its place among all of them. */
export const numbered = (leaves: readonly Leaf[]): ReactNode =>
  leaves.map((leaf, k) => (
    <Fragment key={leaf.key}>{leaf.draw(`${k + 1} / ${leaves.length}`)}</Fragment>
  ));
