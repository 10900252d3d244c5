import { type Item, type Numbered, type PurchaseOrder, PurchaseOrderInput, type SentHow } from '@yosegi/contract';
import { ApiProblem } from '@yosegi/contract/client';
import { packUp } from '@yosegi/core/buying';
import { add, formatDecimal, type Money, parseDecimal, type Quantity } from '@yosegi/core/number';
import { useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { problemOf, useCommand, useQuestion } from '../api/client.ts';
import { valueColumn } from '../lines/columns.tsx';
import { LineTable } from '../lines/LineTable.tsx';
import { pricedColumns } from '../lines/pricedColumns.tsx';
import { readPricedLine } from '../lines/pricedLine.ts';
import { LineItem, useLines } from '../lines/typedLines.tsx';
import { usePastedRows } from '../lines/usePastedRows.tsx';
import { Asked, AskFirst } from '../ui/AskFirst.tsx';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { DayField } from '../ui/DayField.tsx';
import { Field } from '../ui/Field.tsx';
import { count, shortly, useFormat } from '../ui/format.ts';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { BigNumber, Margin, Sheet, SheetAndMargin } from '../ui/layout.ts';
import { plainTyped } from '../ui/measuring.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox, SaveProblem } from '../ui/Problem.tsx';
import { Para, Part } from '../ui/space.ts';
import { Lead, Push, Row } from '../ui/text.ts';
import { useRecordForm } from '../ui/useRecordForm.ts';
import { useShortcut } from '../ui/useShortcut.ts';
import { BoughtFor } from './BoughtFor.tsx';
import { OfferWords, SupplierFacts } from './DraftFacts.tsx';
import type { DraftLine, Offers } from './draftLine.ts';
import { openFile } from './files.ts';
import { Preview } from './Preview.tsx';

/** An order while it is written: who from, what, for how much, by when; then sent in one of four ways. */
export function DraftOrder({ order, supplierId }: { order: PurchaseOrder | null; supplierId: number | null }) {
  const format = useFormat();
  const go = useNavigate();
  const notify = useNotify();
  const suppliers = useQuestion('suppliers', {}).data ?? [];
  const keepAs = order ? `order.${order.id}` : `order.new.${supplierId ?? ''}`;
  const [how, setHow] = useState<SentHow>('mailbox');
  const [sending, setSending] = useState(false);
  const [isLooking, setLooking] = useState(false);
  const done = (after: Numbered, send: SentHow | null | undefined) => {
    if (!send) return notify({ text: `${after.number} saved as a draft.` });
    notify({ text: `${after.number} sent to ${supplier?.name ?? 'its supplier'}.` });
    openFile(after.id, send, go);
  };
  const create = useCommand(
    'createPurchases',
    ({ orders: [after] }, { body }) => {
      if (!after) return;
      void go(`/buying/orders/${after.id}`);
      done(after, body.send);
    },
    ({ orders: [after] }) => after && form.saved(after),
  );
  const save = useCommand(
    'savePurchase',
    (after, { body }) => done(after, body.send),
    (after) => form.saved(after),
  );
  const cancel = useCommand('cancelPurchase', (after) => {
    notify({ text: `${after.number} cancelled.` });
    void go('/buying/orders');
  });
  // A refusal of a new one names it among those that were sent.
  const error = useMemo(() => (order ? save.error : ofFirst(create.error)), [order, save.error, create.error]);
  const command = { error, reset: order ? save.reset : create.reset };
  const form = useRecordForm<PurchaseOrder, Typed, Body>({
    record: order,
    read: (record) => readOrder(record, supplierId),
    bodyOf,
    schema: PurchaseOrderInput,
    keptAs: keepAs,
    name: order ? order.number : 'the new order',
    shownAt: SHOWN,
    command,
  });
  const { supplierId: from, wantedOn, remark } = form.typed;
  const { lines, adder, body, append, set, remove, toNext } = useLines<DraftLine>(form.typed.lines, (next) =>
    form.set({ lines: next(form.latest().lines) }),
  );
  const chosen = Number(from) || 0;
  const supplier = useQuestion('supplier', { params: { id: chosen } }, { enabled: chosen > 0 }).data;
  const offers = supplier?.offers ?? [];
  const read = lines.map((line) => readPricedLine(line.item, { quantity: line.quantity, cost: line.price }));
  const total = add(0 as Money, ...read.map(({ value }) => value));
  const faulty = read.some(({ quantityError, costError }) => quantityError || costError);
  const busy = create.isPending || save.isPending;
  const ready = !faulty && !busy;
  const keep = (andSend: boolean) => {
    if (!ready) return;
    setSending(andSend);
    const send = andSend ? how : null;
    form.submit((input) => {
      if (order) save.mutate({ params: { id: order.id }, body: { ...input, version: form.version, send } });
      else create.mutate({ body: { orders: [input], send } });
    })();
  };
  useShortcut('s', () => keep(false), { ctrl: true });
  /** It is seen before it leaves; who it goes to is asked for first. */
  const look = () => (supplier && ready && lines.length > 0 ? setLooking(true) : keep(true));
  useShortcut('Enter', () => lines.length > 0 && look(), { ctrl: true });
  const addItem = (item: Item, quantity?: string, price?: string, stay = false) => {
    const start = startOf(item, offers);
    const typed = { ...(quantity ? { quantity } : {}), ...(price ? { price } : {}) };
    append({ item, ...start, ...typed, proposed: start.price, wantedOn: '', needs: [], orders: [] }, stay);
  };
  const pasted = usePastedRows(keepAs, (item, { quantity, price }) => addItem(item, quantity, price, true));
  // Prices of another supplier: what was proposed follows, what was typed stays.
  const [priced, setPriced] = useState(chosen);
  // biome-ignore lint/correctness/useExhaustiveDependencies: only another supplier's offers matter
  useEffect(() => {
    if (!supplier || priced === supplier.id) return;
    setPriced(supplier.id);
    for (const line of lines) {
      const offer = offers.find((one) => one.itemId === line.item.id);
      if (offer && line.price === line.proposed) set(line.key, { price: offer.price, proposed: offer.price });
    }
  }, [supplier]);
  return (
    <SheetAndMargin>
      <Sheet>
        <Row $end $bottom={10} $wrap>
          <div>
            <h1>{order ? `${order.number} · draft` : 'A new order'}</h1>
            <Lead>
              {lines.length === 0
                ? 'Choose the supplier. Then enter each item with its quantity and price.'
                : `${count(lines.length, 'line')}, ${format.money(formatDecimal(total))}. Nothing is on order until it is sent.`}
            </Lead>
          </div>
        </Row>
        <Row $gap={10} $wrap $end $bottom={10}>
          <Part $width={230}>
            <Choice
              label="From"
              value={from}
              onChange={(next) => form.set({ supplierId: next })}
              options={[
                ['', 'Choose a supplier…'],
                ...suppliers.map((one): [string, string] => [String(one.id), one.name]),
              ]}
              error={form.at('supplierId')}
            />
          </Part>
          <Part $width={160}>
            <DayField
              label="Wanted on"
              value={wantedOn}
              onChange={(day) => form.set({ wantedOn: day })}
              error={form.at('wantedOn')}
            />
          </Part>
          <Part $grow $min={180}>
            <Field label="Note to the supplier" value={remark} onChange={(text) => form.set({ remark: text })} />
          </Part>
        </Row>
        <LineTable
          lines={lines}
          body={body}
          onRemove={({ key }) => remove(key)}
          columns={[
            {
              head: 'Item',
              cell: (line) => (
                <LineItem
                  item={line.item}
                  more={<OfferWords offer={offers.find((one) => one.itemId === line.item.id)} line={line} />}
                />
              ),
            },
            ...pricedColumns<DraftLine>({
              quantity: { head: 'Quantity', called: 'Quantity of', width: 130 },
              cost: { head: 'Unit price', name: 'price', of: ({ price }) => price },
              read,
              onQuantity: ({ key }, quantity) => set(key, { quantity }),
              onCost: ({ key }, price) => set(key, { price }),
              toNext,
              errorAt: (index, name) => form.at(`lines.${index}.${name}`),
            }),
            {
              head: 'Wanted on',
              width: 150,
              onPhone: 'Wanted on',
              cell: (line) => (
                <DayField
                  label={`Date ${line.item.name} is wanted`}
                  hideLabel
                  value={line.wantedOn}
                  onChange={(day) => set(line.key, { wantedOn: day })}
                />
              ),
            },
            valueColumn(read, 'Amount'),
          ]}
          adder={
            <ItemPicker
              label="Add an item"
              hideLabel
              placeholder="Enter an item, or paste rows"
              inputRef={adder}
              canAdd
              counted
              onPick={(item, _, quantity) => addItem(item, quantity)}
              onPasteRows={pasted.onPasteRows}
            />
          }
        />
        {pasted.unplaced}
        <SaveProblem
          command={command}
          over={form}
          theirs={order ? `${order.supplier}, ${count(order.lines.length, 'line')}, ${format.money(order.worth)}` : ''}
          shownAt={SHOWN}
        />
        <ProblemBox error={cancel.error} />
        {isLooking && supplier && (
          <Asked
            title={`Send this to ${supplier.name}?`}
            action={`Send to ${shortly(supplier.name)}`}
            keep="Cancel"
            isPreview
            onDo={() => keep(true)}
            onClose={() => setLooking(false)}
          >
            <Preview
              lines={lines}
              amounts={read.map(({ value }) => value)}
              wantedOn={wantedOn}
              remark={remark}
              mailedTo={how === 'mailbox' ? supplier.email : null}
            />
          </Asked>
        )}
        <Row $wrap $top={16} $end>
          <Part $width={190}>
            <Choice
              label="Sending method"
              value={how}
              onChange={(next) => setHow(next as SentHow)}
              options={[
                ['mailbox', supplier?.email ? 'By mail' : 'By mail (no address yet)'],
                ['print', 'Printed'],
                ['csv', 'As a CSV file'],
                ['ubl', 'As a UBL order (XML)'],
              ]}
            />
          </Part>
          <Button look="go" isDisabled={!ready || lines.length === 0} busy={busy && sending} onPress={look}>
            {supplier ? `Send to ${shortly(supplier.name)}` : 'Send'}
          </Button>
          <Button isDisabled={!ready || !form.dirty} busy={busy && !sending} onPress={() => keep(false)}>
            {order ? 'Save the draft' : 'Save as draft'}
          </Button>
          <Push />
          {!order && lines.length > 0 && (
            <Button
              look="ghost"
              onPress={() => {
                for (const line of lines) remove(line.key);
              }}
            >
              Start over
            </Button>
          )}
          {order && (
            <AskFirst
              label="Cancel the order…"
              title={`Cancel the draft ${order.number}?`}
              action="Cancel the order"
              keep="Keep the draft"
              busy={cancel.isPending}
              onDo={() => cancel.mutate({ params: { id: order.id }, body: { version: form.version } })}
            >
              <Para>No order was sent yet. This can’t be undone.</Para>
              <BoughtFor lines={lines} />
            </AskFirst>
          )}
        </Row>
      </Sheet>
      <Margin aria-label="Total">
        <h2>Total</h2>
        <BigNumber $small>{format.money(formatDecimal(total))}</BigNumber>
        <SupplierFacts supplier={supplier} />
        <BoughtFor lines={lines} />
      </Margin>
    </SheetAndMargin>
  );
}

interface Typed {
  readonly supplierId: string;
  readonly wantedOn: string;
  readonly remark: string;
  readonly lines: readonly DraftLine[];
}

const SHOWN = ['supplierId', 'wantedOn', 'lines.*.quantity', 'lines.*.price'];

const readOrder = (order: PurchaseOrder | null, supplierId: number | null): Typed => ({
  supplierId: String(order?.supplierId ?? supplierId ?? ''),
  wantedOn: order?.wantedOn ?? '',
  remark: order?.remark ?? '',
  lines: (order?.lines ?? []).map(fromOrder),
});

/** What is typed, as the wire takes it. */
const bodyOf = ({ supplierId, wantedOn, remark, lines }: Typed) => ({
  // What is not chosen is missing, and is asked for.
  supplierId: (Number(supplierId) || undefined) as number,
  wantedOn: wantedOn || null,
  remark: remark.trim(),
  lines: lines.map((line) => ({
    itemId: line.item.id,
    quantity: plainTyped(line.quantity, line.item),
    price: line.price.trim() || '0',
    wantedOn: line.wantedOn || null,
    needs: line.needs.map(({ buildId, quantity }) => ({ buildId, quantity })),
    orders: line.orders.map(({ orderId, quantity }) => ({ orderId, quantity })),
  })),
});
type Body = ReturnType<typeof bodyOf>;

/** What a refusal of several orders says of the first, at that order's own fields. */
function ofFirst(error: unknown): unknown {
  const problem = problemOf(error);
  if (!problem?.field?.startsWith('orders.0.')) return error;
  return new ApiProblem({ ...problem, field: problem.field.slice('orders.0.'.length) });
}

function fromOrder(line: PurchaseOrder['lines'][number]): DraftLine {
  const { itemId: id, code, name, unit, decimals, measures } = line;
  return {
    key: line.id,
    item: { id, code, name, unit, decimals, measures },
    quantity: line.quantity,
    price: line.price,
    proposed: line.price,
    wantedOn: line.wantedOn ?? '',
    needs: line.needs,
    orders: line.orders,
  };
}

function startOf(item: Item, offers: Offers): { quantity: string; price: string } {
  const offer = offers.find((one) => one.itemId === item.id);
  if (!offer) return { quantity: '1', price: item.latestCost ?? item.averageCost };
  const least = packUp(parseDecimal('1') as Quantity, {
    pack: parseDecimal(offer.pack) as Quantity,
    minimum: parseDecimal(offer.minimum) as Quantity,
  });
  return { quantity: formatDecimal(least), price: offer.price };
}
