import type { Doing } from '../command/doing.ts';
import { found } from '../command/doing.ts';
import { createOrder } from './save.ts';
import { orderLines, orderParts, orderRecord } from './sql.ts';

/**
 * Makes a quote of the same things: at today's prices, and of kits as they are in use now. What was changed in a kit is
 * changed again where it still is the same revision.
 */
export async function copyOrder(doing: Doing, id: number) {
  const { tx } = doing;
  const order = found(await orderRecord(tx, id));
  const lines = await orderLines(tx, [id]);
  const parts = await orderParts(
    tx,
    lines.map((line) => line.id),
  );
  const changed = (lineId: number) =>
    parts.filter(
      (part) => part.line_id === lineId && (part.item_id !== part.base_item_id || part.amount !== part.base_amount),
    );
  const isLater = (line: (typeof lines)[number]) => line.in_use !== line.revision && changed(line.id).length > 0;
  const copy = await createOrder(doing, {
    customerId: order.customer_id,
    reference: '',
    wantedOn: null,
    delivery: order.delivery,
    remark: order.remark,
    benchNote: order.bench_note,
    deliverTo: order.deliver_to,
    jobTag: order.job_tag,
    turnOn: null,
    orderDiscount: order.order_discount,
    freight: order.freight,
    confirm: false,
    lines: lines.map((line) => ({
      id: null,
      itemId: line.item_id,
      quantity: line.quantity,
      price: line.price_from === 'typed' ? line.list_price : null,
      discount: line.discount,
      wantedOn: null,
      contents: isLater(line)
        ? null
        : changed(line.id).map(({ position, item_id, amount }) => ({ position, itemId: item_id, amount })),
    })),
  });
  return { ...copy, unchanged: lines.filter(isLater).map(({ name }) => name) };
}
