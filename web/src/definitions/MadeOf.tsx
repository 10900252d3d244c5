import type { Definition, Item } from '@yosegi/contract';
import { canMake, canMakeWith } from '@yosegi/core/coverage';
import { marginOf } from '@yosegi/core/definitions';
import { formatDecimal, type Money, type Quantity, readExact } from '@yosegi/core/number';
import { memo } from 'react';
import styled from 'styled-components';
import { coverOf } from '../coverage/index.ts';
import { Block } from '../ui/Block.tsx';
import { LinkButton } from '../ui/Button.tsx';
import { count, useFormat } from '../ui/format.ts';
import { BigNumber, Margin } from '../ui/layout.ts';
import { H2, Para } from '../ui/space.ts';
import { Faint, Late, Muted, Row } from '../ui/text.ts';
import { partsPrice } from './behaviour.ts';
import { costBases, type Draft, type Reckoning } from './draft.ts';
import { PriceAndMargin } from './PriceAndMargin.tsx';

const Bases = styled.table`
  font-size: 13px; margin-top: 8px;
  th { font-weight: 500; font-size: 12px; color: var(--ink-2); text-align: right; padding: 2px 0 2px 6px; } th:first-child { text-align: left; padding-left: 0; }
  td { text-align: right; padding: 3px 0 3px 6px; border-top: 1px dotted var(--line); } td:first-child { text-align: left; padding-left: 0; }
  tr:last-child td { font-weight: 600; border-top: 1px solid var(--line); }
`;

/** What a thing is made of, what it costs and earns, and how many can be made now: live while it is typed. */
export const MadeOf = memo(function MadeOf({
  definition,
  draft,
  reckoning,
  inUse,
  onPrice,
}: {
  definition: Definition;
  draft: Draft;
  reckoning: Reckoning;
  inUse: boolean;
  /** Keeps a price with the draft, until it is in use; left out where it is one. */
  onPrice?: (price: string) => void;
}) {
  const format = useFormat();
  const { item, purpose, behaviour } = definition;
  const { cost, byBasis, lacking, unknown, revision } = reckoning;
  const price =
    behaviour.price === 'parts'
      ? partsPrice(draft, behaviour.discount, format.currencyDecimals)
      : draft.price.trim() || item.sellPrice;
  const money = (amount: number) => format.amount(formatDecimal(amount));
  const can = canMakeNow(item, draft, reckoning);
  const limiting = draft.lines.find((line) => line.item?.id === can.limitedBy)?.item;
  const one = item.unit === 'each' ? 'Each' : `1 ${item.unit}`;
  const rows = [
    ['Parts', 'parts'],
    ['Labour', 'labour'],
    ['Charges', 'charges'],
    [`${one} costs`, 'perUnit'],
  ] as const;
  const stands = costBases.filter((basis) => lacking[basis] > 0);
  return (
    <Margin aria-label="Consequences">
      <h2>Made of</h2>
      <Block
        pieces={draft.lines.flatMap((line, index) => {
          const share = cost.lines[index] ?? 0;
          const label = line.item?.name ?? line.text ?? line.kind;
          return share > 0 ? [{ key: line.key, label, code: line.item?.code ?? null, cost: share }] : [];
        })}
      />
      <Faint>width is share of cost; stripes are labour and charges</Faint>
      <Bases>
        <thead>
          <tr>
            <th>Cost by</th>
            <th>average</th>
            <th>latest</th>
            <th>standard</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([title, key]) => (
            <tr key={key}>
              <td>{title}</td>
              {costBases.map((basis) => (
                <td key={basis}>
                  {key === 'perUnit' && unknown.length > 0 && 'at least '}
                  {key === 'perUnit'
                    ? format.costOrDash(formatDecimal(byBasis[basis].perUnit))
                    : money(byBasis[basis][key])}
                </td>
              ))}
            </tr>
          ))}
          {price !== null && unknown.length === 0 && (
            <tr>
              <td>Margin</td>
              {costBases.map((basis) => {
                const margin = marginOf(readExact(price) as Money, byBasis[basis].perUnit);
                return (
                  <td key={basis}>
                    {margin === null ? (
                      '–'
                    ) : (
                      <Percent value={margin} text={format.number(formatDecimal(margin), 1, 1)} />
                    )}
                  </td>
                );
              })}
            </tr>
          )}
        </tbody>
      </Bases>
      {stands.length > 0 && (
        <Faint>
          {stands
            .map((basis) =>
              basis === 'averageCost'
                ? `${count(lacking[basis], 'part')} never in stock: standard cost used`
                : `${count(lacking[basis], 'part')} without ${basis === 'latestCost' ? 'a latest' : 'a standard'} cost: average used`,
            )
            .join('; ')}
          .
        </Faint>
      )}
      {unknown.length > 0 && (
        <Faint role="status">
          Cost unknown: {unknown.slice(0, 2).join(' and ')}
          {unknown.length > 2 && ` and ${count(unknown.length - 2, 'other part')}`}{' '}
          {unknown.length === 1 ? 'has' : 'have'} no cost yet. Receive some, or enter a standard cost.
        </Faint>
      )}
      {purpose === 'build' &&
        (behaviour.price === 'parts' ? (
          <Para $top={10}>
            <Muted>
              Sells at the sum of its parts: <b>{price === null ? 'a part has no price' : format.money(price)}</b>
            </Muted>
          </Para>
        ) : (
          <PriceAndMargin
            item={item}
            cost={unknown.length > 0 ? null : cost.perUnit}
            {...(onPrice ? { draft: { price: draft.price, onChange: onPrice } } : {})}
          />
        ))}
      <H2 $top={16}>{behaviour.made === 'ahead' ? 'Can make now' : 'Can pack now'}</H2>
      <BigNumber>{can.quantity === null ? '–' : format.number(formatDecimal(can.quantity))}</BigNumber>
      <Muted>
        {can.quantity === null
          ? 'No limit yet.'
          : limiting && (can.quantity > 0 ? `then ${limiting.name} runs out.` : `No free ${limiting.name}.`)}
        {can.quantity !== null && can.withAlternates !== null && can.withAlternates > can.quantity && (
          <> {format.number(formatDecimal(can.withAlternates))} with alternates.</>
        )}
      </Muted>
      {inUse && purpose !== 'record' && behaviour.made === 'ahead' && (
        <Row $top={12}>
          <LinkButton look="go" to={`/build?plan=${item.id}${purpose === 'rework' ? '&purpose=rework' : ''}`}>
            {purpose === 'rework' ? 'Plan a rework' : 'Plan a build'}
          </LinkButton>
          {purpose === 'build' && <LinkButton to={coverOf([{ itemId: item.id, quantity: '1' }])}>Cover…</LinkButton>}
        </Row>
      )}
      {!inUse && (
        <Para $top={12}>
          <Faint>
            Builds use this revision once it is in use; one batch makes{' '}
            {format.number(formatDecimal(revision.outputQuantity))}.
          </Faint>
        </Para>
      )}
    </Margin>
  );
});

const Percent = ({ value, text }: { value: number; text: string }) => (value < 0 ? <Late>{text}%</Late> : <>{text}%</>);

/** How many the free parts of a draft allow. */
export function canMakeNow(item: Pick<Item, 'decimals'>, draft: Draft, { revision, faults }: Reckoning) {
  if (faults.size > 0) return { quantity: null, withAlternates: null, limitedBy: null };
  const free = new Map<number, Quantity>();
  for (const { item: part, alternates } of draft.lines) {
    for (const { id, free: text } of [...(part ? [part] : []), ...alternates.map((alternate) => alternate.item)])
      free.set(id, Math.max(0, readExact(text)) as Quantity);
  }
  const freeOf = (itemId: number) => free.get(itemId) ?? (0 as Quantity);
  const { quantity: withAlternates } = canMakeWith(revision, freeOf, item.decimals, null);
  return { ...canMake(revision, freeOf, item.decimals), withAlternates };
}
