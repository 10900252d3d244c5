import { api } from '@yosegi/contract';
import { type Fetch, send } from '@yosegi/contract/client';
import type { Dice } from './dice.ts';
import type { Known } from './values.ts';

type Named = { id: number };

/** What is there now, so that questions and commands speak of real things. */
export async function readKnown(fetch: Fetch): Promise<Known> {
  const ids = (rows: readonly Named[]) => rows.map(({ id }) => id);
  const items = (await send(fetch, api.items, { query: { limit: 500 } })).rows;
  const builds = (await send(fetch, api.builds, { query: { limit: 500 } })).rows;
  const orders = (await send(fetch, api.purchases, { query: { show: 'all', limit: 100 } })).rows;
  const sales = (await send(fetch, api.orders, { query: { limit: 100 } })).rows;
  const shipped = (await send(fetch, api.orders, { query: { show: 'shipped', limit: 20 } })).rows;
  const customers = (await send(fetch, api.customers, { query: { limit: 100 } })).rows;
  const definitions = (await send(fetch, api.definitions, { query: { limit: 200 } })).rows;
  const documents = (await send(fetch, api.documents, { query: { limit: 100 } })).rows;
  const lots = (await send(fetch, api.lots, { query: { limit: 100 } })).rows;
  const stores = await send(fetch, api.stores, {});
  const serialItems = items.filter(({ tracking }) => tracking === 'serial');
  const serials = (
    await Promise.all(serialItems.slice(0, 6).map(({ id }) => send(fetch, api.serials, { params: { id }, query: {} })))
  ).flatMap(({ rows }) => rows);
  const shelves = stores.flatMap(({ bins }) => bins);
  return new Map<string, readonly (number | string)[]>([
    ['itemId', ids(items)],
    ['partId', ids(items)],
    ['byId', ids(items)],
    ['binId', ids(shelves)],
    ['fromBinId', ids(shelves)],
    ['toBinId', ids(shelves)],
    ['outputBinId', ids(shelves)],
    ['homeBinId', ids(shelves)],
    ['storeId', ids(stores)],
    ['supplierId', ids(await send(fetch, api.suppliers, {}))],
    ['unitId', ids(await send(fetch, api.units, {}))],
    ['rateId', ids(await send(fetch, api.rates, {}))],
    ['reasonId', ids(await send(fetch, api.reasons, {}))],
    ['personId', ids(await send(fetch, api.people, {}))],
    ['buildId', ids(builds)],
    ['orderId', ids(orders)],
    ['salesId', ids([...sales, ...shipped])],
    ['orderIds', ids(sales)],
    ['customerId', ids(customers)],
    ['shipmentId', ids(documents.filter(({ kind }) => kind === 'shipment'))],
    ['definitionId', ids(definitions)],
    ['documentId', ids(documents)],
    ['lotId', ids(lots)],
    ['serialId', ids(serials)],
    ['countId', ids(await send(fetch, api.counts, {}))],
    ['labelJobId', ids((await send(fetch, api.labelJobs, { query: {} })).rows)],
    ['mailId', ids((await send(fetch, api.mail, { query: {} })).rows)],
    ['putRightId', ids(await send(fetch, api.putRight, {}))],
    ['lot', lots.map(({ code }) => code)],
    ['serials', serials.map(({ code }) => code)],
    ['q', items.map(({ code }) => code)],
    ['texts', items.map(({ name }) => name)],
  ]);
}

/** Which kind of thing the id in a path is of. */
const PATHS: readonly (readonly [start: string, name: string])[] = [
  ['/api/items', 'itemId'],
  ['/api/builds', 'buildId'],
  ['/api/purchase-orders', 'orderId'],
  ['/api/devices/mailbox', 'orderId'],
  ['/api/devices/shop', 'salesId'],
  ['/api/orders', 'salesId'],
  ['/api/order-lines', 'salesId'],
  ['/api/customers', 'customerId'],
  ['/api/shipments', 'shipmentId'],
  ['/api/definitions', 'definitionId'],
  ['/api/revisions', 'revisionId'],
  ['/api/documents', 'documentId'],
  ['/api/suppliers', 'supplierId'],
  ['/api/units', 'unitId'],
  ['/api/stores', 'storeId'],
  ['/api/bins', 'binId'],
  ['/api/counts', 'countId'],
  ['/api/count-lines', 'lineId'],
  ['/api/label-jobs', 'labelJobId'],
  ['/api/mail', 'mailId'],
  ['/api/put-right', 'putRightId'],
];

/** Which kind of thing the id in a path is of; empty where nobody knows. */
export const kindOf = (path: string): string =>
  PATHS.find(([start]) => path.startsWith(`${start}/`) || path === start)?.[1] ?? '';

/**
 * What is known of the very record a command is about: its version and its lines, so that most commands get past the door.
 */
export async function readAbout(fetch: Fetch, path: string, known: Known, dice: Dice): Promise<Known> {
  const kind = kindOf(path);
  const about = new Map(known);
  // Where there is none of its kind yet, one that is not there is asked for.
  const someOf = (name: string) => Number(dice.of(known.get(name)?.length ? (known.get(name) ?? []) : [9999]));
  const id = someOf(kind);
  about.set('id', [id]);
  const take = (version: number, lines: readonly Named[] = []) => {
    about.set('version', [version]);
    about.set('lineId', ids(lines));
    about.set('lineIds', ids(lines));
  };
  const ids = (rows: readonly Named[]) => rows.map((row) => row.id);
  try {
    if (kind === 'buildId') {
      const build = await send(fetch, api.build, { params: { id } });
      take(build.version, build.lines);
    } else if (kind === 'orderId') {
      const order = await send(fetch, api.purchase, { params: { id } });
      take(order.version, order.lines);
    } else if (kind === 'salesId') {
      const order = await send(fetch, api.order, { params: { id } });
      const parts = order.lines.flatMap((line) => line.parts);
      take(order.version, order.lines);
      about.set('orderId', [id]);
      about.set('partId', ids(parts));
      about.set('parcelId', ids(order.parcels));
      about.set('buildId', ids(parts.flatMap(({ builds }) => builds)));
      if (path.startsWith('/api/order-lines')) about.set('id', ids(order.lines));
    } else if (kind === 'customerId') take((await send(fetch, api.customer, { params: { id } })).version);
    else if (kind === 'itemId') take((await send(fetch, api.item, { params: { id } })).version);
    else if (kind === 'countId' || kind === 'lineId') {
      const count = await send(fetch, api.count, { params: { id: someOf('countId') } });
      take(count.version, count.sheet);
      if (kind === 'lineId') about.set('id', ids(count.sheet));
      else about.set('id', [count.id]);
    } else if (kind === 'definitionId' || kind === 'revisionId') {
      const chosen = someOf('definitionId');
      const definition = await send(fetch, api.definition, { params: { id: chosen } });
      const [revision] = definition.revisions;
      take(kind === 'definitionId' ? definition.version : (revision?.version ?? 0));
      about.set('id', [kind === 'definitionId' ? chosen : (revision?.id ?? 1)]);
    } else if (kind === 'documentId') {
      const prices = await send(fetch, api.receiptPrices, { params: { id } });
      about.set(
        'lineId',
        prices.lines.map(({ lineId }) => lineId),
      );
    } else if (path === '/api/take-aparts') {
      const itemId = someOf('itemId');
      const plan = await send(fetch, api.apartPlan, { params: { id: itemId } });
      about.set('itemId', [itemId]);
      about.set('revisionId', [plan.revisionId]);
      about.set(
        'lineId',
        plan.lines.map(({ lineId }) => lineId),
      );
    }
  } catch {
    // It is not there, or not of this kind: what is asked then is asked of nothing.
  }
  return about;
}
