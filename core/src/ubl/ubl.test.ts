import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Money, parseDecimal, type Quantity } from '../number/index.ts';
import {
  type Despatch,
  type OrderDocument,
  readDespatchAdvice,
  readMessage,
  readOrder,
  readOrderCancellation,
  readOrderChange,
  readOrderResponse,
  ublKind,
  writeDespatchAdvice,
  writeOrder,
  writeOrderCancellation,
  writeOrderChange,
  writeOrderResponse,
} from './index.ts';

const q = (text: string) => parseDecimal(text) as Quantity;
const order: OrderDocument = {
  number: 'PO-0001',
  issuedOn: '2026-11-24',
  currency: 'EUR',
  note: 'Ring the bell & wait <there>',
  wantedOn: '2026-12-08',
  buyer: { name: 'Hollowmere “Bee” Supply', address: ['Mill Lane 4', '12345 Hollowmere'], email: 'mo@example.org' },
  seller: { name: 'North Shed Timber', address: [], email: null },
  buyerCode: 'BEE',
  deliverTo: ['Gate 3', 'Hollowmere'],
  sellerCode: 'NORTH',
  lines: [
    {
      id: '1',
      quantity: q('12.5'),
      unit: 'kg',
      price: parseDecimal('3.25') as Money,
      wantedOn: null,
      name: 'Wax',
      code: 'WAX',
      supplierCode: 'W-1',
      gtin: '4006381333931',
    },
    {
      id: '2',
      quantity: q('3'),
      unit: 'bundle',
      price: parseDecimal('0.333333') as Money,
      wantedOn: '2026-12-24',
      name: 'Slats',
      code: 'SLAT',
      supplierCode: '',
      gtin: null,
    },
  ],
};
/** Names of elements in the order they stand, with how deep. */
const outline = (xml: string) =>
  [...xml.matchAll(/^( *)<([\w:]+)/gm)].map(([, space, name]) => `${(space ?? '').length / 2} ${name}`);

describe('a UBL order', () => {
  it('has the elements of the standard in its order', () => {
    const names = outline(writeOrder(order))
      .filter((line) => /^[123] /.test(line))
      .map((line) => line.slice(2));
    const top = outline(writeOrder(order))
      .filter((line) => line.startsWith('1 '))
      .map((line) => line.slice(2));
    expect(top).toEqual([
      'cbc:UBLVersionID',
      'cbc:ID',
      'cbc:IssueDate',
      'cbc:Note',
      'cbc:DocumentCurrencyCode',
      'cbc:LineCountNumeric',
      'cac:BuyerCustomerParty',
      'cac:SellerSupplierParty',
      'cac:Delivery',
      'cac:AnticipatedMonetaryTotal',
      'cac:OrderLine',
      'cac:OrderLine',
    ]);
    const first = names.slice(names.indexOf('cac:LineItem') + 1, names.lastIndexOf('cac:OrderLine'));
    expect(first).toEqual(['cbc:ID', 'cbc:Quantity', 'cbc:LineExtensionAmount', 'cac:Price', 'cac:Item']);
    const second = names.slice(names.lastIndexOf('cac:LineItem') + 1);
    expect(second).toEqual([
      'cbc:ID',
      'cbc:Note',
      'cbc:Quantity',
      'cbc:LineExtensionAmount',
      'cac:Delivery',
      'cac:Price',
      'cac:Item',
    ]);
  });

  it('says amounts exactly, with the standard’s unit codes where there are any', () => {
    const xml = writeOrder(order);
    expect(xml).toContain('<cbc:Quantity unitCode="KGM">12.5</cbc:Quantity>');
    expect(xml).toContain('<cbc:Quantity>3</cbc:Quantity>');
    expect(xml).toContain('<cbc:Note>Quantity in bundle</cbc:Note>');
    expect(xml).toContain('<cbc:PriceAmount currencyID="EUR">0.333333</cbc:PriceAmount>');
    expect(xml).toContain('<cbc:PayableAmount currencyID="EUR">41.63</cbc:PayableAmount>');
    expect(xml).toContain('Ring the bell &amp; wait &lt;there&gt;');
  });

  it('is read back as it was written, whatever stands in its texts', () => {
    const back = readOrder(writeOrder(order));
    expect(back).toEqual({
      ...order,
      lines: [
        { ...order.lines[0], unit: 'KGM' },
        { ...order.lines[1], unit: '' },
      ],
    });
    const text = fc
      .string({ unit: 'grapheme-ascii', minLength: 1, maxLength: 30 })
      .map((value) => value.trim())
      .filter((value) => value !== '');
    fc.assert(
      fc.property(text, text, text, (number, note, name) => {
        const own = { ...order, number, note, lines: order.lines.map((line) => ({ ...line, name })) };
        const again = readOrder(writeOrder(own));
        expect([again.number, again.note, again.lines[1]?.name]).toEqual([number, note, name]);
      }),
    );
  });
});

describe('an order that was sent before', () => {
  it('is changed by the same elements, with what it changes among them', () => {
    const xml = writeOrderChange({ ...order, wantedOn: null }, 2);
    expect(ublKind(xml)).toBe('OrderChange');
    const top = outline(xml)
      .filter((line) => line.startsWith('1 '))
      .map((line) => line.slice(2));
    expect(top.slice(0, 8)).toEqual([
      'cbc:UBLVersionID',
      'cbc:ID',
      'cbc:IssueDate',
      'cbc:SequenceNumberID',
      'cbc:Note',
      'cbc:DocumentCurrencyCode',
      'cbc:LineCountNumeric',
      'cac:OrderReference',
    ]);
    expect(readOrderChange(xml)).toMatchObject({ number: 'PO-0001', buyerCode: 'BEE', deliverTo: order.deliverTo });
  });

  it('is cancelled with the reason', () => {
    const own = { ...order, why: 'No longer wanted' };
    const xml = writeOrderCancellation(own);
    expect(ublKind(xml)).toBe('OrderCancellation');
    const top = outline(xml)
      .filter((line) => line.startsWith('1 '))
      .map((line) => line.slice(2));
    expect(top).toEqual([
      'cbc:UBLVersionID',
      'cbc:ID',
      'cbc:IssueDate',
      'cbc:CancellationNote',
      'cac:OrderReference',
      'cac:BuyerCustomerParty',
      'cac:SellerSupplierParty',
    ]);
    expect(readOrderCancellation(xml)).toMatchObject({ number: 'PO-0001', why: 'No longer wanted', buyerCode: 'BEE' });
  });
});

describe('answers of a supplier', () => {
  it('promise quantities and days', () => {
    const promise = {
      number: 'C-9',
      order: 'PO-0001',
      issuedOn: '2026-11-25',
      note: '',
      lines: [
        { id: '1', quantity: q('10'), unit: 'kg', name: 'Wax', promisedOn: '2026-12-10' },
        { id: '2', quantity: q('3'), unit: '', name: 'Slats', promisedOn: null },
      ],
    };
    const xml = writeOrderResponse(promise, order.seller, order.buyer);
    expect(ublKind(xml)).toBe('OrderResponse');
    expect(readOrderResponse(xml)).toEqual({
      ...promise,
      lines: [{ ...promise.lines[0], unit: 'KGM' }, promise.lines[1]],
    });
  });

  it('announce goods with their lots and serials', () => {
    const despatch: Despatch = {
      number: 'D-4',
      order: 'PO-0001',
      issuedOn: '2026-12-01',
      lines: [
        {
          orderLine: '1',
          quantity: q('12.5'),
          unit: 'KGM',
          name: 'Wax',
          lot: 'WX-7',
          bestBefore: '2028-01-31',
          serials: [],
        },
        {
          orderLine: '2',
          quantity: q('2'),
          unit: '',
          name: 'Scale',
          lot: null,
          bestBefore: null,
          serials: ['S-1', 'S-2'],
        },
      ],
    };
    const xml = writeDespatchAdvice(
      { ...despatch, lines: despatch.lines.map((line) => ({ ...line, unit: line.unit && 'kg' })) },
      order.seller,
      order.buyer,
    );
    expect(ublKind(xml)).toBe('DespatchAdvice');
    expect(readDespatchAdvice(xml)).toEqual(despatch);
  });

  it('are each read as what they are', () => {
    const line = { id: '1', quantity: q('1'), unit: '', name: '', promisedOn: null };
    const answer = { number: 'C', order: 'P', issuedOn: '', note: '', lines: [line] };
    const despatch: Despatch = { number: 'D', order: 'P', issuedOn: '2026-11-24', lines: [] };
    const xml = [
      writeOrder(order),
      writeOrderChange(order, 2),
      writeOrderCancellation({ ...order, why: 'Too late' }),
      writeOrderResponse(answer, order.seller, order.buyer),
      writeDespatchAdvice(despatch, order.seller, order.buyer),
    ];
    expect(xml.map((one) => readMessage(one).kind)).toEqual(xml.map(ublKind));
    expect(() => readMessage('<Invoice/>')).toThrow(expect.objectContaining({ code: 'ubl-unreadable' }));
  });

  it('are refused when they cannot be read, saying why', () => {
    const bad = (xml: string) => {
      try {
        return readOrderResponse(xml);
      } catch (error) {
        return (error as { facts: { why: string } }).facts.why;
      }
    };
    const good = writeOrderResponse(
      {
        number: 'C',
        order: 'P',
        issuedOn: '',
        note: '',
        lines: [{ id: '1', quantity: q('1'), unit: '', name: '', promisedOn: null }],
      },
      order.seller,
      order.buyer,
    );
    expect(bad('<OrderResponse><ID>1')).toBe('it is not well-formed XML');
    expect(bad(writeOrder(order))).toBe('it is not of the kind OrderResponse');
    expect(bad(good.replace('<OrderResponse', '<!DOCTYPE x [<!ENTITY a "b">]><OrderResponse'))).toBe(
      'it declares a document type',
    );
    expect(bad(good.replace(/<cac:OrderReference>[\s\S]*?<\/cac:OrderReference>/, ''))).toBe(
      'OrderResponse has no OrderReference/ID',
    );
    expect(bad(good.replace(/>1<\/cbc:Quantity>/, '>many</cbc:Quantity>'))).toBe(
      'LineItem/Quantity is not a number: many',
    );
    // Another sender’s prefixes are as good as ours.
    expect(
      bad(
        good
          .replaceAll('cbc:', 'b:')
          .replaceAll('cac:', 'a:')
          .replaceAll('xmlns:cbc', 'xmlns:b')
          .replaceAll('xmlns:cac', 'xmlns:a'),
      ),
    ).toMatchObject({ number: 'C' });
  });
});
