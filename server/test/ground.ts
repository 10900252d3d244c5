import { api, IMPORTS_PATH, type ImportJob, type Item, picturePath } from '@yosegi/contract';
import type { Input } from '@yosegi/contract/client';
import { type Money, parseDecimal, type Quantity } from '@yosegi/core/number';
import { writeOrder } from '@yosegi/core/ubl';
import sharp from 'sharp';
import { partLine, type TestServer, Workshop } from './harness.ts';

/** Records for deeds to be done to; each is made anew, so that no deed finds what another left. */
export class Ground {
  private made = 0;
  private constructor(
    readonly server: TestServer,
    readonly shop: Workshop,
    /** Bought, untracked, plenty in the first bin. */
    readonly pin: Item,
    /** Made of two pins, with six minutes of work and a charge. */
    readonly box: Item,
    /** Three pins or knobs packed per order, to be swapped for its alternate. */
    readonly kit: Item,
    readonly knob: Item,
    readonly customerId: number,
    readonly supplierId: number,
  ) {}

  static async of(server: TestServer): Promise<Ground> {
    const shop = await Workshop.open(server);
    const pin = await shop.item('PIN', { sellPrice: '1' });
    const knob = await shop.item('KNOB');
    const box = await shop.item('BOX', { source: 'made', sellPrice: '9' });
    const kit = await shop.item('KIT', { source: 'made', sellPrice: '20' });
    await shop.receive(pin, '5000', '1');
    await shop.receive(knob, '5000', '1', 1);
    const { id: supplierId } = await server.call(api.createSupplier, {
      body: { code: 'N', name: 'North', email: 'orders@north.example' },
    });
    const ground = new Ground(server, shop, pin, box, kit, knob, await shop.customer('LARK'), supplierId);
    await ground.define(box, [
      partLine(pin, '2'),
      { kind: 'labour', text: 'Glue', basis: 'per-output', minutes: '6', rateId: 1 },
      { kind: 'charge', text: 'Varnish', basis: 'per-run', amount: '5' },
    ]);
    await ground.define(kit, [partLine(pin, '3', { alternates: [{ itemId: knob.id, ratio: '1' }] })]);
    await shop.behave(kit, { made: 'packed-per-order', onOrder: 'swaps', swapFor: 'listed' });
    return ground;
  }

  code = () => {
    this.made += 1;
    return `N${this.made}`;
  };
  read = <N extends 'build' | 'order' | 'purchase' | 'repair' | 'return' | 'count' | 'definition' | 'item'>(
    name: N,
    id: number,
  ) => this.server.call(api[name], { params: { id } } as never) as ReturnType<typeof this.server.call<(typeof api)[N]>>;
  version = async (name: Parameters<Ground['read']>[0], id: number) =>
    ((await this.read(name, id)) as { version: number }).version;
  bin = (index = 0) => this.shop.bin(index);
  item = (more: object = {}) => this.shop.item(this.code(), more);
  async stocked(quantity = '9', more: object = {}) {
    const item = await this.item(more);
    await this.shop.receive(item, quantity, '2');
    return item;
  }

  async define(item: Item, lines: Input<typeof api.saveRevision>['body']['lines']) {
    const draft = await this.draft(item);
    const body = { version: draft.version, outputQuantity: '1', lines };
    const saved = await this.server.call(api.saveRevision, { params: { id: draft.id }, body });
    await this.server.call(api.putInUse, { params: { id: draft.id }, body: { version: saved.version } });
    return draft.definitionId;
  }

  /** An empty draft of what a new item is made of. */
  async draft(item?: Item) {
    const made = item ?? (await this.item({ source: 'made' }));
    return this.server.call(api.createDefinition, { body: { itemId: made.id } });
  }

  /** A new product of one pin, in use. */
  async product() {
    const item = await this.item({ source: 'made' });
    const definitionId = await this.define(item, [partLine(this.pin, '1')]);
    const [revision] = (await this.read('definition', definitionId)).revisions;
    return { item, definitionId, revision: { id: revision?.id ?? 0, version: revision?.version ?? 0 } };
  }

  plan = (quantity = '2') => this.shop.plan(this.box, quantity);
  onBench = (quantity = '2') => this.shop.start(this.box, quantity);
  async picked(quantity = '2') {
    const { id } = await this.onBench(quantity);
    await this.shop.pickAll(id);
    return this.read('build', id);
  }
  task = async (kind: 'labour' | 'charge' = 'labour') => {
    const task = (await this.onBench()).tasks.find((one) => one.kind === kind);
    return { id: task?.id ?? 0, version: task?.version ?? 0 };
  };

  order = (item = this.pin, quantity = '2', confirm = true) =>
    this.shop.sell(this.customerId, [{ itemId: item.id, quantity, price: '3' }], { confirm });
  async shipped(quantity = '2', of = '2', item = this.pin) {
    const { id, version, lines } = await this.order(item, of);
    const line = { lineId: lines[0]?.id ?? 0, quantity };
    const shipment = await this.server.call(api.shipOrder, { params: { id }, body: { version, lines: [line] } });
    return { id, lineId: line.lineId, shipmentId: shipment.id, version: await this.version('order', id) };
  }
  async packed() {
    const { id, lines } = await this.order();
    const partId = lines[0]?.parts[0]?.id ?? 0;
    const line = { partId, binId: this.bin(), quantity: '1' };
    await this.server.call(api.packOrder, { params: { id }, body: { lines: [line] } });
    return { id, partId };
  }

  reason = async (usedFor: string) =>
    (await this.server.call(api.reasons, {})).find((one) => one.usedFor === usedFor)?.id ?? 0;
  cameBack = async (item = this.pin) => {
    const { shipmentId, lineId } = await this.shipped('2', '2', item);
    return { shipmentId, lineId, quantity: '1', reasonId: await this.reason('return'), condition: 'used' as const };
  };
  async returned(arrived: boolean, item = this.pin) {
    const came = await this.cameBack(item);
    const body = { arrived, lines: [came] };
    const { id } = await this.server.call(api.announceReturn, { body });
    const { version, lines } = await this.read('return', id);
    return { id, version, came, lineId: lines[0]?.id ?? 0, pieceId: lines[0]?.pieces[0]?.id ?? 0 };
  }

  purchase = async (send: 'mailbox' | 'print' | null) => {
    const { id, version, lines } = await this.shop.order(
      { supplierId: this.supplierId, lines: [{ itemId: this.pin.id, quantity: '5', price: '1' }] },
      send,
    );
    return { id, version, lineId: lines[0]?.id ?? 0 };
  };

  /** A customer's goods, as far along as it is said. */
  async repair(until: 'here' | 'asked' | 'ready' | 'given-back' = 'here') {
    const body = { customerId: this.customerId, itemId: this.knob.id, fault: 'Loose' };
    const { id } = await this.server.call(api.takeIn, { body });
    const params = { id };
    if (until === 'asked')
      await this.server.call(api.estimateRepair, { params, body: { version: await this.at(id), estimate: '9' } });
    if (until === 'ready' || until === 'given-back')
      await this.server.call(api.declineRepair, { params, body: { version: await this.at(id), because: 'Too dear' } });
    if (until === 'given-back')
      await this.server.call(api.giveBack, { params, body: { version: await this.at(id), charged: '0' } });
    return { params, version: await this.at(id) };
  }
  private at = (id: number) => this.version('repair', id);

  async run() {
    const { id: orderId } = await this.order(await this.stocked());
    const goals = [{ kind: 'order' as const, id: orderId }];
    const { id } = await this.server.call(api.makeRun, { body: { goals } });
    const run = await this.server.call(api.pickRun, { params: { id } });
    const [stop] = run.stops;
    return { params: { id }, version: run.version, goals, stop };
  }

  async count() {
    const item = await this.stocked('3', { bin: 2 });
    const body = { binIds: [this.bin()], q: item.code };
    const { id } = await this.server.call(api.beginCount, { body });
    const line = async (counted: string) => {
      const { sheet } = await this.read('count', id);
      const params = { id: sheet[0]?.id ?? 0 };
      await this.server.call(api.countLine, { params, body: { counted, serials: [] } });
      return params;
    };
    return { params: { id }, item, line, version: () => this.version('count', id) };
  }

  async lot() {
    const item = await this.item({ tracking: 'lot', lotFields: ['Colour'] });
    await this.shop.receive(item, '5', '2', 0, { lot: 'A' });
    const { rows } = await this.server.call(api.lots, { query: { q: item.code } });
    return { id: rows[0]?.id ?? 0, item };
  }

  /** Sets a small picture at an address. */
  async picture(path: string) {
    const body = await sharp({ create: { width: 9, height: 9, channels: 3, background: '#a63' } })
      .png()
      .toBuffer();
    const headers = { 'content-type': 'application/octet-stream', 'idempotency-key': crypto.randomUUID() };
    const answer = await this.server.fetch(path, { method: 'PUT', body: new Uint8Array(body), headers });
    if (!answer.ok) throw new Error(await answer.text());
  }
  async pictured() {
    const item = await this.item();
    await this.picture(picturePath(item.id));
    return { params: { id: item.id }, item };
  }

  /** A file of one new item, read and ready to be brought in. */
  async brought(): Promise<ImportJob> {
    const answer = await this.server.fetch(`${IMPORTS_PATH}?kind=items&name=items.csv`, {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream' },
      body: `Code,Name,Unit\n${this.code()},Of a file,each\n`,
    });
    let job = (await answer.json()) as ImportJob;
    const params = { id: job.id };
    while (job.state === 'reading') job = await this.server.call(api.importJob, { params, query: { seen: job.step } });
    return job;
  }

  message = (number: string) =>
    writeOrder({
      number,
      issuedOn: '2026-11-23',
      currency: 'EUR',
      note: '',
      wantedOn: null,
      buyer: { name: 'Lark & Co', address: [], email: null },
      buyerCode: 'LARK',
      deliverTo: [],
      seller: { name: 'Us', address: [], email: null },
      sellerCode: '',
      lines: [
        {
          id: '1',
          quantity: parseDecimal('2') as Quantity,
          unit: 'each',
          price: parseDecimal('1') as Money,
          wantedOn: null,
          name: 'Pin',
          code: '',
          supplierCode: 'PIN',
          gtin: null,
        },
      ],
    });
}
