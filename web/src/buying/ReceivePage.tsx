import type { Item, Store } from '@yosegi/contract';
import { add, formatDecimal, type Money } from '@yosegi/core/number';
import type { ElementString } from '@yosegi/core/scan';
import { Fragment, useEffect } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { problemAt, useCommand, useQuestion } from '../api/client.ts';
import { InFields } from '../lines/InFields.tsx';
import { PricedCells } from '../lines/PricedCells.tsx';
import { RECEIVED_FIELDS, readPricedLine } from '../lines/pricedLine.ts';
import { NOTHING_TYPED, namedInOf, type TypedTrack, withScan } from '../lines/typed.ts';
import { LineItem, OnHand, RemoveLine, useTypedLines } from '../lines/typedLines.tsx';
import { scannedBin } from '../scan/scans.ts';
import { useScansInto } from '../scan/wedge.ts';
import { useShortcut } from '../shell/useShortcut.ts';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { count, useFormat } from '../ui/format.ts';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { AnswerBody, AnswerPane, Foot, LineGrid } from '../ui/layout.ts';
import { plainTyped } from '../ui/measuring.ts';
import { useNotify } from '../ui/Notice.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer } from '../ui/States.tsx';
import { shelfOptions } from '../ui/shelves.ts';
import { Faint, Lead, Muted, Push, Row } from '../ui/text.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';

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
  const go = useNavigate();
  const notify = useNotify();
  const [search, setSearch] = useSearchParams();
  const shelves = shelfOptions(stores);
  const screen = useTypedScreen('receive.head');
  const [kind, setKind] = useTyped<'receipt' | 'opening'>(screen, 'kind', 'receipt');
  const [remark, setRemark] = useTyped(screen, 'remark', '');
  const { lines, adder, body, append, set, remove, toNext, forget } = useTypedLines<ReceiptLine>('receive');
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
  useScansInto(adder);
  const addLine = (item: Item, quantity: string, scan?: ElementString) => {
    const unitCost = item.latestCost ?? item.averageCost;
    const track = scan ? withScan(NOTHING_TYPED, scan) : NOTHING_TYPED;
    append({ item, binId: String(item.homeBinId ?? shelves[0]?.[0] ?? ''), quantity, unitCost, track });
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
    (document) => {
      notify({ text: `${document.number}: ${count(lines.length, 'line')} received.`, documentId: document.id });
      void go(`/stock/documents/${document.id}`);
    },
    () => {
      forget();
      screen.forget();
    },
  );
  const read = lines.map((line) => readPricedLine(line.item, { quantity: line.quantity, cost: line.unitCost }));
  const faulty = read.some((line) => line.quantityError || line.costError);
  const total = add(0 as Money, ...read.map((line) => line.value));
  const post = () => {
    if (faulty || lines.length === 0 || receive.isPending) return;
    receive.mutate({
      body: {
        kind,
        remark,
        lines: lines.map((line) => ({
          itemId: line.item.id,
          binId: Number(line.binId),
          quantity: plainTyped(line.quantity, line.item),
          unitCost: line.unitCost.trim() || '0',
          ...namedInOf(line.item, line.track),
        })),
      },
    });
  };
  useShortcut('Enter', post, { ctrl: true });
  return (
    <AnswerPane style={{ height: '100%' }}>
      <AnswerBody>
        <Row $wrap style={{ alignItems: 'flex-end' }}>
          <div>
            <h1>
              {lines.length === 0
                ? 'What came in?'
                : `${count(lines.length, 'line')} worth ${format.money(formatDecimal(total))} come in.`}
            </h1>
            <Lead>Cost flows into the moving average. Scan or type the item, Enter, quantity, Enter, cost, Enter.</Lead>
          </div>
          <Push />
          <div style={{ width: 190 }}>
            <Choice
              label="Kind"
              value={kind}
              onChange={(next) => setKind(next as typeof kind)}
              options={[
                ['receipt', 'Receipt from a supplier'],
                ['opening', 'Opening stock'],
              ]}
            />
          </div>
          <div style={{ width: 240 }}>
            <Field label="Remark, delivery note" value={remark} onChange={setRemark} />
          </div>
        </Row>
        <LineGrid>
          <thead>
            <tr>
              <th>Item</th>
              <th className="num" style={{ width: 140 }}>
                Quantity
              </th>
              <th className="num" style={{ width: 140 }}>
                Cost of one
              </th>
              <th style={{ width: 190 }}>Into bin</th>
              <th className="num">Value</th>
              <th aria-label="Remove" />
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
                    <PricedCells
                      item={line.item}
                      called={['Quantity of', 'Cost of one']}
                      quantity={line.quantity}
                      cost={line.unitCost}
                      onQuantity={(quantity) => set(line.key, { quantity })}
                      onCost={(unitCost) => set(line.key, { unitCost })}
                      onKeyDown={toNext}
                      quantityError={own?.quantityError ?? problemAt(receive.error, `lines.${index}.quantity`)}
                      costError={own?.costError ?? problemAt(receive.error, `lines.${index}.unitCost`)}
                    />
                    <td data-label="Into bin">
                      <Choice
                        label={`Bin for ${line.item.name}`}
                        hideLabel
                        value={line.binId}
                        options={shelves}
                        onChange={(binId) => set(line.key, { binId })}
                        error={problemAt(receive.error, `lines.${index}.binId`)}
                      />
                    </td>
                    <td className="num" data-label="Value">
                      {format.money(formatDecimal(own?.value ?? 0))}
                    </td>
                    <td data-end>
                      <RemoveLine item={line.item} onRemove={() => remove(line.key)} />
                    </td>
                  </tr>
                  {line.item.tracking !== 'none' && (
                    <tr data-line={line.key}>
                      <td colSpan={6}>
                        <InFields
                          item={line.item}
                          typed={line.track}
                          onChange={(track) => set(line.key, { track })}
                          quantity={Number(plainTyped(line.quantity, line.item)) || 0}
                          setCount={(n) => set(line.key, { quantity: String(n) })}
                          errorAt={(name) => problemAt(receive.error, `lines.${index}.${name}`)}
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
                <ItemPicker
                  label="Add an item"
                  hideLabel
                  placeholder="Type an item: code, name or a piece of either"
                  inputRef={adder}
                  autoFocus={asked === 0}
                  onPick={(item, scan) => addLine(item, '1', scan)}
                  onText={takeBin}
                />
              </td>
              <td colSpan={4} />
            </tr>
          </tbody>
        </LineGrid>
        <ProblemBox error={receive.error} shownAt={RECEIVED_FIELDS} />
      </AnswerBody>
      <Foot>
        <Muted>
          Into stock <b style={{ color: 'var(--ink)' }}>{format.money(formatDecimal(total))}</b>
        </Muted>
        <Push />
        <Faint>Ctrl Enter</Faint>
        <Button look="go" isDisabled={faulty || lines.length === 0} busy={receive.isPending} onPress={post}>
          Receive {count(lines.length, 'line')}
        </Button>
      </Foot>
    </AnswerPane>
  );
}
