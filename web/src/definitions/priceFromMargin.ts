import { entryFault } from '@yosegi/contract/problems';
import { marginOf, priceForMargin } from '@yosegi/core/definitions';
import { formatDecimal, type Money, mulDiv, parseMoney, parsePercent, stepOf } from '@yosegi/core/number';

/**
 * Both figures from the one that was typed; a price from a margin is rounded up to the currency's smallest coin, so that the
 * margin is kept. Over a cost that is not known there is no margin, and none asks for a price.
 */
export function priceAndMargin(
  typed: { at: 'price' | 'margin'; text: string } | null,
  known: string | null,
  cost: Money | null,
  decimals: number,
) {
  const coin = stepOf(decimals);
  const marginText = (price: Money) => {
    const margin = cost === null ? null : marginOf(price, cost);
    return margin === null ? '' : formatDecimal(mulDiv(margin, 1, 100_000, 'nearest') * 100_000, 1);
  };
  try {
    if (typed?.at === 'margin' && cost !== null) {
      const exact = priceForMargin(cost, parsePercent(typed.text));
      if (exact === null) return { price: '', margin: typed.text, fault: 'Enter a margin below 100%.' };
      const price = formatDecimal(mulDiv(exact, 1, coin, 'up') * coin, decimals);
      return { price, margin: typed.text, fault: undefined };
    }
    const text = typed?.text.trim() ?? known ?? '';
    if (text === '') return { price: '', margin: '', fault: undefined };
    return { price: text, margin: marginText(parseMoney(text)), fault: undefined };
  } catch (error) {
    return { price: '', margin: '', fault: entryFault(error) };
  }
}
