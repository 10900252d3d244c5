import type { Order, OrderLine } from '@yosegi/contract';
import { formatDecimal, readForText } from '@yosegi/core/number';
import { Fragment, useState } from 'react';
import { Link } from 'react-router';
import { useCommand } from '../api/client.ts';
import { useShortcut } from '../shell/useShortcut.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { count, useFormat } from '../ui/format.ts';
import { BigNumber, Cell, Grid, KeyValue, Margin, Sheet, SheetAndMargin, SheetHead } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late, Lead, Muted, Push, Row } from '../ui/text.ts';
import { When } from '../ui/When.tsx';
import { Fold } from './Fold.ts';
import { Outlook } from './Outlook.tsx';
import { ShipPanel } from './ShipPanel.tsx';
import { outlookWords, standingWords, whenThere } from './words.ts';

const isOver = ({ standing }: Order) => standing === 'shipped' || standing === 'cancelled';

/** One order: when it is whole, where each line stands, and the next step. */
export function OrderSheet({ order }: { order: Order }) {
  const format = useFormat();
  const notify = useNotify();
  const [shipping, setShipping] = useState(false);
  const [ending, setEnding] = useState(false);
  const confirm = useCommand('confirmOrder', ({ number }) =>
    notify({ text: `${number} is confirmed; what it needs is promised to it.` }),
  );
  const ready = order.lines.filter((line) => readForText(line.canShip) > 0);
  const isQuote = order.standing === 'quote';
  const confirmNow = () => confirm.mutate({ params: { id: order.id }, body: { version: order.version } });
  useShortcut('Enter', () => isQuote && !confirm.isPending && confirmNow(), { ctrl: true });
  return (
    <SheetAndMargin>
      <Sheet>
        <SheetHead>
          <Tile code={order.customer} size={52} />
          <div>
            <h1>{order.customer}</h1>
            <Lead>
              {order.number}
              {order.reference && ` · their ${order.reference}`} · {standingWords[order.standing]} ·{' '}
              {order.wantedOn ? (
                <>
                  wanted <b>{format.day(order.wantedOn)}</b>
                </>
              ) : (
                'no day wanted'
              )}{' '}
              · {order.delivery === 'whole' ? 'in one delivery' : 'each line as it is ready'}
            </Lead>
          </div>
          <Push />
          {!isOver(order) && <LinkButton to={`/orders/${order.id}?change=1`}>Change</LinkButton>}
        </SheetHead>
        <p style={{ marginBottom: 12 }}>
          {order.outlook === 'late' ? <Late>{outlookWords(order, format)}</Late> : outlookWords(order, format)}
        </p>
        {order.benchNote && (
          <p style={{ marginBottom: 12 }}>
            <Muted>For the bench: “{order.benchNote}”</Muted>
          </p>
        )}
        <Grid style={{ width: '100%' }}>
          <thead>
            <tr>
              <th>What they get</th>
              <th className="num">Quantity</th>
              <th className="num">Price</th>
              <th className="num">Amount</th>
              <th>There</th>
            </tr>
          </thead>
          <tbody>
            {order.lines.map((line) => (
              <Line key={line.id} order={order} line={line} />
            ))}
          </tbody>
        </Grid>
        {shipping ? (
          <ShipPanel order={order} onDone={() => setShipping(false)} />
        ) : (
          <Row style={{ marginTop: 16 }} $wrap>
            {isQuote && (
              <Button look="go" busy={confirm.isPending} onPress={confirmNow}>
                Confirm the order
              </Button>
            )}
            {!isQuote && !isOver(order) && (
              <Button look="go" isDisabled={ready.length === 0} onPress={() => setShipping(true)}>
                {ready.length === 0
                  ? 'Nothing is ready to ship'
                  : `Ship what is ready · ${count(ready.length, 'line')}`}
              </Button>
            )}
            <Push />
            {!isOver(order) && !ending && (
              <Button look="ghost" onPress={() => setEnding(true)}>
                {order.standing === 'partly-shipped' ? 'Give up the rest…' : 'Cancel the order…'}
              </Button>
            )}
          </Row>
        )}
        <ProblemBox error={confirm.error} />
        {ending && <EndForm order={order} onDone={() => setEnding(false)} />}
      </Sheet>
      <Margin aria-label="About this order">
        <h2>Whole on</h2>
        <BigNumber style={{ fontSize: 32 }}>
          {order.wholeOn ? format.day(order.wholeOn) : order.outlook === 'ready' ? 'now' : <Outlook order={order} />}
        </BigNumber>
        {order.transportDays !== null && order.wholeOn !== null && (
          <Faint>with {count(order.transportDays, 'day')} on the way</Faint>
        )}
        <WaitsFor order={order} />
        <h2 style={{ marginTop: 18 }}>What it brings</h2>
        <Brings order={order} />
        {order.documents.length > 0 && <h2 style={{ marginTop: 18 }}>What has left</h2>}
        {order.documents.map((document) => (
          <KeyValue key={document.id}>
            <span>
              <Link to={`/stock/documents/${document.id}`}>{document.number}</Link>{' '}
              <Faint>
                {document.undone ? 'undone' : [document.carrier, document.tracking].filter(Boolean).join(' ')}
              </Faint>
            </span>
            <Faint>
              <When at={document.at} />
            </Faint>
          </KeyValue>
        ))}
        <h2 style={{ marginTop: 18 }}>For whom</h2>
        <KeyValue>
          <Link to={`/orders/customers/${order.customerId}`}>{order.customer}</Link>
          {Number(order.discount) > 0 && <b>{format.number(order.discount)} % off</b>}
        </KeyValue>
        <KeyValue>
          <span>Entered by {order.madeBy}</span>
          <Faint>
            <When at={order.at} />
          </Faint>
        </KeyValue>
        {order.remark && <p style={{ marginTop: 8 }}>{order.remark}</p>}
        {order.reason && (
          <p style={{ marginTop: 8 }}>
            <Muted>Given up: “{order.reason}”</Muted>
          </p>
        )}
      </Margin>
    </SheetAndMargin>
  );
}

/** A line, with what leaves for it folded open where that is more than the thing itself. */
function Line({ order, line }: { order: Order; line: OrderLine }) {
  const format = useFormat();
  const [open, setOpen] = useState(false);
  const isKit = line.revision !== null;
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
              {isKit ? (
                <Fold type="button" aria-expanded={open} onClick={() => setOpen(!open)}>
                  packed for this order · {open ? 'hide' : 'show'} its {count(line.parts.length, 'part')}
                </Fold>
              ) : (
                <Faint>{line.code} · from the shelf</Faint>
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
        <td className="num">{format.money(line.price)}</td>
        <td className="num">{format.money(line.worth)}</td>
        <td>
          <LineWhen order={order} line={line} />
        </td>
      </tr>
      {open &&
        line.parts.map((part) => (
          <tr key={part.id} data-quiet>
            <td style={{ paddingLeft: 48 }}>
              <Cell>
                <Tile code={part.item.code} size={22} />
                <span>
                  {part.item.name}
                  {part.instead && <Faint> ⇄ for {part.instead}</Faint>}
                </span>
              </Cell>
            </td>
            <td className="num">
              {format.quantity(part.required, part.item.unit, part.item.decimals)}
              {!part.instead && part.usual !== part.required && <Faint> was {format.number(part.usual)}</Faint>}
            </td>
            <td className="num" colSpan={2}>
              <Faint>in the kit</Faint>
            </td>
            <td>{part.wholeOn === null && order.standing !== 'open' ? '' : whenThere(part.wholeOn, format)}</td>
          </tr>
        ))}
    </Fragment>
  );
}

function LineWhen({ order, line }: { order: Order; line: OrderLine }) {
  const format = useFormat();
  const left = readForText(line.open);
  if (left === 0n) return <Faint>{readForText(line.dropped) > 0n ? 'given up' : 'shipped'}</Faint>;
  if (order.standing === 'quote' || order.standing === 'cancelled') return <Faint>–</Faint>;
  if (line.wholeOn === '') return <b>now</b>;
  const some = readForText(line.canShip) > 0n ? `${format.number(line.canShip)} now, ` : '';
  return line.wholeOn === null ? (
    <Late>
      {some || 'no day yet'}
      {some && 'no day yet for the rest'}
    </Late>
  ) : (
    <span>
      {some}
      {some && 'the rest '}
      {format.day(line.wholeOn)}
    </span>
  );
}

/** Which parts the order waits for, and until when. */
function WaitsFor({ order }: { order: Order }) {
  const format = useFormat();
  const waiting = order.lines.flatMap((line) =>
    line.parts.filter((part) => readForText(part.open) > readForText(part.ready)),
  );
  if (waiting.length === 0) return null;
  return (
    <>
      <h2 style={{ marginTop: 18 }}>It waits for</h2>
      {waiting.map((part) => (
        <KeyValue key={part.id}>
          <Link to={`/stock/items/${part.item.id}`}>
            {format.quantity(
              formatDecimal(readForText(part.open) - readForText(part.ready)),
              part.item.unit,
              part.item.decimals,
            )}{' '}
            {part.item.name}
          </Link>
          <b>{whenThere(part.wholeOn, format)}</b>
        </KeyValue>
      ))}
    </>
  );
}

function Brings({ order }: { order: Order }) {
  const format = useFormat();
  const isShipped = order.standing === 'shipped';
  const cost = isShipped ? order.cost : order.plannedCost;
  const [worth, spent] = [Number(order.worth), Number(cost)];
  return (
    <>
      <KeyValue>
        <span>Lines</span>
        <b>{format.money(order.worth)}</b>
      </KeyValue>
      <KeyValue>
        <span>{isShipped ? 'Cost that left' : 'Cost, as planned'}</span>
        <span>{format.money(cost)}</span>
      </KeyValue>
      {!isShipped && Number(order.cost) > 0 && (
        <KeyValue>
          <span>of which has left</span>
          <span>{format.money(order.cost)}</span>
        </KeyValue>
      )}
      <KeyValue>
        <b>Margin</b>
        <b>{worth > 0 ? `${format.number((((worth - spent) / worth) * 100).toFixed(1), 1)} %` : '–'}</b>
      </KeyValue>
    </>
  );
}

/** Cancels, or gives up what is open, with the reason that stays with the order. */
function EndForm({ order, onDone }: { order: Order; onDone: () => void }) {
  const notify = useNotify();
  const [reason, setReason] = useState('');
  const cancel = useCommand('cancelOrder', ({ number }) => {
    notify({ text: `${number} is cancelled; what was promised to it is free again.` });
    onDone();
  });
  const drop = useCommand('dropOrder', ({ number }) => {
    notify({ text: `The rest of ${number} is given up.` });
    onDone();
  });
  const isPart = order.standing === 'partly-shipped';
  const command = isPart ? drop : cancel;
  const open = order.lines.filter((line) => readForText(line.open) > 0n).map((line) => line.id);
  const end = () => {
    const body = { version: order.version, reason: reason.trim() };
    if (isPart) drop.mutate({ params: { id: order.id }, body: { ...body, lineIds: open } });
    else cancel.mutate({ params: { id: order.id }, body });
  };
  return (
    <form
      style={{ marginTop: 14, maxWidth: 520 }}
      onSubmit={(event) => {
        event.preventDefault();
        if (reason.trim().length >= 3 && !command.isPending) end();
      }}
    >
      <Field
        label={isPart ? 'Why is the rest not wanted any more?' : 'Why is it cancelled?'}
        value={reason}
        onChange={setReason}
        autoFocus
      />
      <ProblemBox error={command.error} />
      <Row style={{ marginTop: 10 }}>
        <Button type="submit" look="danger" busy={command.isPending} isDisabled={reason.trim().length < 3}>
          {isPart ? 'Give up the rest' : 'Cancel the order'}
        </Button>
        <Button onPress={onDone}>Keep it</Button>
      </Row>
    </form>
  );
}
