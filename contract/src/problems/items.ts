import { dayFigure, figure } from './figures.ts';
import type { ProblemKinds } from './kind.ts';

/** Refusals about items. */
export const itemsProblems = {
  'unit-in-use': {
    status: 409,
    title: 'Unit is in use',
    detail: () => 'This item’s stock is already counted in this unit. Add a new item to count in another.',
  },
  'unit-decimals-used': {
    status: 409,
    title: 'Decimals are in use',
    detail: ({ name, used }) =>
      `${name} has a quantity of ${figure(used)}, which would not fit. Nothing is rounded; keep the decimals as they are.`,
  },
  'serial-needs-whole': {
    status: 422,
    title: 'No decimals with serial numbers',
    detail: () => 'Items tracked by serial number can’t have decimals. Choose a unit without decimals.',
  },
  'tracking-in-use': {
    status: 409,
    title: 'Stock is there',
    detail: () => 'How an item is tracked can change only while none of it is in stock.',
  },
  'archive-has-stock': {
    status: 409,
    title: 'Stock is there',
    detail: () => 'Some is still in stock. Use it up or adjust it to zero before you archive it.',
  },
  'archive-is-promised': {
    status: 409,
    title: 'Stock is still promised',
    detail: () => 'Open builds still need it. Finish or cancel them before you archive it.',
  },
  'archive-comes-into-use': {
    status: 409,
    title: 'Comes into use later',
    detail: ({ name, product, day }) =>
      `A revision of ${product} with ${name} comes into use on ${dayFigure(day)}. Hold that revision back first, or remove the item from it.`,
  },
  'item-archived': {
    status: 409,
    title: 'This item is archived',
    detail: ({ name }) => `${name} is archived. Bring it back first, or choose another item.`,
  },
  'item-has-history': {
    status: 409,
    title: 'Item has a history',
    detail: () => 'Stock, builds or bills of materials use this item, so it can’t be deleted. Archive it instead.',
  },
  'barcode-taken': {
    status: 409,
    title: 'Barcode already in use',
    detail: ({ barcode, by }) => `${barcode} already belongs to ${by}. Each barcode means one item.`,
  },
  'picture-unreadable': {
    status: 422,
    title: 'Not a picture file',
    detail: () => 'This file isn’t a picture Yosegi can read. Use JPEG, PNG, WebP, GIF or AVIF.',
  },
  'picture-too-large': {
    status: 413,
    title: 'Picture too large',
    detail: () => 'This picture has more than 60 million pixels. Choose a smaller one.',
  },
} satisfies Partial<ProblemKinds>;
