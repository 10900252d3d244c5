import { ChevronDown, ChevronUp } from 'lucide-react';
import { type ReactNode, useEffect, useState } from 'react';
import { createPortal } from 'react-dom';
import styled from 'styled-components';
import type { UsedPages } from '../api/client.ts';
import { everyRow } from '../api/list.ts';
import { saveTable } from '../api/table.ts';
import { Button } from './Button.tsx';
import { count, useFormat } from './format.ts';
import type { ListColumn } from './LongList.tsx';
import { type Deed, Menu } from './Menu.tsx';
import { ProblemBox } from './Problem.tsx';
import { Tick } from './Tick.tsx';
import { Row as Flow, Muted, Push, VisuallyHidden } from './text.ts';
import type { ListLayout } from './useListLayout.ts';

const Tools = styled.div`padding: 8px 22px; display: grid; gap: 8px; border-bottom: 1px solid var(--line-soft); background: var(--sheet);`;
const Chosen = styled(Flow)`background: var(--birch); border-left: 4px solid var(--honey); padding: 6px 12px;`;
const Chooser = styled.fieldset`
  border: 1px solid var(--line); border-radius: 3px; display: grid; grid-template-columns: repeat(auto-fill, minmax(230px, 1fr)); gap: 2px 16px; padding: 8px 12px; margin: 0;
`;
const Ways = styled.span`display: flex; align-items: center; white-space: nowrap; button { padding-inline: 8px; }`;
const Order = styled.span`display: inline-flex; margin-left: auto; button { padding: 2px; min-height: 24px; min-width: 24px; }`;
const Paper = styled.div`
  display: none;
  @media print {
    display: block; font-size: 11px;
    table { width: 100%; border-collapse: collapse; } th { text-align: left; border-bottom: 1px solid #000; } td { border-bottom: 1px solid #ccc; }
    th, td { padding: 3px 6px 3px 0; } .num { text-align: right; }
  }
`;

interface Props<Row> {
  readonly list: string;
  readonly label: string;
  readonly pages: UsedPages<Row>;
  readonly rows: readonly Row[];
  readonly columns: readonly ListColumn<Row>[];
  readonly leadColumns: readonly Pick<ListColumn<Row>, 'key' | 'title' | 'text'>[];
  readonly shown: readonly ListColumn<Row>[];
  readonly chosen: readonly Row[];
  readonly layout: ListLayout;
  readonly deeds?: (chosen: readonly Row[]) => readonly Deed[];
  readonly onClear: () => void;
  readonly children?: ReactNode;
}

/** What stands over a long list: its filters, its columns, the ways to take it along, and what to do with what is chosen. */
export function ListTools<Row>(props: Props<Row>) {
  const { pages, shown, chosen, deeds } = props;
  const [choosing, setChoosing] = useState(false);
  const [fetched, setFetched] = useState<number | null>(null);
  const [error, setError] = useState<unknown>(null);
  const [paper, setPaper] = useState<readonly Row[] | null>(null);
  /** Every row of the list, or those that are chosen. */
  const all = async (): Promise<readonly Row[]> => (chosen.length > 0 ? chosen : everyRow(pages, setFetched));
  const take = (how: (rows: readonly Row[]) => unknown) => async () => {
    setError(null);
    setFetched(props.rows.length);
    try {
      await how(await all());
    } catch (fault) {
      setError(fault);
    } finally {
      setFetched(null);
    }
  };
  const columns = [...props.leadColumns.map((column) => ({ ...column, numeric: false })), ...shown];
  const asFile = (format: 'csv' | 'xlsx') =>
    take((rows) =>
      saveTable(format, {
        name: props.label,
        columns: columns.map(({ title, numeric = false }) => ({ title, amount: numeric })),
        rows: rows.map((row) => columns.map(({ text }) => text(row))),
      }),
    );
  const ways: Deed[] = [
    { id: 'csv', name: 'CSV file', act: asFile('csv') },
    { id: 'xlsx', name: 'XLSX file', act: asFile('xlsx') },
    { id: 'print', name: 'Print', act: take(setPaper) },
  ];
  return (
    <Tools>
      <Flow $wrap $gap={8}>
        {props.children}
        <Push />
        <Ways>
          {fetched !== null && <Muted role="status">Reading {count(fetched, 'row')}…</Muted>}
          <Button look="ghost" aria-expanded={choosing} onPress={() => setChoosing(!choosing)}>
            Columns
          </Button>
          <Menu look="ghost" label="Export" deeds={ways} />
        </Ways>
      </Flow>
      {choosing && <Columns {...props} />}
      {deeds && chosen.length > 0 && (
        <Chosen $wrap $gap={8}>
          <b>{count(chosen.length, 'row')} chosen</b>
          {deeds(chosen).map((deed) => (
            <Button key={deed.id} isDisabled={deed.isDisabled ?? false} onPress={() => deed.act?.()}>
              {deed.name}
            </Button>
          ))}
          <Button look="ghost" onPress={props.onClear}>
            Clear selection
          </Button>
        </Chosen>
      )}
      <ProblemBox error={error} />
      {paper && (
        <OnPaper
          title={props.label}
          rows={paper}
          lead={props.leadColumns}
          shown={shown}
          onDone={() => setPaper(null)}
        />
      )}
    </Tools>
  );
}

function Columns<Row>({ columns, layout }: Pick<Props<Row>, 'columns' | 'layout'>) {
  const { shown, setShown } = layout;
  const ordered = [
    ...shown.flatMap((key) => columns.find((column) => column.key === key) ?? []),
    ...columns.filter(({ key }) => !shown.includes(key)),
  ];
  const move = (key: string, step: number) => {
    const from = shown.indexOf(key);
    const next = [...shown];
    next.splice(from + step, 0, ...next.splice(from, 1));
    setShown(next);
  };
  return (
    <Chooser>
      <VisuallyHidden as="legend">Columns</VisuallyHidden>
      {ordered.map(({ key, title }) => {
        const place = shown.indexOf(key);
        return (
          <Flow key={key} $gap={4}>
            <Tick
              isOn={place >= 0}
              onChange={(isOn) => setShown(isOn ? [...shown, key] : shown.filter((one) => one !== key))}
            >
              {title}
            </Tick>
            {place >= 0 && (
              <Order>
                <Button
                  look="ghost"
                  aria-label={`${title} further left`}
                  isDisabled={place === 0}
                  onPress={() => move(key, -1)}
                >
                  <ChevronUp size={14} aria-hidden />
                </Button>
                <Button
                  look="ghost"
                  aria-label={`${title} further right`}
                  isDisabled={place === shown.length - 1}
                  onPress={() => move(key, 1)}
                >
                  <ChevronDown size={14} aria-hidden />
                </Button>
              </Order>
            )}
          </Flow>
        );
      })}
    </Chooser>
  );
}

interface PaperProps<Row> {
  readonly title: string;
  readonly rows: readonly Row[];
  readonly lead: readonly Pick<ListColumn<Row>, 'key' | 'title' | 'text'>[];
  readonly shown: readonly ListColumn<Row>[];
  readonly onDone: () => void;
}

/** All rows on paper, where nothing scrolls. */
function OnPaper<Row>({ title, rows, lead, shown, onDone }: PaperProps<Row>) {
  const format = useFormat();
  useEffect(() => {
    document.body.dataset.paper = 'list';
    window.print();
    delete document.body.dataset.paper;
    onDone();
  }, [onDone]);
  return createPortal(
    <Paper data-list-paper>
      <h1>{title}</h1>
      <table>
        <thead>
          <tr>
            {[...lead, ...shown].map((column) => (
              <th key={column.key} className={'numeric' in column && column.numeric ? 'num' : ''}>
                {column.title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row, index) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: they are drawn once
            <tr key={index}>
              {lead.map(({ key, text }) => (
                <td key={key}>{text(row)}</td>
              ))}
              {shown.map(({ key, numeric, show }) => (
                <td key={key} className={numeric ? 'num' : ''}>
                  {show(row, format)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </Paper>,
    document.body,
  );
}
