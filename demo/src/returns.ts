import { api, type Returnable } from '@yosegi/contract';
import type { Input } from '@yosegi/contract/client';
import { dayOf } from '@yosegi/core/days';
import type { DemoClient } from './client.ts';

const DAY = 24 * 60 * 60 * 1000;
type LineIn = Input<typeof api.announceReturn>['body']['lines'][number];

/** What customers of the demo business have sent back, in every state that a return can be in. */
export class Returns {
  constructor(
    private readonly client: DemoClient,
    private readonly item: (code: string) => { readonly id: number },
    private readonly customer: (code: string) => number,
  ) {}

  async make(end: Date): Promise<void> {
    await this.limits();
    await this.lots();
    await this.decided();
    await this.swapped();
    await this.wrongInTheBox();
    await this.scale();
    const day = dayOf(new Date(end.getTime() + 3 * DAY));
    await this.take('STRAP-H', '2', 'Does not fit', { condition: 'as new' }, { arrived: false, expectedOn: day });
    await this.calledOff();
  }

  /** One customer may send back for 30 days only, a scale may come back for a year. */
  private async limits(): Promise<void> {
    const params = { id: this.customer('LARK') };
    const { orders: _, shipments: __, usual: ___, ...customer } = await this.client.call(api.customer, { params });
    await this.client.call(api.updateCustomer, { params, body: { ...customer, returnDays: 30 } });
  }

  /** What the wax of each lot is like. */
  private async lots(): Promise<void> {
    const params = { id: this.item('WAX-F').id };
    const item = await this.client.call(api.item, { params });
    const body = { ...item, lotFields: ['colour', 'scent'], returnDays: null };
    await this.client.call(api.updateItem, { params, body });
    const { rows } = await this.client.call(api.lots, { query: { itemId: params.id } });
    const said = [
      { colour: 'pale', scent: 'honey' },
      { colour: 'amber', scent: 'propolis' },
      { colour: 'dark', scent: 'strong' },
    ];
    for (const [index, { id }] of rows.entries())
      await this.client.call(api.describeLot, {
        params: { id },
        body: { attributes: said[index % said.length] ?? {} },
      });
  }

  /** Back on the shelf, scrapped, and sent back to the customer. */
  private async decided(): Promise<void> {
    const settle = async (id: number, outcome: 'shelf' | 'scrap' | 'sent-back', note = '') => {
      const { lines } = await this.client.call(api.return, { params: { id } });
      const deeds = lines.flatMap(({ pieces }) =>
        pieces.map((piece) => ({ pieceId: piece.id, quantity: piece.waiting, outcome, note })),
      );
      await this.client.call(api.settleReturns, { body: { deeds } });
    };
    await settle(await this.take('HONEY-Q', '1', 'Changed their mind', { condition: 'as new' }), 'shelf');
    const cover = { condition: 'damaged', remark: 'A tear along the seam' } as const;
    await settle(await this.take('COVER-W', '1', 'Arrived broken', cover), 'scrap', 'Torn');
    const opened = { condition: 'used', remark: 'Half empty' } as const;
    await settle(
      await this.take('HONEY-500', '1', 'Changed their mind', opened),
      'sent-back',
      'Food can’t be returned',
    );
  }

  /** A gift that was packed with honey in place of wraps: it comes apart as it left. */
  private async swapped(): Promise<void> {
    const contents = [{ position: 1, itemId: this.item('HONEY-CR').id, amount: '1' }];
    const line = { itemId: this.item('GIFT-GARD').id, quantity: '2', contents: contents as never };
    const body = { customerId: this.customer('GARDEN'), reference: 'Counter sample', confirm: true, lines: [line] };
    const { id } = await this.client.call(api.createOrder, { body });
    const { number, version, lines } = await this.client.call(api.order, { params: { id } });
    const sent = lines.map((one) => ({ lineId: one.id, quantity: one.quantity }));
    await this.client.call(api.shipOrder, { params: { id }, body: { version, carrier: 'Own van', lines: sent } });
    const said = { condition: 'used', remark: 'They wanted the wraps after all' } as const;
    await this.take('GIFT-GARD', '1', 'Not what was ordered', said, {}, number);
  }

  /** A winter set with something in its box that never was ours. */
  private async wrongInTheBox(): Promise<void> {
    const id = await this.take('WINTER-S', '1', 'Arrived broken', { condition: 'incomplete' });
    const { lines } = await this.client.call(api.return, { params: { id } });
    const [piece] = lines.flatMap(({ pieces }) => pieces);
    if (!piece) throw new Error('nothing came back');
    const deed = {
      pieceId: piece.id,
      quantity: '1',
      outcome: 'not-ours' as const,
      note: 'Someone else’s tea towel',
    };
    await this.client.call(api.settleReturns, { body: { deeds: [deed] } });
  }

  /** A scale that comes back to be refreshed. */
  private async scale(): Promise<void> {
    await this.take('SCALE-1', '1', 'Stopped working', { condition: 'used', remark: 'Shows E4 in the cold' });
  }

  private async calledOff(): Promise<void> {
    const id = await this.take('WRAP-6', '1', 'Changed their mind', { condition: 'as new' }, { arrived: false });
    const { version } = await this.client.call(api.return, { params: { id } });
    await this.client.call(api.callOffReturn, { params: { id }, body: { version, because: 'They keep it after all' } });
  }

  /** Takes some of the last that left of a product back. @returns the return */
  private async take(
    code: string,
    quantity: string,
    reason: string,
    said: Pick<LineIn, 'condition' | 'remark'>,
    more: { arrived?: boolean; expectedOn?: string } = {},
    order?: string,
  ): Promise<number> {
    const row = await this.lastOf(code, order);
    const reasons = await this.client.call(api.reasons, {});
    const reasonId = reasons.find(({ name, usedFor }) => usedFor === 'return' && name === reason)?.id ?? 0;
    const serials = row.serials.slice(0, row.serials.length > 0 ? Number(quantity) : 0);
    const line = { shipmentId: row.shipmentId, lineId: row.lineId, quantity, reasonId, serials, ...said };
    const body = { arrived: true, ...more, lines: [line] };
    return (await this.client.call(api.announceReturn, { body })).id;
  }

  /** The last line of a product that left and may come back. */
  private async lastOf(code: string, order?: string): Promise<Returnable> {
    const { rows } = await this.client.call(api.orders, { query: { show: 'shipped', q: code, limit: 50 } });
    const open = await this.client.call(api.orders, { query: { q: code, limit: 50 } });
    const numbers = order ? [order] : [...open.rows, ...rows].map(({ number }) => number);
    for (const number of numbers) {
      const found = await this.client.call(api.returnable, { query: { q: number } });
      const row = found.find((one) => one.code === code && Number(one.left) > 0);
      if (row) return row;
    }
    throw new Error(`no ${code} has left`);
  }
}
