import type { ReorderProposals, ReorderRow } from '@yosegi/contract';
import { DAYS_OF_USE, proposeReorder, useSince } from '@yosegi/core/buying';
import { groupBy } from '@yosegi/core/lists';
import { countedIn, divide, type Quantity, ZERO } from '@yosegi/core/number';
import { decimal, decimalOrNull } from '../command/amounts.ts';
import { type BodyOf, type Doing, found, required } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { updateVersioned } from '../db/versions.ts';
import { itemRow, toItem } from '../items/index.ts';
import { readLeads } from './leads.ts';
import { itemsToBuy, type OfferRow, offersFor, usualSuppliers } from './list.sql.ts';
import { usesSince } from './reorder.sql.ts';

/** Reorder points of what is bought and used, with what its use and its deliveries propose. */
export async function reorderProposals(db: Reader, today: string): Promise<ReorderProposals> {
  const since = useSince(today);
  const uses = groupBy(await usesSince(db, since), ({ item_id }) => item_id);
  const items = await itemsToBuy(db, [...uses.keys()]);
  const ids = items.map(({ id }) => id);
  const leads = await leadsOf(db, ids, today);
  return {
    since,
    rows: items.map((item): ReorderRow => {
      const lead = leads.get(item.id);
      const days = lead?.days ?? null;
      const own = uses.get(item.id) ?? [];
      const proposal = days === null ? null : proposeReorder(own, days);
      const used = own.reduce((sum, { quantity }) => sum + BigInt(quantity), 0n);
      return {
        itemId: item.id,
        code: item.code,
        name: item.name,
        unit: item.unit,
        decimals: item.decimals,
        version: item.version,
        point: decimalOrNull(item.reorder_point),
        proposed: decimalOrNull(proposal?.point ?? null),
        perWeek: decimal(divide(used * 7n, BigInt(DAYS_OF_USE), 'nearest')),
        from: proposal?.from ?? null,
        days,
        supplier: lead?.supplier ?? null,
        learnt: lead?.learnt ?? null,
      };
    }),
  };
}

interface Lead {
  readonly supplier: string;
  readonly days: number | null;
  readonly learnt: ReorderRow['learnt'];
}

/** How long slow deliveries of items take: of who brought them last, or would for least. */
async function leadsOf(db: Reader, ids: readonly number[], today: string): Promise<Map<number, Lead>> {
  const offers = groupBy(await offersFor(db, ids), ({ item_id }) => item_id);
  const usual = await usualSuppliers(db, ids);
  const chosen = new Map<number, OfferRow>();
  for (const [itemId, own] of offers) {
    const [cheapest] = [...own].sort((a, b) => a.price - b.price || a.supplier_id - b.supplier_id);
    const offer = own.find(({ supplier_id }) => supplier_id === usual.get(itemId)) ?? cheapest;
    if (offer) chosen.set(itemId, offer);
  }
  const leads = new Map<number, Lead>();
  for (const [supplierId, own] of groupBy(chosen.values(), ({ supplier_id }) => supplier_id)) {
    const known = await readLeads(db, supplierId, today);
    for (const { item_id, supplier, lead_days } of own) {
      const learnt = known.learntOf(item_id);
      const counts = known.learns || lead_days === null ? learnt : null;
      leads.set(item_id, {
        supplier,
        days: counts === null ? lead_days : Math.max(counts.slow, lead_days ?? 0),
        learnt: learnt && { deliveries: learnt.deliveries, usual: learnt.usual },
      });
    }
  }
  return leads;
}

/** Sets reorder points. @throws Refusal `stale-save` where an item was changed meanwhile, naming its place in the list */
export async function setReorderPoints(doing: Doing, { points }: BodyOf<'setReorderPoints'>) {
  const { tx } = doing;
  const before: { itemId: number; point: string | null; version: number }[] = [];
  for (const [index, { itemId, point, version }] of points.entries()) {
    const item = found(await itemRow(tx, itemId));
    const reorder_point = point === null ? null : countedIn(point, item.decimals, `points.${index}.point`);
    const values = { reorder_point: reorder_point === ZERO ? null : (reorder_point as Quantity | null) };
    await updateVersioned(tx, 'item', itemId, version, values, async () => toItem(found(await itemRow(tx, itemId))));
    const saved = required(await tx.models.item.findByPk(itemId, { attributes: ['version'] }));
    before.push({ itemId, point: decimalOrNull(item.reorder_point), version: saved.version });
  }
  doing.changed('items', 'buying');
  return { before };
}
