import type { Behaviour, Definition, Purpose, Revision } from '@yosegi/contract';
import { priceFromParts } from '@yosegi/core/definitions';
import { formatDecimal, type Money, parsePercent, parseQuantity, type Quantity, readExact } from '@yosegi/core/number';
import type { Format } from '../ui/format.ts';
import { type Draft, plainAmount } from './draft.ts';

export const purposeName = (purpose: Purpose) =>
  ({ build: 'bill of materials', rework: 'rework', record: 'record only' })[purpose];

/** A revision's state in a word: a draft set for a later day waits for it. */
export const stateName = (revision: Pick<Revision, 'state' | 'inUseFrom'>) =>
  revision.state === 'draft' && revision.inUseFrom !== null ? 'scheduled' : revision.state.replace('-', ' ');

/** What will happen with one of this very kit, in a sentence for each place where its switches show. */
export interface Sentences {
  readonly order: string;
  readonly pickList: string;
  readonly shelf: string;
  readonly paperwork: string;
}

/** More than this and a sentence becomes a list. */
const MOST_NAMED = 4;

export function sentencesOf(
  { item, purpose }: Pick<Definition, 'item' | 'purpose'>,
  behaviour: Behaviour,
  draft: Draft,
  canMake: string | null,
  format: Format,
): Sentences {
  const parts = draft.lines.flatMap((line) => (line.item ? [{ ...line, item: line.item }] : []));
  const named = parts.map(
    (line) => `${format.quantity(plainAmount(line) ?? '0', line.item.unit, line.item.decimals)} × ${line.item.name}`,
  );
  const contents = listed(named);
  const each = format.quantity(draft.outputQuantity, item.unit, item.decimals);
  const one = Number(draft.outputQuantity) === 1 ? item.name : `${each} × ${item.name}`;
  if (purpose === 'record')
    return {
      order: `For the record only: the parts of a ${item.name} that a customer owns.`,
      pickList: 'Never built, so nothing is picked.',
      shelf: 'Moves no stock.',
      paperwork: `Service and warranty papers list ${contents}.`,
    };
  if (purpose === 'rework')
    return {
      order: `A used ${item.name} goes in and a refreshed one comes out.`,
      pickList: `The pick list of a rework shows ${contents}.`,
      shelf: `The ${item.name} that goes in and the parts leave their bins; the refreshed one goes to ${item.homeBin ?? 'its bin'}, worth both.`,
      paperwork: 'A rework is our own work: the customer reads nothing of it.',
    };
  return {
    order: `${orderSentence(item.name, behaviour, parts)} ${priceSentence(item.sellPrice, behaviour, draft, format)}`,
    pickList:
      behaviour.made === 'ahead'
        ? `A build’s pick list shows ${contents}. An order picks the finished ${item.name}.`
        : `An order’s pick list shows ${contents}, whatever the customer reads.`,
    shelf:
      behaviour.made === 'ahead'
        ? `A build turns the parts into stock of ${item.name}${item.homeBin ? ` in ${item.homeBin}` : ''}; ${format.quantity(item.onHand, item.unit, item.decimals)} on hand now.`
        : `${item.name} is never on a shelf. Its parts leave theirs when the order ships${canMake === null ? '' : `; ${format.number(canMake)} could be packed now`}.`,
    paperwork:
      behaviour.paperwork === 'one-line'
        ? `The customer reads one line: “${one}”.`
        : `The customer reads “${one}” and beneath it ${contents}.`,
  };
}

function orderSentence(
  name: string,
  { onOrder, swapFor }: Behaviour,
  parts: readonly { item: { name: string }; alternates: readonly { item: { name: string } }[] }[],
): string {
  if (onOrder === 'locked') return `An order takes ${name} as it is. Its parts can’t be changed.`;
  if (onOrder === 'quantities') return `On an order line, the quantity of each part may change, for that line only.`;
  if (swapFor === 'anything') return 'On an order line, any part may be swapped for any item, for that line only.';
  const swaps = parts.flatMap(({ item, alternates }) =>
    alternates.length > 0 ? [`${item.name} for ${alternates.map((one) => one.item.name).join(' or ')}`] : [],
  );
  return swaps.length > 0
    ? `On an order line, ${listed(swaps)} may be swapped, for that line only.`
    : 'On an order line, parts may be swapped for their listed alternates, but none lists any yet.';
}

function priceSentence(sellPrice: string | null, behaviour: Behaviour, draft: Draft, format: Format): string {
  if (behaviour.price === 'own')
    return sellPrice === null ? 'No price yet.' : `Sells at ${format.money(sellPrice)}, whatever is in the kit.`;
  const price = partsPrice(draft, behaviour.discount, format.currencyDecimals);
  const less = Number(behaviour.discount) > 0 ? ` less ${format.percent(behaviour.discount)}` : '';
  return price === null
    ? `Sells at the sum of its parts${less}; a part has no price yet.`
    : `Sells at the sum of its parts${less}: ${format.money(price)} now.`;
}

/** What one sells at when its parts make its price; null while a part has none. @param decimals of the currency */
export function partsPrice(draft: Draft, discount: string, decimals: number): string | null {
  try {
    const parts = draft.lines.flatMap((line) =>
      line.item
        ? {
            quantity: readExact(plainAmount(line) ?? '0') as Quantity,
            price: line.item.sellPrice === null ? null : (readExact(line.item.sellPrice) as Money),
          }
        : [],
    );
    const price = priceFromParts(parts, parseQuantity(draft.outputQuantity, 6), parsePercent(discount), decimals);
    return price === null ? null : formatDecimal(price);
  } catch {
    return null;
  }
}

function listed(names: readonly string[]): string {
  if (names.length === 0) return 'nothing yet';
  if (names.length <= MOST_NAMED) return names.join(', ');
  return `${names.slice(0, MOST_NAMED - 1).join(', ')} and ${names.length - MOST_NAMED + 1} more`;
}
