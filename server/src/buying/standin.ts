import type { Numbered } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import { Refusal } from '@yosegi/core/refusal';
import { answerOrder } from '@yosegi/devices/mailbox';
import type { BodyOf, Doing } from '../command/doing.ts';
import { despatchesOf } from './announced.ts';
import { takeMail } from './inbox.ts';
import { orderLines, orderRecord } from './sql.ts';

/**
 * Lets the stand-in for a supplier's mailbox answer an order that was sent there. Its answer comes in by the same door as
 * any supplier's.
 * @throws Refusal `not-in-mailbox`, `nothing-to-send`
 */
export async function answerAsSupplier(
  doing: Doing,
  id: number,
  { answer, days }: BodyOf<'answerAsSupplier'>,
): Promise<Numbered> {
  const { tx, now } = doing;
  const order = await orderRecord(tx, id);
  const mail = await tx.models.mail.findOne({ where: { order_id: id, kind: 'order' }, order: [['id', 'DESC']] });
  if (!mail) throw new Refusal('not-in-mailbox', { number: order.number });
  const lines = await orderLines(tx, [id]);
  const n = await tx.models.mail.count({ where: { direction: 'in' } });
  const written = answerOrder(mail.content, {
    answer,
    days,
    today: dayOf(now),
    number: n + 1,
    sent: (await despatchesOf(tx, id)).map(({ despatch }) => despatch),
    keptBy: new Map(lines.map((line) => [String(line.position), line.tracking])),
    closed: new Set(lines.filter((line) => line.closed === 1).map((line) => String(line.position))),
  });
  if (written === null) throw new Refusal('nothing-to-send', { number: order.number });
  return takeMail(doing, written);
}
