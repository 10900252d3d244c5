import type { customerRoutes, lookAheadRoutes, orderRoutes } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import type { HandlersOf } from '../command/doing.ts';
import { lookAhead } from './ahead.ts';
import { copyOrder } from './copy.ts';
import { listCustomers } from './customers.sql.ts';
import { archiveCustomer, createCustomer, readCustomer, updateCustomer } from './customers.ts';
import { promisedTo, salesOf } from './items.sql.ts';
import { readLaterKit, takeLaterKit } from './later.ts';
import { listOrders, readOrder } from './read.ts';
import { cancelOrder, confirmOrder, createOrder, dropLines, saveOrder } from './save.ts';
import { splitOrder } from './split.ts';

export const orderHandlers: HandlersOf<typeof customerRoutes & typeof orderRoutes & typeof lookAheadRoutes> = {
  customers: ({ db, query }) => listCustomers(db, query),
  customer: ({ db, params, now }) => readCustomer(db, params.id, dayOf(now)),
  createCustomer: (command) => createCustomer(command, command.body),
  updateCustomer: (command) => updateCustomer(command, command.params.id, command.body),
  archiveCustomer: (command) => archiveCustomer(command, command.params.id, command.body),
  orders: ({ db, query, now }) => listOrders(db, query, dayOf(now)),
  order: ({ db, params, now }) => readOrder(db, params.id, dayOf(now)),
  promisedTo: ({ db, params, now }) => promisedTo(db, params.id, dayOf(now)),
  itemSales: ({ db, params }) => salesOf(db, params.id),
  lookAhead: ({ db, body, now }) => lookAhead(db, body, dayOf(now)),
  createOrder: (command) => createOrder(command, command.body),
  saveOrder: (command) => saveOrder(command, command.params.id, command.body),
  confirmOrder: (command) => confirmOrder(command, command.params.id, command.body.version),
  copyOrder: (command) => copyOrder(command, command.params.id),
  splitOrder: (command) => splitOrder(command, command.params.id, command.body),
  laterKit: ({ db, params }) => readLaterKit(db, params.id),
  takeLaterKit: (command) => takeLaterKit(command, command.params.id, command.body),
  cancelOrder: (command) => cancelOrder(command, command.params.id, command.body),
  dropOrder: (command) => dropLines(command, command.params.id, command.body),
};
