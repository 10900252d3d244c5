import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { api, type Item, type LineInput, type Posted, type Route, type Store } from '@yosegi/contract';
import { ApiProblem, type Input, type Output, type Sending, send } from '@yosegi/contract/client';
import type { FastifyInstance } from 'fastify';
import { pino } from 'pino';
import { buildApp } from '../src/app.ts';
import { Database } from '../src/db/database.ts';
import { ensureCompany, migrate } from '../src/db/migrate.ts';
import { verifyDatabase } from '../src/db/verify.ts';

/** Records that commands change. */
type Told = 'build' | 'purchase' | 'definition' | 'item' | 'count' | 'labelJob';

/** A whole server on a new SQLite file, listening on a free port and called over HTTP. */
export class TestServer {
  cookie = '';
  private constructor(
    readonly folder: string,
    readonly database: Database,
    readonly app: FastifyInstance,
    readonly address: string,
  ) {}

  static async start(
    folder = mkdtempSync(join(tmpdir(), 'yosegi-')),
    clock = { now: () => new Date('2026-11-23T09:00:00') },
  ) {
    const database = await Database.open(join(folder, 'yosegi.sqlite'));
    await migrate(database);
    await ensureCompany(database, {
      name: 'Test company',
      currency: 'EUR',
      locale: 'en',
      people: [
        { name: 'Mo Owner', initials: 'MO', role: 'owner' },
        { name: 'Bo Bench', initials: 'BB', role: 'bench' },
      ],
    });
    const app = await buildApp({ database, clock, logger: pino({ level: 'error' }) });
    const address = await app.listen({ host: '127.0.0.1', port: 0 });
    const server = new TestServer(folder, database, app, address);
    await server.signIn(1);
    return server;
  }

  fetch = (url: string, init: RequestInit = {}) =>
    fetch(this.address + url, { ...init, headers: { ...init.headers, cookie: this.cookie } });

  async signIn(personId: number): Promise<void> {
    const response = await fetch(`${this.address}/api/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'idempotency-key': crypto.randomUUID() },
      body: JSON.stringify({ personId }),
    });
    this.cookie = (response.headers.get('set-cookie') ?? '').split(';')[0] ?? '';
  }

  call = <R extends Route>(route: R, input: Input<R>, sending?: Sending): Promise<Output<R>> =>
    send(this.fetch, route, input, sending);

  /** The problem that a call is refused with; fails when it is not. */
  async refused<R extends Route>(route: R, input: Input<R>, sending?: Sending) {
    try {
      await this.call(route, input, sending);
    } catch (error) {
      if (error instanceof ApiProblem) return error.problem;
      throw error;
    }
    throw new Error(`${route.method} ${route.path} was not refused`);
  }

  /** Posts something and reads the document that it became. */
  async posted<R extends Route & { readonly response: typeof Posted }>(route: R, input: Input<R>, sending?: Sending) {
    return this.document((await this.call(route, input, sending)) as Posted);
  }

  /** A posted document, read anew. */
  document = ({ id }: Posted) => this.call(api.document, { params: { id } });

  /** Does something to a record and reads what has become of it. */
  async did<Q extends Told, R extends Route>(question: Q, route: R, input: Input<R>, sending?: Sending) {
    const answer = (await this.call(route, input, sending)) as { id: number; definitionId?: number };
    const { params } = input as { params?: { id: number } };
    const ofIts = question === 'build' || question === 'purchase' ? params?.id : answer.definitionId;
    const read = api[question] as Route;
    return (await this.call(read, { params: { id: ofIts ?? answer.id } } as never)) as Output<(typeof api)[Q]>;
  }

  /** Picks or finishes, and reads the build after it. */
  async withBuild<R extends typeof api.pick | typeof api.finish>(route: R, input: Input<R>, sending?: Sending) {
    const posted = await this.call<R>(route, input, sending);
    return { ...posted, build: await this.call(api.build, { params: { id: Number(input.params?.id) } }) };
  }

  /** Receives of an order, and reads it after that. */
  async withOrder(route: typeof api.receivePurchase, input: Input<typeof api.receivePurchase>, sending?: Sending) {
    const document = await this.call(route, input, sending);
    return { document, order: await this.call(api.purchase, { params: input.params ?? { id: 0 } }) };
  }

  verify = () => verifyDatabase(this.database.reader);

  async close(keepFolder = false): Promise<void> {
    await this.app.close();
    await this.database.close();
    if (!keepFolder) rmSync(this.folder, { recursive: true });
  }
}

type PartInput = Extract<LineInput, { kind: 'part' }>;

/** What stands where, as a person would read it from the shelves. */
export const standing = async (server: TestServer, item: Item) =>
  (await server.call(api.itemBins, { params: { id: item.id } })).flatMap(({ bin, build, pieces }) =>
    pieces.map((piece) => `${build ?? bin} ${piece.lot ?? piece.serial} ${piece.quantity}${piece.held ? ' held' : ''}`),
  );

/** A line of a definition: so many of a part for one, picked first, without waste. */
export const partLine = (item: Item, quantity: string, more: Partial<PartInput> = {}): PartInput => ({
  kind: 'part',
  itemId: item.id,
  basis: 'per-output',
  quantity,
  waste: '0',
  taken: 'picked-first',
  share: null,
  comesBack: true,
  fromBinId: null,
  alternates: [],
  ...more,
});

/** A small company to test in: one store with three bins, parts, a product and its bill of materials in use. */
export class Workshop {
  private constructor(
    readonly server: TestServer,
    readonly store: Store,
    readonly bins: readonly number[],
  ) {}

  static async open(server: TestServer): Promise<Workshop> {
    await server.call(api.createRate, { body: { name: 'Bench hour', perHour: '24' } });
    const { id } = await server.call(api.createStore, { body: { code: 'MAIN', name: 'Main store' } });
    const bins: number[] = [];
    for (const [index, code] of ['A1', 'A2', 'B1'].entries()) {
      const bin = await server.call(api.createBin, { params: { id }, body: { code, pickingOrder: index + 1 } });
      bins.push(bin.id);
    }
    const stores = await server.call(api.stores, {});
    return new Workshop(server, stores[0] as Store, bins);
  }

  bin(index: number): number {
    return this.bins[index] as number;
  }

  item(
    code: string,
    { bin = 0, ...more }: Partial<Input<typeof api.createItem>['body']> & { bin?: number } = {},
  ): Promise<Item> {
    return this.server.did('item', api.createItem, {
      body: {
        code,
        name: `The ${code}`,
        unitId: 1,
        source: 'bought',
        homeBinId: this.bin(bin),
        sellPrice: null,
        reorderPoint: null,
        standardCost: null,
        note: '',
        ...more,
      },
    });
  }

  receive(
    item: Item,
    quantity: string,
    unitCost: string,
    bin = 0,
    named: { lot?: string; bestBefore?: string; serials?: string[] } = {},
  ) {
    const line = { itemId: item.id, binId: this.bin(bin), quantity, unitCost, ...named };
    return this.server.posted(api.receive, { body: { kind: 'receipt', lines: [line] } });
  }

  /** Defines `product` as made of `parts` (code → quantity for one), and puts it in use. */
  async define(
    product: Item,
    parts: readonly [Item, string, ('picked-first' | 'when-finished')?][],
    labourMinutes?: string,
  ) {
    const definition = await this.server.did('definition', api.createDefinition, { body: { itemId: product.id } });
    const [draft] = definition.revisions;
    if (!draft) throw new Error('no draft');
    const lines = parts.map(([part, quantity, taken]) => partLine(part, quantity, taken ? { taken } : {}));
    const labour = labourMinutes
      ? [{ kind: 'labour' as const, text: 'Assemble', basis: 'per-output' as const, minutes: labourMinutes, rateId: 1 }]
      : [];
    const saved = await this.server.did('definition', api.saveRevision, {
      params: { id: draft.id },
      body: { version: draft.version, outputQuantity: '1', lines: [...lines, ...labour] },
    });
    const version = saved.revisions[0]?.version ?? 0;
    return this.server.did('definition', api.putInUse, { params: { id: draft.id }, body: { version } });
  }

  /** @returns the id of a new customer */
  async customer(code: string, more: Partial<Input<typeof api.createCustomer>['body']> = {}): Promise<number> {
    return (await this.server.call(api.createCustomer, { body: { code, name: `${code} & Co`, ...more } })).id;
  }

  /** An order of a customer, confirmed unless told otherwise. */
  async sell(
    customerId: number,
    lines: Input<typeof api.createOrder>['body']['lines'],
    more: Partial<Input<typeof api.createOrder>['body']> = {},
  ) {
    const body = { customerId, lines, confirm: true, ...more };
    const { id } = await this.server.call(api.createOrder, { body });
    return this.server.call(api.order, { params: { id } });
  }

  definitionOf = async (item: Item) => (await this.stockOf(item)).definitionId ?? 0;

  /** Sets some of a kit's switches. */
  async behave(item: Item, change: Partial<Input<typeof api.setBehaviour>['body']>): Promise<void> {
    const params = { id: await this.definitionOf(item) };
    const { behaviour, version } = await this.server.call(api.definition, { params });
    await this.server.call(api.setBehaviour, { params, body: { ...behaviour, ...change, version } });
  }

  /** One purchase order, drafted, and sent where it is said how. */
  async order(
    order: Input<typeof api.createPurchases>['body']['orders'][number],
    send: 'mailbox' | 'print' | null = null,
  ) {
    const { orders } = await this.server.call(api.createPurchases, { body: { orders: [order], send } });
    return this.server.call(api.purchase, { params: { id: orders[0]?.id ?? 0 } });
  }

  async plan(product: Item, quantity: string, due: string | null = null) {
    const { builds } = await this.server.call(api.planBuilds, {
      body: { builds: [{ itemId: product.id, quantity, due }] },
    });
    const id = builds[0]?.id ?? 0;
    return this.server.call(api.build, { params: { id } });
  }

  async start(product: Item, quantity: string) {
    const { id, version } = await this.plan(product, quantity);
    return this.server.did('build', api.startBuild, { params: { id }, body: { version } });
  }

  /** Everything open of a build brought to the bench from the first bin that has it. */
  async pickAll(buildId: number) {
    const build = await this.server.call(api.build, { params: { id: buildId } });
    const lines = build.lines
      .filter((line) => line.taken === 'picked-first' && Number(line.open) > 0)
      .map((line) => ({ lineId: line.id, binId: line.bins[0]?.binId ?? this.bin(0), quantity: line.open }));
    return this.server.withBuild(api.pick, { params: { id: buildId }, body: { lines } });
  }

  stockOf = (item: Item) => this.server.call(api.item, { params: { id: item.id } });
}
