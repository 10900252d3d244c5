import { type Numbered, type Order, OrderInput, type OrderLook } from '@yosegi/contract';
import { formatDecimal, readForText } from '@yosegi/core/number';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useCommand } from '../api/client.ts';
import { valueColumn } from '../lines/columns.tsx';
import { Beneath, LineTable } from '../lines/LineTable.tsx';
import { pricedColumns } from '../lines/pricedColumns.tsx';
import { LineItem, useLines } from '../lines/typedLines.tsx';
import { usePastedRows } from '../lines/usePastedRows.tsx';
import { useScansInto } from '../scan/wedge.ts';
import { Button } from '../ui/Button.tsx';
import { DayField } from '../ui/DayField.tsx';
import { Field } from '../ui/Field.tsx';
import { count, type Format, useFormat } from '../ui/format.ts';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { Sheet, SheetAndMargin } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { SaveProblem } from '../ui/Problem.tsx';
import { Part } from '../ui/space.ts';
import { Faint, Lead, Push, Row } from '../ui/text.ts';
import { useRecordForm } from '../ui/useRecordForm.ts';
import { useShortcut } from '../ui/useShortcut.ts';
import { Fold } from './Fold.ts';
import { KitRows } from './KitRows.tsx';
import { amountFault } from './kit.ts';
import { kitWords, Under, WaitsFor, WhenChip } from './LineAhead.tsx';
import { OrderAsks, OrderNotes } from './OrderHead.tsx';
import { OrderOutcome } from './OrderOutcome.tsx';
import { amountFault as freightFault, percentFault, percentIn, readSold, sumTyped } from './soldLine.ts';
import {
  type Head,
  headOf,
  inputOf,
  keptAs,
  type Line,
  linesOf,
  type OrderBody,
  type Typed,
  useLook,
} from './typedOrder.ts';

/** An order while it is typed: what is there, what is coming and the honest day follow every line, before it is saved. */
export function OrderForm({ order, customerId }: { order: Order | null; customerId: number | null }) {
  const go = useNavigate();
  const format = useFormat();
  const notify = useNotify();
  const keepAs = keptAs(order?.id ?? null, customerId);
  const done = ({ id }: Numbered, words: string) => {
    notify({ text: words });
    void go(`/orders/${id}`);
  };
  const kept = (after: Numbered) => form.saved(after);
  const create = useCommand(
    'createOrder',
    (after, { body: { confirm } }) =>
      done(
        after,
        confirm ? `${after.number} confirmed. Its stock and parts are promised.` : `${after.number} saved as a quote.`,
      ),
    kept,
  );
  const save = useCommand('saveOrder', (after) => done(after, `${after.number} is changed.`), kept);
  const command = order ? save : create;
  const form = useRecordForm<Order, Typed, OrderBody>({
    record: order,
    read: (record) => ({ ...headOf(record, customerId), lines: linesOf(record) }),
    bodyOf: inputOf,
    schema: OrderInput,
    keptAs: keepAs,
    name: order ? order.number : 'the new order',
    shownAt: SHOWN_AT,
    command,
  });
  const head = form.typed;
  const change: (part: Partial<Head>) => void = form.set;
  const { lines, adder, body, append, set, remove, toNext } = useLines<Line>(head.lines, (next) =>
    form.set({ lines: next(form.latest().lines) }),
  );
  const look = useLook(inputOf(head), order?.id ?? null, lines);
  const own = lines.map((_, index) => look?.lines[index]?.price ?? '0');
  const read = lines.map((line, index) => readSold(line, own[index] ?? '0'));
  const sum = sumTyped({ ...head, lines }, own, format.currencyDecimals);
  const isHeadFaulty = percentFault(head.orderDiscount) !== undefined || freightFault(head.freight) !== undefined;
  const faulty =
    read.some(({ quantityError, costError }) => quantityError || costError) ||
    isHeadFaulty ||
    lines.some(({ discount }) => percentFault(discount) !== undefined) ||
    lines.some(({ contents }) => contents?.some((own) => amountFault(own.amount, own.item)));
  const busy = command.isPending;
  const ready = lines.length > 0 && !faulty && !busy;
  const keep = (confirm: boolean) => {
    if (!ready) return;
    form.submit((input) => {
      if (order) save.mutate({ params: { id: order.id }, body: { ...input, version: form.version } });
      else create.mutate({ body: { ...input, confirm } });
    })();
  };
  useShortcut('s', () => keep(false), { ctrl: true });
  useShortcut('Enter', () => keep(true), { ctrl: true });
  /** The same thing scanned again counts one more. */
  const pick = (item: Line['item'], scanned: boolean, quantity = '1') => {
    const same = scanned ? lines.find((line) => line.item.id === item.id) : undefined;
    if (same) set(same.key, { quantity: formatDecimal(readOr(same.quantity) + 1_000_000n) });
    else append({ ...BLANK, item, quantity }, scanned);
  };
  const pasted = usePastedRows(keepAs, (item, { quantity, price }) =>
    append({ ...BLANK, item, quantity, price }, true),
  );
  useScansInto(adder);
  const [dated, setDated] = useState<ReadonlySet<number>>(new Set());
  const [opened, setOpened] = useState<ReadonlySet<number>>(new Set());
  const toggle = (key: number) =>
    setOpened((before) => new Set(before.has(key) ? [...before].filter((one) => one !== key) : [...before, key]));
  const isDated = ({ key, wantedOn }: Line) => dated.has(key) || wantedOn !== '';
  const errorAt = (index: number, name: string) => form.at(`lines.${index}.${name}`);
  return (
    <SheetAndMargin>
      <Sheet>
        <h1>{order ? `Change ${order.number}` : 'A new order'}</h1>
        <Lead>
          {lines.length === 0
            ? 'Choose the customer. Then enter each item with its quantity and price. Nothing is promised until you confirm the order.'
            : conclusion(look, head.wantedOn, format)}
        </Lead>
        <OrderAsks form={form} onCustomer={() => adder.current?.focus()} />
        <LineTable
          lines={lines}
          body={body}
          onRemove={({ key }) => remove(key)}
          columns={[
            {
              head: 'Item',
              cell: (line, index) => {
                const ahead = look?.lines[index];
                const isOpen = opened.has(line.key);
                return (
                  <>
                    <LineItem item={line.item} />
                    <Under>
                      {ahead?.kit && (
                        <Fold type="button" aria-expanded={isOpen} onClick={() => toggle(line.key)}>
                          {kitWords(ahead.kit, isOpen)}
                        </Fold>
                      )}
                      {!isDated(line) && (
                        <Fold type="button" onClick={() => setDated(new Set([...dated, line.key]))}>
                          another day…
                        </Fold>
                      )}
                      {ahead && !isOpen && <WaitsFor ahead={ahead} itemId={line.item.id} />}
                    </Under>
                  </>
                );
              },
            },
            ...pricedColumns<Line>({
              quantity: { head: 'Quantity', called: 'Quantity of', width: 88 },
              cost: { head: 'Unit price', name: 'price', of: ({ price }) => price },
              read,
              costHint: (index) => {
                const price = look?.lines[index]?.price;
                return price ? format.amount(price) : undefined;
              },
              onQuantity: ({ key }, quantity) => set(key, { quantity }),
              onCost: ({ key }, price) => {
                const off = percentIn(price);
                set(key, off === null ? { price } : { price: '', discount: off });
                // Nothing is left of it where it was typed, also where no price was before.
                return off === null ? price : '';
              },
              toNext,
              errorAt,
            }),
            {
              head: 'Discount',
              width: 84,
              numeric: true,
              onPhone: 'Discount',
              cell: (line, index) => (
                <Field
                  label={`Discount on ${line.item.name}`}
                  hideLabel
                  numeric
                  suffix="%"
                  // Few lines have one: Tab leads here, Enter on to the next line.
                  step={false}
                  value={line.discount}
                  onChange={(discount) => set(line.key, { discount })}
                  onKeyDown={toNext}
                  error={percentFault(line.discount) ?? errorAt(index, 'discount')}
                />
              ),
            },
            {
              head: 'Free',
              numeric: true,
              onPhone: 'Free',
              cell: (_, index) => {
                const ahead = look?.lines[index];
                if (!ahead) return '';
                return (
                  <>
                    {!ahead.kit && format.number(ahead.free)}
                    {Number(ahead.coming) > 0 && (
                      <div>
                        <Faint>+{format.number(ahead.coming)} coming</Faint>
                      </div>
                    )}
                  </>
                );
              },
            },
            {
              head: 'In stock on',
              onPhone: 'In stock on',
              cell: (line, index) => {
                const ahead = look?.lines[index];
                return ahead && <WhenChip completeOn={ahead.completeOn} wantedOn={line.wantedOn || head.wantedOn} />;
              },
            },
            valueColumn(
              sum.amounts.map((value) => ({ value })),
              'Amount',
            ),
          ]}
          beneath={(line, index, span) => {
            const kit = look?.lines[index]?.kit;
            return (
              <>
                {isDated(line) && (
                  <Beneath line={line} span={span}>
                    <Row $end>
                      <Part $width={170}>
                        <DayField
                          label={`Wanted date of ${line.item.name}`}
                          value={line.wantedOn}
                          onChange={(wantedOn) => set(line.key, { wantedOn })}
                          error={errorAt(index, 'wantedOn')}
                        />
                      </Part>
                      <Button
                        look="ghost"
                        onPress={() => {
                          set(line.key, { wantedOn: '' });
                          setDated(new Set([...dated].filter((key) => key !== line.key)));
                        }}
                      >
                        Use the order’s date
                      </Button>
                    </Row>
                  </Beneath>
                )}
                {opened.has(line.key) && kit && (
                  <KitRows
                    kit={kit}
                    typed={line.contents}
                    onChange={(contents) => set(line.key, { contents })}
                    error={command.error}
                    index={index}
                  />
                )}
              </>
            );
          }}
          adder={
            <ItemPicker
              label="Add an item"
              hideLabel
              placeholder="Enter or scan an item, or paste rows"
              inputRef={adder}
              counted
              onPick={(item, scan, quantity) => pick(item, scan !== undefined, quantity)}
              onPasteRows={pasted.onPasteRows}
            />
          }
        />
        {pasted.unplaced}
        <OrderNotes form={form} />
        <SaveProblem command={command} over={form} theirs={order ? standsNow(order, format) : ''} shownAt={SHOWN_AT} />
        <Row $wrap $top={16}>
          <Button look="go" isDisabled={!ready} busy={busy} onPress={() => keep(true)}>
            {order ? 'Save the changes' : 'Confirm the order'}
          </Button>
          {!order && (
            <Button isDisabled={!ready} busy={busy} onPress={() => keep(false)}>
              Save as quote
            </Button>
          )}
          <Push />
          {order && (
            <Button
              look="ghost"
              onPress={() => {
                form.takeTheirs();
                void go(`/orders/${order.id}`);
              }}
            >
              Cancel
            </Button>
          )}
        </Row>
      </Sheet>
      <OrderOutcome look={look} head={head} change={change} sum={sum} />
    </SheetAndMargin>
  );
}

const BLANK = { id: null, quantity: '1', price: '', discount: '', wantedOn: '', contents: null } as const;

/** What can be read of a quantity, to count one more. */
const readOr = (text: string): bigint => {
  try {
    return readForText(text);
  } catch {
    return 0n;
  }
};

const SHOWN_AT = [
  'customerId',
  'reference',
  'wantedOn',
  'jobTag',
  'deliverTo',
  'lines.*.quantity',
  'lines.*.price',
  'lines.*.discount',
  'orderDiscount',
  'freight',
  'lines.*.wantedOn',
].concat(['amount', 'itemId'].map((name) => `lines.*.contents.*.${name}`));

/** What somebody else made of it meanwhile. */
const standsNow = (order: Order, format: Format) =>
  [order.customer, count(order.lines.length, 'line'), order.wantedOn && `wanted ${format.day(order.wantedOn)}`]
    .filter(Boolean)
    .join(', ');

function conclusion(look: OrderLook | undefined, wantedOn: string, format: ReturnType<typeof useFormat>): string {
  if (!look) return 'Checking stock…';
  if (look.completeOn === '') return 'Everything is here. Ready to ship once confirmed.';
  if (look.completeOn === null) return 'No date yet for the full order.';
  const late = wantedOn !== '' && look.completeOn > wantedOn;
  return `Complete on ${format.day(look.completeOn)}${late ? ', later than it is wanted' : ''}.`;
}
