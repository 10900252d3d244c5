import { Posting } from '@yosegi/core/ledger';
import { add, countedIn, minus, negated, type Quantity, SCALE, ZERO } from '@yosegi/core/number';
import { checkPick } from '@yosegi/core/picking';
import { Refusal } from '@yosegi/core/refusal';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import { itemRows } from '../items/index.ts';
import { readStock, spotIn, withNames, writeDocument } from '../ledger/index.ts';
import {
  backOf,
  changeParts,
  orderRecord,
  type PartChange,
  parcelOf,
  partsOfOrder,
  requireState,
  touched,
} from '../orders/index.ts';
import { benchBinOf, requireShelf } from '../places/index.ts';
import { heapsOut } from '../tracking/index.ts';

/**
 * Brings goods from bins into the parcel of an order, as one document.
 * @param causeId the document that it is undone with
 */
export async function packOrder(doing: Doing, id: number, input: BodyOf<'packOrder'>, causeId?: number) {
  const { tx } = doing;
  requireState(found(await orderRecord(tx, id)), ['confirmed']);
  const parts = await partsOfOrder(doing, id);
  const itemIds = parts.map((part) => part.item_id);
  const items = await itemRows(tx, itemIds);
  const posting = new Posting(await readStock(tx, itemIds));
  const parcel = await parcelOf(tx, id, doing.now);
  const holder = { kind: 'parcel', id: parcel.id } as const;
  const packed = new Map<number, Quantity>();
  for (const [index, asked] of input.lines.entries()) {
    const at = (name: string) => `lines.${index}.${name}`;
    const part = parts.find((known) => known.id === asked.partId);
    if (!part) throw new Refusal('unknown-line', {}, at('partId'));
    await requireShelf(tx, asked.binId, at('binId'));
    const quantity = countedIn(asked.quantity, part.decimals, at('quantity'));
    const before = packed.get(part.id) ?? ZERO;
    checkPick(minus(part.open, before), quantity, at('quantity'));
    const item = found(items.get(part.item_id));
    const bench = await benchBinOf(tx, asked.binId);
    for (const taken of await heapsOut(tx, posting, item, asked.binId, quantity, asked, at, {
      toUse: true,
      overridden: false,
    }))
      posting.move(taken.spot, { ...taken.spot, binId: bench, holder }, taken.quantity, part.id);
    packed.set(part.id, add(before, quantity));
  }
  const posted = await withNames(tx, () => posting.close());
  const subject = { kind: 'pick', for: { kind: 'order', id }, remark: `Into ${parcel.number}` } as const;
  const cause = causeId === undefined ? {} : { causeId };
  const document = await writeDocument(doing, { ...subject, ...cause }, posted);
  await keepParts(doing, id, packed);
  const openLines = (await partsOfOrder(doing, id)).filter((part) => part.open > 0).length;
  return { ...document, openLines, parcel: parcel.number };
}

/** Puts goods from the parcels of an order back on a shelf: the bin they came from, or another. */
export async function unpackOrder(doing: Doing, id: number, input: BodyOf<'unpackOrder'>) {
  const { tx } = doing;
  const order = found(await orderRecord(tx, id));
  const parts = await partsOfOrder(doing, id);
  const items = await itemRows(
    tx,
    parts.map((part) => part.item_id),
  );
  const back = await backOf(doing, id, parts);
  const posting = new Posting(await readStock(tx, [...items.keys()]));
  const taken = new Map<number, Quantity>();
  for (const [index, asked] of input.lines.entries()) {
    const at = (name: string) => `lines.${index}.${name}`;
    const part = parts.find((known) => known.id === asked.partId);
    if (!part) throw new Refusal('unknown-line', {}, at('partId'));
    if (asked.binId !== null) await requireShelf(tx, asked.binId, at('binId'));
    const item = found(items.get(part.item_id));
    const quantity = countedIn(asked.quantity, part.decimals, at('quantity'));
    const left = minus(part.packed, taken.get(part.id) ?? ZERO);
    if (quantity <= 0) throw new Refusal('not-positive', {}, at('quantity'));
    if (quantity > left) throw new Refusal('not-packed', { name: item.name, packed: left }, at('quantity'));
    if (item.tracking === 'serial' && asked.serials.length * SCALE !== quantity)
      throw new Refusal(
        'serials-needed',
        { name: item.name, count: quantity / SCALE, given: asked.serials.length },
        at('serials'),
      );
    const named = new Set(asked.serials.map((code) => code.toLowerCase()));
    for (const code of asked.serials)
      if (!back.standing.some((row) => row.item_id === item.id && row.serial?.toLowerCase() === code.toLowerCase()))
        throw new Refusal('serial-unknown', { code, name: item.name }, at('serials'));
    const spots = new Set(
      back.standing
        .filter((row) => (item.tracking === 'serial' ? named.has(row.serial?.toLowerCase() ?? '') : true))
        .filter((row) => asked.lot === null || row.lot?.toLowerCase() === asked.lot.toLowerCase())
        .map((row) => JSON.stringify(spotIn(row))),
    );
    if (asked.lot !== null && spots.size === 0)
      throw new Refusal('lot-unknown', { code: asked.lot, name: item.name }, at('lot'));
    back.putBack(posting, part, quantity, ({ spot }) => spots.has(JSON.stringify(spot)), asked.binId);
    taken.set(part.id, add(taken.get(part.id) ?? ZERO, quantity));
  }
  const posted = await withNames(tx, () => posting.close());
  const subject = {
    kind: 'put-back',
    for: { kind: 'order', id },
    remark: `Out of the parcel of ${order.number}`,
  } as const;
  const document = await writeDocument(doing, subject, posted);
  await keepParts(doing, id, new Map([...taken].map(([partId, quantity]) => [partId, negated(quantity)])));
  return document;
}

async function keepParts(doing: Doing, id: number, packed: ReadonlyMap<number, Quantity>): Promise<void> {
  const changes = [...packed].map(([partId, quantity]): [number, PartChange] => [
    partId,
    { shipped: 0, packed: quantity },
  ]);
  await changeParts(doing.tx, new Map(changes));
  await touched(doing, id);
}
