import type { Order } from '@yosegi/contract';
import { formatDecimal, readForText } from '@yosegi/core/number';
import { Link } from 'react-router';
import { marginWords, useFormat } from '../ui/format.ts';
import { KeyValue } from '../ui/layout.ts';
import { H2 } from '../ui/space.ts';
import { Faint } from '../ui/text.ts';
import { When } from '../ui/When.tsx';
import { EarnedFigures } from './EarnedFigures.tsx';
import { changeWords, whenThere } from './words.ts';

/** Which parts the order waits for, what brings them, and until when. */
export function WaitsFor({ order }: { order: Order }) {
  const format = useFormat();
  const waiting = order.lines.flatMap((line) =>
    line.parts.filter((part) => readForText(part.open) > readForText(part.ready)),
  );
  if (waiting.length === 0 || order.standing === 'quote') return null;
  return (
    <>
      <H2 $top={18}>Waiting for</H2>
      {waiting.map((part) => {
        const { unit, decimals } = part.item;
        const brought = part.comes.reduce((sum, { quantity }) => sum + readForText(quantity), 0n);
        const missing = readForText(part.open) - readForText(part.ready) - brought;
        return (
          <div key={part.id}>
            {part.comes.map(({ kind, id, number, quantity, on }) => (
              <KeyValue key={`${kind}${id}${on}`}>
                <span>
                  {format.quantity(quantity, unit, decimals)} {part.item.name} ·{' '}
                  <Link to={kind === 'build' ? `/build/${id}` : `/buying/orders/${id}`}>{number}</Link>
                </span>
                <b>{whenThere(on, format)}</b>
              </KeyValue>
            ))}
            {missing > 0n && (
              <KeyValue>
                <Link to={`/stock/items/${part.item.id}`}>
                  {format.quantity(formatDecimal(missing), unit, decimals)} {part.item.name}
                </Link>
                <Faint>not on order</Faint>
              </KeyValue>
            )}
          </div>
        );
      })}
    </>
  );
}

export function Brings({ order }: { order: Order }) {
  const format = useFormat();
  const { earned } = order;
  const goods = formatDecimal(readForText(order.worth) - readForText(order.freight));
  const isBegun = earned.quantity !== '0';
  if (order.standing === 'shipped') return <EarnedFigures of={earned} />;
  return (
    <>
      <KeyValue>
        <span>Lines</span>
        <b>{format.money(formatDecimal(readForText(goods) + readForText(order.takenOff)))}</b>
      </KeyValue>
      {order.takenOff !== '0' && (
        <KeyValue>
          <span>{format.percent(order.orderDiscount)} off</span>
          <b>−{format.money(order.takenOff)}</b>
        </KeyValue>
      )}
      {order.freight !== '0' && (
        <KeyValue>
          <span>Freight</span>
          <b>{format.money(order.freight)}</b>
        </KeyValue>
      )}
      {(order.freight !== '0' || order.takenOff !== '0') && (
        <KeyValue>
          <b>Total</b>
          <b>{format.money(order.worth)}</b>
        </KeyValue>
      )}
      <KeyValue>
        <span>Cost, as planned</span>
        <span>{format.money(order.plannedCost)}</span>
      </KeyValue>
      <KeyValue>
        <b>Margin, as planned</b>
        <b>{marginWords(goods, order.plannedCost, format)}</b>
      </KeyValue>
      {isBegun && <H2 $top={18}>Earnings so far</H2>}
      {isBegun && <EarnedFigures of={earned} />}
    </>
  );
}

/** Who wanted another quantity of what, and when. */
export function Changes({ order }: { order: Order }) {
  const format = useFormat();
  if (order.changes.length === 0) return null;
  return (
    <>
      <H2 $top={18}>Changes</H2>
      {order.changes.map(({ id, at, person, name, before, after, ...counted }) => (
        <KeyValue key={id}>
          <span>
            {changeWords(name, before, after, (amount) => format.quantity(amount, counted.unit, counted.decimals))}{' '}
            <Faint>{person}</Faint>
          </span>
          <Faint $oneLine>
            <When at={at} />
          </Faint>
        </KeyValue>
      ))}
    </>
  );
}
