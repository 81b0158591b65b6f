/** The one table of the program: plain rows and columns, long lists drawn only where they are seen. */
import {
  columnFilteringFeature,
  createFilteredRowModel,
  createSortedRowModel,
  rowSortingFeature,
  tableFeatures,
  useTable,
  type ColumnDef,
  type SortingState,
} from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import {
  Fragment,
  startTransition,
  useEffect,
  useMemo,
  useRef,
  useState,
  type HTMLAttributes,
  type ReactNode,
} from 'react';
import { FindField, sifts } from './FindField.js';
import { WhereFrom, type Origin } from './Num.js';
import { useRoving } from './roving.js';
import { OrderField, SortButton, sortedAs } from './sorting.js';
import { useStacked } from './stacked.js';

/** One column: how it is headed, and what each row has in it. */
export interface Column<T> {
  /** Heading; with `quiet` only for those who hear it. */
  readonly name: ReactNode;
  readonly quiet?: boolean;
  /** Where all numbers of the column come from; `name` is then plain words. */
  readonly from?: Origin;
  /** Figures: set to the right. */
  readonly n?: boolean;
  /** Its cells head their rows; plain: in the type of the other cells. */
  readonly head?: boolean | 'plain';
  /** Of its cells, and of its heading. */
  readonly className?: string;
  readonly headClass?: string;
  cell(row: T, index: number): ReactNode;
  /** What the rows are sorted by when its heading is pressed; `name` is then plain words. */
  by?(row: T): string | number;
  /** Attributes of a cell, such as what tests look for. */
  attributes?(row: T): Record<`data-${string}`, string | number | boolean | undefined>;
}

export interface DataTableProps<T> {
  /** What the table is, for those who hear it. */
  readonly label: string;
  readonly rows: readonly T[];
  readonly columns: readonly (Column<T> | null | false)[];
  keyOf(row: T, index: number): string | number;
  /** The row that is looked at: marked, and brought into view. */
  chosen?(row: T, index: number): boolean;
  rowProps?(row: T, index: number): HTMLAttributes<HTMLTableRowElement> & Record<string, unknown>;
  /** Rows under headings of their own, in the order in which they first occur. */
  groupOf?(row: T): string;
  /** Text of a row that is looked through by what is typed above the table; without it nothing is sifted. */
  finds?(row: T): string;
  /** What stands below an opened row; null: it is shut. Of long tables that scroll no row opens. */
  detail?(row: T, index: number): ReactNode;
  /** A row below the headings. */
  readonly below?: ReactNode;
  readonly className?: string;
  /** Height that scrolls, such as `max-h-[46vh]`; without it the table is as tall as its rows. */
  readonly scroll?: string;
}

const features = tableFeatures({
  columnFilteringFeature,
  rowSortingFeature,
  filteredRowModel: createFilteredRowModel(),
  sortedRowModel: createSortedRowModel(),
});
/** The column that holds what is looked through. */
const FOUND = 'found';
const order = (a: unknown, b: unknown): number =>
  typeof a === 'number' && typeof b === 'number' ? a - b : String(a).localeCompare(String(b), 'en', { numeric: true }); // prettier-ignore
const FOCUSABLE = 'button:not([disabled]), a[href], input:not([disabled]), select';
/** Beyond so many rows only those in view are drawn. */
const LONG = 120;
const ROW_PX = 29;
const PLAIN = '!text-ink !font-normal !text-[1rem] !font-stretch-normal !align-baseline !pt-[0.3rem]'; // prettier-ignore
/** What a cell without content gives. */
const EMPTY = new Set<ReactNode>([null, undefined, false, '']);
/** So many rows are drawn at once, the others as soon as there is time: a step is to open without waiting for them. */
const FIRST = 24;

export function DataTable<T extends object>(p: DataTableProps<T>) {
  const shown = p.columns.filter((c) => c !== null && c !== false);
  // The model holds which columns there are, and asks the newest ones what is in them.
  const asked = useRef({ shown, finds: p.finds });
  asked.current = { shown, finds: p.finds };
  const columns = useMemo(
    (): ColumnDef<typeof features, T>[] => [
      ...shown.map((_, i): ColumnDef<typeof features, T> => ({
        id: String(i),
        accessorFn: (row) => asked.current.shown[i]?.by?.(row) ?? '',
        sortFn: (x, y, id) => order(x.getValue(id), y.getValue(id)),
      })),
      {
        id: FOUND,
        accessorFn: (row) => asked.current.finds?.(row) ?? '',
        filterFn: (row, id, text) => sifts(String(text), String(row.getValue(id))),
      },
    ],
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [shown.length],
  );
  const [sorting, setSorting] = useState<SortingState>([]);
  const [text, setText] = useState('');
  const data = p.rows as T[];
  const columnFilters = useMemo(() => (text.trim() ? [{ id: FOUND, value: text }] : []), [text]);
  const table = useTable<typeof features, T>({
    features,
    columns,
    data,
    state: { sorting, columnFilters },
    onSortingChange: setSorting,
  });
  const whole = useSoon();
  const model = table.getRowModel().rows;
  // The whole table is one stop of the Tab key; arrows go from cell to cell.
  const roving = useRoving<HTMLDivElement>(FOCUSABLE, { rows: 'tr', scrolls: true });
  const box = roving.ref;
  const stacked = useStacked(box, p.rows.length > 0);
  const long = p.scroll !== undefined && model.length > LONG;
  const rows = whole || long ? model : model.slice(0, FIRST);
  /** Groups in the order in which they first occur, whatever the rows are sorted by; none is empty. */
  const groups = p.groupOf
    ? [...new Set(p.rows.map(p.groupOf))]
        .map((name) => [name, rows.filter((row) => p.groupOf!(row.original) === name)] as const)
        .filter(([, own]) => own.length > 0)
    : null;
  /** Rows as they are drawn where only those in view are, with the headings of groups between them. */
  const items = !long ? [] : groups ? groups.flatMap(([name, own]) => [name, ...own]) : rows;
  const virtual = useVirtualizer({
    count: items.length,
    getScrollElement: () => box.current,
    estimateSize: () => ROW_PX,
    overscan: 12,
    // Until it is measured: without rows at first the whole step would be laid out twice.
    initialRect: { width: 600, height: 420 },
    enabled: long,
  });
  const chosen = p.chosen ? p.rows.findIndex((row, i) => p.chosen!(row, i)) : -1;
  useEffect(() => {
    if (chosen < 0 || p.scroll === undefined) return;
    const at = items.findIndex((it) => typeof it !== 'string' && it.index === chosen);
    if (long && at >= 0) virtual.scrollToIndex(at, { align: 'auto' });
    else box.current?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest' });
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [chosen, long, whole]);

  /** Of a row that is drawn because it is in view: its place; blocks are as tall as what is in them. */
  const drawnAt = (at: number | undefined) =>
    at === undefined
      ? {}
      : { 'data-index': at, ...(stacked ? { ref: virtual.measureElement } : {}) };
  const line = (row: (typeof rows)[number], at?: number) => {
    const [own, i] = [row.original, row.index];
    const extra = p.rowProps?.(own, i);
    const more = at === undefined ? p.detail?.(own, i) : null;
    const tr = (
      <tr
        key={p.keyOf(own, i)}
        {...drawnAt(at)}
        aria-current={i === chosen ? 'true' : undefined}
        {...extra}
        className={`${i === chosen ? 'bg-chosen' : ''} ${extra?.className ?? ''}`}
      >
        {shown.map((c, k) => {
          const className = `${c.n ? 'n' : ''} ${c.head === 'plain' ? PLAIN : ''} ${c.className ?? ''}`;
          const Cell = c.head ? 'th' : 'td';
          const content = c.cell(own, i);
          const named = stacked && !c.head && !EMPTY.has(content);
          return (
            <Cell
              key={k}
              {...(c.head ? { scope: 'row' } : {})}
              className={className}
              {...c.attributes?.(own)}
            >
              {named && <CellName of={c} />}
              {content}
            </Cell>
          );
        })}
      </tr>
    );
    if (!more) return tr;
    return (
      <Fragment key={p.keyOf(own, i)}>
        {tr}
        <tr>
          <td colSpan={shown.length} className="bg-chosen !px-3 !pt-1 !pb-4">
            {more}
          </td>
        </tr>
      </Fragment>
    );
  };
  const gap = (px: number) =>
    px > 0 && (
      <tr aria-hidden style={{ height: px }}>
        <td colSpan={shown.length} className="!border-0 !p-0" />
      </tr>
    );
  const seen = long ? virtual.getVirtualItems() : [];
  const heading = (name: string, at?: number) => (
    <tr key={`group ${name}`} {...drawnAt(at)}>
      <th
        colSpan={shown.length}
        scope="rowgroup"
        className="!text-ink !pt-4 !text-[1rem] !font-semibold"
      >
        {name}
      </th>
    </tr>
  );
  const sorted = shown.some((c) => c.by);
  return (
    <>
      {(p.finds || (stacked && sorted)) && p.rows.length > 0 && (
        <div className="no-print mb-1 flex flex-wrap items-end gap-3">
          {p.finds && (
            <FindField
              label={`Find in ${p.label}`}
              hint="find"
              className="w-52"
              value={text}
              onChange={setText}
            />
          )}
          {stacked && sorted && (
            <OrderField
              names={shown.map((c) => (c.by ? String(c.name) : null))}
              sorting={sorting}
              onSort={setSorting}
            />
          )}
          {text.trim() !== '' && (
            <span className="label" role="status">
              {model.length} of {p.rows.length}
            </span>
          )}
        </div>
      )}
      <div
        {...roving}
        className={`overflow-x-auto ${stacked ? 'stacked' : ''} ${p.scroll === undefined ? '' : `${p.scroll} overflow-y-auto`}`}
        role="group"
        aria-label={p.label}
      >
        <table
          className={`sheet-table ${p.className ?? ''}`}
          aria-rowcount={long ? rows.length : undefined}
        >
          <thead className={p.scroll === undefined ? '' : 'bg-panel sticky top-0 z-[1]'}>
            <tr>
              {shown.map((c, k) => (
                <th
                  key={k}
                  className={`${typeof c.name === 'string' ? 'whitespace-nowrap' : ''} ${c.n ? 'n' : ''} ${c.headClass ?? ''}`}
                  {...(c.by ? { 'aria-sort': sortedAs(sorting, k) } : {})}
                >
                  {c.by ? (
                    <SortButton column={k} sorting={sorting} onSort={setSorting}>
                      {c.name}
                    </SortButton>
                  ) : c.quiet ? (
                    <span className="sr-only">{c.name}</span>
                  ) : (
                    c.name
                  )}
                  {c.from && <WhereFrom origin={c.from} shown={String(c.name)} />}
                </th>
              ))}
            </tr>
            {p.below}
          </thead>
          {long ? (
            <tbody>
              {gap(seen[0]?.start ?? 0)}
              {seen.map(({ index }) => {
                const item = items[index]!;
                return typeof item === 'string' ? heading(item, index) : line(item, index);
              })}
              {gap(virtual.getTotalSize() - (seen.at(-1)?.end ?? 0))}
            </tbody>
          ) : groups ? (
            groups.map(([name, own]) => (
              <tbody key={name} data-group={name}>
                {heading(name)}
                {own.map((row) => line(row))}
              </tbody>
            ))
          ) : (
            <tbody>{rows.map((row) => line(row))}</tbody>
          )}
        </table>
      </div>
    </>
  );
}

/** False at first, true when what was drawn first stands on the screen. */
function useSoon(): boolean {
  const [soon, setSoon] = useState(false);
  useEffect(() => startTransition(() => setSoon(true)), []);
  return soon;
}

/** What a cell is, where the table has no heading above it. */
function CellName<T>({ of }: { of: Column<T> }) {
  return of.quiet ? null : (
    <span className="cell-name" aria-hidden>
      {of.name}
    </span>
  );
}
