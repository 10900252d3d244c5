import type { FaultRow } from '@yosegi/contract';
import { type DefinitionFault, faultsOf, priceFromParts } from '@yosegi/core/definitions';
import type { Money, Quantity } from '@yosegi/core/number';
import { decimalOrNull, orNull } from '../command/amounts.ts';
import { found } from '../command/doing.ts';
import { currencyDecimals } from '../command/money.ts';
import type { Reader } from '../db/database.ts';
import { averageCostOf, costFrom } from '../items/index.ts';
import { type LoadedRevision, loadJudged, unitCostOrNull } from './inuse.sql.ts';
import type { DefinitionRecord } from './sql.ts';

/** A definition as it is judged: what one costs and sells at, and what is wrong with it. */
export interface Judged {
  readonly record: DefinitionRecord;
  readonly loaded: LoadedRevision;
  readonly unitCost: Money | null;
  /** Some cost in it is not known: it costs at least so much. */
  readonly isAtLeast: boolean;
  readonly price: Money | null;
  readonly faults: readonly DefinitionFault[];
}

/** All definitions of products that are not archived: the revision in use is judged, or the newest while none is. */
export async function judgeAll(db: Reader): Promise<Judged[]> {
  const all = await loadJudged(db);
  const decimals = await currencyDecimals(db);
  const records = await db.models.definition.findAll();
  const byId = new Map(records.map((record) => [record.id, record]));
  return all.flatMap((loaded): Judged[] => {
    const record = byId.get(loaded.revision.definition_id);
    if (!record || loaded.product.archived_at !== null) return [];
    const unitCost = unitCostOrNull(loaded.core, (itemId) => averageCostOf(found(loaded.parts.get(itemId))));
    const price = orNull(() => priceOf(record, loaded, decimals));
    const faults = faultsOf({
      purpose: record.purpose,
      hasRevisionInUse: loaded.revision.state === 'in-use',
      unitCost,
      price,
      parts: loaded.lines.flatMap((line) => {
        const part = line.item_id === null ? undefined : loaded.parts.get(line.item_id);
        return part ? { itemId: part.id, unitCost: averageCostOf(part), archived: part.archived_at !== null } : [];
      }),
    });
    const isAtLeast = loaded.lines.some(({ item_id }) => {
      const from = item_id === null ? 'average' : costFrom(found(loaded.parts.get(item_id)));
      return from === 'none' || from === 'at-least';
    });
    return [{ record, loaded, unitCost, isAtLeast, price, faults }];
  });
}

/** Definitions with something to put right. */
export async function listFaults(db: Reader): Promise<FaultRow[]> {
  const judged = await judgeAll(db);
  return judged
    .filter(({ faults }) => faults.length > 0)
    .map(({ record, loaded: { product, parts }, unitCost, price, faults }) => {
      const about = (id: number) => {
        const { code, name } = found(parts.get(id));
        return { id, code, name };
      };
      return {
        id: record.id,
        itemId: product.id,
        code: product.code,
        name: product.name,
        purpose: record.purpose,
        faults: faults.map(({ fault, itemIds }) => ({ fault, parts: itemIds.map(about) })),
        unitCost: decimalOrNull(unitCost),
        sellPrice: decimalOrNull(price),
      };
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
  return priceFromParts(priced, revision.output_quantity, record.discount, decimals);
}
