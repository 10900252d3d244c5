import type { CostEffect } from '@yosegi/contract';
import { definitionCost } from '@yosegi/core/definition';
import type { Reader } from '../db/database.ts';
import { decimal, decimalOrNull, moneyFromZero } from '../http/amounts.ts';
import { found } from '../http/context.ts';
import { averageCostOf } from '../items/store.ts';
import { usesOf } from './inuse.ts';

/** What one of each product would cost if a part of it cost `typed` apiece; everything else at its moving average. */
export async function costEffect(db: Reader, partId: number, typed: string): Promise<CostEffect[]> {
  const cost = moneyFromZero(typed, 'cost');
  const uses = await usesOf(db, partId, ['build', 'rework']);
  return uses.map(({ revision, core, product, parts }) => {
    const now = (itemId: number) => averageCostOf(found(parts.get(itemId)));
    const before = definitionCost(core, now);
    const after = definitionCost(core, (itemId) => (itemId === partId ? cost : now(itemId)));
    return {
      definitionId: revision.definition_id,
      itemId: product.id,
      code: product.code,
      name: product.name,
      unit: product.unit,
      before: decimal(before.perUnit),
      after: decimal(after.perUnit),
      sellPrice: decimalOrNull(product.sell_price),
    };
  });
}
