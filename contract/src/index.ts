import { boardRoutes } from './board.ts';
import { buildRoutes } from './builds.ts';
import { buyingRoutes } from './buying.ts';
import { countRoutes } from './counts.ts';
import { coverageRoutes } from './coverage.ts';
import { customerRoutes } from './customers.ts';
import { definitionRoutes } from './definitions.ts';
import { deviceRoutes } from './devices.ts';
import { importRoutes } from './exchange.ts';
import { itemRoutes } from './items.ts';
import { jobRoutes } from './jobs.ts';
import { ledgerRoutes } from './ledger.ts';
import { lookAheadRoutes } from './look-ahead.ts';
import { mailRoutes } from './mail-routes.ts';
import { messageRoutes } from './messages.ts';
import { orderRoutes } from './orders.ts';
import { peopleRoutes } from './people.ts';
import { pickRoutes } from './picking.ts';
import { placeRoutes } from './places.ts';
import { productRoutes } from './products.ts';
import { receiptRoutes } from './receipts.ts';
import { reorderRoutes } from './reorder.ts';
import { repairRoutes } from './repairs.ts';
import { returnRoutes } from './returns.ts';
import { runRoutes } from './runs.ts';
import { shippingRoutes } from './shipping.ts';
import { stockRoutes } from './stock.ts';
import { supplierRoutes } from './suppliers.ts';
import { apartRoutes } from './takeapart.ts';
import { taskRoutes } from './tasks.ts';
import { todayRoutes } from './today.ts';
import { trackedRoutes } from './tracking.ts';

export * from './board.ts';
export * from './builds.ts';
export * from './buying.ts';
export * from './common.ts';
export * from './counts.ts';
export * from './coverage.ts';
export * from './coverage-keys.ts';
export * from './customers.ts';
export * from './definitions.ts';
export * from './devices.ts';
export * from './document-kinds.ts';
export * from './earned.ts';
export * from './exchange.ts';
export * from './files.ts';
export * from './items.ts';
export * from './jobs.ts';
export * from './ledger.ts';
export * from './live.ts';
export * from './look-ahead.ts';
export * from './mail.ts';
export * from './mail-routes.ts';
export * from './messages.ts';
export * from './orders.ts';
export * from './people.ts';
export * from './picking.ts';
export * from './places.ts';
export * from './products.ts';
export * from './receipts.ts';
export * from './reorder.ts';
export * from './repairs.ts';
export * from './returns.ts';
export * from './rights.ts';
export * from './runs.ts';
export * from './shipping.ts';
export * from './stock.ts';
export * from './suppliers.ts';
export * from './takeapart.ts';
export * from './tasks.ts';
export * from './today.ts';
export * from './tracking.ts';

/** Every request the server answers. The server mounts this table and the browser calls through it. */
export const api = {
  ...peopleRoutes,
  ...itemRoutes,
  ...placeRoutes,
  ...productRoutes,
  ...importRoutes,
  ...definitionRoutes,
  ...countRoutes,
  ...coverageRoutes,
  ...customerRoutes,
  ...orderRoutes,
  ...lookAheadRoutes,
  ...shippingRoutes,
  ...messageRoutes,
  ...boardRoutes,
  ...buildRoutes,
  ...pickRoutes,
  ...runRoutes,
  ...taskRoutes,
  ...repairRoutes,
  ...jobRoutes,
  ...buyingRoutes,
  ...supplierRoutes,
  ...mailRoutes,
  ...deviceRoutes,
  ...stockRoutes,
  ...ledgerRoutes,
  ...receiptRoutes,
  ...reorderRoutes,
  ...apartRoutes,
  ...returnRoutes,
  ...todayRoutes,
  ...trackedRoutes,
};
