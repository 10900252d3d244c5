import type { Item } from '@yosegi/contract';
import { entryFault } from '@yosegi/contract/problems';
import { revaluedBy } from '@yosegi/core/ledger';
import { add, formatDecimal, fromZero, type Money, parseMoney } from '@yosegi/core/number';
import { problemAt, useCommand } from '../api/client.ts';
import { LineDocument } from '../lines/LineDocument.tsx';
import type { LineColumn } from '../lines/LineTable.tsx';
import { Remark } from '../lines/Remark.tsx';
import { LineItem } from '../lines/typedLines.tsx';
import { useLineDocument } from '../lines/useLineDocument.ts';
import { MoneyCell } from '../ui/Cells.tsx';
import { ForOwner } from '../ui/ForOwner.tsx';
import { count, useFormat } from '../ui/format.ts';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { Tick } from '../ui/Tick.tsx';
import { ownOf } from './own.ts';

interface Head {
  readonly asStandard: boolean;
  readonly remark: string;
}
interface ValueLine {
  readonly key: number;
  readonly item: Item;
  readonly unitCost: string;
}

/** Makes what is there worth a new cost: the standard when it changes, or the market when it fell. */
export function RevaluePage() {
  return (
    <ForOwner right="value" to="revalue stock">
      <Revalue />
    </ForOwner>
  );
}

function Revalue() {
  const format = useFormat();
  const typed = useLineDocument<ValueLine, Head>('revalue', { head: { asStandard: false, remark: '' } });
  const { lines, adder, append, set, toNext, head, change } = typed;
  const read = lines.map(readValue);
  const difference = add(0 as Money, ...read.map((line) => line.difference));
  const faulty = read.some(({ error }) => error);
  const revalue = useCommand(
    'revalue',
    typed.posted((n) => `${count(n, 'item')} revalued`),
    typed.forget,
  );
  const figure = (head: string, cell: (item: Item, index: number) => string): LineColumn<ValueLine> => ({
    head,
    numeric: true,
    onPhone: head,
    cell: ({ item }, index) => cell(item, index),
  });
  return (
    <LineDocument
      of={typed}
      title={
        lines.length === 0
          ? 'What has a new value?'
          : `Stock will be worth ${format.money(formatDecimal(Math.abs(difference) as Money))} ${difference < 0 ? 'less' : 'more'}.`
      }
      lead="The new cost applies to all stock of the item, each serial number included. Returned goods keep their value until they are decided."
      columns={[
        { head: 'Item', cell: ({ item }) => <LineItem item={item} /> },
        figure('On hand', (item) => format.quantity(formatDecimal(ownOf(item).quantity), item.unit, item.decimals)),
        figure('Average', ({ averageCost }) => format.unitCost(averageCost)),
        figure('Standard', ({ standardCost }) => (standardCost === null ? '–' : format.unitCost(standardCost))),
        {
          head: 'New unit cost',
          width: 150,
          numeric: true,
          onPhone: 'New unit cost',
          cell: (line, index) => (
            <MoneyCell
              label={`New unit cost of ${line.item.name}`}
              value={line.unitCost}
              onChange={(unitCost) => set(line.key, { unitCost })}
              onKeyDown={toNext}
              error={read[index]?.error ?? problemAt(revalue.error, `lines.${index}.unitCost`)}
            />
          ),
        },
        figure('Value now', (item) => format.money(formatDecimal(ownOf(item).value))),
        figure('Difference', (_, index) => format.money(formatDecimal(read[index]?.difference ?? 0))),
      ]}
      adder={
        <ItemPicker
          label="Add an item"
          hideLabel
          autoFocus
          inputRef={adder}
          onPick={(item) => append({ item, unitCost: item.standardCost ?? item.averageCost })}
        />
      }
      command={revalue}
      input={
        faulty || lines.length === 0
          ? null
          : () => ({
              body: {
                remark: head.remark.trim(),
                asStandard: head.asStandard,
                lines: lines.map(({ item, unitCost }) => ({ itemId: item.id, unitCost: unitCost.trim() || '0' })),
              },
            })
      }
      action={`Revalue ${count(lines.length, 'item')}`}
      shownAt={['lines.*.unitCost']}
      foot={
        <Remark label="Reason" value={head.remark} onChange={(remark) => change({ remark })}>
          <Tick isOn={head.asStandard} onChange={(asStandard) => change({ asStandard })}>
            Make it the standard cost too
          </Tick>
        </Remark>
      }
    />
  );
}

function readValue({ item, unitCost }: ValueLine): { difference: Money; error?: string } {
  try {
    const cost = fromZero(parseMoney(unitCost.trim() || '0'));
    return { difference: revaluedBy(ownOf(item), cost) };
  } catch (error) {
    return { difference: 0 as Money, error: entryFault(error) };
  }
}
