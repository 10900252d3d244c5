import { formatDecimal } from '@yosegi/core/number';
import type { ProblemKinds } from './kind.ts';

/** Refusals about items. */
export const itemsProblems = {
  'unit-in-use': {
    status: 409,
    title: 'Unit in use',
    detail: () => 'Stock has been kept in this unit already. Make a new item to count it in another.',
  },
  'unit-decimals-used': {
    status: 409,
    title: 'Decimals in use',
    detail: ({ name, used }) =>
      `${name} has a quantity of ${formatDecimal(used)}, which would not fit. Nothing is rounded; keep the decimals.`,
  },
  'serial-needs-whole': {
    status: 422,
    title: 'Whole units only',
    detail: () => 'What is kept by serial number is counted in whole units. Choose a unit without decimals.',
  },
  'tracking-in-use': {
    status: 409,
    title: 'Stock is there',
    detail: () => 'How an item is tracked can change only while none of it is in stock.',
  },
  'archive-has-stock': {
    status: 409,
    title: 'Stock is there',
    detail: () => 'Some of it is still in stock. Use it up or take it off stock before it is archived.',
  },
  'archive-is-promised': {
    status: 409,
    title: 'Still promised',
    detail: () => 'Open builds still need it. Finish or cancel them before it is archived.',
  },
  'archive-comes-into-use': {
    status: 409,
    title: 'Comes into use',
    detail: ({ name, product, day }) =>
      `A revision of ${product} with ${name} comes into use on ${day}. Take that day back first, or make the revision without it.`,
  },
  'item-archived': {
    status: 409,
    title: 'Archived',
    detail: ({ name }) => `${name} is archived. Bring it back first, or take another item.`,
  },
  'item-has-history': {
    status: 409,
    title: 'It has a history',
    detail: () => 'Stock, builds or definitions refer to this item, so it cannot be deleted. Archive it instead.',
  },
  'barcode-taken': {
    status: 409,
    title: 'Barcode taken',
    detail: ({ barcode, by }) => `${barcode} already belongs to ${by}. Each barcode means one item.`,
  },
  'picture-unreadable': {
    status: 422,
    title: 'Not a picture',
    detail: () => 'This file is no picture that can be read. Choose a JPEG, PNG, WebP, GIF or AVIF.',
  },
  'picture-too-large': {
    status: 413,
    title: 'Picture too large',
    detail: () => 'This picture has more than 60 million pixels. Choose a smaller one.',
  },
} satisfies Partial<ProblemKinds>;
