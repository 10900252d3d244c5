import type { Posted } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import { balanceShares } from '@yosegi/core/definitions';
import { bringInAt, Posting } from '@yosegi/core/ledger';
import { groupBy } from '@yosegi/core/lists';
import { add, countedIn, type Money, negated, ONE, type Percent, type Quantity, ZERO } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { takeApart } from '@yosegi/core/takeapart';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import { revisionRow } from '../definitions/index.ts';
import { freeOf, type ItemRow, itemRow } from '../items/index.ts';
import { balancesOf, mayGoBelow, readStock, refuseHeld, withNames, writeDocument } from '../ledger/index.ts';
import { promisedTo } from '../orders/index.ts';
import { requireShelf } from '../places/index.ts';
import { type PieceRecord, piecesById, spotsOf, worthOf, writeOutcomes } from '../returns/index.ts';
import { heapsIn, heapsOut } from '../tracking/index.ts';
import { type BackLine, expectedOf, linesBack } from './back.ts';
import { refuseOtherRevision } from './made-by.sql.ts';
import { finishesOf, refuseElsewhere } from './sql.ts';

type Input = BodyOf<'takeApart'>;
type Product = Input['others'][number];

/** What of a line really is there, as somebody typed it. */
interface Returned extends BackLine {
  readonly named: Product['lines'][number];
  readonly at: (name: string) => string;
  readonly good: Quantity;
  readonly damaged: Quantity;
  readonly expected: Quantity;
}

/** One product, read and judged before anything is posted. */
interface Ready {
  readonly input: Product;
  readonly item: ItemRow;
  readonly piece: PieceRecord | null;
  readonly quantity: Quantity;
  readonly lines: readonly Returned[];
  readonly at: (name: string) => string;
}

/**
 * Takes units apart, of one product or of several in one document, from stock or as they came back: the value of each is
 * split exactly over its good parts and what is written off.
 * @throws Refusal `unknown-item`, `unknown-choice`, `unknown-line`, `shares-over`, `shares-under`, `more-than-waiting`, and
 * what stock, lots and serials are refused for
 */
export async function takeUnitsApart(doing: Doing, input: Input): Promise<Posted> {
  const { tx } = doing;
  const products: Ready[] = [await ready(doing, input, (name) => name)];
  for (const [index, other] of input.others.entries())
    products.push(await ready(doing, other, (name) => `others.${index}.${name}`));
  for (const [index, { piece, at }] of products.entries())
    if (piece && products.findIndex((one) => one.piece?.piece_id === piece.piece_id) < index)
      throw new Refusal('unknown-choice', {}, at('pieceId'));
  if (!input.alsoPromised && input.override === undefined) await refusePromised(doing, products);
  const itemIds = products.flatMap(({ item, lines }) => [item.id, ...lines.map(({ part }) => part.id)]);
  const posting = new Posting(await readStock(tx, itemIds), { mayGoBelow: mayGoBelow(doing, input.override) });
  const taken = [];
  for (const product of products) taken.push(await post(doing, posting, product, input.override !== undefined));
  const posted = await withNames(tx, () => posting.close());
  const { remark, override } = input;
  const returns = new Set(products.map(({ piece }) => piece?.return_id ?? null));
  const [returnId] = returns.size === 1 ? returns : [null];
  const subject = returnId == null ? null : { kind: 'return', id: returnId };
  const document = await writeDocument(doing, { kind: 'take-apart', remark, override, for: subject }, posted);
  for (const [place, one] of taken.entries()) await write(doing, document.id, place, one);
  await writeOutcomes(
    doing,
    document.id,
    taken.flatMap(({ piece, quantity, worth }, position) =>
      piece
        ? [
            {
              position,
              piece_id: piece.piece_id,
              quantity,
              value: worth,
              outcome: 'apart',
              bin_id: null,
              build_id: null,
              note: '',
            },
          ]
        : [],
    ),
  );
  return document;
}

/** Who is promised something hears it before it is taken apart. @throws Refusal `apart-promised` with to whom */
async function refusePromised({ tx, now }: Doing, products: readonly Ready[]): Promise<void> {
  const taken = groupBy(
    products.filter(({ piece }) => piece === null),
    ({ item }) => item.id,
  );
  for (const [itemId, own] of taken) {
    const [first] = own;
    if (!first || first.item.promised <= 0) continue;
    const free = Math.max(0, freeOf(first.item)) as Quantity;
    if (add(ZERO, ...own.map(({ quantity }) => quantity)) <= free) continue;
    const promised = await promisedTo(tx, itemId, dayOf(now));
    const to = [...new Set(promised.map(({ number, who }) => `${number} (${who})`))];
    throw new Refusal(
      'apart-promised',
      { name: first.item.name, free, to: to.slice(0, MOST_NAMED) },
      first.at('quantity'),
    );
  }
}

/** The most of those to whom something is promised that are named. */
const MOST_NAMED = 5;

async function ready(doing: Doing, asked: Product, at: (name: string) => string): Promise<Ready> {
  const { tx } = doing;
  const piece = asked.pieceId === null ? null : found((await piecesById(tx, [asked.pieceId]))[0]);
  const input = piece ? { ...asked, lot: piece.lot, serials: piece.serial === null ? [] : [piece.serial] } : asked;
  if (piece && piece.item_id !== input.itemId) throw new Refusal('unknown-choice', {}, at('pieceId'));
  const item = await itemRow(tx, input.itemId);
  if (!item) throw new Refusal('unknown-item', {}, at('itemId'));
  const revision = await revisionRow(tx, input.revisionId);
  if (!revision || revision.item_id !== item.id || revision.state === 'draft')
    throw new Refusal('unknown-choice', {}, at('revisionId'));
  const build = await namedAt(at, () => refuseOtherRevision(tx, item, input, revision.id));
  if (!piece) await requireShelf(tx, input.binId, at('binId'));
  const quantity = countedIn(input.quantity, item.decimals, at('quantity'));
  const back = (await linesBack(tx, item.id, revision, input, build?.buildId ?? null)).lines;
  const lines: Returned[] = [];
  for (const [index, typed] of input.lines.entries()) {
    const own = (name: string) => at(`lines.${index}.${name}`);
    const known = back.find(({ lineId }) => lineId === typed.lineId);
    if (!known) throw new Refusal('unknown-line', {}, own('lineId'));
    await requireShelf(tx, typed.binId, own('binId'));
    const good = countedIn(typed.good, known.part.decimals, own('good'));
    const damaged = countedIn(typed.damaged, known.part.decimals, own('damaged'));
    lines.push({ ...known, named: typed, at: own, good, damaged, expected: expectedOf(known, quantity) });
  }
  if (new Set(lines.map(({ lineId }) => lineId)).size !== back.length)
    throw new Refusal('unknown-line', {}, at('lines'));
  return { input, item, piece, quantity, lines, at };
}

/** What a step refuses bears the names of its product's part of the form. */
async function namedAt<T>(at: (name: string) => string, step: () => T | Promise<T>): Promise<T> {
  try {
    return await step();
  } catch (error) {
    throw error instanceof Refusal && error.field ? error.at(at(error.field)) : error;
  }
}

/** Posts one product: out at what it is worth, its good parts in, the rest written off. */
async function post(doing: Doing, posting: Posting, product: Ready, overridden: boolean) {
  const { tx } = doing;
  const { input, item, piece, quantity, lines, at } = product;
  const worth = piece ? worthOf(piece, quantity, at('quantity')) : ZERO;
  let value: Money = worth;
  if (piece) posting.takeOutAt(found((await spotsOf(tx, piece.return_id))(piece)), quantity, worth);
  else {
    const taken = await heapsOut(tx, posting, item, input.binId, quantity, input, at, { toUse: false, overridden });
    const there = (await balancesOf(tx, [item.id])).filter((row) => row.holder_id === null);
    value = add(ZERO, ...taken.map((one) => posting.takeOut(one.spot, one.quantity)));
    refuseHeld(
      there,
      (spot) => posting.at(spot),
      at(item.tracking === 'none' ? 'binId' : item.tracking === 'lot' ? 'lot' : 'serials'),
    );
  }
  const shares = sharesFor(lines, input.writeOff, at);
  const weighed = lines.map((line, index) => ({ ...line, share: shares[index] ?? line.share }));
  // What never comes back is a line of its own of which nothing is good.
  const never = { share: input.writeOff, expected: ONE, good: ZERO, damaged: ZERO };
  const all = input.writeOff > 0 ? [...weighed, never] : weighed;
  const split = await namedAt(at, () => takeApart(value, all, input.leftover));
  const wentIn = await finishesOf(tx, item.id, input.lot, input.serials);
  for (const [index, line] of weighed.entries()) {
    if (line.good === 0) continue;
    // A part that is tracked comes back under its own lot or serial.
    const { part, named } = line;
    const spots = await heapsIn(doing, part, named.binId, line.good, named, line.at, { mayReturn: true });
    const serialIds = spots.flatMap(({ spot }) => spot.serialId ?? []);
    await refuseElsewhere(tx, item, wentIn, serialIds, line.at('serials'));
    bringInAt(posting, spots, split.lines[index]?.value ?? ZERO);
  }
  posting.addValue('written-off', negated(split.writtenOff), { itemId: item.id });
  return { ...product, weighed, split, worth };
}

async function write(
  { tx }: Doing,
  documentId: number,
  place: number,
  { input, item, quantity, weighed, split }: Awaited<ReturnType<typeof post>>,
): Promise<void> {
  await tx.insert('take_apart', {
    document_id: documentId,
    place,
    item_id: item.id,
    revision_id: input.revisionId,
    build_id: input.buildId,
    quantity,
    leftover: input.leftover,
    piece_id: input.pieceId,
  });
  await tx.insertMany(
    'take_apart_line',
    weighed.map((line, position) => ({
      document_id: documentId,
      place,
      position,
      item_id: line.part.id,
      bin_id: line.named.binId,
      share: line.share,
      expected: line.expected,
      good: line.good,
      damaged: line.damaged,
      missing: split.lines[position]?.missing ?? ZERO,
      value: split.lines[position]?.value ?? ZERO,
      written_off: split.lines[position]?.writtenOff ?? ZERO,
    })),
  );
}

/**
 * Shares for this once, exactly a hundred together with what is written off: those that were typed stand, the others part
 * what is left as they do without.
 * @throws Refusal `shares-over`, `shares-under`
 */
function sharesFor(lines: readonly Returned[], writeOff: Percent, at: (name: string) => string): Percent[] {
  const typed = lines.find(({ named }) => named.share !== null);
  if (!typed && writeOff === 0) return lines.map(({ share }) => share);
  const own = lines.map(({ share, named }) => ({ typed: named.share, cost: share, comesBack: true }));
  try {
    return balanceShares([...own, { typed: writeOff, cost: 0, comesBack: true }]).slice(0, lines.length);
  } catch (error) {
    throw error instanceof Refusal ? error.at(typed ? typed.at('share') : at('writeOff')) : error;
  }
}
