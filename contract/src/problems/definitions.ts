import { formatDecimal } from '@yosegi/core/number';
import { list, type ProblemKinds } from './kind.ts';

/** Refusals about definitions and kits. */
export const definitionsProblems = {
  'contains-itself': {
    status: 422,
    title: 'Contains itself',
    detail: (facts) => `This would make the product a part of itself: ${facts.path.join(' → ')}. Take out one link.`,
  },
  'shares-over': {
    status: 422,
    title: 'Shares above 100 %',
    detail: ({ sum }) =>
      `The take-apart shares typed add up to ${formatDecimal(sum)} %. Lower one, or leave one empty.`,
  },
  'shares-under': {
    status: 422,
    title: 'Shares below 100 %',
    detail: ({ sum }) =>
      `The take-apart shares typed add up to ${formatDecimal(sum)} %. Raise one, or leave one empty to take the rest.`,
  },
  'no-lines': { status: 422, title: 'Nothing in it', detail: () => 'Add at least one part or labour line first.' },
  'definition-exists': {
    status: 409,
    title: 'Already defined',
    detail: () => 'This item has a bill of materials. Open it instead.',
  },
  'draft-exists': {
    status: 409,
    title: 'Draft exists',
    detail: () => 'There is a draft already. Go on with it, or discard it first.',
  },
  'no-definition-in-use': {
    status: 422,
    title: 'No bill of materials in use',
    detail: ({ name }) => `${name} has no bill of materials in use. Put its draft in use first.`,
  },
  'alternate-is-part': {
    status: 422,
    title: 'The part itself',
    detail: () => 'A part cannot stand in for itself. Choose another item.',
  },
  'alternate-is-product': {
    status: 422,
    title: 'The product itself',
    detail: () => 'What is made here cannot stand in for its own part. Choose another item.',
  },
  'alternate-twice': {
    status: 422,
    title: 'Alternate twice',
    detail: () => 'This alternate is listed already. Take one of the two out.',
  },
  'part-is-packed': {
    status: 422,
    title: 'Never in stock',
    detail: ({ part }) =>
      `${part} is packed per order and never in stock, so nothing can be built from it. List its parts instead, or have it made ahead.`,
  },
  'packed-not-built': {
    status: 409,
    title: 'Packed per order',
    detail: ({ name }) =>
      `${name} is packed when its order ships, not built. Set it to “made ahead” to build it into stock.`,
  },
  'packed-not-stocked': {
    status: 409,
    title: 'Never in stock',
    detail: ({ name }) => `${name} is packed per order and never in stock. Receive its parts, or have it made ahead.`,
  },
  'rework-without-itself': {
    status: 422,
    title: 'Nothing goes in',
    detail: () => 'A rework takes in the very item it gives back. Add the item itself as a part.',
  },
  'revision-waits': {
    status: 409,
    title: 'Waits for its day',
    detail: ({ day }) => `This revision comes into use on ${day} and is frozen until then. Hold it back to change it.`,
  },
  'kit-purpose': {
    status: 422,
    title: 'Not for this use',
    detail: ({ purpose }) =>
      `Only what is built or sold can be packed per order; this is for ${purpose === 'record' ? 'the record only' : 'rework'}. Keep it made ahead.`,
  },
  'kit-has-stock': {
    status: 409,
    title: 'Stock is there',
    detail: () =>
      'Some of it is in stock, and what is packed per order never is. Take the stock apart or use it up first, or keep it made ahead.',
  },
  'kit-has-builds': {
    status: 409,
    title: 'Builds are open',
    detail: ({ builds }) =>
      `${list(builds)} would put it into stock. Finish or cancel what is open first, or keep it made ahead.`,
  },
  'kit-is-part': {
    status: 409,
    title: 'Part of others',
    detail: ({ products }) =>
      `${list(products)} is built from it, which takes it from stock. Replace it there by its parts first, or keep it made ahead.`,
  },
  'kit-is-tracked': {
    status: 409,
    title: 'Tracked',
    detail: ({ tracking }) =>
      `It is tracked by ${tracking}, and what is packed per order has none of its own: its parts have. Set tracking to none, or keep it made ahead.`,
  },
  'kit-no-alternates': {
    status: 422,
    title: 'Nothing to swap for',
    detail: () =>
      'Parts may be swapped for listed alternates, but no line lists one. List an alternate in the revision, or allow any item.',
  },
} satisfies Partial<ProblemKinds>;
