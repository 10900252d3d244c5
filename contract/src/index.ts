import { buildRoutes } from './builds.ts';
import { buyingRoutes } from './buying.ts';
import { countRoutes } from './counts.ts';
import { coverageRoutes } from './coverage.ts';
import { definitionRoutes } from './definitions.ts';
import { deviceRoutes } from './devices.ts';
import { importRoutes } from './imports.ts';
import { itemRoutes } from './items.ts';
import { peopleRoutes } from './people.ts';
import { stockRoutes } from './stock.ts';
import { todayRoutes } from './today.ts';
import { trackedRoutes } from './tracked.ts';

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
export * from './people.ts';
export * from './stock.ts';
export * from './today.ts';
export * from './tracked.ts';

/** Every request the server answers. The server mounts this table and the browser calls through it. */
export const api = {
  ...peopleRoutes,
  ...itemRoutes,
  ...importRoutes,
  ...definitionRoutes,
  ...countRoutes,
  ...coverageRoutes,
  ...buildRoutes,
  ...buyingRoutes,
  ...deviceRoutes,
  ...stockRoutes,
  ...todayRoutes,
  ...trackedRoutes,
};
