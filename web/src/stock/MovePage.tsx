import type { Item, Store } from '@yosegi/contract';
import { entryFault } from '@yosegi/contract/problems';
import { formatDecimal, positive, SCALE } from '@yosegi/core/number';
import type { ElementString } from '@yosegi/core/scan';
import { useEffect, useState } from 'react';
import { useSearchParams } from 'react-router';
import { problemAt, useCommand, useQuestion } from '../api/client.ts';
import { LineDocument } from '../lines/LineDocument.tsx';
import { Beneath } from '../lines/LineTable.tsx';
import { Remark } from '../lines/Remark.tsx';
import { TrackedOut } from '../lines/TrackedOut.tsx';
import { NOTHING_TYPED, namedOf, type TypedTrack, withScan } from '../lines/typed.ts';
import { LineItem } from '../lines/typedLines.tsx';
import { useLineDocument } from '../lines/useLineDocument.ts';
import { usePastedRows } from '../lines/usePastedRows.tsx';
import { scannedBin } from '../scan/scans.ts';
import { useScansInto } from '../scan/wedge.ts';
import { QuantityCell } from '../ui/Cells.tsx';
import { Choice } from '../ui/Choice.tsx';
import { count, useFormat } from '../ui/format.ts';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { plainTyped, readTyped } from '../ui/measuring.ts';
import { Answer } from '../ui/States.tsx';
import { shelfOptions } from '../ui/shelves.ts';
import { Faint } from '../ui/text.ts';

/** Fields that say beside themselves what is wrong with them. */
const SHOWN = ['lines.*.quantity', 'lines.*.fromBinId', 'lines.*.toBinId', 'lines.*.lot', 'lines.*.serials'];

interface MoveLine {
  readonly key: number;
  readonly item: Item;
  /** Empty until chosen: then the fullest bin of the item. */
  readonly from: string;
  readonly to: string;
  readonly quantity: string;
  readonly track: TypedTrack;
  /** Scanned, and no bin since: the next one scanned is where it goes. */
  readonly isWaiting: boolean;
}

/** Goods from bin to bin, several at once; scan or type the item, Enter, how many, Enter, the next. */
export function MovePage() {
  // Bins are scanned and chosen at once, so they must be known first.
  const stores = useQuestion('stores', {});
  return <Answer of={stores}>{(known) => <Move stores={known} />}</Answer>;
}

function Move({ stores }: { stores: readonly Store[] }) {
  const shelves = shelfOptions(stores);
  const typed = useLineDocument<MoveLine, { remark: string }>('move', { head: { remark: '' } });
  const { lines, adder, append, set, toNext, head, change } = typed;
  const transfer = useCommand(
    'transfer',
    typed.posted((n) => `${count(n, 'line')} moved`),
    typed.forget,
  );
  const [scannedFrom, setScannedFrom] = useState('');
  const add = (item: Item, scan?: ElementString, quantity = '') => {
    const again = scan && lines.find((line) => line.item.id === item.id && line.isWaiting && isSameLot(line, scan));
    if (again) {
      set(again.key, { quantity: oneMore(again), track: withScan(again.track, scan) });
      return;
    }
    // What goes after the line above most likely goes to the same place.
    // What was scanned goes where the next bin says: nothing is taken for granted meanwhile.
    const to = scan ? '' : (lines.at(-1)?.to ?? '');
    const track = scan ? withScan(NOTHING_TYPED, scan) : NOTHING_TYPED;
    append(
      { item, from: scannedFrom, to, quantity: scan ? '1' : quantity, track, isWaiting: scan !== undefined },
      scan !== undefined,
    );
  };
  /** A bin: where what was scanned before it goes, or where what is scanned after it comes from. */
  const takeBin = (text: string): boolean => {
    const bin = scannedBin(stores, text);
    if (!bin) return false;
    const waiting = lines.filter(({ isWaiting }) => isWaiting);
    for (const { key } of waiting) set(key, { to: String(bin.id), isWaiting: false });
    setScannedFrom(waiting.length > 0 ? '' : String(bin.id));
    return true;
  };
  const pasted = usePastedRows('move', (item, { quantity }) =>
    append({ item, from: '', to: lines.at(-1)?.to ?? '', quantity, track: NOTHING_TYPED, isWaiting: false }, true),
  );
  useScansInto(adder);
  useMoveAsked(stores, (line) => append({ ...line, track: NOTHING_TYPED, isWaiting: false }));
  const faults = lines.map(faultOf);
  const ready =
    lines.length > 0 && faults.every((fault) => fault === undefined) && lines.every((line) => line.from && line.to);
  const errorAt = (index: number, name: string) => problemAt(transfer.error, `lines.${index}.${name}`);
  return (
    <LineDocument
      of={typed}
      title={lines.length === 0 ? 'What goes where?' : `${count(lines.length, 'line')} to move.`}
      lead={
        scannedFrom
          ? `Out of ${shelves.find(([id]) => id === scannedFrom)?.[1]}: now scan what goes, then the bin it goes to.`
          : 'The stock keeps its value. Scan a bin, what comes out, then the bin to put it in. Or enter an item, press Enter, then the quantity and Enter.'
      }
      columns={[
        { head: 'Item', cell: ({ item }) => <LineItem item={item} /> },
        {
          head: 'From',
          width: 230,
          onPhone: 'From',
          cell: (line, index) => (
            <FromBin line={line} onChange={(from) => set(line.key, { from })} error={errorAt(index, 'fromBinId')} />
          ),
        },
        {
          head: 'Quantity',
          width: 140,
          numeric: true,
          onPhone: 'Quantity',
          cell: (line, index) => (
            <QuantityCell
              label={`Quantity of ${line.item.name}`}
              value={line.quantity}
              unit={line.item.unit}
              onChange={(quantity) => set(line.key, { quantity })}
              error={(line.quantity === '' ? undefined : faults[index]) ?? errorAt(index, 'quantity')}
              onKeyDown={toNext}
            />
          ),
        },
        {
          head: 'To',
          width: 190,
          onPhone: 'To',
          cell: (line, index) => (
            <Choice
              label={`Where ${line.item.name} goes`}
              hideLabel
              value={line.to}
              onChange={(to) => set(line.key, { to, isWaiting: false })}
              options={[['', 'Scan or choose a bin…'], ...shelves]}
              error={errorAt(index, 'toBinId')}
            />
          ),
        },
      ]}
      beneath={(line, index, span) =>
        line.item.tracking !== 'none' && (
          <Beneath line={line} span={span}>
            <TrackedOut
              item={line.item}
              binId={line.from}
              typed={line.track}
              onChange={(track) => set(line.key, { track })}
              quantity={Number(plainTyped(line.quantity, line.item)) || 0}
              setCount={(n) => set(line.key, { quantity: String(n) })}
              errorAt={(name) => errorAt(index, name)}
              onKeyDown={toNext}
            />
          </Beneath>
        )
      }
      adder={
        <ItemPicker
          label="Add an item"
          hideLabel
          autoFocus
          placeholder="Enter or scan an item, or paste rows"
          inputRef={adder}
          counted
          onPick={add}
          onText={takeBin}
          onPasteRows={pasted.onPasteRows}
        />
      }
      more={pasted.unplaced}
      command={transfer}
      input={
        ready
          ? () => ({
              body: {
                ...head,
                lines: lines.map((line) => ({
                  itemId: line.item.id,
                  fromBinId: Number(line.from),
                  toBinId: Number(line.to),
                  quantity: plainTyped(line.quantity, line.item),
                  ...namedOf(line.item, line.track),
                })),
              },
            })
          : null
      }
      action={`Move ${count(lines.length, 'line')}`}
      shownAt={SHOWN}
      foot={
        <Remark value={head.remark} onChange={(remark) => change({ remark })}>
          Posted as one document, which you can undo.
        </Remark>
      }
    />
  );
}

/** What an address asks to be moved: some of an item from one store to another; it becomes a line once, and leaves the address. */
function useMoveAsked(
  stores: readonly Store[],
  add: (line: Pick<MoveLine, 'item' | 'from' | 'to' | 'quantity'>) => void,
): void {
  const [search, setSearch] = useSearchParams();
  const id = Number(search.get('item')) || 0;
  const item = useQuestion('item', { params: { id } }, { enabled: id > 0 }).data;
  const bins = useQuestion('itemBins', { params: { id } }, { enabled: id > 0 }).data;
  // biome-ignore lint/correctness/useExhaustiveDependencies: only the arrival of what is asked for matters
  useEffect(() => {
    if (!item || !bins) return;
    const nameOf = (name: string) => stores.find((store) => store.id === Number(search.get(name)));
    const [from] = bins
      .filter(({ store, kind }) => store === nameOf('from')?.name && kind === 'shelf')
      .sort((a, b) => Number(b.quantity) - Number(a.quantity));
    const shelves = nameOf('to')?.bins.filter(({ kind }) => kind === 'shelf') ?? [];
    const to = shelves.find((bin) => bin.id === item.homeBinId) ?? shelves[0];
    add({
      item,
      from: from ? String(from.binId) : '',
      to: to ? String(to.id) : '',
      quantity: search.get('quantity') ?? '',
    });
    setSearch({}, { replace: true });
  }, [item, bins]);
}

/** Whether a scan names no other lot than the line does. */
const isSameLot = ({ track }: MoveLine, { lot }: ElementString) => lot === undefined || track.lot === lot;

function oneMore({ quantity, item }: MoveLine): string {
  try {
    return formatDecimal(readTyped(quantity, item) + SCALE);
  } catch {
    return quantity;
  }
}

function faultOf({ quantity, item, from, to }: MoveLine): string | undefined {
  try {
    positive(readTyped(quantity, item));
    return from !== '' && from === to ? 'From and to are the same bin.' : undefined;
  } catch (error) {
    return entryFault(error);
  }
}

/** Bins that hold the item, with how much; the fullest is taken until another is chosen. */
function FromBin({
  line,
  onChange,
  error,
}: {
  line: MoveLine;
  onChange: (binId: string) => void;
  error: string | undefined;
}) {
  const format = useFormat();
  const { item, from } = line;
  const bins = useQuestion('itemBins', { params: { id: item.id } });
  const held = (bins.data ?? []).filter((bin) => bin.kind !== 'bench');
  const fullest = [...held].sort((a, b) => Number(b.quantity) - Number(a.quantity))[0];
  const usual = fullest ? String(fullest.binId) : '';
  // Chosen as soon as it is known, so that what is shown is what is sent.
  // biome-ignore lint/correctness/useExhaustiveDependencies: only the arrival of the bins matters
  useEffect(() => {
    if (from === '' && usual !== '') onChange(usual);
  }, [from, usual]);
  if (bins.data && held.length === 0) return <Faint>Not in any bin.</Faint>;
  return (
    <Choice
      label={`Where ${item.name} comes from`}
      hideLabel
      value={from}
      onChange={onChange}
      error={error}
      options={held.map((bin) => [
        String(bin.binId),
        `${bin.bin} · ${bin.store} · ${format.quantity(bin.quantity, item.unit, item.decimals)}`,
      ])}
    />
  );
}
