import { describe, expect, it } from 'vitest';
import { faults } from '../../test/world.ts';
import { type FileKindName, fileKinds, guessMatching } from './index.ts';

/** What stands above columns in files of others, and what is meant; each is found without any other beside it. */
const others: Record<FileKindName, Readonly<Record<string, readonly string[]>>> = {
  items: {
    code: ['Item no.', 'Article', 'SKU'],
    name: ['Description', 'Product name'],
    unit: ['UoM', 'Unit of measure'],
    source: ['Make or buy', 'Procurement'],
    tracking: ['Lot or serial', 'Traceability'],
    serialPattern: ['Serial mask'],
    lotOrder: ['FEFO'],
    lotFields: ['Lot attributes'],
    returnDays: ['Return period'],
    homeBin: ['Location', 'Storage'],
    sellPrice: ['List price', 'Retail price'],
    taxFree: ['Tax exempt', 'VAT free'],
    reorderPoint: ['Minimum stock', 'Min.'],
    standardCost: ['Cost price', 'Std cost'],
    barcode: ['EAN', 'GTIN'],
    packs: ['Packaging'],
    note: ['Remarks', 'Memo'],
    archived: ['Discontinued', 'Obsolete'],
  },
  prices: {
    item: ['Our code', 'Part number'],
    supplier: ['Vendor', 'Supplier no'],
    supplierName: ['Company', 'Vendor name'],
    supplierItem: ['Their code', 'Order code'],
    price: ['Purchase price', 'Net price'],
    pack: ['Order multiple'],
    minimum: ['MOQ'],
    breaks: ['Scale prices', 'Tiers'],
    leadDays: ['Lead time', 'Days'],
  },
  stock: {
    item: ['SKU', 'Article'],
    bin: ['Shelf', 'Place'],
    quantity: ['On hand', 'Count'],
    unitCost: ['Average cost', 'Price'],
  },
  definitions: {
    product: ['Parent', 'Assembly', 'Finished good'],
    purpose: ['BOM type'],
    makes: ['Batch size', 'Yield'],
    state: ['Revision state'],
    made: ['Made or packed'],
    paperwork: ['Print contents'],
    onOrder: ['Contents on order'],
    partsDiscount: ['Discount'],
    kind: ['Line type'],
    component: ['Component', 'Child item', 'Material'],
    text: ['Instruction', 'Operation'],
    quantity: ['Qty per', 'Usage'],
    counted: ['Basis', 'Fixed or variable'],
    waste: ['Scrap factor', 'Loss'],
    taken: ['Backflush'],
    from: ['Issue from', 'Location'],
    share: ['Share'],
    comesBack: ['Recoverable'],
    tolerance: ['Allowed difference'],
    alternates: ['Substitutes', 'Replacement'],
    rate: ['Work centre', 'Labor rate'],
  },
  customers: {
    code: ['Customer no', 'Number'],
    name: ['Company', 'Customer name'],
    contact: ['Attention', 'Contact person'],
    email: ['E-mail', 'Mail'],
    phone: ['Tel', 'Telephone'],
    billing: ['Address', 'Bill to'],
    delivery: ['Ship to', 'Shipping address'],
    discount: ['Rebate'],
    transportDays: ['Days', 'Transport days'],
    note: ['Comment', 'Remark'],
    archived: ['Blocked', 'Inactive'],
  },
  orders: {
    order: ['Order no', 'Number'],
    customer: ['Client', 'Customer name'],
    reference: ['PO number', 'Purchase order'],
    state: ['Status'],
    wantedOn: ['Due date', 'Required date'],
    item: ['SKU', 'Article'],
    quantity: ['Pieces', 'Qty'],
    price: ['Price each', 'Net price'],
    shipped: ['Delivered', 'Sent'],
  },
};

describe.each(Object.keys(others) as FileKindName[])('a file of %s', (kind) => {
  const { columns } = fileKinds[kind];
  it('has another word for every column', () =>
    expect(Object.keys(others[kind])).toEqual(columns.map(({ key }) => key)));

  it.each(Object.entries(others[kind]))('%s is found under what others call it', (key, titles) => {
    for (const title of titles) expect(guessMatching([title], columns), title).toEqual([key]);
  });
});

/** What a row cannot be without, and which columns hold amounts: in them a file’s decimal sign is heard. */
const needed: Readonly<Record<FileKindName, readonly [required: string, amounts: string]>> = {
  items: ['code name', 'sellPrice reorderPoint standardCost'],
  stock: ['item bin quantity unitCost', 'quantity unitCost'],
  prices: ['item supplier price', 'price pack minimum'],
  definitions: ['product', 'makes partsDiscount quantity waste share tolerance'],
  customers: ['code name', 'discount'],
  orders: ['order item quantity', 'quantity price shipped'],
};

it.each(Object.keys(needed) as FileKindName[])('a row of %s says what it needs', (kind) => {
  const { columns } = fileKinds[kind];
  const keys = (some: typeof columns) => some.map(({ key }) => key).join(' ');
  expect([keys(columns.filter((one) => one.required)), keys(columns.filter((one) => one.amount))]).toEqual(
    needed[kind],
  );
  const row = Object.fromEntries(columns.map(({ key }) => [key, '']));
  const missing = faults(kind, [row])[0]?.filter((fault) => fault.includes('cell-missing'));
  expect(missing?.map((fault) => fault.split(':')[0])).toEqual(needed[kind][0].split(' '));
});

it('fields of their own are kept of items and customers, and passed over elsewhere', () => {
  expect(Object.entries(fileKinds).flatMap(([name, kind]) => (kind.hasFields ? name : []))).toEqual([
    'items',
    'customers',
  ]);
});
