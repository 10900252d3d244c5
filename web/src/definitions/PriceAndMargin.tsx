import type { Item } from '@yosegi/contract';
import { type Money, parseMoney } from '@yosegi/core/number';
import { useState } from 'react';
import styled from 'styled-components';
import { problemOf, useCommand } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { useFormat } from '../ui/format.ts';
import { useNotify } from '../ui/Notice.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { priceAndMargin } from './priceFromMargin.ts';

const Pair = styled.form`display: grid; grid-template-columns: 1fr 1fr; gap: 8px; margin-top: 10px; align-items: start; button { grid-column: 1 / -1; }`;

/** The sell price and its margin over the average cost: typing one gives the other, before anything is saved. */
export function PriceAndMargin({ item, cost }: { item: Item; cost: Money }) {
  const notify = useNotify();
  const [typed, setTyped] = useState<{ at: 'price' | 'margin'; text: string } | null>(null);
  const save = useCommand('setPrices', (_, { body }) =>
    notify({ text: `${item.name} sells at ${body.sellPrice} now.` }),
  );
  const { price, margin, fault } = priceAndMargin(typed, item.sellPrice, cost, useFormat().currencyDecimals);
  const dirty =
    typed !== null &&
    fault === undefined &&
    price !== '' &&
    (item.sellPrice === null || parseMoney(price) !== parseMoney(item.sellPrice));
  return (
    <>
      <Pair
        onSubmit={(event) => {
          event.preventDefault();
          if (dirty && !save.isPending)
            save.mutate({ params: { id: item.id }, body: { sellPrice: price, version: item.version } });
        }}
      >
        <Field
          label="Sells at"
          numeric
          value={typed?.at === 'price' ? typed.text : price}
          onChange={(text) => setTyped({ at: 'price', text })}
          error={typed?.at === 'price' ? fault : undefined}
        />
        <Field
          label="Margin"
          numeric
          suffix="%"
          value={typed?.at === 'margin' ? typed.text : margin}
          onChange={(text) => setTyped({ at: 'margin', text })}
          error={typed?.at === 'margin' ? fault : undefined}
        />
        {dirty && (
          <Button type="submit" busy={save.isPending}>
            Save {price} as the price
          </Button>
        )}
      </Pair>
      {problemOf(save.error) && <ProblemBox error={save.error} />}
    </>
  );
}
