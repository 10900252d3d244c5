import type { Item, Store } from '@yosegi/contract';
import { add, formatDecimal, type Money } from '@yosegi/core/number';
import type { ElementString } from '@yosegi/core/scan';
import { useEffect } from 'react';
import { useSearchParams } from 'react-router';
import { problemAt, useCommand, useQuestion } from '../api/client.ts';
import { ComesIn } from '../lines/ComesIn.tsx';
import { binColumn, valueColumn } from '../lines/columns.tsx';
import { LineDocument } from '../lines/LineDocument.tsx';
import { pricedColumns } from '../lines/pricedColumns.tsx';
import { RECEIVED_FIELDS, readPricedLine } from '../lines/pricedLine.ts';
import { Remark } from '../lines/Remark.tsx';
import { NOTHING_TYPED, namedInOf, type TypedTrack, withScan } from '../lines/typed.ts';
import { LineItem, OnHand } from '../lines/typedLines.tsx';
import { useLineDocument } from '../lines/useLineDocument.ts';
import { usePastedRows } from '../lines/usePastedRows.tsx';
import { scannedBin } from '../scan/scans.ts';
import { useScansInto } from '../scan/wedge.ts';
import { Choice } from '../ui/Choice.tsx';
import { count, useFormat } from '../ui/format.ts';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { plainTyped } from '../ui/measuring.ts';
import { Answer } from '../ui/States.tsx';
import { shelfOptions } from '../ui/shelves.ts';
import { Part } from '../ui/space.ts';

interface Head {
  readonly kind: 'receipt' | 'opening';
  readonly remark: string;
}
interface ReceiptLine {
  readonly key: number;
  readonly item: Item;
  readonly binId: string;
  readonly quantity: string;
  readonly unitCost: string;
  readonly track: TypedTrack;
}

/** Goods in with what they cost, or the opening stock. */
export function ReceivePage() {
  // Bins are scanned and chosen at once, so they must be known first.
  const stores = useQuestion('stores', {});
  return <Answer of={stores}>{(known) => <Receive stores={known} />}</Answer>;
}

function Receive({ stores }: { stores: readonly Store[] }) {
  const format = useFormat();
  const [search, setSearch] = useSearchParams();
  const shelves = shelfOptions(stores);
  const typed = useLineDocument<ReceiptLine, Head>('receive', { head: { kind: 'receipt', remark: '' } });
  const { lines, adder, append, set, toNext, head, change } = typed;
  const asked = Number(search.get('item')) || 0;
  const first = useQuestion('item', { params: { id: asked } }, { enabled: asked > 0 }).data;
  const askedQuantity = search.get('quantity') ?? '1';

  /** A bin's label after the goods says where they go. */
  const takeBin = (text: string): boolean => {
    const bin = scannedBin(stores, text);
    const last = lines.at(-1);
    if (bin && last) set(last.key, { binId: String(bin.id) });
    return bin !== undefined;
  };
  const pasted = usePastedRows('receive', (item, { quantity, price }) =>
    addLine(item, quantity, undefined, price, true),
  );
  useScansInto(adder);
  const addLine = (item: Item, quantity: string, scan?: ElementString, cost?: string, stay = false) => {
    const isKnown = item.costFrom !== 'none' && item.costFrom !== 'at-least';
    const unitCost = cost || (item.latestCost ?? (isKnown ? item.averageCost : ''));
    const track = scan ? withScan(NOTHING_TYPED, scan) : NOTHING_TYPED;
    append({ item, binId: String(item.homeBinId ?? shelves[0]?.[0] ?? ''), quantity, unitCost, track }, stay);
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: the address asks once
  useEffect(() => {
    if (!first || shelves.length === 0) return;
    // Lines that were kept stay; what is asked for comes to them, once.
    if (!lines.some((line) => line.item.id === first.id)) addLine(first, askedQuantity);
    setSearch({}, { replace: true });
  }, [first, shelves.length]);

  const receive = useCommand(
    'receive',
    typed.posted((n) => `${count(n, 'line')} received`),
    typed.forget,
  );
  const read = lines.map((line) =>
    readPricedLine(line.item, { quantity: line.quantity, cost: line.unitCost }, { asksCost: true }),
  );
  const faulty = read.some((line) => line.quantityError || line.costError);
  const total = format.money(formatDecimal(add(0 as Money, ...read.map((line) => line.value))));
  const errorAt = (index: number, name: string) => problemAt(receive.error, `lines.${index}.${name}`);
  return (
    <LineDocument
      of={typed}
      title={lines.length === 0 ? 'What arrived?' : `${count(lines.length, 'line')} worth ${total} to receive.`}
      lead="Cost goes into the moving average. Enter or scan each item with its quantity and cost."
      beside={
        <Part $width={190}>
          <Choice
            label="Kind"
            value={head.kind}
            onChange={(kind) => change({ kind: kind as Head['kind'] })}
            options={[
              ['receipt', 'Receipt from a supplier'],
              ['opening', 'Opening stock'],
            ]}
          />
        </Part>
      }
      columns={[
        { head: 'Item', cell: ({ item }) => <LineItem item={item} more={<OnHand item={item} />} /> },
        ...pricedColumns<ReceiptLine>({
          quantity: { head: 'Quantity', called: 'Quantity of' },
          cost: { head: 'Unit cost', name: 'unitCost', of: ({ unitCost }) => unitCost },
          read,
          onQuantity: ({ key }, quantity) => set(key, { quantity }),
          onCost: ({ key }, unitCost) => set(key, { unitCost }),
          toNext,
          errorAt,
        }),
        binColumn({ head: 'Into bin', called: 'Bin for', shelves, set, errorAt }),
        valueColumn(read),
      ]}
      beneath={(line, index, span) => (
        <ComesIn line={line} span={span} item={line.item} typed={typed} errorAt={(name) => errorAt(index, name)} />
      )}
      adder={
        <ItemPicker
          label="Add an item"
          hideLabel
          placeholder="Enter or scan an item, or paste rows"
          inputRef={adder}
          autoFocus={asked === 0}
          counted
          onPick={(item, scan, quantity = '1') => addLine(item, quantity, scan)}
          onPasteRows={pasted.onPasteRows}
          onText={takeBin}
        />
      }
      more={pasted.unplaced}
      command={receive}
      input={
        faulty || lines.length === 0
          ? null
          : () => ({
              body: {
                ...head,
                lines: lines.map((line) => ({
                  itemId: line.item.id,
                  binId: Number(line.binId),
                  quantity: plainTyped(line.quantity, line.item),
                  unitCost: line.unitCost.trim(),
                  ...namedInOf(line.item, line.track),
                })),
              },
            })
      }
      action={`Receive ${count(lines.length, 'line')}`}
      shownAt={RECEIVED_FIELDS}
      foot={
        <Remark label="Remark, delivery note" value={head.remark} onChange={(remark) => change({ remark })}>
          <b>{total}</b> into stock; it can be undone.
        </Remark>
      }
    />
  );
}
