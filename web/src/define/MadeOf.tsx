import type { Item } from '@yosegi/contract';
import { canMake } from '@yosegi/core/coverage';
import { marginOf } from '@yosegi/core/definition';
import { formatDecimal, parseMoney, parseQuantity, type Quantity } from '@yosegi/core/number';
import { Block } from '../ui/Block.tsx';
import { LinkButton } from '../ui/Button.tsx';
import { useFormat } from '../ui/format.ts';
import { BigNumber, KeyValue, Margin } from '../ui/layout.ts';
import { Faint, Late, Muted, Row } from '../ui/text.ts';
import type { Draft, Reckoning } from './draft.ts';

/** What a thing is made of, what it costs and earns, and how many can be made now: live while it is typed. */
export function MadeOf({
  item,
  draft,
  reckoning,
  inUse,
}: {
  item: Item;
  draft: Draft;
  reckoning: Reckoning;
  inUse: boolean;
}) {
  const format = useFormat();
  const { cost, latest, revision } = reckoning;
  const price = item.sellPrice === null ? null : parseMoney(item.sellPrice);
  const margin = price === null ? null : marginOf(price, cost.perUnit);
  const money = (amount: number) => format.money(formatDecimal(amount), 3);
  const can = canMakeNow(item, draft, reckoning);
  const limiting = draft.lines.find((line) => line.item?.id === can.limitedBy)?.item;
  const one = item.unit === 'each' ? 'Each' : `1 ${item.unit}`;
  return (
    <Margin aria-label="Consequences">
      <h2>What it's made of</h2>
      <Block
        pieces={draft.lines.flatMap((line, index) => {
          const share = cost.lines[index] ?? 0;
          const label = line.item?.name ?? line.text ?? line.kind;
          return share > 0 ? [{ key: line.key, label, code: line.item?.code ?? null, cost: share }] : [];
        })}
      />
      <Faint>width is share of cost; stripes are labour and charges</Faint>
      <div style={{ marginTop: 12 }}>
        <KeyValue>
          <span>Parts</span>
          <b>{money(cost.parts)}</b>
        </KeyValue>
        <KeyValue>
          <span>Labour</span>
          <b>{money(cost.labour)}</b>
        </KeyValue>
        {cost.charges > 0 && (
          <KeyValue>
            <span>Charges</span>
            <b>{money(cost.charges)}</b>
          </KeyValue>
        )}
        <KeyValue>
          <span>{one} costs</span>
          <b>{money(cost.perUnit)}</b>
        </KeyValue>
        <KeyValue>
          <span>at latest prices</span>
          <span>{money(latest.perUnit)}</span>
        </KeyValue>
        <KeyValue>
          <span>Sells at</span>
          <b>{item.sellPrice === null ? 'no price yet' : format.money(item.sellPrice)}</b>
        </KeyValue>
        {margin !== null && (
          <KeyValue>
            <span>Margin</span>
            {margin < 0 ? (
              <Late>{format.number(formatDecimal(margin), 1, 1)} %, a loss</Late>
            ) : (
              <b>{format.number(formatDecimal(margin), 1, 1)} %</b>
            )}
          </KeyValue>
        )}
      </div>
      <h2 style={{ marginTop: 22 }}>Can make now</h2>
      <BigNumber>{can.quantity === null ? '–' : format.number(formatDecimal(can.quantity))}</BigNumber>
      <Muted>
        {can.quantity === null
          ? 'Nothing limits it yet.'
          : limiting && (can.quantity > 0 ? `then ${limiting.name} runs out.` : `No free ${limiting.name}.`)}
      </Muted>
      {inUse && (
        <Row style={{ marginTop: 14 }}>
          <LinkButton look="go" to={`/build?plan=${item.id}`}>
            Plan a build
          </LinkButton>
          <LinkButton to={`/cover?want=${item.id}x1`}>Cover…</LinkButton>
        </Row>
      )}
      {!inUse && (
        <p style={{ marginTop: 12 }}>
          <Faint>
            Builds take this revision once it is in use; it makes{' '}
            {format.number(formatDecimal(revision.outputQuantity))} a run.
          </Faint>
        </p>
      )}
    </Margin>
  );
}

function canMakeNow(item: Item, draft: Draft, { revision, faults }: Reckoning) {
  if (faults.size > 0) return { quantity: null, limitedBy: null };
  const free = new Map<number, Quantity>();
  for (const { item: part } of draft.lines) {
    if (part) free.set(part.id, Math.max(0, parseQuantity(part.free, 6)) as Quantity);
  }
  return canMake(revision, (itemId) => free.get(itemId) ?? (0 as Quantity), item.decimals);
}
