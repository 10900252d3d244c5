import { apartRoutes } from './apart.ts';
import { buildRoutes } from './builds.ts';
import { buyingRoutes } from './buying.ts';
import { countRoutes } from './counts.ts';
import { coverageRoutes } from './coverage.ts';
import { definitionRoutes } from './definitions.ts';
import { deviceRoutes } from './devices.ts';
import { importRoutes } from './imports.ts';
import { itemRoutes } from './items.ts';
import { mailRoutes } from './mail-routes.ts';
import { peopleRoutes } from './people.ts';
import { placeRoutes } from './places.ts';
import { stockRoutes } from './stock.ts';
import { todayRoutes } from './today.ts';
import { trackedRoutes } from './tracked.ts';
import { worthRoutes } from './worth.ts';

export * from './apart.ts';
export * from './builds.ts';
export * from './buying.ts';
export * from './common.ts';
export * from './counts.ts';
export * from './coverage.ts';
export * from './definitions.ts';
export * from './devices.ts';
export * from './imports.ts';
export * from './items.ts';
export * from './live.ts';
export * from './mail.ts';
export * from './mail-routes.ts';
export * from './people.ts';
export * from './places.ts';
export * from './stock.ts';
export * from './today.ts';
export * from './tracked.ts';
export * from './worth.ts';

/** Every request the server answers. The server mounts this table and the browser calls through it. */
export const api = {
  ...peopleRoutes,
  ...itemRoutes,
  ...placeRoutes,
  ...importRoutes,
  ...definitionRoutes,
  ...countRoutes,
  ...coverageRoutes,
  ...buildRoutes,
  ...buyingRoutes,
  ...mailRoutes,
  ...deviceRoutes,
  ...stockRoutes,
  ...worthRoutes,
  ...apartRoutes,
  ...todayRoutes,
  ...trackedRoutes,
};
