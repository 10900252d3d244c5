import { describe, expect, it } from 'vitest';
import { company, faults, known, plan } from '../../test/world.ts';
import { type FileRecord, fileKinds } from './index.ts';

const lark = { code: 'LARK', name: 'Larkfield', archived: false };
const around = (more: Parameters<typeof company>[0] = {}) =>
  company({
    customers: new Map([
      ['lark', lark],
      ['larkfield', lark],
      ['old', { code: 'OLD', name: 'Old', archived: true }],
    ]),
    ...more,
  });
const fates = (kind: 'customers' | 'orders', rows: FileRecord[], world = around()) =>
  plan(kind, rows, world).fates.map(({ fate }) => fate);

describe('a file of customers', () => {
  it('adds and changes, and says nothing of what is the same', () => {
    const before = { code: 'LARK', name: 'Larkfield', contact: '', email: '', phone: '', billing: '', delivery: '' };
    const kept = { ...before, discount: '5', transportDays: '', note: '', archived: 'no' };
    const world = around({ existing: new Map([['lark', [kept]]]) });
    const rows: FileRecord[] = [
      { code: 'LARK', name: 'Larkfield', discount: '5 %' },
      { code: 'NEW', name: 'New', 'field:Hives': '9' },
    ];
    expect(fates('customers', rows, world)).toEqual(['same', 'new']);
    expect(fates('customers', [{ code: 'LARK', name: 'Larkfield', discount: '6' }], world)).toEqual(['changed']);
  });

  it('refuses what is no mail address, no discount and no number of days', () => {
    const rows: FileRecord[] = [
      { code: 'A', name: 'A', email: 'nobody' },
      { code: 'B', name: 'B', discount: '101' },
      { code: 'C', name: 'C', transportDays: '400' },
      { code: 'D', name: '' },
    ];
    expect(faults('customers', rows, around()).map(([first]) => first?.split(' ').slice(0, 2).join(' '))).toEqual([
      'email: invalid',
      'discount: out-of-range',
      'transportDays: out-of-range',
      'name: cell-missing',
    ]);
  });

  it('keeps the lines of an address, however they are parted', () => {
    const [change] = plan('customers', [{ code: 'A', name: 'A', billing: 'Lane 1; Town\r\n4402' }], around()).changes;
    expect(change?.rows[0]?.billing).toBe('Lane 1\nTown\n4402');
    const [plain] = plan('customers', [{ code: 'A', name: 'A', delivery: ' Lane 1\n\n Town ' }], around()).changes;
    expect(plain?.rows[0]?.delivery).toBe('Lane 1\nTown');
  });

  it('takes what is just allowed, and nothing beyond it', () => {
    const right = { code: 'A', name: 'A', email: 'a.b@shop.example.org', discount: '100', transportDays: '365' };
    const of = (more: FileRecord) => faults('customers', [{ ...right, ...more }], around()).flat();
    expect([of({}), of({ transportDays: '0', discount: '0', email: '' })]).toEqual([[], []]);
    for (const email of ['a@b', 'a b@c.org', 'a@b@c.org', 'a@b.o g', '@b.org', 'a@.', 'a@b.'])
      expect(of({ email }), email).toEqual([expect.stringMatching(/^email: invalid/)]);
    for (const transportDays of ['366', '1.5', '-1', 'two'])
      expect(of({ transportDays }), transportDays).toEqual([expect.stringMatching(/^transportDays: out-of-range/)]);
    expect(of({ discount: '100.0001' })).toHaveLength(1);
  });

  it('says what its rows are about, by code and name', () => {
    const subject = fileKinds.customers.subjectOf;
    expect([subject({ code: 'A', name: 'Ash' }), subject({ code: 'A' }), subject({})]).toEqual(['A, Ash', 'A', '']);
  });
});

describe('a file of orders', () => {
  const row = (more: FileRecord = {}): FileRecord => ({
    order: 'A-1',
    customer: 'lark',
    item: 'nail',
    quantity: '2',
    ...more,
  });

  it('makes one order of the rows under one number, said once or on every row', () => {
    const rows = [row({ wantedOn: '2026-12-24' }), { item: 'PIN', quantity: '3', price: '1,5' }, row({ order: 'A-2' })];
    const { changes } = plan('orders', rows as FileRecord[], around(), 'comma');
    expect(
      changes.map(({ key, rows: own }) => [key, own.map(({ item, price, wantedOn }) => [item, price, wantedOn])]),
    ).toEqual([
      [
        'a-1',
        [
          ['NAIL', '', '2026-12-24'],
          ['PIN', '1.5', '2026-12-24'],
        ],
      ],
      ['a-2', [['NAIL', '', '']]],
    ]);
  });

  it('leaves alone what is here as the file has it, and refuses what is here otherwise', () => {
    const here = {
      order: 'O-0001',
      customer: 'LARK',
      reference: '',
      state: 'confirmed',
      wantedOn: '',
      item: 'NAIL',
      quantity: '2',
      price: '3',
      shipped: '1',
    };
    const world = around({ existing: new Map([['o-0001', [here]]]) });
    expect(fates('orders', [here], world)).toEqual(['same']);
    expect(faults('orders', [{ ...here, quantity: '3' }], world)).toEqual([
      ['order: order-here-already {"number":"O-0001"}'],
    ]);
  });

  it('refuses customers, items, days and amounts that nobody could order by', () => {
    const first = (more: FileRecord, world = around()) => faults('orders', [row(more)], world)[0]?.[0]?.split(' ')[1];
    expect(first({ customer: 'nobody' })).toBe('customer-unknown');
    expect(first({ customer: 'old' })).toBe('customer-archived');
    expect(first({ customer: '' })).toBe('cell-missing');
    expect(first({ item: 'nothing' })).toBe('unknown-item-code');
    expect(first({ wantedOn: '24.12.' })).toBe('day-shape');
    expect(first({ quantity: '0.5' })).toBe('too-many-decimals');
    expect(first({ quantity: '0' })).toBe('not-positive');
    expect(first({ price: 'free' })).toBe('not-a-number');
    expect(first({ state: 'cancelled' })).toBe('word-unknown');
    expect(first({ shipped: '1' })).toBe('order-shipped-in-file');
    const odd = around({ known: [known('NAIL', { hasPrice: false }), known('PIN', { notForSale: true })] });
    expect(first({}, odd)).toBe('price-unknown');
    expect(first({ item: 'PIN' }, odd)).toBe('order-record-only');
    expect(faults('orders', [row({ wantedOn: '2026-12-23' }), row({ wantedOn: '2026-12-24' })], around())[1]).toEqual([
      'wantedOn: shared-differs {"first":"2026-12-23"}',
    ]);
    const ash = around({
      customers: new Map([
        ['lark', lark],
        ['ash', { ...lark, code: 'ASH' }],
      ]),
    });
    expect(faults('orders', [row(), row({ customer: 'ash' })], ash)[1]).toEqual([
      'customer: shared-differs {"first":"LARK"}',
    ]);
    const all = (more: FileRecord, world = around()) => faults('orders', [row(more)], world)[0];
    expect(all({ state: 'cancelled' })).toEqual([
      'state: word-unknown {"typed":"cancelled","known":["quote","confirmed"]}',
    ]);
    const gone = around({ known: [known('NAIL', { archived: true })] });
    expect(all({}, gone)).toEqual(['item: item-archived {"name":"The NAIL"}']);
    expect(all({}, odd)).toEqual(['price: price-unknown {"name":"The NAIL"}']);
    expect(all({ item: 'PIN' }, odd)).toEqual(['item: order-record-only {"name":"The PIN"}']);
    expect(all({ customer: 'old' })).toEqual(['customer: customer-archived {"name":"Old"}']);
    for (const column of ['order', 'reference'])
      expect([column, all({ [column]: 'x'.repeat(120) }), all({ [column]: 'x'.repeat(121) })]).toEqual([
        column,
        [],
        [`${column}: text-too-long {"most":120,"is":121}`],
      ]);
  });

  it('is kept in our own words, whatever they were written in', () => {
    const typed = row({ state: 'ORDERED', price: '', shipped: '0,0', wantedOn: '' });
    const [change] = plan('orders', [typed], around(), 'comma').changes;
    expect(change?.rows[0]).toMatchObject({ customer: 'LARK', state: 'confirmed', price: '', shipped: '0' });
  });
});
