import type { shippingRoutes } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import type { HandlersOf } from '../command/doing.ts';
import { buildForOrders, lookToBuild, setBuildFor } from './build.ts';
import { packOrder, unpackOrder } from './pack.ts';
import { readShipment } from './read.ts';
import { shipOrder } from './ship.ts';

export const shippingHandlers: HandlersOf<typeof shippingRoutes> = {
  lookToBuild: ({ db, body, now }) => lookToBuild(db, body, dayOf(now)),
  buildForOrders: (command) => buildForOrders(command, command.body),
  setBuildFor: (command) => setBuildFor(command, command.params.id, command.body),
  packOrder: (command) => packOrder(command, command.params.id, command.body),
  unpackOrder: (command) => unpackOrder(command, command.params.id, command.body),
  shipment: ({ db, params }) => readShipment(db, params.id),
  shipOrder: (command) => shipOrder(command, command.params.id, command.body),
};
