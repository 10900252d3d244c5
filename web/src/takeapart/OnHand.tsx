import type { Item } from '@yosegi/contract';
import { Link } from 'react-router';
import styled from 'styled-components';
import { usePages, useQuestion } from '../api/client.ts';
import { count, useFormat } from '../ui/format.ts';
import { AnswerBody } from '../ui/layout.ts';
import { More } from '../ui/More.tsx';
import { Answer, EmptyState } from '../ui/States.tsx';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Lead } from '../ui/text.ts';
import { When } from '../ui/When.tsx';

const Cards = styled.div`display: grid; grid-template-columns: repeat(auto-fill, minmax(270px, 1fr)); gap: 8px;`;
const Card = styled(Link)`
  display: grid; grid-template-columns: 40px minmax(0, 1fr) auto; gap: 12px; align-items: center; background: var(--sheet); color: var(--ink);
  border: 1px solid var(--line-soft); border-left: 5px solid var(--walnut); border-radius: 2px; padding: 9px 12px; min-height: 58px; text-decoration: none; line-height: 1.25;
  &:hover b { text-decoration: underline; }
`;

/** What could be taken apart: what was lately, then everything made here that is on hand. */
export function OnHand() {
  const format = useFormat();
  const made = usePages('items', { show: 'in-stock', source: 'made', sort: 'name', limit: 60 });
  const recent = useQuestion('documents', { query: { kind: 'take-apart', limit: 12 } });
  return (
    <AnswerBody>
      <Answer of={made}>
        {(data) => {
          const items = data.pages.flatMap((page) => page.rows);
          if (items.length === 0) {
            return (
              <EmptyState isPage title="No products in stock">
                Products in stock can be taken apart, and their parts come back with their share of the value. Enter
                what is good, damaged or missing for each part.
              </EmptyState>
            );
          }
          const lately = [...new Map((recent.data?.rows ?? []).map((row) => [row.item?.id, row])).values()].filter(
            ({ item }) => items.some(({ id }) => id === item?.id),
          );
          const took = new Set(lately.map(({ item }) => item?.id));
          return (
            <>
              <div>
                <h1>
                  {count(items.length, 'product')}
                  {made.hasNextPage ? ' and more' : ''} on hand that can be taken apart.
                </h1>
                <Lead>Choose one here, or enter its code or name on the left.</Lead>
              </div>
              {lately.length > 0 && <h2>Taken apart lately</h2>}
              <Cards>
                {lately.map((row) => {
                  const item = items.find(({ id }) => id === row.item?.id);
                  return item && <One key={row.id} item={item} under={<When at={row.at} />} />;
                })}
              </Cards>
              {lately.length > 0 && <h2>On hand</h2>}
              <Cards>
                {items
                  .filter(({ id }) => !took.has(id))
                  .map((item) => (
                    <One key={item.id} item={item} under={`${format.unitCost(item.averageCost)} each`} />
                  ))}
              </Cards>
              <More of={made}>Show more</More>
            </>
          );
        }}
      </Answer>
    </AnswerBody>
  );
}

function One({ item, under }: { item: Item; under: React.ReactNode }) {
  const format = useFormat();
  return (
    <Card to={`/take-apart/stock?item=${item.id}`}>
      <Tile code={item.code} size={40} />
      <span>
        <b>{item.name}</b>
        <br />
        <Faint>
          {item.code} · {under}
        </Faint>
      </span>
      <b>{format.quantity(item.onHand, item.unit, item.decimals)}</b>
    </Card>
  );
}
