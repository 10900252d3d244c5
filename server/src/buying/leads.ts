import { type ExpectedLead, expectedOn, type LearntLead, leadFor, learnLead } from '@yosegi/core/buying';
import { required } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { readCalendar } from '../demand/index.ts';
import { deliveriesOf } from './leads.sql.ts';

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
