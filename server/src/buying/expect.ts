import { dayOf, isPast } from '@yosegi/core/days';
import { Refusal } from '@yosegi/core/refusal';
import type { BodyOf, Doing } from '../command/doing.ts';
import { keepOrder } from './orders.ts';

/**
 * Expects lines of sent orders on other days. What a supplier promised stays on record: by that, being on time is measured.
 * @throws Refusal `unknown-line`, `day-passed`, each at its line
 */
export async function expectOn(doing: Doing, { lines }: BodyOf<'expectOn'>) {
  const { tx, now } = doing;
  const today = dayOf(now);
  const before: { lineId: number; on: string | null }[] = [];
  const orders = new Set<number>();
  for (const [index, { lineId, on }] of lines.entries()) {
    const line = await tx.models.purchase_order_line.findByPk(lineId);
    if (!line || line.open <= 0) throw new Refusal('unknown-line', {}, `lines.${index}.lineId`);
    // A day that has passed is only what it was before, taken back.
    const isKnown = on === line.promised_on || on === line.confirmed_on;
    if (isPast(on, today) && !isKnown) throw new Refusal('day-passed', {}, `lines.${index}.on`);
    before.push({ lineId, on: line.expected_on });
    await line.update({ expected_on: on });
    orders.add(line.order_id);
  }
  // Whoever has one of these orders open has not seen the day.
  for (const id of orders) {
    const order = await tx.models.purchase_order.findByPk(id);
    if (order) await keepOrder(doing, id, order.version, {});
  }
  doing.changed('buying', 'stock');
  return { before };
}
