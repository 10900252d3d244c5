import { Refusal } from '../refusal/index.ts';
import { amountFromZero } from './amounts.ts';
import { readBin } from './items.ts';
import type { FileKind } from './plan.ts';
import { knownItem, readItemQuantity } from './prices.ts';
import type { ImportWorld } from './world.ts';

/** Opening stock, one item in one bin a row. What is there already is left alone; anything else about it is refused. */
export const stockFile: FileKind<ImportWorld> = {
  columns: [
    {
      key: 'item',
      title: 'Item',
      required: true,
      aliases: ['item code', 'code', 'sku', 'part number', 'part no', 'article'],
    },
    { key: 'bin', title: 'Bin', required: true, aliases: ['location', 'shelf', 'place', 'storage bin', 'store bin'] },
    {
      key: 'quantity',
      title: 'Quantity',
      required: true,
      amount: true,
      aliases: ['qty', 'on hand', 'stock', 'count', 'amount', 'opening stock'],
    },
    {
      key: 'unitCost',
      title: 'Unit cost',
      required: true,
      amount: true,
      aliases: ['cost', 'cost price', 'cost each', 'price', 'average cost'],
    },
  ],
  hasFields: false,
  spansRows: false,
  shared: [],
  keyOf: ({ item = '', bin = '' }, world) =>
    item && bin ? `${item}|${world.bins.get(bin.toLowerCase()) ?? bin}`.toLowerCase() : '',
  subjectOf: ({ item, bin }) => `${item} in ${bin}`,
  defaults: { item: '', bin: '', quantity: '', unitCost: '' },
  existing: (world) => world.existing,
  // A row of what is not there needs neither a bin nor a cost.
  saysNothing: ({ quantity = '' }) => /^0+([.,]0*)?$/.test(quantity),
  readers: {
    item: (cell, { world }) => knownItem(cell, world).code,
    bin: (cell, { world }) => readBin(cell, world),
    quantity: (cell, { given, world, sign }) => readItemQuantity(cell, sign, knownItem(given.item ?? '', world)),
    unitCost: (cell, { sign }) => amountFromZero(cell, sign, 6),
  },
  check([record], before, { world }) {
    if (!record) return;
    const was = before?.[0];
    if (was) {
      const { quantity = '', unitCost = '' } = was;
      if (quantity === record.quantity && unitCost === record.unitCost) return;
      throw new Refusal('stock-there-already', { quantity, unitCost }, 'quantity');
    }
    const item = knownItem(record.item ?? '', world);
    if (item.archived) throw new Refusal('item-archived', { name: item.name }, 'item');
    if (item.isPacked) throw new Refusal('packed-not-stocked', { name: item.name }, 'item');
    if (item.tracking !== 'none') throw new Refusal('stock-is-tracked', { tracking: item.tracking }, 'item');
    if (record.quantity !== '0' && item.hasMoved) throw new Refusal('stock-has-moved', {}, 'item');
  },
};
