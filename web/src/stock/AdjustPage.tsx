import type { Item, Store } from '@yosegi/contract';
import { wordsOf } from '@yosegi/contract/problems';
import { add, formatDecimal, type Money, parseMoney, type Quantity, readExact, worthOf } from '@yosegi/core/number';
import type { ElementString } from '@yosegi/core/scan';
import { Fragment, type KeyboardEvent, useState } from 'react';
import { useNavigate } from 'react-router';
import { problemAt, problemOf, useCommand, useQuestion } from '../api/client.ts';
import { InFields } from '../lines/InFields.tsx';
import { Shortages } from '../lines/Shortages.tsx';
import { TrackedOut } from '../lines/TrackedOut.tsx';
import { NOTHING_TYPED, namedInOf, type TypedTrack, withScan } from '../lines/typed.ts';
import { LineItem, OnHand, RemoveLine, useTypedLines } from '../lines/typedLines.tsx';
import { useCan } from '../shell/person.ts';
import { useShortcut } from '../shell/useShortcut.ts';
import { Button } from '../ui/Button.tsx';
import { MoneyCell, QuantityCell } from '../ui/Cells.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { count, useFormat } from '../ui/format.ts';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { AnswerBody, AnswerPane, Foot, Grid } from '../ui/layout.ts';
import { plainTyped, readTyped } from '../ui/measuring.ts';
import { useNotify } from '../ui/Notice.tsx';
import { OverrideForm } from '../ui/OverrideForm.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer } from '../ui/States.tsx';
import { shelfOptions } from '../ui/shelves.ts';
import { Lead, Muted } from '../ui/text.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';

/** Fields that say beside themselves what is wrong with them. */
const SHOWN = [
  'lines.*.binId',
  'lines.*.change',
  'lines.*.unitCost',
  'lines.*.lot',
  'lines.*.serials',
  'lines.*.bestBefore',
];

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
  const go = useNavigate();
  const notify = useNotify();
  const mayOverride = useCan('override');
  const shelves = shelfOptions(stores);
  const reasons = (useQuestion('reasons', {}).data ?? []).filter((reason) => reason.usedFor === 'adjustment');
  const { lines, adder, body, append, set, remove, toNext, forget } = useTypedLines<AdjustLine>('adjust');
  // Nothing is chosen for a person: the first of a list would be posted by every hurried hand.
  const screen = useTypedScreen('adjust.head');
  const [reasonId, setReason] = useTyped(screen, 'reasonId', '');
  const [newReason, setNewReason] = useState<string | null>(null);
  const [remark, setRemark] = useTyped(screen, 'remark', '');
  const adjust = useCommand(
    'adjust',
    (document) => {
      notify({ text: `${document.number}: ${count(lines.length, 'line')} adjusted.`, documentId: document.id });
      void go(`/stock/documents/${document.id}`);
    },
    () => {
      forget();
      screen.forget();
    },
  );
  const addReason = useCommand('createReason', (reason) => {
    setReason(String(reason.id));
    setNewReason(null);
  });
  const addLine = (item: Item, scan?: ElementString) => {
    const binId = String(item.homeBinId ?? shelves[0]?.[0] ?? '');
    const track = scan ? withScan(NOTHING_TYPED, scan) : NOTHING_TYPED;
    append({ item, binId, change: '', unitCost: '', track });
  };
  const read = lines.map(readLine);
  const ready = lines.length > 0 && reasonId !== '' && read.every((line) => line.error === undefined);
  const post = (override?: { reason: string }) => {
    if (!ready || adjust.isPending) return;
    adjust.mutate({
      body: {
        reasonId: Number(reasonId),
        remark,
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
  };
  useShortcut('Enter', () => post(), { ctrl: true });
  const problem = problemOf(adjust.error);
  const total = add(0 as Money, ...read.map((line) => line.value));
  return (
    <AnswerPane style={{ height: '100%' }}>
      <AnswerBody>
        <div>
          <h1>
            {lines.length === 0
              ? 'What needs correcting?'
              : `Stock is worth ${format.money(formatDecimal(Math.abs(total)))} ${total < 0 ? 'less' : 'more'} after this.`}
          </h1>
          <Lead>
            Type what was found (3) or is gone (-3). What is gone leaves at its average; so does what is found come in.
          </Lead>
        </div>
        <Grid>
          <thead>
            <tr>
              <th>Item</th>
              <th style={{ width: 200 }}>Bin</th>
              <th className="num" style={{ width: 150 }}>
                Found or gone
              </th>
              <th className="num" style={{ width: 140 }}>
                Worth of one
              </th>
              <th className="num" style={{ width: 110 }}>
                Value
              </th>
              <th aria-label="Remove" style={{ width: 50 }} />
            </tr>
          </thead>
          <tbody ref={body}>
            {lines.map((line, index) => {
              const own = read[index];
              return (
                <Fragment key={line.key}>
                  <tr data-line={line.key}>
                    <td>
                      <LineItem item={line.item} more={<OnHand item={line.item} />} />
                    </td>
                    <td>
                      <Choice
                        label={`Bin of ${line.item.name}`}
                        hideLabel
                        value={line.binId}
                        onChange={(binId) => set(line.key, { binId })}
                        options={shelves}
                        error={problemAt(adjust.error, `lines.${index}.binId`)}
                      />
                    </td>
                    <td>
                      <QuantityCell
                        label={`Found or gone of ${line.item.name}`}
                        value={line.change}
                        unit={line.item.unit}
                        onChange={(change) => set(line.key, { change })}
                        error={
                          (line.change === '' ? undefined : own?.error) ??
                          problemAt(adjust.error, `lines.${index}.change`)
                        }
                        onKeyDown={toNext}
                      />
                    </td>
                    <td>
                      <MoneyCell
                        label={`Worth of one ${line.item.name}`}
                        placeholder={format.number(line.item.averageCost, format.currencyDecimals)}
                        value={line.unitCost}
                        isDisabled={isGone(line)}
                        onKeyDown={toNext}
                        onChange={(unitCost) => set(line.key, { unitCost })}
                        error={problemAt(adjust.error, `lines.${index}.unitCost`)}
                      />
                    </td>
                    <td className="num">{format.money(formatDecimal(own?.value ?? 0))}</td>
                    <td>
                      <RemoveLine item={line.item} onRemove={() => remove(line.key)} />
                    </td>
                  </tr>
                  {line.item.tracking !== 'none' && (
                    <tr data-line={line.key}>
                      <td colSpan={6}>
                        <FoundOrGone
                          line={line}
                          set={(part) => set(line.key, part)}
                          errorAt={(name) => problemAt(adjust.error, `lines.${index}.${name}`)}
                          onKeyDown={toNext}
                        />
                      </td>
                    </tr>
                  )}
                </Fragment>
              );
            })}
            <tr>
              <td colSpan={2}>
                <ItemPicker label="Add an item" hideLabel autoFocus inputRef={adder} onPick={addLine} />
              </td>
              <td colSpan={4} />
            </tr>
          </tbody>
        </Grid>
        {problem && (
          <ProblemBox error={adjust.error} shownAt={SHOWN}>
            <Shortages problem={problem} />
            {problem.code === 'stock-short' && mayOverride && (
              <OverrideForm
                action="Adjust below zero"
                busy={adjust.isPending}
                onOverride={(reason) => post({ reason })}
              />
            )}
          </ProblemBox>
        )}
      </AnswerBody>
      <Foot>
        <Button look="go" isDisabled={!ready} busy={adjust.isPending} onPress={() => post()}>
          Adjust {count(lines.length, 'line')}
        </Button>
        <div style={{ width: 190 }}>
          <Choice
            label="Why"
            hideLabel
            value={reasonId}
            onChange={setReason}
            options={[
              ['', 'Why? Choose a reason'],
              ...reasons.map((reason) => [String(reason.id), reason.name] as const),
            ]}
          />
        </div>
        {mayOverride &&
          (newReason === null ? (
            <Button look="ghost" onPress={() => setNewReason('')}>
              Another reason…
            </Button>
          ) : (
            <div style={{ width: 190 }}>
              <Field
                label="New reason"
                hideLabel
                autoFocus
                placeholder="The reason, then Enter"
                value={newReason}
                onChange={setNewReason}
                error={problemAt(addReason.error, 'name')}
                onKeyDown={(event) => {
                  if (event.key === 'Escape') setNewReason(null);
                  if (event.key !== 'Enter' || newReason.trim() === '') return;
                  event.preventDefault();
                  addReason.mutate({ body: { name: newReason.trim() } });
                }}
              />
            </div>
          ))}
        <div style={{ width: 220 }}>
          <Field label="Remark" hideLabel placeholder="Remark" value={remark} onChange={setRemark} />
        </div>
        <Muted>One document; it can be undone.</Muted>
      </Foot>
    </AnswerPane>
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
    if (quantity === 0) return { value: 0 as Money, error: 'Type what is found or gone, like 3 or -2.' };
    const cost = quantity > 0 && unitCost.trim() ? parseMoney(unitCost) : (readExact(item.averageCost) as Money);
    const worth = worthOf(Math.abs(quantity) as Quantity, cost);
    return { value: (quantity < 0 ? -worth : worth) as Money };
  } catch (error) {
    return { value: 0 as Money, error: wordsOf(error) ?? 'This cannot be read.' };
  }
}
