import { formatDecimal } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { buyingProblems } from './buying-problems.ts';
import { fileProblems } from './file-problems.ts';
import { list, type ProblemKind } from './problem-kind.ts';

export type { Facts, ProblemKind } from './problem-kind.ts';

const amount = (value: unknown) => (typeof value === 'number' ? formatDecimal(value) : String(value ?? ''));

/** Every refusal the API can answer with: its stable code, status and wording in one place. */
export const problemKinds: Record<string, ProblemKind> = {
  'not-a-number': {
    status: 422,
    title: 'Not a number',
    detail: (facts) => `“${facts.typed}” is not a number. Write digits with a point for decimals, like 12 or 0.5.`,
  },
  'too-many-decimals': {
    status: 422,
    title: 'Too many decimals',
    detail: ({ typed, decimals }) =>
      decimals === 0
        ? `“${typed}” has decimals, but this is counted in whole units.`
        : `“${typed}” has too many decimals; ${decimals} are allowed here.`,
  },
  'too-large': {
    status: 422,
    title: 'Too large',
    detail: ({ largest }) => `This is too large: ${largest} is the most that can be kept here.`,
  },
  'not-positive': { status: 422, title: 'Nothing to do', detail: () => 'Type an amount above zero.' },
  negative: { status: 422, title: 'Below zero', detail: () => 'This cannot be below zero.' },
  invalid: {
    status: 422,
    title: 'Something is not right',
    detail: (facts) => String(facts.message ?? 'Check this field.'),
  },
  unexpected: {
    status: 500,
    title: 'Something broke',
    detail: ({ requestId }) =>
      `Nothing was changed. Try again; if it happens again, look for ${requestId} in the server's log.`,
  },
  'out-of-range': {
    status: 422,
    title: 'Out of range',
    detail: ({ least, most }) => `Type a value from ${least} to ${most}.`,
  },
  unprintable: {
    status: 422,
    title: 'Cannot be shown',
    detail: () => 'There is a character in this that cannot be seen or printed. Delete the text and type it again.',
  },
  'unknown-item': {
    status: 422,
    title: 'Unknown item',
    detail: () => 'This item does not exist. Choose one from the list.',
  },
  'unknown-bin': {
    status: 422,
    title: 'Unknown bin',
    detail: () => 'This bin does not exist, or nothing can be kept in it.',
  },
  'unknown-line': {
    status: 422,
    title: 'Unknown line',
    detail: () => 'This line is not part of the record. Reload and try again.',
  },
  'unknown-choice': { status: 422, title: 'Unknown choice', detail: () => 'This choice does not exist any more.' },
  'not-found': { status: 404, title: 'Not found', detail: () => 'There is nothing here. It may have been removed.' },
  'code-taken': {
    status: 409,
    title: 'Code taken',
    detail: ({ code, by }) => `“${code}” already belongs to ${by}. Choose another code.`,
  },
  'unit-in-use': {
    status: 409,
    title: 'Unit in use',
    detail: () => 'Stock has been kept in this unit already. Make a new item to count it in another.',
  },
  'stale-save': {
    status: 409,
    title: 'Changed meanwhile',
    detail: () => 'Someone else saved this record after you opened it. Compare both versions before you save yours.',
  },
  'wrong-state': {
    status: 409,
    title: 'Not possible now',
    detail: ({ is, must }) => `This is ${is}; it would have to be ${must}.`,
  },
  'contains-itself': {
    status: 422,
    title: 'Contains itself',
    detail: (facts) =>
      `This would make the product a part of itself: ${(facts.path as string[]).join(' → ')}. Take out one link.`,
  },
  'shares-over': {
    status: 422,
    title: 'Shares above 100 %',
    detail: ({ sum }) => `The take-apart shares typed add up to ${amount(sum)} %. Lower one, or leave one empty.`,
  },
  'shares-under': {
    status: 422,
    title: 'Shares below 100 %',
    detail: ({ sum }) =>
      `The take-apart shares typed add up to ${amount(sum)} %. Raise one, or leave one empty to take the rest.`,
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
  'serial-pattern': {
    status: 422,
    title: 'Not a pattern',
    detail: () => 'A serial pattern has one run of # signs where the number goes, like SC-####.',
  },
  'serial-range': {
    status: 422,
    title: 'Not a range',
    detail: ({ typed }) =>
      `“${typed}” is no range of serial numbers. Write the first and the last, like SC-0101..0140.`,
  },
  'serial-twice': { status: 422, title: 'Serial twice', detail: ({ code }) => `${code} is there twice. Take one out.` },
  'too-many-serials': {
    status: 422,
    title: 'Too many serials',
    detail: ({ most }) => `${most} serial numbers can be taken at once. Post the rest after them.`,
  },
  'not-tracked': {
    status: 422,
    title: 'Not tracked',
    detail: ({ name }) => `${name} is not kept that way. Leave this empty, or change its tracking while none is there.`,
  },
  'lot-needed': {
    status: 422,
    title: 'Which lot?',
    detail: ({ name }) => `${name} is kept by lot. Type the lot that is printed on it.`,
  },
  'lot-unknown': {
    status: 422,
    title: 'Unknown lot',
    detail: ({ code, name }) =>
      `There is no lot ${code} of ${name} here. Choose one from the list, or receive it first.`,
  },
  'lot-day-differs': {
    status: 409,
    title: 'Another day',
    detail: ({ code, day }) =>
      day
        ? `Lot ${code} is known already, and best before ${day}. Leave the day empty, or type another lot.`
        : `Lot ${code} is known already, and keeps without a day. Leave the day empty, or type another lot.`,
  },
  'lot-order': {
    status: 409,
    title: 'Another lot goes first',
    detail: ({ first, bin, bestBefore }) =>
      `Lot ${first} in ${bin} is best before ${bestBefore}, so it goes first. Take that one, or ask an owner to allow this.`,
  },
  'is-held': {
    status: 409,
    title: 'Held',
    detail: ({ code, held }) => `${code} is held (${held}). Take another, or ask an owner to release it.`,
  },
  'serials-needed': {
    status: 422,
    title: 'Which serials?',
    detail: ({ name, count, given }) =>
      `${name} is kept by serial number: ${count} ${Number(count) === 1 ? 'is' : 'are'} needed here and ${given} given.`,
  },
  'serial-unknown': {
    status: 422,
    title: 'Unknown serial',
    detail: ({ code, name }) => `There is no ${name} with the serial ${code} here. Scan it again.`,
  },
  'serial-clash': {
    status: 409,
    title: 'Serial taken',
    detail: ({ code, says, free }) =>
      `${code} ${says}.${free ? ` Free are ${free}.` : ''} A serial number belongs to one thing for ever.`,
  },
  'serial-not-there': {
    status: 409,
    title: 'Not there',
    detail: ({ lines }) =>
      `${(lines as { serial?: string; now?: string }[])
        .slice(0, 5)
        .map(({ serial, now }) => `${serial} is not in this bin: it is ${now === 'not in stock' ? now : `in ${now}`}.`)
        .join(' ')} Take it from there, or correct the books by a count.`,
  },
  'serial-in-stock': {
    status: 409,
    title: 'There already',
    detail: ({ lines }) =>
      `${list((lines as { serial?: string }[]).map(({ serial }) => serial))} would be in two places. Name each serial once.`,
  },
  'serial-on-bench': {
    status: 409,
    title: 'On a bench',
    detail: ({ code, build }) =>
      `The books have ${code} on the bench for ${build}. Finish or cancel that build, or count without it.`,
  },
  'bench-first': {
    status: 422,
    title: 'On the bench already',
    detail: ({ name, count }) =>
      `${count} of ${name} stand on the bench for this; those are used before any from a shelf.`,
  },
  'serial-elsewhere': {
    status: 409,
    title: 'In another unit',
    detail: ({ code, unit, build }) =>
      `${code} went into ${unit} with ${build}, which is still here. Scan the one that came out of this unit.`,
  },
  'not-made-by': {
    status: 422,
    title: 'Another build',
    detail: ({ name }) => `That build did not make this ${name}. Choose one from the list, or none.`,
  },
  'made-otherwise': {
    status: 409,
    title: 'Made from another revision',
    detail: ({ build, revision }) =>
      `This was made with ${build} from revision ${revision}. Its parts come back by that one; look at them again.`,
  },
  'made-differently': {
    status: 409,
    title: 'Not made alike',
    detail: ({ builds }) =>
      `These were made from different revisions (${list(builds)}). Take those of each build apart on their own.`,
  },
  'serial-needs-whole': {
    status: 422,
    title: 'Whole units only',
    detail: () => 'What is kept by serial number is counted in whole units. Choose a unit without decimals.',
  },
  'stock-is-tracked': {
    status: 422,
    title: 'Kept by lot or serial',
    detail: ({ tracking }) => `It is kept by ${tracking}, which this file does not name. Receive it under Goods in.`,
  },
  'nothing-on-hand': {
    status: 409,
    title: 'Nothing on hand',
    detail: ({ name }) => `${name} is not in stock, so there is nothing to value anew.`,
  },
  'gs1-unreadable': {
    status: 422,
    title: 'Cannot be read',
    detail: ({ at }) => `This label cannot be read at “${at}”. Scan it again, or type what is printed on it.`,
  },
  'cover-changed': {
    status: 409,
    title: 'Stock changed meanwhile',
    detail: () =>
      'Stock or other plans changed while you were looking. The figures are up to date now; check them and plan again.',
  },
  'parts-short': {
    status: 409,
    title: 'Parts are short',
    detail: ({ canStart }) =>
      Number(canStart) > 0
        ? `Parts are short for the whole build, but enough for ${amount(canStart)}.`
        : 'Parts are short; not even one can be built.',
  },
  'stock-short': {
    status: 409,
    title: 'Not enough there',
    detail: () =>
      'There is less in the bin than this would take. Take less, take it from elsewhere, or receive it first.',
  },
  'more-than-open': {
    status: 422,
    title: 'More than is open',
    detail: ({ open }) =>
      open === 0 ? 'Everything for this line has been picked.' : `Only ${amount(open)} is still open on this line.`,
  },
  'more-than-planned': {
    status: 422,
    title: 'More than planned',
    detail: ({ left }) => `Only ${amount(left)} of this build is left to finish. Plan another build for more.`,
  },
  'more-than-expected': {
    status: 422,
    title: 'More than went in',
    detail: ({ expected }) => `At most ${amount(expected)} of this can come back.`,
  },
  'undo-goods-gone': {
    status: 409,
    title: 'Cannot be undone any more',
    detail: () => 'The goods it brought have been used or moved since. Undo what used them first.',
  },
  'undo-value-gone': {
    status: 409,
    title: 'Cannot be undone any more',
    detail: () => 'The cost it brought in has been used by later postings. Undo those first.',
  },
  'already-undone': {
    status: 409,
    title: 'Already undone',
    detail: ({ number }) => `${number} has undone this already.`,
  },
  'undo-final': { status: 409, title: 'Cannot be undone', detail: ({ why }) => String(why) },
  'sign-in': { status: 401, title: 'Who is working?', detail: () => 'Choose who you are first.' },
  'owner-only': { status: 403, title: 'For the owner', detail: () => 'Only an owner may do this. Ask one to.' },
  'key-missing': { status: 400, title: 'Key missing', detail: () => 'A command needs an Idempotency-Key header.' },
  'key-reused': {
    status: 422,
    title: 'Key used before',
    detail: () => 'This Idempotency-Key belongs to another command.',
  },
  'foreign-origin': {
    status: 403,
    title: 'From elsewhere',
    detail: () => 'This was sent by a page that is not part of this application, so nothing was done.',
  },
  'disk-full': {
    status: 507,
    title: 'The disk is full',
    detail: () => 'The disk is full, nothing was saved. Free some space on it and try again.',
  },
  'data-read-only': {
    status: 503,
    title: 'Cannot be written',
    detail: () =>
      'The data cannot be written now, nothing was saved. Check the rights of the data folder and its disk.',
  },
  'data-damaged': {
    status: 503,
    title: 'The data cannot be read',
    detail: () =>
      'The data file cannot be read as it should. Stop the server, run npm run verify, and restore a backup.',
  },
  'data-busy': {
    status: 503,
    title: 'Busy',
    detail: () => 'Another program is working on the data, nothing was saved. Try again in a moment.',
  },
  'request-unreadable': {
    status: 400,
    title: 'Cannot be read',
    detail: () => 'This request cannot be read. Reload the page and try again.',
  },
  'request-too-slow': {
    status: 408,
    title: 'Too slow',
    detail: () => 'This request took too long to arrive. Try again.',
  },
  'body-too-large': {
    status: 413,
    title: 'Too much at once',
    detail: () => 'This is more than can be sent at once. Send it in several parts.',
  },
  'address-too-long': {
    status: 414,
    title: 'Address too long',
    detail: () => 'This address is longer than any of ours. Go back and try again.',
  },
  'media-type': {
    status: 415,
    title: 'Not in this form',
    detail: () => 'This cannot be taken in the form in which it was sent. Send JSON, or a file as it is.',
  },
  'too-many-requests': {
    status: 429,
    title: 'Too fast',
    detail: () => 'More was asked in a minute than one person can. Wait a moment and go on.',
  },
  'headers-too-large': {
    status: 431,
    title: 'Headers too large',
    detail: () => 'The headers of this request are too large. Clear the cookies of this address and try again.',
  },
  'bad-host': { status: 421, title: 'Wrong address', detail: () => 'This server answers on this machine only.' },
  'unknown-measure': {
    status: 422,
    title: 'Unknown unit',
    detail: ({ name, known }) =>
      `“${name}” is no unit or pack of this item. Type it in ${list(known)}, or add the pack to the item.`,
  },
  'barcode-check-digit': {
    status: 422,
    title: 'Wrong check digit',
    detail: ({ typed, right }) =>
      `${typed} looks like a GTIN, but its last digit would have to be ${right}. Scan it again; a number of your own needs a letter in it.`,
  },
  'barcode-shape': {
    status: 422,
    title: 'Not a barcode',
    detail: () => 'A barcode is up to 48 plain letters, digits and signs. Leave out accents and line breaks.',
  },
  'barcode-taken': {
    status: 409,
    title: 'Barcode taken',
    detail: ({ barcode, by }) => `${barcode} already belongs to ${by}. Each barcode means one item.`,
  },
  twice: { status: 422, title: 'There twice', detail: ({ name }) => `“${name}” is there twice. Take one out.` },
  'too-many': {
    status: 422,
    title: 'Too many',
    detail: ({ most }) => `No more than ${most} can be kept. Delete one first.`,
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
  'unit-decimals-used': {
    status: 409,
    title: 'Decimals in use',
    detail: ({ name, used }) =>
      `${name} has a quantity of ${used}, which would not fit. Nothing is rounded; keep the decimals.`,
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
  'same-bin': {
    status: 422,
    title: 'Nothing to move',
    detail: () => 'It would go where it comes from. Choose another bin.',
  },
  'nothing-to-count': {
    status: 422,
    title: 'Nothing to count',
    detail: () => 'Nothing that fits stands in these bins. Choose others, or leave the text and the day empty.',
  },
  'nothing-counted': {
    status: 409,
    title: 'Nothing counted yet',
    detail: () => 'Nobody has counted a line of this yet. Count some first, or give it up.',
  },
  'no-change': { status: 422, title: 'Nothing to change', detail: () => 'Type what is found or gone, like 3 or -2.' },
  'cost-unknown': {
    status: 422,
    title: 'Cost unknown',
    detail: ({ name }) => `Nobody has said what ${name} costs yet. Type what one is worth.`,
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
  'day-passed': { status: 422, title: 'Day passed', detail: () => 'Choose today or a later day.' },
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
  ...buyingProblems,
  ...fileProblems,
};

/** What a refusal says to a person, before it ever reached the server; undefined when `error` is something else. */
export function wordsOf(error: unknown): string | undefined {
  return error instanceof Refusal ? problemKinds[error.code]?.detail(error.facts) : undefined;
}
