import type { Order } from '@yosegi/contract';
import { readForText } from '@yosegi/core/number';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { useCommand } from '../api/client.ts';
import { BoughtForIt } from '../buying/index.ts';
import { PegsOf } from '../coverage/index.ts';
import { jobPath } from '../jobs/index.ts';
import { CameBack } from '../returns/index.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { count, useFormat } from '../ui/format.ts';
import { later } from '../ui/later.tsx';
import { BigNumber, KeyValue, Margin, Sheet, SheetAndMargin, SheetHead } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { H2, Para, Part } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late, Lead, Lines, Muted, Push, Row } from '../ui/text.ts';
import { useShortcut } from '../ui/useShortcut.ts';
import { When } from '../ui/When.tsx';
import { BuildForPanel } from './BuildForPanel.tsx';
import { EndForm } from './EndForm.tsx';
import { Brings, Changes, WaitsFor } from './OrderFacts.tsx';
import { OrderLines } from './OrderLines.tsx';
import { Outlook } from './Outlook.tsx';
import { ParcelCard } from './ParcelCard.tsx';
import { SplitPanel } from './SplitPanel.tsx';
import { readyWords } from './serving.ts';
import { outlookWords, standingWords } from './words.ts';

const ShipPanel = later(() => import('./ShipPanel.tsx'), 'ShipPanel');

const isOver = ({ standing }: Order) => standing === 'shipped' || standing === 'cancelled';

const DEEDS = ['ship', 'build', 'split', 'end'] as const;
type Doing = (typeof DEEDS)[number] | null;

/** One order: when it is whole, where each line stands, and the next step. */
export function OrderSheet({ order }: { order: Order }) {
  const format = useFormat();
  const [search, setSearch] = useSearchParams();
  const doing = DEEDS.find((one) => search.has(one)) ?? null;
  const open = (what: Doing) =>
    setSearch((before) => {
      const next = new URLSearchParams(before);
      for (const one of DEEDS) next.delete(one);
      if (what) next.set(what, '1');
      return next;
    });
  return (
    <SheetAndMargin>
      <Sheet>
        <SheetHead>
          <Tile code={order.customer} size={52} />
          <Part $grow $min={260}>
            <h1>{order.customer}</h1>
            <Lead>
              {order.number}
              {order.reference && ` · their ${order.reference}`} · {standingWords[order.standing]} ·{' '}
              {order.wantedOn ? (
                <>
                  wanted <b>{format.day(order.wantedOn)}</b>
                </>
              ) : (
                'no date'
              )}{' '}
              · {order.delivery === 'whole' ? 'in one delivery' : 'each line when ready'}
              {order.jobTag && (
                <>
                  {' · booked under '}
                  <Link to={jobPath(order.jobTag)}>{order.jobTag}</Link>
                </>
              )}
            </Lead>
          </Part>
          <Row>
            <LinkButton look="ghost" to={`/orders/${order.id}/papers`}>
              Papers
            </LinkButton>
            {!isOver(order) && <LinkButton to={`/orders/${order.id}?change=1`}>Change</LinkButton>}
          </Row>
        </SheetHead>
        <Para $bottom={12}>
          {order.outlook === 'late' ? <Late>{outlookWords(order, format)}</Late> : outlookWords(order, format)}
        </Para>
        {order.benchNote && (
          <Para $bottom={12}>
            <Muted>Bench note: “{order.benchNote}”</Muted>
          </Para>
        )}
        <OrderLines order={order} />
        {doing === 'ship' && <ShipPanel order={order} onDone={() => open(null)} />}
        {doing === 'build' && <BuildForPanel orderIds={[order.id]} onDone={() => open(null)} />}
        {doing === 'split' && <SplitPanel order={order} onDone={() => open(null)} />}
        {doing === 'end' && <EndForm order={order} onDone={() => open(null)} />}
        {doing === null && <Actions order={order} open={open} />}
        {!isOver(order) && <PegsOf kind="order" id={order.id} />}
      </Sheet>
      <Facts order={order} />
    </SheetAndMargin>
  );
}

/** What can be done with it next, and what that would bring. */
function Actions({ order, open }: { order: Order; open: (what: Doing) => void }) {
  const format = useFormat();
  const notify = useNotify();
  const confirm = useCommand('confirmOrder', ({ number }) =>
    notify({ text: `${number} confirmed. Its stock and parts are promised.` }),
  );
  const isQuote = order.standing === 'quote';
  const parts = order.lines.flatMap((line) => line.parts);
  const ready = order.lines.filter((line) => readForText(line.canShip) > 0n).length;
  const toPick = parts.filter((part) => readForText(part.ready) > 0n).length;
  const toBuild = parts.some((part) => part.canBuild && readForText(part.open) > readForText(part.ready));
  const beingBuilt = parts.some((part) => part.builds.some(({ quantity, kept }) => quantity !== kept));
  const confirmNow = () => confirm.mutate({ params: { id: order.id }, body: { version: order.version } });
  useShortcut('Enter', () => isQuote && !confirm.isPending && confirmNow(), { ctrl: true });
  const go = useNavigate();
  const copy = useCommand('copyOrder', ({ id, number, unchanged }) => {
    const without = unchanged.length > 0 ? ` ${unchanged.join(', ')} matches the kit as it is now.` : '';
    notify({ text: `${number} saved as a repeat quote.${without}` });
    void go(`/orders/${id}`);
  });
  const again = (
    <Button look="ghost" busy={copy.isPending} onPress={() => copy.mutate({ params: { id: order.id }, body: {} })}>
      Repeat order
    </Button>
  );
  if (isOver(order))
    return (
      <Row $top={14}>
        {again}
        <ProblemBox error={copy.error} />
      </Row>
    );
  return (
    <>
      {!isQuote && order.completeOn !== '' && (
        <Para $top={16}>
          <Muted>{readyWords(order, format)}.</Muted>
        </Para>
      )}
      <Row $top={10} $wrap>
        {isQuote ? (
          <Button look="go" busy={confirm.isPending} onPress={confirmNow}>
            Confirm the order
          </Button>
        ) : (
          <>
            <Button
              look={ready > 0 ? 'go' : 'plain'}
              isDisabled={ready === 0 && !beingBuilt}
              onPress={() => open('ship')}
            >
              {ready > 0 ? `Ship · ${count(ready, 'line')} ready` : 'Ship while finishing'}
            </Button>
            {toPick > 0 && <LinkButton to={`/pick/orders/${order.id}`}>{`Pick · ${count(toPick, 'line')}`}</LinkButton>}
            {toBuild && <Button onPress={() => open('build')}>Build for this order…</Button>}
          </>
        )}
        <Push />
        {again}
        {order.lines.length > 0 && !isQuote && (
          <Button look="ghost" onPress={() => open('split')}>
            Split…
          </Button>
        )}
        <Button look="ghost" onPress={() => open('end')}>
          {order.standing === 'partly-shipped' ? 'Give up the rest…' : 'Cancel the order…'}
        </Button>
      </Row>
      <ProblemBox error={confirm.error ?? copy.error} />
    </>
  );
}

function Facts({ order }: { order: Order }) {
  const format = useFormat();
  return (
    <Margin aria-label="Order details">
      <h2>{isOver(order) ? 'Status' : 'Complete'}</h2>
      <BigNumber $small>
        {order.completeOn ? format.day(order.completeOn) : order.canLeave ? 'now' : <Outlook order={order} />}
      </BigNumber>
      {order.transportDays !== null && order.completeOn !== null && (
        <Faint>with {count(order.transportDays, 'day')} on the way</Faint>
      )}
      <WaitsFor order={order} />
      <BoughtForIt purchases={order.purchases} />
      <ParcelCard order={order} />
      <H2 $top={18}>Earnings</H2>
      <Brings order={order} />
      {order.documents.length > 0 && <H2 $top={18}>Shipments</H2>}
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
      {order.documents.some(({ undone }) => !undone) && <CameBack of={{ orderId: order.id }} called={order.number} />}
      <H2 $top={18}>For</H2>
      <KeyValue>
        <Link to={`/orders/customers/${order.customerId}`}>{order.customer}</Link>
        {Number(order.discount) > 0 && <b>{format.percent(order.discount)} off</b>}
      </KeyValue>
      {order.deliverTo && (
        <Lines $top={6} $bottom={6}>
          {order.deliverTo}
        </Lines>
      )}
      <KeyValue>
        <span>Entered by {order.madeBy}</span>
        <Faint>
          <When at={order.at} />
        </Faint>
      </KeyValue>
      <Changes order={order} />
      {order.remark && <Para $top={8}>{order.remark}</Para>}
      {order.reason && (
        <Para $top={8}>
          <Muted>Given up: “{order.reason}”</Muted>
        </Para>
      )}
    </Margin>
  );
}
