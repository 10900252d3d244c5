import { type Movement, Posting } from '@yosegi/core/ledger';
import { add, least, minus, negated, type Quantity, ZERO } from '@yosegi/core/number';
import type { Doing } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { type LedgerFeature, type PostedDocument, readStock, refusePickGone, writeDocument } from '../ledger/index.ts';
import { putBackSince } from './parcels.sql.ts';
import { touched } from './parcels.ts';
import { addShipped, changeParts, orderLines, orderParties, orderParts, type PartChange } from './sql.ts';

export const orderLedger: LedgerFeature = {
  refuseUndo: async (db, document) => {
    if (document.kind === 'pick' && document.for?.kind === 'order')
      refusePickGone(document, await packedOf(db, document.for.id));
  },
  lapsed: isBackOnShelves,
  undone: { shipment: takeBack, pick: unpack },
  parties: orderParties,
};

/**
 * What a build had kept in a parcel may have been put back since, as when its order was cancelled: then the pick stays as it
 * is, and only what is left of it in the parcel goes back.
 */
async function isBackOnShelves(doing: Doing, document: PostedDocument): Promise<boolean> {
  if (document.kind !== 'pick' || document.for?.kind !== 'order') return false;
  const { tx } = doing;
  const orderId = document.for.id;
  const kept = document.movements.filter(({ holder, quantity }) => holder?.kind === 'parcel' && quantity > 0);
  const posting = new Posting(
    await readStock(
      tx,
      kept.map(({ itemId }) => itemId),
    ),
  );
  const packed = new Map(await packedOf(tx, orderId));
  const gone = new Map<number, Quantity>();
  const left = new Map<Movement, Quantity>();
  for (const movement of kept) {
    const { lineId, quantity } = movement;
    const standing = least(packed.get(lineId ?? 0) ?? ZERO, Math.max(0, posting.at(movement)) as Quantity);
    const own = least(quantity, standing);
    packed.set(lineId ?? 0, minus(packed.get(lineId ?? 0) ?? ZERO, own));
    left.set(movement, own);
    gone.set(lineId ?? 0, add(gone.get(lineId ?? 0) ?? ZERO, minus(quantity, own)));
  }
  if ([...gone.values()].every((quantity) => quantity === 0)) return false;
  const back = new Map((await putBackSince(tx, orderId, document.id)).map((row) => [row.part_id, row.quantity]));
  for (const [partId, quantity] of gone) if (quantity > (back.get(partId) ?? ZERO)) return false;
  await giveUpKept(doing, document);
  await putRestBack(doing, orderId, document, posting, left);
  return true;
}

/** What stands in parcels for each part of an order. */
async function packedOf(db: Reader, orderId: number): Promise<ReadonlyMap<number, Quantity>> {
  const lines = await orderLines(db, [orderId]);
  const parts = await orderParts(
    db,
    lines.map(({ id }) => id),
  );
  return new Map(parts.map((part) => [part.id, part.packed]));
}

/** What is left in the parcel of a pick goes back to where that took it from. */
async function putRestBack(
  doing: Doing,
  orderId: number,
  document: PostedDocument,
  posting: Posting,
  standing: Map<Movement, Quantity>,
): Promise<void> {
  const changes = new Map<number, PartChange>();
  const sources = document.movements.filter(({ holder, quantity }) => holder === null && quantity < 0);
  for (const { binId, quantity, lineId, ...spot } of sources) {
    const { itemId, lotId, serialId } = spot;
    const from = document.movements.find(
      (one) => one.quantity > 0 && one.lineId === lineId && one.lotId === lotId && one.serialId === serialId,
    );
    if (!from || lineId === null) continue;
    const left = least(negated(quantity), standing.get(from) ?? ZERO);
    if (left === 0) continue;
    standing.set(from, minus(standing.get(from) ?? ZERO, left));
    posting.move(from, { itemId, binId, lotId, serialId, holder: null }, left, lineId);
    changes.set(lineId, { shipped: 0, packed: minus(changes.get(lineId)?.packed ?? ZERO, left) });
  }
  if (changes.size > 0) {
    const subject = { kind: 'put-back', for: { kind: 'order', id: orderId } } as const;
    await writeDocument(doing, { ...subject, remark: `${document.number} given up` }, posting.close());
    await changeParts(doing.tx, changes);
  }
  await touched(doing, orderId);
}

/**
 * What an undone shipment had sent is open on its order again, and in its parcel what stood in one: that is here again, also
 * where its last went with a later shipment.
 */
async function takeBack(doing: Doing, document: PostedDocument): Promise<void> {
  const { tx } = doing;
  const lines = await tx.models.shipment_line.findAll({ where: { document_id: document.id } });
  await addShipped(tx, new Map(lines.map((line) => [line.line_id, negated(line.quantity)])));
  const parcels = document.movements.flatMap(({ holder }) => (holder?.kind === 'parcel' ? holder.id : []));
  await tx.models.parcel.update({ shipped_id: null }, { where: { id: [...new Set(parcels)] } });
  await changeBack(doing, document);
}

/** What was picked for an order is on its shelf again, and no build has kept anything for it by that. */
async function unpack(doing: Doing, document: PostedDocument): Promise<void> {
  if (document.for?.kind !== 'order') return;
  await giveUpKept(doing, document);
  await changeBack(doing, document);
}

async function changeBack(doing: Doing, document: PostedDocument): Promise<void> {
  const changes = new Map<number, PartChange>();
  for (const { lineId, quantity, holder } of document.movements) {
    if (lineId === null) continue;
    const { shipped, packed } = changes.get(lineId) ?? { shipped: 0, packed: 0 };
    changes.set(lineId, {
      shipped: shipped + quantity,
      packed: packed - (holder === null ? 0 : quantity),
    });
  }
  await changeParts(doing.tx, changes);
  await touched(doing, document.for?.id ?? 0);
}

/** What a build had kept for the parts of an undone pick is to be built for them again. */
async function giveUpKept({ tx }: Doing, document: PostedDocument): Promise<void> {
  const { cause_id } = (await tx.models.document.findByPk(document.id)) ?? { cause_id: null };
  const finish = cause_id === null ? null : await tx.models.finish.findByPk(cause_id);
  if (!finish) return;
  for (const { lineId, quantity, holder } of document.movements) {
    if (lineId === null || holder === null) continue;
    const where = { build_id: finish.build_id, part_id: lineId };
    const row = await tx.models.build_for.findOne({ where });
    if (row) await tx.models.build_for.update({ kept: minus(row.kept, least(row.kept, quantity)) }, { where });
  }
}
