import type { PurchaseLine, PurchaseOrder } from '@yosegi/contract';
import { add, formatDecimal, type Money, readExact } from '@yosegi/core/number';
import type { ElementString } from '@yosegi/core/scan';
import { writeSerials } from '@yosegi/core/tracking';
import { type KeyboardEvent, useRef, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { problemAt, problemOf, useCommand, useQuestion } from '../api/client.ts';
import { ComesIn } from '../lines/ComesIn.tsx';
import { binColumn, valueColumn } from '../lines/columns.tsx';
import { LineDocument } from '../lines/LineDocument.tsx';
import { pricedColumns } from '../lines/pricedColumns.tsx';
import { RECEIVED_FIELDS, readPricedLine } from '../lines/pricedLine.ts';
import { countOf, NOTHING_TYPED, namedInOf, type TypedTrack, withScan } from '../lines/typed.ts';
import { LineItem } from '../lines/typedLines.tsx';
import { useLineDocument } from '../lines/useLineDocument.ts';
import { scannedBin, scanOfItem } from '../scan/scans.ts';
import { useScans } from '../scan/wedge.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Chip } from '../ui/Chip.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { count, useFormat } from '../ui/format.ts';
import { plainTyped } from '../ui/measuring.ts';
import { useNotify } from '../ui/Notice.ts';
import { Answer, EmptyState } from '../ui/States.tsx';
import { shelfOptions } from '../ui/shelves.ts';
import { Part } from '../ui/space.ts';
import { Tick } from '../ui/Tick.tsx';
import { Faint, Muted } from '../ui/text.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';

/** What comes in for an order: prefilled from what was announced, else from what is open. */
export function ReceiveOrderPage() {
  const { id } = useParams();
  const order = useQuestion('purchase', { params: { id: Number(id) } });
  const stores = useQuestion('stores', {});
  return (
    <Answer of={order}>
      {(data) => (
        <Answer of={stores}>
          {(places) =>
            data.lines.some((line) => Number(line.open) > 0) ? (
              <Receive key={data.id} order={data} stores={places} />
            ) : (
              <EmptyState
                title="Nothing left to receive"
                action={<LinkButton to={`/buying/orders/${data.id}`}>Back to {data.number}</LinkButton>}
              >
                Everything ordered has arrived or was given up. Use Receive for anything else that arrives.
              </EmptyState>
            )
          }
        </Answer>
      )}
    </Answer>
  );
}

type Stores = Parameters<typeof shelfOptions>[0];
interface Piece {
  readonly key: number;
  readonly item: PurchaseLine;
  readonly quantity: string;
  readonly unitCost: string;
  readonly binId: string;
  readonly track: TypedTrack;
  readonly closeRest: boolean;
}

function begin(order: PurchaseOrder, firstBin: string): Omit<Piece, 'key'>[] {
  const open = order.lines.filter((line) => Number(line.open) > 0);
  const announced = order.announcedDelivery;
  return open.flatMap((line): Omit<Piece, 'key'>[] => {
    const base = { item: line, unitCost: line.price, binId: String(line.homeBinId ?? firstBin), closeRest: false };
    if (!announced) return [{ ...base, quantity: line.tracking === 'serial' ? '' : line.open, track: NOTHING_TYPED }];
    const own = announced.lines.filter(({ lineId }) => lineId === line.id);
    if (own.length === 0) return [{ ...base, quantity: '', track: NOTHING_TYPED }];
    return own.map(({ quantity, lot, bestBefore, serials }) => ({
      ...base,
      quantity,
      track: { lot: lot ?? '', bestBefore: bestBefore ?? '', serials: writeSerials(serials) },
    }));
  });
}

function Receive({ order, stores }: { order: PurchaseOrder; stores: Stores }) {
  const format = useFormat();
  const go = useNavigate();
  const notify = useNotify();
  const shelves = shelfOptions(stores);
  const announced = order.announcedDelivery;
  const typed = useLineDocument<Piece, { note: string }>(`receive.${order.id}.${order.version}`, {
    head: { note: announced?.deliveryNote ?? '' },
    lines: begin(order, shelves[0]?.[0] ?? ''),
  });
  const { lines, adder, append, set, remove, toNext, head, change } = typed;
  const [acceptOver, setAcceptOver] = useState(false);
  const receive = useCommand(
    'receivePurchase',
    ({ id, number, openLines }) => {
      const rest = openLines > 0 ? ' The rest stays on back order.' : '';
      notify({ text: `${number}: ${order.number} received.${rest}`, documentId: id });
      void go(`/buying/orders/${order.id}`);
    },
    typed.forget,
  );
  const read = lines.map((line) =>
    readPricedLine(line.item, { quantity: line.quantity, cost: line.unitCost }, { mayBeEmpty: true, asksCost: true }),
  );
  const coming = lines.filter((_, index) => (read[index]?.quantity ?? 0) > 0);
  const sums = new Map<number, number>();
  for (const [index, line] of lines.entries())
    sums.set(line.item.id, (sums.get(line.item.id) ?? 0) + (read[index]?.quantity ?? 0));
  const overs = order.lines.flatMap((line) => {
    const over = (sums.get(line.id) ?? 0) - readExact(line.open);
    return over > 0 ? `${format.quantity(formatDecimal(over), line.unit, line.decimals)} of ${line.name}` : [];
  });
  const total = add(0 as Money, ...read.map(({ value }) => value));
  const faulty = read.some(({ quantityError, costError }) => quantityError || costError);
  const ready = !faulty && coming.length > 0 && (overs.length === 0 || acceptOver);
  const inputOf = () => ({
    params: { id: order.id },
    body: {
      deliveryNote: head.note.trim(),
      mailId: announced?.mailId ?? null,
      acceptOver,
      lines: coming.map((line) => ({
        lineId: line.item.id,
        binId: Number(line.binId),
        quantity: plainTyped(line.quantity, line.item),
        unitCost: line.unitCost.trim(),
        closeRest: line.closeRest,
        ...namedInOf(trackedItem(line.item), line.track),
      })),
    },
  });
  /** Where a line stands among those that were sent, so that a refusal finds its field. */
  const sentAt = (line: Piece) => coming.indexOf(line);

  const screen = useTypedScreen(`receive.${order.id}.scan`);
  const [scan, setScan] = useTyped(screen, 'scan', '');
  const [scanSays, setScanSays] = useState<string | undefined>();
  const last = useRef<number | null>(null);
  const takeScan = (text: string) => {
    setScan('');
    setScanSays(undefined);
    const bin = scannedBin(stores, text);
    const meant = lines.find(({ item }) => scanOfItem(item, text, item.supplierCode) !== null);
    const line = bin ? lines.find(({ key }) => key === last.current) : meant;
    if (!line) {
      setScanSays(bin ? 'Scan the goods first, then the bin.' : `No open line of this order matches ${text}.`);
      return;
    }
    last.current = line.key;
    if (bin) set(line.key, { binId: String(bin.id) });
    else set(line.key, scannedInto(line, scanOfItem(line.item, text, line.item.supplierCode) ?? {}));
  };
  useScans(takeScan);
  const errorAt = (index: number, name: string) => {
    const line = lines[index];
    const at = line ? sentAt(line) : -1;
    return at < 0 ? undefined : problemAt(receive.error, `lines.${at}.${name}`);
  };
  const isFirst = (line: Piece) => lines.find(({ item }) => item.id === line.item.id) === line;
  return (
    <LineDocument
      of={typed}
      title={
        coming.length === 0
          ? `What arrived of ${order.number}?`
          : `${count(coming.length, 'line')} of ${order.number} worth ${format.money(formatDecimal(total))} to receive.`
      }
      lead={
        <>
          {order.supplier}
          {announced
            ? `, delivery note ${announced.deliveryNote}: check it against what is there.`
            : ': enter what arrived, and leave the rest empty.'}
        </>
      }
      beside={
        <>
          <Part $width={220}>
            <Field
              label="Scan goods, then the bin"
              value={scan}
              inputRef={adder}
              autoFocus
              onChange={setScan}
              error={scanSays}
              onKeyDown={(event: KeyboardEvent) => {
                if (event.key !== 'Enter' || event.ctrlKey || scan.trim() === '') return;
                event.preventDefault();
                takeScan(scan.trim());
              }}
            />
          </Part>
          <Part $width={180}>
            <Field label="Delivery note" value={head.note} onChange={(note) => change({ note })} />
          </Part>
        </>
      }
      isFixed
      columns={[
        {
          head: 'Item',
          cell: (line) =>
            isFirst(line) ? (
              <LineItem item={line.item} more={line.item.supplierCode} />
            ) : (
              <Faint>also {line.item.name}</Faint>
            ),
        },
        {
          head: 'Open',
          numeric: true,
          onPhone: 'Open',
          cell: (line) => isFirst(line) && format.quantity(line.item.open, line.item.unit, line.item.decimals),
        },
        ...pricedColumns<Piece>({
          quantity: { head: 'Arrived', called: 'Arrived of' },
          cost: { head: 'Unit cost', name: 'unitCost', of: ({ unitCost }) => unitCost },
          read,
          onQuantity: ({ key }, quantity) => set(key, { quantity }),
          onCost: ({ key }, unitCost) => set(key, { unitCost }),
          toNext,
          errorAt,
        }),
        binColumn({ head: 'Into bin', called: 'Bin for', shelves, set, errorAt }),
        valueColumn(read),
        {
          head: 'The rest',
          width: 150,
          cell: (line, index) => {
            const missing = readExact(line.item.open) - (sums.get(line.item.id) ?? 0);
            if (!isFirst(line))
              return (
                <Button look="ghost" onPress={() => remove(line.key)}>
                  Remove
                </Button>
              );
            if (missing <= 0 || (read[index]?.quantity ?? 0) <= 0)
              return missing < 0 && <Chip $tone="coming">more than ordered</Chip>;
            return (
              <Choice
                label={`Rest of ${line.item.name}`}
                hideLabel
                value={line.closeRest ? 'close' : 'wait'}
                onChange={(next) => set(line.key, { closeRest: next === 'close' })}
                options={[
                  ['wait', `${format.number(formatDecimal(missing))} on back order`],
                  ['close', 'will not come'],
                ]}
              />
            );
          },
        },
      ]}
      beneath={(line, index, span) => (
        <ComesIn
          line={line}
          span={span}
          item={{ ...line.item, id: line.item.itemId }}
          typed={typed}
          errorAt={(name) => errorAt(index, name)}
        >
          {line.item.tracking === 'lot' && (
            <Button
              look="ghost"
              onPress={() => append({ ...line, quantity: '', track: NOTHING_TYPED, closeRest: false })}
            >
              Add another lot
            </Button>
          )}
        </ComesIn>
      )}
      more={
        overs.length > 0 && (
          <Tick isOn={acceptOver} onChange={setAcceptOver}>
            Receive {overs.join(' and ')} more than was ordered
          </Tick>
        )
      }
      command={receive}
      input={ready ? inputOf : null}
      action={`Receive ${count(coming.length, 'line')}`}
      shownAt={RECEIVED_FIELDS}
      ways={
        problemOf(receive.error)?.code === 'delivery-received' && (
          <LinkButton to={`/buying/orders/${order.id}`}>Open {order.number}</LinkButton>
        )
      }
      foot={
        <Muted>
          <b>{format.money(formatDecimal(total))}</b> into stock; it can be undone.
        </Muted>
      }
    />
  );
}

const trackedItem = (line: PurchaseLine) => ({ id: line.itemId, name: line.name, tracking: line.tracking });

/** A scan counts: each serial is one; a lot is named. */
function scannedInto(line: Piece, scan: ElementString): Partial<Piece> {
  const track = withScan(line.track, scan);
  if (line.item.tracking !== 'serial') return { track };
  return { track, quantity: String(Math.max(countOf(trackedItem(line.item), track), 1)) };
}
