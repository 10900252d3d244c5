import { api, type Route } from '@yosegi/contract';
import type { TestServer } from './harness.ts';

/** Questions that cannot be asked without saying about what. */
const ABOUT: Partial<Record<keyof typeof api, string>> = {
  find: '?q=a',
  stockOn: '?day=2026-11-23',
  replacements: '?partId=1&byId=2',
  costEffect: '?cost=999999999',
};

/** Every question of the API that is not answered with 200, about everything that any list names. */
export async function unanswered(server: TestServer): Promise<string[]> {
  const refused: string[] = [];
  const read = async (url: string) => {
    const answer = await server.fetch(url);
    if (answer.status !== 200) refused.push(`GET ${url}: ${answer.status} ${await answer.text()}`);
  };
  const { call } = server;
  const items = (await call(api.items, { query: { limit: 500 } })).rows;
  const definitions = (await call(api.definitions, { query: { limit: 200 } })).rows;
  const receipts = (await call(api.documents, { query: { kind: 'receipt', limit: 50 } })).rows;
  const records: Partial<Record<keyof typeof api, readonly { id: number }[]>> = {
    item: items,
    itemBins: items,
    coming: items,
    whereUsed: items,
    serials: items,
    costEffect: items,
    definition: definitions,
    build: (await call(api.builds, { query: { limit: 200 } })).rows,
    purchase: (await call(api.purchases, { query: { show: 'all', limit: 100 } })).rows,
    order: (await call(api.orders, { query: { limit: 100 } })).rows,
    customer: (await call(api.customers, { query: {} })).rows,
    supplier: await call(api.suppliers, {}),
    count: await call(api.counts, {}),
    document: (await call(api.documents, { query: { limit: 50 } })).rows,
    receiptPrices: receipts,
    return: (await call(api.returns, { query: {} })).rows,
    pickRun: (await call(api.pickPlan, {})).runs,
    labelJob: (await call(api.labelJobs, { query: {} })).rows,
    mailContent: (await call(api.mail, { query: {} })).rows,
    apartPlan: definitions.filter(({ inUse }) => inUse !== null).map(({ itemId }) => ({ id: itemId })),
  };
  for (const [name, route] of Object.entries<Route>(api)) {
    if (route.method !== 'GET') continue;
    const about = ABOUT[name as keyof typeof api] ?? '';
    if (!route.params) await read(route.path + about);
    for (const { id } of records[name as keyof typeof api] ?? [])
      await read(route.path.replace(':id', String(id)) + about);
  }
  return refused;
}
