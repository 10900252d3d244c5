import { documentKinds, type StockDocument } from '@yosegi/contract';
import { formatDecimal, readForText, sumForText } from '@yosegi/core/number';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import { useCommand } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { LabelButton } from '../devices/index.ts';
import { SignedQuantity } from '../lines/SignedQuantity.tsx';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Chip } from '../ui/Chip.tsx';
import { useFormat } from '../ui/format.ts';
import { Cell, Grid, KeyValue } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Tile } from '../ui/Tile.tsx';
import { Lead, Muted, Push, Row } from '../ui/text.ts';
import { forNames, forPath } from './kinds.ts';

const Page = styled.article`padding: 18px 24px 60px; display: grid; gap: 18px; background: var(--sheet); min-height: 100%; align-content: start;`;
const Values = styled.section`max-width: 460px;`;

const valueNames: Record<string, string> = {
  supplier: 'Owed to the supplier',
  opening: 'Opening balance',
  labour: 'Labour',
  charge: 'Charge',
  'written-off': 'Written off',
  adjusted: 'Adjusted',
  revalued: 'Revalued',
  'cost-difference': 'Difference in cost',
  shipped: 'Shipped',
  repaired: 'Repair cost',
};

/** One posting: what moved, what value came and went with it, and its undoing. */
export function DocumentSheet({ document }: { document: StockDocument }) {
  const format = useFormat();
  const go = useNavigate();
  const notify = useNotify();
  const mayPost = useCan(documentKinds[document.kind].right);
  const mayOverride = useCan('override');
  const mayValue = useCan('value');
  const mayUndo = mayPost && (document.overrideReason === null || mayOverride);
  const undo = useCommand('undoDocument', (counter) => {
    notify({ text: `${document.number} undone by ${counter.number}.` });
    void go(`/stock/documents/${counter.id}`);
  });
  const kind = documentKinds[document.kind];
  const canLabel = document.movements.some((row) => Number(row.quantity) > 0);
  const tracked = document.movements.some((row) => (row.lot ?? row.serial) !== null);
  const moved = sumForText(document.movements.map((row) => readForText(row.value)));
  return (
    <Page>
      <Row $wrap>
        <div>
          <h1>
            {document.number} · {kind.name}
          </h1>
          <Lead>
            {format.moment(document.at)} by {document.person}
            {document.reason && ` · ${document.reason}`}
            {document.receipt?.supplier && ` · ${document.receipt.supplier}`}
            {document.receipt?.deliveryNote && ` · delivery note ${document.receipt.deliveryNote}`}
            {document.remark && ` · ${document.remark}`}
          </Lead>
        </div>
        <Push />
        {document.receipt?.order && (
          <LinkButton to={`/buying/orders/${document.receipt.orderId}`}>Order {document.receipt.order}</LinkButton>
        )}
        {canLabel && <LabelButton ask={{ documentId: document.id }} />}
        {document.receipt && !document.reversedBy && mayValue && (
          <LinkButton to={`/stock/documents/${document.id}/prices`}>Invoice differs</LinkButton>
        )}
        {document.for && (
          <LinkButton to={`${forPath[document.for.kind]}/${document.for.id}`}>
            {forNames[document.for.kind]} {document.for.number}
          </LinkButton>
        )}
        {!document.reversedBy && kind.final === null && mayUndo && (
          <Button busy={undo.isPending} onPress={() => undo.mutate({ params: { id: document.id }, body: {} })}>
            Undo this posting
          </Button>
        )}
      </Row>
      {document.reversedBy && (
        <Chip $tone="held">
          Undone by <Link to={`/stock/documents/${document.reversedBy.id}`}>{document.reversedBy.number}</Link>
        </Chip>
      )}
      {document.reverses && (
        <Chip $tone="held">
          Undoes <Link to={`/stock/documents/${document.reverses.id}`}>{document.reverses.number}</Link>
        </Chip>
      )}
      {document.prices.length > 0 && (
        <Chip $tone="held">
          {document.receipt ? 'Its price was corrected by ' : 'Corrects the price of '}
          {document.prices.map((other, index) => (
            <span key={other.id}>
              {index > 0 && ', '}
              <Link to={`/stock/documents/${other.id}`}>{other.number}</Link>
            </span>
          ))}
        </Chip>
      )}
      {kind.final !== null && <Muted>{kind.final}</Muted>}
      {document.overrideReason && <Chip $tone="short">Went below zero: “{document.overrideReason}”</Chip>}
      <ProblemBox error={undo.error} />
      <section>
        <h2>Movements</h2>
        <Grid>
          <thead>
            <tr>
              <th>Item</th>
              <th>Bin</th>
              {tracked && <th>Lot or serial</th>}
              <th className="num">Quantity</th>
              <th className="num">Value</th>
            </tr>
          </thead>
          <tbody>
            {document.movements.map((row) => (
              <tr key={row.id}>
                <td>
                  <Cell>
                    <Tile code={row.code} size={26} />
                    <Link to={`/stock/items/${row.itemId}`}>{row.name}</Link>
                  </Cell>
                </td>
                <td>
                  {row.bin}
                  {row.build && <small> for {row.build}</small>}
                </td>
                {tracked && <td>{row.lot ?? row.serial}</td>}
                <td className="num">
                  <SignedQuantity quantity={row.quantity} unit={row.unit} />
                </td>
                <td className="num">{format.number(row.value, format.currencyDecimals)}</td>
              </tr>
            ))}
          </tbody>
        </Grid>
      </section>
      {document.finished && <Finished finished={document.finished} />}
      {document.uses.length > 0 && (
        <section>
          <h2>Planned and actually used</h2>
          <Grid>
            <thead>
              <tr>
                <th>Line</th>
                <th className="num">Planned</th>
                <th className="num">Used</th>
                <th className="num">Planned cost</th>
                <th className="num">Cost</th>
              </tr>
            </thead>
            <tbody>
              {document.uses.map((use, index) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: a posted document never changes
                <tr key={index}>
                  <td>
                    {use.text}
                    {use.because && <small> {use.because}</small>}
                  </td>
                  <td className="num">{use.unit && format.quantity(use.planned, use.unit)}</td>
                  <td className="num">
                    {use.unit &&
                      (use.actual === use.planned ? (
                        format.quantity(use.actual, use.unit)
                      ) : (
                        <b>{format.quantity(use.actual, use.unit)}</b>
                      ))}
                  </td>
                  <td className="num">{format.unitCost(use.plannedCost)}</td>
                  <td className="num">{format.unitCost(use.cost)}</td>
                </tr>
              ))}
            </tbody>
          </Grid>
        </section>
      )}
      {document.values.length > 0 && (
        <Values>
          <h2>Other value</h2>
          {document.values.map((value, index) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a posted document never changes
            <KeyValue key={index}>
              <span>
                {valueNames[value.kind]}
                {(value.text || value.item) && ` · ${value.text || value.item}`}
              </span>
              <b>{format.number(value.amount, format.currencyDecimals)}</b>
            </KeyValue>
          ))}
          <KeyValue>
            <span>Change of stock value</span>
            <b>{format.money(formatDecimal(moved))}</b>
          </KeyValue>
        </Values>
      )}
    </Page>
  );
}

const wentWords = { stock: 'back to stock', scrap: 'to scrap', 'back-in': 'back in again' } as const;

/** What else was said of a finish: rejects, its day, the condition of what was reworked, and what came out of it. */
function Finished({ finished }: { finished: NonNullable<StockDocument['finished']> }) {
  const format = useFormat();
  const { rejected, reason, writtenOff, madeOn, conditionBefore, conditionAfter, out } = finished;
  const said = [
    rejected !== '0' && `${format.number(rejected)} rejected${reason ? `: ${reason}` : ''}`,
    writtenOff !== '0' && `${format.money(writtenOff)} written off with them`,
    madeOn && `made on ${format.day(madeOn)}`,
    conditionBefore && `before: ${conditionBefore}`,
    conditionAfter && `after: ${conditionAfter}`,
    ...out.map(
      (part) =>
        `${format.quantity(part.quantity, part.unit)} ${part.name} ${wentWords[part.went]}${part.value === '0' ? '' : ` at ${format.money(part.value)}`}`,
    ),
  ].filter((one) => one !== false && one !== null && one !== '');
  return said.length > 0 ? <Muted>{said.join(' · ')}</Muted> : null;
}
