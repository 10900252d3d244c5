import type { BuyRow, Offer } from '@yosegi/contract';
import { bestOffer } from '@yosegi/core/buying';
import { missingByItem, type Pegged, type Source } from '@yosegi/core/demand';
import { add, type Quantity, ZERO } from '@yosegi/core/number';
import { decimal, decimalOrNull, orNull } from '../command/amounts.ts';
import { found, type QueryOf } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { readPeggingToBuy } from '../demand/index.ts';
import { breaksOf, toBreak, toMeasures } from '../items/index.ts';
import { type LeadsOf, readLeads } from './leads.ts';
import { buildNames, itemsToBuy, type OfferRow, offersFor, orderNames, usualSuppliers } from './list.sql.ts';

/**
 * What has to be bought so that every promise is kept and every reorder point is reached, or what is said to be needed
 * instead, with what it is for.
 */
export async function buyList(db: Reader, { by, need }: QueryOf<'buyList'>, today: string): Promise<BuyRow[]> {
  const pegging = (await readPeggingToBuy(db, today)).pegged.filter(({ short }) => short > 0);
  const missing = need ?? missingByItem(pegging);
  const items = await itemsToBuy(db, [...missing.keys()]);
  const offers = await offersFor(
    db,
    items.map(({ id }) => id),
  );
  const breaks = await breaksOf(
    db,
    items.map(({ id }) => id),
  );
  const leads = new Map<number, LeadsOf>();
  for (const supplierId of new Set(offers.map((offer) => offer.supplier_id)))
    leads.set(supplierId, await readLeads(db, supplierId, today));
  const leadsOf = (row: OfferRow) => found(leads.get(row.supplier_id));
  const usual = await usualSuppliers(
    db,
    items.map(({ id }) => id),
  );
  const waiting = await buildsShortOf(db, pegging);
  const ordered = await ordersShortOf(db, pegging);
  return items.map((item): BuyRow => {
    const needed = missing.get(item.id) ?? ZERO;
    const kept = need ? ZERO : add(ZERO, ...pegging.filter(isReorderOf(item.id)).map(({ short }) => short));
    const own = offers.filter((offer) => offer.item_id === item.id);
    const daysOf = (row: OfferRow) => leadsOf(row).leadOf(row.item_id, row.lead_days)?.days ?? null;
    const offered = own.map((row) => toCore(row, daysOf(row), breaksIn(breaks, row)));
    // Packs so large that what they come to cannot be kept are no help in choosing.
    const best = orNull(() => bestOffer(offered, needed, by, usual.get(item.id) ?? null));
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
      short: decimal(needed - kept),
      needs: waiting.get(item.id) ?? [],
      orders: ordered.get(item.id) ?? [],
      offers: own
        .sort(
          (a, b) => Number(b.supplier_id === best?.offer.supplierId) - Number(a.supplier_id === best?.offer.supplierId),
        )
        .map((row) => toOffer(row, leadsOf(row), breaksIn(breaks, row))),
      quantity: decimal(best?.quantity ?? needed),
    };
  });
}

const isReorderOf =
  (itemId: number) =>
  ({ demand: { source } }: Pegged) =>
    source.kind === 'reorder' && source.id === itemId;

/** Who is short of each item, in the turn in which they are served: sources of one kind by item, with how much. */
function shortOf(pegging: readonly Pegged[], kind: Source['kind']): Map<number, Map<number, Quantity>> {
  const byItem = new Map<number, Map<number, Quantity>>();
  for (const { demand, short } of pegging) {
    if (demand.source.kind !== kind) continue;
    const sources = byItem.get(demand.itemId) ?? new Map<number, Quantity>();
    sources.set(demand.source.id, add(sources.get(demand.source.id) ?? ZERO, short));
    byItem.set(demand.itemId, sources);
  }
  return byItem;
}

const idsIn = (byItem: ReadonlyMap<number, ReadonlyMap<number, Quantity>>) =>
  [...byItem.values()].flatMap((sources) => [...sources.keys()]);
const byId = <T extends { readonly id: number }>(rows: readonly T[]) => new Map(rows.map((row) => [row.id, row]));

async function buildsShortOf(db: Reader, pegging: readonly Pegged[]): Promise<Map<number, BuyRow['needs']>> {
  const byItem = shortOf(pegging, 'build');
  const names = byId(await buildNames(db, idsIn(byItem)));
  const need = ([buildId, quantity]: [number, Quantity]) => {
    const { number, product } = found(names.get(buildId));
    return { buildId, build: number, product, quantity: decimal(quantity) };
  };
  return new Map([...byItem].map(([itemId, builds]) => [itemId, [...builds].map(need)]));
}

async function ordersShortOf(db: Reader, pegging: readonly Pegged[]): Promise<Map<number, BuyRow['orders']>> {
  const byItem = shortOf(pegging, 'order');
  const names = byId(await orderNames(db, idsIn(byItem)));
  const need = ([orderId, quantity]: [number, Quantity]) => {
    const { number, customer } = found(names.get(orderId));
    return { orderId, number, customer, quantity: decimal(quantity) };
  };
  return new Map([...byItem].map(([itemId, orders]) => [itemId, [...orders].map(need)]));
}

type Breaks = Awaited<ReturnType<typeof breaksOf>>;

const breaksIn = (breaks: Breaks, { item_id, supplier_id }: OfferRow) => breaks.get(`${item_id}:${supplier_id}`) ?? [];

const toCore = (row: OfferRow, leadDays: number | null, breaks: ReturnType<typeof breaksIn>) => ({
  supplierId: row.supplier_id,
  price: row.price,
  pack: row.pack,
  minimum: row.minimum,
  breaks: breaks.map(({ from_quantity, price }) => ({ from: from_quantity, price })),
  leadDays,
});
const toOffer = (row: OfferRow, leads: LeadsOf, breaks: ReturnType<typeof breaksIn>): Offer => ({
  supplierId: row.supplier_id,
  supplierCode: row.supplier_code,
  supplier: row.supplier,
  code: row.code,
  price: decimal(row.price),
  pack: decimal(row.pack),
  minimum: decimal(row.minimum),
  leadDays: row.lead_days,
  breaks: breaks.map(toBreak),
  learnt: leads.learntOf(row.item_id),
  lead: leads.leadOf(row.item_id, row.lead_days),
  expectedOn: leads.expected(row.item_id, row.lead_days),
});
