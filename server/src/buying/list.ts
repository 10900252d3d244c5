import type { BuyRow, Offer } from '@yosegi/contract';
import { bestOffer, type Delivery, learnLead, shareAmongNeeds, toBuy } from '@yosegi/core/buying';
import type { Money, Quantity } from '@yosegi/core/number';
import { readShares } from '../builds/store.ts';
import type { Reader } from '../db/database.ts';
import { decimal, decimalOrNull, orNull } from '../http/amounts.ts';
import { found } from '../http/context.ts';
import { ITEM_SQL, type ItemRow, toMeasures } from '../items/store.ts';
import { deliveriesOf } from './leads.ts';

interface OfferRow {
  item_id: number;
  supplier_id: number;
  supplier_code: string;
  supplier: string;
  code: string;
  price: number;
  pack: number;
  minimum: number;
  lead_days: number | null;
}

/** What has to be bought so that every promise is kept and every reorder point is reached, with what it is for. */
export async function buyList(db: Reader, by: 'cheapest' | 'fastest', today: string): Promise<BuyRow[]> {
  const items = await db.all<ItemRow & { drafted: number; ordered: number }>(
    `SELECT * FROM (SELECT i.*,
         ifnull((SELECT sum(quantity) FROM purchase_coming WHERE item_id = i.id), 0) AS ordered,
         ifnull((SELECT sum(l.quantity) FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id
           WHERE l.item_id = i.id AND o.state = 'draft'), 0) AS drafted
       FROM (${ITEM_SQL}) i WHERE i.archived_at IS NULL AND i.source <> 'made')
     WHERE usable + coming + drafted - promised < ifnull(reorder_point, 0) ORDER BY code COLLATE NOCASE`,
  );
  const offers = await db.all<OfferRow>(
    `SELECT p.item_id, p.supplier_id, s.code AS supplier_code, s.name AS supplier, p.code, p.price, p.pack, p.minimum, p.lead_days
     FROM item_supplier p JOIN supplier s ON s.id = p.supplier_id WHERE p.item_id IN (SELECT value FROM json_each($1))`,
    [JSON.stringify(items.map(({ id }) => id))],
  );
  const learnt = new Map<number, Map<number, Delivery[]>>();
  for (const supplierId of new Set(offers.map((offer) => offer.supplier_id)))
    learnt.set(supplierId, await deliveriesOf(db, supplierId, [...new Set(offers.map((offer) => offer.item_id))]));
  const learntOf = (row: OfferRow) => learnLead(learnt.get(row.supplier_id)?.get(row.item_id) ?? []);
  const waiting = await buildsShortOf(db, today);
  return items.map((item): BuyRow => {
    const standing = {
      usable: item.usable as Quantity,
      promised: item.promised as Quantity,
      coming: (item.coming + item.drafted) as Quantity,
      reorderPoint: item.reorder_point as Quantity | null,
    };
    const needed = toBuy(standing);
    const own = offers.filter((offer) => offer.item_id === item.id);
    // What really happened counts for more than what was stated.
    const offered = own.map((row) => toCore(row, learntOf(row)?.usual ?? row.lead_days));
    // Packs so large that what they come to cannot be kept are no help in choosing.
    const best = orNull(() => bestOffer(offered, needed, by));
    const quantity = best?.quantity ?? needed;
    const builds = waiting.get(item.id) ?? [];
    const covered = (item.ordered + item.drafted) as Quantity;
    return {
      itemId: item.id,
      code: item.code,
      name: item.name,
      unit: item.unit,
      decimals: item.decimals,
      measures: toMeasures(item.measures),
      usable: decimal(item.usable),
      promised: decimal(item.promised),
      coming: decimal(item.coming),
      drafted: decimal(item.drafted),
      reorderPoint: decimalOrNull(item.reorder_point),
      needed: decimal(needed),
      short: decimal(toBuy({ ...standing, reorderPoint: null })),
      needs: shareAmongNeeds(quantity, builds, covered).map((share) => {
        const build = found(builds.find((one) => one.buildId === share.buildId));
        return {
          buildId: build.buildId,
          build: build.number,
          product: build.product,
          quantity: decimal(share.quantity),
        };
      }),
      offers: own
        .sort(
          (a, b) => Number(b.supplier_id === best?.offer.supplierId) - Number(a.supplier_id === best?.offer.supplierId),
        )
        .map((row) => toOffer(row, learntOf(row))),
      quantity: decimal(quantity),
    };
  });
}

/** Open builds by the part they lack, in the turn in which they are served. */
async function buildsShortOf(db: Reader, today: string) {
  const { allotments } = await readShares(db, today);
  const names = new Map(
    (
      await db.all<{ id: number; number: string; product: string }>(
        `SELECT b.id, b.number, i.name AS product FROM build b JOIN item i ON i.id = b.item_id
         WHERE b.state IN ('planned', 'on-bench')`,
      )
    ).map((row) => [row.id, row]),
  );
  const byItem = new Map<number, { buildId: number; number: string; product: string; short: Quantity }[]>();
  for (const { buildId, short } of allotments.values()) {
    const { number, product } = found(names.get(buildId));
    for (const [itemId, { quantity }] of short)
      byItem.set(itemId, [...(byItem.get(itemId) ?? []), { buildId, number, product, short: quantity }]);
  }
  return byItem;
}

const toCore = (row: OfferRow, leadDays: number | null) => ({
  supplierId: row.supplier_id,
  price: row.price as Money,
  pack: row.pack as Quantity,
  minimum: row.minimum as Quantity,
  leadDays,
});
const toOffer = (row: OfferRow, learnt: Offer['learnt']): Offer => ({
  supplierId: row.supplier_id,
  supplierCode: row.supplier_code,
  supplier: row.supplier,
  code: row.code,
  price: decimal(row.price),
  pack: decimal(row.pack),
  minimum: decimal(row.minimum),
  leadDays: row.lead_days,
  learnt,
});
