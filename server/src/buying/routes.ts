import type { buyingRoutes, mailRoutes, receiptRoutes, reorderRoutes, supplierRoutes } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import { type HandlersOf, Prepared, signedIn } from '../command/doing.ts';
import { readInThread, type WorkThreads } from '../exchange/index.ts';
import { comingOf } from './coming.ts';
import { expectOn } from './expect.ts';
import { takeMail } from './inbox.ts';
import { buyList } from './list.ts';
import { cancelOrder, closeLines, confirmOrder, createOrders, saveOrder, sendOrder } from './orders.ts';
import { postPrices, receiptPrices } from './prices.ts';
import { receive } from './receipts.ts';
import { receiveOrder } from './receive.ts';
import { reorderProposals, setReorderPoints } from './reorder.ts';
import { countOrders, listMail, listOrders, readMail, readOrder } from './sql.ts';
import { answerAsSupplier } from './standin.ts';
import { listSuppliers } from './suppliers.sql.ts';
import { createSupplier, readSupplier, updateSupplier } from './suppliers.ts';

export const buyingHandlers = (
  threads: WorkThreads,
): HandlersOf<
  typeof buyingRoutes & typeof supplierRoutes & typeof mailRoutes & typeof receiptRoutes & typeof reorderRoutes
> => ({
  coming: ({ db, params, now }) => comingOf(db, params.id, dayOf(now)),
  suppliers: ({ db }) => listSuppliers(db),
  supplier: ({ db, params, now }) => readSupplier(db, params.id, dayOf(now)),
  createSupplier: (command) => createSupplier(command, command.body),
  updateSupplier: (command) => updateSupplier(command, command.params.id, command.body),
  buyList: ({ db, query, now }) => buyList(db, query, dayOf(now)),
  reorderProposals: ({ db, now }) => reorderProposals(db, dayOf(now)),
  setReorderPoints: (command) => setReorderPoints(command, command.body),
  purchaseCounts: ({ db, now }) => countOrders(db, dayOf(now)),
  purchases: ({ db, query, now }) => listOrders(db, query, dayOf(now)),
  purchase: ({ db, params, now }) => readOrder(db, params.id, now),
  createPurchases: async (command) => ({ orders: await createOrders(command, command.body.orders, command.body.send) }),
  savePurchase: (command) => saveOrder(command, command.params.id, command.body),
  sendPurchase: (command) => sendOrder(command, command.params.id, command.body),
  expectOn: (command) => expectOn(command, command.body),
  confirmPurchase: (command) => confirmOrder(command, command.params.id, command.body),
  closePurchase: (command) => closeLines(command, command.params.id, command.body),
  cancelPurchase: (command) => cancelOrder(command, command.params.id, command.body.version),
  receivePurchase: (command) => receiveOrder(command, command.params.id, command.body),
  receive: (command) => receive(command, command.body),
  receiptPrices: ({ db, params }) => receiptPrices(db, params.id),
  postPrices: (command) => postPrices(command, command.params.id, command.body),
  mail: ({ db, query }) => listMail(db, query),
  mailContent: ({ db, params }) => readMail(db, params.id),
  takeMail: new Prepared(async ({ body: { content }, person }) => {
    const message = await readInThread(threads, signedIn(person).id, content);
    return (command) => takeMail(command, content, message);
  }),
  answerAsSupplier: (command) => answerAsSupplier(command, command.params.id, command.body),
});
