import type { CostEffect } from '@yosegi/contract';
import type { Money } from '@yosegi/core/number';
import { decimalOrNull } from '../command/amounts.ts';
import { found } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { averageCostOf } from '../items/index.ts';
import { unitCostOrNull, usesOf } from './inuse.sql.ts';

/** What one of each product would cost if a part of it cost `cost` apiece; everything else at its moving average. */
export async function costEffect(db: Reader, partId: number, cost: Money): Promise<CostEffect[]> {
  const uses = await usesOf(db, partId, ['build', 'rework']);
  return uses.map(({ revision, core, product, parts }) => {
    const now = (itemId: number) => averageCostOf(found(parts.get(itemId)));
    const before = unitCostOrNull(core, now);
    const after = unitCostOrNull(core, (itemId) => (itemId === partId ? cost : now(itemId)));
    return {
      definitionId: revision.definition_id,
      itemId: product.id,
      code: product.code,
      name: product.name,
      unit: product.unit,
      before: decimalOrNull(before),
      after: decimalOrNull(after),
      sellPrice: decimalOrNull(product.sell_price),
    };
  });
}
