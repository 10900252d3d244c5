import { customerFile } from './customers.ts';
import { definitionFile } from './definitions.ts';
import { itemFile } from './items.ts';
import { orderFile } from './orders.ts';
import { priceFile } from './prices.ts';
import { stockFile } from './stock.ts';

export * from './amounts.ts';
export * from './columns.ts';
export { alternatesOf, behaviourOf, definitionKey, writeAlternates } from './definitions.ts';
export * from './harmless.ts';
export { namesIn, writeNames, writePacks } from './items.ts';
export * from './limits.ts';
export * from './plan.ts';
export { breaksIn, writeBreaks } from './prices.ts';
export * from './world.ts';

/** Every kind of file that comes in and goes out, in the order they build on each other. */
export const fileKinds = {
  items: itemFile,
  prices: priceFile,
  stock: stockFile,
  definitions: definitionFile,
  customers: customerFile,
  orders: orderFile,
} as const;
export type FileKindName = keyof typeof fileKinds;
