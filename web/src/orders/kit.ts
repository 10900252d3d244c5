import type { Kit } from '@yosegi/contract';
import { entryFault } from '@yosegi/contract/problems';
import { formatDecimal, fromZero, mulDiv, parseQuantity, readForText, SCALE, stepOf } from '@yosegi/core/number';
import { plainTyped, readTyped } from '../ui/measuring.ts';

type KitItem = Kit['parts'][number]['item'];

/** A part that is otherwise on this line than the bill of materials has it, as it is typed. */
export interface TypedPart {
  readonly position: number;
  readonly item: Pick<KitItem, 'id' | 'unit' | 'decimals' | 'measures'>;
  readonly amount: string;
}

/** Every part as it stands now: as typed, else as it is on the line. */
const standing = (kit: Kit, typed: readonly TypedPart[] | null): readonly TypedPart[] =>
  kit.parts.map(
    (part) =>
      typed?.find(({ position }) => position === part.position) ?? {
        position: part.position,
        item: part.item,
        amount: part.amount,
      },
  );

/** Only what is not as the bill of materials has it. */
const changed = (kit: Kit, parts: readonly TypedPart[]): TypedPart[] =>
  parts.filter((own) => {
    const part = kit.parts.find(({ position }) => position === own.position);
    return part && (own.item.id !== part.base.id || plainTyped(own.amount, own.item) !== part.baseAmount);
  });

/** The changes once so much of a part is in one kit. */
export const withAmount = (kit: Kit, typed: readonly TypedPart[] | null, position: number, amount: string) =>
  changed(
    kit,
    standing(kit, typed).map((own) => (own.position === position ? { ...own, amount } : own)),
  );

/**
 * The changes once another item stands in for a part, with as much as does for what the bill of materials has; the item
 * itself puts the part back.
 * @param ratio how much of it does for one; null for the part itself
 */
export const withItem = (
  kit: Kit,
  typed: readonly TypedPart[] | null,
  position: number,
  item: KitItem,
  ratio: string | null,
) =>
  changed(
    kit,
    standing(kit, typed).map((own) => {
      const part = kit.parts.find((one) => one.position === position);
      if (own.position !== position || !part) return own;
      return { position, item, amount: ratio === null ? part.baseAmount : amountFor(part.baseAmount, ratio, item) };
    }),
  );

/** So much of another item as does for an amount, up to the next step of its unit. */
function amountFor(baseAmount: string, ratio: string, { decimals }: KitItem): string {
  const step = stepOf(decimals);
  const needed = mulDiv(parseQuantity(baseAmount, 6), parseQuantity(ratio, 6), SCALE * step, 'up');
  return formatDecimal(needed * step);
}

/** What is wrong with an amount, in words. */
export function amountFault(text: string, item: TypedPart['item']): string | undefined {
  try {
    fromZero(readTyped(text, item));
    return undefined;
  } catch (error) {
    return entryFault(error);
  }
}

/** The changes as they are sent; what cannot be read is left out where it is only asked about. */
export const wishesOf = (typed: readonly TypedPart[] | null, onlyReadable = false) =>
  typed === null
    ? null
    : typed
        .filter((own) => !onlyReadable || amountFault(own.amount, own.item) === undefined)
        .map(({ position, item, amount }) => ({ position, itemId: item.id, amount: plainTyped(amount, item) }));

/** How many of a kit's parts are otherwise than usual. */
export const changesIn = (kit: Kit): number =>
  kit.parts.filter((part) => part.item.id !== part.base.id || readForText(part.amount) !== readForText(part.baseAmount))
    .length;
