/** By which column a table is sorted: a heading that is pressed, and a choice where there are no headings. */
import type { SortingState } from '@tanstack/react-table';
import type { ReactNode } from 'react';

export function sortedAs(sorting: SortingState, k: number): 'ascending' | 'descending' | 'none' {
  const own = sorting[0]?.id === String(k) ? sorting[0] : null;
  return !own ? 'none' : own.desc ? 'descending' : 'ascending';
}
const SIGN = { ascending: '↑', descending: '↓', none: '' } as const;

/** What a press makes of the order: as the rows are, rising, falling. */
function pressed(sorting: SortingState, k: number): SortingState {
  const id = String(k);
  const now = sortedAs(sorting, k);
  return now === 'descending' ? [] : [{ id, desc: now === 'ascending' }];
}

interface Sorted {
  readonly sorting: SortingState;
  readonly onSort: (sorting: SortingState) => void;
}

export function SortButton({
  column,
  sorting,
  onSort,
  children,
}: Sorted & { readonly column: number; readonly children: ReactNode }) {
  return (
    <button
      className="decoration-soft cursor-pointer underline decoration-dotted underline-offset-4 hover:decoration-solid"
      onClick={() => onSort(pressed(sorting, column))}
    >
      {children}
      <span aria-hidden className="inline-block w-[1em] text-left">
        {SIGN[sortedAs(sorting, column)]}
      </span>
    </button>
  );
}

/** @param names by column; null: the rows are not sorted by it */
export function OrderField({
  names,
  sorting,
  onSort,
}: Sorted & { readonly names: readonly (string | null)[] }) {
  return (
    <label className="label inline-flex items-baseline gap-1">
      order
      <select
        className="field"
        value={sorting[0]?.id ?? ''}
        onChange={(e) => onSort(e.target.value === '' ? [] : [{ id: e.target.value, desc: false }])}
      >
        <option value="">as listed</option>
        {names.map(
          (name, k) =>
            name !== null && (
              <option key={k} value={k}>
                {name}
              </option>
            ),
        )}
      </select>
    </label>
  );
}
