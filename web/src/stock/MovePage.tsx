import type { Item, Store } from '@yosegi/contract';
import { wordsOf } from '@yosegi/contract/problems';
import { formatDecimal, positive, SCALE } from '@yosegi/core/number';
import type { ElementString } from '@yosegi/core/scan';
import { Fragment, useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { problemAt, problemOf, useCommand, useQuestion } from '../api/client.ts';
import { Shortages } from '../lines/Shortages.tsx';
import { TrackedOut } from '../lines/TrackedOut.tsx';
import { NOTHING_TYPED, namedOf, type TypedTrack, withScan } from '../lines/typed.ts';
import { LineItem, RemoveLine, useTypedLines } from '../lines/typedLines.tsx';
import { scannedBin } from '../scan/scans.ts';
import { useScansInto } from '../scan/wedge.ts';
import { useShortcut } from '../shell/useShortcut.ts';
import { Button } from '../ui/Button.tsx';
import { QuantityCell } from '../ui/Cells.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { count, useFormat } from '../ui/format.ts';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { AnswerBody, AnswerPane, Foot, LineGrid } from '../ui/layout.ts';
import { plainTyped, readTyped } from '../ui/measuring.ts';
import { useNotify } from '../ui/Notice.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer } from '../ui/States.tsx';
import { shelfOptions } from '../ui/shelves.ts';
import { Faint, Lead, Muted } from '../ui/text.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';

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
  const go = useNavigate();
  const notify = useNotify();
  const shelves = shelfOptions(stores);
  const { lines, adder, body, append, set, remove, toNext, forget } = useTypedLines<MoveLine>('move');
  const screen = useTypedScreen('move.head');
  const [remark, setRemark] = useTyped(screen, 'remark', '');
  const transfer = useCommand(
    'transfer',
    (document) => {
      notify({ text: `${document.number}: ${count(lines.length, 'line')} moved.`, documentId: document.id });
      void go(`/stock/documents/${document.id}`);
    },
    () => {
      forget();
      screen.forget();
    },
  );
  const [scannedFrom, setScannedFrom] = useState('');
  const add = (item: Item, scan?: ElementString) => {
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
      { item, from: scannedFrom, to, quantity: scan ? '1' : '', track, isWaiting: scan !== undefined },
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
  useScansInto(adder);
  const faults = lines.map(faultOf);
  const ready =
    lines.length > 0 && faults.every((fault) => fault === undefined) && lines.every((line) => line.from && line.to);
  const post = () => {
    if (!ready || transfer.isPending) return;
    transfer.mutate({
      body: {
        remark,
        lines: lines.map((line) => ({
          itemId: line.item.id,
          fromBinId: Number(line.from),
          toBinId: Number(line.to),
          quantity: plainTyped(line.quantity, line.item),
          ...namedOf(line.item, line.track),
        })),
      },
    });
  };
  useShortcut('Enter', post, { ctrl: true });
  const problem = problemOf(transfer.error);
  return (
    <AnswerPane style={{ height: '100%' }}>
      <AnswerBody>
        <div>
          <h1>{lines.length === 0 ? 'What goes where?' : `${count(lines.length, 'line')} to move.`}</h1>
          <Lead>
            {scannedFrom
              ? `Out of ${shelves.find(([id]) => id === scannedFrom)?.[1]}: now scan what goes, then the bin where it goes.`
              : 'Its worth goes with it. Scan a bin, what comes out of it, and the bin where it goes; or type item, Enter, how many, Enter.'}
          </Lead>
        </div>
        <LineGrid>
          <thead>
            <tr>
              <th>Item</th>
              <th style={{ width: 230 }}>From</th>
              <th className="num" style={{ width: 140 }}>
                How many
              </th>
              <th style={{ width: 190 }}>To</th>
              <th aria-label="Remove" style={{ width: 50 }} />
            </tr>
          </thead>
          <tbody ref={body}>
            {lines.map((line, index) => (
              <Fragment key={line.key}>
                <tr data-line={line.key}>
                  <td>
                    <LineItem item={line.item} />
                  </td>
                  <td data-label="From">
                    <FromBin
                      line={line}
                      onChange={(from) => set(line.key, { from })}
                      error={problemAt(transfer.error, `lines.${index}.fromBinId`)}
                    />
                  </td>
                  <td data-label="Quantity">
                    <QuantityCell
                      label={`How many ${line.item.name}`}
                      value={line.quantity}
                      unit={line.item.unit}
                      onChange={(quantity) => set(line.key, { quantity })}
                      error={
                        (line.quantity === '' ? undefined : faults[index]) ??
                        problemAt(transfer.error, `lines.${index}.quantity`)
                      }
                      onKeyDown={toNext}
                    />
                  </td>
                  <td data-label="To">
                    <Choice
                      label={`Where ${line.item.name} goes`}
                      hideLabel
                      value={line.to}
                      onChange={(to) => set(line.key, { to, isWaiting: false })}
                      options={[['', 'Scan or choose a bin…'], ...shelves]}
                      error={problemAt(transfer.error, `lines.${index}.toBinId`)}
                    />
                  </td>
                  <td data-end>
                    <RemoveLine item={line.item} onRemove={() => remove(line.key)} />
                  </td>
                </tr>
                {line.item.tracking !== 'none' && (
                  <tr data-line={line.key}>
                    <td colSpan={5}>
                      <TrackedOut
                        item={line.item}
                        binId={line.from}
                        typed={line.track}
                        onChange={(track) => set(line.key, { track })}
                        quantity={Number(plainTyped(line.quantity, line.item)) || 0}
                        setCount={(n) => set(line.key, { quantity: String(n) })}
                        errorAt={(name) => problemAt(transfer.error, `lines.${index}.${name}`)}
                        onKeyDown={toNext}
                      />
                    </td>
                  </tr>
                )}
              </Fragment>
            ))}
            <tr>
              <td colSpan={2}>
                <ItemPicker label="Add an item" hideLabel autoFocus inputRef={adder} onPick={add} onText={takeBin} />
              </td>
              <td colSpan={3} />
            </tr>
          </tbody>
        </LineGrid>
        {problem && (
          <ProblemBox error={transfer.error} shownAt={SHOWN}>
            <Shortages problem={problem} />
          </ProblemBox>
        )}
      </AnswerBody>
      <Foot>
        <Button look="go" isDisabled={!ready} busy={transfer.isPending} onPress={post}>
          Move {count(lines.length, 'line')}
        </Button>
        <div style={{ width: 260 }}>
          <Field label="Remark" hideLabel placeholder="Remark" value={remark} onChange={setRemark} />
        </div>
        <Muted>One document; it can be undone.</Muted>
      </Foot>
    </AnswerPane>
  );
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
    return from !== '' && from === to ? 'It would go where it comes from.' : undefined;
  } catch (error) {
    return wordsOf(error) ?? 'This cannot be read.';
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
  if (bins.data && held.length === 0) return <Faint>It is in no bin.</Faint>;
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
