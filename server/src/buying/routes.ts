import { type buyingRoutes, type mailRoutes, orderFilePath } from '@yosegi/contract';
import { harmless } from '@yosegi/core/exchange';
import { formatDecimal, worthForText } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { type OrderDocument, writeOrder } from '@yosegi/core/ubl';
import type { FastifyInstance } from 'fastify';
import Papa from 'papaparse';
import { admits } from '../http/admission.ts';
import { dayOf, type HandlersOf } from '../http/context.ts';
import type { Mounting } from '../http/mount.ts';
import { comingOf } from './coming.ts';
import { takeMail } from './inbox.ts';
import { buyList } from './list.ts';
import { cancelOrder, closeLines, confirmOrder, createOrders, saveOrder, sendOrder } from './orders.ts';
import { orderDocument } from './outbox.ts';
import { receiveOrder } from './receive.ts';
import { answerAsSupplier } from './standin.ts';
import { listMail, listOrders, readMail, readOrder } from './store.ts';
import { createSupplier, readSupplier, updateSupplier } from './suppliers.ts';

export const buyingHandlers: HandlersOf<typeof buyingRoutes & typeof mailRoutes> = {
  coming: ({ db, params, now }) => comingOf(db, params.id, dayOf(now)),
  supplier: ({ db, params }) => readSupplier(db, params.id),
  createSupplier: (command) => createSupplier(command, command.body),
  updateSupplier: (command) => updateSupplier(command, command.params.id, command.body),
  buyList: ({ db, query, now }) => buyList(db, query.by, dayOf(now)),
  orders: ({ db, query, now }) => listOrders(db, query, dayOf(now)),
  order: ({ db, params, now }) => readOrder(db, params.id, now),
  createOrders: async (command) => ({ orders: await createOrders(command, command.body.orders, command.body.send) }),
  saveOrder: (command) => saveOrder(command, command.params.id, command.body),
  sendOrder: (command) => sendOrder(command, command.params.id, command.body),
  confirmOrder: (command) => confirmOrder(command, command.params.id, command.body),
  closeOrder: (command) => closeLines(command, command.params.id, command.body),
  cancelOrder: (command) => cancelOrder(command, command.params.id, command.body.version),
  receiveOrder: (command) => receiveOrder(command, command.params.id, command.body),
  mail: ({ db, query }) => listMail(db, query),
  mailContent: ({ db, params }) => readMail(db, params.id),
  takeMail: (command) => takeMail(command, command.body.content),
  answerAsSupplier: (command) => answerAsSupplier(command, command.params.id, command.body),
};

type FileRoute = { Params: { id: string } };

/** Orders as files, beside the table of JSON routes. */
export function mountOrderFiles(app: FastifyInstance, mounting: Mounting): void {
  for (const format of ['csv', 'xml'] as const) {
    const options = { schema: { hide: true }, ...admits(mounting, 'person') };
    app.get<FileRoute>(orderFilePath(':id', format), options, async (request, reply) => {
      const id = Number(request.params.id);
      if (!Number.isSafeInteger(id) || id <= 0) throw new Refusal('not-found');
      const order = await orderDocument(mounting.database.reader, id, mounting.clock.now());
      return reply
        .type(format === 'csv' ? 'text/csv; charset=utf-8' : 'application/xml')
        .header('content-disposition', `attachment; filename="${order.number}.${format}"`)
        .header('cache-control', 'no-store')
        .send(format === 'csv' ? orderCsv(order) : writeOrder(order));
    });
  }
}

const TITLES = ['Order', 'Line', 'Your code', 'Our code', 'Name', 'Quantity', 'Unit', 'Price', 'Amount', 'Wanted on'];

/** In UTF-8 with a mark and without live formulas, so that every spreadsheet reads it right. */
function orderCsv(order: OrderDocument): string {
  const rows = order.lines.map((line) => [
    order.number,
    line.id,
    line.supplierCode,
    line.code,
    line.name,
    formatDecimal(line.quantity),
    line.unit,
    formatDecimal(line.price),
    formatDecimal(worthForText(line.quantity, line.price)),
    line.wantedOn ?? order.wantedOn ?? '',
  ]);
  return `\ufeff${Papa.unparse([TITLES, ...rows.map((row) => row.map(harmless))], { newline: '\r\n' })}\r\n`;
}
