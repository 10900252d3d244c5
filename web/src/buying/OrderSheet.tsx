import { orderFilePath, type PurchaseLine, type PurchaseOrder } from '@yosegi/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useCommand } from '../api/client.ts';
import { PegsOf } from '../coverage/index.ts';
import { JobTagField } from '../jobs/index.ts';
import { AskFirst } from '../ui/AskFirst.tsx';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Chip } from '../ui/Chip.tsx';
import { count, useFormat } from '../ui/format.ts';
import { BigNumber, Cell, Grid, KeyValue, Margin, Sheet, SheetAndMargin, SheetHead } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { H2, Para } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late, Lead, Muted, Push, Row } from '../ui/text.ts';
import { When } from '../ui/When.tsx';
import { BoughtFor } from './BoughtFor.tsx';
import { ConfirmForm } from './ConfirmForm.tsx';
import { learntWords, OrderChip } from './words.tsx';

const FileLink = styled.a`color: var(--indigo); font-weight: 600; font-size: 13.5px;`;

/** One order that was sent: what is promised, what has come, what is still open, and the next step. */
export function OrderSheet({ order }: { order: PurchaseOrder }) {
  const notify = useNotify();
  const [confirming, setConfirming] = useState(false);
  const cancel = useCommand('cancelPurchase', (after) => notify({ text: `${after.number} cancelled.` }));
  const close = useCommand('closePurchase', (after) => notify({ text: `${after.number} closed.` }));
  const open = order.lines.filter((line) => Number(line.open) > 0);
  const isOpen = open.length > 0;
  const came = order.lines.some((line) => Number(line.received) > 0);
  const params = { id: order.id };
  return (
    <SheetAndMargin>
      <Sheet>
        <SheetHead>
          <Tile code={order.supplierCode} size={52} />
          <div>
            <h1>
              {order.number} · {order.supplier}
            </h1>
            <Lead>
              <OrderChip order={order} /> {order.reference && <>their number {order.reference} · </>}
              {order.sentAt && (
                <>
                  sent <When at={order.sentAt} /> by {order.sentBy}
                </>
              )}
              {order.remark && <> · “{order.remark}”</>}
            </Lead>
          </div>
        </SheetHead>
        <Para $bottom={12}>
          <Conclusion order={order} open={open} />
        </Para>
        {isOpen && (
          <Row $bottom={12} $wrap>
            <LinkButton look={confirming ? 'plain' : 'go'} to={`/buying/orders/${order.id}/receive`}>
              {order.announced ? 'Receive the announced delivery' : 'Receive'}
            </LinkButton>
            <Button onPress={() => setConfirming(!confirming)}>Enter promise</Button>
            {order.sentHow === 'mailbox' && (
              <LinkButton look="ghost" to={`/devices/mailbox?order=${order.id}`}>
                Their mailbox
              </LinkButton>
            )}
          </Row>
        )}
        {confirming && isOpen && <ConfirmForm key={order.version} order={order} onDone={() => setConfirming(false)} />}
        <ProblemBox error={cancel.error ?? close.error} />
        <Grid $full>
          <thead>
            <tr>
              <th>Item</th>
              <th className="num">Ordered</th>
              <th className="num">Received</th>
              <th className="num">Open</th>
              <th>Expected</th>
              <th className="num">Price</th>
              <th className="num">Amount</th>
              <th aria-label="Give up the rest" />
            </tr>
          </thead>
          <tbody>
            {order.lines.map((line) => (
              <Line
                key={line.id}
                line={line}
                giving={close.isPending}
                onGiveUp={() => close.mutate({ params, body: { version: order.version, lineIds: [line.id] } })}
              />
            ))}
          </tbody>
        </Grid>
        <Row $top={16} $wrap $gap={16}>
          <LinkButton look="ghost" to={`/print/order/${order.id}`}>
            Print the order
          </LinkButton>
          <FileLink href={orderFilePath(order.id, 'csv')} download>
            CSV
          </FileLink>
          <FileLink href={orderFilePath(order.id, 'xml')} download>
            UBL order
          </FileLink>
          <Push />
          {isOpen && came && (
            <AskFirst
              label="Close order: the rest isn’t coming…"
              title={`Close ${order.number}?`}
              action="Close the order"
              keep="Keep the order"
              busy={close.isPending}
              onDo={() => close.mutate({ params, body: { version: order.version, lineIds: open.map(({ id }) => id) } })}
            >
              <NotComing lines={open} />
            </AskFirst>
          )}
          {isOpen && !came && (
            <AskFirst
              label="Cancel the order…"
              title={`Cancel ${order.number}?`}
              action="Cancel the order"
              keep="Keep the order"
              busy={cancel.isPending}
              onDo={() => cancel.mutate({ params, body: { version: order.version } })}
            >
              <NotComing lines={open} />
              <Para $top={10}>{order.supplier} isn’t told: call or write to them yourself.</Para>
            </AskFirst>
          )}
        </Row>
        {(order.state === 'sent' || order.state === 'confirmed') && <PegsOf kind="purchase" id={order.id} />}
      </Sheet>
      <OrderMargin order={order} />
    </SheetAndMargin>
  );
}

function Conclusion({ order, open }: { order: PurchaseOrder; open: readonly PurchaseLine[] }) {
  const format = useFormat();
  if (order.state === 'cancelled') return <>Cancelled. Nothing more will arrive.</>;
  if (open.length === 0) return <>Everything expected has arrived.</>;
  const names = open.length > 2 ? `${open.length} lines` : open.map((line) => line.name).join(' and ');
  if (order.announced) return <>A delivery is on its way.</>;
  if (order.late && order.expectedOn)
    return (
      <Late>
        {names} should have come on {format.day(order.expectedOn)}.
      </Late>
    );
  return order.expectedOn ? (
    <>
      {names} to come, the first on <b>{format.day(order.expectedOn)}</b>.
    </>
  ) : (
    <>{names} to come, no date yet.</>
  );
}

/** What will not come after all, and whom it was for. */
function NotComing({ lines }: { lines: readonly PurchaseLine[] }) {
  const format = useFormat();
  return (
    <>
      <Para>
        {lines.map((line) => `${format.quantity(line.open, line.unit, line.decimals)} ${line.name}`).join(', ')} won’t
        be counted as coming any more. What counts on it is short again. This can’t be undone.
      </Para>
      <BoughtFor lines={lines.map((line) => ({ ...line, item: line }))} />
    </>
  );
}

interface LineProps {
  readonly line: PurchaseLine;
  readonly giving: boolean;
  readonly onGiveUp: () => void;
}

function Line({ line, giving, onGiveUp }: LineProps) {
  const format = useFormat();
  const amount = (text: string) => format.quantity(text, line.unit, line.decimals);
  const isOpen = Number(line.open) > 0;
  const over = Number(line.received) > Number(line.quantity);
  const less = line.confirmedQuantity !== null && Number(line.confirmedQuantity) < Number(line.quantity);
  return (
    <tr {...(isOpen ? {} : { 'data-quiet': true })}>
      <td>
        <Cell>
          <Tile code={line.code} size={28} />
          <span>
            <Link to={`/stock/items/${line.itemId}`}>{line.name}</Link>
            <br />
            <Faint>
              {line.code}
              {line.supplierCode && ` · theirs ${line.supplierCode}`}
            </Faint>
          </span>
        </Cell>
      </td>
      <td className="num">{amount(line.quantity)}</td>
      <td className="num">
        {amount(line.received)}
        {over && (
          <>
            <br />
            <Faint>more than ordered</Faint>
          </>
        )}
      </td>
      <td className="num">
        {isOpen ? <b>{amount(line.open)}</b> : line.closed ? <Chip $tone="held">given up</Chip> : '–'}
      </td>
      <td>
        {isOpen &&
          (line.expectedOn === null ? (
            <Muted>unknown</Muted>
          ) : line.late ? (
            <Late>{format.day(line.expectedOn)}</Late>
          ) : (
            format.day(line.expectedOn)
          ))}
        {isOpen && (
          <>
            <br />
            <Faint>
              {less && `only ${amount(line.confirmedQuantity ?? '0')} confirmed · `}
              {line.confirmedOn ? 'promised' : line.wantedOn ? 'wanted' : 'by lead time'}
            </Faint>
          </>
        )}
      </td>
      <td className="num">{format.unitCost(line.price)}</td>
      <td className="num">{format.money(line.worth)}</td>
      <td>
        {isOpen && Number(line.received) > 0 && (
          <AskFirst
            label="Give up…"
            aria-label={`Give up the rest of ${line.name}`}
            look="ghost"
            title={`Give up the rest of ${line.name}?`}
            action="Give up the line"
            keep="Keep the line open"
            busy={giving}
            onDo={onGiveUp}
          >
            <NotComing lines={[line]} />
          </AskFirst>
        )}
      </td>
    </tr>
  );
}

const mailNames = {
  order: 'Order',
  'order-response': 'Promise',
  'despatch-advice': 'Delivery announced',
  change: 'Change',
  cancellation: 'Cancellation',
};

function OrderMargin({ order }: { order: PurchaseOrder }) {
  const format = useFormat();
  return (
    <Margin aria-label="Order details">
      <h2>Total</h2>
      <BigNumber $small>{format.money(order.worth)}</BigNumber>
      <JobTagField kind="purchase" id={order.id} jobTag={order.jobTag} />
      <BoughtFor lines={order.lines.map((line) => ({ ...line, item: line }))} />
      <H2 $top={18}>Receipts</H2>
      {order.receipts.length === 0 && <Muted>Nothing yet.</Muted>}
      {order.receipts.map((receipt) => (
        <KeyValue key={receipt.id}>
          <span>
            <Link to={`/stock/documents/${receipt.id}`}>{receipt.number}</Link>{' '}
            <Faint>
              {receipt.deliveryNote} {receipt.undone && '· undone'}
            </Faint>
          </span>
          <Faint>
            <When at={receipt.at} />
          </Faint>
        </KeyValue>
      ))}
      <H2 $top={18}>Lead times</H2>
      {order.lines.slice(0, 8).map((line) => (
        <KeyValue key={line.id}>
          <span>
            {line.code}
            <br />
            <Faint>stated {line.statedLeadDays === null ? '–' : count(line.statedLeadDays, 'day')}</Faint>
          </span>
          <Faint>
            {learntWords(line.learntLead)}
            {line.lead && (
              <>
                <br />
                expected in {count(line.lead.days, 'day')}, {line.lead.from === 'learnt' ? 'actual' : 'as stated'}
              </>
            )}
          </Faint>
        </KeyValue>
      ))}
      {order.mail.length > 0 && (
        <>
          <H2 $top={18}>Mail</H2>
          {order.mail.map((mail) => (
            <KeyValue key={mail.id}>
              <Link to={`/devices/mailbox?mail=${mail.id}`}>
                {mail.direction === 'out' ? '→' : '←'} {mailNames[mail.kind]}
              </Link>
              <Faint>
                <When at={mail.at} />
              </Faint>
            </KeyValue>
          ))}
        </>
      )}
    </Margin>
  );
}
