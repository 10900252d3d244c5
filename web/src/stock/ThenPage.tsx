import type { api } from '@yosegi/contract';
import type { Output } from '@yosegi/contract/client';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { usePages, useQuestion } from '../api/client.ts';
import { everyRow } from '../api/list.ts';
import { Button } from '../ui/Button.tsx';
import { DayField } from '../ui/DayField.tsx';
import { Export, type FileColumn } from '../ui/Export.tsx';
import { Finder, useSought } from '../ui/Finder.tsx';
import { useFormat } from '../ui/format.ts';
import { LineChart } from '../ui/LineChart.tsx';
import { Cell, Grid, Page } from '../ui/layout.ts';
import { More } from '../ui/More.tsx';
import { Answer } from '../ui/States.tsx';
import { Part } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Lead, Push, Row } from '../ui/text.ts';
import { today } from '../ui/today.ts';
import { useAddress } from '../ui/useAddress.ts';

const FILE: readonly FileColumn<Output<typeof api.stockOn>['rows'][number]>[] = [
  { title: 'Item', text: ({ name }) => name },
  { title: 'Code', text: ({ code }) => code },
  { title: 'On hand', text: ({ quantity }) => quantity, isAmount: true },
  { title: 'Unit', text: ({ unit }) => unit },
  { title: 'Value', text: ({ value }) => value, isAmount: true },
];

/** Stock as it was at the end of any day, and what it was worth over time. */
export function ThenPage() {
  const format = useFormat();
  const [day, setDay] = useAddress('day', today());
  const q = useSought();
  const asked = /^\d{4}-\d{2}-\d{2}$/.test(day) ? day : today();
  const pages = usePages('stockOn', { day: asked, q: q || undefined, limit: 100 });
  // Its own day stands in the answer, so that an answer still shown while the next comes never speaks of another day.
  const total = pages.data?.pages[0] as { day: string; value: string } | undefined;
  const [chosen, setChosen] = useAddress('item');
  const itemId = Number(chosen) || undefined;
  const item = useQuestion('item', { params: { id: itemId ?? 0 } }, { enabled: itemId !== undefined }).data;
  const worth = useQuestion('stockValue', { query: { itemId } }).data;
  const points = useMemo(
    () =>
      (worth ?? []).map((point) => ({
        name: format.day(point.day),
        value: Number(point.value),
        text: format.money(point.value),
      })),
    [worth, format],
  );
  return (
    <Page $white>
      <h1>
        {total === undefined
          ? 'Stock on a date'
          : `At the end of ${format.day(total.day)} stock was worth ${format.money(total.value)}.`}
      </h1>
      <Lead>Added up from every movement until then. Click the line to go to that day.</Lead>
      {itemId !== undefined && (
        <Row $gap={10} $top={8}>
          <b>The line shows the value of {item?.name ?? '…'}.</b>
          <Button look="ghost" onPress={() => setChosen('')}>
            Show all stock again
          </Button>
        </Row>
      )}
      {points.length > 1 && (
        <LineChart
          label={`Value of ${item?.name ?? 'stock'} on ${points.length} days, from ${points[0]?.text} to ${points.at(-1)?.text}`}
          points={points}
          onPick={(index) => setDay(worth?.[index]?.day ?? today())}
        />
      )}
      <Row $gap={10} $top={14} $bottom={14}>
        <Part $width={170}>
          <DayField label="At the end of" value={day} onChange={setDay} />
        </Part>
        <Part $width={230}>
          <Finder label="Find an item" placeholder="Code or name" hideLabel={false} />
        </Part>
        <Push />
        <Export name="Stock" day={asked} columns={FILE} rows={() => everyRow(pages)} />
      </Row>
      <Answer of={pages}>
        {(data) => {
          const rows = data.pages.flatMap((page) => page.rows);
          if (rows.length === 0) return <Lead>No stock matched on that date.</Lead>;
          return (
            <>
              <Grid>
                <thead>
                  <tr>
                    <th>Item</th>
                    <th className="num">On hand</th>
                    <th className="num">Value</th>
                    <th aria-label="Over time" />
                  </tr>
                </thead>
                <tbody>
                  {rows.map((row) => (
                    <tr key={row.itemId}>
                      <td>
                        <Cell>
                          <Tile code={row.code} size={24} />
                          <span>
                            <Link to={`/stock/items/${row.itemId}`}>{row.name}</Link> <Faint>{row.code}</Faint>
                          </span>
                        </Cell>
                      </td>
                      <td className="num">{format.quantity(row.quantity, row.unit, row.decimals)}</td>
                      <td className="num">{format.money(row.value)}</td>
                      <td>
                        <Button
                          look="ghost"
                          aria-label={`Show over time: ${row.name}`}
                          onPress={() => setChosen(String(row.itemId))}
                        >
                          Show over time
                        </Button>
                      </td>
                    </tr>
                  ))}
                </tbody>
              </Grid>
              <More of={pages} />
            </>
          );
        }}
      </Answer>
    </Page>
  );
}
