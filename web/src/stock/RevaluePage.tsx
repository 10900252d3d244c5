import type { Item } from '@yosegi/contract';
import { wordsOf } from '@yosegi/contract/problems';
import {
  add,
  formatDecimal,
  fromZero,
  type Money,
  parseMoney,
  type Quantity,
  readExact,
  worthOf,
} from '@yosegi/core/number';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { problemAt, useCommand } from '../api/client.ts';
import { LineItem, RemoveLine, useTypedLines } from '../lines/typedLines.tsx';
import { useCan } from '../shell/person.ts';
import { useShortcut } from '../shell/useShortcut.ts';
import { Button } from '../ui/Button.tsx';
import { MoneyCell } from '../ui/Cells.tsx';
import { Field } from '../ui/Field.tsx';
import { count, useFormat } from '../ui/format.ts';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { AnswerBody, AnswerPane, Foot, Grid } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { EmptyState } from '../ui/States.tsx';
import { Tick } from '../ui/Tick.tsx';
import { Lead, Push } from '../ui/text.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';

interface ValueLine {
  readonly key: number;
  readonly item: Item;
  readonly unitCost: string;
}

/** Makes what is there worth a new cost: the standard when it changes, or the market when it fell. */
export function RevaluePage() {
  const mayRevalue = useCan('value');
  const format = useFormat();
  const go = useNavigate();
  const notify = useNotify();
  const { lines, adder, body, append, set, remove, toNext, forget } = useTypedLines<ValueLine>('revalue');
  const [asStandard, setAsStandard] = useState(false);
  const screen = useTypedScreen('revalue.head');
  const [remark, setRemark] = useTyped(screen, 'remark', '');
  const read = lines.map(readValue);
  const difference = add(0 as Money, ...read.map((line) => line.difference));
  const faulty = read.some(({ error }) => error);
  const revalue = useCommand(
    'revalue',
    (document) => {
      notify({ text: `${document.number}: ${count(lines.length, 'item')} valued anew.`, documentId: document.id });
      void go(`/stock/documents/${document.id}`);
    },
    () => {
      forget();
      screen.forget();
    },
  );
  const post = () => {
    if (faulty || lines.length === 0 || revalue.isPending) return;
    revalue.mutate({
      body: {
        remark: remark.trim(),
        asStandard,
        lines: lines.map(({ item, unitCost }) => ({ itemId: item.id, unitCost: unitCost.trim() || '0' })),
      },
    });
  };
  useShortcut('Enter', post, { ctrl: true });
  if (!mayRevalue)
    return <EmptyState title="For the owner">Only an owner gives stock a new value. Ask one to.</EmptyState>;
  return (
    <AnswerPane style={{ height: '100%' }}>
      <AnswerBody>
        <div>
          <h1>
            {lines.length === 0
              ? 'What is worth something else now?'
              : `Stock becomes worth ${format.money(formatDecimal(Math.abs(difference) as Money))} ${difference < 0 ? 'less' : 'more'}.`}
          </h1>
          <Lead>Everything there is of an item becomes worth the new cost, serial by serial where it has them.</Lead>
        </div>
        <Grid>
          <thead>
            <tr>
              <th>Item</th>
              <th className="num">There is</th>
              <th className="num">Average</th>
              <th className="num">Standard</th>
              <th className="num" style={{ width: 150 }}>
                New cost of one
              </th>
              <th className="num">Value now</th>
              <th className="num">Difference</th>
              <th aria-label="Remove" />
            </tr>
          </thead>
          <tbody ref={body}>
            {lines.map((line, index) => (
              <tr key={line.key} data-line={line.key}>
                <td>
                  <LineItem item={line.item} />
                </td>
                <td className="num">{format.quantity(allOf(line.item), line.item.unit, line.item.decimals)}</td>
                <td className="num">{format.unitCost(line.item.averageCost)}</td>
                <td className="num">
                  {line.item.standardCost === null ? '–' : format.unitCost(line.item.standardCost)}
                </td>
                <td>
                  <MoneyCell
                    label={`New cost of one ${line.item.name}`}
                    value={line.unitCost}
                    onChange={(unitCost) => set(line.key, { unitCost })}
                    onKeyDown={toNext}
                    error={read[index]?.error ?? problemAt(revalue.error, `lines.${index}.unitCost`)}
                  />
                </td>
                <td className="num">{format.money(line.item.value)}</td>
                <td className="num">{format.money(formatDecimal(read[index]?.difference ?? 0))}</td>
                <td>
                  <RemoveLine item={line.item} onRemove={() => remove(line.key)} />
                </td>
              </tr>
            ))}
            <tr>
              <td colSpan={4}>
                <ItemPicker
                  label="Add an item"
                  hideLabel
                  autoFocus
                  inputRef={adder}
                  onPick={(item) => append({ item, unitCost: item.standardCost ?? item.averageCost })}
                />
              </td>
              <td colSpan={4} />
            </tr>
          </tbody>
        </Grid>
        <ProblemBox error={revalue.error} shownAt={['lines.*.unitCost']} />
      </AnswerBody>
      <Foot>
        <Tick isOn={asStandard} onChange={setAsStandard}>
          the new cost is their standard from now on
        </Tick>
        <div style={{ width: 240 }}>
          <Field label="Why" hideLabel placeholder="Why" value={remark} onChange={setRemark} />
        </div>
        <Push />
        <Button look="go" isDisabled={faulty || lines.length === 0} busy={revalue.isPending} onPress={post}>
          Revalue {count(lines.length, 'item')}
        </Button>
      </Foot>
    </AnswerPane>
  );
}

/** Shelves and benches together. */
const allOf = (item: Item) => formatDecimal(readExact(item.onHand) + readExact(item.onBench));

function readValue({ item, unitCost }: ValueLine): { difference: Money; error?: string } {
  try {
    const cost = fromZero(parseMoney(unitCost.trim() || '0'));
    return { difference: (worthOf(readExact(allOf(item)) as Quantity, cost) - readExact(item.value)) as Money };
  } catch (error) {
    return { difference: 0 as Money, error: wordsOf(error) ?? 'This cannot be read.' };
  }
}
