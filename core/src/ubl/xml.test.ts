import { describe, expect, it } from 'vitest';
import { parseDecimal, type Quantity } from '../number/index.ts';
import {
  readDespatchAdvice,
  readOrder,
  readOrderResponse,
  ublKind,
  writeDespatchAdvice,
  writeOrderResponse,
} from './index.ts';
import { partyOf, quantityOf, readUbl, writeUbl } from './xml.ts';

const q = (text: string) => parseDecimal(text) as Quantity;
const whyOf = (run: () => unknown) => {
  try {
    run();
  } catch (error) {
    const { code, facts } = error as { code: string; facts: { why: string } };
    return `${code}: ${facts.why}`;
  }
  return 'read';
};
const why = (xml: string, kind: 'Order' | 'OrderResponse' = 'Order') => whyOf(() => readUbl(xml, kind));
const seller = { name: 'North', address: ['Mill Lane 4', 'Hollowmere'], email: 'a@north.example' };
const buyer = { name: 'Bee', address: [], email: null };

describe('documents as they are written', () => {
  it('an answer, element by element', () => {
    const promise = {
      number: 'C-1',
      order: 'PO-1',
      issuedOn: '2026-11-25',
      note: 'Soon',
      lines: [{ id: '1', quantity: q('2.5'), unit: 'kg', name: 'Wax', promisedOn: '2026-12-10' }],
    };
    const xml = writeOrderResponse(promise, seller, buyer);
    expect(xml.split('\n').map((line) => line.trim())).toEqual([
      '<?xml version="1.0" encoding="UTF-8"?>',
      '<OrderResponse xmlns="urn:oasis:names:specification:ubl:schema:xsd:OrderResponse-2" xmlns:cac="urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2" xmlns:cbc="urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2">',
      '<cbc:UBLVersionID>2.3</cbc:UBLVersionID>',
      '<cbc:ID>C-1</cbc:ID>',
      '<cbc:IssueDate>2026-11-25</cbc:IssueDate>',
      '<cbc:Note>Soon</cbc:Note>',
      '<cac:OrderReference>',
      '<cbc:ID>PO-1</cbc:ID>',
      '</cac:OrderReference>',
      '<cac:SellerSupplierParty>',
      '<cac:Party>',
      '<cac:PartyName>',
      '<cbc:Name>North</cbc:Name>',
      '</cac:PartyName>',
      '<cac:PostalAddress>',
      '<cac:AddressLine>',
      '<cbc:Line>Mill Lane 4</cbc:Line>',
      '</cac:AddressLine>',
      '<cac:AddressLine>',
      '<cbc:Line>Hollowmere</cbc:Line>',
      '</cac:AddressLine>',
      '</cac:PostalAddress>',
      '<cac:Contact>',
      '<cbc:ElectronicMail>a@north.example</cbc:ElectronicMail>',
      '</cac:Contact>',
      '</cac:Party>',
      '</cac:SellerSupplierParty>',
      '<cac:BuyerCustomerParty>',
      '<cac:Party>',
      '<cac:PartyName>',
      '<cbc:Name>Bee</cbc:Name>',
      '</cac:PartyName>',
      '</cac:Party>',
      '</cac:BuyerCustomerParty>',
      ...xml
        .slice(xml.indexOf('<cac:OrderLine>'))
        .split('\n')
        .map((line) => line.trim()),
    ]);
    const silent = writeOrderResponse(
      {
        ...promise,
        note: '',
        lines: [{ ...(promise.lines[0] as (typeof promise.lines)[number]), promisedOn: null }],
      } as never,
      buyer,
      seller,
    );
    expect(silent).not.toContain('cbc:Note>');
    expect(silent).not.toMatch(/EndDate|PromisedDeliveryPeriod/);
    expect(readOrderResponse(silent)).toMatchObject({ note: '', lines: [{ promisedOn: null }] });
  });

  it('goods on their way, piece by piece', () => {
    const line = {
      orderLine: '3',
      quantity: q('1'),
      unit: 'each',
      name: 'Scale',
      lot: null,
      bestBefore: null,
      serials: [],
    };
    const xml = writeDespatchAdvice(
      { number: 'D-1', order: 'PO-1', issuedOn: '2026-11-25', lines: [line, { ...line, lot: 'L', bestBefore: null }] },
      seller,
      buyer,
    );
    expect(xml.match(/<cbc:Name>(North|Bee)</g)).toEqual(['<cbc:Name>North<', '<cbc:Name>Bee<']);
    expect(xml.indexOf('DespatchSupplierParty')).toBeLessThan(xml.indexOf('North'));
    expect(xml.match(/<cac:DespatchLine>\s*<cbc:ID>\d/g)?.map((one) => one.at(-1))).toEqual(['1', '2']);
    expect(xml.match(/<cbc:ID>PO-1/g)).toHaveLength(3);
    expect(xml.match(/ItemInstance>/g)).toHaveLength(2);
    expect(xml).not.toContain('BestBeforeDate');
    expect(readDespatchAdvice(xml).lines).toEqual([
      { ...line, unit: 'EA' },
      { ...line, unit: 'EA', lot: 'L' },
    ]);
    const bare = xml
      .replace(/<cac:Item>[\s\S]*?<\/cac:Item>/g, '')
      .replaceAll(' unitCode="EA"', '')
      .replace(/<cbc:IssueDate>.*/, '');
    expect(readDespatchAdvice(bare)).toMatchObject({
      issuedOn: '',
      lines: [{ name: '', unit: '', lot: null, serials: [] }, {}],
    });
  });

  it('say of a party what is known', () => {
    expect(partyOf(buyer)).toEqual({
      'cac:PartyName': { 'cbc:Name': 'Bee' },
      'cac:PostalAddress': undefined,
      'cac:Contact': undefined,
    });
    expect(quantityOf(q('2'), null)).toEqual({ '#text': '2' });
    expect(quantityOf(q('2'), 'EA')).toEqual({ '#text': '2', '@unitCode': 'EA' });
  });
});

describe('documents as they come', () => {
  it('are known by their first element, whatever its prefix', () => {
    expect(
      [
        '<Order>',
        '<o:Order xmlns:o="x">',
        '<long1:OrderResponse\n>',
        '<DespatchAdvice>',
        '<Orders>',
        '<a.b:Order>',
        'Order',
      ].map(ublKind),
    ).toEqual(['Order', 'Order', 'OrderResponse', 'DespatchAdvice', null, null, null]);
  });

  it('are refused with what is wrong', () => {
    expect(why('<Order><ID>1</ID></Order>')).toBe('read');
    expect(why('<Order><ID>1</Order>')).toBe('ubl-unreadable: it is not well-formed XML');
    expect(why('<Invoice/>')).toBe('ubl-unreadable: it is not of the kind Order');
    expect(why('<Order/>')).toBe('ubl-unreadable: it is not of the kind Order');
    expect(why('<Order>text</Order>')).toBe('ubl-unreadable: it is not of the kind Order');
    expect(why('<!doctype x><Order><ID>1</ID></Order>')).toBe('ubl-unreadable: it declares a document type');
    expect(why('<Order><ID>\u0001</ID></Order>')).toBe('ubl-unreadable: it holds characters that XML does not allow');
    const odd = (name: string) => why(`<Order><a toString="1"><${name}>2</${name}></a></Order>`);
    expect(odd('toString')).toBe('read');
    expect(odd('constructor')).toBe('ubl-unreadable: its XML is not that of a business document');
  });

  it('are followed only so deep, counting what is open at once', () => {
    const nested = (n: number) => `<Order>${'<a>'.repeat(n)}x${'</a>'.repeat(n)}</Order>`;
    expect(why(nested(59))).toBe('read');
    expect(why(nested(60))).toBe('ubl-unreadable: it is nested deeper than any such document');
    expect(why(`<Order>${'<a>1</a><b/><!-- c --><?d e?>'.repeat(100)}</Order>`)).toBe('read');
  });

  it('are read or refused in the time that their length takes, whatever they are made of', () => {
    const inside: Record<string, string> = {
      '<': 'elements',
      '<a': 'elements',
      '<a>': 'elements',
      '<a/>': 'elements',
      '<a b="1"/>': 'elements',
      '</a>': 'well-formed',
      '<!--': 'well-formed',
      '<![CDATA[': 'well-formed',
      '<?a ': 'well-formed',
      '=""': 'attributes',
      "='": 'attributes',
    };
    for (const [part, told] of Object.entries(inside))
      expect([part, why(`<Order>${part.repeat(480_000 / part.length)}</Order>`)]).toEqual([
        part,
        expect.stringContaining(told),
      ]);
    for (const part of [' ', '&amp;', '=', '<!---->', '<![CDATA[>]]>', 'x:', '"', '>'])
      expect([part, why(`<Order><ID>1</ID>${part.repeat(480_000 / part.length)}</Order>`)]).toEqual([part, 'read']);
    const attributes = Array.from({ length: 20_001 }, (_, at) => `a${at}="1"`).join(' ');
    expect(why(`<Order ${attributes}/>`)).toContain('attributes');
    expect(why(`<Order>${'&'.repeat(480_000)}</Order>`)).toContain('well-formed');
    for (const part of [' a', ' a=', ' a="', "'"]) expect(why(`<Order ${part.repeat(200_000)}/>`)).not.toBe('read');
  });

  it('have texts, numbers and days where they should', () => {
    const long = 'x'.repeat(3000);
    const root = readUbl(
      `<Order><ID a="1">7</ID><Empty></Empty><Note>${long}</Note><Q unitCode="KGM">1.5</Q><Bad>${'9'.repeat(60)}x</Bad>
       <D>2026-02-28T10:00:00</D><E>2026-02-30</E><P><C><Only/></C></P></Order>`,
      'Order',
    );
    expect([
      root.text('ID'),
      root.text('Cell is empty'),
      root.text('None'),
      root.text('P/C/Only'),
      root.text('P'),
    ]).toEqual(['7', null, null, null, null]);
    expect(root.text('Note')).toHaveLength(2000);
    expect([
      root.attribute('Q', 'unitCode'),
      root.attribute('Q', 'none'),
      root.attribute('None/At', 'x'),
      root.attribute('ID', 'a'),
    ]).toEqual(['KGM', null, null, '1']);
    expect(root.quantity('Q')).toBe(q('1.5'));
    expect(whyOf(() => root.quantity('Bad'))).toBe(`ubl-unreadable: Bad is not a number: ${'9'.repeat(40)}`);
    expect(whyOf(() => root.quantity('None'))).toBe('ubl-unreadable: Order has no None');
    expect([root.day('D'), root.day('None')]).toEqual(['2026-02-28', null]);
    expect(whyOf(() => root.day('E'))).toBe('ubl-unreadable: E is not a date: 2026-02-30');
    expect(whyOf(() => root.day('Bad'))).toBe(`ubl-unreadable: Bad is not a date: ${'9'.repeat(40)}`);
    expect([root.all('None').length, root.all('P').length, root.at('P/None/More')]).toEqual([0, 1, undefined]);
    expect(root.text('hasOwnProperty')).toBeNull();
  });

  it('say nothing where they hold nothing', () => {
    expect(readOrder('<Order><ID>1</ID></Order>')).toEqual({
      number: '1',
      issuedOn: '',
      currency: '',
      note: '',
      wantedOn: null,
      buyer: { name: '', address: [], email: null },
      buyerCode: '',
      deliverTo: [],
      seller: { name: '', address: [], email: null },
      sellerCode: '',
      lines: [],
    });
  });

  it('come back as they were written', () => {
    const xml = writeUbl('Order', { 'cbc:ID': '1', 'cac:Empty': undefined, 'cac:None': '' });
    expect(xml).toContain('<cac:None/>');
    expect(xml).not.toContain('Cell is empty');
    expect(readUbl(xml, 'Order').text('UBLVersionID')).toBe('2.3');
  });
});
