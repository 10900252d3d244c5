import type { Shipment } from '@yosegi/contract';
import { lineAmount, sumForText } from '@yosegi/core/number';
import { decimal } from '../command/amounts.ts';
import { found } from '../command/doing.ts';
import { currencyDecimals } from '../command/money.ts';
import type { Reader } from '../db/database.ts';
import { parcelsOf, shipmentLines, shipmentParts, shipmentRecord } from './sql.ts';

/** What left with a shipment, line by line, as a packing slip shows it. */
export async function readShipment(db: Reader, id: number): Promise<Shipment> {
  const record = found(await shipmentRecord(db, id));
  const lines = await shipmentLines(db, id);
  const parts = await shipmentParts(db, id);
  const decimals = await currencyDecimals(db);
  return {
    id,
    number: record.number,
    orderId: record.order_id,
    order: record.sales_order,
    customer: record.customer,
    at: record.at,
    carrier: record.carrier,
    tracking: record.tracking,
    remark: record.remark,
    undone: record.undone === 1,
    parcels: (await parcelsOf(db, id)).map(({ number }) => number),
    worth: decimal(sumForText(lines.map(({ quantity, price }) => lineAmount(quantity, price, decimals)))),
    cost: decimal(sumForText(lines.map(({ cost }) => cost))),
    lines: lines.map((line) => ({
      lineId: line.line_id,
      code: line.code,
      name: line.name,
      unit: line.unit,
      decimals: line.decimals,
      quantity: decimal(line.quantity),
      price: decimal(line.price),
      cost: decimal(line.cost),
      hidden: line.paperwork === 'one-line',
      isKit: line.revision_id !== null,
      parts: parts
        .filter(({ line_id }) => line_id === line.line_id)
        .map(({ code, name, unit, decimals, quantity, tracking, pieces }) => ({
          code,
          name,
          unit,
          decimals,
          quantity: decimal(quantity),
          isSerial: tracking === 'serial',
          pieces: JSON.parse(pieces) as string[],
        })),
    })),
  };
}
