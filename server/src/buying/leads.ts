import { type ExpectedLead, expectedOn, type LearntLead, leadFor, learnLead } from '@yosegi/core/buying';
import { groupBy } from '@yosegi/core/lists';
import { required } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { readCalendar } from '../demand/index.ts';
import { deliveriesOf } from './leads.sql.ts';
import { offersFor } from './list.sql.ts';

/** How long deliveries of one supplier take. */
export interface LeadsOf {
  /** Learnt from deliveries of an item; where it never came, from all the supplier's. */
  learntOf(itemId: number): LearntLead | null;
  /** What is reckoned with. @param stated the supplier's own lead days for the item */
  leadOf(itemId: number, stated: number | null): ExpectedLead | null;
  /** The day on which what is ordered today is expected; null where nobody knows how long it takes. */
  expected(itemId: number, stated: number | null): string | null;
  /** Whether what was learnt counts. */
  readonly learns: boolean;
}

export async function readLeads(db: Reader, supplierId: number, today: string): Promise<LeadsOf> {
  const { learn_leads, delivery_days } = required(await db.models.supplier.findByPk(supplierId));
  const calendar = await readCalendar(db, today);
  const deliveryDays = new Set(JSON.parse(delivery_days) as number[]);
  const deliveries = await deliveriesOf(db, supplierId);
  const all = learnLead([...deliveries.values()].flat());
  const learns = learn_leads === 1;
  const learntOf = (itemId: number) => learnLead(deliveries.get(itemId) ?? []) ?? all;
  const leadOf = (itemId: number, stated: number | null) => leadFor(stated, learntOf(itemId), learns);
  return {
    learns,
    learntOf,
    leadOf,
    expected: (itemId, stated) => {
      const lead = leadOf(itemId, stated);
      return lead && expectedOn(lead.days, calendar, deliveryDays);
    },
  };
}

/** The day each item would come if it were ordered today of a supplier; items of which nobody knows are left out. */
export async function daysIfBought(
  db: Reader,
  items: readonly (readonly [itemId: number, supplierId: number])[],
  today: string,
): Promise<ReadonlyMap<number, string>> {
  const ids = items.map(([itemId]) => itemId);
  const offers = new Map((await offersFor(db, ids)).map((row) => [`${row.item_id}:${row.supplier_id}`, row.lead_days]));
  const days = new Map<number, string>();
  for (const [supplierId, own] of groupBy(items, ([, supplier]) => supplier)) {
    const leads = await readLeads(db, supplierId, today);
    for (const [itemId] of own) {
      const on = leads.expected(itemId, offers.get(`${itemId}:${supplierId}`) ?? null);
      if (on !== null) days.set(itemId, on);
    }
  }
  return days;
}
