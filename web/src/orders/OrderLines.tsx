import type { Order, OrderLine, OrderPart } from '@yosegi/contract';
import { readForText } from '@yosegi/core/number';
import { Fragment, useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { count, marginWords, useFormat } from '../ui/format.ts';
import { Cell, Grid } from '../ui/layout.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint } from '../ui/text.ts';
import { today } from '../ui/today.ts';
import { Days, DaysAxis } from './Days.tsx';
import { Fold } from './Fold.ts';
import { LaterKitPanel } from './LaterKitPanel.tsx';
import { servedWords } from './serving.ts';
import { type Span, spanOf } from './span.ts';
import { whenThere } from './words.ts';

const Road = styled.th`width: 34%;`;
const Swapped = styled.small`color: var(--held); margin-left: 6px;`;

/** The lines of an order with where each stands, its days drawn beside it. */
export function OrderLines({ order }: { order: Order }) {
  const span = spanOf(order, today());
  const isOpen = order.standing === 'open' || order.standing === 'partly-shipped';
  return (
    <Grid $full>
      <thead>
        <tr>
          <th>Items</th>
          <th className="num">Quantity</th>
          <th className="num">Price</th>
          <th className="num">Amount, margin</th>
          <Road>{isOpen ? <DaysAxis span={span} /> : 'Supply'}</Road>
        </tr>
      </thead>
      <tbody>
        {order.lines.map((line) => (
          <Line key={line.id} order={order} line={line} span={span} />
        ))}
      </tbody>
    </Grid>
  );
}

/** A line, with what leaves for it folded open where that is more than the thing itself. */
function Line({ order, line, span }: { order: Order; line: OrderLine; span: Span }) {
  const format = useFormat();
  const changed = line.parts.filter((part) => part.instead !== null || part.usual !== part.required);
  const [open, setOpen] = useState(false);
  const [later, setLater] = useState(false);
  const isKit = line.revision !== null;
  const shown = open ? line.parts : changed;
  const hidden = line.parts.length - changed.length;
  return (
    <Fragment>
      <tr {...(readForText(line.open) === 0n ? { 'data-quiet': true } : {})}>
        <td>
          <Cell>
            <Tile code={line.code} size={32} />
            <span>
              <Link to={`/stock/items/${line.itemId}`}>
                <b>{line.name}</b>
              </Link>
              <br />
              <Faint>
                {servedWords(line, format)}
                {line.wantedOn && line.wantedOn !== order.wantedOn && ` · wanted ${format.day(line.wantedOn)}`}
                {line.hidden && ' · one line on paper'}
              </Faint>
              {isKit && hidden > 0 && <br />}
              {isKit && hidden > 0 && (
                <Fold type="button" aria-expanded={open} onClick={() => setOpen(!open)}>
                  {open
                    ? 'Hide parts'
                    : changed.length > 0
                      ? `${count(changed.length, 'change')} · show ${count(hidden, 'more part')}`
                      : `Show ${count(line.parts.length, 'part')}`}
                </Fold>
              )}
            </span>
          </Cell>
        </td>
        <td className="num">
          <b>{format.quantity(line.quantity, line.unit, line.decimals)}</b>
          {readForText(line.shipped) > 0n && (
            <>
              <br />
              <Faint>{format.number(line.shipped)} shipped</Faint>
            </>
          )}
        </td>
        <td className="num">
          {format.money(line.listPrice)}
          {line.discount !== '0' && (
            <>
              <br />
              <Faint>{format.percent(line.discount)} off</Faint>
            </>
          )}
        </td>
        <td className="num">
          {format.money(line.amount)}
          <br />
          <Faint>{marginWords(line.worth, costOf(line), format)}</Faint>
        </td>
        <td>
          <LineWhen order={order} line={line} span={span} />
        </td>
      </tr>
      {line.laterRevision !== null && readForText(line.open) > 0n && (
        <tr>
          <td colSpan={5} className="inset">
            {later ? (
              <LaterKitPanel order={order} line={line} onDone={() => setLater(false)} />
            ) : (
              <Fold type="button" onClick={() => setLater(true)}>
                Revision {line.laterRevision} is in use since. See what it would change…
              </Fold>
            )}
          </td>
        </tr>
      )}
      {isKit && shown.map((part) => <Part key={part.id} order={order} part={part} span={span} />)}
    </Fragment>
  );
}

/** What has left at what it cost, and the rest as planned. */
const costOf = (line: OrderLine) => (line.open === '0' ? line.cost : line.plannedCost);

/** A part of a kit: what it is on this line, and what the kit has in its place. */
function Part({ order, part, span }: { order: Order; part: OrderPart; span: Span }) {
  const format = useFormat();
  return (
    <tr data-quiet>
      <td className="inset">
        <Cell>
          <Tile code={part.item.code} size={22} />
          <span>
            {part.item.name}
            {part.instead && <Swapped>⇄ for {part.instead}</Swapped>}
          </span>
        </Cell>
      </td>
      <td className="num">
        {format.quantity(part.required, part.item.unit, part.item.decimals)}
        {!part.instead && part.usual !== part.required && <Faint> was {format.number(part.usual)}</Faint>}
      </td>
      <td className="num" colSpan={2}>
        <Faint>{part.packed === '0' ? 'in the kit' : `${format.number(part.packed)} in the parcel`}</Faint>
      </td>
      <td>
        {(readForText(part.open) > 0n || readForText(part.packed) > 0n) && isPromised(order) && (
          <Days
            span={span}
            some={readForText(part.ready) + readForText(part.packed) > 0n}
            completeOn={part.completeOn}
            wantedOn={order.wantedOn}
            words={whenThere(part.completeOn, format)}
          />
        )}
      </td>
    </tr>
  );
}

const isPromised = ({ standing }: Order) => standing === 'open' || standing === 'partly-shipped';

function LineWhen({ order, line, span }: { order: Order; line: OrderLine; span: Span }) {
  const format = useFormat();
  const left = readForText(line.open);
  if (left === 0n) return <Faint>{readForText(line.dropped) > 0n ? 'given up' : 'shipped'}</Faint>;
  if (!isPromised(order)) return <Faint>{order.standing === 'quote' ? 'not promised yet' : 'cancelled'}</Faint>;
  const some = readForText(line.canShip) > 0n && line.completeOn !== '';
  const rest = whenThere(line.completeOn, format);
  return (
    <Days
      span={span}
      some={some}
      completeOn={line.completeOn}
      wantedOn={line.wantedOn ?? order.wantedOn}
      words={some ? `${format.number(line.canShip)} now, ${rest}` : rest}
    />
  );
}
