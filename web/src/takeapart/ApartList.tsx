import type { api } from '@yosegi/contract';
import type { Input } from '@yosegi/contract/client';
import { X } from 'lucide-react';
import { z } from 'zod';
import { useFormat } from '../ui/format.ts';
import { IconButton } from '../ui/IconButton.ts';
import { Section } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Push, Row } from '../ui/text.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';

type Product = NonNullable<Input<(typeof api)['takeApart']>['body']['others']>[number];

/** A product that is ready to be taken apart with others. */
const Listed = z.object({
  code: z.string(),
  says: z.string(),
  value: z.string(),
  writtenOff: z.string(),
  product: z.custom<Product>((product) => typeof product === 'object' && product !== null),
});
export type Listed = Readonly<z.infer<typeof Listed>>;

/** Products that are taken apart in one document with the next, kept until it is posted. */
export function useApartList(): [list: readonly Listed[], set: (list: readonly Listed[]) => void] {
  const screen = useTypedScreen('apart.list');
  return useTyped<readonly Listed[]>(screen, 'products', [], z.array(Listed));
}

export function ApartList({
  list,
  onChange,
}: {
  list: readonly Listed[];
  onChange: (list: readonly Listed[]) => void;
}) {
  const format = useFormat();
  if (list.length === 0) return null;
  return (
    <Section aria-label="Taken apart with it">
      <h2>In the same document</h2>
      {list.map((one, index) => (
        <Row key={`${one.code} ${one.says}`} $gap={10} $top={6}>
          <Tile code={one.code} size={28} />
          <span>
            <b>{one.says}</b>
            <br />
            <Faint>
              {format.money(one.value)}, of it {format.money(one.writtenOff)} written off
            </Faint>
          </span>
          <Push />
          <IconButton aria-label={`Leave ${one.says} out`} onPress={() => onChange(list.toSpliced(index, 1))}>
            <X size={16} aria-hidden />
          </IconButton>
        </Row>
      ))}
    </Section>
  );
}
