import type { OrderRow } from '@yosegi/contract';
import { formatDecimal, readForText, sumForText } from '@yosegi/core/number';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useList } from '../api/list.ts';
import { LinkButton } from '../ui/Button.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Page } from '../ui/layout.ts';
import { Answer, EmptyState } from '../ui/States.tsx';
import { Faint, Late, Lead, Push, Row } from '../ui/text.ts';
import { today } from '../ui/today.ts';
import { Shares } from './Shares.tsx';
import { onDays, type Week, weeksFrom } from './weeks.ts';
import { whenThere } from './words.ts';

const Board = styled.div`
  display: grid; grid-template-columns: 92px repeat(7, minmax(0, 1fr)); gap: 1px; background: var(--line-soft); border: 1px solid var(--line-soft); margin-top: 14px;
  @media (max-width: 900px) { grid-template-columns: minmax(0, 1fr); }
`;
const Side = styled.div`background: var(--birch); padding: 8px 10px; font-size: 12.5px; line-height: 1.35; color: var(--ink-2);`;
const Day = styled.section<{ $past: boolean; $today: boolean }>`
  background: ${({ $past }) => ($past ? 'var(--paper)' : 'var(--sheet)')}; padding: 6px; min-height: 112px; min-width: 0;
  ${({ $today }) => ($today ? 'box-shadow: inset 0 3px var(--honey);' : '')}
  > h3 { font: 500 12px var(--text); color: var(--ink-2); margin: 0 0 4px; }
`;
const Card = styled(Link)<{ $edge: string }>`
  display: block; border-left: 4px solid ${({ $edge }) => $edge}; background: var(--paper); padding: 4px 6px; margin-top: 4px; color: inherit; text-decoration: none; font-size: 12.5px; line-height: 1.25;
  b { display: block; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; } &:hover { background: var(--birch); }
`;
const edge: Record<OrderRow['outlook'], string> = {
  ready: 'var(--moss)',
  'in-time': 'var(--honey)',
  late: 'var(--short)',
  unknown: 'var(--short)',
  over: 'var(--line)',
};

/** Open orders by the day they are wanted: four weeks at a look, what is late in red. */
export function WeeksPage() {
  const orders = useList('orders', {});
  const weeks = weeksFrom(today());
  return (
    <Page>
      <Answer of={orders}>
        {({ rows }) =>
          rows.length === 0 ? (
            <EmptyState title="No open orders" action={<LinkButton to="/orders?new=1">Enter an order</LinkButton>}>
              Every open order appears here on the day it is wanted.
            </EmptyState>
          ) : (
            <Weeks rows={rows} weeks={weeks} />
          )
        }
      </Answer>
    </Page>
  );
}

function Weeks({ rows, weeks }: { rows: readonly OrderRow[]; weeks: readonly Week[] }) {
  const format = useFormat();
  const { before, on, after, never } = onDays(rows, weeks);
  return (
    <>
      <Row>
        <div>
          <h1>{conclusion(rows, weeks)}</h1>
          <Lead>By the date they are wanted. A red edge means late, or no date yet.</Lead>
        </div>
        <Push />
        <LinkButton to="/orders">As a list</LinkButton>
      </Row>
      {before.length > 0 && (
        <Row $wrap $top={12}>
          <Late>Wanted before:</Late>
          {before.map((row) => (
            <Entry key={row.id} row={row} />
          ))}
        </Row>
      )}
      <Board>
        {weeks.map((week) => {
          const own = week.days.flatMap(on);
          return [
            <Side key={week.days[0]}>
              <b>{format.day(week.days[0] ?? '')}</b>
              <br />
              {own.length > 0 ? (
                <>
                  {count(own.length, 'order')}
                  <br />
                  {format.money(sum(own), 0)}
                </>
              ) : (
                'nothing'
              )}
            </Side>,
            ...week.days.map((day) => (
              <Day key={day} $past={day < today()} $today={day === today()} aria-label={format.day(day)}>
                <h3>{format.day(day)}</h3>
                {on(day).map((row) => (
                  <Entry key={row.id} row={row} />
                ))}
              </Day>
            )),
          ];
        })}
      </Board>
      {[['Later', after] as const, ['No date', never] as const].map(
        ([title, own]) =>
          own.length > 0 && (
            <Row key={title} $wrap $top={12}>
              <b>{title}:</b>
              {own.map((row) => (
                <Entry key={row.id} row={row} />
              ))}
            </Row>
          ),
      )}
    </>
  );
}

function Entry({ row }: { row: OrderRow }) {
  const format = useFormat();
  const isRisky = row.outlook === 'late' || row.outlook === 'unknown';
  return (
    <Card to={`/orders/${row.id}`} $edge={edge[row.outlook]}>
      <b>{row.customer}</b>
      <Faint>
        {row.number} · {format.money(row.worth, 0)}
      </Faint>
      {isRisky && (
        <>
          <br />
          <Late>{row.completeOn === null ? 'no date yet' : `complete ${whenThere(row.completeOn, format)}`}</Late>
        </>
      )}
      <Shares shares={row.shares} />
    </Card>
  );
}

const sum = (rows: readonly OrderRow[]) => formatDecimal(sumForText(rows.map(({ worth }) => readForText(worth))));

function conclusion(rows: readonly OrderRow[], weeks: readonly Week[]): string {
  const { on } = onDays(rows, weeks);
  const soon = (weeks[0]?.days ?? []).flatMap(on);
  const risky = rows.filter(({ outlook }) => outlook === 'late' || outlook === 'unknown').length;
  const first =
    soon.length === 0
      ? 'Nothing wanted this week'
      : `${count(soon.length, 'order')} ${soon.length === 1 ? 'is' : 'are'} wanted this week`;
  return risky === 0
    ? `${first}; all on time.`
    : `${first}; ${risky} of ${count(rows.length, 'open order')} ${risky === 1 ? 'needs' : 'need'} attention.`;
}
