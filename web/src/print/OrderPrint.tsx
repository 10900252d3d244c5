import type { PurchaseOrder } from '@yosegi/contract';
import styled from 'styled-components';
import { useQuestion } from '../api/client.ts';
import { useFormat } from '../ui/format.ts';
import { Cell } from '../ui/layout.ts';
import { Answer } from '../ui/States.tsx';
import { Tile } from '../ui/Tile.tsx';
import { dayOf } from '../ui/today.ts';
import { Letterhead } from './Letterhead.tsx';
import { PrintBar } from './PrintBar.tsx';
import { Paper, Typed } from './paper.tsx';

const Whole = styled.table`width: 100%;`;

/** A purchase order on paper, as it goes to the supplier. */
export function OrderPrint({ id }: { id: number }) {
  const order = useQuestion('purchase', { params: { id } });
  return (
    <>
      <PrintBar to={`/buying/orders/${id}`} back="the order" />
      <Answer of={order}>{(data) => <OrderPaper order={data} />}</Answer>
    </>
  );
}

function OrderPaper({ order }: { order: PurchaseOrder }) {
  const format = useFormat();
  const supplier = useQuestion('supplier', { params: { id: order.supplierId } }).data;
  return (
    <Paper>
      <Letterhead number={order.number} name={order.supplier} address={supplier?.address} />
      <h1>
        {order.state === 'draft'
          ? 'Draft of purchase order'
          : order.state === 'cancelled'
            ? 'Cancelled purchase order'
            : 'Purchase order'}{' '}
        {order.number}
      </h1>
      <p>
        {format.longerDay(dayOf(order.sentAt ?? order.madeAt))}
        {order.wantedOn && (
          <>
            {' '}
            · wanted on <b>{format.longerDay(order.wantedOn)}</b>
          </>
        )}
      </p>
      {order.remark && <Typed $top={3}>{order.remark}</Typed>}
      <Whole>
        <thead>
          <tr>
            <th>Line</th>
            <th>Item</th>
            <th>Your code</th>
            <th className="num">Quantity</th>
            <th className="num">Price</th>
            <th className="num">Amount</th>
          </tr>
        </thead>
        <tbody>
          {order.lines.map((line, index) => (
            <tr key={line.id}>
              <td>{index + 1}</td>
              <td>
                <Cell>
                  <Tile code={line.code} size={26} />
                  <span>
                    {line.name}
                    <br />
                    <small>
                      {line.code}
                      {line.wantedOn && ` · wanted on ${format.longerDay(line.wantedOn)}`}
                    </small>
                  </span>
                </Cell>
              </td>
              <td>{line.supplierCode}</td>
              <td className="num">{format.quantity(line.quantity, line.unit, line.decimals)}</td>
              <td className="num">{format.price(line.price)}</td>
              <td className="num">{format.money(line.worth)}</td>
            </tr>
          ))}
          <tr>
            <td colSpan={5} className="num">
              <b>Total</b>
            </td>
            <td className="num">
              <b>{format.money(order.worth)}</b>
            </td>
          </tr>
        </tbody>
      </Whole>
    </Paper>
  );
}
