import { api, type Item, type PurchaseOrder } from '@yosegi/contract';
import type { Input } from '@yosegi/contract/client';
import { dayOf } from '@yosegi/core/days';
import type { DemoClient } from './client.ts';

const DAY = 24 * 60 * 60 * 1000;

/** Made-up suppliers: code, name, stated lead days, how much later they are as a rule, and the bins whose parts they bring. */
export const suppliers = [
  ['NORTH', 'North Shed Timber', 14, 1, /^T/, 'Sawpit Yard 2\n4417 Upper Alder'],
  ['WAXWORKS', 'Waxworks & Daughters', 7, 0, /^K/, 'Comb Street 11\n4402 Hollowmere'],
  ['IRON', 'Ironbridge Fixings', 5, 0, /^A/, 'Lower Wharf 30\n4480 Kettlebridge'],
  ['GLASS', 'Glassery Low Mill', 10, 2, /^D1/, 'Low Mill\n4433 Sandmere'],
  ['LOOM', 'Loom End Workwear', 21, -2, /^D2/, 'Loom End 8\n4451 Tentergate'],
  ['METALS', 'Combe Metalwares', 12, 4, /^[BC]/, 'Forge Lane 5\n4466 Combe'],
] as const;

export const supplierOf = (bin: string) => suppliers.find(([, , , , bins]) => bins.test(bin)) ?? suppliers[0];

/** A line of a delivery: what came, how much, at which cost, into which bin. */
export type DeliveryLine = Input<typeof api.receive>['body']['lines'][number] & { readonly bin: string };

/** Orders and deliveries of the demo business, each with the clock where it belongs. */
export class Buying {
  private readonly ids = new Map<string, number>();

  constructor(
    private readonly client: DemoClient,
    private readonly time: { at: number },
    /** Its own, so that other chances stay what they were. */
    private readonly random: () => number,
    private readonly item: (code: string) => Item,
    private readonly bin: (code: string) => number,
  ) {}

  async addSuppliers(): Promise<void> {
    for (const [code, name, , , , address] of suppliers) {
      const email = `orders@${code.toLowerCase()}.example`;
      const { id } = await this.client.call(api.createSupplier, { body: { code, name, address, email } });
      this.ids.set(code, id);
    }
  }

  supplierId = (code: string): number => this.ids.get(code) ?? 0;

  /** Receives a delivery of now from each supplier, ordered as long ago as it takes it. */
  async deliver(lines: readonly DeliveryLine[], note: string): Promise<PurchaseOrder[]> {
    const orders: PurchaseOrder[] = [];
    for (const [code, , lead, late] of suppliers) {
      const own = lines.filter((line) => supplierOf(line.bin)[0] === code);
      if (own.length === 0) continue;
      const now = this.time.at;
      this.time.at = now - Math.max(1, lead + late + Math.round(this.random() * 4 - 2)) * DAY;
      const sent = await this.send(code, own);
      this.time.at += DAY;
      await this.answer(sent, 'confirm');
      this.time.at = now;
      await this.client.call(api.receivePurchase, {
        params: { id: sent.id },
        body: {
          deliveryNote: `${code.slice(0, 2)}-${note}`,
          lines: own.map(({ bin: _, itemId: __, ...line }, index) => ({ ...line, lineId: sent.lines[index]?.id ?? 0 })),
        },
      });
      orders.push(await this.client.call(api.purchase, { params: { id: sent.id } }));
    }
    return orders;
  }

  /** What is on order this morning: something late, on its way, promised, on back order, and a draft. */
  async openOrders(end: number): Promise<void> {
    const line = (code: string, bin: string, quantity: string, unitCost: string) => ({
      itemId: this.item(code).id,
      binId: this.bin(bin),
      bin,
      quantity,
      unitCost,
    });
    this.time.at = end - 21 * DAY;
    await this.answer(
      await this.send('METALS', [line('BELLOWS', 'B3', '30', '6.2'), line('CASE-SC', 'B3', '15', '12')]),
      'confirm',
    );
    this.time.at = end - 9 * DAY;
    await this.answer(
      await this.send('NORTH', [line('BROOD-C', 'T1', '24', '38.2'), line('MESH-3', 'T2', '25', '5')]),
      'delay',
    );
    this.time.at = end - 6 * DAY;
    const wax = await this.send('WAXWORKS', [line('WAX-F', 'K3', '25', '9.8'), line('HONEY-HEA', 'K2', '20', '14.5')]);
    await this.answer(wax, 'confirm');
    const iron = await this.send('IRON', [line('SCREW-40', 'A4', '1000', '0.06'), line('BRUSH', 'A2', '30', '2.9')]);
    await this.answer(iron, 'confirm');
    this.time.at = end - 2.5 * DAY;
    await this.answer(await this.send('IRON', [line('WICK-3', 'A3', '60', '0.35')]), 'delay');
    this.time.at = end - DAY / 2;
    const [screws] = iron.lines;
    await this.client.call(api.receivePurchase, {
      params: { id: iron.id },
      body: {
        deliveryNote: 'IR-9061',
        lines: [{ lineId: screws?.id ?? 0, binId: this.bin('A4'), quantity: '600', unitCost: '0.06' }],
      },
    });
    await this.answer(wax, 'deliver');
    await this.client.call(api.createPurchases, {
      body: {
        orders: [
          {
            supplierId: this.supplierId('GLASS'),
            remark: 'Please pack the lids separately',
            lines: [
              { itemId: this.item('JAR-125').id, quantity: '480', price: '0.38' },
              { itemId: this.item('LID-58').id, quantity: '500', price: '0.12' },
            ],
          },
        ],
      },
    });
  }

  /** An invoice that asked for more than the delivery note said, and stock whose price has fallen. */
  async corrections(last: PurchaseOrder | undefined): Promise<void> {
    const id = last?.receipts[0]?.id;
    if (id !== undefined) {
      const { lines } = await this.client.call(api.receiptPrices, { params: { id } });
      const [first] = lines;
      if (first) {
        const unitCost = (Number(first.unitCost) * 1.06).toFixed(3);
        const body = { remark: 'Invoice with the new surcharge', lines: [{ lineId: first.lineId, unitCost }] };
        await this.client.call(api.postPrices, { params: { id }, body });
      }
    }
    const guide = this.item('GUIDE');
    const body = { remark: 'A new edition comes out in spring', lines: [{ itemId: guide.id, unitCost: '2.4' }] };
    await this.client.call(api.revalue, { body });
  }

  private async send(code: string, lines: readonly DeliveryLine[]): Promise<PurchaseOrder> {
    const lead = suppliers.find(([known]) => known === code)?.[2] ?? 7;
    const { orders } = await this.client.call(api.createPurchases, {
      body: {
        send: 'mailbox',
        orders: [
          {
            supplierId: this.supplierId(code),
            wantedOn: dayOf(new Date(this.time.at + lead * DAY)),
            lines: lines.map(({ itemId, quantity, unitCost }) => ({ itemId, quantity, price: unitCost })),
          },
        ],
      },
    });
    const [order] = orders;
    return this.client.call(api.purchase, { params: { id: order?.id ?? 0 } });
  }

  private answer = (order: PurchaseOrder, answer: 'confirm' | 'delay' | 'deliver') =>
    this.client.call(api.answerAsSupplier, { params: { id: order.id }, body: { answer, days: 5 } });
}
