import type { Item } from '@yosegi/contract';
import { type Money, parseMoney } from '@yosegi/core/number';
import { useState } from 'react';
import styled from 'styled-components';
import { z } from 'zod';
import { problemOf, useCommand } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { useFormat } from '../ui/format.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Faint } from '../ui/text.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';
import { priceAndMargin } from './priceFromMargin.ts';

const Pair = styled.form`display: grid; grid-template-columns: 1fr 1fr; gap: 8px; margin-top: 10px; align-items: start; > button, > small { grid-column: 1 / -1; }`;

/** What was typed last, and over which cost. */
const Typed = z
  .object({ at: z.enum(['price', 'margin']), text: z.string(), cost: z.custom<Money>().nullable() })
  .nullable();
type Typed = z.infer<typeof Typed>;

interface Props {
  readonly item: Item;
  /** Null where it is not known: then no margin asks for a price. */
  readonly cost: Money | null;
  /** The price that a draft keeps until it is in use; left out where the price takes effect when it is saved. */
  readonly draft?: { readonly price: string; readonly onChange: (price: string) => void };
}

/** The sell price and its margin over the average cost: typing one gives the other, before anything is saved. */
export function PriceAndMargin({ item, cost, draft }: Props) {
  const notify = useNotify();
  const format = useFormat();
  const { currencyDecimals } = format;
  // A draft keeps its price itself.
  const screen = useTypedScreen(draft ? `draft-price.${item.id}` : `price.${item.id}`);
  const kept = useTyped(screen, 'typed', null, Typed);
  const here = useState<Typed>(null);
  const [typed, setTyped] = draft ? here : kept;
  const save = useCommand(
    'setPrices',
    (_, { body }) => {
      setTyped(null);
      screen.forget();
      notify({ text: `${item.name} sells at ${body.sellPrice} now.` });
    },
    screen.forget,
  );
  const known = draft?.price.trim() || item.sellPrice;
  // A margin was typed over the cost of then; what it came to stays, and says its margin anew.
  const meant = typed?.at === 'margin' && typed.cost !== cost ? null : typed;
  const { price, margin, fault } = priceAndMargin(meant, known, cost, currencyDecimals);
  const type = (at: 'price' | 'margin', text: string) => {
    setTyped({ at, text, cost });
    const next = priceAndMargin({ at, text }, known, cost, currencyDecimals);
    if (draft && next.fault === undefined) draft.onChange(next.price === item.sellPrice ? '' : next.price);
  };
  const differs =
    fault === undefined &&
    price !== '' &&
    (item.sellPrice === null || parseMoney(price) !== parseMoney(item.sellPrice));
  const dirty = typed !== null && differs;
  return (
    <>
      <Pair
        onSubmit={(event) => {
          event.preventDefault();
          if (!draft && dirty && !save.isPending)
            save.mutate({ params: { id: item.id }, body: { sellPrice: price, version: item.version } });
        }}
      >
        <Field
          label="Sells at"
          numeric
          value={meant?.at === 'price' ? meant.text : price}
          onChange={(text) => type('price', text)}
          error={meant?.at === 'price' ? fault : undefined}
        />
        <Field
          label="Margin"
          numeric
          suffix="%"
          isDisabled={cost === null}
          value={meant?.at === 'margin' ? meant.text : margin}
          onChange={(text) => type('margin', text)}
          error={meant?.at === 'margin' ? fault : undefined}
        />
        {draft && differs && (
          <Faint as="small">
            Sells at {format.money(price)} once this revision is in use
            {item.sellPrice !== null && `, until then at ${format.money(item.sellPrice)}`}.
          </Faint>
        )}
        {!draft && dirty && (
          <Button type="submit" busy={save.isPending}>
            Save {price} as the price
          </Button>
        )}
      </Pair>
      {problemOf(save.error) && <ProblemBox error={save.error} />}
    </>
  );
}
