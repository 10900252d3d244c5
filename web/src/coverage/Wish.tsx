import type { CoverItem } from '@yosegi/contract';
import type { ProductCover } from '@yosegi/core/coverage';
import { formatDecimal, SCALE } from '@yosegi/core/number';
import styled from 'styled-components';
import { Button } from '../ui/Button.tsx';
import { Chip } from '../ui/Chip.tsx';
import { Field } from '../ui/Field.tsx';
import { useFormat } from '../ui/format.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Push, Row } from '../ui/text.ts';
import type { CoverAnswer } from '../workers/coverAnswer.ts';
import type { ReadWant, Want } from './want.ts';

const WantRow = styled.div`
  display: grid; grid-template-columns: 40px minmax(0, 1fr); gap: 10px; padding: 11px 0; border-bottom: 1px solid var(--line);
  > div { min-width: 0; } b { display: block; min-width: 0; overflow-wrap: anywhere; margin-bottom: 6px; line-height: 1.2; }
`;
const Step = styled.div`
  display: grid; grid-template-columns: 32px 76px 32px; align-items: start;
  button { padding: 0; min-height: 34px; border-radius: 3px; }
  input.num { text-align: center; padding-left: 0; }
`;

export interface WantDeeds {
  readonly set: (itemId: number, quantity: string) => void;
  readonly remove: (itemId: number) => void;
}

interface Props {
  readonly want: Want;
  readonly item: CoverItem | undefined;
  readonly read: ReadWant | undefined;
  readonly product: ProductCover | undefined;
  readonly answer: CoverAnswer | null;
  /** The day it is complete if everything is bought and begun today; null when nobody knows. */
  readonly ifBegun: string | null;
  readonly items: ReadonlyMap<number, CoverItem>;
  readonly deeds: WantDeeds;
  /** On to the next product. */
  readonly onEnter: () => void;
}

/** One product, how much of it, and whether that can be made. */
export function Wish({
  want: { itemId, quantity },
  item,
  read,
  product,
  answer,
  ifBegun,
  items,
  deeds,
  onEnter,
}: Props) {
  const amount = read?.wanted?.quantity ?? 0;
  const set = (to: string) => deeds.set(itemId, to);
  const name = item?.name ?? (read?.error ? 'Unknown item' : '…');
  return (
    <WantRow data-want={itemId}>
      <Tile code={item?.code ?? '?'} size={40} />
      <div>
        <Row $gap={4}>
          <b>{name}</b>
          <Push />
          <Button look="ghost" aria-label={`Remove ${name}`} onPress={() => deeds.remove(itemId)}>
            ✕
          </Button>
        </Row>
        <Row $wrap>
          <Step>
            <Button
              aria-label={`One less ${name}`}
              isDisabled={amount <= SCALE}
              onPress={() => set(formatDecimal(amount - SCALE))}
            >
              −
            </Button>
            <Field
              label={`Quantity of ${name}`}
              hideLabel
              numeric
              value={quantity}
              onChange={set}
              error={read?.error}
              onKeyDown={(event) => event.key === 'Enter' && !event.ctrlKey && onEnter()}
            />
            <Button aria-label={`One more ${name}`} onPress={() => set(formatDecimal(amount + SCALE))}>
              +
            </Button>
          </Step>
          {product && <Verdict product={product} items={items} answer={answer} ifBegun={ifBegun} />}
        </Row>
      </div>
    </WantRow>
  );
}

interface VerdictProps {
  readonly product: ProductCover;
  readonly items: ReadonlyMap<number, CoverItem>;
  readonly answer: CoverAnswer | null;
  readonly ifBegun: string | null;
}

function Verdict({ product, items, answer, ifBegun }: VerdictProps) {
  const format = useFormat();
  const amount = (scaled: number) => format.number(formatDecimal(scaled));
  const shelf = product.fromShelf > 0 && <Faint>{amount(product.fromShelf)} from the shelf</Faint>;
  if (product.toMake === 0) return <Chip $tone="ok">all in stock</Chip>;
  if (!product.hasDefinition)
    return (
      <>
        <Chip $tone="held">no bill of materials in use</Chip>
        {shelf}
      </>
    );
  const now = amount(product.now);
  const isThere = product.now >= product.toMake;
  const more = amount(product.nowWithAlternates);
  const limiting = answer?.components.find(({ itemId }) => itemId === product.limitedBy);
  const others = (limiting?.alternates ?? []).map(({ itemId }) => items.get(itemId)?.name).filter(Boolean);
  return (
    <>
      {isThere ? (
        <Chip $tone="ok">{now} now</Chip>
      ) : product.completeOn ? (
        <Chip $tone="coming">{`${now} now, all ${format.day(product.completeOn)}`}</Chip>
      ) : (
        <Chip $tone="short">{now} now</Chip>
      )}
      {!isThere && product.completeOn === null && ifBegun && <Faint>all {format.day(ifBegun)} if you buy today</Faint>}
      {isThere && product.completeOn && <Faint>done {format.day(product.completeOn)}</Faint>}
      {product.nowWithAlternates > product.now && (
        <Faint>{`${more} with ${others.length > 0 ? others.join(' and ') : 'alternates'}`}</Faint>
      )}
      {shelf}
      {product.isDraft && <Faint>by its draft</Faint>}
    </>
  );
}
