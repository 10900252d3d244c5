import { files } from '@yosegi/contract';
import { harmless } from '@yosegi/core/exchange';
import { currencyText, decimalsOf, formatDecimal, lineAmount } from '@yosegi/core/number';
import { type OrderDocument, writeOrder } from '@yosegi/core/ubl';
import type { FastifyInstance } from 'fastify';
import Papa from 'papaparse';
import { mountFile, sendFile } from '../http/files.ts';
import type { Mounting } from '../http/mounting.ts';
import { orderDocument } from './outbox.ts';

/** Orders as files, as they go to a supplier. */
export function mountOrderFiles(app: FastifyInstance, mounting: Mounting): void {
  const order = (id: number) => orderDocument(mounting.database.reader, id, mounting.clock.now());
  mountFile(app, mounting, files.orderCsv, async ({ params }, reply) => {
    const document = await order(params.id);
    return sendFile(reply, 'text/csv; charset=utf-8', `${document.number}.csv`, orderCsv(document));
  });
  mountFile(app, mounting, files.orderUbl, async ({ params }, reply) => {
    const document = await order(params.id);
    return sendFile(reply, 'application/xml', `${document.number}.xml`, writeOrder(document));
  });
}

const TITLES = ['Order', 'Line', 'Your code', 'Our code', 'Name', 'Quantity', 'Unit', 'Price', 'Amount', 'Wanted on'];

/** In UTF-8 with a mark and without live formulas, so that every spreadsheet reads it right. */
function orderCsv(order: OrderDocument): string {
  const decimals = decimalsOf(order.currency);
  const rows = order.lines.map((line) => [
    order.number,
    line.id,
    line.supplierCode,
    line.code,
    line.name,
    formatDecimal(line.quantity),
    line.unit,
    formatDecimal(line.price),
    currencyText(lineAmount(line.quantity, line.price, decimals), decimals),
    line.wantedOn ?? order.wantedOn ?? '',
  ]);
  return `\ufeff${Papa.unparse([TITLES, ...rows.map((row) => row.map(harmless))], { newline: '\r\n' })}\r\n`;
}
