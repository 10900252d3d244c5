import type { FaultRow } from '@yosegi/contract';
import { faultsOf, priceFromParts } from '@yosegi/core/definitions';
import type { Money, Percent, Quantity } from '@yosegi/core/number';
import { decimalOrNull, orNull } from '../command/amounts.ts';
import { found } from '../command/doing.ts';
import { currencyDecimals } from '../command/money.ts';
import type { Reader } from '../db/database.ts';
import { averageCostOf } from '../items/index.ts';
import { type LoadedRevision, loadJudged, unitCostOrNull } from './inuse.sql.ts';
import type { DefinitionRecord } from './sql.ts';

/** Definitions with something to put right: the revision in use is judged, or the newest while none is. */
export async function listFaults(db: Reader): Promise<FaultRow[]> {
  const loaded = await loadJudged(db);
  const decimals = await currencyDecimals(db);
  const records = await db.models.definition.findAll();
  const byId = new Map(records.map((record) => [record.id, record]));
  return loaded.flatMap((one): FaultRow[] => {
    const record = byId.get(one.revision.definition_id);
    if (!record || one.product.archived_at !== null) return [];
    const cost = unitCostOrNull(one.core, (itemId) => averageCostOf(found(one.parts.get(itemId))));
    const price = orNull(() => priceOf(record, one, decimals));
    const faults = faultsOf({
      purpose: record.purpose,
      hasRevisionInUse: one.revision.state === 'in-use',
      unitCost: cost,
      price,
      parts: one.lines.flatMap((line) => {
        const part = line.item_id === null ? undefined : one.parts.get(line.item_id);
        return part ? { itemId: part.id, unitCost: averageCostOf(part), archived: part.archived_at !== null } : [];
      }),
    });
    if (faults.length === 0) return [];
    const about = (id: number) => {
      const { code, name } = found(one.parts.get(id));
      return { id, code, name };
    };
    return [
      {
        id: record.id,
        itemId: one.product.id,
        code: one.product.code,
        name: one.product.name,
        purpose: record.purpose,
        faults: faults.map(({ fault, itemIds }) => ({ fault, parts: itemIds.map(about) })),
        unitCost: decimalOrNull(cost),
        sellPrice: decimalOrNull(price),
      },
    ];
  });
}

/** What one sells at: its own price, or its parts' prices less the discount; null when a price is missing. */
function priceOf(
  record: DefinitionRecord,
  { product, lines, parts, revision }: LoadedRevision,
  decimals: number,
): Money | null {
  if (record.price_from === 'own') return product.sell_price;
  const priced = lines.flatMap((line) =>
    line.item_id === null
      ? []
      : { quantity: line.amount as Quantity, price: found(parts.get(line.item_id)).sell_price as Money | null },
  );
  return priceFromParts(priced, revision.output_quantity as Quantity, record.discount as Percent, decimals);
}
