import {
  type ColumnSizingState,
  getCoreRowModel,
  type RowSelectionState,
  type TableOptions,
  useReactTable,
} from '@tanstack/react-table';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { type KeyboardEvent, memo, type ReactNode, useCallback, useDeferredValue, useMemo, useState } from 'react';
import { Link, useLocation } from 'react-router';
import styled from 'styled-components';
import type { UsedPages } from '../api/client.ts';
import { Endless } from './Endless.tsx';
import { type Format, useFormat } from './format.ts';
import { ListTools } from './ListTools.tsx';
import { Cell } from './layout.ts';
import type { Deed } from './Menu.tsx';
import { Answer } from './States.tsx';
import { Tick } from './Tick.tsx';
import { Tile } from './Tile.tsx';
import { Faint } from './text.ts';
import { useListLayout } from './useListLayout.ts';

/** A column that a list can show beside the name of each row. */
export interface ListColumn<Row> {
  readonly key: string;
  readonly title: string;
  /** In pixels, until somebody draws it wider. */
  readonly width: number;
  readonly numeric?: boolean;
  /** What the server sorts by for it. */
  readonly sort?: string;
  /** Shown until somebody chooses otherwise. */
  readonly usual?: boolean;
  readonly show: (row: Row, format: Format) => ReactNode;
  /** What a file says of it: amounts as plain decimals. */
  readonly text: (row: Row) => string;
}

/** A row's picture and the link to all of it, with a line beneath. */
export interface RowLead {
  readonly to: string;
  /** Of its tile; null where it has none. */
  readonly code: string | null;
  readonly title: string;
  readonly under: ReactNode;
}

export interface Sorting {
  readonly key: string;
  readonly down: boolean;
  readonly by: (key: string, down: boolean) => void;
}

interface Props<Row> {
  /** The list's name among what is kept for a person, and its title on paper. */
  readonly list: string;
  readonly label: string;
  readonly pages: UsedPages<Row>;
  readonly keyOf: (row: Row) => string | number;
  readonly columns: readonly ListColumn<Row>[];
  /** What each row begins with. The same function every time, so that rows are drawn for their own sake only. */
  readonly lead: (row: Row, format: Format) => RowLead;
  /** The links of rows keep what the address says of the list, for the way back. */
  readonly keepsAddress?: boolean;
  /** The same for a file and for sorting, a column each. */
  readonly leadColumns: readonly Pick<ListColumn<Row>, 'key' | 'title' | 'sort' | 'text'>[];
  readonly sorting?: Sorting;
  readonly rowHeight?: number;
  /** What can be done with the rows that are chosen; without it there is nothing to choose. */
  readonly deeds?: (chosen: readonly Row[]) => readonly Deed[];
  /** What stands there while nothing does. */
  readonly empty: ReactNode;
  /** Filters and whatever else stands over the list. */
  readonly children?: ReactNode;
}

/** In pixels: the least room of what a row begins with, between columns, and at the sides. */
const LEAD_WIDTH = 220;
const GAP = 10;
const SIDE = 22;

const Line = styled.div<{ $columns: string; $width: number }>`
  display: grid; grid-template-columns: ${({ $columns }) => $columns}; gap: 10px; align-items: center; padding: 0 22px; min-width: ${({ $width }) => $width}px;
  > [data-numeric] + :not([data-numeric]) { padding-left: 12px; }
`;
const HeadLine = styled(Line)`
  position: sticky; top: 0; z-index: 2; background: var(--sheet); border-bottom: 1px solid var(--line); height: 34px; font-size: 12px; color: var(--ink-2);
  > span { position: relative; white-space: nowrap; } > span[data-numeric] { text-align: right; }
  button { border: 0; background: none; padding: 5px 0; min-height: 24px; color: inherit; cursor: pointer; display: inline-flex; gap: 3px; align-items: center; font-weight: 500; }
  [aria-sort] button { color: var(--ink); font-weight: 700; }
`;
const Grip = styled.i`
  position: absolute; right: -8px; top: 0; width: 7px; height: 100%; cursor: col-resize; touch-action: none; border-right: 2px solid transparent;
  &:hover { border-color: var(--honey); }
`;
const BodyLine = styled(Line)<{ $height: number }>`
  height: ${({ $height }) => $height}px; border-bottom: 1px solid var(--line-soft); line-height: 1.15;
  > span { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; } > span[data-numeric] { text-align: right; }
  a { color: var(--ink); text-decoration: none; font-weight: 600; } &:hover { background: var(--paper); }
  &[data-chosen] { background: var(--birch); }
  &:focus-within { background: var(--coming-wash); box-shadow: inset 4px 0 var(--honey); } a:focus-visible { outline: none; }
  @media (forced-colors: active) { &:focus-within { outline: 2px solid Highlight; outline-offset: -2px; } &[data-chosen] { outline: 1px dashed Highlight; } }
`;
// Rows are drawn where one has scrolled to, which the elements of a table cannot do.
const HeadCell = styled.span.attrs({ role: 'columnheader' })``;
const BodyCell = styled.span.attrs({ role: 'cell' })``;
const MoreToCome = styled.p`padding: 4px 22px; color: var(--ink-2);`;
const Walked = styled.div`display: contents;`;
const Names = styled(HeadCell)`display: flex; gap: 14px;`;

/** A page that is a long list: its heading, and the list in the room that is left. */
export const ListPage = styled.section`display: flex; flex-direction: column; min-height: 0; height: 100%; background: var(--sheet);`;
export const ListTop = styled.div`padding: 16px 22px 6px; display: grid; gap: 10px;`;
/** A filter over a list, as wide as it needs. */
export const Narrow = styled.div<{
  $width: number;
}>`width: ${({ $width }) => $width}px; @media (max-width: 700px) { flex: 1 1 140px; width: auto; }`;

/**
 * A list of any length with the columns one wants, in their order and width, kept for each person; sorted by the server,
 * walked with arrows, chosen from with the space bar, and put on paper or in a file as it is shown.
 */
export function LongList<Row>(props: Props<Row>) {
  const { pages, columns, keyOf, sorting, rowHeight = 44, deeds } = props;
  const format = useFormat();
  const read = useMemo(() => pages.data?.pages.flatMap((page) => page.rows) ?? [], [pages.data]);
  // Drawn in pieces, so that what is typed over the list never waits for it.
  const rows = useDeferredValue(read);
  const layout = useListLayout(props.list, columns);
  const [selection, setSelection] = useState<RowSelectionState>({});
  const [sizes, setSizes] = useState<ColumnSizingState>({});
  const options: TableOptions<Row> = {
    data: rows as Row[],
    columns: columns.map(({ key, width }) => ({
      id: key,
      size: layout.widths[key] ?? width,
      minSize: 50,
      maxSize: 600,
    })),
    getCoreRowModel: getCoreRowModel(),
    getRowId: (row) => String(keyOf(row)),
    manualSorting: true,
    columnResizeMode: 'onChange',
    state: { columnOrder: [...layout.shown], columnSizing: sizes, rowSelection: selection },
    onRowSelectionChange: setSelection,
    onColumnSizingChange: setSizes,
  };
  const table = useReactTable(options);
  const headers = new Map(table.getFlatHeaders().map((header) => [header.id, header]));
  const names = layout.shown.join('.');
  const shown = useMemo(
    () => names.split('.').flatMap((name) => columns.find(({ key }) => key === name) ?? []),
    [names, columns],
  );
  const choosing = useCallback((id: string, isOn: boolean) => table.getRow(id).toggleSelected(isOn), [table]);
  const sizeOf = (key: string) => headers.get(key)?.getSize() ?? 100;
  const grid = [
    deeds ? '22px' : '',
    `minmax(${LEAD_WIDTH}px, 1fr)`,
    ...shown.map(({ key }) => `${sizeOf(key)}px`),
  ].join(' ');
  // The same for every row, whatever it says, so that columns stay beneath each other.
  const width = shown.reduce((sum, { key }) => sum + sizeOf(key) + GAP, LEAD_WIDTH + 2 * SIDE + (deeds ? 22 + GAP : 0));
  const chosen = rows.filter((row) => selection[String(keyOf(row))]);
  const keys = (event: KeyboardEvent<HTMLElement>) => {
    if (byArrows(event) || !deeds) return;
    const id = (event.target as HTMLElement).closest<HTMLElement>('[data-row]')?.dataset.row;
    const isTick = event.target instanceof HTMLInputElement;
    if (event.key === ' ' && id !== undefined && !isTick) table.getRow(id).toggleSelected();
    else if (event.key === 'a' && event.ctrlKey) table.toggleAllRowsSelected(true);
    else if (event.key === 'Escape' && chosen.length > 0) table.resetRowSelection(true);
    else return;
    event.preventDefault();
  };
  return (
    <>
      <ListTools
        {...props}
        rows={rows}
        shown={shown}
        chosen={chosen}
        layout={layout}
        onClear={() => table.resetRowSelection(true)}
      />
      <Answer of={pages}>
        {() =>
          rows.length === 0 ? (
            props.empty
          ) : (
            // Arrows move among the links of the rows.
            <Walked onKeyDown={keys}>
              <Endless
                rows={rows}
                pages={pages}
                rowHeight={rowHeight}
                headHeight={34}
                keyOf={keyOf}
                label={props.label}
                role="table"
                head={
                  <HeadLine $columns={grid} $width={width} role="row">
                    {deeds && (
                      <HeadCell>
                        <Tick
                          label="Choose all shown"
                          isOn={rows.length > 0 && chosen.length === rows.length}
                          isSome={chosen.length > 0 && chosen.length < rows.length}
                          onChange={(isOn) => table.toggleAllRowsSelected(isOn)}
                        />
                      </HeadCell>
                    )}
                    <Names {...sortedBy(sorting, props.leadColumns)}>
                      {props.leadColumns.map((column) => (
                        <Sorter key={column.key} column={column} sorting={sorting} />
                      ))}
                    </Names>
                    {shown.map((column) => {
                      const header = headers.get(column.key);
                      return (
                        <HeadCell
                          key={column.key}
                          {...(column.numeric ? { 'data-numeric': true } : {})}
                          {...sortedBy(sorting, [column])}
                        >
                          <Sorter column={column} sorting={sorting} />
                          {header && (
                            <Grip
                              onPointerDown={header.getResizeHandler()}
                              onPointerUp={() => layout.setWidth(column.key, sizeOf(column.key))}
                              aria-hidden
                            />
                          )}
                        </HeadCell>
                      );
                    })}
                  </HeadLine>
                }
              >
                {(row) => {
                  const id = String(keyOf(row));
                  return (
                    <OneRow
                      row={row}
                      id={id}
                      grid={grid}
                      width={width}
                      height={rowHeight}
                      shown={shown as readonly ListColumn<unknown>[]}
                      lead={props.lead as (row: unknown, format: Format) => RowLead}
                      keepsAddress={props.keepsAddress ?? false}
                      choosing={deeds ? choosing : null}
                      isChosen={selection[id] === true}
                      name={props.leadColumns.map(({ text }) => text(row)).join(', ')}
                      format={format}
                    />
                  );
                }}
              </Endless>
            </Walked>
          )
        }
      </Answer>
      {pages.isFetchingNextPage && <MoreToCome>More…</MoreToCome>}
    </>
  );
}

interface RowProps {
  readonly row: unknown;
  readonly id: string;
  readonly grid: string;
  readonly width: number;
  readonly height: number;
  readonly shown: readonly ListColumn<unknown>[];
  readonly lead: (row: unknown, format: Format) => RowLead;
  readonly keepsAddress: boolean;
  /** Null where nothing is chosen. */
  readonly choosing: ((id: string, isOn: boolean) => void) | null;
  readonly isChosen: boolean;
  readonly name: string;
  readonly format: Format;
}

/** Drawn anew only when something of it has changed, however much is typed over the list. */
const OneRow = memo(function OneRow(props: RowProps) {
  const { row, id, choosing, isChosen, format } = props;
  return (
    <BodyLine
      $columns={props.grid}
      $width={props.width}
      $height={props.height}
      role="row"
      data-row={id}
      {...(isChosen ? { 'data-chosen': true } : {})}
    >
      {choosing && (
        <BodyCell>
          <Tick label={`Choose ${props.name}`} isOn={isChosen} onChange={(isOn) => choosing(id, isOn)} />
        </BodyCell>
      )}
      <BodyCell>
        <Lead {...props.lead(row, format)} keepsAddress={props.keepsAddress} />
      </BodyCell>
      {props.shown.map((column) => (
        <BodyCell key={column.key} {...(column.numeric ? { 'data-numeric': true } : {})}>
          {column.show(row, format)}
        </BodyCell>
      ))}
    </BodyLine>
  );
});

function Lead({ to, code, title, under, keepsAddress }: RowLead & { keepsAddress: boolean }) {
  const { search } = useLocation();
  return (
    <Cell>
      {code !== null && <Tile code={code} size={30} />}
      <span>
        <Link to={keepsAddress ? `${to}${search}` : to}>{title}</Link>
        <br />
        <Faint>{under}</Faint>
      </span>
    </Cell>
  );
}

interface SorterProps {
  readonly column: { readonly title: string; readonly sort?: string; readonly numeric?: boolean };
  readonly sorting: Sorting | undefined;
}

function Sorter({ column: { title, sort, numeric = false }, sorting }: SorterProps) {
  if (!sort || !sorting) return <span>{title}</span>;
  const isNow = sorting.key === sort;
  return (
    <button
      type="button"
      onClick={() => sorting.by(sort, isNow ? !sorting.down : numeric)}
      aria-label={`Sort by ${title}${isNow ? `, now ${sorting.down ? 'falling' : 'rising'}` : ''}`}
    >
      {title}
      {isNow && (sorting.down ? <ArrowDown size={12} aria-hidden /> : <ArrowUp size={12} aria-hidden />)}
    </button>
  );
}

function sortedBy(sorting: Sorting | undefined, columns: readonly { readonly sort?: string }[]) {
  if (!sorting || !columns.some(({ sort }) => sort === sorting.key)) return {};
  return { 'aria-sort': sorting.down ? ('descending' as const) : ('ascending' as const) };
}

/** Up and down go from row to row; Enter follows the link that has the focus. @returns whether it did */
function byArrows(event: KeyboardEvent<HTMLElement>): boolean {
  const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
  const link = (event.target as HTMLElement).closest('[data-row]')?.querySelector('a');
  if (step === 0 || !link) return false;
  const links = [...event.currentTarget.querySelectorAll('[data-row]')].flatMap((row) => row.querySelector('a') ?? []);
  // Drawn rows are not in order of the document while scrolling; their tops are.
  links.sort((a, b) => a.getBoundingClientRect().top - b.getBoundingClientRect().top);
  const next = links[links.indexOf(link) + step];
  if (!next) return false;
  event.preventDefault();
  next.focus();
  return true;
}
