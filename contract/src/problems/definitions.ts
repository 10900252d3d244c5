import { dayFigure, figure } from './figures.ts';
import { list, type ProblemKinds } from './kind.ts';

/** Refusals about definitions and kits. */
export const definitionsProblems = {
  'contains-itself': {
    status: 422,
    title: 'A product contains itself',
    detail: (facts) =>
      `This would make the product a part of itself: ${facts.path.join(' → ')}. Remove one of these parts.`,
  },
  'shares-over': {
    status: 422,
    title: 'Shares above 100%',
    detail: ({ sum }) => `The take-apart shares add up to ${figure(sum)}%. Lower one, or leave one empty.`,
  },
  'shares-under': {
    status: 422,
    title: 'Shares below 100%',
    detail: ({ sum }) =>
      `The take-apart shares add up to ${figure(sum)}%. Raise one, or leave one empty to take the rest.`,
  },
  'no-lines': { status: 422, title: 'Nothing here yet', detail: () => 'Add at least one part or labour line first.' },
  'definition-exists': {
    status: 409,
    title: 'Bill of materials exists',
    detail: () => 'This item has a bill of materials. Open it instead.',
  },
  'draft-exists': {
    status: 409,
    title: 'A draft exists',
    detail: () => 'A draft exists already. Continue or discard it first.',
  },
  'no-definition-in-use': {
    status: 422,
    title: 'No bill of materials in use',
    detail: ({ name }) => `${name} has no bill of materials in use. Put its draft in use first.`,
  },
  'alternate-is-part': {
    status: 422,
    title: 'The part itself',
    detail: () => 'A part can’t replace itself. Choose another item.',
  },
  'alternate-is-product': {
    status: 422,
    title: 'The product itself',
    detail: () => 'A product can’t replace its own part. Choose another item.',
  },
  'alternate-twice': {
    status: 422,
    title: 'Alternate listed twice',
    detail: () => 'This alternate is already listed. Remove one of the two.',
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
    title: 'No parts yet',
    detail: () => 'A rework needs its own item as a part. Add the item itself.',
  },
  'revision-waits': {
    status: 409,
    title: 'Scheduled for a date',
    detail: ({ day }) =>
      `This revision comes into use on ${dayFigure(day)} and is frozen until then. Hold it back to change it.`,
  },
  'kit-purpose': {
    status: 422,
    title: 'Not possible for this use',
    detail: ({ purpose }) =>
      `Only what is built or sold can be packed per order; this is for ${purpose === 'record' ? 'the record only' : 'rework'}. Leave it made ahead.`,
  },
  'kit-has-stock': {
    status: 409,
    title: 'Stock is there',
    detail: () =>
      'Some is in stock, but nothing packed per order is kept in stock. Take it apart or use it up first, or leave it made ahead.',
  },
  'kit-has-builds': {
    status: 409,
    title: 'Builds are open',
    detail: ({ builds }) =>
      `${list(builds)} would put it into stock. Finish or cancel what is open first, or leave it made ahead.`,
  },
  'kit-is-part': {
    status: 409,
    title: 'Part of others',
    detail: ({ products }) =>
      `${list(products)} is built from it, which takes it from stock. Replace it there by its parts first, or leave it made ahead.`,
  },
  'kit-is-tracked': {
    status: 409,
    title: 'Tracked items can’t be packed',
    detail: ({ tracking }) =>
      `Tracked by ${tracking}, so it can’t be packed per order. Set tracking to none, or leave it made ahead.`,
  },
  'kit-no-alternates': {
    status: 422,
    title: 'Nothing to swap for',
    detail: () =>
      'Parts may be swapped for listed alternates, but no line lists one. List an alternate in the revision, or allow any item.',
  },
} satisfies Partial<ProblemKinds>;
