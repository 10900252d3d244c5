import type { PartItem, Snapshot } from '@yosegi/contract';
import { wordsOf } from '@yosegi/contract/problems';
import type { ProductCover, Wanted } from '@yosegi/core/coverage';
import { formatDecimal, positive, SCALE } from '@yosegi/core/number';
import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import styled from 'styled-components';
import { useQuestion } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { Chip } from '../ui/Chip.tsx';
import { DayField } from '../ui/DayField.tsx';
import { Field } from '../ui/Field.tsx';
import { count, type Format, useFormat } from '../ui/format.ts';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { AnswerBody, AnswerPane, Ask, AskAnswer } from '../ui/layout.ts';
import { readTyped } from '../ui/measuring.ts';
import { Answer, EmptyState } from '../ui/States.tsx';
import { StaveLegend } from '../ui/Stave.tsx';
import { Part } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late, Lead, Push, Row } from '../ui/text.ts';
import { useAddress, useSearchChange } from '../ui/useAddress.ts';
import type { CoverAnswer } from '../workers/coverAnswer.ts';
import { Components } from './Components.tsx';
import { PlanBar } from './PlanBar.tsx';
import { Promised } from './Promised.tsx';
import { useCoverage } from './useCoverage.ts';
import { type SnapshotItem, type Want, wantsOf, wantText } from './want.ts';

const WantRow = styled.div`
  display: grid; grid-template-columns: 40px minmax(0, 1fr); gap: 10px; padding: 11px 0; border-bottom: 1px solid var(--line);
  > div { min-width: 0; } b { display: block; margin-bottom: 6px; line-height: 1.2; }
`;
const Step = styled.div`
  display: grid; grid-template-columns: 32px 76px 32px; align-items: start;
  button { padding: 0; min-height: 34px; border-radius: 3px; }
  input { text-align: center; padding-left: 0; }
`;

/** Is there enough? Products and quantities on the left, the staves of their components on the right. */
export function CoverPage() {
  const snapshot = useQuestion('snapshot', {});
  return <Answer of={snapshot}>{(data) => <Cover snapshot={data} />}</Answer>;
}

function Cover({ snapshot }: { snapshot: Snapshot }) {
  const format = useFormat();
  const text = useSearchParams()[0].get('want') ?? '';
  const changeAddress = useSearchChange();
  const [due, setDue] = useAddress('by');
  const wants = useMemo(() => wantsOf(text), [text]);
  const items = useMemo(() => new Map(snapshot.items.map((item) => [item.id, item])), [snapshot]);
  const read = useMemo(() => wants.map((want) => readWant(want, items)), [wants, items]);
  const wanted = useMemo(() => read.flatMap(({ wanted: one }) => (one ? [one] : [])), [read]);
  const { answer, refused } = useCoverage(snapshot, wanted);
  // From the address as it is at this moment: the page follows what is typed when it has time.
  const change = (edit: (wants: readonly Want[]) => readonly Want[]) =>
    changeAddress({
      want: wantText(edit(wantsOf(new URLSearchParams(window.location.search).get('want') ?? ''))) || null,
    });
  const deeds = {
    set: (itemId: number, quantity: string) =>
      change((before) => before.map((want) => (want.itemId === itemId ? { ...want, quantity } : want))),
    remove: (itemId: number) => change((before) => before.filter((want) => want.itemId !== itemId)),
    add: (item: PartItem) =>
      change((before) => {
        const known = before.find(({ itemId }) => itemId === item.id);
        if (!known) return [...before, { itemId: item.id, quantity: '1' }];
        const more = formatDecimal((readWant(known, items).wanted?.quantity ?? 0) + SCALE);
        return before.map((want) => (want === known ? { ...want, quantity: more } : want));
      }),
  };
  const upToDate = answer && answer.products.length === wanted.length ? answer : null;
  const productOf = (itemId: number) => upToDate?.products.find((product) => product.itemId === itemId);

  return (
    <AskAnswer>
      <Ask aria-label="What do you want to make?">
        <h2>What do you want to make?</h2>
        <Part $top={10} $bottom={4}>
          <ItemPicker
            label="Add a product"
            placeholder="Code or name, Enter"
            autoFocus={wants.length === 0}
            onPick={deeds.add}
          />
        </Part>
        {wants.map((want, index) => (
          <Wish
            key={want.itemId}
            want={want}
            item={items.get(want.itemId)}
            read={read[index]}
            product={productOf(want.itemId)}
            answer={upToDate}
            items={items}
            deeds={deeds}
          />
        ))}
        <Part $top={14} $max={170}>
          <DayField label="Builds due on" value={due} onChange={setDue} />
        </Part>
      </Ask>
      <AnswerPane>
        <AnswerBody>
          {wants.length === 0 ? (
            <Promised />
          ) : refused !== null ? (
            <EmptyState title="This cannot be worked out">{refused}</EmptyState>
          ) : (
            upToDate &&
            wanted.length > 0 && (
              <>
                <Row $wrap>
                  <Conclusion answer={upToDate} items={items} format={format} />
                  <Push />
                  <StaveLegend />
                </Row>
                <Components answer={upToDate} items={items} />
              </>
            )
          )}
        </AnswerBody>
        {wanted.length > 0 && upToDate && (
          <PlanBar
            answer={upToDate}
            due={due}
            onPlanned={() => change(() => [])}
            blocked={read.some(({ error }) => error !== undefined)}
          />
        )}
      </AnswerPane>
    </AskAnswer>
  );
}

interface WantDeeds {
  readonly set: (itemId: number, quantity: string) => void;
  readonly remove: (itemId: number) => void;
}

interface WishProps {
  readonly want: Want;
  readonly item: SnapshotItem | undefined;
  readonly read: ReadWant | undefined;
  readonly product: ProductCover | undefined;
  readonly answer: CoverAnswer | null;
  readonly items: ReadonlyMap<number, SnapshotItem>;
  readonly deeds: WantDeeds;
}

/** One product, how much of it, and whether that can be made. */
function Wish({ want: { itemId, quantity }, item, read, product, answer, items, deeds }: WishProps) {
  const format = useFormat();
  const amount = read?.wanted?.quantity ?? 0;
  const set = (to: string) => deeds.set(itemId, to);
  return (
    <WantRow>
      <Tile code={item?.code ?? '?'} size={40} />
      <div>
        <Row $gap={4}>
          <b>{item?.name ?? 'Unknown item'}</b>
          <Push />
          <Button look="ghost" aria-label={`Remove ${item?.name}`} onPress={() => deeds.remove(itemId)}>
            ✕
          </Button>
        </Row>
        <Row $wrap>
          <Step>
            <Button
              aria-label={`One less ${item?.name}`}
              isDisabled={amount <= SCALE}
              onPress={() => set(formatDecimal(amount - SCALE))}
            >
              −
            </Button>
            <Field
              label={`Quantity of ${item?.name}`}
              hideLabel
              numeric
              value={quantity}
              onChange={set}
              error={read?.error}
            />
            <Button aria-label={`One more ${item?.name}`} onPress={() => set(formatDecimal(amount + SCALE))}>
              +
            </Button>
          </Step>
          {product && <Verdict product={product} items={items} answer={answer} format={format} />}
        </Row>
      </div>
    </WantRow>
  );
}

interface ReadWant {
  readonly wanted: Wanted | null;
  readonly error?: string;
}

function readWant(want: Want, items: ReadonlyMap<number, SnapshotItem>): ReadWant {
  const item = items.get(want.itemId);
  if (!item) return { wanted: null, error: 'This item does not exist.' };
  try {
    return { wanted: { itemId: item.id, quantity: positive(readTyped(want.quantity, item)) } };
  } catch (error) {
    return { wanted: null, error: wordsOf(error) ?? 'This cannot be read.' };
  }
}

interface VerdictProps {
  readonly product: ProductCover;
  readonly items: ReadonlyMap<number, SnapshotItem>;
  readonly answer: CoverAnswer | null;
  readonly format: Format;
}

function Verdict({ product, items, answer, format }: VerdictProps) {
  if (!product.hasDefinition) return <Chip $tone="held">no bill of materials in use</Chip>;
  const now = format.number(formatDecimal(product.now));
  if (product.now >= product.quantity) return <Chip $tone="ok">{now} now</Chip>;
  const more = format.number(formatDecimal(product.nowWithAlternates));
  const limiting = answer?.components.find(({ itemId }) => itemId === product.limitedBy);
  const others = (limiting?.alternates ?? []).map(({ itemId }) => items.get(itemId)?.name).filter(Boolean);
  return (
    <>
      {product.wholeOn ? (
        <Chip $tone="coming">{`${now} now, all ${format.day(product.wholeOn)}`}</Chip>
      ) : (
        <Chip $tone="short">{now} now</Chip>
      )}
      {product.nowWithAlternates > product.now && (
        <Faint>{`${more} with ${others.length > 0 ? others.join(' and ') : 'alternates'}`}</Faint>
      )}
    </>
  );
}

/** The answer in a sentence, first. */
function Conclusion({
  answer,
  items,
  format,
}: {
  answer: CoverAnswer;
  items: ReadonlyMap<number, SnapshotItem>;
  format: Format;
}) {
  const undefinedProduct = answer.products.find((product) => !product.hasDefinition);
  if (undefinedProduct) {
    return (
      <div>
        <h1>{items.get(undefinedProduct.itemId)?.name} has no bill of materials in use.</h1>
        <Lead>Define what goes into it, or put its draft in use.</Lead>
      </div>
    );
  }
  const stuck = answer.products.filter((product) => product.now < product.quantity);
  const [first] = stuck;
  if (!first) {
    const all = answer.products.reduce((sum, product) => sum + product.quantity, 0);
    return (
      <div>
        <h1>Everything is there{answer.products.length > 1 ? ` for all ${format.number(formatDecimal(all))}` : ''}.</h1>
        <Lead>Plan the {answer.products.length === 1 ? 'build' : 'builds'} and the parts are promised.</Lead>
      </div>
    );
  }
  const missing = format.number(formatDecimal(first.quantity - first.now));
  const limit = first.limitedBy === null ? '' : items.get(first.limitedBy)?.name;
  const short = answer.components.filter((component) => component.short > 0).length;
  return (
    <div>
      <h1>
        {missing} × {items.get(first.itemId)?.name}: stuck on {limit}.
      </h1>
      <Lead>
        {answer.wholeOn ? (
          <>
            Everything together is covered on <b>{format.day(answer.wholeOn)}</b>.
          </>
        ) : (
          <>
            <Late>{count(short, 'part')} short</Late> with nothing coming that would cover {short === 1 ? 'it' : 'them'}
            .
          </>
        )}
      </Lead>
    </div>
  );
}
