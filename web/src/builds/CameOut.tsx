import { type api, Item, type Problem } from '@yosegi/contract';
import type { Input } from '@yosegi/contract/client';
import { X } from 'lucide-react';
import { z } from 'zod';
import { useQuestion } from '../api/client.ts';
import { InFields } from '../lines/InFields.tsx';
import { NOTHING_TYPED, namedInOf, TypedTrack } from '../lines/typed.ts';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { Cell } from '../ui/layout.ts';
import { plainTyped } from '../ui/measuring.ts';
import { shelfOptions } from '../ui/shelves.ts';
import { H2, Part, Section } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Muted, Row } from '../ui/text.ts';

/** What the list needs to know of an item, wherever it was found. */
const OutItem = Item.pick({
  id: true,
  code: true,
  name: true,
  unit: true,
  decimals: true,
  measures: true,
  tracking: true,
  homeBinId: true,
});

/** A part that came out of what is reworked, as a person types it. */
export const TypedOut = z.object({
  item: OutItem,
  quantity: z.string(),
  went: z.enum(['stock', 'scrap', 'back-in']),
  share: z.string(),
  binId: z.string(),
  track: TypedTrack,
});
export type TypedOut = Readonly<z.infer<typeof TypedOut>>;
type Way = TypedOut['went'];

/** The same as the wire takes it. */
export const outLines = (out: readonly TypedOut[]): NonNullable<Input<typeof api.finish>['body']['out']> =>
  out.map(({ item, quantity, went, share, binId, track }) => ({
    itemId: item.id,
    quantity: plainTyped(quantity, item),
    went,
    share: share.trim() || '0',
    binId: Number(binId) || null,
    ...namedInOf(item, track),
  }));

interface Props {
  /** What is reworked: its take-apart shares tell what a part is worth of it. */
  readonly itemId: number;
  readonly out: readonly TypedOut[];
  readonly onChange: (out: readonly TypedOut[]) => void;
  readonly refused: Problem | null;
  /** What is wrong with the shares, all together. */
  readonly fault: string | undefined;
}

/** What was taken out of the unit, what becomes of it, and how much of the unit's worth goes with it. */
export function CameOut({ itemId, out, onChange, refused, fault }: Props) {
  const apart = useQuestion('apartPlan', { params: { id: itemId }, query: {} });
  const shareOf = (part: number) => apart.data?.lines.find((line) => line.itemId === part)?.share ?? '0';
  const stores = useQuestion('stores', {}).data ?? [];
  const set = (at: number, part: Partial<TypedOut>) =>
    onChange(out.map((one, index) => (index === at ? { ...one, ...part } : one)));
  const wrong = (index: number, name: string) =>
    refused?.field === `out.${index}.${name}` ? refused.detail : undefined;
  return (
    <Section $top={22} aria-label="Parts that came out">
      <H2 $bottom={4}>What came out?</H2>
      <Muted>Parts to stock or scrap take their share of the value. The rest stays with the piece.</Muted>
      {out.map((one, index) => (
        <Row key={one.item.id} $gap={8} $wrap $end $top={8}>
          <Part $width={220}>
            <Cell>
              <Tile code={one.item.code} size={28} />
              <b>{one.item.name}</b>
            </Cell>
          </Part>
          <Part $width={90}>
            <Field
              label="Quantity"
              numeric
              value={one.quantity}
              onChange={(quantity) => set(index, { quantity })}
              suffix={one.item.unit}
              error={wrong(index, 'quantity')}
            />
          </Part>
          <Part $width={150}>
            <Choice
              label="Goes to"
              value={one.went}
              onChange={(went) => set(index, { went: went as Way })}
              options={[
                ['stock', 'back to stock'],
                ['scrap', 'to scrap'],
                ['back-in', 'back in again'],
              ]}
            />
          </Part>
          {one.went !== 'back-in' && (
            <Part $width={80}>
              <Field
                label="Share %"
                numeric
                value={one.share}
                onChange={(share) => set(index, { share })}
                error={fault ?? wrong(index, 'share') ?? (refused?.field === 'out' ? refused.detail : undefined)}
              />
            </Part>
          )}
          {one.went === 'stock' && (
            <Part $width={170}>
              <Choice
                label="Into bin"
                value={one.binId}
                onChange={(binId) => set(index, { binId })}
                options={[['', 'its usual bin'], ...shelfOptions(stores)]}
                error={wrong(index, 'binId')}
              />
            </Part>
          )}
          <Button
            look="ghost"
            aria-label={`Leave ${one.item.name} out`}
            onPress={() => onChange(out.filter((_, at) => at !== index))}
          >
            <X size={16} aria-hidden />
          </Button>
          {one.went === 'stock' && one.item.tracking !== 'none' && (
            <InFields
              item={one.item}
              typed={one.track}
              onChange={(track) => set(index, { track })}
              quantity={Number(one.quantity) || 0}
              errorAt={(name) => wrong(index, name)}
              mayReturn
            />
          )}
        </Row>
      ))}
      <Part $width={320} $top={8}>
        <ItemPicker
          label="Add a part that came out"
          placeholder="Code, name or scan"
          counted
          onPick={(item, _, many) => {
            if (!out.some((one) => one.item.id === item.id)) onChange([...out, newOut(item, many, shareOf(item.id))]);
          }}
        />
      </Part>
    </Section>
  );
}

export const newOut = (item: TypedOut['item'], quantity = '1', share = '0', went: Way = 'stock'): TypedOut => ({
  item,
  quantity,
  went,
  share,
  binId: '',
  track: NOTHING_TYPED,
});
