import type { Item } from '@yosegi/contract';
import { wordsOf } from '@yosegi/contract/problems';
import { marginOf, priceForMargin } from '@yosegi/core/definition';
import { formatDecimal, type Money, mulDiv, parseMoney, parsePercent } from '@yosegi/core/number';
import { useState } from 'react';
import styled from 'styled-components';
import { problemOf, useCommand } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { useNotify } from '../ui/Notice.tsx';
import { ProblemBox } from '../ui/Problem.tsx';

const Pair = styled.form`display: grid; grid-template-columns: 1fr 1fr; gap: 8px; margin-top: 10px; align-items: start; button { grid-column: 1 / -1; }`;
const CENT = 10_000;

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
  const { price, margin, fault } = read(typed, known.price, cost);
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

/** Both figures from the one that was typed; a price from a margin is rounded up to the cent, so that it is kept. */
function read(typed: { at: 'price' | 'margin'; text: string } | null, known: string | null, cost: Money) {
  const marginText = (price: Money) => {
    const margin = marginOf(price, cost);
    return margin === null ? '' : formatDecimal(mulDiv(margin, 1, 100_000, 'nearest') * 100_000, 1);
  };
  try {
    if (typed?.at === 'margin') {
      const exact = priceForMargin(cost, parsePercent(typed.text));
      if (exact === null) return { price: '', margin: typed.text, fault: 'A margin is below 100 %.' };
      return { price: formatDecimal(mulDiv(exact, 1, CENT, 'up') * CENT, 2), margin: typed.text, fault: undefined };
    }
    const text = typed?.text.trim() ?? known ?? '';
    if (text === '') return { price: '', margin: '', fault: undefined };
    return { price: text, margin: marginText(parseMoney(text)), fault: undefined };
  } catch (error) {
    return { price: '', margin: '', fault: wordsOf(error) ?? 'This cannot be read.' };
  }
}
