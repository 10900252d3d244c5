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
  // The next save may come before the definition is fetched again.
  const [saved, setSaved] = useState({ version: item.version, price: item.sellPrice });
  const known = saved.version > item.version ? saved : { version: item.version, price: item.sellPrice };
  const save = useCommand('setPrices', (after) => {
    setSaved({ version: after.version, price: after.sellPrice });
    notify({ text: `${after.name} sells at ${after.sellPrice} now.` });
  });
  const { price, margin, fault } = priceAndMargin(typed, known.price, cost, useFormat().currencyDecimals);
  const dirty =
    typed !== null &&
    fault === undefined &&
    price !== '' &&
    (known.price === null || parseMoney(price) !== parseMoney(known.price));
  return (
    <>
      <Pair
        onSubmit={(event) => {
          event.preventDefault();
          if (dirty) save.mutate({ params: { id: item.id }, body: { sellPrice: price, version: known.version } });
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
