import type { Item, Kit } from '@yosegi/contract';
import { readForText } from '@yosegi/core/number';
import { problemAt } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { QuantityCell } from '../ui/Cells.tsx';
import { Choice } from '../ui/Choice.tsx';
import { useFormat } from '../ui/format.ts';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { Cell } from '../ui/layout.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late } from '../ui/text.ts';
import { amountFault, type TypedPart, withAmount, withItem } from './kit.ts';

interface Props {
  readonly kit: Kit;
  /** What is otherwise than the bill of materials has it; null: as it was on this line. */
  readonly typed: readonly TypedPart[] | null;
  readonly onChange: (typed: readonly TypedPart[]) => void;
  readonly error: unknown;
  /** Of its line in what is sent. */
  readonly index: number;
}

/** The parts of a kit under its line: how many of each, and what stands in, as far as the kit's switches allow. */
export function KitRows({ kit, typed, onChange, error, index }: Props) {
  const format = useFormat();
  return kit.parts.map((part) => {
    const own = typed?.find(({ position }) => position === part.position);
    const amount = own?.amount ?? part.amount;
    const isChanged = part.item.id !== part.base.id || readForText(part.amount) !== readForText(part.baseAmount);
    const at = typed?.findIndex(({ position }) => position === part.position) ?? -1;
    const refused = (name: string) => (at < 0 ? undefined : problemAt(error, `lines.${index}.contents.${at}.${name}`));
    return (
      <tr key={part.position} data-part>
        <td className="inset">
          <Cell>
            <Tile code={part.item.code} size={22} />
            <span>
              {part.item.name}
              {part.item.id !== part.base.id && <Faint> ⇄ for {part.base.name}</Faint>}
              {part.missing !== '0' && (
                <>
                  <br />
                  <Late>
                    {format.quantity(part.missing, part.item.unit, part.item.decimals)} missing,{' '}
                    {part.completeOn === null ? 'no date yet' : format.day(part.completeOn)}
                  </Late>
                </>
              )}
            </span>
          </Cell>
        </td>
        <td className="num">
          {kit.onOrder === 'locked' ? (
            format.quantity(amount, part.item.unit, part.item.decimals)
          ) : (
            <QuantityCell
              label={`In one kit, ${part.base.name}`}
              value={amount}
              unit={part.item.unit}
              onChange={(text) => onChange(withAmount(kit, typed, part.position, text))}
              error={amountFault(amount, part.item) ?? refused('amount')}
            />
          )}
        </td>
        <td colSpan={4}>
          {kit.onOrder === 'swaps' && (
            <Swap
              kit={kit}
              part={part}
              onSwap={(item, ratio) => onChange(withItem(kit, typed, part.position, item, ratio))}
              error={refused('itemId')}
            />
          )}
        </td>
        <td colSpan={2} className="num">
          {isChanged && (
            <Button look="ghost" onPress={() => onChange(withItem(kit, typed, part.position, part.base, null))}>
              Put back {readForText(part.baseAmount) === 0n ? '' : format.number(part.baseAmount)}
            </Button>
          )}
        </td>
      </tr>
    );
  });
}

/** What may stand in: one of the alternates, or any item. */
function Swap({
  kit,
  part,
  onSwap,
  error,
}: {
  kit: Kit;
  part: Kit['parts'][number];
  onSwap: (item: Kit['parts'][number]['item'], ratio: string | null) => void;
  error: string | undefined;
}) {
  if (kit.swapFor === 'anything')
    return (
      <ItemPicker
        label={`Swap ${part.base.name} for`}
        hideLabel
        placeholder="Swap it for another item"
        onPick={(item: Item) => onSwap(item, '1')}
      />
    );
  if (part.alternates.length === 0) return <Faint>no alternate listed</Faint>;
  const choices = [{ item: part.base, ratio: null }, ...part.alternates];
  return (
    <Choice
      label={`Packed as ${part.base.name}`}
      hideLabel
      value={String(part.item.id)}
      onChange={(id) => {
        const chosen = choices.find(({ item }) => String(item.id) === id);
        if (chosen) onSwap(chosen.item, chosen.ratio);
      }}
      options={choices.map(({ item }): [string, string] => [String(item.id), item.name])}
      error={error}
    />
  );
}
