import { type api, despatchPath, responsePath, type ShopOrder } from '@yosegi/contract';
import type { Output } from '@yosegi/contract/client';
import { formatDecimal, readForText, sumForText } from '@yosegi/core/number';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { z } from 'zod';
import { problemAt, useCommand, useQuestion } from '../api/client.ts';
import { standingWords } from '../orders/index.ts';
import { Button } from '../ui/Button.tsx';
import { Chip } from '../ui/Chip.tsx';
import { DayField } from '../ui/DayField.tsx';
import { Field } from '../ui/Field.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Form } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer, EmptyState } from '../ui/States.tsx';
import { Para } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Lead, Muted, Push, Row } from '../ui/text.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';
import { When } from '../ui/When.tsx';
import { Told } from './Told.tsx';

const Page = styled.div`display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1fr); min-height: 0; height: 100%;
  @media (max-width: 900px) { grid-template-columns: minmax(0, 1fr); height: auto; }
`;
const Window = styled.section`padding: 18px 24px 40px; overflow: auto; background: var(--shop); border-right: 1px solid var(--line);`;
const Sent = styled.section`padding: 18px 24px 40px; overflow: auto; background: var(--sheet);`;
const Shelf = styled.ul`
  list-style: none; padding: 0; margin: 14px 0; display: grid; grid-template-columns: repeat(auto-fill, minmax(230px, 1fr)); gap: 10px;
  li { display: grid; grid-template-columns: 40px minmax(0, 1fr); gap: 10px; background: var(--sheet); border: 1px solid var(--line-soft); border-radius: 3px; padding: 10px; line-height: 1.25; }
`;
const Stepper = styled(
  Row,
)`margin-top: 6px; gap: 6px; output { min-width: 24px; text-align: center; font-weight: 600; }`;
const Card = styled.article`border: 1px solid var(--line); border-radius: 3px; padding: 12px 14px; margin-top: 12px;`;

type Product = Output<typeof api.shop>['products'][number];

/** Stands in for a web shop: its window with a basket, and what it has sent and was told. */
export function ShopPage() {
  const shop = useQuestion('shop', {});
  return (
    <Answer of={shop}>
      {({ products, orders }) => (
        <Page>
          <Window aria-label="Shop window">
            <ShopWindow products={products} />
          </Window>
          <Sent aria-label="Orders sent">
            <h2>Orders sent</h2>
            {orders.length === 0 ? (
              <EmptyState title="No messages yet">
                Fill the basket and send it. The order comes in as a UBL message, as from any other shop.
              </EmptyState>
            ) : (
              orders.map((order) => <SentOrder key={order.id} order={order} />)
            )}
          </Sent>
        </Page>
      )}
    </Answer>
  );
}

const Basket = z.map(z.number(), z.number());
const NOTHING: z.infer<typeof Basket> = new Map();
const Who = z.object({ buyer: z.string(), email: z.string(), address: z.string(), wantedOn: z.string() });
const NOBODY: z.infer<typeof Who> = { buyer: '', email: '', address: '', wantedOn: '' };

function ShopWindow({ products }: { products: readonly Product[] }) {
  const format = useFormat();
  const notify = useNotify();
  const screen = useTypedScreen('shop');
  const [basket, setBasket] = useTyped(screen, 'basket', NOTHING, Basket);
  const [who, setWho] = useTyped(screen, 'who', NOBODY, Who);
  const send = useCommand('shopSends', ({ id, number, standing }) => {
    setBasket(NOTHING);
    screen.forget();
    notify({
      text: `${number} came in${standing === 'quote' ? ' to be checked' : ' and is confirmed'}.`,
      to: [`/orders/${id}`, 'See it'],
    });
  });
  const inBasket = products.filter(({ itemId }) => (basket.get(itemId) ?? 0) > 0);
  const put = (itemId: number, by: number) =>
    setBasket((before) => new Map(before).set(itemId, Math.max(0, (before.get(itemId) ?? 0) + by)));
  const worth = sumForText(inBasket.map(({ itemId, price }) => readForText(price) * BigInt(basket.get(itemId) ?? 0)));
  const post = () =>
    send.mutate({
      body: {
        does: 'order',
        buyer: who.buyer.trim(),
        email: who.email.trim(),
        address: who.address.trim(),
        wantedOn: who.wantedOn || null,
        lines: inBasket.map(({ itemId }) => ({ itemId, quantity: String(basket.get(itemId)) })),
      },
    });
  const ready = who.buyer.trim() !== '' && inBasket.length > 0 && !send.isPending;
  return (
    <>
      <h1>Hive & Honey, the web shop</h1>
      <Lead>A stand-in for any shop: it sells what you make, and sends what its visitors order.</Lead>
      <Shelf aria-label="Products">
        {products.map((product) => (
          <li key={product.itemId}>
            <Tile code={product.code} size={40} />
            <span>
              <b>{product.name}</b>
              <br />
              <Muted>{format.money(product.price)}</Muted>
              <Stepper>
                <Button aria-label={`One less ${product.name}`} onPress={() => put(product.itemId, -1)}>
                  −
                </Button>
                <output aria-label={`${product.name} in the basket`}>{basket.get(product.itemId) ?? 0}</output>
                <Button aria-label={`One more ${product.name}`} onPress={() => put(product.itemId, 1)}>
                  +
                </Button>
              </Stepper>
            </span>
          </li>
        ))}
      </Shelf>
      <Form
        $columns={1}
        $max={460}
        onSubmit={(event) => {
          event.preventDefault();
          if (ready) post();
        }}
      >
        <h2>The visitor</h2>
        <Field
          label="Name"
          value={who.buyer}
          onChange={(buyer) => setWho({ ...who, buyer })}
          error={problemAt(send.error, 'buyer')}
        />
        <Row $end>
          <Field
            label="Email"
            value={who.email}
            onChange={(email) => setWho({ ...who, email })}
            error={problemAt(send.error, 'email')}
          />
          <DayField
            label="Wanted on"
            value={who.wantedOn}
            onChange={(wantedOn) => setWho({ ...who, wantedOn })}
            error={problemAt(send.error, 'wantedOn')}
          />
        </Row>
        <Field
          label="Address"
          value={who.address}
          onChange={(address) => setWho({ ...who, address })}
          error={problemAt(send.error, 'address')}
        />
        <ProblemBox error={send.error} shownAt={['buyer', 'email', 'wantedOn', 'address']} />
        <Row>
          <Button type="submit" look="go" busy={send.isPending} isDisabled={!ready}>
            Send the order
          </Button>
          <Muted>
            {count(inBasket.length, 'product')}, {format.money(formatDecimal(worth))}
          </Muted>
        </Row>
      </Form>
    </>
  );
}

const messageWords = { Order: 'ordered', OrderChange: 'changed', OrderCancellation: 'cancelled' } as const;

function SentOrder({ order }: { order: ShopOrder }) {
  const format = useFormat();
  const notify = useNotify();
  const [asked, setAsked] = useState(false);
  const send = useCommand('shopSends', ({ number, isNew }) =>
    notify({
      text: isNew ? `${number} received.` : `${number} was received before; nothing has changed.`,
    }),
  );
  const isOpen = order.standing !== 'cancelled' && order.standing !== 'shipped';
  const oneMore = () =>
    send.mutate({
      body: {
        does: 'change',
        orderId: order.id,
        wantedOn: order.wantedOn,
        lines: order.lines.map(({ itemId, quantity }, index) => ({
          itemId,
          quantity: index === 0 ? formatDecimal(readForText(quantity) + 1_000_000n) : quantity,
        })),
      },
    });
  return (
    <Card as="article" aria-label={`${order.theirs} of ${order.customer}`}>
      <Row>
        <b>{order.theirs}</b>
        <span>{order.customer}</span>
        <Push />
        <Chip $tone={order.standing === 'cancelled' ? 'held' : 'ok'}>{standingWords[order.standing]}</Chip>
        <Link to={`/orders/${order.id}`}>{order.number}</Link>
      </Row>
      <Para $top={6} $bottom={6}>
        {order.lines.map((line) => `${format.quantity(line.quantity, line.unit, 3)} ${line.name}`).join(', ')}
        {order.wantedOn && <Faint> · wanted {format.day(order.wantedOn)}</Faint>}
      </Para>
      <Faint>
        {order.messages.map(({ kind, at }, index) => (
          <span key={at + kind}>
            {index > 0 && ', '}
            {messageWords[kind]} <When at={at} />
          </span>
        ))}
      </Faint>
      <Row $wrap $top={8}>
        <Button onPress={() => setAsked(!asked)} aria-expanded={asked}>
          {asked ? 'Hide the answer' : 'Ask for the day'}
        </Button>
        {isOpen && (
          <>
            <Button busy={send.isPending} onPress={oneMore}>
              Ask for one more
            </Button>
            <Button
              busy={send.isPending}
              onPress={() => send.mutate({ body: { does: 'cancel', orderId: order.id, why: 'Cancelled in the shop' } })}
            >
              Cancel order
            </Button>
          </>
        )}
        <Button
          look="ghost"
          busy={send.isPending}
          onPress={() => send.mutate({ body: { does: 'again', orderId: order.id } })}
        >
          Send the last message again
        </Button>
      </Row>
      <ProblemBox error={send.error} />
      {asked && <Told path={responsePath(order.id)} kind="response" />}
      {order.shipments.map((shipment) => (
        <Told key={shipment.id} path={despatchPath(shipment.id)} kind="despatch" />
      ))}
    </Card>
  );
}
