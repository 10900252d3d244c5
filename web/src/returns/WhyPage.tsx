import type { api } from '@yosegi/contract';
import type { Output } from '@yosegi/contract/client';
import { useQuestion } from '../api/client.ts';
import { DayField } from '../ui/DayField.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Grid, Page } from '../ui/layout.ts';
import { Answer, EmptyState } from '../ui/States.tsx';
import { Part, Section, Th } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Lead, Row } from '../ui/text.ts';
import { useAddress } from '../ui/useAddress.ts';

type Figures = Output<(typeof api)['returnFigures']>;

/** Why things come back, of what, from whom, and what missing and damaged parts cost. */
export function WhyPage() {
  const format = useFormat();
  const [from, setFrom] = useAddress('from');
  const [to, setTo] = useAddress('to');
  const figures = useQuestion(
    'returnFigures',
    { query: { from: from || undefined, to: to || undefined } },
    { keep: true },
  );
  return (
    <Page>
      <Answer of={figures}>
        {(data) => (
          <>
            <h1>{conclusion(data, (amount) => format.money(amount))}</h1>
            <Lead>By return date. Refunds due, and losses from broken or missing parts.</Lead>
            <Row $top={12} $gap={12} $end $wrap>
              <Part $width={160}>
                <DayField label="From" value={from} onChange={setFrom} />
              </Part>
              <Part $width={160}>
                <DayField label="Until" value={to} onChange={setTo} />
              </Part>
            </Row>
            {data.all.returns === 0 ? (
              <EmptyState title="No returns in this period">
                Return reasons are counted here once customers send something back.
              </EmptyState>
            ) : (
              <>
                <By title="By reason" rows={data.reasons} />
                <By title="By product" rows={data.products} isItem />
                <By title="By customer" rows={data.customers} isItem />
                <Parts rows={data.parts} />
              </>
            )}
          </>
        )}
      </Answer>
    </Page>
  );
}

function conclusion({ all, reasons }: Figures, money: (amount: string) => string): string {
  if (all.returns === 0) return 'No returns.';
  const most = [...reasons].sort((a, b) => b.returns - a.returns)[0];
  return `${count(all.returns, 'return')}, most often “${most?.name}”; ${money(all.owed)} to refund and ${money(all.lost)} lost.`;
}

function By({ title, rows, isItem = false }: { title: string; rows: Figures['products']; isItem?: boolean }) {
  const format = useFormat();
  return (
    <Section $top={16}>
      <h2>{title}</h2>
      <Grid $full>
        <thead>
          <tr>
            <th>{title.replace('By ', '').replace(/^./, (first) => first.toUpperCase())}</th>
            <Th className="num" $width={100}>
              Returns
            </Th>
            <Th className="num" $width={100}>
              Quantity
            </Th>
            <Th className="num" $width={160}>
              Value returned
            </Th>
            <Th className="num" $width={140}>
              Refund
            </Th>
            <Th className="num" $width={140}>
              Lost
            </Th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={`${row.code} ${row.name}`}>
              <td>
                <Row $gap={9}>
                  {isItem && <Tile code={row.code} size={24} />}
                  {row.name}
                </Row>
              </td>
              <td className="num">{row.returns}</td>
              <td className="num">{format.number(row.quantity)}</td>
              <td className="num">{format.money(row.value)}</td>
              <td className="num">{format.money(row.owed)}</td>
              <td className="num">{row.lost === '0' ? '–' : format.money(row.lost)}</td>
            </tr>
          ))}
        </tbody>
      </Grid>
    </Section>
  );
}

function Parts({ rows }: { rows: Figures['parts'] }) {
  const format = useFormat();
  if (rows.length === 0) return null;
  const cell = (amount: string, unit: string) => (amount === '0' ? '–' : format.quantity(amount, unit, 3));
  return (
    <Section $top={16}>
      <h2>Broken or missing parts</h2>
      <Grid $full>
        <thead>
          <tr>
            <th>Part</th>
            <Th className="num" $width={160}>
              Damaged or scrapped
            </Th>
            <Th className="num" $width={120}>
              Missing
            </Th>
            <Th className="num" $width={200}>
              Other goods in the box
            </Th>
            <Th className="num" $width={140}>
              Lost
            </Th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.code}>
              <td>
                <Row $gap={9}>
                  <Tile code={row.code} size={24} />
                  {row.name}
                </Row>
              </td>
              <td className="num">{cell(row.damaged, row.unit)}</td>
              <td className="num">{cell(row.missing, row.unit)}</td>
              <td className="num">{cell(row.notOurs, row.unit)}</td>
              <td className="num">{format.money(row.lost)}</td>
            </tr>
          ))}
        </tbody>
      </Grid>
    </Section>
  );
}
