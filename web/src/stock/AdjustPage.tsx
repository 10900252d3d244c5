import type { Item, Store } from '@yosegi/contract';
import { entryFault } from '@yosegi/contract/problems';
import { add, formatDecimal, type Money, parseMoney, type Quantity, readExact, worthOf } from '@yosegi/core/number';
import type { ElementString } from '@yosegi/core/scan';
import type { KeyboardEvent } from 'react';
import { problemAt, useCommand, useQuestion } from '../api/client.ts';
import { binColumn, valueColumn } from '../lines/columns.tsx';
import { InFields } from '../lines/InFields.tsx';
import { LineDocument } from '../lines/LineDocument.tsx';
import { Beneath } from '../lines/LineTable.tsx';
import { ReasonChoice } from '../lines/ReasonChoice.tsx';
import { Remark } from '../lines/Remark.tsx';
import { TrackedOut } from '../lines/TrackedOut.tsx';
import { NOTHING_TYPED, namedInOf, type TypedTrack, withScan } from '../lines/typed.ts';
import { LineItem, OnHand } from '../lines/typedLines.tsx';
import { useLineDocument } from '../lines/useLineDocument.ts';
import { usePastedRows } from '../lines/usePastedRows.tsx';
import { MoneyCell, QuantityCell } from '../ui/Cells.tsx';
import { Field } from '../ui/Field.tsx';
import { count, useFormat } from '../ui/format.ts';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { plainTyped, readTyped } from '../ui/measuring.ts';
import { Answer } from '../ui/States.tsx';
import { shelfOptions } from '../ui/shelves.ts';
import { Part } from '../ui/space.ts';

/** Fields that say beside themselves what is wrong with them. */
const SHOWN = [
  'lines.*.binId',
  'lines.*.change',
  'lines.*.unitCost',
  'lines.*.lot',
  'lines.*.serials',
  'lines.*.bestBefore',
];

interface Head {
  readonly reasonId: string;
  readonly remark: string;
  readonly jobTag: string;
}
interface AdjustLine {
  readonly key: number;
  readonly item: Item;
  readonly binId: string;
  readonly change: string;
  /** Empty takes the average. */
  readonly unitCost: string;
  readonly track: TypedTrack;
}

/** The books brought to what is really there: what was found or is gone, why, and what it comes to. */
export function AdjustPage() {
  // Bins are scanned and chosen at once, so they must be known first.
  const stores = useQuestion('stores', {});
  return <Answer of={stores}>{(known) => <Adjust stores={known} />}</Answer>;
}

function Adjust({ stores }: { stores: readonly Store[] }) {
  const format = useFormat();
  const shelves = shelfOptions(stores);
  // Nothing is chosen for a person: the first of a list would be posted by every hurried hand.
  const typed = useLineDocument<AdjustLine, Head>('adjust', { head: { reasonId: '', remark: '', jobTag: '' } });
  const { lines, adder, append, set, toNext, head, change } = typed;
  const adjust = useCommand(
    'adjust',
    typed.posted((n) => `${count(n, 'line')} adjusted`),
    typed.forget,
  );
  const addLine = (item: Item, scan?: ElementString, change = '', more: { unitCost?: string; stay?: boolean } = {}) => {
    const binId = String(item.homeBinId ?? shelves[0]?.[0] ?? '');
    const track = scan ? withScan(NOTHING_TYPED, scan) : NOTHING_TYPED;
    append({ item, binId, change, unitCost: more.unitCost ?? '', track }, more.stay);
  };
  const pasted = usePastedRows('adjust', (item, { quantity, price }) =>
    addLine(item, undefined, quantity, { unitCost: price, stay: true }),
  );
  const read = lines.map(readLine);
  const ready = lines.length > 0 && head.reasonId !== '' && read.every((line) => line.error === undefined);
  const inputOf = (override?: { reason: string }) => ({
    body: {
      reasonId: Number(head.reasonId),
      remark: head.remark,
      jobTag: head.jobTag ?? '',
      lines: lines.map((line) => ({
        itemId: line.item.id,
        binId: Number(line.binId),
        change: plainTyped(line.change, line.item),
        unitCost: line.unitCost.trim() || null,
        ...namedInOf(line.item, isGone(line) ? { ...line.track, bestBefore: '' } : line.track),
      })),
      ...(override ? { override } : {}),
    },
  });
  const total = add(0 as Money, ...read.map((line) => line.value));
  const errorAt = (index: number, name: string) => problemAt(adjust.error, `lines.${index}.${name}`);
  return (
    <LineDocument
      of={typed}
      title={
        lines.length === 0
          ? 'What needs correcting?'
          : `Stock is worth ${format.money(formatDecimal(Math.abs(total)))} ${total < 0 ? 'less' : 'more'} after this.`
      }
      lead="Enter 3 for what you found, or -3 for what is gone. Both use the item’s average cost, unless you enter another."
      columns={[
        { head: 'Item', cell: ({ item }) => <LineItem item={item} more={<OnHand item={item} />} /> },
        binColumn({ head: 'Bin', called: 'Bin of', shelves, set, errorAt }),
        {
          head: 'Found or gone',
          width: 150,
          numeric: true,
          onPhone: 'Found or gone',
          cell: (line, index) => (
            <QuantityCell
              label={`Found or gone of ${line.item.name}`}
              value={line.change}
              unit={line.item.unit}
              onChange={(next) => set(line.key, { change: next })}
              error={(line.change === '' ? undefined : read[index]?.error) ?? errorAt(index, 'change')}
              onKeyDown={toNext}
            />
          ),
        },
        {
          head: 'Unit value',
          width: 140,
          numeric: true,
          onPhone: 'Unit value',
          cell: (line, index) => (
            <MoneyCell
              label={`Unit value of ${line.item.name}`}
              placeholder={format.number(line.item.averageCost, format.currencyDecimals)}
              value={line.unitCost}
              isDisabled={isGone(line)}
              onKeyDown={toNext}
              onChange={(unitCost) => set(line.key, { unitCost })}
              error={errorAt(index, 'unitCost')}
            />
          ),
        },
        valueColumn(read),
      ]}
      beneath={(line, index, span) =>
        line.item.tracking !== 'none' && (
          <Beneath line={line} span={span}>
            <FoundOrGone
              line={line}
              set={(part) => set(line.key, part)}
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
          onPick={addLine}
          onPasteRows={pasted.onPasteRows}
        />
      }
      more={pasted.unplaced}
      command={adjust}
      input={ready ? inputOf : null}
      over={{ action: 'Adjust below zero', input: (reason) => inputOf({ reason }) }}
      action={`Adjust ${count(lines.length, 'line')}`}
      shownAt={SHOWN}
      foot={
        <>
          <ReasonChoice usedFor="adjustment" value={head.reasonId} onChange={(reasonId) => change({ reasonId })} />
          <Part $width={130}>
            <Field
              label="Job tag"
              hideLabel
              placeholder="Job tag"
              value={head.jobTag ?? ''}
              onChange={(jobTag) => change({ jobTag })}
            />
          </Part>
          <Remark value={head.remark} onChange={(remark) => change({ remark })}>
            Posted as one document, which you can undo.
          </Remark>
        </>
      }
    />
  );
}

const isGone = (line: AdjustLine) => line.change.trim().startsWith('-');

/** Lots and serials of a line: of what is gone the ones that stood there, of what is found any. */
function FoundOrGone({
  line,
  set,
  errorAt,
  onKeyDown,
}: {
  line: AdjustLine;
  set: (part: Partial<AdjustLine>) => void;
  errorAt: (name: 'lot' | 'bestBefore' | 'serials') => string | undefined;
  onKeyDown: (event: KeyboardEvent<HTMLElement>) => void;
}) {
  const shared = {
    item: line.item,
    typed: line.track,
    onChange: (track: TypedTrack) => set({ track }),
    quantity: Math.abs(Number(plainTyped(line.change, line.item)) || 0),
    setCount: (n: number) => set({ change: isGone(line) ? `-${n}` : String(n) }),
    errorAt,
    onKeyDown,
  };
  return isGone(line) ? <TrackedOut {...shared} binId={line.binId} /> : <InFields {...shared} mayReturn />;
}

/** What a line comes to at the average now; the server decides at the moment of posting. */
function readLine({ change, unitCost, item }: AdjustLine): { value: Money; error?: string } {
  try {
    const quantity = readTyped(change, item);
    if (quantity === 0) return { value: 0 as Money, error: 'Enter what is found or gone, like 3 or -2.' };
    const cost = quantity > 0 && unitCost.trim() ? parseMoney(unitCost) : (readExact(item.averageCost) as Money);
    const worth = worthOf(Math.abs(quantity) as Quantity, cost);
    return { value: (quantity < 0 ? -worth : worth) as Money };
  } catch (error) {
    return { value: 0 as Money, error: entryFault(error) };
  }
}
