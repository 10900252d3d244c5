import { api, type Route } from '@yosegi/contract';
import type { TestServer } from './harness.ts';

/** Questions that cannot be asked without saying about what. */
const ABOUT: Partial<Record<keyof typeof api, string>> = {
  find: '?q=a',
  stockOn: '?day=2026-11-23',
  replacements: '?partId=1&byId=2',
  costEffect: '?cost=999999999',
  coverItems: '?ids=1,2',
  coverSources: '?orders=1&builds=1',
  scanned: '?code=PIN',
  job: '?tag=Fair',
  stockValue: '?itemId=1',
  containing: '?partIds=1',
  returnable: '?q=LARK',
  returnFigures: '?from=2026-11-23&to=2026-11-23',
};

/** Questions about what only lives while a file is brought in. */
const PASSING: readonly string[] = ['importJob', 'importRows'];

/** Every question of the API that is not answered with 200, about everything that any list names. */
export async function unanswered(server: TestServer): Promise<string[]> {
  const answers = [...(await everyAnswer(server))].filter(([, { status }]) => status !== 200);
  return answers.map(([url, { status, text }]) => `GET ${url}: ${status} ${text}`);
}

/** A question and the address it is asked at. */
interface Question {
  readonly name: keyof typeof api;
  readonly url: string;
}

/** What every question of the API is answered, about everything that any list names, by its address. */
export async function everyAnswer(server: TestServer): Promise<Map<string, { status: number; text: string }>> {
  const answers = new Map<string, { status: number; text: string }>();
  for (const { url } of await everyQuestion(server)) {
    const answer = await server.fetch(url);
    answers.set(url, { status: answer.status, text: await answer.text() });
  }
  return answers;
}

/**
 * Every question of the API, about everything that any list names.
 * @param few how many of each kind it asks about, from both ends of the list
 * @param also ids that it asks about wherever they are those of a record
 */
export async function everyQuestion(
  server: TestServer,
  few = 500,
  also: readonly number[] = [],
): Promise<readonly Question[]> {
  const questions: Question[] = [];
  const ends = <T extends { id: number }>(all: readonly T[]) =>
    all.filter(({ id }, index) => index < few || index >= all.length - few || also.includes(id));
  const { call } = server;
  const items = (await call(api.items, { query: { limit: 500 } })).rows;
  const definitions = (await call(api.definitions, { query: { limit: 200 } })).rows;
  const receipts = (await call(api.documents, { query: { kind: 'receipt', limit: 50 } })).rows;
  const builds = (await call(api.builds, { query: { limit: 200 } })).rows;
  const orders = (await call(api.orders, { query: { limit: 100 } })).rows;
  const lines = (await Promise.all(ends(orders).map(({ id }) => call(api.order, { params: { id } })))).flatMap(
    (one) => one.lines,
  );
  const records: Partial<Record<keyof typeof api, readonly { id: number }[]>> = {
    item: items,
    promisedTo: items,
    itemSales: items,
    lastUses: builds,
    taskTimes: builds,
    laterKit: lines.filter(({ laterRevision }) => laterRevision !== null),
    shipment: (await call(api.documents, { query: { kind: 'shipment', limit: 50 } })).rows,
    repair: (await call(api.repairs, { query: {} })).rows,
    serialUnit: (await call(api.serialUnits, { query: {} })).rows,
    itemBins: items,
    coming: items,
    whereUsed: items,
    serials: items,
    costEffect: items,
    definition: definitions,
    build: builds,
    purchase: (await call(api.purchases, { query: { show: 'all', limit: 100 } })).rows,
    order: orders,
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
  for (const [asked, route] of Object.entries<Route>(api)) {
    const name = asked as keyof typeof api;
    const read = (url: string) => questions.push({ name, url });
    if (route.method !== 'GET') continue;
    const about = ABOUT[name] ?? '';
    if (!route.params) read(route.path + about);
    else if (name === 'pegs')
      for (const [kind, all] of Object.entries({ build: builds, order: orders }))
        for (const { id } of ends<{ id: number }>(all))
          read(route.path.replace(':kind', kind).replace(':id', String(id)));
    else if (!(name in records) && !PASSING.includes(name)) throw new Error(`nothing to ask ${name} about`);
    for (const { id } of ends(records[name] ?? [])) read(route.path.replace(':id', String(id)) + about);
  }
  return questions;
}
