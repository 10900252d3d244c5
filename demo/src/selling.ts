import { api } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import type { DemoClient } from './client.ts';

type CustomerFacts = readonly [
  code: string,
  name: string,
  contact: string,
  billing: string,
  more?: { discount?: string; transportDays?: number; delivery?: string; note?: string; hives?: string },
];

const customers: readonly CustomerFacts[] = [
  ['ALDER', 'Alder Vale Apiaries', 'Rosa Denholm', 'Alder Vale 2\nUpper Hollowmere', { discount: '5', hives: '48' }],
  ['HALE', 'Tamsin Hale', 'Tamsin Hale', 'Chapel Row 11\nHollowmere', { hives: '2' }],
  [
    'LARK',
    'Larkfield Allotments',
    'Ivo Marsh',
    'Larkfield Lane\nLower Hollowmere',
    { transportDays: 1, delivery: 'Gate 3, Larkfield Allotments\nLower Hollowmere', hives: '9' },
  ],
  ['QUINCE', 'Quince & Sons', 'Edda Quince', 'Market Square 5\nStone Ferry', { discount: '10', transportDays: 2 }],
  ['ORRIN', 'Orrin & Vale', 'Piet Orrin', 'Quay Street 40\nStone Ferry', { transportDays: 2 }],
  ['BROOK', 'Brook School', 'Ms Okonjo', 'School Hill\nHollowmere', { note: 'Rings before collecting.' }],
  ['FERN', 'Fernlea Honey', 'Hal Sutter', 'Fernlea Farm\nWest Moor', { discount: '7.5', hives: '120' }],
  ['PARISH', 'Hollowmere Parish', 'Joan Weir', 'The Green 1\nHollowmere'],
  ['MILLRACE', 'Millrace Café', 'Sunny Odell', 'Mill Lane 1\nHollowmere', { discount: '12.5' }],
  [
    'GARDEN',
    'Stone Ferry Garden Centre',
    'Lars Penn',
    'Ferry Road 88\nStone Ferry',
    { discount: '15', transportDays: 2 },
  ],
  ['HEDGE', 'Hedgerow Deli', 'Nia Cole', 'High Street 7\nUpper Hollowmere', { discount: '10' }],
  ['UPLAND', 'Upland Bee Club', 'Gus Farrow', 'Club House\nUpland', { transportDays: 3, hives: '64' }],
  ['NETTLE', 'Nettle & Thyme', 'Bea Thyme', 'Arcade 3\nStone Ferry', { transportDays: 2 }],
  ['FERRY', 'Ferry Road Primary', 'Mr Abara', 'Ferry Road 12\nStone Ferry'],
  ['WESTM', 'Westmoor Estate', 'Olive Grant', 'Estate Office\nWest Moor', { discount: '5', hives: '31' }],
];

type Ordered = readonly [code: string, quantity: number];
const DAY = 24 * 60 * 60 * 1000;

/** What customers of the demo business have asked for, in every state that an order can be in. */
export class Selling {
  private readonly ids = new Map<string, number>();

  constructor(
    private readonly client: DemoClient,
    private readonly item: (code: string) => { readonly id: number },
  ) {}

  async addCustomers(): Promise<void> {
    for (const [code, name, contact, billing, more = {}] of customers) {
      const { hives, ...facts } = more;
      const fields = hives ? [{ name: 'Hives', value: hives }] : [];
      const body = { code, name, contact, billing, email: `orders@${code.toLowerCase()}.example`, ...facts, fields };
      this.ids.set(code, (await this.client.call(api.createCustomer, { body })).id);
    }
  }

  of(code: string): number {
    return this.ids.get(code) ?? 0;
  }

  /** The customer who was added n-th, from nought. */
  nth(n: number): number {
    return [...this.ids.values()][n % this.ids.size] ?? 0;
  }

  /** What is open this morning, and what has left or been given up before. */
  async orders(now: number): Promise<void> {
    const on = (days: number) => dayOf(new Date(now + days * DAY));
    const sent = await this.order('ALDER', [['TASTE-3', 6]], on(-1), 'AV-2011');
    await this.ship(sent, { carrier: 'Own van' });
    const scale = await this.order('FERN', [['SCALE-1', 1]], on(1), '88-104');
    await this.shipSerial(scale);
    const part = await this.order(
      'BROOK',
      [
        ['FEED-2L', 6],
        ['SMK-1', 30],
      ],
      on(12),
      'Term 2',
      'as-ready',
    );
    await this.ship(part, { carrier: 'Collected', only: 'FEED-2L' });
    await this.order(
      'ALDER',
      [
        ['FEED-2L', 12],
        ['CANDLE-2', 6],
      ],
      on(3),
      'AV-2019',
    );
    await this.order('HALE', [['TASTE-3', 4]], on(7), '');
    await this.order(
      'LARK',
      [
        ['SUPER-10', 4],
        ['GIFT-EVE', 12],
      ],
      on(19),
      'Winter fair',
    );
    await this.order('QUINCE', [['SMK-1', 24]], on(23), 'Q-310');
    await this.order('ORRIN', [['CANDLE-2', 90]], on(10), '4471');
    await this.order('FERN', [['SET-HARV', 9]], null, '88-107');
    const wrong = await this.order('HALE', [['CANDLE-2', 2]], on(7), '');
    const { version } = await this.client.call(api.order, { params: { id: wrong } });
    const reason = 'Entered twice';
    await this.client.call(api.cancelOrder, { params: { id: wrong }, body: { version, reason } });
    await this.order('PARISH', [['KIT-S', 2]], on(30), 'Spring course', 'whole', false);
  }

  private async order(
    customer: string,
    lines: readonly Ordered[],
    wantedOn: string | null,
    reference: string,
    delivery: 'whole' | 'as-ready' = 'whole',
    confirm = true,
  ): Promise<number> {
    const body = {
      customerId: this.ids.get(customer) ?? 0,
      reference,
      wantedOn,
      delivery,
      confirm,
      lines: lines.map(([code, quantity]) => ({ itemId: this.item(code).id, quantity: String(quantity) })),
    };
    return (await this.client.call(api.createOrder, { body })).id;
  }

  private async ship(id: number, { carrier, only }: { carrier: string; only?: string }): Promise<void> {
    const { version, lines } = await this.client.call(api.order, { params: { id } });
    const sent = lines.filter(({ code }) => only === undefined || code === only);
    await this.client.call(api.shipOrder, {
      params: { id },
      body: { version, carrier, lines: sent.map((line) => ({ lineId: line.id, quantity: line.quantity })) },
    });
  }

  /** The last serial there is leaves for the only line of an order. */
  private async shipSerial(id: number): Promise<void> {
    const { version, lines } = await this.client.call(api.order, { params: { id } });
    const [line] = lines;
    const [part] = line?.parts ?? [];
    const serial = part?.bins.flatMap(({ pieces }) => pieces).at(-1)?.serial;
    if (!line || !part || !serial) throw new Error('no serial to ship');
    const own = { lineId: line.id, quantity: '1', parts: [{ partId: part.id, serials: [serial] }] };
    const body = { version, carrier: 'Parcel post', tracking: 'PP 4410 7781', lines: [own] };
    await this.client.call(api.shipOrder, { params: { id }, body });
  }
}
