import type { Kit, Numbered, Order, OrderLook } from '@yosegi/contract';
import { add, formatDecimal, type Money, readForText } from '@yosegi/core/number';
import { Fragment, useState } from 'react';
import { useNavigate } from 'react-router';
import { problemAt, problemOf, useCommand, useQuestion } from '../api/client.ts';
import { PricedCells } from '../lines/PricedCells.tsx';
import { readPricedLine } from '../lines/pricedLine.ts';
import { LineItem, RemoveLine, useTypedLines } from '../lines/typedLines.tsx';
import { useShortcut } from '../shell/useShortcut.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Choice, Field } from '../ui/Field.tsx';
import { count, useFormat } from '../ui/format.ts';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { BigNumber, Grid, KeyValue, Margin, Sheet, SheetAndMargin } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { Faint, Late, Lead, Muted, Push, Row } from '../ui/text.ts';
import { today } from '../ui/today.ts';
import { useKept } from '../ui/useKept.ts';
import { Fold } from './Fold.ts';
import { KitRows } from './KitRows.tsx';
import { amountFault, changesIn } from './kit.ts';
import { type Head, headOf, inputOf, type Line, linesOf, useLook } from './typedOrder.ts';
import { whenThere } from './words.ts';

/** An order while it is typed: what is there, what is coming and the honest day follow every line, before it is saved. */
export function OrderForm({ order, customerId }: { order: Order | null; customerId: number | null }) {
  const go = useNavigate();
  const format = useFormat();
  const notify = useNotify();
  const customers = useQuestion('customers', { query: { limit: 500 } });
  const keepAs = order ? `sale.${order.id}.${order.version}` : `sale.new.${customerId ?? ''}`;
  const [head, setHead, forgetHead] = useKept<Head>(`${keepAs}.head`, () => headOf(order, customerId));
  const { lines, adder, body, append, set, remove, toNext, forget } = useTypedLines<Line>(keepAs, linesOf(order));
  const change = (part: Partial<Head>) => setHead((before) => ({ ...before, ...part }));
  const input = inputOf(head, lines);
  const look = useLook(input, order?.id ?? null, lines);
  const read = lines.map((line, index) =>
    readPricedLine(line.item, { quantity: line.quantity, cost: line.price || (look?.lines[index]?.price ?? '0') }),
  );
  const total = add(0 as Money, ...read.map(({ value }) => value));
  const faulty =
    read.some(({ quantityError, costError }) => quantityError || costError) ||
    lines.some(({ contents }) => contents?.some((own) => amountFault(own.amount, own.item)));
  const leave = () => {
    forget();
    forgetHead();
  };
  const done = ({ id }: Numbered, words: string) => {
    notify({ text: words });
    void go(`/orders/${id}`);
  };
  const create = useCommand(
    'createOrder',
    (after, { body: { confirm } }) =>
      done(
        after,
        confirm
          ? `${after.number} is confirmed; what it needs is promised to it.`
          : `${after.number} is kept as a quote.`,
      ),
    leave,
  );
  const save = useCommand('saveOrder', (after) => done(after, `${after.number} is changed.`), leave);
  const error = create.error ?? save.error;
  const busy = create.isPending || save.isPending;
  const ready = head.customer !== '' && lines.length > 0 && !faulty && !busy;
  const keep = (confirm: boolean) => {
    if (!ready) return;
    if (order) save.mutate({ params: { id: order.id }, body: { ...input, version: order.version } });
    else create.mutate({ body: { ...input, confirm } });
  };
  useShortcut('s', () => keep(false), { ctrl: true });
  useShortcut('Enter', () => keep(true), { ctrl: true });
  const [opened, setOpened] = useState<ReadonlySet<number>>(new Set());
  const toggle = (key: number) =>
    setOpened((before) => new Set(before.has(key) ? [...before].filter((one) => one !== key) : [...before, key]));
  const passed = head.wantedOn !== '' && head.wantedOn < today();
  return (
    <SheetAndMargin>
      <Sheet>
        <h1>{order ? `Change ${order.number}` : 'A new order'}</h1>
        <Lead>
          {lines.length === 0
            ? 'Who asks for it, then item, Enter, quantity, Enter, price, Enter. Nothing is promised until it is confirmed.'
            : conclusion(look, head.wantedOn, format)}
        </Lead>
        <Row $gap={10} $wrap style={{ alignItems: 'flex-end', margin: '10px 0' }}>
          <div style={{ width: 200 }}>
            <Choice
              label="For"
              value={head.customer}
              onChange={(customer) => change({ customer })}
              options={[
                ['', 'Choose a customer…'],
                ...(customers.data?.rows ?? []).map((one): [string, string] => [String(one.id), one.name]),
              ]}
              error={problemAt(error, 'customerId')}
            />
          </div>
          <div style={{ width: 125 }}>
            <Field
              label="Their reference"
              value={head.reference}
              onChange={(reference) => change({ reference })}
              error={problemAt(error, 'reference')}
            />
          </div>
          <div style={{ width: 145 }}>
            <Field
              label="Wanted on"
              type="date"
              value={head.wantedOn}
              onChange={(wantedOn) => change({ wantedOn })}
              error={problemAt(error, 'wantedOn')}
            />
          </div>
          <div style={{ width: 170 }}>
            <Choice
              label="How it is sent"
              value={head.delivery}
              onChange={(delivery) => change({ delivery: delivery as Head['delivery'] })}
              options={[
                ['whole', 'in one delivery'],
                ['as-ready', 'each line as it is ready'],
              ]}
            />
          </div>
        </Row>
        {passed && (
          <p style={{ marginBottom: 8 }}>
            <Late>That day has passed. It can be kept, but it will count as late.</Late>
          </p>
        )}
        <Grid style={{ width: '100%' }}>
          <thead>
            <tr>
              <th>Item</th>
              <th className="num" style={{ width: 120 }}>
                Quantity
              </th>
              <th className="num" style={{ width: 110 }}>
                Price of one
              </th>
              <th className="num">Free</th>
              <th className="num">Coming</th>
              <th>There</th>
              <th className="num">Amount</th>
              <th aria-label="Remove" />
            </tr>
          </thead>
          <tbody ref={body}>
            {lines.map((line, index) => {
              const own = read[index];
              const ahead = look?.lines[index];
              const isOpen = opened.has(line.key);
              return (
                <Fragment key={line.key}>
                  <tr data-line={line.key}>
                    <td>
                      <LineItem
                        item={line.item}
                        more={
                          ahead?.kit ? (
                            <Fold type="button" aria-expanded={isOpen} onClick={() => toggle(line.key)}>
                              {kitWords(ahead.kit, isOpen)}
                            </Fold>
                          ) : (
                            ahead && shortWords(ahead, line.item.id)
                          )
                        }
                      />
                      {ahead?.kit && shortWords(ahead, line.item.id)}
                    </td>
                    <PricedCells
                      item={line.item}
                      called={['Quantity of', 'Price of one']}
                      quantity={line.quantity}
                      cost={line.price}
                      costHint={ahead?.price ?? undefined}
                      onQuantity={(quantity) => set(line.key, { quantity })}
                      onCost={(price) => set(line.key, { price })}
                      onKeyDown={toNext}
                      quantityError={own?.quantityError ?? problemAt(error, `lines.${index}.quantity`)}
                      costError={own?.costError ?? problemAt(error, `lines.${index}.price`)}
                    />
                    <td className="num">{ahead && !ahead.kit ? format.number(ahead.free) : ''}</td>
                    <td className="num">{ahead && Number(ahead.coming) > 0 ? format.number(ahead.coming) : '–'}</td>
                    <td>{ahead && <WhenChip wholeOn={ahead.wholeOn} wantedOn={head.wantedOn} />}</td>
                    <td className="num">{format.money(formatDecimal(own?.value ?? 0))}</td>
                    <td>
                      <RemoveLine item={line.item} onRemove={() => remove(line.key)} />
                    </td>
                  </tr>
                  {isOpen && ahead?.kit && (
                    <KitRows
                      kit={ahead.kit}
                      typed={line.contents}
                      onChange={(contents) => set(line.key, { contents })}
                      error={error}
                      index={index}
                    />
                  )}
                </Fragment>
              );
            })}
            <tr>
              <td colSpan={3}>
                <ItemPicker
                  label="Add an item"
                  hideLabel
                  placeholder="Type an item: code, name or a piece of either"
                  inputRef={adder}
                  onPick={(item) => append({ item, id: null, quantity: '1', price: '', contents: null })}
                />
              </td>
              <td colSpan={5} />
            </tr>
          </tbody>
        </Grid>
        <Row $gap={10} $wrap style={{ marginTop: 12, alignItems: 'flex-end' }}>
          <div style={{ flex: 1, minWidth: 200 }}>
            <Field
              label="Note to the customer, printed"
              value={head.remark}
              onChange={(remark) => change({ remark })}
            />
          </div>
          <div style={{ flex: 1, minWidth: 200 }}>
            <Field
              label="Note for the bench and for packing"
              value={head.benchNote}
              onChange={(benchNote) => change({ benchNote })}
            />
          </div>
        </Row>
        <ProblemBox
          error={error}
          shownAt={SHOWN_AT}
          ways={
            problemOf(error)?.code === 'stale-save' &&
            order && <LinkButton to={`/orders/${order.id}`}>See how it stands now</LinkButton>
          }
        />
        <Row $wrap style={{ marginTop: 16 }}>
          <Button look="go" isDisabled={!ready} busy={busy} onPress={() => keep(true)}>
            {order ? 'Save the changes' : 'Confirm the order'}
          </Button>
          {!order && (
            <Button isDisabled={!ready} busy={busy} onPress={() => keep(false)}>
              Keep as a quote
            </Button>
          )}
          <Push />
          {order && (
            <LinkButton look="ghost" to={`/orders/${order.id}`}>
              Leave it as it was
            </LinkButton>
          )}
        </Row>
      </Sheet>
      <Margin aria-label="What it comes to">
        <h2>Whole on</h2>
        <BigNumber style={{ fontSize: 32 }}>{look ? whenThere(look.wholeOn, format) : '–'}</BigNumber>
        <h2 style={{ marginTop: 18 }}>It comes to</h2>
        <KeyValue>
          <span>{count(lines.length, 'line')}</span>
          <b>{format.money(formatDecimal(total))}</b>
        </KeyValue>
        <KeyValue>
          <span>Cost, as planned</span>
          <span>{format.money(formatDecimal(costOf(look)))}</span>
        </KeyValue>
        {look && look.delays.length > 0 && (
          <>
            <h2 style={{ marginTop: 18 }}>Whom it delays</h2>
            {look.delays.map((delay) => (
              <KeyValue key={`${delay.kind}${delay.id}`}>
                <Late>{delay.number}</Late>
                <span>
                  {whenThere(delay.before, format)} → {whenThere(delay.after, format)}
                </span>
              </KeyValue>
            ))}
            <p style={{ marginTop: 6 }}>
              <Muted>Set a later day to leave them as they are.</Muted>
            </p>
          </>
        )}
      </Margin>
    </SheetAndMargin>
  );
}

const SHOWN_AT = ['customerId', 'reference', 'wantedOn', 'lines.*.quantity', 'lines.*.price'].concat(
  ['amount', 'itemId'].map((name) => `lines.*.contents.*.${name}`),
);

function kitWords(kit: Kit, isOpen: boolean): string {
  const changes = changesIn(kit);
  const what = changes > 0 ? `${count(changes, 'change')} in it` : count(kit.parts.length, 'part');
  return `packed for it · ${what}${isOpen ? '' : kit.onOrder === 'locked' ? ', as they are' : ', may change'}`;
}

const costOf = (look: OrderLook | undefined) =>
  (look?.lines ?? []).reduce((sum, { plannedCost }) => sum + readForText(plannedCost), 0n);

function shortWords({ short }: OrderLook['lines'][number], itemId: number) {
  const parts = short.filter((part) => part.itemId !== itemId);
  if (parts.length === 0) return undefined;
  return <Late>waits for {parts.map((part) => `${part.quantity} ${part.name}`).join(', ')}</Late>;
}

function WhenChip({ wholeOn, wantedOn }: { wholeOn: string | null; wantedOn: string }) {
  const format = useFormat();
  const isLate = wholeOn === null || (wantedOn !== '' && wholeOn > wantedOn);
  const words = whenThere(wholeOn, format);
  if (isLate) return <Late>{words}</Late>;
  return wholeOn === '' ? <b>{words}</b> : <Faint>{words}</Faint>;
}

function conclusion(look: OrderLook | undefined, wantedOn: string, format: ReturnType<typeof useFormat>): string {
  if (!look) return 'Looking at what is there…';
  if (look.wholeOn === '') return 'Everything is here. It could leave now.';
  if (look.wholeOn === null) return 'Nobody can say yet when all of it will be here.';
  const late = wantedOn !== '' && look.wholeOn > wantedOn;
  return `Whole on ${format.day(look.wholeOn)}${late ? ', later than it is wanted' : ''}.`;
}
